using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Advice.Rules;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.FreezeLadder;

namespace WarmConduit.Core.Advice;

/// <summary>A rule of the trade, asked of a rig.</summary>
internal interface IRule
{
    /// <summary>The kinds of finding that are its own. Each kind is of one rule; another rule may find it too.</summary>
    IReadOnlyList<FindingKind> Kinds { get; }

    /// <summary>How what is tried against them is judged.</summary>
    Harm Harm => Harm.Plain;

    /// <summary>What it finds, in any order.</summary>
    IEnumerable<Finding> Find(Question question);

    /// <summary>What might mend one of its kinds, the plainest first, besides what the finding itself proposes.</summary>
    IEnumerable<Idea> Fixes(Finding finding, Ideas ideas) => [];
}

/// <summary>The findings.</summary>
/// <param name="Findings">Most severe first; at most 400.</param>
/// <param name="Count">How many there are in all.</param>
public sealed record AdviceAnswer(IReadOnlyList<Finding> Findings, int Count);

/// <summary>Asks all rules.</summary>
public static class Adviser
{
    private const int Most = 400;

    private static readonly IRule[] All =
    [
        new NothingOpenRule(),
        new PoolRule(),
        new AirlockRule(),
        new ParkingRule(),
        new KeepsWaterRule(),
        new FirstIceRule(),
        new FlatRunRule(),
        new JointInKeepOutRule(),
        new LooseEndRule(),
        new BareZoneRule(),
        new DocumentRule(),
        new BackwardsRule(),
        new NoIsolatorRule(),
        new ScaldRule(),
        new ChokedRule(),
        new HumpRule(),
        new PipeUnfitRule(),
        new InTheWayRule(),
        new SharedPlaceRule(),
        new OutOfReachRule(),
        new ReachRule(),
        new SagRule(),
        new TightBendRule(),
        new BareSkinRule(),
        new GrommetRule(),
        new TankRule(),
        new LevellingRule(),
        new GuardRule(),
        new HotColdRule(),
        new SchoolRule(),
        new HeatShortRule(),
        new TaskRule(),
        new HeatingRule(),
        new SingleWallRule(),
        new ColdBatteryRule(),
    ];

    private static readonly Dictionary<FindingKind, IRule> ByKind = All.SelectMany(r => r.Kinds, (rule, kind) => (rule, kind))
        .ToDictionary(r => r.kind, r => r.rule);

    /// <summary>The rule that a kind of finding is of.</summary>
    internal static IRule RuleOf(FindingKind kind) => ByKind[kind];

    /// <summary>
    /// Findings on a rig, most severe first, of these what breaks on the night that is asked about; of a kind the soonest ice and the largest numbers lead.
    /// How severe falls and pools are depends on the school:
    /// faults where the rig relies on draining, less where air, antifreeze or heat does the work. Pure.
    /// </summary>
    public static AdviceAnswer Ask(Question question)
    {
        var findings = new List<Finding>();
        foreach (var rule in All)
        {
            question.Cancel.ThrowIfCancellationRequested();
            findings.AddRange(rule.Find(question));
        }
        static double? Lead(Finding f) => RuleOf(f.Kind).Harm.SoonestLeads ? -f.Number?.Value : f.Number?.Value;
        var damage = Damage(question);
        var sorted = findings.OrderBy(f => f.Severity).ThenBy(f => damage(f) ? 0 : 1).ThenBy(f => f.Kind).ThenByDescending(Lead)
            .ThenBy(f => f.Id, StringComparer.Ordinal).ToList();
        return new AdviceAnswer(sorted.Count > Most ? sorted[..Most] : sorted, sorted.Count);
    }

    // Water that breaks something on this night, and the ice that does: damage goes before what is merely wet.
    private static Func<Finding, bool> Damage(Question question)
    {
        var broken = question.Ask(FreezeLadderStudy.Ask).Rungs.Where(r => r.Breaks).SelectMany(r => (string?[])[r.RunId, r.PartId]).OfType<string>()
            .ToHashSet();
        return f => f.Kind == FindingKind.NothingOpen || RuleOf(f.Kind).Harm.Follows && (f.RunIds.Any(broken.Contains)
            || (f.Place?.PartId is { } part && broken.Contains(part)));
    }
}
