using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.Heating;

/// <summary>A length of a line of a circuit through the night, in the direction of flow.</summary>
/// <param name="RunId">The run.</param>
/// <param name="FromM">Where the fluid enters it, m from the run's start.</param>
/// <param name="ToM">Where the fluid leaves it.</param>
/// <param name="LPerMin">Flow at each hour, L/min.</param>
/// <param name="Warms">What it warms as a trace: id of its rung; null: the air around it.</param>
/// <param name="InC">Fluid that comes to it at each hour, °C; of a pump that a timer or button has rest then, at the end of its run in the hour that begins
/// then; null: the pump rests.</param>
/// <param name="OutC">Fluid that leaves it.</param>
/// <param name="HeatW">Heat that it gives off, W; where a pump is switched by a timer or a button, on average over the hour that begins then.</param>
public sealed record HeatLine(
    string RunId, double FromM, double ToM, IReadOnlyList<double> LPerMin, string? Warms, IReadOnlyList<double?> InC, IReadOnlyList<double?> OutC,
    IReadOnlyList<double> HeatW);

/// <summary>A part of a circuit that gives or takes heat, or a pad.</summary>
/// <param name="PartId">The part.</param>
/// <param name="Kind">What it does.</param>
/// <param name="Warms">The room or part that it warms; null: the fluid.</param>
/// <param name="LPerMin">Flow through it at each hour, L/min; empty: a pad.</param>
/// <param name="InC">Fluid that comes to it at each hour, °C; of a pump that a timer or button has rest then, at the end of its run in the hour that begins
/// then; null: the pump rests.</param>
/// <param name="OutC">Fluid that leaves it.</param>
/// <param name="HeatW">Heat that it gives at each hour, W (below 0: an engine takes it); of a pad, and where a pump is switched
/// by a timer or a button, on average over the hour that begins then.</param>
/// <param name="WhByHour">What it gives in each hour, Wh.</param>
/// <param name="UntilMorningWh">The same until morning, Wh.</param>
public sealed record HeatPart(
    string PartId, HeatRole Kind, string? Warms, IReadOnlyList<double> LPerMin, IReadOnlyList<double?> InC, IReadOnlyList<double?> OutC,
    IReadOnlyList<double> HeatW, IReadOnlyList<double> WhByHour, double UntilMorningWh);

/// <summary>What a part does with heat.</summary>
public enum HeatRole
{
    /// <summary>Heats the fluid.</summary>
    Source,

    /// <summary>Warms a room.</summary>
    Emitter,

    /// <summary>Warms the water around it.</summary>
    Coil,

    /// <summary>Warms the part that it lies on.</summary>
    Pad,

    /// <summary>An engine: heats the fluid while it is warmer, and is warmed by it else.</summary>
    Engine,
}

/// <summary>What gets heat.</summary>
public enum HeatPlace
{
    /// <summary>A room.</summary>
    Zone,

    /// <summary>Water in a part, or an engine.</summary>
    Part,

    /// <summary>Water in a line along which one is taped.</summary>
    Run,

    /// <summary>Nothing: it is lost.</summary>
    Outdoors,
}

/// <summary>What a room, a part or a line gets of circuits and pads.</summary>
/// <param name="Place">What it is.</param>
/// <param name="Id">Its id; null: outdoors.</param>
/// <param name="WhByHour">Heat that it gets in each hour, Wh; below 0: it gives some.</param>
/// <param name="UntilMorningWh">The same until morning, Wh.</param>
public sealed record HeatGot(HeatPlace Place, string? Id, IReadOnlyList<double> WhByHour, double UntilMorningWh);

/// <summary>A heater of a circuit: how hard it works.</summary>
/// <param name="PartId">The part.</param>
/// <param name="PowerW">Output at full, W.</param>
/// <param name="MeanW">Mean output until morning, W.</param>
/// <param name="MostW">The most in an hour, W.</param>
/// <param name="StartsPerHour">Starts an hour at the mean output; 0: it runs through. Estimate.</param>
/// <param name="Words">In words.</param>
public sealed record HeaterDuty(string PartId, double PowerW, double MeanW, double MostW, double StartsPerHour, Sentence Words);

/// <summary>A line that is traced, where its water is coldest.</summary>
/// <param name="RunId">The line with the water.</param>
/// <param name="ColdestC">Its coldest water until morning, °C.</param>
/// <param name="AlongM">Where: m from its start, in the middle of the length that is coldest.</param>
/// <param name="BareM">How much of it no trace touches, m.</param>
/// <param name="Words">In words.</param>
public sealed record TracedRun(string RunId, double ColdestC, double AlongM, double BareM, Sentence Words);

/// <summary>Something that a night uses up.</summary>
/// <param name="Kind">What.</param>
/// <param name="ByHour">Used in each hour: Wh of battery and mains, L of fuel.</param>
/// <param name="UntilMorning">Until morning.</param>
/// <param name="Has">What the brief gives to a night; null: nothing is said.</param>
/// <param name="EmptyS">Seconds from the start until that is used up, within the hours that are told; null: it is not.</param>
/// <param name="Nights">Nights like this that it lasts; null: without end, or nothing is said.</param>
/// <param name="Words">In words.</param>
public sealed record EnergyUse(
    EnergyKind Kind, IReadOnlyList<double> ByHour, double UntilMorning, double? Has, double? EmptyS, double? Nights, Sentence Words);

/// <summary>Where energy comes from.</summary>
public enum EnergyKind
{
    /// <summary>The battery, Wh.</summary>
    Battery,

    /// <summary>Liquid fuel, L.</summary>
    Fuel,

    /// <summary>Mains, Wh.</summary>
    Mains,
}

/// <summary>The heating circuits and pads of a rig through the night. All figures are estimates.</summary>
/// <param name="Lines">Lines with flow.</param>
/// <param name="Parts">Parts that give or take heat, and pads.</param>
/// <param name="Got">Where that heat goes, the most first.</param>
/// <param name="Heaters">Heaters of circuits.</param>
/// <param name="Traced">Lines that are traced.</param>
/// <param name="Litres">Fluid in the circuits, L.</param>
/// <param name="GlycolL">Glycol to buy for it, L.</param>
/// <param name="Glycol">Its volume fraction.</param>
/// <param name="FreezesC">Where the fluid freezes, °C.</param>
/// <param name="HeaderL">Content that a header tank should have: twice what the fluid swells by, L.</param>
/// <param name="HeatWh">Heat that all of it gives until morning, circuits, rooms and pads, Wh.</param>
/// <param name="FlowWords">For which fluid flows are told, in words; null: nothing flows.</param>
/// <param name="Energy">What the night uses.</param>
/// <param name="HotWater">What calorifiers have in store.</param>
/// <param name="HotDraws">What plate exchangers make.</param>
/// <param name="Notes">What else there is to say.</param>
public sealed record HeatingAnswer(
    IReadOnlyList<HeatLine> Lines, IReadOnlyList<HeatPart> Parts, IReadOnlyList<HeatGot> Got, IReadOnlyList<HeaterDuty> Heaters,
    IReadOnlyList<TracedRun> Traced, double Litres, double GlycolL, double Glycol, double? FreezesC, double HeaderL, double HeatWh, Sentence? FlowWords,
    IReadOnlyList<EnergyUse> Energy, IReadOnlyList<HotStore> HotWater, IReadOnlyList<HotDraw> HotDraws,
    IReadOnlyList<Sentence> Notes);
