using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.Networks;

/// <summary>Accumulators on the lines of a pump, and their air by the school that was chosen.</summary>
internal static class Accumulators
{
    /// <summary>Volume of those that a pump presses on, air and all, L. O(runs).</summary>
    public static double BehindL(Question question, Part pump)
    {
        var joined = question.Ask(Joined.Of);
        var behind = joined.Of(pump.Id).Where(j => j.Port == "out").Select(j => j.Other);
        return joined.Reach(behind, p => p.Id != pump.Id && Catalogue.Part(p.Stock)!.Passage is not (Passage.Vessel or Passage.Mixer or Passage.Drain))
            .Where(p => p.Stock == "accumulator").Sum(PartWater.VesselL);
    }

    /// <summary>Their air, bar, for a pump that starts at <paramref name="cutInBar"/>.</summary>
    public static double AirBar(Rig rig, double cutInBar) =>
        cutInBar - (rig.Brief.Chosen().Accumulator == AccumulatorSchool.BelowCutIn ? TradeConstants.PrechargeBelowBar : 0);
}
