using WarmConduit.Core.Materials;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>Parts that reach first ice before morning.</summary>
internal sealed class FirstIceRule : IRule
{
    public IEnumerable<Finding> Find(Question question) => Freezing(question).Select(rung => Of(question, rung));

    internal static IEnumerable<Rung> Freezing(Question question) =>
        question.Ask(FreezeLadderStudy.Ask).Rungs.Where(r => r.PartId is not null && r.State != IceState.Safe);

    private static Finding Of(Question question, Rung rung)
    {
        var part = question.Index.Part(rung.PartId!);
        string full = question.Conditions.Water == WaterState.Wet ? "left wet" : "with what stays in it";
        string remedy = Catalogue.Part(part.Stock)!.Remedy is { } r ? $" {r}." : "";
        return new Finding(
            $"ice:{part.Id}", FindingKind.FirstIce, rung.Breaks ? Severity.Fault : Severity.Note, part.Name, "ice in", Measure.Duration(rung.FirstIceS),
            Sentence.Of($"First ice after {Measure.Duration(rung.FirstIceS)}, {full}, in air of {Measure.Temperature(rung.AirC)}. {(rung.Breaks ? "Ice breaks it." : "It stands ice.")}{remedy}"),
            Place.OnPart(question.Index, part), [], null);
    }
}
