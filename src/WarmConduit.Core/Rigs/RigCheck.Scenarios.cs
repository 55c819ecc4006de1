using WarmConduit.Core.Materials;

namespace WarmConduit.Core.Rigs;

/// <content>Scenarios, and what is done by hand.</content>
public static partial class RigCheck
{
    private static void CheckScenarios(FieldChecker c, Rig rig, Dictionary<string, Part> parts)
    {
        c.Count("scenarios", rig.Scenarios.Count, 0, 40);
        c.Unique("scenarios", rig.Scenarios);
        for (int i = 0; i < rig.Scenarios.Count; i++)
        {
            var scenario = rig.Scenarios[i];
            string at = $"scenarios[{i}]";
            c.Name($"{at}.name", scenario.Name);
            if (!Scenarios.IsOwn(scenario.Kind) && rig.Scenarios.Take(i).Any(s => s.Kind == scenario.Kind))
                c.Add($"{at}.kind", "there is a scenario of this kind already");
            c.Unique($"{at}.settings", scenario.Settings);
            CheckSettings(c, $"{at}.settings", scenario.Settings, parts.GetValueOrDefault);
            CheckGoal(c, at, scenario, parts);
        }
        c.Unique("byHand", rig.ByHand);
        for (int i = 0; i < rig.ByHand.Count; i++)
        {
            if (!parts.ContainsKey(rig.ByHand[i].Id)) c.Add($"byHand[{i}].id", $"there is no part '{rig.ByHand[i].Id}'");
            if (string.IsNullOrWhiteSpace(rig.ByHand[i].Task) || rig.ByHand[i].Task.Length > 200)
                c.Add($"byHand[{i}].task", "say in 1 to 200 characters what is done");
        }
    }

    /// <summary>Whether every setting is of a part that there is, and in a position that it has.</summary>
    internal static void CheckSettings(FieldChecker c, string at, IReadOnlyList<Setting> settings, Func<string, Part?> partOf)
    {
        for (int k = 0; k < Math.Min(settings.Count, MaxParts); k++)
        {
            var setting = settings[k];
            if (partOf(setting.Id) is not { } part) c.Add($"{at}[{k}].id", $"there is no part '{setting.Id}'");
            else if (Catalogue.Part(part.Stock) is { } stock && stock.Positions.All(p => p.Id != setting.Position))
                c.Add($"{at}[{k}].position", stock.Positions.Count == 0 ? $"a {stock.Name} has no positions"
                    : $"a {stock.Name} can be {string.Join(", ", stock.Positions.Select(p => p.Id))}");
        }
    }

    private static void CheckGoal(FieldChecker c, string at, Scenario scenario, Dictionary<string, Part> parts)
    {
        void Check(string field, IReadOnlyList<string> ids)
        {
            c.Count($"{at}.goal.{field}", ids.Count, 0, 100);
            for (int i = 0; i < ids.Count; i++)
            {
                if (!parts.ContainsKey(ids[i])) c.Add($"{at}.goal.{field}[{i}]", $"there is no part '{ids[i]}'");
                else if (ids.Take(i).Contains(ids[i])) c.Add($"{at}.goal.{field}[{i}]", $"'{ids[i]}' is in the list already");
            }
        }
        if (scenario.Goal is { } goal)
        {
            Check("from", goal.From);
            Check("reach", goal.Reach);
            Check("avoid", goal.Avoid);
        }
        if (scenario.Gear is not { } gear) return;
        if (!parts.TryGetValue(gear.PartId, out var part)) c.Add($"{at}.gear.partId", $"there is no part '{gear.PartId}'");
        else if (part.PortAt(gear.Port) is null) c.Add($"{at}.gear.port", $"part '{gear.PartId}' has no port '{gear.Port}'");
    }
}
