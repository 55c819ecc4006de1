using WarmConduit.Core.Flow;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Heat;
using WarmConduit.Core.Heat.Night;
using WarmConduit.Core.Levels;

namespace WarmConduit.Core.Tests.Engines;

/// <summary>One thing gone wrong in a sound question: the engine says where, or answers without a single NaN. Nothing else, and never for ever.</summary>
public class SpoiltQuestionTests
{
    private static readonly LevelNetwork Bores = new(
        [new("top", new(0, 0.2, 0.9)), new("low", new(0.5, 0.2, 0.3)), new("mid", new(1, 0.4, 0.1)), new("drain", new(2, 0.3, 0.05))],
        [
            new("vent", "top", "low", 0.01, Passes.Both, []), new("run", "low", "mid", 0.0123, Passes.Both, [new(0.7, 0.3, 0.2), new(0.8, 0.3, 0.05)]),
            new("check", "mid", "drain", 0.0123, Passes.Forward, []), new("bypass", "low", "drain", 0.0123, Passes.None, []),
        ],
        [new("tank", new Box(new(0, 0, 0.2), new(0.5, 0.4, 0.25)), 0.05, ["low", "top"])],
        ["drain"]);

    private sealed record LevelQuestion(LevelNetwork Network, Attitude Parked, double Fall, IReadOnlyList<string> Names, IReadOnlyList<double> Rolls);

    [Fact]
    public void Levels() => Check(
        new LevelQuestion(Bores, new(1, -2), 0.01, ["drain"], [-3, 0, 3]),
        q => Draining.Solve(q.Network, q.Parked) is var a ? (a.LevelM, a.SegmentM3, q.Network.Vessels.Select((_, v) => a.VesselM3(v)), a.Pools()) : default,
        q => ParkingEnvelope.Ask(new LevelGraph(q.Network), q.Rolls, q.Rolls, [0]),
        q => AirBasins.Find(new LevelGraph(q.Network), q.Names, q.Parked),
        q => DrainYields.Ask(q.Network, q.Parked, q.Names),
        q => DrainSet.Find(q.Network, q.Names, q.Fall, q.Parked),
        q => AirLocks.Solve(q.Network, q.Parked).SegmentM3);

    private sealed record FallsQuestion(FallQuestion Falls, ClippedPipe Pipe, LevelEdge Edge, Point3 From, Point3 To, double SpacingM);

    [Fact]
    public void Falls_and_clips() => Check(
        new FallsQuestion(
            new FallQuestion([new("a", 0.3, 0.5), new("b", 0, 1), new("c", 0.1, 0.1)], [new("a", "b", 1, 0.9, 0.2), new("b", "c", 2, 1, 1)], 1, 2, 0.02),
            new ClippedPipe(0.0123, 0.0159, 940, 1000, 600e6), Bores.Edges[1], new(0.5, 0.2, 0.3), new(1, 0.4, 0.1), 0.5),
        q => AutoFall.Solve(q.Falls),
        q => new LevelGraph(Bores with { Edges = [q.Pipe.Sagged(q.Edge, q.From, q.To, q.SpacingM)] }).Network);

    private sealed record SweepQuestion(IReadOnlyList<SweepEdge> Edges, string Port, string Outlet);

    [Fact]
    public void Sweeps() => Check(
        new SweepQuestion([new("1", "p", "a", Passes.Both), new("2", "a", "b", Passes.Forward), new("3", "a", "b", Passes.Both),
        new("4", "b", "o", Passes.None), new("5", "b", "o", Passes.Both)], "p", "o"),
        q => Swept.Find(q.Edges, q.Port, q.Outlet));

    private sealed record FlowQuestion(
        FlowNetwork Network, IReadOnlyList<HeatElement> Heat, FluidState Fluid, IReadOnlyList<(string Node, double C)> Reservoirs, double RestC,
        IReadOnlyList<string> Valves, IReadOnlyList<double> Shares);

    [Fact]
    public void Flows() => Check(
        new FlowQuestion(
            new FlowNetwork(
                1000, 1e-3, [new("tank", 1), new("a"), new("b"), new("c"), new("d")],
                [
                    new FlowPump("pump", "tank", "a", 10, 1e8), new FlowPipe("warm", "a", "b", 3, 0.012, 1e-5, 2), new FlowValve("v1", "b", "c", 0.012, 1),
                    new FlowValve("v2", "b", "d", 0.012, 1, 0.5),
                    new FlowValve("check", "d", "c", 0.012, 1, 1, OneWay: true), new FlowPipe("back", "c", "tank", 3, 0.012, 1e-5, 2),
                    new FlowPipe("rest", "d", "tank", 5, 0.012, 1e-5, 2),
                ],
                [new("c", 0.5, 1e-6)]),
            [new HeatSource("warm", 2000, 70), new Emitter("back", 800, 50, 18), new Losing("rest", 5, -10)], new(1000, 1e-3, 4200), [("tank", 12)], 5,
            ["v1", "v2"], [1, 2]),
        q => FlowSolver.Solve(q.Network),
        q => HeatCarried.Solve(q.Network, q.Heat, _ => q.Fluid, q.Reservoirs.DistinctBy(r => r.Node).ToDictionary(r => r.Node, r => r.C), q.RestC),
        q => Balancing.Solve(q.Network, q.Valves, q.Shares));

    private sealed record NightQuestion(NightNetwork Network, NightOptions Options);

    [Fact]
    public void Nights() => Check(
        new NightQuestion(
            new NightNetwork(
                [new("living", 2e5, 40, 15, [new(18, 1, 2000, 0, 5000, 800)], 2), new("garage", 5e4, 20, 5, [])], [new("living", "garage", 9)],
                [
                    new("run", 0.1, 20, 8, IceGrowth.Cylinder, 1, [new("garage", 0.3), new("loop", 0.05)], []),
                    new("valve", 0.02, 30, 8, IceGrowth.Lumped, 0, [new("garage", 0.1), new("outdoor", 0.05), new("run", 0.02)], [new(3, 1, 5, 0, 9000)]),
                ],
                new TimeSeries([0, 5000], [-5, -12]), 9000)
            {
                Sources = [new("loop", new TimeSeries([0], [40]))],
                Openings = [new("living", "garage", 0.05, 0.2)],
                Events = [new(3000, "living", "garage", 2), new(4000, "garage", null, 1.5)],
                WindMPerS = new TimeSeries([0, 900], [2, 4]),
            },
            new NightOptions(ReportS: [0, 4000, 9000])),
        q => NightEngine.Run(q.Network, q.Options));

    private sealed record SteadyQuestion(IReadOnlyList<SteadyZone> Zones, IReadOnlyList<SteadyLink> Links, double OutdoorC);

    [Fact]
    public void Steady_balances() => Check(new SteadyQuestion([new(40, 4000, 18), new(26, 0, 0)], [new(0, 1, 9)], -9), q =>
        SteadyZones.Solve(q.Zones, q.Links, q.OutdoorC));

    private static void Check<T>(T sound, params Func<T, object?>[] asks)
    {
        var wrong = new List<string>();
        var met = new HashSet<string>();
        foreach (var ask in asks)
        {
            Assert.False(Spoil.HasNaN(ask(sound)));
            foreach (var (where, spoilt) in Spoil.EveryWay(sound))
            {
                try
                {
                    if (Spoil.HasNaN(ask(spoilt))) wrong.Add($"{where}: NaN");
                }
                catch (Exception e) when (e is LevelNetworkException or HeatNetworkException or FlowNetworkException)
                {
                    met.Add(where);
                }
                catch (Exception e)
                {
                    wrong.Add($"{where}: {e}");
                }
            }
        }
        // What no question refuses must at least make sense.
        wrong.AddRange(Spoil.EveryWay(sound).Select(w => w.Where).Where(w => !met.Contains(w)
            && (w.EndsWith("NaN", StringComparison.Ordinal) || w.EndsWith("unheard of", StringComparison.Ordinal)))
            .Select(w => $"{w}: let pass"));
        Assert.True(wrong.Count == 0, string.Join("\n", wrong));
    }
}
