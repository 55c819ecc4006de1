using System.Text.Json;
using System.Text.Json.Nodes;

namespace WarmConduit.Core.Rigs.Edits;

/// <summary>
/// Things of a rig by path, as JSON and back. A change of one thing reads and writes only the part, run or other top-level thing that holds it.
/// </summary>
internal static class RigNodes
{
    /// <summary>Whether <paramref name="root"/> is one of the document's own lists of things.</summary>
    public static bool IsList(string root) => root is "parts" or "runs" or "scenarios" or "byHand" or "prices" or "plans" or "left" or "ownSteps";

    /// <summary>Splits a path into the top-level thing that holds it and the steps inside. Throws <see cref="EditException"/> for a path that leads
    /// nowhere.</summary>
    public static (string Root, string[] Inside) Split(string path)
    {
        var steps = path.Split('/');
        return steps[0] switch
        {
            "rig" or "name" or "note" => ("rig", steps[0] == "rig" ? steps[1..] : steps),
            "brief" or "shell" => (steps[0], steps[1..]),
            _ when IsList(steps[0]) => steps.Length > 1 ? ($"{steps[0]}/{steps[1]}", steps[2..]) : (steps[0], []),
            _ => throw new EditException("thing", $"there is nothing at '{path}'"),
        };
    }

    /// <summary>JSON of the top-level thing <paramref name="root"/>; null when there is none.</summary>
    public static JsonNode? Node(Rig rig, string root)
    {
        JsonNode? node = null;
        With(rig, root, n =>
        {
            node = n?.DeepClone();
            return n;
        });
        return node;
    }

    /// <summary>
    /// The rig with the top-level thing <paramref name="root"/> as <paramref name="change"/> makes it: it gets the thing's JSON, or null when there is none,
    /// and gives what shall stand there, or null for nothing.
    /// </summary>
    public static Rig With(Rig rig, string root, Func<JsonNode?, JsonNode?> change)
    {
        var steps = root.Split('/');
        switch (steps[0])
        {
            case "rig":
                var fields = (JsonObject)change(new JsonObject { ["name"] = rig.Name, ["note"] = rig.Note })!;
                if (fields.FirstOrDefault(f => f.Key is not ("name" or "note")).Key is { } unknown)
                    throw new EditException(unknown, $"the field '{unknown}' is not known");
                return rig with { Name = Read<string>(fields["name"], "name"), Note = Read<string>(fields["note"], "note") };
            case "brief":
                return rig with { Brief = Read<Brief>(change(RigDiff.Node(rig.Brief)), root) };
            case "shell":
                return rig with { Shell = (rig with { Shell = Read<Shell>(change(RigDiff.Node(rig.Shell)), root) }).InOrder().Shell };
            case "parts":
                return rig with { Parts = Upsert(rig.Parts, steps[1], change, p => p with { Ports = p.Ports.InOrder() }) };
            case "runs":
                return rig with { Runs = Upsert(rig.Runs, steps[1], change, r => r.InOrder()) };
            case "scenarios":
                return rig with { Scenarios = Upsert(rig.Scenarios, steps[1], change, s => s with { Settings = s.Settings.InOrder() }) };
            case "byHand":
                return rig with { ByHand = Upsert(rig.ByHand, steps[1], change, h => h) };
            case "plans":
                return rig with
                {
                    Plans = Upsert(rig.Plans ?? [], steps[1], change, p => p with { Events = p.Events.InOrder() }) is { Count: > 0 } plans
                    ? plans : null
                };
            case "left":
                return rig with { Left = Upsert(rig.Left ?? [], steps[1], change, a => a) is { Count: > 0 } left ? left : null };
            case "ownSteps":
                return rig with { OwnSteps = Upsert(rig.OwnSteps ?? [], steps[1], change, s => s) is { Count: > 0 } own ? own : null };
            default:
                return rig with { Prices = Upsert(rig.Prices, steps[1], change, p => p) };
        }
    }

    /// <summary>The list with <paramref name="thing"/> in the place of its id, in order.</summary>
    public static IReadOnlyList<T> Put<T>(IReadOnlyList<T> list, T thing)
        where T : class, IIdentified
    {
        var made = new List<T>(list.Count + 1);
        bool put = false;
        foreach (var other in list)
        {
            int order = string.CompareOrdinal(other.Id, thing.Id);
            if (order >= 0 && !put)
            {
                made.Add(thing);
                put = true;
            }
            if (order != 0) made.Add(other);
        }
        if (!put) made.Add(thing);
        return made;
    }

    /// <summary>The list without the thing of this id.</summary>
    public static IReadOnlyList<T> Without<T>(IReadOnlyList<T> list, string id)
        where T : class, IIdentified => [.. list.Where(t => t.Id != id)];

    /// <summary>Follows <paramref name="steps"/> from <paramref name="node"/>: fields of objects, ids in lists. Null when they lead nowhere.</summary>
    public static JsonNode? At(JsonNode? node, ReadOnlySpan<string> steps)
    {
        foreach (string step in steps)
        {
            node = node switch
            {
                JsonObject fields => fields[step],
                JsonArray list => list.FirstOrDefault(n => EditRules.IdOf(n) == step),
                _ => null,
            };
        }
        return node;
    }

    /// <summary>Reads a value strictly; throws <see cref="EditException"/> at the field that is wrong.</summary>
    public static T Read<T>(JsonNode? node, string path)
    {
        try
        {
            return node.Deserialize<T>(RigFile.Compact) ?? throw new EditException(path, "a value belongs here");
        }
        catch (JsonException e)
        {
            var refused = Misread.Refused(typeof(T), node, e);
            var fault = refused.Faults[0];
            throw new EditException(fault.Path == "file" ? path : fault.Path, fault.Reason, refused.Misread);
        }
        catch (InvalidOperationException)
        {
            throw new EditException(path, "this is not the kind of value that belongs here");
        }
    }

    private static IReadOnlyList<T> Upsert<T>(IReadOnlyList<T> list, string id, Func<JsonNode?, JsonNode?> change, Func<T, T> inOrder)
        where T : class, IIdentified
    {
        var node = change(RigDiff.Node(list.Find(id)));
        if (node is null) return Without(list, id);
        var thing = Read<T>(node, id);
        if (thing.Id != id) throw new EditException("id", "an id never changes");
        return Put(list, inOrder(thing));
    }
}
