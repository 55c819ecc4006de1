using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Studies.FreezeLadder;

namespace WarmConduit.Core.Studies.Standing;

/// <summary>A rig's verdict in one line.</summary>
/// <param name="StaysL">What stays after draining, litres, parked level.</param>
/// <param name="PoolCount">In how many pools.</param>
/// <param name="CarefulL">Of it, in parts that keep their water by design.</param>
/// <param name="Night">The night of the brief.</param>
/// <param name="ByHand">Names of those parts: they are taken to be emptied by hand when the rig is left drained.</param>
/// <param name="ColdestC">Lowest outdoor temperature at which nothing that ice breaks reaches first ice on such a night; null when even just below zero is too cold.</param>
/// <param name="FirstName">What freezes first on the night of the brief; null when nothing does.</param>
/// <param name="FirstIceS">When, seconds from the start.</param>
public sealed record StandingAnswer(
    double StaysL, int PoolCount, double CarefulL, IReadOnlyList<string> ByHand, Conditions Night, double? ColdestC, string? FirstName, double? FirstIceS);

/// <summary>How cold a night a rig stands.</summary>
public static class StandingStudy
{
    private const double LowestTriedC = -40;

    /// <summary>
    /// Verdict on <paramref name="rig"/> under the night of its brief, with the coldest night found by bisection to 0.25 K between -0.5 and -40 °C (colder air
    /// never freezes anything later). Pure.
    /// </summary>
    public static StandingAnswer Ask(Rig rig)
    {
        var night = Conditions.Of(rig.Brief);
        var drained = DrainDownStudy.Ask(rig, night.Parked);
        var byHand = drained.Parts.Where(p => p.ByDesign).Select(p => p.PartId).ToHashSet();
        bool Counts(Rung r) => r.State != IceState.Safe && (night.Water == WaterState.Wet || r.PartId is null || !byHand.Contains(r.PartId));
        var first = FreezeLadderStudy.Ask(rig, night, drained).Rungs.FirstOrDefault(Counts);
        bool Stands(double outdoorC) =>
            !FreezeLadderStudy.Ask(rig, night with { OutdoorC = outdoorC }, drained).Rungs.Any(r => r.Breaks && Counts(r));
        double? coldest = null;
        if (Stands(LowestTriedC)) coldest = LowestTriedC;
        else if (Stands(-0.5))
        {
            double stands = -0.5, fails = LowestTriedC;
            while (stands - fails > 0.25)
            {
                double mid = (stands + fails) / 2;
                if (Stands(mid)) stands = mid;
                else fails = mid;
            }
            coldest = stands;
        }
        return new StandingAnswer(drained.TotalL, drained.Pools.Count, drained.ByDesignL, [.. byHand.Select(id => rig.PartOf(id).Name)], night, coldest, first?.Name, first?.FirstIceS);
    }
}
