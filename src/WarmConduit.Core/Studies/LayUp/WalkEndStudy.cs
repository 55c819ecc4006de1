using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Left;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.LayUp;

/// <summary>How a walk-through leaves a rig, in one word.</summary>
public enum EndWord
{
    /// <summary>It holds no more than does no harm.</summary>
    Drained,

    /// <summary>What water it holds has antifreeze in it.</summary>
    Protected,

    /// <summary>A jug came short: what it did not show may still be in there.</summary>
    Doubtful,

    /// <summary>It holds water that ice does harm to.</summary>
    Wet,
}

/// <summary>A night, and what it does to a rig as it was left.</summary>
/// <param name="OutdoorC">Its coldest hour outdoors, °C.</param>
/// <param name="IsTheBriefs">It is the coldest night of the brief; else the one that was chosen.</param>
/// <param name="FirstName">What ice breaks first; null: nothing.</param>
/// <param name="FirstS">When, seconds from its start. Estimate.</param>
public sealed record EndNight(double OutdoorC, bool IsTheBriefs, string? FirstName, double? FirstS);

/// <summary>How a walk-through leaves a rig.</summary>
/// <param name="Word">In one word.</param>
/// <param name="StaysL">Water in it, L. Estimate.</param>
/// <param name="HarmsL">Of that, where ice does harm, L.</param>
/// <param name="ProtectedC">The warmest temperature at which protected water has ice, °C; null: nothing is protected.</param>
/// <param name="CameShort">Openings whose jug came short, by name.</param>
/// <param name="Nights">The chosen night, and the coldest of the brief.</param>
public sealed record WalkEndAnswer(
    EndWord Word, double StaysL, double HarmsL, double? ProtectedC, IReadOnlyList<string> CameShort, IReadOnlyList<EndNight> Nights)
{
    /// <summary>In words, for the logbook.</summary>
    public Sentence Words() => Sentence.Of($"{Word switch
    {
        EndWord.Drained => "Drained",
        EndWord.Protected => "Protected",
        EndWord.Doubtful => "Doubtful",
        _ => "Not drained",
    }}: {Measure.Volume(StaysL)} in it");
}

/// <summary>Tells how a rig stands after what was done, skipped and measured, and on which night that matters.</summary>
public static class WalkEndStudy
{
    /// <summary>Asks. Pure. Two nights.</summary>
    public static WalkEndAnswer Ask(Question question)
    {
        var asLeft = question.With(question.Conditions with { Water = WaterState.AsLeft, HeatOn = false });
        var left = asLeft.Ask(LeftStudy.Ask);
        List<string> cameShort = [.. left.Readings.Where(r => r.IsShort).Select(r => question.Index.Part(r.PartId).Name)];
        var brief = asLeft.With(asLeft.Conditions with { Weather = null, OutdoorC = question.Rig.Brief.LowestC, WindMPerS = question.Rig.Brief.WindMPerS });
        var word = cameShort.Count > 0 ? EndWord.Doubtful : left.Word switch
        {
            LeftWord.Drained => EndWord.Drained,
            LeftWord.Protected => EndWord.Protected,
            _ => EndWord.Wet,
        };
        return new WalkEndAnswer(word, left.StaysL, left.Things.Where(t => t.Word == LeftWord.Wet).Sum(t => t.Litres), left.ProtectedC, cameShort,
            [Night(asLeft, false), Night(brief, true)]);
    }

    private static EndNight Night(Question question, bool brief)
    {
        var first = question.Ask(FreezeLadderStudy.Ask).Rungs.Where(r => r.Breaks).MinBy(r => r.BreaksS ?? r.AtS);
        double coldest = question.Conditions.Weather is { } weather ? weather.From(question.Conditions.StartHour, question.Conditions.Hours).Min(h =>
            h.TemperatureC)
            : question.Conditions.OutdoorC;
        return new EndNight(coldest, brief, first?.Name, first?.BreaksS ?? first?.AtS);
    }
}
