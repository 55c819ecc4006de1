using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.Networks;

/// <summary>Accumulators on the lines of a pump. Their air is as it was typed, else by the school that was chosen.</summary>
internal static class Accumulators
{
    // Of its volume; less is nothing. Estimate.
    private const double LeastShare = 0.03;

    /// <summary>Those that a pump presses on. O(runs).</summary>
    public static IEnumerable<Part> Behind(Question question, Part pump)
    {
        var joined = question.Ask(Joined.Of);
        var behind = joined.Of(pump.Id).Where(j => j.Port == "out").Select(j => j.Other);
        return joined.Reach(behind, p => p.Id != pump.Id && Catalogue.Part(p.Stock)!.Passage is not (Passage.Vessel or Passage.Mixer or Passage.Drain))
            .Where(p => p.Stock == "accumulator");
    }

    /// <summary>Air of an accumulator, or of any where null, bar, for a pump that starts at <paramref name="cutInBar"/>.</summary>
    public static double AirBar(Rig rig, Part? accumulator, double cutInBar) => accumulator?.Flows().PrechargeBar
        ?? cutInBar - (rig.Brief.Chosen().Accumulator == AccumulatorSchool.BelowCutIn ? TradeConstants.PrechargeBelowBar : 0);

    /// <summary>What one gives between two starts of a pump, L.</summary>
    public static double GivesL(Rig rig, Part accumulator, double cutInBar, double cutOutBar) =>
        SmallSums.AccumulatorL(PartWater.VesselL(accumulator), AirBar(rig, accumulator, cutInBar), cutInBar, cutOutBar);

    /// <summary>Those behind a pump that take in next to no water, with their air, bar.</summary>
    public static IEnumerable<(Part Accumulator, double AirBar)> Useless(Question question, Part pump, double cutInBar, double cutOutBar) =>
        Behind(question, pump).Where(a => GivesL(question.Rig, a, cutInBar, cutOutBar) < LeastShare * PartWater.VesselL(a))
            .Select(a => (a, AirBar(question.Rig, a, cutInBar)));
}
