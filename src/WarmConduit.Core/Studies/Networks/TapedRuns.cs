using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.Networks;

/// <summary>
/// Water runs along which heating fluid is taped, cut once more where it begins and ends to lie against them: water beside a trace is warm, and a hand's
/// breadth farther it is not. Asked of other runs, the lengths that were there.
/// </summary>
internal sealed class TapedRuns
{
    /// <summary>Shorter than this, taped or not is not told apart, m.</summary>
    public const double BitM = 0.05;

    // How far apart the surfaces of a trace and its line may lie, m. Estimate: tape and sag.
    private const double ApartM = 0.03;

    private readonly RigIndex _index;
    private readonly CutRuns _cuts;
    private readonly ILookup<string, Run> _tracesOf;
    private readonly Dictionary<int, (CutLength[] Lengths, TapedLength[] Taped)> _known = [];

    public TapedRuns(RigIndex index, CutRuns cuts)
    {
        (_index, _cuts) = (index, cuts);
        _tracesOf = index.Rig.Runs.Where(r => r.Traces is not null).SelectMany(r => r.Traces!.Select(t => (t.Id, Run: r))).ToLookup(t => t.Id, t => t.Run);
    }

    /// <summary>Lengths of run number <paramref name="run"/>, and what lies against each; null: against none.</summary>
    public (CutLength[] Lengths, TapedLength[]? Taped) Of(int run)
    {
        var water = _index.Rig.Runs[run];
        if (!_tracesOf.Contains(water.Id)) return (_cuts.Of(run), null);
        if (!_known.TryGetValue(run, out var made)) _known[run] = made = Cut(run, water);
        return made;
    }

    /// <summary>Where on <paramref name="water"/> a place of <paramref name="trace"/> lies against it, or the other way round; null: nowhere.</summary>
    public PlaceAlong? Against(Run water, Run trace, Point3 at)
    {
        var (course, reach) = (_index.CourseOf(water), ReachM(water, trace));
        double m = 0, nearest = double.PositiveInfinity;
        PlaceAlong? along = null;
        for (int k = 0; k + 1 < course.Length; k++)
        {
            double share = Math.Clamp(at.ShareAlong(course[k], course[k + 1]), 0, 1), away = at.DistanceM(course[k].Towards(course[k + 1], share)),
                length = course[k].DistanceM(course[k + 1]);
            if (away <= reach && away < nearest) (nearest, along) = (away, new PlaceAlong(m + (share * length), k, course[k].Towards(course[k + 1], share)));
            m += length;
        }
        return along;
    }

    private static double ReachM(Run a, Run b) => ApartM + ((OuterM(a) + OuterM(b)) / 2);

    /// <summary>The bundle of <paramref name="water"/> at a place of it that its sleeve goes around, as the line itself or <paramref name="trace"/> sees it;
    /// null: there it goes around the line alone.</summary>
    public Bundle? BundleAt(Run water, Point3 at, Run? trace = null)
    {
        var wrapped = _tracesOf[water.Id].Where(t => t.Traces!.Find(water.Id)!.Wrapped == true && (t == trace || Against(t, water, at) is not null)).ToList();
        if (wrapped.Count == 0 || (trace is not null && !wrapped.Contains(trace))) return null;
        var own = trace ?? water;
        return Bundle.Of(OuterM(own), [.. wrapped.Append(water).Where(r => r != own).Select(OuterM)]);
    }

    private static double OuterM(Run run) => Catalogue.Pipe(run.Pipe)!.OuterDiameterM;

    private (CutLength[] Lengths, TapedLength[] Taped) Cut(int run, Run water)
    {
        var course = _index.CourseOf(water);
        var traces = _tracesOf[water.Id].ToList();
        bool Touches(Point3 at) => traces.Any(t => Against(t, water, at) is not null);
        var (lengths, taped) = (new List<CutLength>(), new List<TapedLength>());
        foreach (var cut in _cuts.Of(run))
        {
            Point3 a = course[cut.Segment], b = course[cut.Segment + 1];
            int bits = Math.Max(1, (int)Math.Ceiling((cut.To - cut.From) * a.DistanceM(b) / BitM)), first = lengths.Count;
            for (int i = 0; i < bits; i++)
            {
                double from = cut.From + ((cut.To - cut.From) * i / bits), to = cut.From + ((cut.To - cut.From) * (i + 1) / bits);
                // Both ends: what is half beside it is not.
                var here = Touches(a.Towards(b, from)) && Touches(a.Towards(b, to))
                    ? new TapedLength(true, BundleAt(water, a.Towards(b, (from + to) / 2))) : default;
                if (lengths.Count > first && taped[^1] == here) lengths[^1] = lengths[^1] with { To = to };
                else
                {
                    lengths.Add(cut with { From = from, To = to });
                    taped.Add(here);
                }
            }
        }
        return ([.. lengths], [.. taped]);
    }
}

/// <summary>A place along a run.</summary>
/// <param name="M">How far from its start, m.</param>
/// <param name="Segment">Number of the point of its course before it.</param>
/// <param name="At">Where that is.</param>
internal readonly record struct PlaceAlong(double M, int Segment, Point3 At);

/// <summary>Whether a trace lies against a length, and the bundle that its sleeve goes around; null: it alone.</summary>
internal readonly record struct TapedLength(bool Taped, Bundle? Bundle);
