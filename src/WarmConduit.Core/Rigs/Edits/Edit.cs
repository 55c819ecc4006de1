using System.Text.Json.Nodes;
using System.Text.Json.Serialization;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Rigs.Edits;

/// <summary>
/// One thing done to a rig, as data. This vocabulary is closed: whatever changes a rig, from a drag to an import, is a list of these. Things are named by paths of
/// ids: <c>parts/pump</c>, <c>runs/kitchen-cold/bends/b2</c>, <c>shell/zones/garage/faces/floor</c>, <c>brief</c>, <c>rig</c>.
/// Ids of new things come with the edit. Lengths in metres.
/// </summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(PlacePart), "place")]
[JsonDerivedType(typeof(MoveThings), "move")]
[JsonDerivedType(typeof(TurnPart), "turn")]
[JsonDerivedType(typeof(MirrorPart), "mirror")]
[JsonDerivedType(typeof(CopyPart), "copy")]
[JsonDerivedType(typeof(AddThing), "add")]
[JsonDerivedType(typeof(ChangeThing), "change")]
[JsonDerivedType(typeof(RemoveThing), "remove")]
[JsonDerivedType(typeof(RouteRun), "route")]
[JsonDerivedType(typeof(InsertBend), "insertBend")]
[JsonDerivedType(typeof(PutTee), "tee")]
[JsonDerivedType(typeof(SetPosition), "setPosition")]
[JsonDerivedType(typeof(InsertFragment), "fragment")]
[JsonDerivedType(typeof(Restore), "restore")]
public abstract record Edit;

/// <summary>Places a part from stock, complete with its ports, its lowest, rearmost, kerb-side corner at <paramref name="At"/>.</summary>
public sealed record PlacePart(string PartId, string Stock, string Name, Point3 At, Orientation? Orientation = null) : Edit;

/// <summary>Moves parts (ports and all), bends, loose ends (<c>runs/x/from</c>, <c>runs/x/to</c>), zones, obstacles, keep-outs and access together.</summary>
public sealed record MoveThings(IReadOnlyList<string> Things, Point3 By) : Edit;

/// <summary>Turns a part about its upright middle, counter-clockwise as seen from above. Runs stay joined to its ports.</summary>
public sealed record TurnPart(string PartId, int QuarterTurns) : Edit;

/// <summary>An axis of the vehicle.</summary>
public enum Axis
{
    /// <summary>Along the vehicle.</summary>
    X,

    /// <summary>Across it.</summary>
    Y,

    /// <summary>Up.</summary>
    Z,
}

/// <summary>Mirrors a part in its own middle, along an axis of the vehicle.</summary>
public sealed record MirrorPart(string PartId, Axis Axis) : Edit;

/// <summary>Puts a copy of a part beside it, joined to nothing.</summary>
public sealed record CopyPart(string PartId, string NewId, string Name, Point3 By) : Edit;

/// <summary>
/// Adds a whole thing to a list: <c>parts</c>, <c>runs</c>, <c>scenarios</c>, <c>byHand</c>, <c>prices</c>, <c>shell/zones</c>, <c>shell/obstacles</c>,
/// <c>shell/keepOuts</c>, <c>shell/access</c>, and the lists inside of things, such as <c>shell/zones/garage/openings</c>.
/// </summary>
public sealed record AddThing(string List, JsonObject Value) : Edit;

/// <summary>Sets fields of a thing; a field that may be left out is taken away by null. An id never changes.</summary>
public sealed record ChangeThing(string Thing, JsonObject Values) : Edit;

/// <summary>
/// Removes a thing and what hangs on it: with a part or port its runs, its settings and what is done to it by hand; with a zone the faces and openings of
/// others towards it.
/// </summary>
public sealed record RemoveThing(string Thing) : Edit;

/// <summary>Gives a run a new course between its ends.</summary>
public sealed record RouteRun(string RunId, IReadOnlyList<Bend> Bends) : Edit;

/// <summary>Puts a bend into a run, after the bend <paramref name="After"/>, or first where that is null.</summary>
public sealed record InsertBend(string RunId, Bend Bend, string? After) : Edit;

/// <summary>
/// Puts a tee into a run at <paramref name="At"/>, after the bend <paramref name="After"/> (null: before the first). The run then ends at the tee, and a new
/// run like it goes on from there.
/// </summary>
public sealed record PutTee(string RunId, string? After, Point3 At, string TeeId, string TeeName, string NewRunId) : Edit;

/// <summary>Says how a valve, tap or pump stands in a scenario; null goes back to what is usual.</summary>
public sealed record SetPosition(string ScenarioId, string PartId, string? Position) : Edit;

/// <summary>Inserts parts and runs that belong together. Ends may also lead to what is in the rig already.</summary>
public sealed record InsertFragment(string Name, IReadOnlyList<Part> Parts, IReadOnlyList<Run> Runs) : Edit;

/// <summary>Puts values, and things added and removed, as <paramref name="Effect"/> has them: the way back from any edit.</summary>
public sealed record Restore(Sentence What, Effect Effect) : Edit;
