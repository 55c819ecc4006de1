using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.Networks;

/// <summary>
/// A part of a straight length of a run within one zone (null: outdoors): the length after point <paramref name="Segment"/> of its course, from
/// <paramref name="From"/> to <paramref name="To"/> of it (0..1).
/// </summary>
internal readonly record struct CutLength(int Segment, double From, double To, Zone? Zone);

/// <summary>Every run cut where it passes from zone to zone.</summary>
internal sealed class CutRuns
{
    private const int Most = 60_000;
    private readonly CutLength[][] _lengths;
    private readonly double[] _cuts;
    private readonly Dictionary<Run, (Point3[] Course, CutLength[] Lengths)> _known = new(ReferenceEqualityComparer.Instance);

    /// <summary>
    /// Cuts all runs; those that lie as they did in <paramref name="earlier"/>, which must be of the same shell, are the same lengths. O(bends · zones). Throws
    /// <see cref="TooLargeException"/>
    /// beyond 60,000 lengths.
    /// </summary>
    public CutRuns(RigIndex index, CutRuns? earlier, CancellationToken cancel)
    {
        var rig = index.Rig;
        _lengths = new CutLength[rig.Runs.Count][];
        _cuts = new double[2 + 6 * rig.Shell.Zones.Count];
        var made = new List<CutLength>();
        int total = 0;
        for (int r = 0; r < _lengths.Length; r++)
        {
            cancel.ThrowIfCancellationRequested();
            var course = index.CourseOf(rig.Runs[r]);
            if (earlier?._known.TryGetValue(rig.Runs[r], out var known) == true && known.Course.AsSpan().SequenceEqual(course)) _lengths[r] = known.Lengths;
            else
            {
                made.Clear();
                for (int k = 0; k + 1 < course.Length; k++) Cut(index, k, course[k], course[k + 1], made);
                _lengths[r] = [.. made];
            }
            total += _lengths[r].Length;
            if (total > Most) throw new TooLargeException($"the runs pass from zone to zone so often that there are more than {Most} pieces");
            _known[rig.Runs[r]] = (course, _lengths[r]);
        }
    }

    /// <summary>Lengths of run number <paramref name="run"/>, along its course.</summary>
    public CutLength[] Of(int run) => _lengths[run];

    private void Cut(RigIndex index, int segment, Point3 a, Point3 b, List<CutLength> made)
    {
        int count = 0;
        _cuts[count++] = 0;
        _cuts[count++] = 1;
        foreach (var zone in index.Rig.Shell.Zones)
        {
            var (low, high) = (zone.Box.At, zone.Box.Far());
            Border(a.XM, b.XM, low.XM);
            Border(a.XM, b.XM, high.XM);
            Border(a.YM, b.YM, low.YM);
            Border(a.YM, b.YM, high.YM);
            Border(a.ZM, b.ZM, low.ZM);
            Border(a.ZM, b.ZM, high.ZM);
        }
        var cuts = _cuts.AsSpan(0, count);
        cuts.Sort();
        for (int c = 0; c + 1 < count; c++)
        {
            if (cuts[c + 1] <= cuts[c]) continue;
            var zone = index.ZoneAt(a.Towards(b, (cuts[c] + cuts[c + 1]) / 2));
            // A border that is crossed outside of its zone is none.
            if (made.Count > 0 && made[^1].Segment == segment && made[^1].Zone == zone) made[^1] = made[^1] with { To = cuts[c + 1] };
            else made.Add(new CutLength(segment, cuts[c], cuts[c + 1], zone));
        }

        void Border(double p, double q, double x)
        {
            if (p == q) return;
            double t = (x - p) / (q - p);
            if (t > 1e-6 && t < 1 - 1e-6) _cuts[count++] = t;
        }
    }
}
