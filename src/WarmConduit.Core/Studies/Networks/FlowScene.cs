using WarmConduit.Core.Flow;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.Networks;

/// <summary>How a rig is used at a moment: positions, what is joined outside, how full its tanks are, how warm its water is.</summary>
/// <param name="PositionOf">The position of a part; null for one that cannot be set.</param>
/// <param name="Town">A hose is on the town inlet.</param>
/// <param name="ShareOf">How full a tank is, 0..1.</param>
/// <param name="ColdC">Water in the tank and from outside, °C.</param>
/// <param name="HotC">Water from a heater, °C.</param>
/// <param name="WishC">Water that is mixed at a tap, °C.</param>
/// <param name="Fouled">Filters are due for change.</param>
/// <param name="BoreM">Bore of every line under pressure, m; null: as drawn.</param>
/// <param name="Gear">Gear that is joined; null: none.</param>
/// <param name="Coolant">The circuits of heating fluid, filled with this; null: drinking water.</param>
/// <param name="Airlocked">Runs that air stops; null: none.</param>
internal sealed record FlowScene(
    Func<Part, StockPosition?> PositionOf, bool Town, Func<Part, double> ShareOf, double ColdC, double HotC, double WishC, bool Fouled = false,
    double? BoreM = null, IReadOnlyList<ScenarioGear>? Gear = null, FluidState? Coolant = null,
    IReadOnlyList<string>? Airlocked = null)
{
    /// <summary>Whether a run carries what flows here.</summary>
    public bool Carries(Run run) => Airlocked?.Contains(run.Id) != true
        && (Coolant is null ? RigFlow.IsWater(run) : run.Service == Service.Coolant);
}

/// <summary>What an element of the network is in the rig.</summary>
/// <param name="RunId">The run; null for a part.</param>
/// <param name="PartId">The part; null for a run.</param>
internal readonly record struct FlowPiece(string? RunId, string? PartId);

/// <summary>Two ways into a mixing tap or valve, of which one is throttled until the mix is as wanted.</summary>
/// <param name="PartId">The part.</param>
/// <param name="ColdEdge">Number of the cold way.</param>
/// <param name="HotEdge">Number of the hot way.</param>
/// <param name="ToC">Wanted mix, °C.</param>
internal sealed record FlowSplit(string PartId, int ColdEdge, int HotEdge, double ToC);

/// <summary>A pump that runs.</summary>
/// <param name="PartId">The part.</param>
/// <param name="Edge">Its number.</param>
internal sealed record FlowDrive(string PartId, int Edge);
