using WarmConduit.Core.Geometry;

namespace WarmConduit.Core.Levels;

/// <summary>Which way water can leave an element when nothing drives it but its weight.</summary>
public enum Passes
{
    /// <summary>Either way: plain pipe, open valve.</summary>
    Both,

    /// <summary>Only from the first end to the second: a non-return valve.</summary>
    Forward,

    /// <summary>Neither way: a closed valve, a resting pump. What is inside stays.</summary>
    None,
}

/// <summary>A junction or an end. <paramref name="At"/> is the pipe's invert (inside bottom), metres, before tilting.</summary>
public sealed record LevelNode(string Id, Point3 At);

/// <summary>
/// A run of pipe from node <paramref name="From"/> through <paramref name="Via"/> (inverts, metres) to node <paramref name="To"/>.
/// A bore of zero holds nothing and only lets water by.
/// </summary>
public sealed record LevelEdge(
    string Id, string From, string To, double InnerDiameterM, Passes Passes, IReadOnlyList<Point3> Via);

/// <summary>
/// A box that holds <paramref name="HoldsM3"/> when full and is joined to the pipes at <paramref name="Ports"/> (node ids).
/// Water inside stands level, and leaves over the lowest port that leads out.
/// </summary>
public sealed record LevelVessel(string Id, Box Box, double HoldsM3, IReadOnlyList<string> Ports);

/// <summary>
/// A plain network of bores: <paramref name="Drains"/> are nodes open at their own invert. Every other end is taken as open to air above.
/// </summary>
public sealed record LevelNetwork(
    IReadOnlyList<LevelNode> Nodes,
    IReadOnlyList<LevelEdge> Edges,
    IReadOnlyList<LevelVessel> Vessels,
    IReadOnlyList<string> Drains);

/// <summary>A network that cannot be solved. <see cref="Place"/> names the node, edge or vessel at fault.</summary>
public sealed class LevelNetworkException(string place, string reason) : ArgumentException($"{place}: {reason}")
{
    /// <summary>The id of what is wrong.</summary>
    public string Place { get; } = place;
}
