using System.Text.RegularExpressions;
using WarmConduit.Core.Materials;

namespace WarmConduit.Core.Rigs;

/// <summary>
/// Checks that a rig makes sense as a document: ids, references, finite numbers, sizes a vehicle can have. It does not judge the design, and a drawing under
/// way passes: loose ends, ports without pipe, an empty vehicle.
/// </summary>
public static partial class RigCheck
{
    /// <summary>Most runs.</summary>
    public const int MaxRuns = 1000;

    /// <summary>Most parts, tees included.</summary>
    public const int MaxParts = 1000;

    /// <summary>Most bends in all runs together.</summary>
    public const int MaxBends = 20_000;

    /// <summary>Most zones.</summary>
    public const int MaxZones = 40;

    /// <summary>Most faces and openings in all zones together.</summary>
    public const int MaxFaces = 400;

    /// <summary>Farthest from the origin, and longest edge, m.</summary>
    public const double FarthestM = 30;

    // A shower hose reaches this far.
    private const double PortReachM = 2;

    private const int MaxLayers = 3;
    /// <summary>Throws <see cref="RigFileException"/> when <see cref="Check(Rig)"/> finds anything.</summary>
    public static void Demand(Rig rig)
    {
        var faults = Check(rig);
        if (faults.Count > 0) throw new RigFileException(faults);
    }

    /// <summary>All faults of <paramref name="rig"/> (the first 50), empty when it is sound. O(parts + runs + bends).</summary>
    public static IReadOnlyList<RigFault> Check(Rig rig) => Check(rig, null);

    /// <summary>
    /// As <see cref="Check(Rig)"/>, of a rig made from <paramref name="earlier"/>: parts, runs and shell that are the same objects are not looked into again,
    /// only how they hang together.
    /// </summary>
    internal static IReadOnlyList<RigFault> Check(Rig rig, Rig? earlier)
    {
        var c = new FieldChecker();
        var known = earlier is null ? null : new HashSet<object>([.. earlier.Parts, .. earlier.Runs], ReferenceEqualityComparer.Instance);
        if (rig.FormatVersion != Rig.CurrentFormat)
            c.Add("formatVersion", $"version {rig.FormatVersion} is not known; this program writes version {Rig.CurrentFormat}");
        c.Id("id", rig.Id);
        c.Name("name", rig.Name);
        if (rig.Note.Length > 2000) c.Add("note", "it is longer than 2000 characters");
        CheckBrief(c, rig.Brief);
        if (!ReferenceEquals(rig.Shell, earlier?.Shell)) ShellCheck.Check(c, rig.Shell);
        var parts = CheckParts(c, rig.Parts, known);
        CheckRuns(c, rig, parts, known);
        CheckScenarios(c, rig, parts);
        c.Count("prices", rig.Prices.Count, 0, 500);
        c.Unique("prices", rig.Prices);
        for (int i = 0; i < rig.Prices.Count; i++)
        {
            string of = rig.Prices[i].Of;
            PriceUnit? other = Price.Others.TryGetValue(of, out var by) ? by : null;
            c.Known($"prices[{i}].of", other is not null || Catalogue.Part(of) is not null || Catalogue.Pipe(of) is not null
                || Catalogue.Solid(of) is not null, of, "thing");
            c.Range($"prices[{i}].amount", rig.Prices[i].Amount, "price.amount");
            var unit = rig.Prices[i].Unit;
            if ((unit == PriceUnit.Litre) != (other == PriceUnit.Litre)) c.Add($"prices[{i}].unit", "antifreeze is priced by the litre, and nothing else is");
            if (unit is not null && (unit == PriceUnit.Each) != (Catalogue.Part(of) is not null || other == PriceUnit.Each))
                c.Add($"prices[{i}].unit", "parts are priced by the piece, pipes and solids by length or area");
            if (unit == PriceUnit.SquareMetre && Catalogue.Solid(of) is null) c.Add($"prices[{i}].unit", "only solids are priced by the square metre");
        }
        CheckPlans(c, rig.Plans ?? [], rig);
        c.Count("left", rig.Left?.Count ?? 0, 0, LeftAct.Most);
        c.Unique("left", rig.Left ?? []);
        for (int i = 0; i < Math.Min(rig.Left?.Count ?? 0, LeftAct.Most); i++) rig.Left![i].Check(c, $"left[{i}]", rig);
        c.Count("ownSteps", rig.OwnSteps?.Count ?? 0, 0, OwnStep.Most);
        c.Unique("ownSteps", rig.OwnSteps ?? []);
        for (int i = 0; i < Math.Min(rig.OwnSteps?.Count ?? 0, OwnStep.Most); i++) rig.OwnSteps![i].Check(c, $"ownSteps[{i}]", rig);
        return c.Faults;
    }

    private static void CheckPlans(FieldChecker c, IReadOnlyList<NightPlan> plans, Rig rig)
    {
        c.Count("plans", plans.Count, 0, 50);
        c.Unique("plans", plans);
        for (int i = 0; i < plans.Count; i++)
        {
            var (plan, at) = (plans[i], $"plans[{i}]");
            c.Name($"{at}.name", plan.Name);
            c.Range($"{at}.startHour", plan.StartHour, "night.startHour");
            c.Range($"{at}.hours", plan.Hours, "night.hours");
            if (plan.InsideC is { } inside) c.Range($"{at}.insideC", inside, "night.insideC");
            c.Range($"{at}.startWaterC", plan.StartWaterC, "night.startWaterC");
            c.Count($"{at}.events", plan.Events.Count, 0, NightPlan.MostEvents);
            c.Unique($"{at}.events", plan.Events);
            for (int e = 0; e < Math.Min(plan.Events.Count, NightPlan.MostEvents); e++)
                plan.Events[e].Check(c, $"{at}.events[{e}]", rig);
        }
    }

    private static void CheckBrief(FieldChecker c, Brief b)
    {
        c.Range("brief.people", b.People);
        c.Range("brief.daysBetweenFills", b.DaysBetweenFills);
        c.Range("brief.litresPerPersonDay", b.LitresPerPersonDay);
        c.Range("brief.lowestC", b.LowestC);
        c.Range("brief.windMPerS", b.WindMPerS);
        c.Range("brief.hoursWithoutHeat", b.HoursWithoutHeat);
        c.Range("brief.leastFall", b.LeastFall);
        if (b.Parking is { } parking)
        {
            c.Range("brief.parking.slopeDeg", parking.SlopeDeg);
            c.Range("brief.parking.outsideL", parking.OutsideL);
            c.Range("brief.parking.breakableL", parking.BreakableL);
            c.Range("brief.parking.tankShare", parking.TankShare);
        }
        if (b.Choices is not { } chosen) return;
        if (b.Town is { } town)
        {
            c.Range("brief.town.pressureBar", town.PressureBar);
            if (town.RegulatorBar is { } regulated) c.Range("brief.town.regulatorBar", regulated);
        }
        c.Range("brief.choices.batteryWh", chosen.BatteryWh);
        c.Range("brief.choices.fuelL", chosen.FuelL);
        c.Range("brief.choices.canL", chosen.CanL);
        c.Range("brief.choices.coolantGlycol", chosen.CoolantGlycol ?? BriefChoices.UsualCoolantGlycol);
        if (chosen.LocalRules.Length > 1000) c.Add("brief.choices.localRules", "it is longer than 1000 characters");
    }

    private static Dictionary<string, Part> CheckParts(FieldChecker c, IReadOnlyList<Part> parts, HashSet<object>? known)
    {
        c.Count("parts", parts.Count, 0, MaxParts);
        c.Unique("parts", parts);
        for (int i = 0; i < parts.Count; i++)
        {
            var part = parts[i];
            if (known?.Contains(part) == true) continue;
            string at = $"parts[{i}]";
            var stock = Catalogue.Part(part.Stock);
            c.Name($"{at}.name", part.Name);
            c.Known($"{at}.stock", stock is not null, part.Stock, "stock part");
            c.Box($"{at}.box", part.Box);
            c.Count($"{at}.ports", part.Ports.Count, 1, 16);
            c.Unique($"{at}.ports", part.Ports);
            for (int k = 0; k < part.Ports.Count; k++)
            {
                string port = $"{at}.ports[{k}]";
                c.Place($"{port}.offset", part.Ports[k].Offset);
                if (part.Ports[k].Name is { } called) c.Name($"{port}.name", called);
                if (part.Box.OutsideM(part.Box.At + part.Ports[k].Offset) > PortReachM)
                    c.Add($"{port}.offset", $"it lies more than {PortReachM} m off its part", essential: false);
                if (part.Ports[k].BoreM is { } bore) c.Range($"{port}.boreM", bore, "port.boreM");
            }
            if (part.Orientation is { QuarterTurns: not (>= 0 and <= 3) }) c.Add($"{at}.orientation.quarterTurns", "it must lie between 0 and 3");
            if (part.HoldsL is { } holds)
            {
                c.Range($"{at}.holdsL", holds, "part.holdsL");
                if (holds == 0 && stock?.Passage == Passage.Vessel)
                    c.Add($"{at}.holdsL", "a vessel holds more than 0 L; leave it out to take the content of its box", essential: false);
            }
            if (part.Reach?.Screws is { } screws) c.Range($"{at}.reach.screws", screws, "part.reach.screws");
            if (part.LossWPerK is { } loss) c.Range($"{at}.lossWPerK", loss, "part.lossWPerK");
            CheckSleeve(c, $"{at}.jacket", part.Jacket);
            if (part.JacketOff is { } off && (part.Jacket is null || off.Count is 0 or > 5 || off.Distinct().Count() != off.Count))
                c.Add($"{at}.jacketOff", "one to five faces of a jacket may be left bare, each named once");
            if (part.MassKg is { } mass) c.Range($"{at}.massKg", mass, "part.massKg");
            if (part.Flow is { } flow) CheckFlow(c, $"{at}.flow", flow);
            if (part.Heat is { } heat) CheckHeat(c, $"{at}.heat", heat, part);
            if (part.Pad is { } pad) CheckPad(c, $"{at}.pad", pad, part);
            if (stock?.Passage is Passage.OneWay or Passage.Pump && (part.PortAt("in") is null || part.PortAt("out") is null))
                c.Add($"{at}.ports", "a part with a direction needs the ports 'in' and 'out'");
        }
        var byId = new Dictionary<string, Part>();
        foreach (var p in parts) byId.TryAdd(p.Id, p);
        for (int i = 0; i < parts.Count; i++)
            if (parts[i].Pad?.Sensor?.PartId is { } on && !byId.ContainsKey(on)) c.Add($"parts[{i}].pad.sensor.partId", $"there is no part '{on}'");
        return byId;
    }

    private static void CheckRuns(FieldChecker c, Rig rig, Dictionary<string, Part> parts, HashSet<object>? known)
    {
        c.Count("runs", rig.Runs.Count, 0, MaxRuns);
        c.Count("runs, bends in all", rig.Runs.Sum(r => r.Bends.Count), 0, MaxBends);
        c.Unique("runs", rig.Runs);
        if (rig.Runs.FirstOrDefault(r => parts.ContainsKey(r.Id)) is { } shared) c.Add("runs", $"the id '{shared.Id}' is a part's already");
        for (int i = 0; i < rig.Runs.Count; i++)
        {
            var run = rig.Runs[i];
            CheckEnd(c, i, "from", run.From, parts);
            CheckEnd(c, i, "to", run.To, parts);
            CheckTraces(c, i, run, rig);
            if (known?.Contains(run) == true) continue;
            string at = $"runs[{i}]";
            c.Name($"{at}.name", run.Name);
            c.Known($"{at}.pipe", Catalogue.Pipe(run.Pipe) is not null, run.Pipe, "pipe");
            if (run.From == run.To) c.Add($"{at}.to", "a run cannot end where it starts");
            c.Unique($"{at}.bends", run.Bends);
            for (int k = 0; k < run.Bends.Count; k++) c.Place($"{at}.bends[{k}].at", run.Bends[k].At);
            CheckSleeve(c, $"{at}.insulation", run.Insulation);
            for (int k = 0; k < run.Bends.Count; k++) CheckSleeve(c, $"{at}.bends[{k}].insulation", run.Bends[k].Insulation);
            if (run.ClipSpacingM is { } clips) c.Range($"{at}.clipSpacingM", clips, "run.clipSpacingM");
            if (run.Floor is { } floor) CheckFloor(c, $"{at}.floor", floor, run);
            if (run.SlackM is { } slack) c.Range($"{at}.slackM", slack, "run.slackM");
        }
    }

    private static void CheckFlow(FieldChecker c, string at, PartFlow flow)
    {
        c.Range($"{at}.lossBar", flow.LossBar, "flow.bar");
        c.Range($"{at}.fouledBar", flow.FouledBar, "flow.bar");
        c.Range($"{at}.opensBar", flow.OpensBar, "flow.bar");
        c.Range($"{at}.holdsBar", flow.HoldsBar, "flow.bar");
        c.Range($"{at}.shutoffBar", flow.ShutoffBar, "flow.bar");
        c.Range($"{at}.cutInBar", flow.CutInBar, "flow.bar");
        c.Range($"{at}.cutOutBar", flow.CutOutBar, "flow.bar");
        c.Range($"{at}.prechargeBar", flow.PrechargeBar, "flow.bar");
        c.Range($"{at}.outletLPerMin", flow.OutletLPerMin, "flow.lPerMin");
        c.Range($"{at}.freeLPerMin", flow.FreeLPerMin, "flow.lPerMin");
        c.Range($"{at}.lightsLPerMin", flow.LightsLPerMin, "flow.lPerMin");
        c.Range($"{at}.liftM", flow.LiftM, "flow.liftM");
        c.Range($"{at}.mixesToC", flow.MixesToC, "flow.temperatureC");
        c.Range($"{at}.volts", flow.Volts, "flow.volts");
        if (flow.CutInBar >= flow.CutOutBar) c.Add($"{at}.cutInBar", "the pump must start at a lower pressure than it stops at");
    }

    private static void CheckSleeve(FieldChecker c, string at, Sleeve? sleeve, int depth = 1)
    {
        if (sleeve is null) return;
        c.Known($"{at}.material", Catalogue.Solid(sleeve.Material) is not null, sleeve.Material, "material");
        c.Range($"{at}.thicknessM", sleeve.ThicknessM, "sleeve.thicknessM");
        if (sleeve.GapShare is { } gaps) c.Range($"{at}.gapShare", gaps, "sleeve.gapShare");
        if (sleeve.Over is not { } over) return;
        if (depth == MaxLayers) c.Add($"{at}.over", $"use at most {MaxLayers} layers of insulation");
        else CheckSleeve(c, $"{at}.over", over, depth + 1);
        if (sleeve.ThicknessM <= 0 || over.ThicknessM <= 0) c.Add($"{at}.over", "a layer lies over another, and each has a thickness");
        if (over.GapShare is not null) c.Add($"{at}.over.gapShare", "gaps are those of the innermost layer, for all of them");
    }

    private static void CheckEnd(FieldChecker c, int run, string which, RunEnd end, Dictionary<string, Part> parts)
    {
        if (end.At is { } place)
        {
            if (end.Part is not null || end.Port is not null) c.Add($"runs[{run}].{which}", "an end is at a part's port or loose at a place, not both");
            c.Place($"runs[{run}].{which}.at", place);
        }
        else if (end.Part is null || end.Port is null) c.Add($"runs[{run}].{which}", "an end has a part and a port, or a place where it is loose");
        else if (!parts.TryGetValue(end.Part, out var part)) c.Add($"runs[{run}].{which}.part", $"there is no part '{end.Part}'");
        else if (part.PortAt(end.Port) is null) c.Add($"runs[{run}].{which}.port", $"part '{end.Part}' has no port '{end.Port}'");
    }

    /// <summary>Whether <paramref name="id"/> is one: 1 to 60 lower-case letters, digits and hyphens.</summary>
    public static bool IsId(string id) => IdPattern().IsMatch(id);

    /// <summary>An id made of a name: its letters and digits, at most 50; <paramref name="nameless"/> where it has none.</summary>
    public static string IdFrom(string name, string nameless)
    {
        string id = OtherPattern().Replace(name.ToLowerInvariant(), "-").Trim('-');
        return id.Length == 0 ? nameless : id.Length > 50 ? id[..50].Trim('-') : id;
    }

    [GeneratedRegex("[^a-z0-9]+")]
    private static partial Regex OtherPattern();

    [GeneratedRegex(@"\A[a-z0-9][a-z0-9-]{0,59}\z")]
    private static partial Regex IdPattern();
}
