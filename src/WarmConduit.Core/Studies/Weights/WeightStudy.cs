using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.Weights;

/// <summary>What the wheels carry in a state of the tanks. Without weighed axles only the system's own weight is told.</summary>
/// <param name="Id">Stable id: dry, full, half, greyFull.</param>
/// <param name="Name">In words.</param>
/// <param name="SystemKg">The water system with its water.</param>
/// <param name="TotalKg">The vehicle with it; null: its axles are not known.</param>
/// <param name="FrontKg">On the front axle, or a trailer's nose load.</param>
/// <param name="RearKg">On the rear axle.</param>
/// <param name="FrontKerbShare">Part of the front axle's load on the kerb side, 0 to 1.</param>
/// <param name="RearKerbShare">Part of the rear axle's load on the kerb side, 0 to 1.</param>
/// <param name="Over">What is over its limit, in words.</param>
public sealed record WeightState(
    string Id, string Name, double SystemKg, double? TotalKg, double? FrontKg, double? RearKg, double? FrontKerbShare, double? RearKerbShare,
    IReadOnlyList<string> Over);

/// <summary>The load of a full tank on the axles.</summary>
/// <param name="PartId">The tank.</param>
/// <param name="Name">Its name.</param>
/// <param name="WaterKg">Its water when full.</param>
/// <param name="CrashN">Load on its fixings at 20 g forward, full, N. Estimate.</param>
/// <param name="FrontKg">Its water's load on the front axle; negative: it lifts it. Null: the axles are not known.</param>
/// <param name="RearKg">On the rear axle.</param>
/// <param name="KerbKg">On the kerb side's wheels.</param>
public sealed record TankMoment(string PartId, string Name, double WaterKg, double CrashN, double? FrontKg, double? RearKg, double? KerbKg);

/// <summary>Where the weight of a rig is. All are estimates.</summary>
/// <param name="Axles">The axles as typed, or as assumed until then.</param>
/// <param name="Weighed">Both were weighed.</param>
/// <param name="PartsKg">Parts, empty.</param>
/// <param name="PipeKg">Pipe and hose.</param>
/// <param name="LiningKg">Boards and insulation of the zones' faces; skins of metal and glass fibre are the vehicle's own.</param>
/// <param name="States">Dry, full, half; grey full where there is a grey tank.</param>
/// <param name="Tanks">Tanks, heaviest first.</param>
public sealed record WeightsAnswer(Axles Axles, bool Weighed, double PartsKg, double PipeKg, double LiningKg, IReadOnlyList<WeightState> States,
    IReadOnlyList<TankMoment> Tanks);

/// <summary>Weights by moments about the front axle, and across about its kerb-side wheel.</summary>
public static class WeightStudy
{
    private const double CrashG = 20, CabM = 0.6;

    private static readonly (string Id, string Name, double Fresh, double Grey)[] Fills =
        [("dry", "dry", 0, 0), ("full", "fresh tanks full", 1, 0), ("half", "half and half", 0.5, 0.5), ("greyFull", "grey tanks full", 0.1, 1)];

    /// <summary>Sums masses and their moments. Pure. O(parts + points + faces).</summary>
    public static WeightsAnswer Ask(Question question)
    {
        var rig = question.Rig;
        // Half a weighing tells nothing.
        var axles = rig.Shell.Axles is { FrontKg: > 0, RearKg: > 0 } weighed ? weighed : null;
        var body = rig.Shell.Body.Centre();
        double waterKgPerL = Water.DensityKgPerM3(10) / 1000;
        var parts = rig.Parts.Select(p => new Load(PartWater.EmptyKg(p), p.Box.Centre())).ToList();
        var pipe = rig.Runs.SelectMany(r => Along(question, r, Catalogue.Pipe(r.Pipe)!.WallKgPerM())).ToList();
        var linings = rig.Shell.Zones.SelectMany(z => z.Faces.Select(f =>
            new Load(f.AreaM2 * f.Layers.Sum(l => l.ThicknessM * (Catalogue.Solid(l.Material) is { IsSkin: false } lining ? lining.DensityKgPerM3 : 0)),
            z.Box.Centre()))).ToList();
        var inLines = rig.Runs.Where(r => r.Service is Service.Cold or Service.Hot)
            .SelectMany(r => Along(question, r, Catalogue.Pipe(r.Pipe)!.BoreM2() * 1000 * waterKgPerL)).ToList();

        WeightState State((string Id, string Name, double Fresh, double Grey) fill)
        {
            // Heaters, filters and lines are full whenever the system is in use.
            double Share(StockPart stock) => fill.Id == "dry" ? 0 : stock.Passage != Passage.Vessel ? 1
                : stock.Group switch { PartGroup.Store => fill.Fresh, PartGroup.Waste => fill.Grey, _ => 1 };
            var water = rig.Parts.Select(p => new Load(PartWater.HoldsL(p) * Share(Catalogue.Part(p.Stock)!) * waterKgPerL, p.Box.Centre()))
                .Concat(fill.Id == "dry" ? [] : inLines).ToList();
            double system = Kg(parts) + Kg(pipe) + Kg(water);
            if (axles is null) return new WeightState(fill.Id, fill.Name, system, null, null, null, null, null, []);
            Load[] all =
            [
                new(axles.FrontKg, body with { XM = axles.FrontXM }), new(axles.RearKg, body with { XM = axles.FrontXM - axles.WheelbaseM }),
                new(axles.OtherKg, body),
                .. parts, .. pipe, .. linings, .. water,
            ];
            var (front, rear) = (OnAxle(axles, all, front: true), OnAxle(axles, all, front: false));
            double total = Kg(all);
            var over = new List<string>();
            if (Kg(front) > axles.FrontMostKg) over.Add("front axle");
            if (Kg(rear) > axles.RearMostKg) over.Add("rear axle");
            if (total > axles.TotalMostKg) over.Add("total");
            return new WeightState(fill.Id, fill.Name, system, total, Kg(front), Kg(rear), KerbKg(axles, body, front) / Kg(front),
                KerbKg(axles, body, rear) / Kg(rear), over);
        }

        TankMoment Moment(Part tank)
        {
            double kg = PartWater.HoldsL(tank) * waterKgPerL, crash = (kg + PartWater.EmptyKg(tank)) * CrashG * TradeConstants.GravityMPerS2;
            Load[] full = [new(kg, tank.Box.Centre())];
            return axles is null
                ? new TankMoment(tank.Id, tank.Name, kg, crash, null, null, null)
                : new TankMoment(tank.Id, tank.Name, kg, crash, Kg(OnAxle(axles, full, front: true)), Kg(OnAxle(axles, full, front: false)),
                    KerbKg(axles, body, full));
        }

        return new WeightsAnswer(
            rig.Shell.Axles ?? Guess(rig.Shell), axles is not null, Kg(parts), Kg(pipe), Kg(linings),
            [.. Fills.Where(f => f.Id != "greyFull" || rig.Parts.Any(p => Catalogue.Part(p.Stock) is { Group: PartGroup.Waste, Passage: Passage.Vessel }))
            .Select(State)],
            [.. rig.Parts.Where(p => Catalogue.Part(p.Stock) is { Passage: Passage.Vessel }).Select(Moment).OrderByDescending(t => t.WaterKg)
            .ThenBy(t => t.PartId, StringComparer.Ordinal)]);
    }

    /// <summary>Where axles are taken to be until they are typed: under the arches, the front one a little ahead of the body. Estimate.</summary>
    public static Axles Guess(Shell shell)
    {
        var arches = shell.Obstacles.Where(o => o.Kind == ObstacleKind.WheelArch).Select(o => o.Box.Centre().XM).Distinct().Order().ToList();
        double rear = arches.Count > 0 ? arches[0] : shell.Body.Size.XM * 0.3, front = arches.Count > 1 ? arches[^1] : shell.Body.Far().XM + CabM;
        return new Axles(front, Math.Clamp(front - rear, 0.5, 15), Math.Clamp(shell.Body.Size.YM, 0.5, 3), 0, 0);
    }

    private static double Kg(IEnumerable<Load> loads) => loads.Sum(l => l.MassKg);

    private static IEnumerable<Load> Along(Question question, Run run, double kgPerM)
    {
        var course = question.Index.CourseOf(run);
        // What hangs slack is spread over its course.
        double whole = question.Index.PipeLengthM(run), straight = whole - (run.SlackM ?? 0);
        if (straight > 0) kgPerM *= whole / straight;
        for (int i = 1; i < course.Length; i++) yield return new Load(kgPerM * course[i - 1].DistanceM(course[i]), course[i - 1].Towards(course[i], 0.5));
    }

    // What each load puts on an axle, where it stands across the vehicle.
    private static List<Load> OnAxle(Axles axles, IEnumerable<Load> loads, bool front) =>
        [.. loads.Select(l =>
        {
            var on = SmallSums.Axles(axles.WheelbaseM, [new PlacedMass(l.MassKg, axles.FrontXM - l.At.XM)]);
            return l with { MassKg = front ? on.FrontKg : on.RearKg };
        })];

    // The wheels of an axle share it as axles share a vehicle.
    private static double KerbKg(Axles axles, Point3 body, IEnumerable<Load> loads) =>
        SmallSums.Axles(axles.TrackM, loads.Select(l => new PlacedMass(l.MassKg, l.At.YM - (body.YM - axles.TrackM / 2)))).FrontKg;

    private readonly record struct Load(double MassKg, Point3 At);
}
