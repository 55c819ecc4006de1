using WarmConduit.Core.Materials;

namespace WarmConduit.Core.Rigs;

/// <summary>A heating line in the floor, in a plate that spreads its heat.</summary>
/// <param name="Cover">What lies over it, with its layers.</param>
/// <param name="Below">Insulation under it; left out: a bare floor.</param>
public sealed record FloorLoop(Sleeve Cover, Sleeve? Below = null)
{
    // Under 12 mm of plywood it gives the room 2.2 W/mK, by a strip as wide as two lines lie apart. Estimates.
    private const double PlywoodWPerMK = 2.2, PlywoodM2KPerW = 0.012 / 0.13, StripM = 0.2;

    // To still air below a floor (ISO 6946), and at the least what a bare plate has.
    private const double BelowFilmM2KPerW = 0.17;

    /// <summary>A floor loop as it is first laid. Estimate.</summary>
    public static readonly FloorLoop Usual = new(new Sleeve("plywood", 0.012), new Sleeve("xps", 0.03));

    /// <summary>To the room over it, W per kelvin and metre. Estimate.</summary>
    public double UpWPerMK() => 1 / Math.Max(0.1, (1 / PlywoodWPerMK) + ((Resistance(Cover) - PlywoodM2KPerW) / StripM));

    /// <summary>To what is below it. Estimate.</summary>
    public double DownWPerMK() => StripM / (Resistance(Below) + BelowFilmM2KPerW);

    private static double Resistance(Sleeve? layers) =>
        layers?.Layers().Sum(l => l.ThicknessM / Catalogue.Solid(l.Material)!.ConductivityAt(l.ThicknessM)) ?? 0;
}
