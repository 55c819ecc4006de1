namespace WarmConduit.Core.Heat.Night;

/// <summary>A time range, s: <paramref name="FromS"/> included, <paramref name="ToS"/> not. Where there are several, they are in order and
/// apart.</summary>
public readonly record struct NightWindow(double FromS, double ToS)
{
    /// <summary>Always.</summary>
    public static readonly NightWindow Always = new(double.NegativeInfinity, double.PositiveInfinity);
}

/// <summary>
/// Heats the fluid that passes it with <paramref name="PowerW"/> while it is on, but with no more than brings it to <paramref name="LimitC"/>; off, or with
/// warmer fluid, it gives nothing.
/// </summary>
public sealed record NightFluidHeater(double PowerW, double LimitC, IReadOnlyList<NightWindow> On);

/// <summary>
/// Gives <paramref name="RatedW"/> at <paramref name="RatedK"/> between fluid and room, going with the difference to the power 1.3 at every place along it.
/// Below <paramref name="FanFromC"/> of the fluid that comes, its fan rests and it gives <paramref name="StillShare"/> of that (over a band of 2 K).
/// </summary>
public sealed record NightEmission(double RatedW, double RatedK, double StillShare = 1, double FanFromC = -1000);

/// <summary>
/// A length of a circuit from node to node, of <paramref name="KgPerS"/> while the pump runs. What the fluid loses, <paramref name="Target"/> gains (a zone, a
/// body, a source or "outdoor"): over <paramref name="ConductanceWPerK"/> by an exponential along it (through the ice of a body that freezes from its wall), or
/// as <paramref name="Emission"/> has it. With <paramref name="SetpointC"/>, a thermostat on what it touches lets clamp((set point + band/2 - T)/band, 0, 1) of
/// that pass. Or it holds a <paramref name="Heater"/>, or nothing.
/// </summary>
public sealed record NightReach(
    string Id, string From, string To, double KgPerS, string? Target = null, double ConductanceWPerK = 0, NightEmission? Emission = null,
    NightFluidHeater? Heater = null, double? SetpointC = null, double BandK = 1);

/// <summary>
/// Fluid of <paramref name="JPerKgK"/> that goes round <paramref name="Reaches"/> while its pump is on, and has no heat content of its own: nodes mix, what
/// comes to a node leaves it. Pump off: nothing is exchanged.
/// </summary>
public sealed record NightCircuit(string Id, double JPerKgK, IReadOnlyList<NightReach> Reaches, IReadOnlyList<NightWindow> PumpOn);

/// <summary>A circuit at a report, in the order of its reaches; NaN where the pump rests.</summary>
/// <param name="InC">Fluid that comes to each reach, °C.</param>
/// <param name="OutC">Fluid that leaves it, °C.</param>
/// <param name="HeatW">Heat that each gives off, W; below 0: its heater gives it, or what it touches is warmer.</param>
/// <param name="GivenWh">What each heater gave since the start, Wh; 0 for other reaches.</param>
public sealed record NightCircuitRow(double[] InC, double[] OutC, double[] HeatW, double[] GivenWh);

/// <summary>A circuit through the night.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Rows">By report.</param>
/// <param name="HeatWhByHour">By reach and hour, heat given off, Wh (the last hour may be part of one).</param>
public sealed record NightCircuitAnswer(string Id, IReadOnlyList<NightCircuitRow> Rows, IReadOnlyList<double[]> HeatWhByHour);
