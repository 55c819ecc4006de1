using CsCheck;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Heat.Night;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Weather;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>Ice that is shut in, against a plain search from each piece of pipe outwards, time by time.</summary>
public class ShutIceTests
{
    private static readonly Conditions Frost = new(-10, 2, false, 10, WaterState.Wet, 22, 8, Attitude.Level);
    private static readonly Conditions Long = Frost with { Hours = 72, OutdoorC = -15 };

    // What stands at a place: its stock and its ports.
    private static readonly (string Stock, string[] Ports)[] Kinds =
        [("tank", ["outlet", "vent"]), ("tank", ["a", "b"]), ("tee", ["a", "b", "c"]), ("tee", ["a", "b", "c"]), ("ball-valve", ["a", "b"]),
            ("check-valve", ["in", "out"]), ("filter", ["in", "out"]), ("accumulator", ["port"])];

    private static readonly string[] Pipes = ["pex-1/2", "pex-1/2", "copper-15", "epdm-5/8"];

    private sealed record Drawn(Rig Rig, Conditions Night, int Seed);

    private static readonly Gen<Drawn> Any =
        from kinds in Gen.Int[0, Kinds.Length - 1].Array[2, 9]
        from xs in Gen.Double[0, 9].Array[kinds.Length]
        from seed in Gen.Int[0, 1_000_000]
        select Build(kinds, xs, seed);

    [Fact]
    public void Whatever_is_joined_how_ice_is_shut_in_as_a_plain_search_says()
    {
        int shutIn = 0;
        Any.Sample(
            drawn =>
            {
                var random = new Random(drawn.Seed);
                // In any order, as what comes back with a fill stands last.
                var candidates = FreezeLadderStudy.Candidates(new Question(drawn.Rig, drawn.Night)).OrderBy(_ => random.Next()).ToList();
                var marks = candidates.Select(_ => Marks(random)).ToArray();
                double[] breaks = ShutIce.Breaks(new Question(drawn.Rig, drawn.Night), candidates, n => marks[n]);
                for (int n = 0; n < candidates.Count; n++)
                {
                    double expected = candidates[n].BreaksByIce ? marks[n].FirstIceS : double.PositiveInfinity;
                    if (double.IsInfinity(expected) && candidates[n].BreaksShut && double.IsFinite(marks[n].FirstIceS))
                    {
                        double closes = Closes(drawn, candidates, marks, n);
                        if (double.IsFinite(closes) && closes < marks[n].SolidS) expected = Math.Max(closes, marks[n].FirstIceS);
                        if (double.IsFinite(expected)) Interlocked.Increment(ref shutIn);
                    }
                    Assert.Equal(expected, breaks[n]);
                }
            },
            iter: 2000);
        Assert.True(shutIn > 1000, $"only {shutIn} were shut in");
    }

    [Fact]
    public void A_plastic_line_that_freezes_shut_between_two_blocks_breaks_and_one_with_a_way_out_does_not()
    {
        // A half-full tank that stays warm, three metres through a cold room, two through one that cools slowly, and a tap that is shut.
        Rig Line(bool accumulator, string pipe = "pex-1/2")
        {
            var builder = new RigBuilder().Tank("tank", new Box(new(-2.6, 0.8, 0.4), new(0.6, 0.4, 0.4)), ("outlet", -2, 1, 0.5), ("vent", -2.3, 1, 0.8))
                .Part("tap", "mixer", ("cold", 5.5, 1, 0.5), ("spout", 5.5, 1, 0.7));
            builder = accumulator
                ? builder.Part("tee", "tee", ("a", 5, 1, 0.5), ("b", 5.1, 1, 0.5), ("c", 5, 1, 0.6)).Part("acc", "accumulator", ("port", 5, 1, 0.8))
                    .Run("line", Service.Cold, pipe, "tank.outlet", "tee.a").Run("leg", Service.Cold, pipe, "tee.c", "acc.port")
                        .Run("end", Service.Cold, pipe, "tee.b", "tap.cold")
                : builder.Run("line", Service.Cold, pipe, "tank.outlet", "tap.cold");
            var rig = builder.Build();
            return rig with { Shell = Cells(rig) };
        }
        Rung[] Rungs(Rig rig) => [.. new Question(rig, Long with { InsideC = 10 }).Ask(FreezeLadderStudy.Ask).Rungs.Where(r => r.RunId == "line")];
        var (cold, slow) = (Rungs(Line(false)).Single(r => r.ZoneId == "cold"), Rungs(Line(false)).Single(r => r.ZoneId == "slow"));
        // Between the tank and the cold piece nothing is blocked: it pushes into the tank. The slow piece is shut in by then.
        Assert.False(cold.ShutIn || cold.Breaks);
        Assert.True(slow is { ShutIn: true, Breaks: true } && cold.BlockedS < slow.FirstIceS);
        Assert.Equal(slow.FirstIceS!.Value, slow.BreaksS!.Value, 1.0);
        // With an accumulator behind it that has not frozen yet it has room; a hose stretches.
        Assert.DoesNotContain(Rungs(Line(true)), r => r.ShutIn && r.BreaksS < r.FirstIceS + 1 && r.ZoneId == "cold");
        Assert.DoesNotContain(Rungs(Line(false, "epdm-5/8")), r => r.Breaks);
        // A winter breaks what a night breaks.
        bool InWinter(string pipe) => SeasonStudy.Ask(new Question(Line(false, pipe), Frost with { InsideC = 10 }),
            new(WeatherPlace.OsmerPlain, 1)).Leaders.Any(l => l.Name == "line, slow" && l.Breaks);
        Assert.True(InWinter("pex-1/2"));
        Assert.False(InWinter("epdm-5/8"));
        // Copper breaks at any ice.
        Assert.All(Rungs(Line(false, "copper-15")), r => Assert.Equal(r.FirstIceS, r.BreaksS));
    }

    [Fact]
    public void What_comes_back_with_a_fill_lies_in_its_line_where_it_lay()
    {
        // A dip in the room that cools slowly, where the water stays when the rest is drained for an hour.
        var rig = new RigBuilder().Tank("tank", new Box(new(-2.6, 0.8, 0.4), new(0.6, 0.4, 0.4)), ("outlet", -2, 1, 0.5), ("vent", -2.3, 1, 0.8))
            .Part("tap", "mixer", ("cold", 5.5, 1, 0.5), ("spout", 5.5, 1, 0.4))
            .Run("line", "tank.outlet", "tap.cold", new(3.5, 1, 0.5), new(4.5, 1, 0.2), new(5, 1, 0.5)).Build();
        rig = rig with { Shell = Cells(rig) };
        Rung Slow(params PlanEvent[] events) => new Question(rig, Long with { Events = events })
            .Ask(FreezeLadderStudy.Ask).Rungs.First(r => r.RunId == "line" && r.ZoneId == "slow");
        Assert.True(Slow().ShutIn);
        Assert.True(Slow(new PlanEvent("drained", PlanEventKind.Drained, 0, 1)).ShutIn);
    }

    // A room in which a tank stays warm, one that cools at once, and one that cools slowly.
    private static Shell Cells(Rig rig)
    {
        Zone Cell(string id, double x, double holdsJPerK) => new(id, id, id == "cold" ? ZoneKind.Garage : ZoneKind.Living, new Box(new(x, 0, 0), new(3, 2, 2)),
            1, [new("wall", "wall", FaceSide.Wall, 12, [new("xps", 0.02)], 0, [])], [], HeatCapacityJPerK: holdsJPerK);
        return rig.Shell with { Zones = [Cell("cold", 0, 20_000), Cell("slow", 3, 3e6), Cell("tanks", -3, 5e7)] };
    }

    private static BodyMilestones Marks(Random random)
    {
        double Later(double than) => random.Next(5) == 0 ? double.PositiveInfinity : than + random.Next(1, 40);
        double first = Later(0), blocked = Later(first), solid = Later(blocked);
        return new BodyMilestones(first, blocked, solid, double.PositiveInfinity, 0, 0);
    }

    private static Drawn Build(int[] kinds, double[] xs, int seed)
    {
        var random = new Random(seed);
        var builder = new RigBuilder();
        var free = new List<string>();
        for (int i = 0; i < kinds.Length; i++)
        {
            var (stock, ports) = Kinds[kinds[i]];
            double z = 0.1 + (0.15 * i);
            (string, double, double, double)[] at = [.. ports.Select((p, k) => (p, xs[i], 1.0, z + (0.01 * k)))];
            builder = stock == "tank" ? builder.Tank($"p{i}", new Box(new(xs[i], 0.9, z - 0.01), new(0.2, 0.2, 0.1)), at) : builder.Part($"p{i}", stock, at);
            free.AddRange(ports.Where(p => p != "vent").Select(p => $"p{i}.{p}"));
        }
        for (int r = 0; free.Count > 1 && r < kinds.Length + 2; r++)
        {
            string Take() => free[random.Next(free.Count)] is var taken && free.Remove(taken) ? taken : "";
            var (a, b) = (Take(), Take());
            if (a.Split('.')[0] != b.Split('.')[0]) builder = builder.Run($"r{r}", Service.Cold, Pipes[random.Next(Pipes.Length)], a, b);
        }
        for (int c = 0; c < 3; c++) builder = builder.Zone($"cell{c}", ZoneKind.Living, new Box(new(3 * c, 0, 0), new(3, 2, 2)));
        var rig = builder.Build();
        // Some valves are shut in use, some tanks full to the top.
        Setting[] shut = [.. rig.Parts.Where(p => p.Stock == "ball-valve").Select(p => new Setting(p.Id, random.Next(3) == 0 ? "closed" : "open"))];
        rig = (rig with { Scenarios = [.. rig.Scenarios.Select(s => s.Kind == ScenarioKind.InUse ? s with { Settings = shut } : s)] }).InOrder();
        return new Drawn(rig, Frost with { TankLevels = [.. rig.Parts.Where(p => p.Stock == "tank").Select(p => new TankLevel(p.Id, random.Next(2)))] }, seed);
    }

    // The first time from which no way leads from a piece to air; 0: none ever did.
    private static double Closes(Drawn drawn, List<FreezeCandidate> candidates, BodyMilestones[] marks, int piece)
    {
        var rig = drawn.Rig;
        double ClosesAt(int n) => rig.Parts.Find(candidates[n].Thing)?.Stock == "tank" ? marks[n].SolidS : marks[n].BlockedS;
        foreach (double t in Enumerable.Range(0, candidates.Count).Select(ClosesAt).Append(0).Where(double.IsFinite).Order())
            if (!HasWay(t)) return t;
        return double.PositiveInfinity;

        bool HasWay(double t)
        {
            bool Open(Func<int, bool> of) => Enumerable.Range(0, candidates.Count).Where(of).All(n => ClosesAt(n) > t);
            var run = rig.Runs.First(r => r.Id == candidates[piece].Thing);
            var start = rig.Parts.Find(run.From.Part!)!.PortAt(run.From.Port!)!.Value;
            double Along(int n) => Math.Abs(((PipeCandidate)candidates[n]).Laid.Course[0].XM - start.XM);
            var (todo, seen) = (new Queue<RunEnd>(), new HashSet<(string, string)>());
            if (Open(n => candidates[n].Thing == run.Id && n != piece && Along(n) < Along(piece))) todo.Enqueue(run.From);
            if (Open(n => candidates[n].Thing == run.Id && n != piece && Along(n) > Along(piece))) todo.Enqueue(run.To);
            while (todo.TryDequeue(out var end))
            {
                var part = rig.Parts.Find(end.Part!)!;
                if (!seen.Add((part.Id, end.Port!)) || !Open(n => candidates[n].Thing == part.Id)) continue;
                bool holdsAir = part.Stock == "accumulator" || (part.Stock == "tank"
                    && (part.Ports.Any(p => p.Id == "vent") || drawn.Night.TankLevels!.Find(part.Id)!.Share < 1));
                if (holdsAir) return true;
                bool passes = part.Stock switch
                {
                    "ball-valve" => rig.ScenarioOf(ScenarioKind.InUse).PositionOf(part)!.Passes,
                    "check-valve" => end.Port == "in",
                    _ => true,
                };
                if (!passes) continue;
                foreach (var next in rig.Runs.Where(r => Open(n => candidates[n].Thing == r.Id)))
                {
                    if (next.From.Part == part.Id && next.From.Port != end.Port) todo.Enqueue(next.To);
                    if (next.To.Part == part.Id && next.To.Port != end.Port) todo.Enqueue(next.From);
                }
            }
            return false;
        }
    }
}
