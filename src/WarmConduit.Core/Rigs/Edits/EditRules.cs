using System.Text.Json.Nodes;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs.Starting;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Rigs.Edits;

/// <summary>What each edit does, and its words.</summary>
internal static partial class EditRules
{
    public static (Rig Rig, Func<Sentence> Words) Apply(Rig rig, Edit edit) => edit switch
    {
        PlacePart e => Place(rig, e),
        PlaceSet e => Place(rig, e),
        MoveThings e => Move(rig, e),
        TurnPart e => Turn(rig, e),
        MirrorPart e => ChangePart(rig, e.PartId, p => Turning.Mirrored(p, e.Axis), p => $"Mirrored {p.Name}"),
        ResizePart e => Resize(rig, e),
        CopyPart e => Copy(rig, e),
        AddThing e => Add(rig, e),
        ChangeThing e => Change(rig, e),
        RemoveThing e => Remove(rig, e),
        RouteRun e => ChangeRun(rig, e.RunId, r => r with { Bends = e.Bends }, r => $"New course of {r.Name}"),
        InsertBend e => Insert(rig, e),
        PutTee e => Tee(rig, e),
        SetPosition e => Set(rig, e),
        InsertFragment e => Insert(rig, e),
        DrawFaces e => Draw(rig, e),
        GradeThings e => Grade(rig, e),
        Restore e => Put(rig, e),
        _ => throw new EditException("kind", "this edit is not known"),
    };

    private static (Rig, Func<Sentence>) Place(Rig rig, PlacePart e)
    {
        var stock = Catalogue.Part(e.Stock) ?? throw new EditException("stock", $"there is no stock part '{e.Stock}' in the catalogue");
        if (e.Orientation is { QuarterTurns: not (>= 0 and <= 3) }) throw new EditException("orientation.quarterTurns", "it must lie between 0 and 3");
        return (rig with { Parts = Fresh(rig.Parts, Turning.FromStock(stock, e.PartId, e.Name, e.At, e.Orientation), "partId") }, () => $"Placed {e.Name}");
    }

    private static (Rig, Func<Sentence>) Place(Rig rig, PlaceSet e)
    {
        var set = PartSets.All.FirstOrDefault(s => s.Id == e.SetId) ?? throw new EditException("setId", $"there is no set '{e.SetId}'");
        if (!RigCheck.IsId(e.Stem) || e.Stem.Length > 40) throw new EditException("stem", "1 to 40 lower-case letters, digits and hyphens");
        var (parts, runs) = PartSets.At(set, e.Stem, e.At);
        if (parts.Any(p => rig.Parts.Find(p.Id) is not null) || runs.Any(r => rig.Runs.Find(r.Id) is not null))
            throw new EditException("stem", $"ids that begin with '{e.Stem}' are used already");
        return (Insert(rig, new InsertFragment(set.Name, parts, runs)).Item1, () => $"Placed {set.Name}");
    }

    private static (Rig, Func<Sentence>) Turn(Rig rig, TurnPart e)
    {
        int turns = (e.QuarterTurns % 4 + 4) % 4;
        return ChangePart(
            rig, e.PartId,
            p =>
            {
                for (int q = 0; q < turns; q++) p = Turning.QuarterTurned(p);
                return p;
            },
            p => Sentence.Of($"Turned {p.Name} by {new Measure(turns == 3 ? -90 : 90 * turns, Quantity.Angle)}"));
    }

    private static (Rig, Func<Sentence>) Resize(Rig rig, ResizePart e)
    {
        foreach (var (axis, edge) in ((string, double)[])[("xM", e.Size.XM), ("yM", e.Size.YM), ("zM", e.Size.ZM)])
            if (edge is not (> 0 and <= RigCheck.FarthestM)) throw new EditException($"size.{axis}", $"it must be above 0 and at most {RigCheck.FarthestM} m");
        return ChangePart(rig, e.PartId, p => Turning.Resized(p, e.Size), p => $"New size of {p.Name}");
    }

    private static (Rig, Func<Sentence>) Copy(Rig rig, CopyPart e)
    {
        var part = PartOf(rig, e.PartId);
        var copy = part with { Id = e.NewId, Name = e.Name, Box = part.Box with { At = Turning.Micro(part.Box.At + e.By) } };
        return (rig with { Parts = Fresh(rig.Parts, copy, "newId") }, () => $"Copied {part.Name}");
    }

    private static (Rig, Func<Sentence>) Add(Rig rig, AddThing e)
    {
        string id = IdOf(e.Value) ?? throw new EditException("value.id", "a new thing comes with its id");
        return (Restoring.AddTo(rig, e.List, id, e.Value), () => EditWords.Added(rig, e.List, e.Value, id));
    }

    private static (Rig, Func<Sentence>) Change(Rig rig, ChangeThing e)
    {
        if (e.Values.Count == 0) throw new EditException("values", "say what changes");
        var (root, inside) = RigNodes.Split(e.Thing);
        if (Placed(rig, e) is { } placed) return placed;
        var after = RigNodes.With(rig, root, node =>
        {
            if (RigNodes.At(node, inside) is not JsonObject thing) throw new EditException("thing", $"there is nothing at '{e.Thing}'");
            foreach (var (field, value) in e.Values)
            {
                if (field == "id") throw new EditException("values.id", "an id never changes");
                if (value is null) thing.Remove(field);
                else thing[field] = value.DeepClone();
            }
            return node;
        });
        return (after, () => EditWords.Changed(rig, e));
    }

    // A hand that drags a bend or a part sends this many times a second: no JSON of the whole thing for it.
    private static (Rig, Func<Sentence>)? Placed(Rig rig, ChangeThing e)
    {
        if (e.Values.Count != 1) return null;
        switch (e.Thing.Split('/'))
        {
            case ["runs", var id, "bends", var bend] when e.Values["at"] is { } at && rig.Runs.Find(id) is { } run && IndexOf(run, bend) is >= 0 and var k:
                var place = RigNodes.Read<Point3>(at, "values.at");
                return (rig with { Runs = RigNodes.Put(rig.Runs, run.With(k, run.Bends[k] with { At = place })) }, () => EditWords.Changed(rig, e));
            case ["parts", var id] when e.Values["box"] is { } value && rig.Parts.Find(id) is { } part:
                var box = RigNodes.Read<Box>(value, "values.box");
                return (rig with { Parts = RigNodes.Put(rig.Parts, part with { Box = box }) }, () => EditWords.Changed(rig, e));
            default:
                return null;
        }
    }

    private static (Rig, Func<Sentence>) Remove(Rig rig, RemoveThing e)
    {
        var (after, words) = Removing.Remove(rig, e.Thing);
        return (after, () => words);
    }

    private static (Rig, Func<Sentence>) Put(Rig rig, Restore e)
    {
        Restoring.Demand(e.What);
        return (Restoring.Apply(rig, e.Effect), () => Restoring.Words(e.What));
    }

    private static (Rig, Func<Sentence>) Insert(Rig rig, InsertBend e)
    {
        int place = 0;
        return ChangeRun(
            rig, e.RunId,
            run =>
            {
                if (IndexOf(run, e.Bend.Id) >= 0) throw new EditException("bend.id", $"the id '{e.Bend.Id}' is used already");
                place = After(run, e.After);
                return run with { Bends = [.. run.Bends.Take(place), e.Bend, .. run.Bends.Skip(place)] };
            },
            run => $"Bend {place + 1} put into {run.Name}");
    }

    private static (Rig, Func<Sentence>) Tee(Rig rig, PutTee e)
    {
        var run = RunOf(rig, e.RunId);
        int place = After(run, e.After);
        var index = new RigIndex(rig);
        var course = index.CourseOf(run);
        var along = course[place + 1] - course[place];
        // The way through the tee follows the run as nearly as quarter turns allow.
        var tee = Turning.FromStock(Catalogue.Part("tee")!, e.TeeId, e.TeeName, e.At, Turning.AlongWay(along));
        var middle = tee.PortAt("a")!.Value.Towards(tee.PortAt("b")!.Value, 0.5);
        tee = tee with { Box = tee.Box with { At = Turning.Micro(e.At + (e.At - middle)) } };
        var first = run with { To = new RunEnd(tee.Id, "a"), Bends = [.. run.Bends.Take(place)] };
        var second = run with
        {
            Id = e.NewRunId,
            Name = Words.Names.Next(rig, run.Name),
            From = new RunEnd(tee.Id, "b"),
            Bends = [.. run.Bends.Skip(place)],
            Insulation = run.SleeveOn(place)
        };
        rig = rig with { Parts = Fresh(rig.Parts, tee, "teeId"), Runs = Fresh(RigNodes.Put(rig.Runs, first), second, "newRunId") };
        return (rig, () => $"Tee put into {run.Name}");
    }

    private static (Rig, Func<Sentence>) Set(Rig rig, SetPosition e)
    {
        var scenario = rig.Scenarios.Find(e.ScenarioId) ?? throw new EditException("scenarioId", $"there is no scenario '{e.ScenarioId}'");
        var part = PartOf(rig, e.PartId);
        var positions = Catalogue.Part(part.Stock)!.Positions;
        var position = positions.FirstOrDefault(p => p.Id == e.Position);
        if (e.Position is not null && position is null)
            throw new EditException("position", positions.Count == 0 ? $"{part.Name} has no positions"
                : $"{part.Name} can be {string.Join(", ", positions.Select(p => p.Id))}");
        var settings = e.Position is null ? RigNodes.Without(scenario.Settings, part.Id) : RigNodes.Put(scenario.Settings, new Setting(part.Id, e.Position));
        rig = rig with { Scenarios = RigNodes.Put(rig.Scenarios, scenario with { Settings = settings }) };
        return (rig, () => $"{scenario.Name}: {part.Name} {position?.Name ?? "as usual"}");
    }

    private static (Rig, Func<Sentence>) Insert(Rig rig, InsertFragment e)
    {
        if (e.Parts.Count + e.Runs.Count == 0) throw new EditException("parts", "there is nothing to insert");
        var taken = rig.Parts.Select(p => p.Id).ToHashSet();
        for (int i = 0; i < e.Parts.Count; i++)
            if (!taken.Add(e.Parts[i].Id)) throw new EditException($"parts[{i}].id", $"the id '{e.Parts[i].Id}' is used already");
        taken = [.. rig.Runs.Select(r => r.Id)];
        for (int i = 0; i < e.Runs.Count; i++)
            if (!taken.Add(e.Runs[i].Id)) throw new EditException($"runs[{i}].id", $"the id '{e.Runs[i].Id}' is used already");
        return (rig with
        {
            Parts = [.. rig.Parts.Concat(e.Parts.Select(p => p with { Ports = p.Ports.InOrder() })).InOrder()],
            Runs = rig.Runs.Concat(e.Runs).InOrder()
        }, () => $"Inserted {e.Name}");
    }

    private static (Rig, Func<Sentence>) Draw(Rig rig, DrawFaces e)
    {
        var zones = rig.Shell.Zones;
        if (zones.Count == 0) throw new EditException("zoneIds", "there are no zones yet");
        foreach (string id in e.ZoneIds)
            if (zones.Find(id) is null) throw new EditException("zoneIds", $"there is no zone '{id}'");
        rig = rig with { Shell = rig.Shell with { Zones = Faces.Drawn(zones, e.ZoneIds) } };
        return (rig, () => e.ZoneIds.Count == 1 ? $"Faces of {zones.Find(e.ZoneIds[0])!.Name} from its box" : "Faces from the boxes");
    }

    private static (Rig, Func<Sentence>) ChangePart(Rig rig, string id, Func<Part, Part> change, Func<Part, Sentence> words)
    {
        var part = PartOf(rig, id);
        return (rig with { Parts = RigNodes.Put(rig.Parts, change(part)) }, () => words(part));
    }

    private static (Rig, Func<Sentence>) ChangeRun(Rig rig, string id, Func<Run, Run> change, Func<Run, Sentence> words)
    {
        var run = RunOf(rig, id);
        var changed = change(run);
        return (rig with { Runs = RigNodes.Put(rig.Runs, changed) }, () => words(run));
    }

    private static Part PartOf(Rig rig, string id) => rig.Parts.Find(id) ?? throw new EditException("partId", $"there is no part '{id}'");

    private static Run RunOf(Rig rig, string id) => rig.Runs.Find(id) ?? throw new EditException("runId", $"there is no run '{id}'");

    private static int IndexOf(Run run, string bend)
    {
        for (int i = 0; i < run.Bends.Count; i++)
            if (run.Bends[i].Id == bend)
                return i;
        return -1;
    }

    private static int After(Run run, string? bend)
    {
        if (bend is null) return 0;
        int at = IndexOf(run, bend);
        return at >= 0 ? at + 1 : throw new EditException("after", $"{run.Name} has no bend '{bend}'");
    }

    private static IReadOnlyList<T> Fresh<T>(IReadOnlyList<T> list, T thing, string field)
        where T : class, IIdentified
    {
        if (!RigCheck.IsId(thing.Id)) throw new EditException(field, "an id is 1 to 60 lower-case letters, digits and hyphens");
        return list.Find(thing.Id) is null ? RigNodes.Put(list, thing) : throw new EditException(field, $"the id '{thing.Id}' is used already");
    }

    internal static string? IdOf(JsonNode? thing) => thing is JsonObject value && value["id"] is JsonValue v && v.TryGetValue(out string? id) ? id : null;
}
