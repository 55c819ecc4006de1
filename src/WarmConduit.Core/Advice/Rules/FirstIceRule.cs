using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>Parts that reach first ice before morning.</summary>
internal sealed class FirstIceRule : IRule
{
    public IReadOnlyList<FindingKind> Kinds => [FindingKind.FirstIce];

    // An hour later is help, though it freezes before morning.
    public Harm Harm => Harm.Water with { Follows = true, SoonestLeads = true, Helps = (was, _, now) => now - was >= AnHourS };

    private const double AnHourS = 3600;

    /// <summary>Ids of findings of lines that ice breaks begin so.</summary>
    public const string OfRun = "ice:run:";

    public IEnumerable<Idea> Fixes(Finding finding, Ideas ideas) => finding.Place?.PartId is { } id
        ? ideas.ByHand(id).Concat(ideas.OfPoolsAt(id)).Concat(ideas.Warmed(id)) : finding.RunIds.SelectMany(ideas.OfBurst);

    public IEnumerable<Finding> Find(Question question)
    {
        foreach (var rung in Freezing(question)) yield return Of(question, rung);
        // Of a line that ice breaks, the piece that goes first.
        foreach (var rung in question.Ask(FreezeLadderStudy.Ask).Rungs.Where(r => r is { RunId: not null, Breaks: true }).DistinctBy(r => r.RunId))
            yield return OfLine(question, rung);
    }

    internal static IEnumerable<Rung> Freezing(Question question) =>
        question.Ask(FreezeLadderStudy.Ask).Rungs.Where(r => r.PartId is not null && r.State != IceState.Safe);

    private static Finding Of(Question question, Rung rung)
    {
        var part = question.Index.Part(rung.PartId!);
        string remedy = Catalogue.Part(part.Stock)!.Remedy is { } r ? $" {r}." : "";
        return new Finding(
            $"ice:{part.Id}", FindingKind.FirstIce, rung.Breaks ? Severity.Fault : Severity.Note, part.Name, "ice in", Measure.Duration(rung.FirstIceS),
            Sentence.Of($"Ice after {Measure.Duration(rung.FirstIceS)}, {Left(question)}, in air of {Measure.Temperature(rung.AirC)}. " +
            $"{(rung.Breaks ? "Ice breaks it." : "Ice does not break it.")}{remedy}"),
            Place.OnPart(question.Index, part), [], null);
    }

    private static Finding OfLine(Question question, Rung rung) => new(
        OfRun + rung.RunId, FindingKind.FirstIce, Severity.Fault, question.Index.Run(rung.RunId!).Name, "bursts in", Measure.Duration(rung.BreaksS),
        rung.ShutIn
            ? Sentence.Of($"Ice after {Measure.Duration(rung.FirstIceS)}, {Left(question)}, in air of {Measure.Temperature(rung.AirC)}. After " +
                $"{Measure.Duration(rung.BreaksS)} ice plugs it at both ends; the water between has nowhere to go and bursts a fitting.")
            : Sentence.Of($"Ice after {Measure.Duration(rung.FirstIceS)}, {Left(question)}, in air of {Measure.Temperature(rung.AirC)}. Ice breaks it."),
        new Place(rung.Course[rung.Course.Count / 2], rung.Name, rung.RunId, null, null, rung.ZoneId), [rung.RunId!], null);

    private static string Left(Question question) => question.Conditions.Water switch
    {
        WaterState.Wet => "full",
        WaterState.AsLeft => "as left",
        _ => "drained",
    };
}
