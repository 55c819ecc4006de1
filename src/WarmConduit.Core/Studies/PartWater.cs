using WarmConduit.Core.Geometry;
using WarmConduit.Core.Heat;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies;

/// <summary>What a part holds: the rig's own figure, else that of its box for tanks, else stock.</summary>
public static class PartWater
{
    internal const string PlateExchanger = "plate-exchanger";

    /// <summary>Water held when full, litres. A vessel's own figure counts only above 0: no vessel holds nothing.</summary>
    public static double HoldsL(Part part)
    {
        var stock = Catalogue.Part(part.Stock)!;
        if (part.HoldsL is { } own && (own > 0 || stock.Passage != Passage.Vessel)) return own;
        return stock.HoldsL > 0 || stock.Passage != Passage.Vessel ? stock.HoldsL : part.Box.VolumeM3() * 1000;
    }

    /// <summary>Mass when empty, kg: the rig's own figure, else that of stock; of a tank of another size, by the area of its walls. Estimate.</summary>
    public static double EmptyKg(Part part)
    {
        var stock = Catalogue.Part(part.Stock)!;
        if (part.MassKg is { } own) return own;
        return stock is { Passage: Passage.Vessel, Group: PartGroup.Store or PartGroup.Waste } ? stock.MassKg * Walls(part.Box.Size) / Walls(stock.Size)
            : stock.MassKg;

        static double Walls(Point3 size) => (size.XM * size.YM) + (size.XM * size.ZM) + (size.YM * size.ZM);
    }

    /// <summary>Whether it heats the water that taps draw.</summary>
    public static bool HeatsWater(Part part) =>
        Catalogue.Part(part.Stock) is { Group: PartGroup.Heat } stock && (stock.Passage == Passage.Vessel || stock.Id is "gas-heater" or PlateExchanger);

    /// <summary>A trap: the water that it keeps is made safe by fluid poured in.</summary>
    public static bool IsTrap(Part part) => Catalogue.Part(part.Stock) is { Group: PartGroup.Waste, Protects: true };

    /// <summary>A filter whose cartridge is changed, and is not left in the cold.</summary>
    public static bool HasCartridge(Part part) => Catalogue.Part(part.Stock) is { Group: PartGroup.Clean, Id: not ("ultraviolet" or "strainer") };

    /// <summary>Whether hot water leaves a heater by the port of this id.</summary>
    public static bool LeavesHot(string port) => port is "hot" or "out";

    /// <summary>Water in it at the start of a night when the system is in use, litres.</summary>
    public static double AtStartL(Part part, Conditions night) =>
        HoldsL(part) * (night.TankLevels?.Find(part.Id)?.Share ?? Catalogue.Part(part.Stock)!.UsualShare);

    /// <summary>A can, a bucket: air gets in at its top, whatever is joined there.</summary>
    public static bool OpenTop(Part part) => part.Stock is "can" or "bucket" or "wheeled-grey-tank";

    /// <summary>A diaphragm with air behind it pushes the water out: an accumulator, an expansion vessel.</summary>
    public static bool Pushes(Part part) => part.Stock is "accumulator" or "expansion-vessel";

    /// <summary>Volume of an accumulator, air and all, L: it holds two thirds of that in water. Estimate.</summary>
    public static double VesselL(Part part) => 1.5 * HoldsL(part);

    /// <summary>
    /// How high water can stand in a part that is no vessel, above its lowest port, m: a joint's bore, else its body. A part that stands in a pool by less is
    /// as full as the pool is deep in it. Estimate.
    /// </summary>
    public static double InnerHeightM(Part part)
    {
        var stock = Catalogue.Part(part.Stock)!;
        double bore = part.Ports.Max(p => p.BoreM ?? stock.Ports.FirstOrDefault(o => o.Id == p.Id)?.BoreM ?? 0.012);
        return stock.Look == PartLook.Joint || stock.Group == PartGroup.Valves ? bore : Math.Max(bore, part.Box.Size.ZM - part.Ports.Min(p => p.Offset.ZM));
    }

    /// <summary>Heat capacity of what is not water, J/K: a third of the water's. Estimate.</summary>
    public static double DryJPerK(double waterKg) => waterKg * FreezingConstants.Default.WaterJPerKgK / 3;
}
