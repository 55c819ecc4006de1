using WarmConduit.Core.Materials;

namespace WarmConduit.Core.Rigs;

/// <summary>A stretch of a zone's skin as its box has it.</summary>
/// <param name="ZoneId">The zone whose face it is; of two zones the smaller one, so that a partition stands once.</param>
/// <param name="Facing">The way it faces, out of that zone.</param>
/// <param name="Towards">The zone behind it; null: outdoors.</param>
/// <param name="AreaM2">Area, m².</param>
public sealed record SkinPiece(string ZoneId, Facing Facing, string? Towards, double AreaM2);

/// <summary>
/// Faces of zones from their boxes. A place belongs to the smallest zone that holds it, so a zone is its box less the zones inside it; where two zones meet
/// there is one partition, and where a zone meets none there is a face to outdoors.
/// </summary>
public static class Skin
{
    private const double Least = 1e-6;

    /// <summary>All faces of <paramref name="zones"/>, in order of zone, facing and what is behind. O(planes³ + zones · cells) with at most two planes a zone
    /// and axis.</summary>
    public static IReadOnlyList<SkinPiece> Of(IReadOnlyList<Zone> zones)
    {
        double[] xs = Planes(zones, z => (z.Box.At.XM, z.Box.Far().XM));
        double[] ys = Planes(zones, z => (z.Box.At.YM, z.Box.Far().YM));
        double[] zs = Planes(zones, z => (z.Box.At.ZM, z.Box.Far().ZM));
        int nx = xs.Length + 1, ny = ys.Length + 1, nz = zs.Length + 1;
        // A layer of cells all around is outdoors.
        var owner = new int[nx * ny * nz];
        Array.Fill(owner, -1);
        int At(int i, int j, int k) => (i * ny + j) * nz + k;
        // The largest first: what is smaller lies over it.
        foreach (int z in Enumerable.Range(0, zones.Count).OrderByDescending(n => zones[n].Box.VolumeM3())
            .ThenByDescending(n => zones[n].Id, StringComparer.Ordinal))
        {
            var (low, high) = (zones[z].Box.At, zones[z].Box.Far());
            for (int i = Index(xs, low.XM); i < Index(xs, high.XM); i++)
                for (int j = Index(ys, low.YM); j < Index(ys, high.YM); j++)
                    for (int k = Index(zs, low.ZM); k < Index(zs, high.ZM); k++)
                        owner[At(i + 1, j + 1, k + 1)] = z;
        }
        double Wide(double[] planes, int cell) => cell is 0 || cell >= planes.Length ? 0 : planes[cell] - planes[cell - 1];
        var areas = new SortedDictionary<(string Zone, Facing Facing, string? Towards), double>();
        void Meet(int here, int there, Facing away, Facing back, double area)
        {
            if (here == there || area <= 0) return;
            var (zone, other, facing) = Smaller(here, there) ? (here, there, away) : (there, here, back);
            var key = (zones[zone].Id, facing, other < 0 ? null : zones[other].Id);
            areas[key] = areas.GetValueOrDefault(key) + area;
        }
        bool Smaller(int a, int b) => b < 0 || (a >= 0 && (zones[a].Box.VolumeM3(), zones[a].Id).CompareTo((zones[b].Box.VolumeM3(), zones[b].Id)) < 0);

        for (int i = 0; i < nx; i++)
            for (int j = 0; j < ny; j++)
                for (int k = 0; k < nz; k++)
                {
                    int here = owner[At(i, j, k)];
                    if (i + 1 < nx) Meet(here, owner[At(i + 1, j, k)], Facing.Forward, Facing.Rear, Wide(ys, j) * Wide(zs, k));
                    if (j + 1 < ny) Meet(here, owner[At(i, j + 1, k)], Facing.FarSide, Facing.KerbSide, Wide(xs, i) * Wide(zs, k));
                    if (k + 1 < nz) Meet(here, owner[At(i, j, k + 1)], Facing.Up, Facing.Down, Wide(xs, i) * Wide(ys, j));
                }
        return [.. areas.Select(a => new SkinPiece(a.Key.Zone, a.Key.Facing, a.Key.Towards, a.Value))];
    }

    /// <summary>Where a face that looks this way lies.</summary>
    public static FaceSide SideOf(Facing facing) => facing switch { Facing.Up => FaceSide.Roof, Facing.Down => FaceSide.Floor, _ => FaceSide.Wall };

    /// <summary>A way in words, as faces are called by it.</summary>
    public static string Words(Facing facing) => facing switch
    {
        Facing.Up => "roof",
        Facing.Down => "floor",
        Facing.KerbSide => "kerb side",
        Facing.FarSide => "far side",
        Facing.Rear => "rear",
        _ => "front",
    };

    /// <summary>Id of the face that is called <paramref name="where"/> and has <paramref name="towards"/> behind it (null: outdoors).</summary>
    public static string FaceId(string where, string? towards)
    {
        string id = where.Replace(' ', '-') + (towards is null ? "" : $"-{towards}");
        return id.Length > 60 ? id[..60].TrimEnd('-') : id;
    }

    private static double[] Planes(IReadOnlyList<Zone> zones, Func<Zone, (double Low, double High)> of)
    {
        var planes = new List<double>();
        foreach (double at in zones.SelectMany(z => new[] { of(z).Low, of(z).High }).Order())
            if (planes.Count == 0 || at - planes[^1] > Least)
                planes.Add(at);
        return [.. planes];
    }

    private static int Index(double[] planes, double at)
    {
        int i = Array.BinarySearch(planes, at);
        if (i >= 0) return i;
        i = ~i;
        return i > 0 && at - planes[i - 1] <= Least ? i - 1 : i;
    }
}
