using WarmConduit.Core.Levels;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Networks;

namespace WarmConduit.Core.Studies.Tanks;

/// <summary>What a tank's port heights mean, as it is parked.</summary>
/// <param name="PartId">The tank.</param>
/// <param name="FullL">Its content, L.</param>
/// <param name="NeverPumpedL">Content below its lowest outlet, L; null: it has none.</param>
/// <param name="NeverDrainedL">Content below its lowest port, L.</param>
/// <param name="LowestPort">What that port is called.</param>
/// <param name="OverFillL">Content that cannot be filled, L: above the highest of its vent and fill ports, its spout, and where its vent overflows,
/// whichever is lowest; null: it has none of them.</param>
/// <param name="OverFillBy">Which of them it is.</param>
/// <param name="VentEnd">Name of the opening it is vented through; null: none is joined to its vent.</param>
/// <param name="VentDipM">How deep its vent dips: water lies there, and shuts it until that much is sucked or blown aside, m; null: no dip.</param>
/// <param name="VentRuns">Ids of the runs of its vent, from the tank on.</param>
/// <param name="VentPa">Pressure across its vent at the flow the tank is filled or drawn with, Pa. Estimate. Null: it is not vented.</param>
/// <param name="VentLPerMin">That flow, L/min. Estimate.</param>
/// <param name="Twins">Tanks joined to it low down, which share its level only if each of them is vented.</param>
/// <param name="EmptyKg">Its mass when empty, kg; from its walls where the rig does not give it. Estimate.</param>
public sealed record TankPorts(
    string PartId, double FullL, double? NeverPumpedL, double NeverDrainedL, string LowestPort, double? OverFillL, string? OverFillBy, string? VentEnd,
    double? VentDipM, IReadOnlyList<string> VentRuns, double? VentPa, double VentLPerMin, IReadOnlyList<string> Twins, double EmptyKg);

/// <summary>All fresh and grey water tanks.</summary>
/// <param name="Tanks">In order of id.</param>
public sealed record TanksAnswer(IReadOnlyList<TankPorts> Tanks);

/// <summary>What a tank's ports let out, and how it breathes.</summary>
public static class TankStudy
{
    // Filled by a wide hose a tank swallows 40 L/min, by a narrow one 15; a pump draws 12. Estimates.
    private const double WideBoreM = 0.03, WideFillM3PerS = 40 / 60e3, NarrowFillM3PerS = 15 / 60e3, DrawM3PerS = 12 / 60e3;
    private const double AirKgPerM3 = 1.25, AirM2PerS = 1.4e-5;

    /// <summary>The pressure beyond which a flat tank wall bulges, Pa. Estimate.</summary>
    public const double MostVentPa = 1000;

    /// <summary>Asks every tank. Pure. O(parts + runs) for each tank at the most.</summary>
    public static TanksAnswer Ask(Question question)
    {
        var joined = question.Ask(Joined.Of);
        return new TanksAnswer([.. question.Rig.Parts.Where(IsTank).Select(p => PortsOf(question, joined, p))]);
    }

    /// <summary>A tank that water is kept or caught in; a heater is none.</summary>
    public static bool IsTank(Part part) => Catalogue.Part(part.Stock) is { Passage: Passage.Vessel, Group: PartGroup.Store or PartGroup.Waste };

    private static TankPorts PortsOf(Question question, Joined joined, Part tank)
    {
        var parked = question.Conditions.Parked;
        double full = PartWater.HoldsL(tank);
        double Height(Port port) => parked.HeightM(tank.Box.At + port.Offset);
        double Below(Port port) => full * VesselSlice.FilledFraction(tank.Box, Height(port), parked);
        var lowest = tank.Ports.MinBy(Height)!;
        var outlet = tank.Ports.Where(p => tank.RoleOf(p) == PortRole.Outlet).MinBy(Height);
        var (end, pa, way, flow) = Breath(question, joined, tank);
        var top = MostFull(question, joined, tank, way);
        // Through joints and valves alone to another tank, from a port in the lower half.
        var low = tank.Ports.Where(p => p.Offset.ZM < tank.Box.Size.ZM / 2).Select(p => p.Id).ToHashSet();
        var twins = joined.Of(tank.Id).Where(j => low.Contains(j.Port) && j.Run.Service is Service.Cold or Service.Waste).Select(j => j.Other).ToList();
        var beyond = joined.Reach(twins, p => p.Id != tank.Id
            && Catalogue.Part(p.Stock) is { Group: PartGroup.Joints or PartGroup.Valves } or { Group: PartGroup.Store, Passage: Passage.Vessel });
        return new TankPorts(
            tank.Id, full, outlet is null ? null : Below(outlet), Below(lowest), lowest.Called(), top is { } most
            ? full * (1 - VesselSlice.FilledFraction(tank.Box, most.HeightM, parked)) : null, top?.By, end, Dip(question, tank, way),
            [.. way.Select(r => r.Id)], pa, flow * 60e3,
            [.. beyond.Where(p => p.Id != tank.Id && IsTank(p)).Select(p => p.Id).Distinct().Order(StringComparer.Ordinal)], PartWater.EmptyKg(tank));
    }

    // How high water can come: air leaves by the highest port that it has, and what stands higher than the spout or than where the vent runs over does not
    // stay.
    private static (double HeightM, string By)? MostFull(Question question, Joined joined, Part tank, IReadOnlyList<Run> vent)
    {
        var parked = question.Conditions.Parked;
        var heights = new List<(double HeightM, string By)>();
        var air = tank.Ports.Where(p => tank.RoleOf(p) is PortRole.Fill or PortRole.Vent)
            .Select(p => (parked.HeightM(tank.Box.At + p.Offset), $"its {p.Called()} port")).ToList();
        if (air.Count > 0) heights.Add(air.Max());
        var spouts = joined.Of(tank.Id).Where(j => j.Run.Service == Service.Fill
            && Catalogue.Part(question.Index.Part(j.Other).Stock)!.Passage == Passage.OpenEnd)
            .Select(j => (parked.HeightM(question.Index.Part(j.Other).PortAt(j.OtherPort)!.Value), question.Index.Part(j.Other).Name)).ToList();
        if (spouts.Count > 0) heights.Add(spouts.Max());
        if (vent.Count > 0) heights.Add((vent.SelectMany(question.Index.CourseOf).Max(parked.HeightM), $"the top of {vent[^1].Name}"));
        return heights.Count == 0 ? null : heights.Min();
    }

    // From the tank along its vent, each run the way that the air takes.
    private static double? Dip(Question question, Part tank, IReadOnlyList<Run> vent)
    {
        var heights = new List<double>();
        string at = tank.Id;
        foreach (var run in vent)
        {
            var course = question.Index.CourseOf(run).Select(question.Conditions.Parked.HeightM);
            bool onward = run.From.Part == at;
            heights.AddRange(onward ? course : course.Reverse());
            at = (onward ? run.To.Part : run.From.Part) ?? "";
        }
        return LineDip.Of(heights)?.DepthM;
    }

    // Along vent lines to an opening; the air's way: in, along the bore, out; and the runs that it takes.
    private static (string? End, double? Pa, IReadOnlyList<Run> Way, double FlowM3PerS) Breath(Question question, Joined joined, Part tank)
    {
        double flow = joined.Of(tank.Id).Where(j => j.Run.Service == Service.Fill).Select(j => Catalogue.Pipe(j.Run.Pipe)!.InnerDiameterM).DefaultIfEmpty(0)
            .Max() switch
        {
            0 => DrawM3PerS,
            >= WideBoreM => WideFillM3PerS,
            _ => NarrowFillM3PerS,
        };
        (string? End, double? Pa, IReadOnlyList<Run> Way) best = (null, null, []);
        foreach (var vent in joined.Of(tank.Id).Where(j => j.Run.Service is Service.Vent))
        {
            double pa = 1.5 * Dynamic(vent.Run);
            string at = tank.Id;
            var (other, run) = (vent.Other, vent.Run);
            var seen = new HashSet<string> { tank.Id };
            var way = new List<Run>();
            while (true)
            {
                pa += Friction(question, run);
                way.Add(run);
                var part = question.Index.Part(other);
                if (Catalogue.Part(part.Stock)!.Passage == Passage.OpenEnd)
                {
                    if (best.Pa is null || pa < best.Pa) best = (part.Name, pa, way);
                    break;
                }
                // Through joints, along one line.
                if (!seen.Add(other) || Catalogue.Part(part.Stock)!.Passage != Passage.Through) break;
                var on = joined.Of(other).FirstOrDefault(j => j.Run.Id != run.Id && j.Run.Service == Service.Vent && !seen.Contains(j.Other));
                if (on.Run is null) break;
                (other, run) = (on.Other, on.Run);
            }
        }
        // A loose end is open to air too, for as long as it is loose.
        if (best.End is null && question.Rig.Runs.FirstOrDefault(r => r.Service == Service.Vent
            && ((r.From.Part == tank.Id && r.To.IsLoose()) || (r.To.Part == tank.Id && r.From.IsLoose()))) is { } loose)
            best = (loose.Name, 1.5 * Dynamic(loose) + Friction(question, loose), [loose]);
        return (best.End, best.Pa, best.Way, flow);

        double Speed(Run run) => flow / Catalogue.Pipe(run.Pipe)!.BoreM2();
        double Dynamic(Run run) => AirKgPerM3 / 2 * Speed(run) * Speed(run);
        double Friction(Question q, Run run)
        {
            double bore = Catalogue.Pipe(run.Pipe)!.InnerDiameterM, reynolds = Math.Max(1, Speed(run) * bore / AirM2PerS);
            // Hagen and Poiseuille below 2300, Blasius above.
            double factor = reynolds < 2300 ? 64 / reynolds : 0.3164 / Math.Pow(reynolds, 0.25);
            return factor * q.Index.PipeLengthM(run) / bore * Dynamic(run);
        }
    }
}
