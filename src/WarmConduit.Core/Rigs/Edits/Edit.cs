using System.Text.Json.Nodes;
using System.Text.Json.Serialization;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Rigs.Edits;

/// <summary>
/// One thing done to a rig, as data. This vocabulary is closed: whatever changes a rig, from a drag to an import, is a list of these. Things are named by paths
/// of ids: <c>parts/pump</c>, <c>runs/kitchen-cold/bends/b2</c>, <c>shell/zones/garage/faces/floor</c>, <c>brief</c>, <c>rig</c>.
/// Ids of new things come with the edit. Lengths in metres.
/// </summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(PlacePart), "place")]
[JsonDerivedType(typeof(PlaceSet), "placeSet")]
[JsonDerivedType(typeof(MoveThings), "move")]
[JsonDerivedType(typeof(TurnPart), "turn")]
[JsonDerivedType(typeof(MirrorPart), "mirror")]
[JsonDerivedType(typeof(ResizePart), "resize")]
[JsonDerivedType(typeof(CopyPart), "copy")]
[JsonDerivedType(typeof(AddThing), "add")]
[JsonDerivedType(typeof(ChangeThing), "change")]
[JsonDerivedType(typeof(RemoveThing), "remove")]
[JsonDerivedType(typeof(RouteRun), "route")]
[JsonDerivedType(typeof(InsertBend), "insertBend")]
[JsonDerivedType(typeof(PutTee), "tee")]
[JsonDerivedType(typeof(SetPosition), "setPosition")]
[JsonDerivedType(typeof(InsertFragment), "fragment")]
[JsonDerivedType(typeof(DrawFaces), "faces")]
[JsonDerivedType(typeof(GradeThings), "grade")]
[JsonDerivedType(typeof(Restore), "restore")]
public abstract record Edit;

/// <summary>Places a part from stock, complete with its ports, its lowest, rearmost, kerb-side corner at <paramref name="At"/>.</summary>
/// <param name="PartId">Id of the new part.</param>
/// <param name="Stock">Catalogue id.</param>
/// <param name="Name">The builder's name for it.</param>
/// <param name="At">Lowest, rearmost, kerb-side corner, m.</param>
/// <param name="Orientation">How it is turned; left out: default.</param>
public sealed record PlacePart(string PartId, string Stock, string Name, Point3 At, Orientation? Orientation = null) : Edit;

/// <summary>Places a set of parts that go together, already joined to each other; ordinary parts after.</summary>
/// <param name="SetId">Id of the set.</param>
/// <param name="Stem">What the ids of its parts and runs begin with; 1 to 40 lower-case letters, digits and hyphens.</param>
/// <param name="At">Lowest, rearmost, kerb-side corner, m.</param>
public sealed record PlaceSet(string SetId, string Stem, Point3 At) : Edit;

/// <summary>Moves parts with their ports, bends, loose ends (<c>runs/x/from</c>, <c>runs/x/to</c>), zones, obstacles, keep-outs and access together.</summary>
/// <param name="Things">Their paths.</param>
/// <param name="By">How far, m.</param>
public sealed record MoveThings(IReadOnlyList<string> Things, Point3 By) : Edit;

/// <summary>Turns a part about its upright middle, counter-clockwise as seen from above. Runs stay joined to its ports.</summary>
/// <param name="PartId">Id of the part.</param>
/// <param name="QuarterTurns">Quarter turns, counter-clockwise; negative the other way.</param>
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
/// <param name="PartId">Id of the part.</param>
/// <param name="Axis">The axis of the vehicle along which it is mirrored.</param>
public sealed record MirrorPart(string PartId, Axis Axis) : Edit;

/// <summary>
/// Resizes a part as turned: its lowest, rearmost, kerb-side corner stays, and its ports move in proportion. A typed content is removed: it was that
/// of the old size.
/// </summary>
/// <param name="PartId">Id of the part.</param>
/// <param name="Size">Its edges as turned, m; each above 0.</param>
public sealed record ResizePart(string PartId, Point3 Size) : Edit;

/// <summary>Places a copy of a part beside it, not joined to anything.</summary>
/// <param name="PartId">Id of the part.</param>
/// <param name="NewId">Id of the copy.</param>
/// <param name="Name">The copy's name.</param>
/// <param name="By">From the part to the copy, m.</param>
public sealed record CopyPart(string PartId, string NewId, string Name, Point3 By) : Edit;

/// <summary>
/// Adds a whole thing to a list: <c>parts</c>, <c>runs</c>, <c>scenarios</c>, <c>byHand</c>, <c>prices</c>, <c>plans</c>, <c>left</c>, <c>ownSteps</c>,
/// <c>shell/zones</c>,
/// <c>shell/obstacles</c>,
/// <c>shell/keepOuts</c>, <c>shell/access</c>, and the lists inside of things, such as <c>shell/zones/garage/openings</c>.
/// </summary>
/// <param name="List">Path of the list.</param>
/// <param name="Value">The thing, as the file has it, with its id.</param>
public sealed record AddThing(string List, JsonObject Value) : Edit;

/// <summary>Sets fields of a thing; null removes an optional field. An id never changes.</summary>
/// <param name="Thing">Its path.</param>
/// <param name="Values">New values by field, as the file has them.</param>
public sealed record ChangeThing(string Thing, JsonObject Values) : Edit;

/// <summary>
/// Removes a thing and what hangs on it: with a part or port its runs, its settings and what is done to it by hand; with a zone the faces and openings of
/// others towards it.
/// </summary>
/// <param name="Thing">Its path.</param>
public sealed record RemoveThing(string Thing) : Edit;

/// <summary>Gives a run a new course between its ends.</summary>
/// <param name="RunId">Id of the run.</param>
/// <param name="Bends">Its new bends, in the order of flow.</param>
public sealed record RouteRun(string RunId, IReadOnlyList<Bend> Bends) : Edit;

/// <summary>Puts a bend into a run, after the bend <paramref name="After"/>, or first where that is null.</summary>
/// <param name="RunId">Id of the run.</param>
/// <param name="Bend">The new bend.</param>
/// <param name="After">Id of the bend before it; null: first.</param>
public sealed record InsertBend(string RunId, Bend Bend, string? After) : Edit;

/// <summary>
/// Puts a tee into a run at <paramref name="At"/>, after the bend <paramref name="After"/> (null: before the first). The run then ends at the tee, and a new
/// run like it goes on from there.
/// </summary>
/// <param name="RunId">Id of the run.</param>
/// <param name="After">Id of the bend before the tee; null: before the first.</param>
/// <param name="At">Invert of the tee, m.</param>
/// <param name="TeeId">Id of the tee.</param>
/// <param name="TeeName">Its name.</param>
/// <param name="NewRunId">Id of the run that goes on from it.</param>
public sealed record PutTee(string RunId, string? After, Point3 At, string TeeId, string TeeName, string NewRunId) : Edit;

/// <summary>Sets the position of a valve, tap or pump in a scenario; null restores the default.</summary>
/// <param name="ScenarioId">Id of the scenario.</param>
/// <param name="PartId">Id of the part.</param>
/// <param name="Position">One of its stock's positions; null: its default.</param>
public sealed record SetPosition(string ScenarioId, string PartId, string? Position) : Edit;

/// <summary>Inserts parts and runs that belong together. Ends may also lead to what is in the rig already.</summary>
/// <param name="Name">What it is, for the history.</param>
/// <param name="Parts">The parts.</param>
/// <param name="Runs">The runs.</param>
public sealed record InsertFragment(string Name, IReadOnlyList<Part> Parts, IReadOnlyList<Run> Runs) : Edit;

/// <summary>
/// Gives zones the faces of their boxes; a zone is its box less the zones inside. An existing face keeps its layers and its name; a new one starts
/// like the others that face the same way. Typed areas are recalculated.
/// </summary>
/// <param name="ZoneIds">The zones; empty: all of them. Of a partition the smaller zone has the face, so neighbours are drawn along.</param>
public sealed record DrawFaces(IReadOnlyList<string> ZoneIds) : Edit;

/// <summary>How several things get their heights from the first of them, or from the first and the last.</summary>
public enum Grading
{
    /// <summary>All as high as the first.</summary>
    Level,

    /// <summary>Each its share of the fall from the first to the last, by level length.</summary>
    Even,
}

/// <summary>
/// Sets new heights; x and y stay. A joined end moves with its part, a tank's port along the tank; an end at a tank stays.
/// </summary>
/// <param name="Things">Paths of parts, ports (<c>parts/tank/ports/out</c>), bends and ends of runs, in order; or of one run, whose ends then stay.</param>
/// <param name="Grading">How heights are given.</param>
public sealed record GradeThings(IReadOnlyList<string> Things, Grading Grading) : Edit;

/// <summary>Sets values, adds and removes things as in <paramref name="Effect"/>: undoes any edit.</summary>
/// <param name="What">What is put back, in words.</param>
/// <param name="Effect">The values and things to put.</param>
public sealed record Restore(Sentence What, Effect Effect) : Edit;
