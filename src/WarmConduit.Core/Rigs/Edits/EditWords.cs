using System.Text.Json;
using System.Text.Json.Nodes;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Rigs.Edits;

/// <summary>Words for changed fields, with values in the reader's units.</summary>
internal static class EditWords
{
    // Field of a rig file, its words, and what it measures.
    private static readonly Dictionary<string, (string Words, Quantity Quantity)> Fields = new()
    {
        ["people"] = ("people", Quantity.Number),
        ["daysBetweenFills"] = ("days between fills", Quantity.Number),
        ["litresPerPersonDay"] = ("water per person and day", Quantity.Volume),
        ["lowestC"] = ("lowest temperature", Quantity.Temperature),
        ["windMPerS"] = ("wind", Quantity.Speed),
        ["hoursWithoutHeat"] = ("hours without heat", Quantity.Number),
        ["leastFall"] = ("least fall", Quantity.Fall),
        ["holdsL"] = ("content", Quantity.Volume),
        ["lossWPerK"] = ("heat loss", Quantity.Conductance),
        ["massKg"] = ("mass", Quantity.Mass),
        ["own"] = ("my own part", Quantity.Number),
        ["covered"] = ("cover from light", Quantity.Number),
        ["clipSpacingM"] = ("clip spacing", Quantity.Length),
        ["areaM2"] = ("area", Quantity.Area),
        ["heightM"] = ("height", Quantity.Length),
        ["boreM"] = ("bore", Quantity.Length),
        ["name"] = ("name", Quantity.Number),
        ["note"] = ("note", Quantity.Number),
        ["living"] = ("way of living", Quantity.Number),
        ["school"] = ("freeze school", Quantity.Number),
        ["pipe"] = ("pipe", Quantity.Number),
        ["service"] = ("what it carries", Quantity.Number),
        ["from"] = ("start", Quantity.Number),
        ["to"] = ("end", Quantity.Number),
        ["bends"] = ("course", Quantity.Number),
        ["insulation"] = ("insulation", Quantity.Number),
        ["box"] = ("place and size", Quantity.Number),
        ["at"] = ("place", Quantity.Number),
        ["offset"] = ("place", Quantity.Number),
        ["ports"] = ("ports", Quantity.Number),
        ["stock"] = ("kind of part", Quantity.Number),
        ["layers"] = ("layers", Quantity.Number),
        ["bridgeFraction"] = ("share of metal that bridges", Quantity.Number),
        ["bridgeLayers"] = ("layers of metal that bridges", Quantity.Number),
        ["towards"] = ("what is behind", Quantity.Number),
        ["side"] = ("side", Quantity.Number),
        ["front"] = ("front of the vehicle", Quantity.Number),
        ["heater"] = ("heater", Quantity.Number),
        ["airChangesPerHour"] = ("air changes an hour", Quantity.Number),
        ["kind"] = ("kind", Quantity.Number),
        ["settings"] = ("positions", Quantity.Number),
        ["task"] = ("what is done by hand", Quantity.Number),
        ["amount"] = ("price", Quantity.Number),
        ["position"] = ("position", Quantity.Number),
        ["outL"] = ("volume measured", Quantity.Volume),
        ["atH"] = ("start, in hours,", Quantity.Number),
        ["untilH"] = ("end, in hours,", Quantity.Number),
        ["holdC"] = ("temperature held", Quantity.Temperature),
        ["speedMPerS"] = ("speed", Quantity.Speed),
        ["zoneId"] = ("room", Quantity.Number),
    };

    /// <summary>"Raised kitchen cold, bend 2 by 5 mm".</summary>
    public static Sentence Moved(string what, Point3 by) => by is { XM: 0, YM: 0 }
        ? Sentence.Of($"{(by.ZM >= 0 ? "Raised" : "Lowered")} {what} by {Measure.Length(Math.Abs(by.ZM))}")
        : Sentence.Of($"Moved {what} by {Measure.Length(by.DistanceM(default))}");

    /// <summary>What a thing is called: its name; else what it is done to, or what happens; else its id.</summary>
    public static string NameOf(Rig rig, JsonNode? thing, string id)
    {
        string? Text(string field) => thing is JsonObject fields && fields[field] is JsonValue value && value.TryGetValue(out string? text) ? text : null;
        if (Text("name") is { } name) return name;
        if (Text("words") is { } words) return Rigs.Words.Names.Cut(words, 80);
        if (Text("thing") is { } of) return NameAt(rig, of);
        return thing is JsonObject named && (named.ContainsKey("atH") || Text("kind") == "filled") ? InWords(Text("kind") ?? id) : id;
    }

    /// <summary>What the part or run at a path, or that holds what is there, is called.</summary>
    public static string NameAt(Rig rig, string path) => path.Split('/') switch
    {
        ["parts", var id, ..] => rig.Parts.Find(id)?.Name ?? id,
        ["runs", var id, ..] => rig.Runs.Find(id)?.Name ?? id,
        _ => path,
    };

    /// <summary>"Added fresh tank"; of what was done, "Done: drain A".</summary>
    public static Sentence Added(Rig rig, string list, JsonObject value, string id) => (list, (string?)(value["kind"] as JsonValue)) switch
    {
        ("left", "filled") => "Filled",
        ("left", "antifreeze") => $"Antifreeze in {NameOf(rig, value, id)}",
        ("left", "blown") => $"Blown out: {NameOf(rig, value, id)}",
        ("left", _) => $"Done: {NameOf(rig, value, id)}",
        _ when list.EndsWith("/events", StringComparison.Ordinal) => $"Planned: {NameOf(rig, value, id)}",
        _ => $"Added {NameOf(rig, value, id)}",
    };

    // "heatFails" as people write it.
    private static string InWords(string kind) => string.Concat(kind.Select(c => char.IsUpper(c) ? $" {char.ToLowerInvariant(c)}" : $"{c}"));

    /// <summary>"Content of fresh tank: 60 L", "Name and note of the rig".</summary>
    public static Sentence Changed(Rig rig, ChangeThing edit)
    {
        var (path, values) = (edit.Thing, edit.Values);
        var (top, inside) = RigNodes.Split(path);
        var root = RigNodes.Node(rig, top);
        var thing = (JsonObject)RigNodes.At(root, inside)!;
        // A bend has no name of its own: its run's, and its number along it.
        string? holder = path.Contains("/bends/", StringComparison.Ordinal) ? (string?)root!["name"] : null;
        int index = holder is null ? 0 : 1 + root!["bends"]!.AsArray().IndexOf(thing);
        string name = path switch
        {
            "rig" => "the rig",
            "brief" => "the brief",
            "shell" => "the shell",
            _ => NameOf(rig, thing, path.Split('/')[^1]),
        };
        if (values.Count == 1)
        {
            var (field, value) = values.First();
            if (PlaceOf(thing, field) is { } old && PlaceOf(values, field) is { } now && now != old)
                return Moved(holder is null ? name : $"{holder}, bend {index}", Turning.Micro(now - old));
            var (words, quantity) = Fields.GetValueOrDefault(field, (field, Quantity.Number));
            if (field == "name" && value is JsonValue v && v.TryGetValue(out string? renamed)) return $"Renamed {name} to {renamed}";
            if (value?.GetValueKind() == JsonValueKind.Number)
                return Sentence.Of($"{Capital(words)} of {name}: {new Measure(value.Deserialize<double>(), quantity)}");
            return $"{Capital(words)} of {name}{(value is null ? " left out" : "")}";
        }
        var all = values.Select(f => Fields.GetValueOrDefault(f.Key, (f.Key, Quantity.Number)).Item1).ToList();
        return $"{Capital(string.Join(", ", all.SkipLast(1)))} and {all[^1]} of {name}";
    }

    // Where the thing is, if that is all that the field says: a place, or a box that keeps its size.
    private static Point3? PlaceOf(JsonObject fields, string field)
    {
        try
        {
            return field switch
            {
                "at" => fields["at"].Deserialize<Point3>(RigFile.Compact),
                "box" => fields["box"].Deserialize<Box>(RigFile.Compact).At,
                _ => null,
            };
        }
        catch (JsonException)
        {
            return null;
        }
    }

    private static string Capital(string text) => text.Length == 0 ? text : char.ToUpperInvariant(text[0]) + text[1..];
}
