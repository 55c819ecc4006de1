using WarmConduit.Core.Materials;

namespace WarmConduit.Core.Heat.Night;

/// <summary>A quantity over time, piecewise linear between knots and held beyond them. Times in s, rising; at least one knot.</summary>
public sealed record TimeSeries(IReadOnlyList<double> TimeS, IReadOnlyList<double> Value)
{
    /// <summary>The same value always.</summary>
    public static TimeSeries Constant(double value) => new([0], [value]);
}

/// <summary>
/// A thermostat: <paramref name="PowerW"/> · clamp((set point + band/2 - T)/band, 0, 1) from <paramref name="FromS"/> (included) to <paramref name="ToS"/>
/// (excluded), T its own zone's or body's, °C; of a body's heater, that of <paramref name="SensedAt"/> where it is given: a zone, another body, a source, or
/// "outdoor". It stops for good once it has given <paramref name="LimitWh"/>. A failure is a window that ends.
/// </summary>
public sealed record NightHeater(
    double SetpointC, double BandK, double PowerW, double FromS, double ToS, double LimitWh = double.PositiveInfinity, string? SensedAt = null);

/// <summary>
/// Air and linings of a room. To outdoors: <paramref name="OutdoorWPerK"/> + wind · <paramref name="OutdoorWPerKPerMPerS"/>, and with it its <paramref
/// name="Outer"/> faces by the wind of the hour, colder where they see the sky. <paramref name="HandedOnJ"/>: heat on its way to it, from a night before this
/// one.
/// </summary>
public sealed record NightZone(
    string Id, double HeatCapacityJPerK, double OutdoorWPerK, double StartC, IReadOnlyList<NightHeater> Heaters, double OutdoorWPerKPerMPerS = 0,
    IReadOnlyList<NightFilmed>? Outer = null, double HandedOnJ = 0);

/// <summary>Two zones that exchange heat, W/K, and with it what goes through <paramref name="Windy"/>: walls of which one side is in the wind.</summary>
public sealed record NightLink(string A, string B, double ConductanceWPerK, IReadOnlyList<NightFilmed>? Windy = null);

/// <summary>
/// An opening between two zones (a louvre, an open door), or a zone and outdoors (<paramref name="B"/> null: a window), area m², height m: buoyant exchange
/// that goes with the root of their difference, worked out anew every step, and with it what the wind blows through, of which <paramref name="WindShare"/>
/// (0..1) reaches it (<see cref="AirExchange.OpeningWPerK"/>).
/// <paramref name="Above"/>: 1 where B is above A, -1 below, 0 beside.
/// </summary>
public sealed record NightOpening(string A, string? B, double AreaM2, double HeightM, double WindShare = 0, int Above = 0);

/// <summary>How ice grows in a body.</summary>
public enum IceGrowth
{
    /// <summary>The water freezes as a whole; contacts keep their conductance.</summary>
    Lumped,

    /// <summary>In a pipe, from the wall inwards: a contact G becomes G/(1 + G r), r = -ln(1 - f)/(4π k length).</summary>
    Cylinder,
}

/// <summary>
/// What a body touches: a zone, another body, a source, or "outdoor". W/K, and with it what goes through <paramref name="Films"/>, of the body's own surface. A
/// contact of two bodies is given once, by either, and has no films.
/// </summary>
public sealed record NightContact(string To, double ConductanceWPerK, IReadOnlyList<NightFilmed>? Films = null);

/// <summary>
/// Water of <paramref name="WaterKg"/> with <paramref name="DryJPerK"/> beside it. Its enthalpy is 0 at 0 °C water: above, T = h/(m c + dry); between 0 and -mL
/// it stays at 0 °C with ice fraction -h/(mL); below, T = (h + mL)/(m c_ice + dry). At a start of 0 °C, <paramref name="StartIce"/> of it is ice, 0..1.
/// Antifreeze is no water: its heat capacity stands with what is dry, and <paramref name="Slush"/> says when it freezes.
/// </summary>
public sealed record NightBody(
    string Id,
    double WaterKg,
    double DryJPerK,
    double StartC,
    IceGrowth Ice,
    double LengthM,
    IReadOnlyList<NightContact> Contacts,
    IReadOnlyList<NightHeater> Heaters,
    double StartIce = 0,
    NightSlush? Slush = null);

/// <summary>Antifreeze: first crystals at <paramref name="FreezesC"/>, hard at <paramref name="HardC"/>, no warmer. Latent heat is not counted, so that it is
/// told too cold and too soon.</summary>
public sealed record NightSlush(double FreezesC, double HardC);

/// <summary>Something of known temperature, °C, over time: a coolant loop at its flow temperature, the ground.</summary>
public sealed record NightSource(string Id, TimeSeries TemperatureC);

/// <summary>
/// From <paramref name="TimeS"/> on, the conductance between zone <paramref name="A"/> and zone <paramref name="B"/> (null: outdoors), openings included, is
/// its own value times <paramref name="Factor"/>: a door opened, a louvre shut (0), driving off.
/// </summary>
public sealed record NightEvent(double TimeS, string A, string? B, double Factor);

/// <summary>Constants of water and ice.</summary>
public sealed record NightConstants(
    double WaterJPerKgK = Water.FreezingJPerKgK, double IceJPerKgK = Ice.FreezingJPerKgK, double LatentJPerKg = Water.LatentJPerKg,
    double IceWPerMK = Ice.FreezingWPerMK);

/// <summary>Zones, bodies and what drives them from <see cref="StartS"/> to <paramref name="EndS"/>.</summary>
public sealed record NightNetwork(
    IReadOnlyList<NightZone> Zones,
    IReadOnlyList<NightLink> Links,
    IReadOnlyList<NightBody> Bodies,
    TimeSeries OutdoorC,
    double EndS)
{
    /// <summary>The start, s: other than 0 where a night goes on. Hours are counted from 0.</summary>
    public double StartS { get; init; }

    /// <summary>The sky, °C; null: as warm as the air, a full cover.</summary>
    public TimeSeries? SkyC { get; init; }

    /// <summary>Wind, m/s.</summary>
    public TimeSeries WindMPerS { get; init; } = TimeSeries.Constant(0);

    /// <summary>Sources bodies may touch.</summary>
    public IReadOnlyList<NightSource> Sources { get; init; } = [];

    /// <summary>Openings between zones.</summary>
    public IReadOnlyList<NightOpening> Openings { get; init; } = [];

    /// <summary>Changes of conductance.</summary>
    public IReadOnlyList<NightEvent> Events { get; init; } = [];

    /// <summary>Circuits of heating fluid.</summary>
    public IReadOnlyList<NightCircuit> Circuits { get; init; } = [];

    /// <summary>Constants.</summary>
    public NightConstants Constants { get; init; } = new();
}

/// <summary>
/// How to run: steps of at most <paramref name="MaxStepS"/> (the first after a jump is <paramref name="FirstStepS"/>, each next one three tenths longer), and
/// when to report, in s, rising. Reports are exact times (to <see cref="ShortestS"/>), not interpolated.
/// </summary>
public sealed record NightOptions(double MaxStepS = 900, double FirstStepS = 10, IReadOnlyList<double>? ReportS = null)
{
    /// <summary>The shortest step, s: what lies nearer together is one moment.</summary>
    public const double ShortestS = 0.01;

    /// <summary>The defaults, without reports.</summary>
    public static readonly NightOptions Default = new();

    /// <summary>
    /// Reports every <paramref name="intervalS"/> up to <paramref name="endS"/>, both ends included: ten million at the most, or it throws <see
    /// cref="HeatNetworkException"/>. O(reports).
    /// </summary>
    public static IReadOnlyList<double> Every(double intervalS, double endS)
    {
        if (!(intervalS > 0 && endS / intervalS is >= 0 and < 1e7))
            throw new HeatNetworkException("reports", "the interval must be above 0, and give at most ten million reports");
        var times = new double[(int)Math.Floor(endS / intervalS + 1e-9) + 1];
        for (int i = 0; i < times.Length; i++) times[i] = i * intervalS;
        return times;
    }
}
