using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Tanks;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>Two tanks whose line goes over a hump: below its crest each stands by itself. That a tank does not breathe is told of the tank.</summary>
internal sealed class LevellingRule : IRule
{
    public IReadOnlyList<FindingKind> Kinds => [FindingKind.Levelling];

    private const double LeastL = 0.5;

    public IEnumerable<Finding> Find(Question question)
    {
        foreach (var pair in question.Ask(Levelling.Of).Pairs)
        {
            double most = Math.Max(pair.BelowAL, pair.BelowBL);
            bool hump = pair.OverHump && pair.Run is not null;
            if ((!hump && !pair.OverPort(question.Conditions.Parked)) || most < LeastL) continue;
            var place = hump ? Place.OnRun(question.Index, pair.Run!, pair.Point, pair.Crest) : Place.OnPart(question.Index, pair.A);
            // Parked level or not, heights are told from the floor.
            double heightM = pair.Crest.ZM;
            bool never = pair.BelowAL >= PartWater.HoldsL(pair.A) * 0.999 && pair.BelowBL >= PartWater.HoldsL(pair.B) * 0.999;
            string over = hump ? $"the line between them goes over {place.Words}" : "the higher of the two ports lies";
            var reason = never
                ? Sentence.Of($"The line between them goes as high as {Measure.Length(heightM)}, higher than either of them: neither runs into the other.")
                : Sentence.Of($"They level only above {Measure.Length(heightM)}, where {over}. Below that {Measure.Volume(pair.BelowAL)} stay " +
                    $"in {pair.A.Name} and {Measure.Volume(pair.BelowBL)} in {pair.B.Name}, each by itself.");
            if (hump) reason = reason.And(" ").And(Sentence.Of($"Take the line {Measure.Length(pair.CrestM - pair.PortsM)} lower there, and let both " +
                $"tanks breathe."));
            yield return new Finding(
                $"level:{pair.A.Id}:{pair.B.Id}", FindingKind.Levelling, hump ? Severity.Warning : Severity.Note, pair.A.Name,
                $"levels with {pair.B.Name} only above a {(hump ? "hump" : "port")}", Measure.Volume(most),
                reason, place, hump ? [pair.Run!.Id] : [], null, hump ? Lowered(pair.Run!, pair) : null);
        }
    }

    // The bends of the hump no higher than the higher of the two ports.
    private static IReadOnlyList<Mend>? Lowered(Run run, JoinedTanks pair)
    {
        double mostM = run.Bends.Count == 0 ? 0 : run.Bends.Max(b => b.At.ZM) - (pair.CrestM - pair.PortsM);
        var bends = run.Bends.Select(b => b with { At = b.At with { ZM = Math.Round(Math.Min(b.At.ZM, mostM), 4) } }).ToList();
        return pair.Point == 0 || pair.Point > run.Bends.Count ? null
            : [new Mend(Sentence.Of($"Lower the hump of {run.Name} by {Measure.Length(pair.CrestM - pair.PortsM)}"), [new RouteRun(run.Id, bends)])];
    }
}
