using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Rigs.Tables;

/// <summary>A line of a table, taken apart.</summary>
/// <param name="Line">Line of the text, from 1.</param>
/// <param name="Cells">Its cells.</param>
public sealed record TableLine(int Line, IReadOnlyList<string> Cells);

/// <summary>A row of a table that is left out, and why.</summary>
/// <param name="Line">Line of the text, from 1.</param>
/// <param name="Column">Heading of the column; null for the row as a whole.</param>
/// <param name="Reason">Why.</param>
public sealed record TableFault(int Line, string? Column, string Reason);

/// <summary>What a table gives for a rig.</summary>
/// <param name="Words">What the good rows do, in words.</param>
/// <param name="Edits">The edits that do it, in one step.</param>
/// <param name="Faults">Rows that are left out, at most 200.</param>
public sealed record TableRead(Sentence Words, IReadOnlyList<Edit> Edits, IReadOnlyList<TableFault> Faults);
