using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Scenarios;

namespace WarmConduit.Core.Studies.WaterFlow;

/// <summary>How the rig is used at a moment.</summary>
/// <param name="Task">What its valves are set for.</param>
/// <param name="ScenarioId">A scenario that goes before the task; left out: none.</param>
/// <param name="Open">Ids of the taps and appliances that are open, at most 100; left out: none.</param>
/// <param name="Positions">Positions of valves and pumps that go before all others, at most 1000; left out: none.</param>
/// <param name="FreshShare">How full every fresh tank is, 0 to 1; left out: as the night has it.</param>
/// <param name="WishC">Water that is mixed at a tap, °C; 0 to 95; left out: 38.</param>
/// <param name="HotC">Water from a heater, °C; 0 to 95; left out: 60.</param>
/// <param name="ColdC">Water in the tank and from outside, °C; 0 to 95; left out: 12.</param>
/// <param name="Fouled">Filters are due for change.</param>
/// <param name="Compare">Each open outlet alone, and other bores, are tried as well.</param>
public sealed record WaterFlowInput(
    TaskKind Task = TaskKind.Tank,
    string? ScenarioId = null,
    IReadOnlyList<string>? Open = null,
    IReadOnlyList<Setting>? Positions = null,
    double? FreshShare = null,
    double? WishC = null,
    double? HotC = null,
    double? ColdC = null,
    bool Fouled = false,
    bool Compare = true) : IStudyInput
{
    /// <summary>What is taken where nothing is said, °C: a warm hand, a storage heater, a tank in a cool vehicle. Estimates.</summary>
    public const double UsualWishC = 38, UsualHotC = 60, UsualColdC = 12;

    /// <inheritdoc/>
    public IReadOnlyList<RigFault> Check(Rig rig)
    {
        var c = new FieldChecker();
        if (!Enum.IsDefined(Task)) c.Add("task", "this task is not known");
        if (ScenarioId is not null && rig.Scenarios.Find(ScenarioId) is null) c.Add("scenarioId", $"there is no scenario '{ScenarioId}'");
        c.Count("open", Open?.Count ?? 0, 0, 100);
        c.Count("positions", Positions?.Count ?? 0, 0, RigCheck.MaxParts);
        for (int i = 0; i < Math.Min(Open?.Count ?? 0, 100); i++)
            if (rig.Parts.Find(Open![i]) is null) c.Add($"open[{i}]", $"there is no part '{Open[i]}'");
        for (int i = 0; i < Math.Min(Positions?.Count ?? 0, RigCheck.MaxParts); i++)
        {
            if (rig.Parts.Find(Positions![i].Id) is not { } part) c.Add($"positions[{i}].id", $"there is no part '{Positions[i].Id}'");
            else if (Catalogue.Part(part.Stock)!.Positions.All(p => p.Id != Positions[i].Position))
                c.Add($"positions[{i}].position", $"it can be {string.Join(", ", Catalogue.Part(part.Stock)!.Positions.Select(p => p.Id))}");
        }
        c.Range("freshShare", FreshShare ?? 1, "night.tankShare");
        c.Range("wishC", WishC ?? UsualWishC, "flow.temperatureC");
        c.Range("hotC", HotC ?? UsualHotC, "flow.temperatureC");
        c.Range("coldC", ColdC ?? UsualColdC, "flow.temperatureC");
        return c.Faults;
    }
}
