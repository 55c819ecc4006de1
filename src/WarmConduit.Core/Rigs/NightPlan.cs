using WarmConduit.Core.Materials;

namespace WarmConduit.Core.Rigs;

/// <summary>An event of some hours in a night or a week.</summary>
public enum PlanEventKind
{
    /// <summary>The heat is on, of a night that starts without.</summary>
    HeatOn,

    /// <summary>Heaters hold a lower temperature.</summary>
    SetBack,

    /// <summary>All heat fails, or one heater or pad.</summary>
    HeatFails,

    /// <summary>The fuel has run out: what burns it gives nothing.</summary>
    FuelOut,

    /// <summary>The pumps of the circuits stop, or one of them: their heaters trip, and nothing is warmed.</summary>
    PumpFails,

    /// <summary>The button of a loop's pump is pressed, or of all that have one.</summary>
    PumpPressed,

    /// <summary>Air gathers in a heating line, and nothing flows through it.</summary>
    AirLocks,

    /// <summary>A valve of the circuits sticks in a position.</summary>
    ValveSticks,

    /// <summary>The battery is empty: electric heaters stop, and with their fans those that burn fuel.</summary>
    BatteryOut,

    /// <summary>Plugged in: what the battery carries goes on when it is empty.</summary>
    Mains,

    /// <summary>A window or door to outdoors, or a cupboard door to another room, stands open.</summary>
    Open,

    /// <summary>Everybody leaves: the heat is off, or holds a lower temperature.</summary>
    Away,

    /// <summary>Driving: its own wind on every outer face, half of it on those that look rearward.</summary>
    Drive,

    /// <summary>Drained as in the drain scenario, with what is done by hand done; full again at the end.</summary>
    Drained,
}

/// <summary>Something that happens from one time to another.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Kind">What happens.</param>
/// <param name="AtH">Hours from the start, 0 to 240.</param>
/// <param name="UntilH">Hours from the start until which it lasts; left out: to the end.</param>
/// <param name="HoldC">The thermostat setting meanwhile, of a set-back or while away, °C, -20 to 40; left out while away: heat is off.</param>
/// <param name="SpeedMPerS">How fast it drives, m/s, 0 to 60.</param>
/// <param name="ZoneId">The room that opens.</param>
/// <param name="Towards">The room it opens to; left out: outdoors.</param>
/// <param name="AreaM2">Area of what opens, m², 0 to 20.</param>
/// <param name="HeightM">Its height, m, 0 to 5.</param>
/// <param name="PartId">The valve that sticks, the heater, pad or pump that fails, or the pump whose button is pressed; left out: all of them.</param>
/// <param name="Position">Where it sticks.</param>
/// <param name="RunId">The heating line in which air gathers.</param>
public sealed record PlanEvent(
    string Id,
    PlanEventKind Kind,
    double AtH,
    double? UntilH = null,
    double? HoldC = null,
    double? SpeedMPerS = null,
    string? ZoneId = null,
    string? Towards = null,
    double? AreaM2 = null,
    double? HeightM = null,
    string? PartId = null,
    string? Position = null,
    string? RunId = null) : IIdentified
{
    /// <summary>Most hours of a plan: ten days.</summary>
    public const double MostH = 240;

    /// <summary>Whether it goes on at <paramref name="hour"/> from the start.</summary>
    public bool On(double hour) => hour >= AtH && hour < (UntilH ?? double.PositiveInfinity);

    /// <summary>The highest that what opens between its rooms can be, m.</summary>
    public double MostHeightM(IReadOnlyList<Zone> zones) => zones.Where(z => z.Id == ZoneId || z.Id == Towards).Select(z => z.Box.Size.ZM)
        .DefaultIfEmpty(5).Min();

    /// <summary>What is out of range or missing, by field below <paramref name="at"/>, in <paramref name="rig"/>.</summary>
    internal void Check(FieldChecker c, string at, Rig rig)
    {
        var zones = rig.Shell.Zones;
        void Range(string field, double? value) => c.Range($"{at}.{field}", value, "event." + field);
        void Needed(string field, object? value, string what = "a value belongs here")
        {
            if (value is null) c.Add($"{at}.{field}", what);
        }
        void Room(string field, string? id)
        {
            if (id is not null && zones.Find(id) is null) c.Add($"{at}.{field}", $"there is no zone '{id}'");
        }
        if (!Enum.IsDefined(Kind)) c.Add($"{at}.kind", "this is not known");
        Range("atH", AtH);
        Range("untilH", UntilH);
        Range("holdC", HoldC);
        Range("speedMPerS", SpeedMPerS);
        Range("areaM2", AreaM2);
        Range("heightM", HeightM);
        Room("zoneId", ZoneId);
        Room("towards", Towards);
        if (UntilH < AtH) c.Add($"{at}.untilH", "it ends before it starts");
        if (Kind == PlanEventKind.PumpPressed && UntilH is not null) c.Add($"{at}.untilH", "a press lasts as long as its pump is set to run for one");
        if (Kind == PlanEventKind.SetBack) Needed("holdC", HoldC);
        if (Kind == PlanEventKind.Drive) Needed("speedMPerS", SpeedMPerS);
        if (Kind == PlanEventKind.ValveSticks)
        {
            Needed("partId", PartId, "which valve sticks belongs here");
            Needed("position", Position, "where it sticks belongs here");
        }
        if (PartId is not null)
        {
            if (rig.Parts.Find(PartId) is { } part) CheckPart(c, at, part);
            else c.Add($"{at}.partId", $"there is no part '{PartId}'");
        }
        if (Kind == PlanEventKind.AirLocks) Needed("runId", RunId, "which heating line it is belongs here");
        if (RunId is not null)
        {
            if (rig.Runs.Find(RunId) is not { } run) c.Add($"{at}.runId", $"there is no run '{RunId}'");
            else if (run.Service != Service.Coolant) c.Add($"{at}.runId", "it carries no heating fluid", false);
        }
        if (Kind != PlanEventKind.Open) return;
        Needed("zoneId", ZoneId, "which room opens belongs here");
        if (ZoneId is not null && Towards == ZoneId) c.Add($"{at}.towards", "a room cannot open to itself");
        Needed("areaM2", AreaM2);
        Needed("heightM", HeightM);
        if (HeightM > MostHeightM(zones) + 1e-6)
            c.Add($"{at}.heightM", FormattableString.Invariant($"between its rooms it can have {MostHeightM(zones):0.###} m at most"), false);
    }

    /// <summary>Whether what it is about is in <paramref name="rig"/>, and is what it needs.</summary>
    internal bool Fits(Rig rig)
    {
        bool There(string? zone) => zone is null || rig.Shell.Zones.Find(zone) is not null;
        if (!There(ZoneId) || !There(Towards)) return false;
        if (RunId is not null && rig.Runs.Find(RunId)?.Service != Service.Coolant) return false;
        if (PartId is null) return true;
        return rig.Parts.Find(PartId) is { } part && FieldChecker.Of(c => CheckPart(c, "", part)).Count == 0;
    }

    // A document may be older than what became of the part.
    private void CheckPart(FieldChecker c, string at, Part part)
    {
        if (Kind == PlanEventKind.HeatFails && part is { Pad: null } && !part.Heats().HeatsFluid)
            c.Add($"{at}.partId", "it gives no heat that could fail", false);
        if (Kind == PlanEventKind.PumpFails && !part.IsPump())
            c.Add($"{at}.partId", "it is no pump", false);
        if (Kind == PlanEventKind.PumpPressed && part.Heats().Switch is not { Kind: PumpSwitchKind.Button })
            c.Add($"{at}.partId", "it has no button", false);
        if (Kind != PlanEventKind.ValveSticks) return;
        var stock = Catalogue.Part(part.Stock);
        if (stock?.Passage != Passage.Valve) c.Add($"{at}.partId", "it is no valve", false);
        else if (Position is not null && !stock.Positions.Any(p => p.Id == Position)) c.Add($"{at}.position", "it has no such position", false);
    }
}

/// <summary>A planned night or week, saved under a name: how the vehicle is left, and what happens then. The weather is not part of it.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">Its name.</param>
/// <param name="StartHour">Hour of the day at which it starts, 0 to 24.</param>
/// <param name="Hours">How long it is, h, 0.5 to 240.</param>
/// <param name="HeatOn">Whether heaters run at the start.</param>
/// <param name="StartWaterC">Water at the start, °C, 0 to 95.</param>
/// <param name="Events">Events; at most 40.</param>
/// <param name="Drained">Whether it starts drained; left out: as it was left.</param>
/// <param name="InsideC">The living space's temperature until the start, °C, -40 to 40; left out: its heater's set point.</param>
public sealed record NightPlan(
    string Id, string Name, double StartHour, double Hours, bool HeatOn, double StartWaterC, IReadOnlyList<PlanEvent> Events, bool? Drained = null,
    double? InsideC = null) : IIdentified
{
    /// <summary>Events at the most.</summary>
    public const int MostEvents = 40;
}
