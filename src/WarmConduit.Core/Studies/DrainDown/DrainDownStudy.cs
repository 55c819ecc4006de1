using WarmConduit.Core.Geometry;
using WarmConduit.Core.Levels;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.DrainDown;

/// <summary>What stays in a rig once it is drained, where, and what that threatens.</summary>
public static class DrainDownStudy
{
    private const double LeastPoolL = 0.002;

    // A cup left in a tank has room to freeze.
    private const double LeastInTankL = 0.25;

    /// <summary>
    /// Asks the question of <paramref name="rig"/> (checked before) standing as <paramref name="parked"/>, with taps, valves and drains as
    /// each part's <see cref="Part.WhenDrained"/> says. Pure. O(points log points). Heights are trusted to the millimetre; film is an estimate.
    /// </summary>
    public static DrainDownAnswer Ask(Rig rig, Attitude parked)
    {
        var network = new RigNetwork(rig);
        if (network.Graph is null) return NothingOpen(rig, parked);
        var levels = Draining.Solve(network.Graph, parked);
        var parts = rig.Parts.Select(p => PartAfter(network, levels, p)).Where(p => p.FullL > 0).ToList();
        var runs = Enumerable.Range(0, rig.Runs.Count).Select(r => RunAfter(network, levels, r)).ToList();
        var held = parts.ToDictionary(p => p.PartId, p => p.HeldL);
        var pools = levels.Pools().Select(p => PoolAfter(network, levels, p, runs, held)).Where(p => p.HeldL >= LeastPoolL).ToList();
        var named = pools.SelectMany(p => p.Parts).Select(p => p.PartId).ToHashSet();
        pools.AddRange(network.VesselOf.Where(v => held[v.Key] >= LeastInTankL && !named.Contains(v.Key)).Select(v => TankAfter(network, levels, v.Key, held[v.Key])));
        return Sum([.. pools.OrderByDescending(p => p.HeldL)], runs, parts, [.. network.Graph.DrainPoints.Select(network.PlaceAt)]);
    }

    private static DrainDownAnswer Sum(IReadOnlyList<PoolAnswer> pools, IReadOnlyList<RunDrain> runs, IReadOnlyList<PartDrain> parts, IReadOnlyList<Place> drains)
    {
        double inRuns = runs.Sum(r => r.HeldL), total = inRuns + parts.Sum(p => p.HeldL), byDesign = parts.Where(p => p.ByDesign).Sum(p => p.HeldL);
        return new DrainDownAnswer(total, inRuns, total - byDesign, byDesign, runs.Sum(r => r.FilmL), pools, runs, parts, drains);
    }

    /// <summary>
    /// Film and beads that stay on a length of bore with less than <paramref name="leastFall"/>: a quarter of the bore where dead level, nothing at the
    /// least fall, linear between. Litres. Estimate (a puddle on plastic stands some 3 mm deep).
    /// </summary>
    internal static double FilmL(double boreM2, double lengthM, double fall, double leastFall) =>
        leastFall <= 0 || fall >= leastFall ? 0 : 0.25 * boreM2 * lengthM * 1000 * (1 - Math.Max(fall, 0) / leastFall);

    private static DrainDownAnswer NothingOpen(Rig rig, Attitude parked)
    {
        var parts = rig.Parts
            .Select(p => new PartDrain(p.Id, PartWater.HoldsL(p), PartWater.HoldsL(p), Catalogue.Part(p.Stock)!.KeepsWater, Catalogue.Part(p.Stock)!.Remedy))
            .Where(p => p.FullL > 0).ToList();
        var runs = new List<RunDrain>();
        foreach (var run in rig.Runs)
        {
            var pipe = Catalogue.Pipe(run.Pipe)!;
            var course = rig.CourseOf(run);
            var stations = new List<Station>();
            double at = 0;
            for (int k = 0; k < course.Count; k++)
            {
                if (k > 0) at += course[k].DistanceM(course[k - 1]);
                stations.Add(new Station(course[k], at, parked.HeightM(course[k]), null, null, 0, 0, k < course.Count - 1 ? 1 : 0, null));
            }
            double full = pipe.BoreM2() * at * 1000;
            runs.Add(new RunDrain(run.Id, pipe.InnerDiameterM, at, full, full, 0, null, 0, stations, [new RouteLeg(run.Id, false)], null));
        }
        return Sum([], runs, parts, []);
    }

    private static PartDrain PartAfter(RigNetwork network, LevelAnswer levels, Part part)
    {
        var stock = Catalogue.Part(part.Stock)!;
        double full = PartWater.HoldsL(part);
        if (stock.KeepsWater) return new PartDrain(part.Id, full, full, true, stock.Remedy);
        double held = stock.Passage == Passage.Vessel
            ? levels.VesselM3(network.VesselOf[part.Id]) * 1000
            : part.Ports.Any(p => Wet(levels, network.PointOf(part.Id, p.Id))) ? full : 0;
        return new PartDrain(part.Id, full, held, false, null);
    }

    private static bool Wet(LevelAnswer levels, int point) => levels.LevelM[point] > levels.HeightM[point] + 1e-6;

    private static RunDrain RunAfter(RigNetwork network, LevelAnswer levels, int r)
    {
        var run = network.Rig.Runs[r];
        var pipe = Catalogue.Pipe(run.Pipe)!;
        var points = network.PointsOfRun(r);
        var graph = levels.Graph;
        int first = graph.EdgeFirst[r];
        var stations = new List<Station>(points.Length);
        double distance = 0, film = 0;
        double? leastFall = null;
        int leastAt = 0;
        for (int k = 0; k < points.Length; k++)
        {
            int p = points[k];
            double z = levels.HeightM[p];
            double? fall = null, standsAt = null;
            double wetFrom = 0, wetTo = 0, length = 0;
            int direction = 0;
            if (k + 1 < points.Length)
            {
                int q = points[k + 1];
                length = graph.SegLengthM[first + k];
                direction = levels.Next[p] == q ? 1 : levels.Next[q] == p ? -1 : LowerWay(levels, p, q);
                if (direction != 0 && length > 0) fall = direction * (z - levels.HeightM[q]) / length;
                double stands = Draining.OutLevel(graph.SegPasses[first + k], levels.LevelM[p], levels.LevelM[q]);
                (wetFrom, wetTo) = WetSpan(levels.SegmentM3[first + k], stands, z, levels.HeightM[q]);
                if (wetTo > wetFrom) standsAt = Finite(stands);
                if (fall is { } f)
                {
                    film += FilmL(pipe.BoreM2(), length * (1 - (wetTo - wetFrom)), f, network.Rig.Brief.LeastFall);
                    if (leastFall is null || f < leastFall) (leastFall, leastAt) = (f, k);
                }
            }
            stations.Add(new Station(graph.Points[p], distance, z, Finite(levels.LevelM[p]), fall, direction, wetFrom, wetTo, standsAt));
            distance += length;
        }
        var (route, end) = RouteOf(network, levels, r);
        return new RunDrain(
            run.Id, pipe.InnerDiameterM, distance, pipe.BoreM2() * distance * 1000, levels.EdgeM3[r] * 1000, film, leastFall, leastAt, stations, route, end);
    }

    // Neither end drains through this length: its water parts in the middle or goes to the end with the lower level.
    private static int LowerWay(LevelAnswer levels, int p, int q)
    {
        double a = levels.LevelM[p], b = levels.LevelM[q];
        if (double.IsInfinity(a) && double.IsInfinity(b)) return 0;
        return b < a || (b == a && levels.HeightM[q] <= levels.HeightM[p]) ? 1 : -1;
    }

    private static (double From, double To) WetSpan(double heldM3, double level, double zStart, double zEnd)
    {
        if (heldM3 <= 0) return (0, 0);
        if (level >= Math.Max(zStart, zEnd)) return (0, 1);
        double at = Math.Clamp((level - zStart) / (zEnd - zStart), 0, 1);
        return zStart < zEnd ? (0, at) : (at, 1);
    }

    // Follows the water from the run's far end, run by run, to the drain it reaches.
    private static (IReadOnlyList<RouteLeg> Route, Place? End) RouteOf(RigNetwork network, LevelAnswer levels, int r)
    {
        var points = network.PointsOfRun(r);
        bool reversed = levels.Next[points[0]] != points[1] && levels.Next[points[^1]] == points[^2];
        var legs = new List<RouteLeg> { new(network.Rig.Runs[r].Id, reversed) };
        int at = reversed ? points[0] : points[^1];
        for (int guard = 0; guard < levels.Next.Length && levels.Next[at] >= 0; guard++)
        {
            int next = levels.Next[at];
            if (network.RunFrom(at, next) is not { } step)
            {
                at = next;
                continue;
            }
            string id = network.Rig.Runs[step.Run].Id;
            if (legs.Any(l => l.RunId == id)) break;
            legs.Add(new RouteLeg(id, step.Reversed));
            var course = network.PointsOfRun(step.Run);
            at = step.Reversed ? course[0] : course[^1];
        }
        return (legs, double.IsInfinity(levels.LevelM[at]) ? null : network.PlaceAt(at));
    }

    private static PoolAnswer PoolAfter(RigNetwork network, LevelAnswer levels, Pool pool, List<RunDrain> runs, Dictionary<string, double> heldByPart)
    {
        var rig = network.Rig;
        var shares = pool.Edges.Where(e => e.Edge < network.RunCount).Select(e => new PoolShare(rig.Runs[e.Edge].Id, e.VolumeM3 * 1000)).ToList();
        var parts = pool.Points.Select(network.PortAt).OfType<(string Part, string Port)>().Select(p => p.Part).Distinct()
            .Where(id => heldByPart.GetValueOrDefault(id) > 0 && !Catalogue.Part(network.PartOf(id).Stock)!.KeepsWater)
            .Select(id => new PoolPart(id, heldByPart[id])).ToList();
        var threatens = pool.Edges.Where(e => e.Edge < network.RunCount).SelectMany(e => TouchedParts(rig.Runs[e.Edge], runs[e.Edge])).Distinct().Where(network.IceBreaks).ToList();
        return new PoolAnswer(
            "pool:" + string.Join("+", shares.Select(s => s.RunId).Order()),
            WordsOf(network, shares, parts),
            pool.VolumeM3 * 1000 + parts.Sum(p => p.HeldL),
            Finite(pool.LevelM),
            Finite(pool.LevelM - levels.HeightM[pool.LowestPoint]),
            network.PlaceAt(pool.LowestPoint),
            pool.CrestPoint < 0 ? null : network.PlaceAt(pool.CrestPoint),
            pool.CrestPoint < 0 ? ShutBy(network, pool.Points) : null,
            shares,
            parts,
            threatens);
    }

    // Water in a tank and in nothing that leads from it.
    private static PoolAnswer TankAfter(RigNetwork network, LevelAnswer levels, string id, double heldL)
    {
        var part = network.PartOf(id);
        int point = levels.Graph.VesselPoint[network.VesselOf[id]], crest = levels.Crest[point];
        return new PoolAnswer(
            "vessel:" + id,
            part.Name,
            heldL,
            Finite(levels.LevelM[point]),
            null,
            Place.OnPart(network.Rig, id, part.Box.Centre()),
            crest < 0 ? null : network.PlaceAt(crest),
            crest < 0 ? ShutBy(network, part.Ports.Select(p => network.PointOf(id, p.Id))) : null,
            [],
            [new PoolPart(id, heldL)],
            network.IceBreaks(id) ? [id] : []);
    }

    // By the runs and tanks that hold most; fittings go without saying.
    private static string WordsOf(RigNetwork network, List<PoolShare> shares, List<PoolPart> parts)
    {
        var holders = shares.Select(s => (network.Rig.Runs.First(r => r.Id == s.RunId).Name, s.HeldL))
            .Concat(parts.Where(p => network.VesselOf.ContainsKey(p.PartId)).Select(p => (network.PartOf(p.PartId).Name, p.HeldL)))
            .OrderByDescending(h => h.HeldL).Select(h => h.Name).ToList();
        return holders.Count switch
        {
            0 => "parts",
            1 => holders[0],
            2 => $"{holders[0]} and {holders[1]}",
            _ => $"{holders[0]} and {holders.Count - 1} more",
        };
    }

    // Parts whose port the water of a run reaches, if only to its lip: ice that grows there has nowhere to go but into them.
    private static IEnumerable<string> TouchedParts(Run run, RunDrain drain)
    {
        var stations = drain.Stations;
        if (stations[0].WetTo > 0 && stations[0].WetFrom < 1e-6) yield return run.From.Part;
        if (stations[^2].WetTo > 1 - 1e-6) yield return run.To.Part;
    }

    private static Place? ShutBy(RigNetwork network, IEnumerable<int> points)
    {
        foreach (int p in points)
        {
            if (network.PortAt(p) is not { } port) continue;
            var part = network.PartOf(port.Part);
            var passage = Catalogue.Part(part.Stock)!.Passage;
            if (passage is Passage.Pump or Passage.OneWay || (part.WhenDrained == ValveState.Closed && passage is Passage.Valve or Passage.Mixer or Passage.Drain))
                return network.PlaceAt(p);
        }
        return null;
    }

    private static double? Finite(double value) => double.IsFinite(value) ? value : null;
}
