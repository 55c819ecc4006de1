using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.Networks;

/// <summary>A line as it lies in one room: its course through the middle of the pipe, and how far its outermost surface is from that, m.</summary>
internal sealed record LineLaid(Zone? Zone, IReadOnlyList<Point3> Course, double RadiusM);

/// <summary>Lines that lie side by side exchange heat; view factor 0.25 (<see cref="FacesShare"/>), so that they give the room that much less.</summary>
internal static class ParallelPipes
{
    /// <summary>The share of a line's surface that looks at a neighbour. Estimate.</summary>
    public const double FacesShare = 0.25;

    // Nearer than a finger is thick there is no room air between. Less than a hand's breadth is a crossing.
    private const double NearM = 0.01, LeastM = 0.05;

    private readonly record struct Leg(int Line, Zone? Zone, Point3 A, Point3 B, double FromXM, double ToXM, double ReachM)
    {
        // Along y and z; along x the sweep has seen to it.
        public bool MayMeet(in Leg other) => ReferenceEquals(Zone, other.Zone) && Line != other.Line
            && Meet(A.YM, B.YM, other.A.YM, other.B.YM, ReachM + other.ReachM) && Meet(A.ZM, B.ZM, other.A.ZM, other.B.ZM, ReachM + other.ReachM);

        private static bool Meet(double a, double b, double c, double d, double reach) => Math.Min(a, b) - reach <= Math.Max(c, d)
            && Math.Min(c, d) - reach <= Math.Max(a, b);
    }

    /// <summary>Pairs of lines and for how long they lie side by side, m; each pair once, the lower number first. O(legs log legs + pairs that meet along
    /// x).</summary>
    public static IReadOnlyList<(int A, int B, double M)> Of(IReadOnlyList<LineLaid> lines)
    {
        var legs = new List<Leg>(lines.Sum(l => l.Course.Count));
        for (int n = 0; n < lines.Count; n++)
            for (int k = 0; k + 1 < lines[n].Course.Count; k++)
            {
                var (a, b) = (lines[n].Course[k], lines[n].Course[k + 1]);
                double reach = lines[n].RadiusM + (NearM / 2);
                if (a.DistanceM(b) >= LeastM) legs.Add(new Leg(n, lines[n].Zone, a, b, Math.Min(a.XM, b.XM) - reach, Math.Max(a.XM, b.XM) + reach, reach));
            }
        legs.Sort((p, q) => p.FromXM.CompareTo(q.FromXM));
        var found = new Dictionary<(int, int), double>();
        var open = new List<Leg>();
        foreach (var leg in legs)
        {
            open.RemoveAll(o => o.ToXM < leg.FromXM);
            foreach (var other in open)
            {
                if (!other.MayMeet(leg) || AlongM(other, leg, other.ReachM + leg.ReachM) is not (>= LeastM and var along)) continue;
                var key = (Math.Min(other.Line, leg.Line), Math.Max(other.Line, leg.Line));
                found[key] = found.GetValueOrDefault(key) + along;
            }
            open.Add(leg);
        }
        return [.. found.OrderBy(f => f.Key).Select(f => (f.Key.Item1, f.Key.Item2, f.Value))];
    }

    // How much of a leg has the other within reach at both ends of it, m.
    private static double AlongM(Leg of, Leg other, double reachM)
    {
        double length = of.A.DistanceM(of.B);
        double At(Point3 p) => p.ShareAlong(of.A, of.B) * length;
        var (s, t) = (At(other.A), At(other.B));
        if (Math.Abs(t - s) < LeastM) return 0;
        double from = Math.Clamp(Math.Min(s, t), 0, length), to = Math.Clamp(Math.Max(s, t), 0, length);
        bool Near(double at) => of.A.Towards(of.B, at / length).DistanceM(other.A.Towards(other.B, (at - s) / (t - s))) <= reachM;
        return to > from && Near(from) && Near(to) ? to - from : 0;
    }
}
