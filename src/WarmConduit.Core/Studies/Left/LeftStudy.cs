using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.FreezeLadder;

namespace WarmConduit.Core.Studies.Left;

/// <summary>How a water system was left.</summary>
public static class LeftStudy
{
    // A line that is fuller than this is wet, whatever it stands. Estimate.
    private const double FullLine = 0.5;

    /// <summary>
    /// What is in it at the start of the night asked about, piece by piece. It is wet where ice breaks something, where a vessel holds more than a cup, or a
    /// line is fuller than half. Pure. O(drain-down).
    /// </summary>
    public static LeftAnswer Ask(Question question)
    {
        question = question.With(question.Conditions with { Water = WaterState.AsLeft });
        var rig = question.Rig;
        var left = question.Ask(LeftWater.Of);
        var breaks = FreezeLadderStudy.Candidates(question).Where(f => f.BreaksByIce || f.BreaksShut).Select(f => f.Thing).ToHashSet();
        var things = new List<LeftThing>();
        for (int r = 0; r < rig.Runs.Count; r++)
            if (left.LitresIn(r) is > TradeConstants.DryRunL and var litres)
                things.Add(Of($"runs/{rig.Runs[r].Id}", rig.Runs[r].Name, litres, left.Runs[r].FullL, breaks.Contains(rig.Runs[r].Id)
                    || litres > FullLine * left.Runs[r].FullL));
        foreach (var (drain, litres, all) in left.Parts)
        {
            if (all <= TradeConstants.DryRunL) continue;
            var part = question.Index.Part(drain.PartId);
            bool vessel = Catalogue.Part(part.Stock)!.Passage == Passage.Vessel;
            things.Add(Of($"parts/{part.Id}", part.Name, all, drain.FullL, breaks.Contains(part.Id) || (vessel && litres >= TradeConstants.LeastInVesselL)));
        }
        var since = LeftActs.Since(rig);
        var done = since.Where(a => a.Kind == LeftActKind.Done).Select(a => a.Thing!).ToHashSet();
        return new LeftAnswer(
            (rig.Left ?? []).Where(a => a.Kind == LeftActKind.Filled).Select(a => (DateTimeOffset?)a.At).Max(), since.Count > 0 ? since.Max(a => a.At) : null,
            things.Select(t => t.Word).Append(LeftWord.Drained).Min(), things.Max(t => t.ProtectedC),
            Enumerable.Range(0, rig.Runs.Count).Sum(left.LitresIn) + left.Parts.Sum(p => p.AllL),
            [.. things.OrderBy(t => t.Word).ThenByDescending(t => t.Litres).ThenBy(t => t.Thing, StringComparer.Ordinal)],
            [.. LeftActs.Wanted(question).Where(p => !done.Contains($"parts/{p.Id}")).Select(p => Place.OnPart(question.Index, p))], left.Readings);

        LeftThing Of(string thing, string name, double litres, double full, bool wet)
        {
            double glycol = left.Glycol(thing);
            var word = glycol > 0 ? LeftWord.Protected : wet ? LeftWord.Wet : LeftWord.Drained;
            return new LeftThing(thing, name, litres, full, glycol, word, glycol > 0 ? GlycolWater.FreezingC(glycol) : null);
        }
    }
}
