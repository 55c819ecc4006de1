using System.Text.Json.Nodes;

namespace WarmConduit.Core.Rigs.Edits;

/// <summary>A value set, by path: fields after the thing, such as <c>parts/pump/box/at/zM</c>. Null: left out. The order of a run's bends is
/// <c>runs/x/bends/#order</c>.</summary>
/// <param name="Path">Where.</param>
/// <param name="Before">The value before; null: left out.</param>
/// <param name="After">The value after; null: left out.</param>
public sealed record ValueSet(string Path, JsonNode? Before = null, JsonNode? After = null);

/// <summary>A whole thing that was added to a list or removed from it.</summary>
/// <param name="List">Path of the list.</param>
/// <param name="Thing">The thing, as the file has it.</param>
public sealed record ThingMoved(string List, JsonObject Thing)
{
    /// <summary>Its path.</summary>
    public string Path() => $"{List}/{EditRules.IdOf(Thing)}";
}

/// <summary>What an edit did to a document: values set, things added, things removed, by id. Drawn by a reader without any rule of its own.</summary>
/// <param name="Set">Values set.</param>
/// <param name="Added">Things added.</param>
/// <param name="Removed">Things removed.</param>
public sealed record Effect(IReadOnlyList<ValueSet> Set, IReadOnlyList<ThingMoved> Added, IReadOnlyList<ThingMoved> Removed)
{
    /// <summary>The ending of a path that holds the order of a list.</summary>
    public const string Order = "#order";

    /// <summary>The way back.</summary>
    public Effect Inverse() => new([.. Set.Select(s => new ValueSet(s.Path, s.After, s.Before))], Removed, Added);

    /// <summary>True when nothing changed.</summary>
    public bool IsNothing() => Set.Count + Added.Count + Removed.Count == 0;
}
