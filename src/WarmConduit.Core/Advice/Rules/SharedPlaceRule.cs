using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>Two runs that lie same place over some length.</summary>
internal sealed class SharedPlaceRule : IRule
{
    public IReadOnlyList<FindingKind> Kinds => [FindingKind.SharedPlace];

    private const double LeastM = 0.06;

    /// <summary>Lengths are sorted along the vehicle, and only those that overlap there are compared: O(n log n) where runs are spread out.</summary>
    public IEnumerable<Idea> Fixes(Finding finding, Ideas ideas) => finding.RunIds.SelectMany(ideas.Routes.Aside);

    public IEnumerable<Finding> Find(Question question)
    {
        var lengths = new List<Length>();
        foreach (var run in question.Rig.Runs)
        {
            var course = question.Index.CourseOf(run);
            double radius = Catalogue.Pipe(run.Pipe)!.OuterDiameterM / 2;
            for (int i = 1; i < course.Length; i++) lengths.Add(new Length(run, i, course[i - 1], course[i], radius));
        }
        lengths.Sort((a, b) => a.Low.CompareTo(b.Low));
        var told = new HashSet<(string, string)>();
        var open = new List<Length>();
        foreach (var length in lengths)
        {
            question.Cancel.ThrowIfCancellationRequested();
            // One pass lets go of what has ended and looks at the rest.
            int kept = 0;
            for (int o = 0; o < open.Count; o++)
            {
                var other = open[o];
                if (other.High < length.Low) continue;
                open[kept++] = other;
                if (ReferenceEquals(other.Run, length.Run) || length.Apart(other) || Shared(length, other) is not { } at) continue;
                var (a, b) = string.CompareOrdinal(length.Run.Id, other.Run.Id) < 0 ? (length, other) : (other, length);
                if (!told.Add((a.Run.Id, b.Run.Id))) continue;
                yield return new Finding(
                    $"shared:{a.Run.Id}:{b.Run.Id}", FindingKind.SharedPlace, Severity.Warning, a.Run.Name, "same place", null,
                    $"It runs where {b.Run.Name} runs. Move one of them aside or above.",
                    Place.OnRun(question.Index, a.Run, a.Index, at), [a.Run.Id, b.Run.Id], null);
            }
            open.RemoveRange(kept, open.Count - kept);
            open.Add(length);
        }
    }

    private static Point3? Shared(Length a, Length b)
    {
        double room = 0.6 * (a.Radius + b.Radius);
        // Where a stands within the other for a hand's breadth.
        double whole = a.From.DistanceM(a.To), inside = 0;
        Point3? at = null;
        int steps = Math.Clamp((int)(whole / 0.02), 1, 200);
        for (int i = 0; i <= steps; i++)
        {
            var p = a.From.Towards(a.To, (double)i / steps);
            if (Distance(p, b.From, b.To) >= room) continue;
            inside += whole / steps;
            at ??= p;
        }
        return inside >= LeastM ? at : null;
    }

    private static double Distance(Point3 p, Point3 a, Point3 b)
    {
        var d = b - a;
        double square = d.XM * d.XM + d.YM * d.YM + d.ZM * d.ZM;
        var r = p - a;
        double t = square < 1e-12 ? 0 : Math.Clamp((r.XM * d.XM + r.YM * d.YM + r.ZM * d.ZM) / square, 0, 1);
        return p.DistanceM(a.Towards(b, t));
    }

    private sealed class Length(Run run, int index, Point3 from, Point3 to, double radius)
    {
        public Run Run => run;

        public int Index => index;

        public Point3 From => from;

        public Point3 To => to;

        public double Radius => radius;

        public double Low { get; } = Math.Min(from.XM, to.XM) - radius;

        public double High { get; } = Math.Max(from.XM, to.XM) + radius;

        private readonly double _near = Math.Min(from.YM, to.YM) - radius, _away = Math.Max(from.YM, to.YM) + radius,
            _under = Math.Min(from.ZM, to.ZM) - radius, _over = Math.Max(from.ZM, to.ZM) + radius;

        public bool Apart(Length o) => _away < o._near || o._away < _near || _over < o._under || o._over < _under;
    }
}
