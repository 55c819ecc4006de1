using WarmConduit.Core.Levels;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.DrainDown;

/// <summary>What a rig retains once it is drained, where, and what that threatens.</summary>
public static class DrainDownStudy
{
    private const int MostPools = 1000;

    /// <summary>
    /// Asks of a rig as it is parked, with taps, valves and drains as the scenario has them, and what is done by hand on leaving done. Pure.
    /// O(points log points). Heights are trusted to the millimetre; residual water is an estimate.
    /// </summary>
    public static DrainDownAnswer Ask(Question question)
    {
        if (question.Draining is not { } levels) return NothingOpen(question);
        var rig = question.Rig;
        var network = question.Levels;
        var air = question.Ask(AirHolds.Of);
        var ways = new Ways(question, levels);
        var runs = Enumerable.Range(0, rig.Runs.Count).Select(r => RunAfter(question, levels, air, ways, r)).ToList();
        var hung = AllAirlocked(rig, runs);
        var parts = Wet(question).Select(p => PartAfter(question, levels, air, hung, p)).Where(p => p.FullL > 0).ToList();
        var retained = parts.ToDictionary(p => p.PartId, p => p.RetainedL);
        var pools = levels.Pools().Where(p => p.Edges.Any(e => e.Edge >= rig.Runs.Count || rig.Runs[e.Edge].Service != Service.Coolant))
            .Select(p => PoolAfter.Of(question, levels, p, runs, retained)).Where(p => p.RetainedL >= TradeConstants.LeastPoolL).ToList();
        var named = pools.SelectMany(p => p.Parts).Select(p => p.PartId).ToHashSet();
        // A vessel that holds nothing but heating fluid is none of these.
        pools.AddRange(network.VesselOf.Where(v => retained.GetValueOrDefault(v.Key) >= TradeConstants.LeastInVesselL && !named.Contains(v.Key))
            .Select(v => PoolAfter.OfTank(question, levels, v.Key, retained[v.Key])));
        var threatening = pools.Where(p => p.Threatens.Count > 0).SelectMany(p => p.Shares).Select(s => s.RunId).ToHashSet();
        for (int r = 0; r < runs.Count; r++)
            if (threatening.Contains(runs[r].RunId)) runs[r] = runs[r] with { Threatens = true };
        return Sum(question, [.. pools.OrderByDescending(p => p.RetainedL)], runs, parts, AirlocksIn(runs, air),
            [.. network.Graph!.DrainPoints.Select(network.PlaceAt)]);
    }

    private static DrainDownAnswer Sum(Question question, IReadOnlyList<PoolAnswer> pools, IReadOnlyList<RunDrain> runs, IReadOnlyList<PartDrain> parts,
        IReadOnlyList<AirHold> airlocks, IReadOnlyList<Place> drains)
    {
        bool Tank(PartDrain p) => Catalogue.Part(question.Index.Part(p.PartId).Stock)!.Passage == Passage.Vessel;
        var stays = new Stays(
            runs.Sum(r => r.PoolL), parts.Where(p => !Tank(p)).Sum(p => p.RetainedL), parts.Where(Tank).Sum(p => p.RetainedL), runs.Sum(r => r.AirlockedL),
            runs.Sum(r => r.FilmL),
            parts.Where(p => p.ByDesign).Sum(p => p.RetainedL), parts.Sum(p => p.ProtectedL), parts.Sum(p => p.ByHandL));
        return new DrainDownAnswer(stays, pools.Count > MostPools ? [.. pools.Take(MostPools)] : pools, pools.Count, runs, parts, airlocks, drains);
    }

    /// <summary>
    /// Residual water: film and beads that stay on a length of bore with less than <paramref name="leastFall"/>: a quarter of the bore where dead level,
    /// nothing at the least fall, linear between. Litres. Estimate (a puddle on plastic stands some 3 mm deep).
    /// </summary>
    internal static double FilmL(double boreM2, double lengthM, double fall, double leastFall) =>
        leastFall <= 0 || fall >= leastFall ? 0 : 0.25 * boreM2 * lengthM * 1000 * (1 - Math.Max(fall, 0) / leastFall);

    // Heating fluid stays in its circuit.
    private static IEnumerable<Part> Wet(Question question) => question.Rig.Parts.Where(p => !question.Index.HoldsCoolant(p));

    private static DrainDownAnswer NothingOpen(Question question)
    {
        var rig = question.Rig;
        var parts = Wet(question).Select(p => Left(question, p, PartWater.HoldsL(p), Catalogue.Part(p.Stock)!.KeepsWater ? StayCause.Design : StayCause.Shut))
            .Where(p => p.FullL > 0).ToList();
        var runs = new List<RunDrain>();
        foreach (var run in rig.Runs)
        {
            var pipe = Catalogue.Pipe(run.Pipe)!;
            var course = question.Index.CourseOf(run);
            var stations = new List<Station>();
            double at = 0;
            for (int k = 0; k < course.Length; k++)
            {
                if (k > 0) at += course[k].DistanceM(course[k - 1]);
                stations.Add(new Station(RunPoint.IdOf(run, k), course[k], at, question.Conditions.Parked.HeightM(course[k]), null, null, 0, 0,
                    k < course.Length - 1 && run.Service != Service.Coolant ? 1 : 0, null, 0, 0));
            }
            double full = pipe.BoreM2() * at * 1000;
            runs.Add(new RunDrain(run.Id, pipe.InnerDiameterM, at, full, run.Service == Service.Coolant ? 0 : full, 0, 0, 0, null, null, stations, false, null,
                false, null));
        }
        return Sum(question, [], runs, parts, [], []);
    }

    // As much as the runs have room for above their pools.
    private static List<AirHold> AirlocksIn(List<RunDrain> runs, AirHolds air)
    {
        var fits = Enumerable.Range(0, runs.Count).Where(r => air.InRunL(r) > 0).ToDictionary(r => runs[r].RunId, r => runs[r].AirlockedL / air.InRunL(r));
        AirHold Fitted(AirHold hold)
        {
            if (hold.Gulps) return hold;
            var shares = hold.Shares.Select(s => s with { RetainedL = s.RetainedL * fits[s.RunId] }).ToList();
            return hold with { Shares = shares, Litres = shares.Sum(s => s.RetainedL) };
        }
        return [.. air.Holds.Select(Fitted).Where(h => h.Litres > 0).OrderByDescending(h => h.Litres)];
    }

    // Ports that water which is airlocked in a run reaches: what is joined there is as full.
    private static IEnumerable<(string Part, string Port)> AirlockedAt(Run run, RunDrain drain)
    {
        if (drain.AirlockedL <= 0) yield break;
        var (first, last) = (drain.Stations[0], drain.Stations[^2]);
        if (run.From.Part is { } from && first.AirlockedTo > first.AirlockedFrom && first.AirlockedFrom < 1e-6) yield return (from, run.From.Port!);
        if (run.To.Part is { } to && last.AirlockedTo > last.AirlockedFrom && last.AirlockedTo > 1 - 1e-6) yield return (to, run.To.Port!);
    }

    // Parts of which every line is airlocked where it joins them; what has a diaphragm pushes its water out.
    private static HashSet<string> AllAirlocked(Rig rig, List<RunDrain> runs)
    {
        var (hung, free) = (new HashSet<(string, string)>(), new HashSet<string>());
        for (int r = 0; r < runs.Count; r++) hung.UnionWith(AirlockedAt(rig.Runs[r], runs[r]));
        foreach (var end in rig.Runs.SelectMany(r => (RunEnd[])[r.From, r.To]))
            if (end.Part is { } id && !hung.Contains((id, end.Port!))) free.Add(id);
        return [.. hung.Select(h => h.Item1).Where(id => !free.Contains(id) && !PartWater.Pushes(rig.Parts.Find(id)!))];
    }

    private static PartDrain PartAfter(Question question, LevelAnswer levels, AirHolds air, HashSet<string> hung, Part part)
    {
        var stock = Catalogue.Part(part.Stock)!;
        double full = PartWater.HoldsL(part);
        if (stock.KeepsWater) return Left(question, part, full, StayCause.Design);
        if (question.Levels.VesselOf.TryGetValue(part.Id, out int vessel))
            return air.Vessels.Contains(vessel) ? Left(question, part, full, StayCause.Airlock)
                : Left(question, part, levels.VesselM3(vessel) * 1000, StayCause.Crest);
        // Each at its worst: it is full once.
        double stands = full * Math.Clamp(question.Levels.JoinedPointsOf(part).Select(p => Depth(levels, p)).DefaultIfEmpty(0)
            .Max() / PartWater.InnerHeightM(part), 0, 1);
        if (stands < full && IsShut(question, part)) return Left(question, part, full, StayCause.Shut);
        return stands < full && hung.Contains(part.Id) ? Left(question, part, full, StayCause.Airlock) : Left(question, part, stands, StayCause.Crest);
    }

    // Half open, a ball lets its own water go; shut, it keeps it.
    private static bool IsShut(Question question, Part part) =>
        Catalogue.Part(part.Stock)!.Passage is Passage.Valve or Passage.Mixer && question.Scenario.PositionOf(part) is { Passes: false };

    // What gravity leaves, less what was not there and what is taken out by hand.
    private static PartDrain Left(Question question, Part part, double leftL, StayCause? cause)
    {
        var stock = Catalogue.Part(part.Stock)!;
        leftL = Math.Min(leftL, PartWater.AtStartL(part, question.Conditions));
        string? task = question.Rig.ByHand.Find(part.Id)?.Task;
        // What is poured into a trap takes nothing out of it.
        bool emptied = task is not null && !stock.Protects;
        double stays = emptied ? 0 : leftL;
        return new PartDrain(part.Id, PartWater.HoldsL(part), stays, stock.KeepsWater, stays > 0 ? cause : null, task is not null && stock.Protects ? leftL
            : 0, emptied ? leftL : 0, task, stock.Remedy);
    }

    private static double Depth(LevelAnswer levels, int point) => levels.LevelM[point] - levels.HeightM[point] is > 1e-6 and var depth ? depth : 0;

    private static RunDrain RunAfter(Question question, LevelAnswer levels, AirHolds air, Ways ways, int r)
    {
        var run = question.Rig.Runs[r];
        var pipe = Catalogue.Pipe(run.Pipe)!;
        var points = question.Levels.PointsOfRun(r);
        var graph = levels.Graph;
        int first = graph.EdgeFirst[r];
        var stations = new List<Station>(points.Length);
        bool coolant = run.Service == Service.Coolant;
        double distance = 0, film = 0;
        double? leastFall = null;
        string? leastAt = null;
        for (int k = 0; k < points.Length; k++)
        {
            int p = points[k];
            double z = levels.HeightM[p];
            double? fall = null, standsAt = null;
            double wetFrom = 0, wetTo = 0, length = 0, share = 0, airFrom = 0, airTo = 0;
            int direction = 0;
            if (k + 1 < points.Length)
            {
                int q = points[k + 1];
                length = graph.SegLengthM[first + k];
                direction = levels.Next[p] == q ? 1 : levels.Next[q] == p ? -1 : LowerWay(levels, p, q);
                if (direction != 0 && length > 0) fall = direction * (z - levels.HeightM[q]) / length;
                double stands = Draining.OutLevel(graph.SegPasses[first + k], levels.LevelM[p], levels.LevelM[q]);
                if (!coolant) (wetFrom, wetTo) = WetSpan(levels.SegmentM3[first + k], stands, z, levels.HeightM[q]);
                if (wetTo > wetFrom) standsAt = Finite(stands);
                // Airlocked is the upper part of a length.
                share = air.Share(first + k);
                if (share > 0) (airFrom, airTo) = z >= levels.HeightM[q] ? (0.0, share) : (1 - share, 1.0);
                if (fall is { } f && !coolant)
                {
                    film += FilmL(pipe.BoreM2(), length * Math.Max(0, 1 - (wetTo - wetFrom) - share), f, question.Rig.Brief.LeastFall);
                    if (leastFall is null || f < leastFall) (leastFall, leastAt) = (Short(f), RunPoint.IdOf(run, k));
                }
            }
            stations.Add(new Station(RunPoint.IdOf(run, k), graph.Points[p], Short(distance), Short(z), Short((double?)levels.LevelM[p]), Short(fall),
                direction, Short(wetFrom), Short(wetTo), Short(standsAt), Short(airFrom), Short(airTo)));
            distance += length;
        }
        // What is in the bore is in it once: above the pool what is airlocked, beside that the film, and what hangs between clips.
        double full = pipe.BoreM2() * distance * 1000, pool = coolant ? 0 : levels.EdgeM3[r] * 1000,
            airlocked = Math.Clamp(air.InRunL(r), 0, Math.Max(0, full - pool)), rest = Math.Max(0, full - pool - airlocked);
        double sag = coolant ? 0 : Math.Min(rest, Sags.LitresOf(question, run, stations)), flat = Math.Min(film, rest - sag);
        return new RunDrain(run.Id, pipe.InnerDiameterM, distance, full, pool, airlocked, flat + sag, sag, leastFall, leastAt, stations, ways.Reversed(r),
            ways.LeadsTo(r), false, ways.EndOf(r));
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

    // To the nanometre: of the thousands of stations of a large rig half of the digits would be noise.
    private static double Short(double value) => Math.Round(value, 9);

    private static double? Short(double? value) => value is { } v && double.IsFinite(v) ? Math.Round(v, 9) : null;

    private static double? Finite(double value) => double.IsFinite(value) ? value : null;
}
