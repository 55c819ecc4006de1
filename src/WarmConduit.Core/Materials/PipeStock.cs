namespace WarmConduit.Core.Materials;

/// <summary>Whether a pipe survives water freezing in it.</summary>
public enum StandsFreezing
{
    /// <summary>The pipe does; its fittings do not.</summary>
    PipeOnly,

    /// <summary>Pipe and joints usually do.</summary>
    Yes,

    /// <summary>It splits.</summary>
    No,
}

/// <summary>
/// A pipe or hose from stock. Diameters in m, conductivity W/mK, density kg/m³, elastic modulus in Pa at 20 and 60 °C, pressure in bar.
/// </summary>
/// <param name="Id">Name used in rig files.</param>
/// <param name="Name">Name shown.</param>
/// <param name="InnerDiameterM">Bore.</param>
/// <param name="OuterDiameterM">Outside.</param>
/// <param name="ConductivityWPerMK">Of the wall.</param>
/// <param name="DensityKgPerM3">Of the wall.</param>
/// <param name="ModulusColdPa">Elastic modulus at 20 °C.</param>
/// <param name="ModulusWarmPa">Elastic modulus at 60 °C.</param>
/// <param name="MaxC">Highest working temperature.</param>
/// <param name="RatedBar">Rated pressure at 20 to 23 °C.</param>
/// <param name="StandsFreezing">What ice does to it.</param>
/// <param name="Source">Where the values come from, or "estimate".</param>
/// <param name="BendRadiusM">Least radius, of its middle line, that it is bent by; null for stiff pipe that turns by elbows. Estimate.</param>
/// <param name="Kinks">Bent tighter than this, it kinks.</param>
public sealed record PipeStock(
    string Id,
    string Name,
    double InnerDiameterM,
    double OuterDiameterM,
    double ConductivityWPerMK,
    double DensityKgPerM3,
    double ModulusColdPa,
    double ModulusWarmPa,
    double MaxC,
    double RatedBar,
    StandsFreezing StandsFreezing,
    string Source,
    double? BendRadiusM = null,
    bool Kinks = false)
{
    /// <summary>Roughness of its wall, m: rubber and reinforced hose, else smooth plastic and copper. Estimates.</summary>
    public double RoughnessM() => Kinks ? 1e-5 : 1.5e-6;

    /// <summary>Bore, m².</summary>
    public double BoreM2() => Math.PI / 4 * InnerDiameterM * InnerDiameterM;

    /// <summary>Mass of the wall, kg per metre.</summary>
    public double WallKgPerM() => Math.PI / 4 * (OuterDiameterM * OuterDiameterM - InnerDiameterM * InnerDiameterM) * DensityKgPerM3;

    /// <summary>Heat capacity of the wall, J per metre and kelvin (plastics 2000 J/kgK, copper 385: estimates).</summary>
    public double WallJPerMK()
    {
        double specific = ConductivityWPerMK > 10 ? 385 : 2000;
        return WallKgPerM() * specific;
    }
}

/// <summary>What a material is the default for.</summary>
public enum UsualFor
{
    /// <summary>Around pipes.</summary>
    Sleeve,

    /// <summary>On faces, around tanks, for boxes.</summary>
    Board,
}

/// <summary>
/// An insulating or structural material: conductivity W/mK, whether damp raises it by a fifth, and the thickness, m, beyond which more of it resists no
/// better (an air gap: the air begins to turn); null for solids.
/// </summary>
/// <param name="Id">Catalogue id.</param>
/// <param name="Name">What it is called.</param>
/// <param name="ConductivityWPerMK">Dry, at about 10 °C, W/(m K).</param>
/// <param name="SoaksUpDamp">Damp raises its conductivity by a fifth.</param>
/// <param name="Source">Where the figure comes from.</param>
/// <param name="DensityKgPerM3">Density, kg/m³. Estimate.</param>
/// <param name="JPerKgK">Heat capacity, J/kgK. ISO 10456 where it lists the material.</param>
/// <param name="CountsUpToM">Thickness beyond which more of it resists no better, m; null: always.</param>
/// <param name="IsSkin">What a vehicle's body is made of: it came with it, and is no lining.</param>
/// <param name="Usual">What it is the default for; null: nothing.</param>
public sealed record SolidStock(
    string Id, string Name, double ConductivityWPerMK, bool SoaksUpDamp, string Source, double DensityKgPerM3, double JPerKgK, double? CountsUpToM = null,
    bool IsSkin = false, UsualFor? Usual = null)
{
    /// <summary>Conductivity of a layer of <paramref name="thicknessM"/> that gives its true resistance, W/mK.</summary>
    public double ConductivityAt(double thicknessM) =>
        CountsUpToM is { } most && thicknessM > most ? ConductivityWPerMK * thicknessM / most : ConductivityWPerMK;
}
