using WarmConduit.Core.Heat;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies;

/// <summary>What a part holds and loses: the rig's own figure, else that of its box for tanks, else stock.</summary>
public static class PartWater
{
    // A moulded tank of 5 mm in still air with radiation, 8 W/m²K. Estimates.
    private static readonly double TankFaceWPerM2K = TankFace.TransmittanceWPerM2K(0.005, [], 8);

    /// <summary>Water held when full, litres.</summary>
    public static double HoldsL(Part part)
    {
        var stock = Catalogue.Part(part.Stock)!;
        return part.HoldsL ?? (stock.HoldsL > 0 || stock.Passage != Passage.Vessel ? stock.HoldsL : part.Box.VolumeM3() * 1000);
    }

    /// <summary>Loss to the air of its zone, W/K; of a plain tank, all six faces.</summary>
    public static double LossWPerK(Part part)
    {
        var stock = Catalogue.Part(part.Stock)!;
        if (part.LossWPerK is { } own) return own;
        if (stock.LossWPerK > 0 || stock.Passage != Passage.Vessel) return stock.LossWPerK;
        var s = part.Box.Size;
        return 2 * (s.XM * s.YM + s.YM * s.ZM + s.ZM * s.XM) * TankFaceWPerM2K;
    }

    /// <summary>Heat capacity of what is not water, J/K: a third of the water's. Estimate.</summary>
    public static double DryJPerK(double waterKg) => waterKg * FreezingConstants.Default.WaterJPerKgK / 3;
}
