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

/// <summary>What the builder wants of the rig.</summary>
/// <param name="People">Number of people.</param>
/// <param name="DaysBetweenFills">Days a fill shall last.</param>
/// <param name="LitresPerPersonDay">Use, litres per person and day.</param>
/// <param name="LowestC">Lowest outdoor temperature to stand, °C.</param>
/// <param name="WindMPerS">Wind on that night, m/s.</param>
/// <param name="HoursWithoutHeat">Hours it must stand without heat.</param>
/// <param name="Living">Way of living.</param>
/// <param name="School">Freeze school.</param>
/// <param name="LeastFall">Least fall of a line that drains itself, metres per metre (0.02 is 1/4 in per foot).</param>
/// <param name="Choices">Which schools the builder follows, and what a night may cost; left out: the usual ones.</param>
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
    BriefChoices? Choices = null)
{
    /// <summary>The choices, or the usual ones where none are written.</summary>
    public BriefChoices Chosen() => Choices ?? BriefChoices.Usual;
}
