using WarmConduit.Core.Advice.Rules;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Heating;
using WarmConduit.Core.Studies.Left;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Outlook;

/// <summary>The outlook for a rig on a night.</summary>
public enum OutlookState
{
    /// <summary>Nothing freezes by morning.</summary>
    Safe,

    /// <summary>Something freezes by morning; nothing breaks.</summary>
    AtRisk,

    /// <summary>Ice breaks something by morning.</summary>
    FreezeDamage,

    /// <summary>Too little of the rig is drawn to tell.</summary>
    Unknown,
}

/// <summary>What to do next about it.</summary>
public enum NextKind
{
    /// <summary>Draw something that holds water.</summary>
    Draw,

    /// <summary>Describe a room's walls.</summary>
    DescribeRoom,

    /// <summary>Drain the rig.</summary>
    Drain,

    /// <summary>See to a finding.</summary>
    Finding,

    /// <summary>Keep the heat on.</summary>
    KeepHeat,

    /// <summary>Fill up or charge: what the brief gives a night is used up before morning.</summary>
    Supply,
}

/// <summary>What to do next.</summary>
/// <param name="Kind">What kind of thing it is.</param>
/// <param name="Words">In words: "Open drain A and drain B".</param>
/// <param name="BeforeS">By when, seconds from the start of the night, rounded down to a quarter of an hour; null: no matter when.</param>
/// <param name="FindingId">The finding it is about; null: none.</param>
/// <param name="ZoneId">The room it is about; null: none.</param>
public sealed record NextStep(NextKind Kind, string Words, double? BeforeS = null, string? FindingId = null, string? ZoneId = null);

/// <summary>The verdict on a night, in the state the rig is left in: the first line of every screen.</summary>
/// <param name="State">The verdict.</param>
/// <param name="Water">The state that was assumed of the water system.</param>
/// <param name="Left">The state from what was done to it, where the water is as it was left; else null.</param>
/// <param name="FirstName">What breaks first, or freezes first where nothing breaks; null: nothing does.</param>
/// <param name="FirstS">When, seconds from the start of the night. Estimate.</param>
/// <param name="StaysL">Water in the rig: what stays after draining, L; null where it is full.</param>
/// <param name="Next">What to do next; null: nothing.</param>
public sealed record OutlookAnswer(
    OutlookState State, WaterState Water, LeftWord? Left, string? FirstName, double? FirstS, double? StaysL, NextStep? Next);

/// <summary>The one verdict.</summary>
public static class OutlookStudy
{
    private const double QuarterS = 900;
    private const int MostNames = 3;

    /// <summary>The ladder's verdict, with the first thing to do about it. Pure.</summary>
    public static OutlookAnswer Ask(Question question)
    {
        var ladder = question.Ask(FreezeLadderStudy.Ask);
        var water = question.Conditions.Water;
        var left = water == WaterState.AsLeft ? question.Ask(LeftStudy.Ask) : null;
        double? stays = water switch
        {
            WaterState.Wet => null,
            WaterState.AsLeft => left!.StaysL,
            _ => question.Ask(DrainDownStudy.Ask).Stays.TotalL,
        };
        var first = ladder.Rungs.FirstOrDefault(r => r.State != IceState.Safe);
        OutlookAnswer Told(OutlookState state, NextStep? next) => new(state, water, left?.Word, first?.Name, first?.AtS, stays, next);

        if (!question.Rig.Parts.Any(p => PartWater.HoldsL(p) > 0)) return Told(OutlookState.Unknown, new NextStep(NextKind.Draw, "Add a tank"));
        if (question.Rig.Runs.Count == 0) return Told(OutlookState.Unknown, new NextStep(NextKind.Draw, "Draw a line from the tank"));
        if (ladder.Verdict == Verdict.Fails) return Told(OutlookState.FreezeDamage, ToDo(question, first));
        // What it was taken to be as cold as is not known.
        if (BareRoom(question) is { } bare)
            return Told(OutlookState.Unknown, new NextStep(NextKind.DescribeRoom, $"Describe the walls of {bare.Name}", ZoneId: bare.Id));
        if (ladder.Verdict == Verdict.PassesButForIce) return Told(OutlookState.AtRisk, ToDo(question, first));
        // In frost a full rig is safe by its heat: another night without it would say no more than that.
        bool heated = question.Conditions.HeatOn && water == WaterState.Wet && question.Conditions.Steady().OutdoorC < 0;
        return Told(OutlookState.Safe, heated ? ByHeat(question) : null);
    }

    // Heat that runs out before morning holds no longer than that.
    private static NextStep ByHeat(Question question)
    {
        var night = question.Ask(RigNight.Of);
        var soonest = new EnergyMeter(question).Of(night).Kinds(question.Rig.Brief.Chosen()).Select(k => (k.Kind, AtS: EnergyMeter.EmptyS(k.ByHour, k.Has)))
            .Where(k => k.AtS < night.MorningS).OrderBy(k => k.AtS).FirstOrDefault();
        return soonest.AtS is { } atS
            ? new NextStep(NextKind.Supply, soonest.Kind == EnergyKind.Fuel ? "Fill up with fuel" : "Charge the battery", Math.Floor(atS / QuarterS) * QuarterS)
            : new NextStep(NextKind.KeepHeat, "Keep the heat on");
    }

    private static NextStep? ToDo(Question question, Rung? first)
    {
        var water = question.Conditions.Water;
        if (water != WaterState.Drained && Drains(question.Rig) is { Count: > 0 } drains
            && question.With(question.Conditions with { Water = WaterState.Drained }).Ask(FreezeLadderStudy.Ask).Verdict != Verdict.Fails)
            return new NextStep(NextKind.Drain, $"Open {Joined(drains)}", first?.AtS is { } s ? Math.Floor(s / QuarterS) * QuarterS : null);
        // What is said to go first comes first; where nothing was found about it, the worst there is.
        var findings = question.Ask(Adviser.Ask).Findings.Where(f => f.Severity != Severity.Note).ToList();
        var next = findings.FirstOrDefault(f => IsAbout(f, first)) ?? findings.FirstOrDefault();
        return next is null ? null : new NextStep(NextKind.Finding, next.Title, FindingId: next.Id);
    }

    private static bool IsAbout(Finding finding, Rung? rung) => rung switch
    {
        { PartId: { } part } => finding.Place?.PartId == part,
        { RunId: { } run } => finding.RunIds.Contains(run),
        _ => false,
    };

    private static List<string> Drains(Rig rig) =>
        [.. rig.Parts.Where(p => Catalogue.Part(p.Stock)!.Passage == Passage.Drain).Select(p => p.Name).Order(StringComparer.OrdinalIgnoreCase)];

    private static string Joined(List<string> names) => names.Count switch
    {
        1 => names[0],
        <= MostNames => $"{string.Join(", ", names.SkipLast(1))} and {names[^1]}",
        _ => $"{string.Join(", ", names.Take(MostNames - 1))} and {names.Count - MostNames + 1} more",
    };

    // A room with water in it that no wall is described of.
    private static Zone? BareRoom(Question question)
    {
        var wet = question.Ask(FreezeLadderStudy.Ask).Rungs.Select(r => r.ZoneId).ToHashSet();
        return BareZoneRule.Bare(question.Rig.Shell).FirstOrDefault(z => wet.Contains(z.Id));
    }
}
