using WarmConduit.Core.Heat.Night;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.FreezeLadder;

/// <summary>Water with propylene glycol in it, as the night's engine sees it.</summary>
internal static class Antifreeze
{
    /// <summary>
    /// The body with <paramref name="glycol"/> of its water's volume glycol: it cools as a liquid, has first ice at its freezing point, and is hard where its
    /// burst protection ends. As much mass as of water, with the mixture's heat capacity at 0 °C: less than it has, so that it cools sooner.
    /// </summary>
    public static NightBody In(NightBody body, double glycol)
    {
        if (glycol <= 0) return body;
        return body with
        {
            WaterKg = 0,
            DryJPerK = body.DryJPerK + (body.WaterKg * GlycolWater.HeatCapacityJPerKgK(GlycolWater.MassFraction(glycol), 0)),
            Slush = new NightSlush(GlycolWater.FreezingC(glycol), GlycolWater.BurstProtectionC(glycol)),
        };
    }

    /// <summary>What is told of it.</summary>
    public static IReadOnlyList<WhyInput> Why(double glycol) => glycol <= 0 ? [] :
    [
        new("propylene glycol in it", new Measure(glycol, Quantity.Share), false),
        new("first ice at", Measure.Temperature(GlycolWater.FreezingC(glycol)), true),
    ];
}
