using WarmConduit.Core.Materials;

namespace WarmConduit.Core.Rigs;

/// <summary>What a scenario is for. Every rig has one of each of the standard ones, and any number of the user's own.</summary>
public enum ScenarioKind
{
    /// <summary>Water from the tank by the pump.</summary>
    InUse,

    /// <summary>Water from a hose outside.</summary>
    TownWater,

    /// <summary>Filling the tank.</summary>
    Fill,

    /// <summary>Draining for frost, and how the rig is then left.</summary>
    Drain,

    /// <summary>Blowing the lines out with air.</summary>
    BlowOut,

    /// <summary>Drawing antifreeze through the lines.</summary>
    Antifreeze,

    /// <summary>The user's own.</summary>
    Own,

    /// <summary>A mode of the heating circuits, of the user's own: how their valves, pumps and heaters stand.</summary>
    Heating,
}

/// <summary>The position of one part in a scenario. <paramref name="Id"/> is the part's; <paramref name="Position"/> one of its stock's positions.</summary>
/// <param name="Id">Id of the part.</param>
/// <param name="Position">One of its stock's positions.</param>
public sealed record Setting(string Id, string Position) : IIdentified;

/// <summary>What a scenario asks of the water, for which positions are found. Ids of parts: tanks, inlets, taps, drains, heaters, filters and others.</summary>
/// <param name="From">Where water comes from.</param>
/// <param name="Reach">Where it has to get to; a drain or an open end lets it out.</param>
/// <param name="Avoid">Where it must not get to.</param>
public sealed record ScenarioGoal(IReadOnlyList<string> From, IReadOnlyList<string> Reach, IReadOnlyList<string> Avoid)
{
    /// <summary>Every part that it names.</summary>
    public IEnumerable<string> PartIds() => From.Concat(Reach).Concat(Avoid);

    /// <summary>The same without a part.</summary>
    public ScenarioGoal Without(string partId) =>
        new([.. From.Where(id => id != partId)], [.. Reach.Where(id => id != partId)], [.. Avoid.Where(id => id != partId)]);
}

/// <summary>Gear that is joined for one task and goes back into its box.</summary>
public enum GearKind
{
    /// <summary>A hose in a bottle of antifreeze.</summary>
    Bottle,

    /// <summary>An air hose with its adapter.</summary>
    AirHose,

    /// <summary>A loose pump in open water.</summary>
    LoosePump,
}

/// <summary>Gear of a scenario, and the port that it is joined to; a line that is joined there is taken off meanwhile.</summary>
/// <param name="Kind">What it is.</param>
/// <param name="PartId">Id of the part.</param>
/// <param name="Port">Id of its port.</param>
public sealed record ScenarioGear(GearKind Kind, string PartId, string Port);

/// <summary>A named set of positions of valves, taps and pumps. A part without a setting is as <see cref="Scenarios.Usual"/> says.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">Its name.</param>
/// <param name="Kind">What it is for.</param>
/// <param name="Settings">Positions that differ from the default.</param>
/// <param name="Goal">What it asks of the water; null: what its kind asks, and of the user's own, nothing.</param>
/// <param name="Gear">Gear that is joined for it; null: what its kind usually takes.</param>
public sealed record Scenario(
    string Id, string Name, ScenarioKind Kind, IReadOnlyList<Setting> Settings, ScenarioGoal? Goal = null, ScenarioGear? Gear = null) : IIdentified
{
    /// <summary>Whether it says anything of a part.</summary>
    public bool Names(string partId) => Settings.Find(partId) is not null || Gear?.PartId == partId || (Goal is not null && Goal.PartIds().Contains(partId));

    /// <summary>The same with nothing said of a part.</summary>
    public Scenario Without(string partId) => this with
    {
        Settings = [.. Settings.Where(s => s.Id != partId)],
        Goal = Goal?.Without(partId),
        Gear = Gear?.PartId == partId ? null : Gear,
    };
}

/// <summary>Something done by hand when the rig is left, that no slope and no valve does. <paramref name="Id"/> is the part's.</summary>
/// <param name="Id">Id of the part.</param>
/// <param name="Task">What is done, in words.</param>
public sealed record HandTask(string Id, string Task) : IIdentified;

/// <summary>The standard scenarios, and how parts stand in them until somebody says otherwise.</summary>
public static class Scenarios
{
    /// <summary>Id and name of every standard scenario.</summary>
    public static IReadOnlyList<Scenario> Standard { get; } =
    [
        new("antifreeze", "Antifreeze", ScenarioKind.Antifreeze, []),
        new("blow-out", "Blow out", ScenarioKind.BlowOut, []),
        new("drain", "Drain", ScenarioKind.Drain, []),
        new("fill", "Fill", ScenarioKind.Fill, []),
        new("in-use", "In use", ScenarioKind.InUse, []),
        new("town-water", "Town water", ScenarioKind.TownWater, []),
    ];

    /// <summary>The position of a part of <paramref name="stock"/> in a scenario of <paramref name="kind"/> where none is set; null for a part that cannot be
    /// set.</summary>
    public static string? Usual(StockPart stock, ScenarioKind kind) => stock.Passage switch
    {
        Passage.Valve => kind == ScenarioKind.Drain && stock.Positions.Any(p => p.Id == Positions.HalfOpen) ? Positions.HalfOpen : Positions.Open,
        Passage.Mixer or Passage.Drain => kind == ScenarioKind.Drain ? Positions.Open : Positions.Closed,
        Passage.Pump => kind is ScenarioKind.InUse or ScenarioKind.Antifreeze ? Positions.On : Positions.Off,
        _ => stock.Positions.Count > 0 ? stock.Positions[0].Id : null,
    };

    /// <summary>Whether a rig has as many scenarios of this kind as its user wants.</summary>
    public static bool IsOwn(ScenarioKind kind) => kind is ScenarioKind.Own or ScenarioKind.Heating;

    /// <summary>How <paramref name="part"/> stands in <paramref name="scenario"/>; null for a part that cannot be set.</summary>
    public static StockPosition? PositionOf(this Scenario scenario, Part part)
    {
        var stock = Catalogue.Part(part.Stock)!;
        if (stock.Positions.Count == 0) return null;
        string? id = scenario.Settings.Find(part.Id)?.Position ?? Usual(stock, scenario.Kind);
        return stock.Positions.FirstOrDefault(p => p.Id == id) ?? stock.Positions[0];
    }
}
