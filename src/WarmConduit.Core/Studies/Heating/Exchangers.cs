using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.WaterFlow;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.Heating;

/// <summary>Hot water that a plate exchanger makes as it is drawn.</summary>
/// <param name="PartId">The exchanger.</param>
/// <param name="LPerMin">Water of 38 °C at the tap for as long as it is drawn, L/min.</param>
/// <param name="ByHeater">What the sources give is the limit, else what the exchanger hands over.</param>
/// <param name="Words">In words.</param>
public sealed record HotDraw(string PartId, double LPerMin, bool ByHeater, Sentence Words);

/// <summary>Works out what plate exchangers make. Estimates.</summary>
internal static class Exchangers
{
    private const double LeastColdC = 1, MostLPerMin = 30;

    /// <summary>Each exchanger whose other side has flow and heat. O(parts²).</summary>
    public static IEnumerable<HotDraw> Of(Question question, RigHeat heat)
    {
        double wishC = WaterFlowInput.UsualWishC, cold = Math.Clamp(question.Conditions.StartWaterC, LeastColdC, wishC - 5);
        if (heat.SupplyC() is not { } supply) yield break;
        double powerW = heat.Sources().Sum(s => s.Heats().PowerW ?? 0);
        foreach (var side in heat.Acting.Where(p => p.Heats().CoilWPerK is > 0))
        {
            if (heat.Around(side) is not { } id || question.Index.Part(id) is not { Stock: PartWater.PlateExchanger } plate) continue;
            double carried = heat.ThroughM3PerS(side) * heat.KgPerM3 * heat.JPerKgK;
            if (carried <= 0 || supply <= wishC) continue;
            double handed = AtWishLPerMin(side.Heats().CoilWPerK!.Value, carried, supply, cold, wishC), made = powerW / JPerL(wishC) / (wishC - cold) * 60;
            bool byHeater = made < handed;
            double most = Math.Min(handed, made);
            yield return new HotDraw(id, most, byHeater, Sentence.Of($"{plate.Name}: {Measure.Flow(most)} of water at {Measure.Temperature(wishC)} for as " +
                $"long as it is drawn, from {Measure.Temperature(cold)}.").And(byHeater ? " What the heater gives is the limit: a store gives more for a while."
                : " What the exchanger hands over is the limit."));
        }
    }

    /// <summary>The most water that leaves an exchanger at <paramref name="wishC"/>: the colder it has to leave, the more of it there is.</summary>
    public static double AtWishLPerMin(double wPerK, double carriedWPerK, double supplyC, double coldC, double wishC)
    {
        double low = 0, high = MostLPerMin;
        for (int i = 0; i < 60; i++)
        {
            double middle = (low + high) / 2;
            if (LeavesC(wPerK, carriedWPerK, middle / 60 * JPerL(wishC), supplyC, coldC) >= wishC) low = middle;
            else high = middle;
        }
        return low;
    }

    /// <summary>How warm water leaves a counterflow exchanger, °C, by its number of transfer units.</summary>
    public static double LeavesC(double wPerK, double hotWPerK, double coldWPerK, double supplyC, double coldC)
    {
        double least = Math.Min(hotWPerK, coldWPerK), ratio = least / Math.Max(hotWPerK, coldWPerK), units = wPerK / least;
        double fade = Math.Exp(-units * (1 - ratio)), share = ratio > 1 - 1e-9 ? units / (1 + units) : (1 - fade) / (1 - (ratio * fade));
        return coldC + (share * least / coldWPerK * (supplyC - coldC));
    }

    private static double JPerL(double c) => Water.DensityKgPerM3(c) * Water.HeatCapacityJPerKgK(c) / 1000;
}
