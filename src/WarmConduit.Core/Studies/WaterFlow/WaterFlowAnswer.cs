using WarmConduit.Core.Rigs;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.WaterFlow;

/// <summary>What takes pressure on the way to an outlet.</summary>
public enum CostKind
{
    /// <summary>Friction of the pipe.</summary>
    Friction,

    /// <summary>Bends and elbows of a run.</summary>
    Bends,

    /// <summary>A fitting: a tee, an elbow, a manifold.</summary>
    Fitting,

    /// <summary>A strainer or filter.</summary>
    Filter,

    /// <summary>A valve, check valve, regulator or mixing tap.</summary>
    Valve,

    /// <summary>A heater.</summary>
    Heater,

    /// <summary>The climb from the source to the outlet.</summary>
    Height,
}

/// <summary>A piece of the way to an outlet, and what it takes.</summary>
/// <param name="Kind">What takes it.</param>
/// <param name="RunId">The run; null for a part.</param>
/// <param name="PartId">The part; null for a run, and for height.</param>
/// <param name="Name">Its name.</param>
/// <param name="Bar">Pressure it takes, bar.</param>
public sealed record FlowCost(CostKind Kind, string? RunId, string? PartId, string Name, double Bar);

/// <summary>What comes out of an outlet. All are estimates.</summary>
/// <param name="PartId">The part that is opened; of a hose, the mixer that feeds it.</param>
/// <param name="Name">Its name.</param>
/// <param name="Open">It is open.</param>
/// <param name="LPerMin">Flow, L/min.</param>
/// <param name="Bar">Pressure at it while it flows, bar.</param>
/// <param name="HotShare">Share of the hot side, 0 to 1; null: nothing flows, or it has one side.</param>
/// <param name="C">Its water, °C; null: nothing flows.</param>
/// <param name="AloneLPerMin">Flow with every other outlet closed, L/min; null: it is closed, or alone.</param>
/// <param name="HalfInchLPerMin">Flow with every line 1/2 in, L/min; null: it is closed.</param>
/// <param name="ThreeEighthsLPerMin">Flow with every line 3/8 in, L/min; null: it is closed.</param>
/// <param name="Costs">What takes pressure on the way to it, the most first; at most 8.</param>
/// <param name="Way">Ids of the runs on its way, from the source on.</param>
public sealed record OutletFlow(
    string PartId, string Name, bool Open, double LPerMin, double Bar, double? HotShare, double? C, double? AloneLPerMin, double? HalfInchLPerMin,
    double? ThreeEighthsLPerMin, IReadOnlyList<FlowCost> Costs, IReadOnlyList<string> Way);

/// <summary>How far water gets.</summary>
public enum WaterReach
{
    /// <summary>It flows here.</summary>
    Flows,

    /// <summary>It is let in here, and at rest.</summary>
    AtRest,

    /// <summary>Nothing lets it in here.</summary>
    Apart,
}

/// <summary>A run with its water.</summary>
/// <param name="RunId">The run.</param>
/// <param name="LPerMin">Flow in the run's own sense, L/min; negative: towards its start.</param>
/// <param name="Reach">How far water gets.</param>
/// <param name="C">Its water, °C; null: nothing flows.</param>
public sealed record RunFlow(string RunId, double LPerMin, WaterReach Reach, double? C);

/// <summary>A pump as it runs. All are estimates.</summary>
/// <param name="PartId">The pump.</param>
/// <param name="Pulses">It stops and starts: less is drawn than it gives.</param>
/// <param name="LPerMin">What it gives in the mean, L/min.</param>
/// <param name="Bar">Pressure behind it in the mean, bar.</param>
/// <param name="SuctionM">How far below the air's pressure its inlet is, m of water; negative: water presses on it.</param>
/// <param name="LiftM">The most that it can draw, m.</param>
/// <param name="StartsPerHour">Starts an hour while so much is drawn; null: it runs on, or nothing is drawn.</param>
/// <param name="StoresL">What its accumulators give between two starts, L.</param>
public sealed record PumpFlow(
    string PartId, bool Pulses, double LPerMin, double Bar, double SuctionM, double LiftM, double? StartsPerHour, double StoresL);

/// <summary>Something to know about the flow.</summary>
/// <param name="Id">Stable id.</param>
/// <param name="PartId">The part it is about; null: the rig as a whole.</param>
/// <param name="Words">In words.</param>
/// <param name="Fault">Something does not work; else it is good to know.</param>
public sealed record FlowRemark(string Id, string? PartId, Sentence Words, bool Fault);

/// <summary>Where the water goes, and how much comes out. All are estimates.</summary>
/// <param name="Settings">The position of every valve, pump, drain and tap.</param>
/// <param name="Outlets">Taps and appliances, in the rig's order.</param>
/// <param name="Runs">Every run that carries drinking water, in the rig's order.</param>
/// <param name="ShutAt">Ids of the parts that water stands at, since they are shut.</param>
/// <param name="Pumps">Its pumps.</param>
/// <param name="Remarks">What to know, faults first.</param>
/// <param name="ImbalanceShare">Greatest imbalance of a node, as a share of the largest flow.</param>
/// <param name="Settled">False where the flows did not settle; then they are the nearest.</param>
public sealed record WaterFlowAnswer(
    IReadOnlyList<Setting> Settings, IReadOnlyList<OutletFlow> Outlets, IReadOnlyList<RunFlow> Runs, IReadOnlyList<string> ShutAt,
    IReadOnlyList<PumpFlow> Pumps, IReadOnlyList<FlowRemark> Remarks, double ImbalanceShare, bool Settled);
