using System.Text.Json;
using System.Text.Json.Nodes;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Rigs.Edits;

/// <summary>Puts an effect into a document: things removed, things added, values set, orders kept.</summary>
internal static class Restoring
{
    public static Rig Apply(Rig rig, Effect effect)
    {
        foreach (var gone in effect.Removed) rig = RemoveFrom(rig, $"{gone.List}/{IdOf(gone, "effect.removed")}", out _);
        foreach (var come in effect.Added) rig = AddTo(rig, come.List, IdOf(come, "effect.added"), come.Thing);
        // Values of one thing are set together: on the way between two sound states it may not be sound.
        foreach (var group in effect.Set.GroupBy(s => RigNodes.Split(s.Path).Root))
        {
            if (RigNodes.IsList(group.Key)) throw new EditException("effect.set", $"there is no value at '{group.Key}'");
            rig = RigNodes.With(rig, group.Key, node =>
            {
                foreach (var set in group.OrderBy(s => s.Path.EndsWith(Effect.Order, StringComparison.Ordinal))) Set(node, set);
                return node;
            });
        }
        return rig;
    }

    /// <summary>Refuses words that are too long to be kept.</summary>
    public static void Demand(Sentence what)
    {
        if (what.Text.Length > 1000 || what.Values.Count > 50) throw new EditException("what", "it is longer than 1000 characters");
    }

    /// <summary>Undoing what was undone is doing it again.</summary>
    public static Sentence Words(Sentence what)
    {
        const string undone = "Undone: ", again = "Done again: ";
        if (what.Text.StartsWith(undone, StringComparison.Ordinal)) return what with { Text = again + what.Text[undone.Length..] };
        return what with { Text = undone + (what.Text.StartsWith(again, StringComparison.Ordinal) ? what.Text[again.Length..] : what.Text) };
    }

    /// <summary>Adds <paramref name="value"/> to the list at a path. Throws <see cref="EditException"/> where there is no such list or the id is
    /// taken.</summary>
    public static Rig AddTo(Rig rig, string list, string id, JsonObject value)
    {
        if (!RigCheck.IsId(id)) throw new EditException("value.id", "an id is 1 to 60 lower-case letters, digits and hyphens");
        if (RigNodes.IsList(list))
        {
            return RigNodes.With(rig, $"{list}/{id}", old => old is null ? value.DeepClone()
                : throw new EditException("value.id", $"the id '{id}' is used already"));
        }
        var (root, inside) = RigNodes.Split(list);
        return RigNodes.With(rig, root, node =>
        {
            if (!IsListOfThings(inside)) throw new EditException("list", $"there is no list '{list}'");
            // A list may be left out while there is nothing in it.
            if (RigNodes.At(node, inside.AsSpan(0, inside.Length - 1)) is JsonObject holder) holder[inside[^1]] ??= new JsonArray();
            if (RigNodes.At(node, inside) is not JsonArray things) throw new EditException("list", $"there is no list '{list}'");
            if (things.Any(t => EditRules.IdOf(t) == id)) throw new EditException("value.id", $"the id '{id}' is used already");
            things.Add(value.DeepClone());
            return node;
        });
    }

    /// <summary>Takes the thing at a path out of its list.</summary>
    public static Rig RemoveFrom(Rig rig, string path, out string name)
    {
        var (root, inside) = RigNodes.Split(path);
        string said = path.Split('/')[^1];
        EditException Nothing() => new("thing", $"there is nothing at '{path}' that can be removed");
        if (root is "rig" or "brief" || !root.Contains('/') && inside.Length < 2) throw Nothing();
        var after = RigNodes.With(rig, root, node =>
        {
            if (node is null) throw Nothing();
            if (inside.Length == 0)
            {
                said = EditWords.NameOf(rig, node, said);
                return null;
            }
            if (!IsListOfThings(inside.AsSpan(0, inside.Length - 1)) || RigNodes.At(node, inside.AsSpan(0, inside.Length - 1)) is not JsonArray list
                || list.FirstOrDefault(t => EditRules.IdOf(t) == inside[^1]) is not { } thing) throw Nothing();
            said = EditWords.NameOf(rig, thing, said);
            list.Remove(thing);
            return node;
        });
        name = said;
        return after;
    }

    // Lists of plain values, such as the layers of a face, are set whole.
    private static bool IsListOfThings(ReadOnlySpan<string> inside) => inside.Length > 0 && Lists.Contains(inside[^1]);

    private static readonly HashSet<string> Lists = ListsWithin(typeof(Rig), []);

    // By the document's own types, so that none is forgotten that joins them.
    private static HashSet<string> ListsWithin(Type type, HashSet<Type> seen)
    {
        var lists = new HashSet<string>();
        if (!seen.Add(type)) return lists;
        foreach (var property in type.GetProperties())
        {
            var item = property.PropertyType is { IsGenericType: true } list && list.GetGenericTypeDefinition() == typeof(IReadOnlyList<>)
                ? list.GenericTypeArguments[0] : null;
            if (item?.IsAssignableTo(typeof(IIdentified)) == true) lists.Add(JsonNamingPolicy.CamelCase.ConvertName(property.Name));
            var inner = item ?? property.PropertyType;
            if (inner.Namespace == typeof(Rig).Namespace) lists.UnionWith(ListsWithin(inner, seen));
        }
        return lists;
    }

    private static void Set(JsonNode? node, ValueSet set)
    {
        var inside = RigNodes.Split(set.Path).Inside;
        EditException Nowhere() => new("effect.set", $"there is nothing at '{set.Path}'");
        if (inside.Length == 0) throw Nowhere();
        var holder = RigNodes.At(node, inside.AsSpan(0, inside.Length - 1));
        if (inside[^1] == Effect.Order && holder is JsonArray list)
        {
            if (set.After is not JsonArray ids) throw Nowhere();
            var rank = new Dictionary<string, int>();
            foreach (var id in ids)
                if (id is JsonValue v && v.TryGetValue(out string? text))
                    rank.TryAdd(text, rank.Count);
            // What has come since keeps its place behind.
            var sorted = list.OrderBy(t => rank.GetValueOrDefault(EditRules.IdOf(t) ?? "", int.MaxValue)).ToList();
            list.Clear();
            foreach (var thing in sorted) list.Add(thing);
            return;
        }
        if (holder is not JsonObject fields) throw Nowhere();
        if (set.After is null) fields.Remove(inside[^1]);
        else fields[inside[^1]] = set.After.DeepClone();
    }

    private static string IdOf(ThingMoved thing, string field) => EditRules.IdOf(thing.Thing) ?? throw new EditException(field, "a thing has an id");
}
