using CsCheck;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Levels;

namespace WarmConduit.Core.Tests.Levels;

/// <summary>Random networks of bores: connected, with loops (now and then very many), one-way and closed elements, bends and one or two drains.</summary>
internal static class LevelGen
{
    private static readonly Gen<Point3> Place = Gen.Select(Gen.Double[0, 5], Gen.Double[0, 2], Gen.Double[0, 0.6], (x, y, z) => new Point3(x, y, z));
    private static readonly Gen<Passes> Way = Gen.Frequency((7, Gen.Const(Passes.Both)), (2, Gen.Const(Passes.Forward)), (1, Gen.Const(Passes.None)));

    public static readonly Gen<Attitude> Attitude = Gen.Select(Gen.Double[-3, 3], Gen.Double[-3, 3], (p, r) => new Attitude(p, r));

    public static readonly Gen<LevelNetwork> Network =
        from places in Gen.Frequency((4, Place.Array[2, 14]), (1, Place.Array[16, 20]))
        from extra in places.Length < 16 ? Gen.Int[0, 4] : Gen.Int[100, 160]
        from ends in Gen.Select(Gen.Int[0, 999], Gen.Int[0, 999]).Array[places.Length + extra]
        from ways in Way.Array[places.Length + extra]
        from vias in Place.Array[0, 2].Array[places.Length + extra]
        from drains in Gen.Int[0, places.Length - 1].Array[1, 2]
        select Build(places, ends, ways, vias, drains);

    private static LevelNetwork Build(Point3[] places, (int, int)[] ends, Passes[] ways, Point3[][] vias, int[] drains)
    {
        var edges = new List<LevelEdge>();
        for (int e = 1; e < ends.Length; e++)
        {
            // The first edges make a tree, the rest close loops.
            int from = e < places.Length ? e : ends[e].Item1 % places.Length;
            int to = e < places.Length ? ends[e].Item2 % e : ends[e].Item2 % places.Length;
            if (from != to) edges.Add(new LevelEdge($"e{e}", $"n{from}", $"n{to}", 0.0123, ways[e], vias[e]));
        }
        return new LevelNetwork([.. places.Select((p, i) => new LevelNode($"n{i}", p))], edges, [], [.. drains.Select(d => $"n{d}")]);
    }
}
