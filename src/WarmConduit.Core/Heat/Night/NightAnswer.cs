namespace WarmConduit.Core.Heat.Night;

/// <summary>Milestones of a body, seconds from the start; infinite where they are not reached.</summary>
/// <param name="FirstIceS">h first falls through 0.</param>
/// <param name="BlockedS">A tenth is ice.</param>
/// <param name="SolidS">All is ice.</param>
/// <param name="ThawedS">The last ice is gone again.</param>
/// <param name="MostIce">Greatest ice fraction.</param>
/// <param name="LowestC">Lowest temperature.</param>
public readonly record struct BodyMilestones(double FirstIceS, double BlockedS, double SolidS, double ThawedS, double MostIce, double LowestC);

/// <summary>A heater's energy, Wh, hour by hour (the last hour may be part of one).</summary>
public sealed record HeaterEnergy(string Owner, int Index, IReadOnlyList<double> WhByHour)
{
    /// <summary>All of it, Wh.</summary>
    public double TotalWh() => WhByHour.Sum();
}

/// <summary>
/// Where the heat went, J: <paramref name="HeatersJ"/> + <paramref name="BoundariesJ"/> came in (outdoors counts negative when heat leaves),
/// <paramref name="StoredJ"/> stayed. <paramref name="TurnoverJ"/> is the sum of all that passed, whichever way.
/// </summary>
public readonly record struct HeatBalance(double HeatersJ, double BoundariesJ, double StoredJ, double TurnoverJ)
{
    /// <summary>What does not close, as a share of the turnover.</summary>
    public double Gap() => TurnoverJ > 0 ? Math.Abs(HeatersJ + BoundariesJ - StoredJ) / TurnoverJ : 0;
}

/// <summary>What a night does. Reports: [report, zone] or [report, body] in the network's order.</summary>
public sealed class NightAnswer
{
    /// <summary>Times of the reports, s.</summary>
    public required IReadOnlyList<double> ReportS { get; init; }

    /// <summary>Air of zones, °C.</summary>
    public required double[,] ZoneC { get; init; }

    /// <summary>Bodies, °C.</summary>
    public required double[,] BodyC { get; init; }

    /// <summary>Ice fraction of bodies, 0..1.</summary>
    public required double[,] IceFraction { get; init; }

    /// <summary>By body.</summary>
    public required BodyMilestones[] Milestones { get; init; }

    /// <summary>Heaters of zones, then of bodies.</summary>
    public required IReadOnlyList<HeaterEnergy> Energy { get; init; }

    /// <summary>Circuits, in the network's order.</summary>
    public IReadOnlyList<NightCircuitAnswer> Circuits { get; init; } = [];

    /// <summary>The running balance at the end.</summary>
    public required HeatBalance Balance { get; init; }

    /// <summary>By zone, heat on its way to it at the end, J.</summary>
    public required IReadOnlyList<double> HandedOnJ { get; init; }

    /// <summary>Steps taken.</summary>
    public required int Steps { get; init; }
}
