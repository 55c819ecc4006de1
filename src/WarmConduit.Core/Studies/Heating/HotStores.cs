using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Studies.WaterFlow;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.Heating;

/// <summary>Hot water that a calorifier has in store, in two layers: hot above, what flows in below.</summary>
/// <param name="PartId">The calorifier.</param>
/// <param name="HotC">How hot it is kept, °C.</param>
/// <param name="ColdC">Water that flows in, °C.</param>
/// <param name="At38L">Water of 38 °C at the tap before it turns cold, L.</param>
/// <param name="RecoversS">Until all of it is hot again, if nothing else takes the heat, s; null: nothing heats it now.</param>
/// <param name="Words">In words.</param>
public sealed record HotStore(string PartId, double HotC, double ColdC, double At38L, double? RecoversS, Sentence Words);

/// <summary>Works out what calorifiers have in store. Estimates.</summary>
internal static class HotStores
{
    // Of the content, as much lies between the layers, where hot and cold have mixed. Estimate.
    private const double MixedShare = 0.3;
    private const double ShowerLPerMin = 6, LeastColdC = 1, ShortK = 5;

    /// <summary>Each vessel that a coil or an element heats, and that taps draw from. O(parts²).</summary>
    public static IEnumerable<HotStore> Of(Question question, RigHeat heat)
    {
        double wishC = WaterFlowInput.UsualWishC, cold = Math.Clamp(question.Conditions.StartWaterC, LeastColdC, wishC - 5);
        foreach (var vessel in question.Rig.Parts.Where(p => p.TakesElement()))
        {
            if (KeptC(question, vessel) is not { } hot) continue;
            double content = PartWater.HoldsL(vessel), litres = At(content, hot, cold, wishC, out double drawnL);
            double? recovers = Recovers(question, heat, vessel, drawnL, cold, hot);
            var words = Sentence.Of($"{vessel.Name}, {Measure.Volume(content)} at {Measure.Temperature(hot)}: {Measure.Volume(litres)} at " +
                $"{Measure.Temperature(wishC)} before it turns cold, a shower of {Measure.Duration(litres / ShowerLPerMin * 60)}.")
                .And(recovers is { } s ? Sentence.Of($" All hot again after {Measure.Duration(s)}, if nothing else takes the heat.")
                : IsHeated(question, heat, vessel) ? "" : " Nothing heats it on this night as valves and pumps stand: told as it is once it was heated.");
            yield return new HotStore(vessel.Id, hot, cold, litres, recovers, words);
        }
    }

    // By the coil while fluid passes it, else by the element, which gives all it has.
    private static double? Recovers(Question question, RigHeat heat, Part vessel, double drawnL, double coldC, double hotC)
    {
        var coil = CoilIn(heat, vessel);
        double kg = coil is null ? 0 : heat.ThroughM3PerS(coil) * heat.KgPerM3, supply = heat.SupplyC() ?? double.NaN;
        if (kg > 0 && hotC < supply)
            return RecoversS(drawnL, coldC, hotC, supply, PerK(coil!.Heats().CoilWPerK!.Value, kg * heat.JPerKgK),
                heat.Sources().Sum(s => s.Heats().PowerW ?? 0));
        return Powered(question, vessel) is { } element ? HeatJPerK(drawnL, hotC) * (hotC - coldC) / element.PowerW : null;
    }

    // The element of a vessel, where it has what it runs on at some time of the night.
    private static Pad? Powered(Question question, Part vessel) => vessel.Pad is { } element
        && NightCourse.Of(question.Conditions, question.Conditions.Hours * 3600).Any(s => s.Heating.Has(element.Supply)) ? element : null;

    private static bool IsHeated(Question question, RigHeat heat, Part vessel) =>
        Powered(question, vessel) is not null || (heat.SupplyC() is not null && CoilIn(heat, vessel) is { } coil && heat.ThroughM3PerS(coil) > 0);

    private static Part? CoilIn(RigHeat heat, Part vessel) => heat.Acting.FirstOrDefault(p => p.Heats().CoilWPerK is not null && heat.Around(p) == vessel.Id);

    /// <summary>How hot a vessel is kept, °C: by the thermostat of its coil, no hotter than the fluid, else near what the heater stops at; by its element where
    /// that is hotter and has what it runs on, or the coil gets nothing; null: it has neither.</summary>
    public static double? KeptC(Question question, Part? vessel)
    {
        if (vessel is null) return null;
        var heat = RigHeat.Of(question);
        if (CoilIn(heat, vessel) is not { } coil) return vessel.Pad?.OnC;
        if (heat.SupplyC() is not { } supply) return vessel.Pad?.OnC ?? coil.Heats().HoldC ?? WaterFlowInput.UsualHotC;
        return Math.Max(Powered(question, vessel)?.OnC ?? double.MinValue, Math.Min(coil.Heats().HoldC ?? supply - ShortK, supply));
    }

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

    private static double HeatJPerK(double litres, double hotC) => litres / 1000 * Water.DensityKgPerM3(hotC) * Water.HeatCapacityJPerKgK(hotC);

    /// <summary>Until the cold layer is as hot as the other: at all the heater gives, then as the coil hands it over.</summary>
    public static double RecoversS(double coldL, double coldC, double hotC, double supplyC, double perK, double powerW)
    {
        double heat = HeatJPerK(coldL, hotC), turnC = Math.Clamp(supplyC - (powerW / perK), coldC, hotC);
        return (heat * (turnC - coldC) / powerW) + (heat / perK * Math.Log((supplyC - turnC) / (supplyC - hotC)));
    }
}
