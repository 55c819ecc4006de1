using WarmConduit.Core.Geometry;
using WarmConduit.Core.Levels;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Networks;

namespace WarmConduit.Core.Studies.Tanks;

/// <summary>Two tanks that pipes join, and the highest point that water between them has to pass on the lowest of all ways.</summary>
/// <param name="A">One tank, the first by id.</param>
/// <param name="B">The other.</param>
/// <param name="Crest">That point.</param>
/// <param name="CrestM">Its height over ground as parked, m.</param>
/// <param name="PortsM">Height of the higher of the two ports, m: a line between them that has no hump goes no higher.</param>
/// <param name="Run">The run that it lies on; null: it is a port of a part.</param>
/// <param name="Point">Number of the point along that run.</param>
/// <param name="BelowAL">What stands below it in the one tank when that is full, L.</param>
/// <param name="BelowBL">In the other.</param>
internal sealed record JoinedTanks(Part A, Part B, Point3 Crest, double CrestM, double PortsM, Run? Run, int Point, double BelowAL, double BelowBL)
{
    // Less than this passes as a bend of the hose, and as the neck of a port.
    private const double HumpM = 0.005, NeckM = 0.05;

    /// <summary>They level only above a hump.</summary>
    public bool OverHump => CrestM > PortsM + HumpM;

    /// <summary>They level only above a port that lies well above the floors of both.</summary>
    public bool OverPort(Attitude parked) => !OverHump && CrestM > Math.Max(FloorM(A, parked), FloorM(B, parked)) + NeckM;

    private static double FloorM(Part tank, Attitude parked) => VesselSlice.SurfaceM(tank.Box, 0, parked);
}

/// <summary>Which tanks stand at one level, in use, and above which height.</summary>
internal sealed class Levelling(IReadOnlyList<JoinedTanks> pairs)
{
    /// <summary>Each pair of tanks of one service that pipes, joints and open valves join, without a pump or a check valve between.</summary>
    public IReadOnlyList<JoinedTanks> Pairs => pairs;

    /// <summary>Asks every tank. Pure. O(tanks · runs · log runs).</summary>
    public static Levelling Of(Question question)
    {
        var tanks = question.Rig.Parts.Where(TankStudy.IsTank).ToList();
        return new Levelling([.. tanks.SelectMany(t => From(question, t))]);
    }

    private readonly record struct Highest(Point3 At, double HeightM, Run? Run, int Point);

    // The way whose highest point is lowest, to each other tank: ports in the order of the highest point on the way to them.
    private static List<JoinedTanks> From(Question question, Part tank)
    {
        var (joined, parked, scenario) = (question.Ask(Joined.Of), question.Conditions.Parked, question.Rig.ScenarioOf(ScenarioKind.InUse));
        var reached = new Dictionary<(string Part, string Port), Highest>();
        var queue = new PriorityQueue<((string Part, string Port) At, Highest Crest, double FromM, Service Service), double>();
        double Height(Part part, string port) => parked.HeightM(part.PortAt(port)!.Value);
        foreach (var port in tank.Ports)
            foreach (var service in (Service[])[Service.Cold, Service.Waste])
                if (joined.Of(tank.Id).Any(j => j.Port == port.Id && j.Run.Service == service))
                    queue.Enqueue(((tank.Id, port.Id), new Highest(tank.PortAt(port.Id)!.Value, Height(tank, port.Id), null, 0), Height(tank, port.Id),
                    service), Height(tank, port.Id));
        var pairs = new Dictionary<string, JoinedTanks>();
        while (queue.TryDequeue(out var now, out _))
        {
            if (!reached.TryAdd(now.At, now.Crest)) continue;
            foreach (var (port, other, otherPort, run) in joined.Of(now.At.Part))
            {
                if (port != now.At.Port || run.Service != now.Service || reached.ContainsKey((other, otherPort))) continue;
                var course = question.Index.CourseOf(run);
                int top = Enumerable.Range(0, course.Length).MaxBy(i => parked.HeightM(course[i]));
                double high = parked.HeightM(course[top]);
                var crest = high > now.Crest.HeightM ? new Highest(course[top], high, run, top) : now.Crest;
                var part = question.Index.Part(other);
                if (TankStudy.IsTank(part))
                {
                    // Of several lines to it the lowest counts, whichever is met first.
                    if (string.CompareOrdinal(tank.Id, other) < 0 && !(pairs.GetValueOrDefault(other)?.CrestM <= crest.HeightM))
                        pairs[other] = Pair(tank, part, crest, Math.Max(now.FromM, Height(part, otherPort)));
                    continue;
                }
                Go((other, otherPort), crest);
                foreach (var (from, to, passes) in Inside.Ways(part, scenario.PositionOf(part)))
                {
                    if (passes != Passes.Both) continue;
                    if (from == otherPort) Go((other, to), crest);
                    else if (to == otherPort) Go((other, from), crest);
                }
            }

            void Go((string Part, string Port) at, Highest crest) => queue.Enqueue((at, crest, now.FromM, now.Service), crest.HeightM);
        }
        return [.. pairs.Values];

        JoinedTanks Pair(Part a, Part b, Highest crest, double portsM) =>
            new(a, b, crest.At, crest.HeightM, portsM, crest.Run, crest.Point, Below(a, crest.HeightM), Below(b, crest.HeightM));
        double Below(Part part, double levelM) => PartWater.HoldsL(part) * VesselSlice.FilledFraction(part.Box, levelM, parked);
    }
}
