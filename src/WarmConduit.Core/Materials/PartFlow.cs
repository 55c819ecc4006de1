namespace WarmConduit.Core.Materials;

/// <summary>What a part does to water that flows through it. All are estimates, typed where known; left out: as stock has it, or it does not apply.</summary>
/// <param name="LossBar">Pressure lost at 7 L/min, bar; it goes with the square of the flow.</param>
/// <param name="FouledBar">The same when its cartridge is due for change, bar.</param>
/// <param name="OutletLPerMin">What an outlet gives at 1 bar while it flows, L/min.</param>
/// <param name="OpensBar">Pressure that opens a check valve, bar.</param>
/// <param name="HoldsBar">Pressure that a regulator lets through, bar.</param>
/// <param name="MixesToC">Temperature that a thermostatic mixing valve is set to, °C.</param>
/// <param name="ShutoffBar">Pressure of a pump at no flow, bar.</param>
/// <param name="FreeLPerMin">Flow of a pump at no pressure, L/min.</param>
/// <param name="CutInBar">Pressure at which its switch starts a pump, bar.</param>
/// <param name="CutOutBar">Pressure at which its switch stops it, bar.</param>
/// <param name="LiftM">Suction lift of a pump, m.</param>
/// <param name="Volts">Voltage at the pump, V; 12 is what its curve is for.</param>
/// <param name="LightsLPerMin">Least flow that lights an instantaneous heater, L/min.</param>
/// <param name="PrechargeBar">Air of an accumulator while no water is in it, bar; left out: as the brief's school sets it.</param>
public sealed record PartFlow(
    double? LossBar = null,
    double? FouledBar = null,
    double? OutletLPerMin = null,
    double? OpensBar = null,
    double? HoldsBar = null,
    double? MixesToC = null,
    double? ShutoffBar = null,
    double? FreeLPerMin = null,
    double? CutInBar = null,
    double? CutOutBar = null,
    double? LiftM = null,
    double? Volts = null,
    double? LightsLPerMin = null,
    double? PrechargeBar = null)
{
    /// <summary>The flow at which losses of parts are stated, L/min.</summary>
    public const double StatedLPerMin = 7;

    /// <summary>The voltage for which pumps are stated, V.</summary>
    public const double StatedVolts = 12;

    /// <summary>Nothing is known.</summary>
    public static readonly PartFlow None = new();

    /// <summary>These figures, with those of <paramref name="stock"/> where there are none.</summary>
    public PartFlow Over(PartFlow stock) => new(
        LossBar ?? stock.LossBar, FouledBar ?? stock.FouledBar, OutletLPerMin ?? stock.OutletLPerMin, OpensBar ?? stock.OpensBar, HoldsBar ?? stock.HoldsBar,
        MixesToC ?? stock.MixesToC, ShutoffBar ?? stock.ShutoffBar, FreeLPerMin ?? stock.FreeLPerMin, CutInBar ?? stock.CutInBar,
        CutOutBar ?? stock.CutOutBar, LiftM ?? stock.LiftM, Volts ?? stock.Volts, LightsLPerMin ?? stock.LightsLPerMin,
        PrechargeBar ?? stock.PrechargeBar);

    /// <summary>Shut-off pressure and free flow at its voltage: both go with it. Estimate.</summary>
    public (double ShutoffBar, double FreeLPerMin) AtVolts()
    {
        double share = (Volts ?? StatedVolts) / StatedVolts;
        return ((ShutoffBar ?? 0) * share, (FreeLPerMin ?? 0) * share);
    }
}

/// <summary>What stock parts do to water that flows through them. All figures are estimates.</summary>
internal static class FlowShelf
{
    private static readonly Dictionary<string, PartFlow> ById = new()
    {
        ["pump"] = new(ShutoffBar: 2.2, FreeLPerMin: 7, CutInBar: TradeConstants.PumpCutInBar, CutOutBar: TradeConstants.PumpCutOutBar, LiftM: 1.8,
            Volts: PartFlow.StatedVolts),
        ["submersible-pump"] = new(ShutoffBar: 0.6, FreeLPerMin: 10, LiftM: 0, Volts: PartFlow.StatedVolts),
        // 3 m at rest.
        ["pumped-coolant-heater"] = new(ShutoffBar: 0.2, FreeLPerMin: 16, Volts: PartFlow.StatedVolts),
        ["circulator"] = new(ShutoffBar: 0.294, FreeLPerMin: 20, Volts: PartFlow.StatedVolts),
        // Its own water pump moves much the same through any heater: 8 L/min through 0.1 bar.
        ["engine"] = new(ShutoffBar: 0.8, FreeLPerMin: 8.6),
        ["exchanger-side"] = new(0.1),
        ["return-pump"] = new(ShutoffBar: 0.15, FreeLPerMin: 6, LiftM: 0, Volts: PartFlow.StatedVolts),
        ["strainer"] = new(0.03, FouledBar: 0.15),
        ["filter"] = new(0.10, FouledBar: 0.5),
        ["drinking-filter"] = new(0.4, FouledBar: 1),
        ["fill-filter"] = new(0.1, FouledBar: 0.5),
        ["ultraviolet"] = new(0.05),
        ["gas-heater"] = new(0.45, LightsLPerMin: 2.5),
        ["storage-heater"] = new(0.03),
        ["calorifier"] = new(0.03),
        ["coil-calorifier"] = new(0.03),
        ["plate-exchanger"] = new(0.2),
        ["mixing-valve"] = new(0.3, MixesToC: 45),
        ["pressure-regulator"] = new(0.1, HoldsBar: 2.8),
        ["check-valve"] = new(OpensBar: 0.03),
        ["town-inlet"] = new(OpensBar: 0.03),
        ["foot-pump"] = new(OpensBar: 0.03),
        ["mixer"] = new(OutletLPerMin: 6),
        ["shower-mixer"] = new(OutletLPerMin: 5.5),
        ["shower-hose"] = new(OutletLPerMin: 5.5),
        ["outdoor-shower"] = new(OutletLPerMin: 6),
        ["pet-wash"] = new(OutletLPerMin: 6),
        ["toilet-valve"] = new(OutletLPerMin: 6),
        ["toilet"] = new(OutletLPerMin: 6),
        ["cold-tap"] = new(OutletLPerMin: 6),
        ["drinking-tap"] = new(OutletLPerMin: 2),
        ["washing-machine"] = new(OutletLPerMin: 8),
        ["dishwasher"] = new(OutletLPerMin: 8),
    };

    public static PartFlow? Of(string id) => ById.GetValueOrDefault(id);
}
