using WarmConduit.Core.Advice.Tasks;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Heating;
using WarmConduit.Core.Studies.Modes;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Modes;

/// <summary>What a mode gives to one thing.</summary>
/// <param name="Id">Id of the part, or of the run that is a trace.</param>
/// <param name="Group">What it is for.</param>
/// <param name="MeanW">Heat that it gets, on average until morning, W.</param>
public sealed record ModeShare(string Id, HeatGroup Group, double MeanW);

/// <summary>What a mode takes of one thing until morning.</summary>
/// <param name="Kind">Of what.</param>
/// <param name="UntilMorning">Wh of battery and mains, L of fuel.</param>
public sealed record ModeCost(EnergyKind Kind, double UntilMorning);

/// <summary>A mode of the heating circuits.</summary>
/// <param name="Key">Tells it from the others.</param>
/// <param name="Name">What it does, or the name that it was given.</param>
/// <param name="ScenarioId">The heating mode of the rig in which it is kept; null: it was found.</param>
/// <param name="Now">It is the one that the night is asked with.</param>
/// <param name="InUse">Valves and pumps stand as in use.</param>
/// <param name="Sources">Heaters that heat.</param>
/// <param name="Warms">What is warmed.</param>
/// <param name="GivenW">What its heaters give, on average until morning, W: what is warmed, and what is lost on the way.</param>
/// <param name="Settings">The position of every valve, pump and heater of the circuits.</param>
/// <param name="Turns">Those that are turned from how they are in use.</param>
/// <param name="FirstIceS">When something first freezes, s from the start; null: nothing does until morning.</param>
/// <param name="Takes">What it takes until morning: Wh of battery and mains, L of fuel.</param>
/// <param name="Night">What it leaves unprotected, in words.</param>
/// <param name="Checks">What is wrong with it, or to be known before it is set.</param>
public sealed record HeatMode(
    string Key, string Name, string? ScenarioId, bool Now, bool InUse, IReadOnlyList<string> Sources, IReadOnlyList<ModeShare> Warms, double GivenW,
    IReadOnlyList<Setting> Settings, IReadOnlyList<Setting> Turns, double? FirstIceS,
    IReadOnlyList<ModeCost> Takes, Sentence Night, IReadOnlyList<Sentence> Checks);

/// <summary>A mode that is usual, and that no position of the valves makes.</summary>
/// <param name="Name">What it would do.</param>
/// <param name="Words">What stands in its way, and what is missing.</param>
/// <param name="Mend">The valves that make it possible; null: no few valves do.</param>
public sealed record MissingMode(string Name, Sentence Words, TaskMend? Mend);

/// <summary>The modes of a rig's heating circuits. Heat and hours are estimates.</summary>
/// <param name="Modes">As in use; those of the rig; those that were found, what does the most first; off last.</param>
/// <param name="Missing">Modes that are usual, and cannot be made.</param>
/// <param name="Turned">Ids of the valves, pumps and heaters that the modes turn, for a table.</param>
/// <param name="Searched">How they were found, in words; null: there is nothing to turn.</param>
public sealed record ModesAnswer(IReadOnlyList<HeatMode> Modes, IReadOnlyList<MissingMode> Missing, IReadOnlyList<string> Turned, Sentence? Searched);
