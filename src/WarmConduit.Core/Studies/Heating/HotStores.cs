using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.WaterFlow;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.Heating;

/// <summary>Hot water that a calorifier has in store, in two layers: hot above, what flows in below.</summary>
/// <param name="PartId">The calorifier.</param>
/// <param name="HotC">How hot it is kept, °C.</param>
/// <param name="ColdC">Water that flows in, °C.</param>
/// <param name="At38L">Water of 38 °C at the tap before it turns cold, L.</param>
/// <param name="RecoversS">Until all of it is hot again, if nothing else takes the heat, s; null: the coil has no flow.</param>
/// <param name="Words">In words.</param>
public sealed record HotStore(string PartId, double HotC, double ColdC, double At38L, double? RecoversS, Sentence Words);

/// <summary>Works out what calorifiers have in store. Estimates.</summary>
internal static class HotStores
{
    // Of the content, as much lies between the layers, where hot and cold have mixed. Estimate.
    private const double MixedShare = 0.3;
    private const double ShowerLPerMin = 6, LeastColdC = 1, ShortK = 5;

    /// <summary>Each vessel with a coil that taps draw from. O(parts).</summary>
    public static IEnumerable<HotStore> Of(Question question, RigHeat heat)
    {
        double wishC = WaterFlowInput.UsualWishC, cold = Math.Clamp(question.Conditions.StartWaterC, LeastColdC, wishC - 5);
        var sources = Sources(heat);
        foreach (var coil in heat.Acting.Where(p => p.Heats().CoilWPerK is not null))
        {
            if (heat.Around(coil) is not { } id) continue;
            var vessel = question.Index.Part(id);
            if (!PartWater.HeatsWater(vessel)) continue;
            double kg = heat.ThroughM3PerS(coil) * RigHeat.Fluid(heat.Glycol, RigHeat.FluidC).DensityKgPerM3;
            double supply = SupplyC(heat) ?? double.NaN, hot = KeptC(heat, vessel)!.Value;
            double content = PartWater.HoldsL(vessel), litres = At(content, hot, cold, wishC, out double drawnL);
            double? recovers = kg > 0 && hot < supply ? RecoversS(drawnL, cold, hot, supply, PerK(coil.Heats().CoilWPerK!.Value, kg * heat.JPerKgK),
                sources.Sum(s => s.Heats().PowerW!.Value)) : null;
            var words = Sentence.Of($"{vessel.Name}, {Measure.Volume(content)} at {Measure.Temperature(hot)}: {Measure.Volume(litres)} at " +
                $"{Measure.Temperature(wishC)} before it turns cold, a shower of {Measure.Duration(litres / ShowerLPerMin * 60)}.")
                .And(recovers is { } s ? Sentence.Of($" All hot again after {Measure.Duration(s)}, if nothing else takes the heat.") : "");
            yield return new HotStore(id, hot, cold, litres, recovers, words);
        }
    }

    /// <summary>How hot a vessel is kept by its coil, °C: by its thermostat, no hotter than the fluid, else near what the heater stops at; null:
    /// it has no coil.</summary>
    public static double? KeptC(RigHeat heat, Part? vessel) =>
        vessel is not null && heat.Acting.FirstOrDefault(p => p.Heats().CoilWPerK is not null && heat.Around(p) == vessel.Id) is { } coil
            ? SupplyC(heat) is { } supply ? Math.Min(coil.Heats().HoldC ?? supply - ShortK, supply) : coil.Heats().HoldC ?? WaterFlowInput.UsualHotC : null;

    private static List<Part> Sources(RigHeat heat) => [.. heat.Acting.Where(p => p.Heats().HeatsFluid && heat.IsOn(p) && heat.ThroughM3PerS(p) > 0)];

    // The hottest that fluid comes; null: nothing heats it.
    private static double? SupplyC(RigHeat heat) => Sources(heat) is { Count: > 0 } sources ? sources.Max(s => s.Heats().StopsC!.Value) : null;

    /// <summary>Litres of <paramref name="wishC"/> that a vessel gives: what leaves is hot until the mixed layer comes, in which it falls evenly to the cold;
    /// it is mixed with cold at the tap. <paramref name="drawnL"/>: what leaves the vessel for it.</summary>
    public static double At(double contentL, double hotC, double coldC, double wishC, out double drawnL)
    {
        drawnL = 0;
        if (hotC <= wishC) return 0;
        double mixed = MixedShare * contentL, plain = contentL - (mixed / 2), falling = mixed * (hotC - wishC) / (hotC - coldC);
        drawnL = plain + falling;
        return (hotC - coldC) / (wishC - coldC) * (plain + falling - (falling * falling / (2 * mixed)));
    }

    // A coil whose fluid cools on its way: W per kelvin between what comes to it and the water.
    private static double PerK(double coilWPerK, double flowWPerK) => flowWPerK * (1 - Math.Exp(-coilWPerK / flowWPerK));

    /// <summary>Until the cold layer is as hot as the other: at all the heater gives, then as the coil hands it over.</summary>
    public static double RecoversS(double coldL, double coldC, double hotC, double supplyC, double perK, double powerW)
    {
        double heat = coldL / 1000 * Water.DensityKgPerM3(hotC) * Water.HeatCapacityJPerKgK(hotC), turnC = Math.Clamp(supplyC - (powerW / perK), coldC, hotC);
        return (heat * (turnC - coldC) / powerW) + (heat / perK * Math.Log((supplyC - turnC) / (supplyC - hotC)));
    }
}
