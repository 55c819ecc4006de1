using WarmConduit.Core.Levels;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.DrainDown;

/// <summary>Pools as they are told: where they stand, what holds them, and what they threaten.</summary>
internal static class PoolAfter
{
    public static PoolAnswer Of(Question question, LevelAnswer levels, Pool pool, List<RunDrain> runs, Dictionary<string, double> retainedByPart)
    {
        var rig = question.Rig;
        var network = question.Levels;
        var shares = pool.Edges.Where(e => e.Edge < rig.Runs.Count).Select(e => new PoolShare(rig.Runs[e.Edge].Id, e.VolumeM3 * 1000)).ToList();
        var parts = pool.Points.Select(network.PortAt).OfType<(string Part, string Port)>().Select(p => p.Part).Distinct()
            .Where(id => retainedByPart.GetValueOrDefault(id) > 0 && !Catalogue.Part(question.Index.Part(id).Stock)!.KeepsWater)
            .Select(id => new PoolPart(id, retainedByPart[id])).ToList();
        var threatens = pool.Edges.Where(e => e.Edge < rig.Runs.Count).SelectMany(e => TouchedParts(rig.Runs[e.Edge], runs[e.Edge])).Distinct()
            .Where(network.IceBreaks).ToList();
        return new PoolAnswer(
            "pool:" + string.Join("+", shares.Select(s => s.RunId).Order()),
            WordsOf(question, shares, parts),
            pool.VolumeM3 * 1000 + parts.Sum(p => p.RetainedL),
            Finite(pool.LevelM),
            Finite(pool.LevelM - levels.HeightM[pool.LowestPoint]),
            network.PlaceAt(pool.LowestPoint),
            pool.CrestPoint < 0 ? null : network.PlaceAt(pool.CrestPoint),
            pool.CrestPoint < 0 ? ShutBy(question, levels, pool.Points) : null,
            shares,
            parts,
            threatens);
    }

    // Water in a tank and in nothing that leads from it.
    public static PoolAnswer OfTank(Question question, LevelAnswer levels, string id, double retainedL)
    {
        var part = question.Index.Part(id);
        var network = question.Levels;
        int point = levels.Graph.VesselPoint[network.VesselOf[id]], crest = levels.Crest[point];
        return new PoolAnswer(
            "vessel:" + id,
            part.Name,
            retainedL,
            Finite(levels.LevelM[point]),
            null,
            Place.OnPart(question.Index, part),
            crest < 0 ? null : network.PlaceAt(crest),
            crest < 0 ? ShutBy(question, levels, part.Ports.Select(p => network.PointOf(id, p.Id))) : null,
            [],
            [new PoolPart(id, retainedL)],
            network.IceBreaks(id) ? [id] : []);
    }

    // By the runs and tanks that hold most; fittings go without saying.
    private static string WordsOf(Question question, List<PoolShare> shares, List<PoolPart> parts)
    {
        var holders = shares.Select(s => (question.Index.Run(s.RunId).Name, s.RetainedL))
            .Concat(parts.Where(p => question.Levels.VesselOf.ContainsKey(p.PartId)).Select(p => (question.Index.Part(p.PartId).Name, p.RetainedL)))
            .OrderByDescending(h => h.RetainedL).Select(h => h.Name).ToList();
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
        if (run.From.Part is not null && stations[0].WetTo > 0 && stations[0].WetFrom < 1e-6) yield return run.From.Part!;
        if (run.To.Part is not null && stations[^2].WetTo > 1 - 1e-6) yield return run.To.Part!;
    }

    // What to open: of the parts that shut the pool in, the one whose other side lets water out, lowest first; else the first of them.
    private static Place? ShutBy(Question question, LevelAnswer levels, IEnumerable<int> points)
    {
        var network = question.Levels;
        var (found, lowest) = ((int?)null, double.PositiveInfinity);
        foreach (int p in points)
        {
            if (network.PortAt(p) is not { } port || !network.Shuts(port.Part)) continue;
            double beyond = question.Index.Part(port.Part).Ports.Min(o => levels.LevelM[network.PointOf(port.Part, o.Id)]);
            if (found is null || beyond < lowest) (found, lowest) = (p, beyond);
        }
        return found is { } at ? network.PlaceAt(at) : null;
    }

    private static double? Finite(double value) => double.IsFinite(value) ? value : null;
}
