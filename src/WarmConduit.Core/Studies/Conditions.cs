using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Weather;

namespace WarmConduit.Core.Studies;

/// <summary>Whether the system is full or has been drained.</summary>
public enum WaterState
{
    /// <summary>Full, as in use.</summary>
    Wet,

    /// <summary>Drained: only what stays.</summary>
    Drained,

    /// <summary>As it was left: what was done to it since it was last full.</summary>
    AsLeft,
}

/// <summary>How full a tank is at the start, 0..1. <paramref name="Id"/> is the part's.</summary>
/// <param name="Id">Id of the part.</param>
/// <param name="Share">0 (empty) to 1 (full).</param>
public sealed record TankLevel(string Id, double Share) : IIdentified;

/// <summary>The night a study is asked about.</summary>
/// <param name="OutdoorC">Outdoor temperature, °C, all night; -60 to 50.</param>
/// <param name="WindMPerS">Wind, m/s; 0 to 60.</param>
/// <param name="HeatOn">Whether the zone heaters run.</param>
/// <param name="StartWaterC">Water temperature at the start, °C; 0 to 95.</param>
/// <param name="Water">Full or drained.</param>
/// <param name="StartHour">Hour of the day at which the night starts, 0..24.</param>
/// <param name="Hours">Hours from the start until morning, 0.5 to 240.</param>
/// <param name="Parked">How the vehicle is parked; within 15° each way.</param>
/// <param name="ScenarioId">The scenario for draining; left out: the rig's drain scenario.</param>
/// <param name="TankLevels">How full tanks are at the start; one that is not named has its default.</param>
/// <param name="InsideC">The living space's temperature until the start, °C; -40 to 40. Left out: its heater's set point, 18 where it has none.</param>
/// <param name="Events">Events of a night that is not a plan of the rig, at most 40; left out: none.</param>
/// <param name="Cloud">Cover of the sky, 0 (clear: outer faces lose to it) to 1.</param>
/// <param name="Weather">Hourly weather; left out: the temperature, wind and cloud cover above, all night.</param>
/// <param name="PlanId">The plan of the rig of which the events happen; left out: those above.</param>
/// <param name="ModeId">The heating mode in which valves, pumps and heaters of the circuits stand; left out: as in use.</param>
/// <param name="HeatSettings">Those that stand otherwise, of a mode that is not the rig's; left out: none.</param>
public sealed record Conditions(
    double OutdoorC,
    double WindMPerS,
    bool HeatOn,
    double StartWaterC,
    WaterState Water,
    double StartHour,
    double Hours,
    Attitude Parked,
    string? ScenarioId = null,
    IReadOnlyList<TankLevel>? TankLevels = null,
    double? InsideC = null,
    IReadOnlyList<PlanEvent>? Events = null,
    double Cloud = 1,
    WeatherChoice? Weather = null,
    string? PlanId = null,
    string? ModeId = null,
    IReadOnlyList<Setting>? HeatSettings = null)
{
    /// <summary>How warm living space without a heater is taken to have been kept, °C.</summary>
    public const double UsualInsideC = 18;

    /// <summary>A night as the brief fears it: from ten in the evening to six, parked level, the lowest temperature, heat as the way of living has
    /// it.</summary>
    public static Conditions Of(Brief brief) => new(
        brief.LowestC,
        brief.WindMPerS,
        brief.Living == WayOfLiving.LivedIn,
        12,
        brief.Living == WayOfLiving.LivedIn ? WaterState.Wet : WaterState.Drained,
        22,
        8,
        Attitude.Level);

    /// <summary>That night with the water as it was left, where anything is known of that.</summary>
    public static Conditions Of(Rig rig) => rig.Left is null ? Of(rig.Brief) : Of(rig.Brief) with { Water = WaterState.AsLeft };

    /// <summary>What the brief asks it to stand without heat, as it is left then: full where it is lived in, drained where it is not; ten days at the
    /// most.</summary>
    public static Conditions WithoutHeat(Brief brief) => Of(brief) with { HeatOn = false, Hours = Math.Clamp(brief.HoursWithoutHeat, 0.5, PlanEvent.MostH) };

    /// <summary>
    /// A steady night worked out of this one: its temperature and wind, or the coldest hour and the mean wind of its weather. For what is told of a night as a
    /// whole; nothing else is to be asked of it.
    /// </summary>
    public SteadyNight Steady()
    {
        if (Weather is null) return new SteadyNight(OutdoorC, WindMPerS, HeatOn);
        var hours = Weather.From(StartHour, Hours);
        return new SteadyNight(hours.Min(h => h.TemperatureC), hours.Average(h => h.WindMPerS), HeatOn);
    }

    /// <summary>The same night with <paramref name="events"/> and no others.</summary>
    public Conditions Happening(IReadOnlyList<PlanEvent>? events) => this with { Events = events, PlanId = null };

    /// <summary>This night with the events of its plan as <paramref name="rig"/> has them now.</summary>
    public Conditions In(Rig rig) => PlanId is null ? this : this with { Events = rig.Plans?.Find(PlanId)?.Events };

    /// <summary>How valves, pumps and heaters of the circuits stand.</summary>
    public Scenario Heating(Rig rig)
    {
        var use = rig.ScenarioOf(ScenarioKind.InUse);
        if (ModeId is not null && rig.Scenarios.Find(ModeId) is { } mode) return mode;
        return HeatSettings is null ? use
            : use with { Settings = [.. HeatSettings, .. use.Settings.Where(s => HeatSettings.Find(s.Id) is null)] };
    }

    /// <summary>How warm living space was kept: as is said, else as its heater's set point says.</summary>
    public double KeptC(Rig rig) => InsideC ?? rig.Shell.Zones.FirstOrDefault(z => z is { Kind: ZoneKind.Living, Heater.PowerW: > 0 })?.Heater!.SetpointC
        ?? rig.Parts.FirstOrDefault(p => p.Heats() is { RatedW: not null, HoldC: not null }
            && rig.Shell.Zones.Any(z => z.Kind == ZoneKind.Living && z.Box.OutsideM(p.Box.Centre()) == 0))?.Heats().HoldC ?? UsualInsideC;

    /// <summary>This night with <paramref name="outdoorC"/> from its start to its end: in the mean wind and under the mean cover of its weather.</summary>
    public Conditions Constant(double outdoorC)
    {
        if (Weather is null) return this with { OutdoorC = outdoorC };
        var hours = Weather.From(StartHour, Hours);
        return this with { OutdoorC = outdoorC, WindMPerS = hours.Average(h => h.WindMPerS), Cloud = hours.Average(h => h.Cloud), Weather = null };
    }

    /// <summary>What is out of range or not in <paramref name="rig"/>, by field; empty when all is well.</summary>
    public IReadOnlyList<RigFault> Check(Rig rig)
    {
        var c = new FieldChecker();
        c.Range("conditions.outdoorC", OutdoorC, "night.outdoorC");
        c.Range("conditions.windMPerS", WindMPerS, "night.windMPerS");
        c.Range("conditions.startWaterC", StartWaterC, "night.startWaterC");
        c.Range("conditions.insideC", InsideC ?? UsualInsideC, "night.insideC");
        if (!Enum.IsDefined(Water)) c.Add("conditions.water", "this is not known");
        if (Events?.Count > NightPlan.MostEvents) c.Add("conditions.events", $"more than {NightPlan.MostEvents} events");
        for (int i = 0; i < Math.Min(Events?.Count ?? 0, NightPlan.MostEvents); i++) Events![i].Check(c, $"conditions.events[{i}]", rig);
        if (PlanId is not null && Events is not null) c.Add("conditions.events", "the plan has its own");
        if (PlanId is not null && rig.Plans?.Find(PlanId) is null) c.Add("conditions.planId", $"there is no plan '{PlanId}'");
        if (ModeId is not null && HeatSettings is not null) c.Add("conditions.heatSettings", "the mode has its own");
        if (ModeId is not null && rig.Scenarios.Find(ModeId) is not { Kind: ScenarioKind.Heating })
            c.Add("conditions.modeId", $"there is no heating mode '{ModeId}'");
        RigCheck.CheckSettings(c, "conditions.heatSettings", HeatSettings ?? [], rig.Parts.Find);
        c.Range("conditions.cloud", Cloud, "night.cloud");
        foreach (var fault in Weather?.Check() ?? []) c.Add(fault.Path, fault.Reason);
        c.Range("conditions.startHour", StartHour, "night.startHour");
        c.Range("conditions.hours", Hours, "night.hours");
        c.Range("conditions.parked.pitchDeg", Parked.PitchDeg, "night.parked.pitchDeg");
        c.Range("conditions.parked.rollDeg", Parked.RollDeg, "night.parked.rollDeg");
        if (ScenarioId is not null && rig.Scenarios.Find(ScenarioId) is null) c.Add("conditions.scenarioId", $"there is no scenario '{ScenarioId}'");
        if (TankLevels?.Count > RigCheck.MaxParts) c.Add("conditions.tankLevels", $"more than {RigCheck.MaxParts} entries");
        for (int i = 0; i < Math.Min(TankLevels?.Count ?? 0, RigCheck.MaxParts); i++)
        {
            if (rig.Parts.Find(TankLevels![i].Id) is null) c.Add($"conditions.tankLevels[{i}].id", $"there is no part '{TankLevels[i].Id}'");
            c.Range($"conditions.tankLevels[{i}].share", TankLevels[i].Share, "night.tankShare");
        }
        return c.Faults;
    }

    /// <summary>Whether tanks start alike.</summary>
    public bool SameTanks(Conditions other) => (TankLevels ?? []).SequenceEqual(other.TankLevels ?? []);
}
