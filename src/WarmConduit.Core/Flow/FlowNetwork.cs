namespace WarmConduit.Core.Flow;

/// <summary>
/// A place in a pressurised network. <paramref name="HeadM"/> fixes its head (metres of the fluid over the datum): a tank's surface, a header tank. Null: to be
/// found.
/// </summary>
public sealed record FlowNode(string Id, double? HeadM = null);

/// <summary>An element between two nodes. Flow is positive from <see cref="From"/> to <see cref="To"/>.</summary>
public abstract record FlowEdge(string Id, string From, string To);

/// <summary>
/// A pipe with Churchill's friction on bore and roughness (m) and <paramref name="MinorLoss"/> velocity heads for its fittings.
/// </summary>
public sealed record FlowPipe(string Id, string From, string To, double LengthM, double InnerDiameterM, double RoughnessM, double MinorLoss)
    : FlowEdge(Id, From, To);

/// <summary>
/// A pump: head rise = <paramref name="ShutoffHeadM"/> - <paramref name="CurveS2PerM5"/> q|q|, q in m³/s, from → to.
/// </summary>
public sealed record FlowPump(string Id, string From, string To, double ShutoffHeadM, double CurveS2PerM5) : FlowEdge(Id, From, To);

/// <summary>
/// A valve of bore <paramref name="InnerDiameterM"/>: <paramref name="OpenLoss"/> velocity heads when open, those divided by the square of <paramref
/// name="Opening"/>
/// (0..1) when part open, nothing at all under <see cref="LeastOpening"/>. <paramref name="OneWay"/>: shuts against flow from to → from, and takes
/// <paramref name="OpensM"/> of head to open, which it goes on taking.
/// </summary>
public sealed record FlowValve(
    string Id, string From, string To, double InnerDiameterM, double OpenLoss, double Opening = 1, bool OneWay = false, double OpensM = 0)
    : FlowEdge(Id, From, To)
{
    /// <summary>A valve less open than this is shut.</summary>
    public const double LeastOpening = 1e-4;
}

/// <summary>A flow that is given, m³/s from → to, whatever head it takes: what a valve is to be set for.</summary>
internal sealed record FlowGiven(string Id, string From, string To, double M3PerS) : FlowEdge(Id, From, To);

/// <summary>
/// An opening at node <paramref name="Node"/>: q = coefficient · √(gauge pressure at <paramref name="HeightM"/>) leaves, m³/s per √Pa; nothing is sucked in.
/// </summary>
public sealed record FlowOutlet(string Node, double HeightM, double CoefficientM3PerSPerSqrtPa);

/// <summary>A network of one fluid of density kg/m³ and viscosity Pa·s.</summary>
public sealed record FlowNetwork(
    double DensityKgPerM3, double ViscosityPaS, IReadOnlyList<FlowNode> Nodes, IReadOnlyList<FlowEdge> Edges, IReadOnlyList<FlowOutlet> Outlets);

/// <summary>A network that makes no sense. <see cref="Place"/> names the node, edge or value at fault.</summary>
public sealed class FlowNetworkException(string place, string reason) : ArgumentException($"{place}: {reason}")
{
    /// <summary>What is wrong, by id.</summary>
    public string Place { get; } = place;
}

/// <summary>Something a reader of the answer should know.</summary>
public enum FlowNoteKind
{
    /// <summary>A part of the network is joined to no reservoir and no outlet: its heads are relative to the node named, taken as 0.</summary>
    NoReference,

    /// <summary>A pump runs backwards: what it works against is higher than its shut-off head.</summary>
    PumpDrivenBack,

    /// <summary>A pump is driven past the flow at which it gives no head.</summary>
    PumpPastItsEnd,

    /// <summary>An outlet gives nothing: there is no pressure at its height.</summary>
    OutletDry,

    /// <summary>A one-way valve has shut.</summary>
    OneWayShut,
}

/// <summary>A note and the edge or node it is about.</summary>
public sealed record FlowNote(FlowNoteKind Kind, string Id);

/// <summary>The answer.</summary>
/// <param name="FlowM3PerS">By edge, positive from → to.</param>
/// <param name="HeadM">By node.</param>
/// <param name="OutletM3PerS">By outlet.</param>
/// <param name="Notes">What to know.</param>
/// <param name="Converged">False when the iteration ran out; then <see cref="MassErrorM3PerS"/> says how far off it is.</param>
/// <param name="Iterations">Newton steps.</param>
/// <param name="MassErrorM3PerS">Greatest imbalance of a node.</param>
public sealed record FlowAnswer(
    IReadOnlyList<double> FlowM3PerS,
    IReadOnlyList<double> HeadM,
    IReadOnlyList<double> OutletM3PerS,
    IReadOnlyList<FlowNote> Notes,
    bool Converged,
    int Iterations,
    double MassErrorM3PerS);
