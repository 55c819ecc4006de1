using System.Text.Json;
using System.Text.Json.Nodes;

namespace WarmConduit.Core.Rigs.Edits;

/// <summary>What differs between two documents, thing by thing. What is the same object on both sides is not looked into, so a small edit costs
/// little.</summary>
public static class RigDiff
{
    /// <summary>The effect that leads from <paramref name="before"/> to <paramref name="after"/>. O(things), and O(size) of those that differ.</summary>
    public static Effect Between(Rig before, Rig after)
    {
        var c = new Collector();
        if (!ReferenceEquals(before, after))
        {
            c.Values("name", before.Name, after.Name);
            c.Values("note", before.Note, after.Note);
            c.Values("brief", before.Brief, after.Brief);
            c.Values("shell", before.Shell, after.Shell);
            c.List("parts", before.Parts, after.Parts);
            c.List("runs", before.Runs, after.Runs);
            c.List("scenarios", before.Scenarios, after.Scenarios);
            c.List("byHand", before.ByHand, after.ByHand);
            c.List("prices", before.Prices, after.Prices);
            c.List("plans", before.Plans ?? [], after.Plans ?? []);
            c.List("left", before.Left ?? [], after.Left ?? []);
            c.List("ownSteps", before.OwnSteps ?? [], after.OwnSteps ?? []);
        }
        return new Effect(c.Set, c.Added, c.Removed);
    }

    internal static JsonNode? Node<T>(T value) => JsonSerializer.SerializeToNode(value, RigFile.Compact);

    private sealed class Collector
    {
        public List<ValueSet> Set { get; } = [];
        public List<ThingMoved> Added { get; } = [];
        public List<ThingMoved> Removed { get; } = [];

        public void Values<T>(string path, T before, T after)
            where T : class
        {
            if (!ReferenceEquals(before, after)) Compare(path, Node(before), Node(after));
        }

        public void List<T>(string path, IReadOnlyList<T> before, IReadOnlyList<T> after)
            where T : class, IIdentified
        {
            if (ReferenceEquals(before, after)) return;
            // Both stand in order of id: one walk along the two.
            int b = 0, a = 0;
            while (b < before.Count || a < after.Count)
            {
                int order = b == before.Count ? 1 : a == after.Count ? -1 : string.CompareOrdinal(before[b].Id, after[a].Id);
                if (order == 0) Values($"{path}/{before[b].Id}", before[b++], after[a++]);
                else if (order < 0) Removed.Add(new ThingMoved(path, (JsonObject)Node(before[b++])!));
                else Added.Add(new ThingMoved(path, (JsonObject)Node(after[a++])!));
            }
        }

        private void Compare(string path, JsonNode? before, JsonNode? after)
        {
            if (before is JsonObject x && after is JsonObject y)
            {
                foreach (string field in x.Select(f => f.Key).Union(y.Select(f => f.Key))) Compare($"{path}/{field}", x[field], y[field]);
            }
            else if (before is JsonArray p && after is JsonArray q && (p.Count > 0 || q.Count > 0) && IsById(p) && IsById(q))
            {
                CompareLists(path, p, q);
            }
            else if (!JsonNode.DeepEquals(before, after))
            {
                Set.Add(new ValueSet(path, before?.DeepClone(), after?.DeepClone()));
            }
        }

        private void CompareLists(string path, JsonArray before, JsonArray after)
        {
            var old = before.ToDictionary(n => (string)n!["id"]!, n => (JsonObject)n!);
            var now = after.ToDictionary(n => (string)n!["id"]!, n => (JsonObject)n!);
            foreach (var (id, thing) in old)
            {
                if (now.TryGetValue(id, out var other)) Compare($"{path}/{id}", thing, other);
                else Removed.Add(new ThingMoved(path, (JsonObject)thing.DeepClone()));
            }
            foreach (var (id, thing) in now)
                if (!old.ContainsKey(id))
                    Added.Add(new ThingMoved(path, (JsonObject)thing.DeepClone()));
            // All other lists stand in order of id.
            if (path.EndsWith("/bends", StringComparison.Ordinal) && !old.Keys.SequenceEqual(now.Keys))
                Set.Add(new ValueSet($"{path}/{Effect.Order}", new JsonArray([.. old.Keys.Select(k => (JsonNode)k)]),
                    new JsonArray([.. now.Keys.Select(k => (JsonNode)k)])));
        }

        private static bool IsById(JsonArray list) => list.All(n => n is JsonObject thing && thing["id"] is JsonValue id
            && id.GetValueKind() == JsonValueKind.String);
    }
}
