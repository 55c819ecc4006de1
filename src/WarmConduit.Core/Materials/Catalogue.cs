using System.Collections.Frozen;

namespace WarmConduit.Core.Materials;

/// <summary>Pipes, solids and parts from stock. Values are defaults; a rig may override those of its parts.</summary>
public static class Catalogue
{
    private const string Estimate = "estimate";
    private const string PexSource = "ASTM F876 dimensions; pressure at 23 °C, 5.5 bar at 93 °C";

    /// <summary>Bubble foil facing a still air space, m²K/W; near nothing when pressed flat.</summary>
    public const double BubbleFoilM2KPerW = 0.45;

    /// <summary>What damp does to the conductivity of mineral wool and wool.</summary>
    public const double DampFactor = 1.2;

    /// <summary>All pipes and hoses.</summary>
    public static IReadOnlyList<PipeStock> Pipes { get; } =
    [
        new("pex-3/8", "PEX 3/8 in", 0.0090, 0.0127, 0.41, 940, 600e6, 250e6, 93, 11, StandsFreezing.PipeOnly, PexSource),
        new("pex-1/2", "PEX 1/2 in", 0.0123, 0.0159, 0.41, 940, 600e6, 250e6, 93, 11, StandsFreezing.PipeOnly, PexSource),
        new("pex-3/4", "PEX 3/4 in", 0.0173, 0.0222, 0.41, 940, 600e6, 250e6, 93, 11, StandsFreezing.PipeOnly, PexSource),
        new("pe-15", "PE push-fit 15 mm", 0.0115, 0.0150, 0.33, 920, 250e6, 80e6, 65, 10, StandsFreezing.PipeOnly, Estimate),
        new("pvc-hose-1/2", "PVC hose, reinforced 1/2 in", 0.0127, 0.0190, 0.16, 1250, 12e6, 4e6, 60, 10, StandsFreezing.PipeOnly, Estimate),
        new("copper-15", "Copper 15 mm", 0.0136, 0.0150, 390, 8940, 120e9, 120e9, 110, 58, StandsFreezing.No, "EN 1057"),
        new("epdm-5/8", "Heater hose EPDM 5/8 in", 0.0160, 0.0240, 0.25, 1150, 6e6, 6e6, 125, 4, StandsFreezing.Yes, Estimate),
        new("epdm-3/4", "Heater hose EPDM 3/4 in", 0.0190, 0.0270, 0.25, 1150, 6e6, 6e6, 125, 4, StandsFreezing.Yes, Estimate),
        new("vent-hose-10", "Vent hose 10 mm", 0.0100, 0.0140, 0.16, 1250, 12e6, 4e6, 60, 2, StandsFreezing.Yes, Estimate),
        new("waste-28", "Waste pipe 28 mm", 0.0240, 0.0280, 0.22, 910, 1300e6, 500e6, 90, 1, StandsFreezing.PipeOnly, Estimate),
        new("fill-hose-40", "Fill hose 40 mm", 0.0380, 0.0450, 0.16, 1250, 12e6, 4e6, 60, 1, StandsFreezing.Yes, Estimate),
    ];

    /// <summary>All insulating and structural materials.</summary>
    public static IReadOnlyList<SolidStock> Solids { get; } =
    [
        new("elastomer", "closed-cell elastomer", 0.036, false, Estimate),
        new("pe-foam", "PE foam tube", 0.038, false, Estimate),
        new("pir", "PIR board", 0.024, false, Estimate),
        new("xps", "XPS board", 0.034, false, Estimate),
        new("mineral-wool", "mineral wool", 0.038, true, Estimate),
        new("wool", "wool", 0.039, true, Estimate),
        new("plywood", "plywood", 0.13, false, "ISO 10456"),
        new("steel", "steel", 50, false, "ISO 10456"),
        new("aluminium", "aluminium", 200, false, "ISO 10456, rounded up"),
        new("grp", "glass-fibre panel", 0.25, false, Estimate),
        new("air-gap", "still air, 25 mm, as a solid", 0.14, false, "ISO 6946: 0.18 m²K/W across 25 mm"),
    ];

    /// <summary>All parts.</summary>
    public static IReadOnlyList<StockPart> Parts { get; } =
    [
        Part("tank", "water tank", 0, 0, Passage.Vessel, IceBreaks.WhenFull, null),
        Part("grey-tank", "grey tank", 0, 0, Passage.Vessel, IceBreaks.WhenFull, null),
        Part("pump", "diaphragm pump", 0.12, 0.25, Passage.Pump, IceBreaks.Yes, 4, "Run it dry for half a minute after the tank is empty"),
        Part("strainer", "strainer", 0.05, 0.08, Passage.Through, IceBreaks.Yes, 7, "Unscrew its bowl and tip it out"),
        Part("accumulator", "accumulator 0.75 L", 0.5, 0.35, Passage.DeadEnd, IceBreaks.Yes, 8),
        Part("filter", "cartridge filter, 10 in", 0.9, 0.5, Passage.Through, IceBreaks.Yes, 8, "Unscrew its bowl and take the cartridge home"),
        Part("ultraviolet", "ultraviolet unit", 0.4, 0.35, Passage.Through, IceBreaks.Yes, 8),
        Part("ball-valve", "ball valve 15 mm", 0.01, 0.05, Passage.Valve, IceBreaks.Yes, 10),
        Part("check-valve", "non-return valve", 0.01, 0.04, Passage.OneWay, IceBreaks.Yes, 10),
        Part("mixer", "lever mixer tap", 0.04, 0.06, Passage.Mixer, IceBreaks.Yes, 10),
        Part("shower-mixer", "shower mixer", 0.08, 0.12, Passage.Mixer, IceBreaks.Yes, 10),
        Part("shower-hose", "shower hose 1.5 m and head", 0.09, 0.15, Passage.Through, IceBreaks.No, 5, "Lay it down in the tray, head lowest"),
        Part("outdoor-shower", "outdoor shower box", 0.08, 0.20, Passage.Mixer, IceBreaks.Yes, 10, null, 0.5),
        Part("toilet-valve", "toilet valve", 0.03, 0.05, Passage.Mixer, IceBreaks.Yes, 8),
        Part("storage-heater", "storage heater 10 L", 10, 0.6, Passage.Vessel, IceBreaks.WhenFull, 6),
        Part("gas-heater", "instantaneous gas heater", 0.6, 0.5, Passage.Through, IceBreaks.Yes, 8, "Open its two drain screws"),
        Part("plate-exchanger", "plate exchanger", 0.15, 0.2, Passage.Through, IceBreaks.Yes, 10),
        Part("calorifier", "calorifier 20 L", 20, 0.9, Passage.Vessel, IceBreaks.WhenFull, 6),
        Part("mixing-valve", "thermostatic mixing valve", 0.03, 0.06, Passage.Through, IceBreaks.Yes, 10),
        Part("trap", "water trap", 0.3, 0.2, Passage.Through, IceBreaks.Yes, null, "Pour in about a litre of propylene glycol antifreeze for drinking-water systems"),
        Part("waterless-trap", "waterless trap", 0.02, 0.1, Passage.OneWay, IceBreaks.No, null),
        Part("frost-valve", "frost valve", 0.02, 0.05, Passage.Drain, IceBreaks.No, 6),
        Part("drain-cock", "drain cock", 0.01, 0.05, Passage.Drain, IceBreaks.Yes, 10),
        Part("tee", "tee", 0.005, 0.02, Passage.Through, IceBreaks.Yes, 10),
        Part("open-end", "open end", 0, 0, Passage.OpenEnd, IceBreaks.No, null),
        Part("basin", "sink or basin", 0, 0, Passage.OpenEnd, IceBreaks.No, null),
        Part("air-port", "blow-out port, capped", 0.005, 0.02, Passage.DeadEnd, IceBreaks.Yes, 10),
    ];

    private static readonly FrozenDictionary<string, PipeStock> PipeById = Pipes.ToFrozenDictionary(p => p.Id);
    private static readonly FrozenDictionary<string, SolidStock> SolidById = Solids.ToFrozenDictionary(s => s.Id);
    private static readonly FrozenDictionary<string, StockPart> PartById = Parts.ToFrozenDictionary(p => p.Id);

    /// <summary>The pipe named <paramref name="id"/>, or null.</summary>
    public static PipeStock? Pipe(string id) => PipeById.GetValueOrDefault(id);

    /// <summary>The solid named <paramref name="id"/>, or null.</summary>
    public static SolidStock? Solid(string id) => SolidById.GetValueOrDefault(id);

    /// <summary>The part named <paramref name="id"/>, or null.</summary>
    public static StockPart? Part(string id) => PartById.GetValueOrDefault(id);

    private static StockPart Part(
        string id, string name, double holdsL, double lossWPerK, Passage passage, IceBreaks ice, double? bar, string? keeps = null, double outdoors = 0) =>
        new(id, name, holdsL, lossWPerK, passage, keeps is not null, keeps, ice, bar, outdoors, Estimate);
}
