using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.Night;

/// <summary>A segment of a night in which nothing changes but the weather.</summary>
/// <param name="FromS">Its start, s.</param>
/// <param name="ToS">Its end, s.</param>
/// <param name="Water">Whether the system is full.</param>
/// <param name="Heats">Whether a heater runs.</param>
/// <param name="Heating">What else gives heat, and whether it has what it runs on.</param>
/// <param name="HoldC">What heaters hold instead of their own set points, °C; null: their own.</param>
/// <param name="DrivingMPerS">How fast it drives, m/s.</param>
/// <param name="Open">What stands open.</param>
/// <param name="Stuck">Valves that stick.</param>
/// <param name="Failed">Ids of heaters, pads and pumps that fail by themselves.</param>
/// <param name="Airlocked">Ids of heating lines in which air stops the flow.</param>
internal sealed record NightSegment(
    double FromS, double ToS, WaterState Water, Func<ZoneHeater, bool> Heats, HeatSupply Heating, double? HoldC,
    double DrivingMPerS, IReadOnlyList<PlanEvent> Open, IReadOnlyList<PlanEvent> Stuck, IReadOnlyList<string> Failed,
    IReadOnlyList<string> Airlocked)
{
    /// <summary>Whether a heater of a circuit has what it runs on, and works.</summary>
    public bool Feeds(Part heater) => Heating.Feeds(heater.Heats()) && !Failed.Contains(heater.Id);
}

/// <summary>What gives heat besides the heaters of rooms.</summary>
/// <param name="Burns">Heaters of circuits burn.</param>
/// <param name="Pumps">Pumps of circuits run.</param>
/// <param name="Battery">Pads on the battery may warm.</param>
/// <param name="Mains">Pads on mains may.</param>
/// <param name="Drives">The engine runs.</param>
/// <param name="Power">Valves with a motor have power.</param>
internal readonly record struct HeatSupply(bool Burns, bool Pumps, bool Battery, bool Mains, bool Drives, bool Power)
{
    /// <summary>Whether an electric heater may warm.</summary>
    public bool Has(ElectricSupply supply) => supply switch
    {
        ElectricSupply.Mains => Mains,
        ElectricSupply.Surplus => Battery && Drives,
        _ => Battery,
    };

    /// <summary>Whether a heater of a circuit has what it runs on.</summary>
    public bool Feeds(PartHeat heater) => heater.Supply is { } electric ? Pumps && Has(electric) : Burns;
}

/// <summary>The course of a night: its events, as segments between them.</summary>
internal static class NightCourse
{
    private const double HourS = 3600, LeastS = 1;

    /// <summary>The segments from the start to <paramref name="endS"/>; one where nothing happens. O(events²).</summary>
    public static IReadOnlyList<NightSegment> Of(Conditions night, double endS)
    {
        var events = night.Events ?? [];
        var edges = new List<double> { 0 };
        foreach (double s in events.Where(e => e.Kind != PlanEventKind.PumpPressed).SelectMany(e => (double[])[e.AtH * HourS, (e.UntilH ?? 0) * HourS]).Order())
            if (s - edges[^1] >= LeastS && s <= endS - LeastS) edges.Add(s);
        edges.Add(endS);
        return [.. Enumerable.Range(0, edges.Count - 1).Select(i => At(night, events, edges[i], edges[i + 1]))];
    }

    /// <summary>What goes on at a time, s from the start.</summary>
    public static NightSegment At(Conditions night, double atS) => At(night, night.Events ?? [], atS, atS);

    private static NightSegment At(Conditions night, IReadOnlyList<PlanEvent> events, double fromS, double toS)
    {
        double middle = (fromS + toS) / 2 / HourS;
        var on = events.Where(e => e.On(middle)).ToList();
        bool Is(PlanEventKind kind) => on.Any(e => e.Kind == kind);
        bool fails = on.Any(e => e is { Kind: PlanEventKind.HeatFails, PartId: null });
        bool wanted = (night.HeatOn || Is(PlanEventKind.HeatOn)) && !fails
            && !on.Any(e => e is { Kind: PlanEventKind.Away, HoldC: null });
        // What was filled again is full, however it was left in the evening.
        var water = night.Water == WaterState.AsLeft && events.Any(e => e.Kind == PlanEventKind.Drained && e.UntilH <= middle) ? WaterState.Wet : night.Water;
        bool power = !Is(PlanEventKind.BatteryOut) || Is(PlanEventKind.Mains), fuel = !Is(PlanEventKind.FuelOut);
        // A pad has a thermostat of its own, and works on when the heating is off.
        bool pumps = wanted && power && !on.Any(e => e is { Kind: PlanEventKind.PumpFails, PartId: null });
        var heating = new HeatSupply(pumps && fuel, pumps, power && !fails, Is(PlanEventKind.Mains) && !fails, Is(PlanEventKind.Drive), power);
        return new NightSegment(
            fromS, toS, Is(PlanEventKind.Drained) ? WaterState.Drained : water, h => wanted && power && (h.Electric == true || fuel), heating,
            on.Where(e => e.Kind is PlanEventKind.SetBack or PlanEventKind.Away).Min(e => e.HoldC),
            on.Where(e => e.Kind == PlanEventKind.Drive).Max(e => e.SpeedMPerS) ?? 0,
            [.. on.Where(e => e.Kind == PlanEventKind.Open)], [.. on.Where(e => e.Kind == PlanEventKind.ValveSticks)],
            [.. on.Where(e => e.Kind is PlanEventKind.HeatFails or PlanEventKind.PumpFails).Select(e => e.PartId).OfType<string>()],
            [.. on.Where(e => e.Kind == PlanEventKind.AirLocks).Select(e => e.RunId).OfType<string>()]);
    }

    /// <summary>When all heat first stops in a night that starts with it, s; null: it does not.</summary>
    public static double? HeatStopsS(Rig rig, Conditions night, double endS)
    {
        var heaters = rig.Parts.Where(p => p.Heats().HeatsFluid).ToList();
        bool Any(NightSegment s) => rig.Shell.Zones.Any(z => z.Heater is { PowerW: > 0 } heater && s.Heats(heater)) || heaters.Any(s.Feeds);
        var course = Of(night, endS);
        return Any(course[0]) && course.FirstOrDefault(s => !Any(s)) is { } without ? without.FromS : null;
    }
}
