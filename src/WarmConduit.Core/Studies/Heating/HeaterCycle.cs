using WarmConduit.Core.Materials;

namespace WarmConduit.Core.Studies.Heating;

/// <summary>
/// How a heater of a circuit works under a load: above its lowest stage it follows the load; below, it warms the fluid from where it starts to where it
/// stops at
/// its lowest stage, and rests while the load cools that down again. It neither burns nor rests for shorter than it must.
/// </summary>
internal readonly record struct HeaterCycle(double OnShare, double StartsPerHour)
{
    private const double HourS = 3600;

    /// <summary>
    /// Under <paramref name="loadW"/>, with fluid of <paramref name="fluidJPerK"/> in its circuit. Whole cycles of a load that stays: burning t = C ΔT/(P - L),
    /// resting t = C ΔT/L; where one of them is shorter than it must be, both are longer by the same share, as what is burnt is what the load takes. Estimate.
    /// </summary>
    public static HeaterCycle Of(PartHeat heat, double loadW, double fluidJPerK)
    {
        double full = heat.PowerW ?? 0, least = Math.Min(heat.LeastW ?? 0, full);
        if (loadW <= 0 || full <= 0) return default;
        if (loadW >= least) return new HeaterCycle(1, 0);
        double swing = Math.Max(1, (heat.StopsC ?? 80) - (heat.StartsC ?? (heat.StopsC ?? 80) - 10)),
            rest = Math.Max(fluidJPerK * swing / loadW, heat.RestS ?? 0);
        // What the rest took is what the burning brings besides.
        double burn = Math.Max(rest * loadW / (least - loadW), heat.LeastRunS ?? 0);
        rest = burn * (least - loadW) / loadW;
        return new HeaterCycle(burn / (burn + rest), HourS / (burn + rest));
    }

    /// <summary>Electric energy in an hour under this, Wh.</summary>
    public double ElectricWh(PartHeat heat) =>
        ((heat.DrawW ?? 0) * OnShare) + (StartsPerHour * StartWh(heat));

    /// <summary>Electric energy that a start takes besides, Wh.</summary>
    public static double StartWh(PartHeat heat) => Math.Max(0, (heat.StartW ?? 0) - (heat.DrawW ?? 0)) * (heat.StartS ?? 0) / HourS;
}
