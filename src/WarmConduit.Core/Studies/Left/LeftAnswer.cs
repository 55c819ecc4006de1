namespace WarmConduit.Core.Studies.Left;

/// <summary>The states of a water system against frost, the worst first.</summary>
public enum LeftWord
{
    /// <summary>It holds water that ice does harm to.</summary>
    Wet,

    /// <summary>Its water has antifreeze in it.</summary>
    Protected,

    /// <summary>It holds no more than does no harm.</summary>
    Drained,
}

/// <summary>What was left in a run or part.</summary>
/// <param name="Thing">Its path: <c>runs/main</c>, <c>parts/pump</c>.</param>
/// <param name="Name">Its name.</param>
/// <param name="Litres">Water in it, L.</param>
/// <param name="FullL">Its content when full, L.</param>
/// <param name="Glycol">Propylene glycol in that water, share of the volume.</param>
/// <param name="Word">Its state against frost.</param>
/// <param name="ProtectedC">Down to which temperature it has no ice, °C; null: it has no antifreeze in it.</param>
public sealed record LeftThing(string Thing, string Name, double Litres, double FullL, double Glycol, LeftWord Word, double? ProtectedC);

/// <summary>The state of a water system, calculated from what was done, skipped and measured.</summary>
/// <param name="Filled">When it was last filled; null: not known.</param>
/// <param name="At">When something was last done to it; null: nothing was since it was filled.</param>
/// <param name="Word">The state of its worst piece.</param>
/// <param name="ProtectedC">The warmest temperature at which protected water has ice, °C; null: nothing is protected.</param>
/// <param name="StaysL">Water in all of it, L.</param>
/// <param name="Things">Runs and parts that hold water, the worst first, then most first.</param>
/// <param name="NotDone">Parts that the drain scenario opens, or that are handled on leaving, and have not been.</param>
/// <param name="Readings">Measured volumes.</param>
public sealed record LeftAnswer(
    DateTimeOffset? Filled, DateTimeOffset? At, LeftWord Word, double? ProtectedC, double StaysL, IReadOnlyList<LeftThing> Things,
    IReadOnlyList<Place> NotDone, IReadOnlyList<JugReading> Readings);
