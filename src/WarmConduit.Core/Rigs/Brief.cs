namespace WarmConduit.Core.Rigs;

/// <summary>How the vehicle is lived in over the winter.</summary>
public enum WayOfLiving
{
    /// <summary>Heated all winter.</summary>
    LivedIn,

    /// <summary>Used, left cold for days, used again.</summary>
    Weekends,

    /// <summary>Emptied in autumn, opened in spring.</summary>
    LaidUp,
}

/// <summary>How this rig is meant to survive frost; findings are judged by the chosen school's own rules.</summary>
public enum FreezeSchool
{
    /// <summary>Every line falls to a drain.</summary>
    Drain,

    /// <summary>Blown out with air.</summary>
    Air,

    /// <summary>Filled with antifreeze.</summary>
    Antifreeze,

    /// <summary>Kept warm.</summary>
    Heat,
}

/// <summary>How the rig may be parked and still count as drained.</summary>
/// <param name="SlopeDeg">It must drain anywhere within this slope, either way, degrees; 0 to 4.</param>
/// <param name="OutsideL">Most that may stay outside tanks, L; 0 to 10. What is emptied by hand, and what keeps its water by design, is apart.</param>
/// <param name="BreakableL">Most that may stay in a part that ice breaks, L; 0 to 10.</param>
/// <param name="TankShare">Most that may stay of a tank's content, 0 to 1.</param>
public sealed record ParkingLimits(double SlopeDeg, double OutsideL, double BreakableL, double TankShare)
{
    /// <summary>What is taken until the builder says otherwise.</summary>
    public static readonly ParkingLimits Usual = new(1, 0.05, 0.01, 0.03);
}

/// <summary>Water from a hose outside.</summary>
/// <param name="PressureBar">Pressure of the supply, bar; 0.1 to 16.</param>
/// <param name="RegulatorBar">What the regulator on the hose lets through, bar; 0.5 to 16; left out: there is none.</param>
public sealed record TownWater(double PressureBar, double? RegulatorBar = null)
{
    /// <summary>What is taken until the builder says otherwise. Estimate.</summary>
    public static readonly TownWater Usual = new(3, 2.8);

    /// <summary>Pressure at the rig's inlet while nothing flows, bar.</summary>
    public double AtInletBar() => Math.Min(PressureBar, RegulatorBar ?? PressureBar);
}

/// <summary>What the builder wants of the rig.</summary>
/// <param name="People">Number of people.</param>
/// <param name="DaysBetweenFills">Days that one fill lasts.</param>
/// <param name="LitresPerPersonDay">Use, litres per person and day.</param>
/// <param name="LowestC">Lowest outdoor temperature to survive, °C.</param>
/// <param name="WindMPerS">Wind on that night, m/s.</param>
/// <param name="HoursWithoutHeat">Hours it must survive without heat.</param>
/// <param name="Living">Way of living.</param>
/// <param name="School">Freeze school.</param>
/// <param name="LeastFall">Least fall of a line that drains itself, metres per metre (0.02 is 1/4 in per foot).</param>
/// <param name="Choices">Build preferences, and what a night may cost; left out: the defaults.</param>
/// <param name="Parking">How it may be parked and still count as drained; left out: the default limits.</param>
/// <param name="Town">Water from a hose outside; left out: 3 bar behind a regulator of 2.8 bar.</param>
public sealed record Brief(
    int People,
    double DaysBetweenFills,
    double LitresPerPersonDay,
    double LowestC,
    double WindMPerS,
    double HoursWithoutHeat,
    WayOfLiving Living,
    FreezeSchool School,
    double LeastFall,
    BriefChoices? Choices = null,
    ParkingLimits? Parking = null,
    TownWater? Town = null)
{
    /// <summary>The hose outside, or the usual one where none is written.</summary>
    public TownWater TownOrUsual() => Town ?? TownWater.Usual;

    /// <summary>The choices, or the usual ones where none are written.</summary>
    public BriefChoices Chosen() => Choices ?? BriefChoices.Usual;

    /// <summary>The limits of parking, or the usual ones where none are written.</summary>
    public ParkingLimits ParkingAllowed() => Parking ?? ParkingLimits.Usual;
}
