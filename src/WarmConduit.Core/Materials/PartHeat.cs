namespace WarmConduit.Core.Materials;

/// <summary>What the fan of a radiator goes by.</summary>
public enum FanControl
{
    /// <summary>The fluid that comes: it runs where that is warm enough.</summary>
    PipeTemperature,

    /// <summary>It is switched on by hand, and runs as long as fluid flows, however cold.</summary>
    On,

    /// <summary>It is switched off by hand.</summary>
    Off,
}

/// <summary>What a part does with heat: gives it, or hands it on. All are estimates, typed where known; left out: as stock has it, or it does not
/// apply.</summary>
/// <param name="PowerW">Output at full, W.</param>
/// <param name="LeastW">Output of its lowest stage, W: below that it starts and stops.</param>
/// <param name="StartsC">It starts when the fluid comes back colder than this, °C.</param>
/// <param name="StopsC">It heats the fluid to this, °C, and stops there.</param>
/// <param name="FuelLPerH">Fuel that it burns at full, L/h.</param>
/// <param name="DrawW">Electric power while it runs, W.</param>
/// <param name="StartW">Electric power while it starts, W.</param>
/// <param name="StartS">How long a start takes, s.</param>
/// <param name="RestS">No start sooner after a stop, s.</param>
/// <param name="LeastRunS">No stop sooner after a start, s; left out: it may stop at once.</param>
/// <param name="PumpW">Electric power of a heater's own pump, which turns as long as the heater is switched on, W.</param>
/// <param name="CoilWPerK">What a coil hands to the water around it, W/K.</param>
/// <param name="RatedW">What it gives to its room, W.</param>
/// <param name="RatedK">At this difference between fluid and room, K.</param>
/// <param name="FanFromC">Its fan starts when the fluid is warmer than this, °C; left out: it has none.</param>
/// <param name="Fan">What its fan goes by; left out: <paramref name="FanFromC"/>.</param>
/// <param name="StillShare">Share of its output while its fan rests.</param>
/// <param name="HoldC">Its thermostat, on the room or the water that it warms, °C; left out: it gives what it can.</param>
/// <param name="RunsC">An engine: as hot as it keeps itself while it runs, °C.</param>
/// <param name="CoolsS">It cools with this time constant when it stops, s.</param>
/// <param name="Supply">An electric element: what it runs on; left out: it burns fuel, or takes no heat of its own.</param>
/// <param name="DoubleWall">A coil or exchanger with two walls between its fluid and the water, and a gap that shows a leak.</param>
/// <param name="Switch">A pump: what switches it; left out: it runs all the time that the heat is on.</param>
public sealed record PartHeat(
    double? PowerW = null,
    double? LeastW = null,
    double? StartsC = null,
    double? StopsC = null,
    double? FuelLPerH = null,
    double? DrawW = null,
    double? StartW = null,
    double? StartS = null,
    double? RestS = null,
    double? LeastRunS = null,
    double? PumpW = null,
    double? CoilWPerK = null,
    double? RatedW = null,
    double? RatedK = null,
    double? FanFromC = null,
    FanControl? Fan = null,
    double? StillShare = null,
    double? HoldC = null,
    double? RunsC = null,
    double? CoolsS = null,
    ElectricSupply? Supply = null,
    bool? DoubleWall = null,
    PumpSwitch? Switch = null)
{
    /// <summary>Nothing is known.</summary>
    public static readonly PartHeat None = new();

    /// <summary>Whether it heats the fluid of a circuit.</summary>
    internal bool HeatsFluid => StopsC is not null && PowerW > 0;

    /// <summary>Electric power of the pump that it is, or has of its own, W.</summary>
    internal double TurnsW => (HeatsFluid ? PumpW : DrawW) ?? 0;

    /// <summary>What its fan goes by; null: it has none.</summary>
    internal FanControl? FanBy => FanFromC is null ? null : Fan ?? FanControl.PipeTemperature;

    /// <summary>Whether it is an engine, which takes heat when it is cold and has some to give when it runs.</summary>
    internal bool IsEngine => RunsC is not null && CoolsS > 0;

    /// <summary>What an engine loses when it stands, W/K.</summary>
    internal double LossWPerK => (RatedW ?? 0) / (RatedK ?? 50);

    /// <summary>These figures, with those of <paramref name="stock"/> where there are none.</summary>
    public PartHeat Over(PartHeat stock) => new(
        PowerW ?? stock.PowerW, LeastW ?? stock.LeastW, StartsC ?? stock.StartsC, StopsC ?? stock.StopsC, FuelLPerH ?? stock.FuelLPerH, DrawW ?? stock.DrawW,
        StartW ?? stock.StartW, StartS ?? stock.StartS, RestS ?? stock.RestS, LeastRunS ?? stock.LeastRunS, PumpW ?? stock.PumpW,
        CoilWPerK ?? stock.CoilWPerK, RatedW ?? stock.RatedW, RatedK ?? stock.RatedK, FanFromC ?? stock.FanFromC, Fan ?? stock.Fan,
        StillShare ?? stock.StillShare, HoldC ?? stock.HoldC, RunsC ?? stock.RunsC, CoolsS ?? stock.CoolsS, Supply ?? stock.Supply,
        DoubleWall ?? stock.DoubleWall, Switch ?? stock.Switch);
}

/// <summary>What stock parts do with heat. All figures are estimates.</summary>
internal static class HeatShelf
{
    private static readonly Dictionary<string, PartHeat> ById = new()
    {
        ["coolant-heater"] = new(PowerW: 5000, LeastW: 1500, StartsC: 70, StopsC: 80, FuelLPerH: 0.62, DrawW: 35, StartW: 120, StartS: 120, RestS: 300,
            LeastRunS: 300),
        ["pumped-coolant-heater"] = new(PowerW: 5000, LeastW: 1500, StartsC: 70, StopsC: 80, FuelLPerH: 0.62, DrawW: 35, StartW: 120, StartS: 120, RestS: 300,
            LeastRunS: 300, PumpW: 16),
        ["circulator"] = new(DrawW: 18),
        ["return-pump"] = new(DrawW: 12),
        ["radiator"] = new(DrawW: 12, RatedW: 2000, RatedK: 60, FanFromC: 40, StillShare: 0.1, HoldC: 18),
        ["panel-radiator"] = new(RatedW: 350, RatedK: 50),
        ["towel-ladder"] = new(RatedW: 150, RatedK: 50),
        ["coolant-coil"] = new(CoilWPerK: 140),

        // What an engine that is kept warm loses, and what it gives to a heater when it drives.
        ["engine"] = new(PowerW: 10_000, RatedW: 800, RatedK: 65, RunsC: 85, CoolsS: 5400),
        ["loop-element"] = new(PowerW: 800, StopsC: 70, Supply: ElectricSupply.Mains),
        ["exchanger-side"] = new(CoilWPerK: 700),
    };

    public static PartHeat? Of(string id) => ById.GetValueOrDefault(id);
}
