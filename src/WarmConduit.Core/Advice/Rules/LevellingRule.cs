using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Tanks;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>Two tanks whose line goes over a hump: below its crest each stands by itself. That a tank does not breathe is told of the tank.</summary>
internal sealed class LevellingRule : IRule
{
    private const double LeastL = 0.5;

    public IEnumerable<Finding> Find(Question question)
    {
        foreach (var pair in question.Ask(Levelling.Of).Pairs)
        {
            double most = Math.Max(pair.BelowAL, pair.BelowBL);
            if (!pair.OverHump || pair.Run is not { } run || most < LeastL) continue;
            var at = question.Index.CourseOf(run)[pair.Point];
            var place = Place.OnRun(question.Index, run, pair.Point, at);
            double lowerM = pair.CrestM - pair.PortsM;
            bool never = pair.BelowAL >= PartWater.HoldsL(pair.A) * 0.999 && pair.BelowBL >= PartWater.HoldsL(pair.B) * 0.999;
            var words = never
                ? Sentence.Of($"The line between them goes over {place.Words} at {Measure.Length(at.ZM)}, higher than either of them: neither runs into the other.")
                : Sentence.Of($"They stand at one level only above {Measure.Length(at.ZM)}, where the line between them goes over {place.Words}. Below that {Measure.Volume(pair.BelowAL)} stay in {pair.A.Name} and {Measure.Volume(pair.BelowBL)} in {pair.B.Name}, each by itself.");
            yield return new Finding(
                $"level:{pair.A.Id}:{pair.B.Id}", FindingKind.Levelling, Severity.Warning, pair.A.Name, Sentence.Of($"does not level with {pair.B.Name}").Text, Measure.Volume(most),
                words.And(" ").And(Sentence.Of($"Take the line {Measure.Length(lowerM)} lower there, and let both tanks breathe.")), place, [run.Id], null, Lowered(run, pair));
        }
    }

    // The bends of the hump no higher than the higher of the two ports.
    private static IReadOnlyList<Mend>? Lowered(Run run, JoinedTanks pair)
    {
        double mostM = run.Bends.Count == 0 ? 0 : run.Bends.Max(b => b.At.ZM) - (pair.CrestM - pair.PortsM);
        var bends = run.Bends.Select(b => b with { At = b.At with { ZM = Math.Round(Math.Min(b.At.ZM, mostM), 4) } }).ToList();
        return pair.Point == 0 || pair.Point > run.Bends.Count ? null : [new Mend(Sentence.Of($"Lower the hump of {run.Name} by {Measure.Length(pair.CrestM - pair.PortsM)}"), [new RouteRun(run.Id, bends)])];
    }
}
