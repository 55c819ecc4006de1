using System.Collections.Frozen;

namespace WarmConduit.Core.Materials;

/// <summary>Pipes, solids and parts from stock. Values are defaults; a rig may override those of its parts.</summary>
public static class Catalogue
{
    internal const string Estimate = "estimate";
    private const string PexSource = "ASTM F876 dimensions; pressure at 23 °C, 5.5 bar at 93 °C";

    /// <summary>Bubble foil facing a still air space, m²K/W; near nothing when pressed flat.</summary>
    public const double BubbleFoilM2KPerW = 0.45;

    /// <summary>What damp does to the conductivity of mineral wool and wool.</summary>
    public const double DampFactor = 1.2;

    /// <summary>All pipes and hoses.</summary>
    public static IReadOnlyList<PipeStock> Pipes { get; } =
    [
        new("pex-3/8", "PEX 3/8 in", 0.0090, 0.0127, 0.41, 940, 600e6, 250e6, 93, 11, StandsFreezing.PipeOnly, PexSource, BendRadiusM: 0.075),
        new("pex-1/2", "PEX 1/2 in", 0.0123, 0.0159, 0.41, 940, 600e6, 250e6, 93, 11, StandsFreezing.PipeOnly, PexSource, BendRadiusM: 0.095),
        new("pex-3/4", "PEX 3/4 in", 0.0173, 0.0222, 0.41, 940, 600e6, 250e6, 93, 11, StandsFreezing.PipeOnly, PexSource, BendRadiusM: 0.135),
        new("pe-15", "PE push-fit 15 mm", 0.0115, 0.0150, 0.33, 920, 250e6, 80e6, 65, 10, StandsFreezing.PipeOnly, Estimate, BendRadiusM: 0.09),
        new("pvc-hose-1/2", "PVC hose, reinforced 1/2 in", 0.0127, 0.0190, 0.16, 1250, 12e6, 4e6, 60, 10, StandsFreezing.PipeOnly, Estimate, BendRadiusM: 0.07,
        Kinks: true),
        new("copper-15", "Copper 15 mm", 0.0136, 0.0150, 390, 8940, 120e9, 120e9, 110, 58, StandsFreezing.No, "EN 1057", BendRadiusM: 0.055),
        new("epdm-5/8", "Heater hose EPDM 5/8 in", 0.0160, 0.0240, 0.25, 1150, 6e6, 6e6, 125, 4, StandsFreezing.Yes, Estimate, BendRadiusM: 0.08, Kinks: true),
        new("epdm-3/4", "Heater hose EPDM 3/4 in", 0.0190, 0.0270, 0.25, 1150, 6e6, 6e6, 125, 4, StandsFreezing.Yes, Estimate, BendRadiusM: 0.095, Kinks: true),
        new("vent-hose-10", "Vent hose 10 mm", 0.0100, 0.0140, 0.16, 1250, 12e6, 4e6, 60, 2, StandsFreezing.Yes, Estimate, BendRadiusM: 0.05, Kinks: true),
        new("waste-28", "Waste pipe 28 mm", 0.0240, 0.0280, 0.22, 910, 1300e6, 500e6, 90, 1, StandsFreezing.PipeOnly, Estimate),
        new("fill-hose-40", "Fill hose 40 mm", 0.0380, 0.0450, 0.16, 1250, 12e6, 4e6, 60, 1, StandsFreezing.Yes, Estimate, BendRadiusM: 0.16, Kinks: true),
    ];

    /// <summary>All insulating and structural materials.</summary>
    public static IReadOnlyList<SolidStock> Solids { get; } =
    [
        new("elastomer", "closed-cell elastomer", 0.036, false, Estimate, 60, 1500, Usual: UsualFor.Sleeve),
        new("pe-foam", "PE foam tube", 0.038, false, Estimate, 33, 2000),
        new("pir", "PIR board", 0.024, false, Estimate, 33, 1400),
        new("xps", "XPS board", 0.034, false, Estimate, 33, 1450, Usual: UsualFor.Board),
        new("mineral-wool", "mineral wool", 0.038, true, Estimate, 40, 1030),
        new("wool", "wool", 0.039, true, Estimate, 25, 1300),
        // Wet through it is hardly better than the wood around it; foil bubbles are air of 4 mm, and a sheet counts once: the sheen helps only where it looks
        // at a gap.
        new("mineral-wool-damp", "mineral wool, damp", 0.08, false, Estimate, 90, 1500),
        new("bubble-foil", "bubble foil", 0.04, false, Estimate, 60, 1500, 0.008),
        new("plywood", "plywood", 0.13, false, "ISO 10456", 600, 1600),
        new("steel", "steel", 50, false, "ISO 10456", 7800, 450, IsSkin: true),
        new("aluminium", "aluminium", 200, false, "ISO 10456, rounded up", 2700, 880, IsSkin: true),
        new("grp", "glass-fibre panel", 0.25, false, Estimate, 1800, 1200, IsSkin: true),
        new("air-gap", "still air", 0.14, false, "ISO 6946: 0.18 m²K/W across 25 mm, and no more across any wider gap", 0, 0, 0.025),
    ];

    /// <summary>All parts.</summary>
    public static IReadOnlyList<StockPart> Parts => StockShelf.Parts;

    private static readonly FrozenDictionary<string, PipeStock> PipeById = Pipes.ToFrozenDictionary(p => p.Id);
    private static readonly FrozenDictionary<string, SolidStock> SolidById = Solids.ToFrozenDictionary(s => s.Id);
    private static readonly FrozenDictionary<string, StockPart> PartById = Parts.ToFrozenDictionary(p => p.Id);

    /// <summary>The usual material for something.</summary>
    public static SolidStock Usual(UsualFor what) => Solids.First(s => s.Usual == what);

    /// <summary>The pipe named <paramref name="id"/>, or null.</summary>
    public static PipeStock? Pipe(string id) => PipeById.GetValueOrDefault(id);

    /// <summary>The solid named <paramref name="id"/>, or null.</summary>
    public static SolidStock? Solid(string id) => SolidById.GetValueOrDefault(id);

    /// <summary>The part named <paramref name="id"/>, or null.</summary>
    public static StockPart? Part(string id) => PartById.GetValueOrDefault(id);
}
