using System.Text.Json.Nodes;
using WarmConduit.Core.Materials;

namespace WarmConduit.Core.Rigs.Upgrades;

/// <summary>
/// Version 2: bends, faces, openings and obstacles get ids; the one drained state becomes the drain scenario, beside the other standard ones; what was taken
/// to be done by hand becomes a list; nights without heat become hours.
/// </summary>
internal static class From1To2
{
    private static readonly string[] Root = ["formatVersion", "id", "name", "note", "brief", "shell", "parts", "runs"];

    public static void Upgrade(JsonObject rig)
    {
        // Fields of the new version in a file that claims the old one would otherwise slip through.
        Known(rig, "", Root);
        var brief = Child(rig, "", "brief");
        int nights = Take(brief, "brief", "nightsWithoutHeat") is JsonValue n && n.TryGetValue(out int value) ? value
            : throw new UpgradeException("brief.nightsWithoutHeat", "a whole number belongs here");
        brief["hoursWithoutHeat"] = Math.Max(0, 24.0 * nights - 16);
        UpgradeShell(Child(rig, "", "shell"));
        var (settings, byHand) = UpgradeParts(List(rig, "", "parts"));
        UpgradeRuns(List(rig, "", "runs"));
        var scenarios = new JsonArray();
        foreach (var standard in Scenarios.Standard)
        {
            scenarios.Add(new JsonObject
            {
                ["id"] = standard.Id,
                ["name"] = standard.Name,
                ["kind"] = char.ToLowerInvariant(standard.Kind.ToString()[0]) + standard.Kind.ToString()[1..],
                ["settings"] = standard.Kind == ScenarioKind.Drain ? settings : new JsonArray(),
            });
        }
        rig["scenarios"] = scenarios;
        rig["byHand"] = byHand;
        rig["prices"] = new JsonArray();
    }

    private static void UpgradeShell(JsonObject shell)
    {
        Known(shell, "shell", ["body", "obstacles", "zones"]);
        Number(List(shell, "shell", "obstacles"), "shell.obstacles", "obstacle");
        var zones = List(shell, "shell", "zones");
        for (int z = 0; z < zones.Count; z++)
        {
            string at = $"shell.zones[{z}]";
            var zone = Object(zones[z], at);
            Number(List(zone, at, "faces"), $"{at}.faces", "face");
            Number(List(zone, at, "openings"), $"{at}.openings", "opening");
        }
        shell["keepOuts"] = new JsonArray();
        shell["access"] = new JsonArray();
    }

    private static (JsonArray Settings, JsonArray ByHand) UpgradeParts(JsonArray parts)
    {
        var settings = new JsonArray();
        var byHand = new JsonArray();
        for (int p = 0; p < parts.Count; p++)
        {
            string at = $"parts[{p}]";
            var part = Object(parts[p], at);
            string state = part.ContainsKey("whenDrained") ? Text(Take(part, at, "whenDrained"), $"{at}.whenDrained") : "open";
            if (state is not ("open" or "halfOpen" or "closed")) throw new UpgradeException($"{at}.whenDrained", "it is open, halfOpen or closed");
            string id = Text(part["id"], $"{at}.id");
            if (Catalogue.Part(Text(part["stock"], $"{at}.stock")) is not { } stock) continue;
            // Only what stood in the way of the water, or let it by, was ever read.
            if (stock.Passage is Passage.Valve or Passage.Mixer or Passage.Drain)
            {
                string position = state == "closed" ? Positions.Closed : state == "halfOpen" && stock.Passage == Passage.Valve ? Positions.HalfOpen
                    : Positions.Open;
                settings.Add(new JsonObject { ["id"] = id, ["position"] = position });
            }
            if (stock.KeepsWater) byHand.Add(new JsonObject { ["id"] = id, ["task"] = stock.Remedy });
        }
        return (settings, byHand);
    }

    private static void UpgradeRuns(JsonArray runs)
    {
        for (int r = 0; r < runs.Count; r++)
        {
            string at = $"runs[{r}]";
            var run = Object(runs[r], at);
            var via = List(run, at, "via");
            run.Remove("via");
            var bends = new JsonArray();
            for (int k = 0; k < via.Count; k++)
            {
                var place = Object(via[k], $"{at}.via[{k}]").DeepClone();
                bends.Add(new JsonObject { ["id"] = $"b{k + 1}", ["at"] = place });
            }
            run["bends"] = bends;
        }
    }

    // Order in the old list is what told its entries apart; two digits keep that order when sorted.
    private static void Number(JsonArray list, string path, string prefix)
    {
        for (int i = 0; i < list.Count; i++)
        {
            var entry = Object(list[i], $"{path}[{i}]");
            if (entry.ContainsKey("id")) throw new UpgradeException($"{path}[{i}].id", "this field is not known");
            entry.Insert(0, "id", $"{prefix}-{i + 1:00}");
        }
    }

    private static void Known(JsonObject value, string path, string[] fields)
    {
        foreach (var (name, _) in value)
            if (!fields.Contains(name)) throw new UpgradeException(Join(path, name), "this field is not known");
    }

    private static JsonNode? Take(JsonObject value, string path, string name)
    {
        if (!value.TryGetPropertyValue(name, out var taken)) throw new UpgradeException(Join(path, name), "it is missing");
        value.Remove(name);
        return taken;
    }

    private static JsonObject Child(JsonObject value, string path, string name) => Object(value[name], Join(path, name));

    private static JsonObject Object(JsonNode? node, string path) => node as JsonObject
        ?? throw new UpgradeException(path, node is null ? "it is missing" : "this is not the kind of value that belongs here");

    private static JsonArray List(JsonObject value, string path, string name) =>
        value[name] as JsonArray ?? throw new UpgradeException(Join(path, name), value[name] is null ? "it is missing"
            : "this is not the kind of value that belongs here");

    private static string Text(JsonNode? node, string path) =>
        node is JsonValue v && v.TryGetValue(out string? text) ? text : throw new UpgradeException(path, node is null ? "it is missing" : "text belongs here");

    private static string Join(string path, string name) => path.Length == 0 ? name : $"{path}.{name}";
}
