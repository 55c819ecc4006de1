using System.Runtime.CompilerServices;

namespace WarmConduit.Core.Rigs;

/// <summary>How much air each zone has: its box less what belongs to smaller zones inside it (see <see cref="ZonesBySize"/>).</summary>
internal static class ZoneVolumes
{
    private static readonly ConditionalWeakTable<IReadOnlyList<Zone>, double[]> Known = [];

    /// <summary>m³, in the order of <paramref name="zones"/>; worked out once for a list. O(zones² + cells of what overlaps).</summary>
    public static IReadOnlyList<double> Of(IReadOnlyList<Zone> zones) => Known.GetValue(zones, Made);

    private static double[] Made(IReadOnlyList<Zone> zones)
    {
        // As a place finds its zone: by size, of two alike the first.
        int[] order = [.. Enumerable.Range(0, zones.Count).OrderBy(z => zones[z].Box.VolumeM3())];
        var volumes = new double[zones.Count];
        for (int n = 0; n < order.Length; n++)
        {
            var box = zones[order[n]].Box;
            var inside = order[..n].Select(z => zones[z].Box.Within(box)).OfType<Geometry.Box>().ToList();
            volumes[order[n]] = Math.Max(0, box.VolumeM3() - Union(inside));
        }
        return volumes;
    }

    private static double Union(List<Geometry.Box> boxes)
    {
        if (boxes.Count == 0) return 0;
        if (boxes.Count == 1) return boxes[0].VolumeM3();
        double[] xs = Planes(boxes.Select(b => (b.At.XM, b.Far().XM))), ys = Planes(boxes.Select(b => (b.At.YM, b.Far().YM))),
            zs = Planes(boxes.Select(b => (b.At.ZM, b.Far().ZM)));
        double sum = 0;
        for (int i = 0; i + 1 < xs.Length; i++)
            for (int j = 0; j + 1 < ys.Length; j++)
                for (int k = 0; k + 1 < zs.Length; k++)
                {
                    var middle = new Geometry.Point3((xs[i] + xs[i + 1]) / 2, (ys[j] + ys[j + 1]) / 2, (zs[k] + zs[k + 1]) / 2);
                    if (boxes.Any(b => b.Holds(middle))) sum += (xs[i + 1] - xs[i]) * (ys[j + 1] - ys[j]) * (zs[k + 1] - zs[k]);
                }
        return sum;
    }

    private static double[] Planes(IEnumerable<(double Low, double High)> boxes) => [.. boxes.SelectMany(b => (double[])[b.Low, b.High]).Distinct().Order()];
}
