using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Scenarios;
using WarmConduit.Core.Studies.WaterFlow;
using WarmConduit.Core.Tests.Rigs;

namespace WarmConduit.Core.Tests.Studies;

public class WaterFlowTests
{
    private const double Density = 997.18, Viscosity = 1.23e-3, Gravity = 9.80665;

    private static WaterFlowAnswer Ask(Rig rig, params string[] open) => Ask(rig, new WaterFlowInput(Open: open));

    private static WaterFlowAnswer Ask(Rig rig, WaterFlowInput input)
    {
        Assert.Empty(input.Check(rig));
        var answer = WaterFlowStudy.Ask(new Question(rig, Conditions.Of(rig.Brief)), input);
        Assert.True(answer.Settled);
        Assert.InRange(answer.ImbalanceShare, 0, 1e-6);
        return answer;
    }

    private static OutletFlow Of(WaterFlowAnswer answer, string tap) => answer.Outlets.Single(o => o.PartId == tap);

    /// <summary>A tank of 100 mm, its water at 0.1 m; a pump at its foot; a tee; two taps at 1 m.</summary>
    private static RigBuilder Pumped(double farM = 4) => new RigBuilder()
        .Tank("tank", new Box(new(0, 0, 0), new(0.5, 0.5, 0.1)), ("outlet", 0.5, 0, 0))
        .Part("pump", "pump", ("in", 1, 0, 0), ("out", 1.2, 0, 0))
        .Part("tee", "tee", ("a", 2, 0, 0), ("b", 2.1, 0, 0), ("c", 2, 0.1, 0))
        .Part("near", "cold-tap", ("cold", 2, 1, 1), ("spout", 2, 1, 1))
        .Part("far", "cold-tap", ("cold", farM, 0, 1), ("spout", farM, 0, 1))
        .Run("suction", "tank.outlet", "pump.in").Run("main", "pump.out", "tee.a")
        .Run("to-near", "tee.c", "near.cold").Run("to-far", "tee.b", "far.cold");

    // Blasius in smooth pipe, and velocity heads on its bore; m of water at q L/min.
    private static double PipeM(double lPerMin, double lengthM, double loss, double boreM = 0.0123)
    {
        double speed = lPerMin / 60e3 / (Math.PI / 4 * boreM * boreM), reynolds = Density * speed * boreM / Viscosity;
        return (0.3164 / Math.Pow(reynolds, 0.25) * lengthM / boreM + loss) * speed * speed / 2 / Gravity;
    }

    /// <summary>By hand: the pump's 2.2 bar (1 - (q/7)²) lifts to 1 m from 0.1 m, through 0.5 m, 0.8 m and 1.35 m of pipe, out of the tank (0.5), through the
    /// tee's branch (0.3 + 1.5), past the tap's inlet, and leaves by 6 L/min at 1 bar. Bisection.</summary>
    [Fact]
    public void One_pump_and_one_tap_by_hand()
    {
        double OverM(double q) => (2.2e5 * (1 - q / 7 * (q / 7)) - 1e5 * q / 6 * (q / 6)) / (Density * Gravity) - 0.9
            - PipeM(q, 0.5, 0.5) - PipeM(q, 0.8, 0.3) - PipeM(q, Math.Sqrt(0.01 + 0.81 + 1), 1.6);
        double low = 1, high = 7;
        for (int i = 0; i < 60; i++)
            if (OverM((low + high) / 2) > 0) low = (low + high) / 2;
            else high = (low + high) / 2;
        var near = Of(Ask(Pumped().Build(), "near"), "near");
        Assert.Equal(low, near.LPerMin, 0.02 * low);
        Assert.Equal(Math.Pow(near.LPerMin / 6, 2), near.Bar, 2);
        Assert.Equal(["suction", "main", "to-near"], near.Way);
        Assert.Null(near.AloneLPerMin);
        // At the pump's inlet: 0.1 m of water over it, less what the suction line takes; drawn down to a tenth, 0.09 m less.
        double SuctionM(double share) => Ask(Pumped().Build(), new WaterFlowInput(Open: ["near"], FreshShare: share)).Pumps.Single().SuctionM;
        Assert.Equal(PipeM(low, 0.5, 0.5) - 0.1, SuctionM(1), 0.002);
        Assert.Equal(SuctionM(1) + 0.09, SuctionM(0.1), 0.003);
        // Narrower lines give less; these are 1/2 in as drawn.
        Assert.Equal(near.LPerMin, near.HalfInchLPerMin!.Value, 6);
        Assert.True(near.ThreeEighthsLPerMin < near.LPerMin - 0.05);
        // The climb of 0.9 m is the most that it takes, as its figure says.
        Assert.Equal((CostKind.Height, 0.088), (near.Costs[0].Kind, Math.Round(near.Costs[0].Bar, 3)));
    }

    [Fact]
    public void A_second_tap_takes_from_the_first_as_the_first_does_alone()
    {
        var rig = Pumped().Build();
        var (one, both) = (Ask(rig, "near"), Ask(rig, "near", "far"));
        Assert.True(Of(both, "near").LPerMin < Of(one, "near").LPerMin - 0.3);
        Assert.Equal(Of(one, "near").LPerMin, Of(both, "near").AloneLPerMin!.Value, 3);
        Assert.Equal(both.Runs.Single(r => r.RunId == "main").LPerMin, both.Outlets.Sum(o => o.LPerMin), 5);
        Assert.Equal(WaterReach.AtRest, one.Runs.Single(r => r.RunId == "to-far").Reach);
        Assert.Equal(["far"], one.ShutAt);
    }

    /// <summary>From a hose of one pressure: on home runs a tap takes nothing from another, on a trunk the common pipe's loss goes with both.</summary>
    [Fact]
    public void Home_runs_leave_each_other_alone_and_a_trunk_does_not()
    {
        Rig Lines(bool home)
        {
            var rig = new RigBuilder().Part("town", "town-coupling", ("in", 0, 0, 0), ("out", 0.1, 0, 0))
                .Part("manifold", "manifold-3", ("in", home ? 0.1 : 8, 0, 0), ("out-1", home ? 0.2 : 8.1, 0, 0), ("out-2", home ? 0.2 : 8.1, 0.1, 0))
                .Part("near", "cold-tap", ("cold", 9, 0.5, 0), ("spout", 9, 0.5, 0)).Part("far", "cold-tap", ("cold", 9, 0.6, 0), ("spout", 9, 0.6, 0))
                .Run("line", Service.Cold, "pex-1/2", "town.out", "manifold.in");
            return rig.Run("a", Service.Cold, "pex-1/2", "manifold.out-1", "near.cold").Run("b", Service.Cold, "pex-1/2", "manifold.out-2", "far.cold").Build();
        }
        double Taken(Rig rig) => Of(Ask(rig, new WaterFlowInput(TaskKind.Town, Open: ["near"])), "near").LPerMin
            - Of(Ask(rig, new WaterFlowInput(TaskKind.Town, Open: ["near", "far"])), "near").LPerMin;
        Assert.InRange(Taken(Lines(home: true)), 0, 0.05);
        Assert.InRange(Taken(Lines(home: false)), 0.2, 2);
    }

    /// <summary>Three loops: what flows round each is in balance, and the way with less loss takes more.</summary>
    [Fact]
    public void Three_loops_share_the_flow_by_their_losses()
    {
        var rig = new RigBuilder().Part("town", "town-coupling", ("in", 0, 0, 0), ("out", 0.1, 0, 0))
            .Part("m", "manifold-5", ("in", 0.2, 0, 0), ("out-1", 0.3, 0, 0), ("out-2", 0.3, 0.1, 0), ("out-3", 0.3, 0.2, 0), ("out-4", 0.3, 0.3, 0))
            .Part("n", "manifold-5", ("in", 4.2, 0, 0), ("out-1", 4, 0, 0), ("out-2", 4, 0.1, 0), ("out-3", 4, 0.2, 0), ("out-4", 4, 0.3, 0))
            .Part("tap", "cold-tap", ("cold", 5, 0, 0), ("spout", 5, 0, 0)).Run("in", "town.out", "m.in").Run("out", "n.in", "tap.cold")
            .Run("one", "m.out-1", "n.out-1").Run("two", "m.out-2", "n.out-2").Run("three", Service.Cold, "pex-3/8", "m.out-3", "n.out-3")
            .Run("four", Service.Cold, "pex-3/8", "m.out-4", "n.out-4").Build();
        var answer = Ask(rig, new WaterFlowInput(TaskKind.Town, Open: ["tap"]));
        double Run(string id) => answer.Runs.Single(r => r.RunId == id).LPerMin;
        Assert.Equal(Of(answer, "tap").LPerMin, Run("one") + Run("two") + Run("three") + Run("four"), 5);
        Assert.Equal(Run("one"), Run("two"), 3);
        // By hand: branches of 3.7 m, both tees 1.5, lose alike.
        Assert.Equal(PipeM(Run("one"), 3.7, 3), PipeM(Run("three"), 3.7, 3, 0.009), 0.03 * PipeM(Run("one"), 3.7, 3));
    }

    /// <summary>By hand: 1 L/min at 1 bar draws 1.30 L/min at the mean of 1.4 and 2.0 bar, less than the pump gives at 2.0 bar (2.11); it gives 3.34 L/min
    /// at the mean. 0.13696 L of the accumulator and 0.02 L of the lines: 60 / (0.157/1.30 + 0.157/2.03) = 303 starts an hour.</summary>
    [Fact]
    public void A_pump_that_gives_more_than_is_drawn_starts_as_often_as_by_hand()
    {
        var rig = Pumped().Part("acc", "accumulator", ("port", 1.4, 0.3, 0)).Part("tee-acc", "tee", ("a", 1.3, 0, 0), ("b", 1.4, 0, 0), ("c", 1.4, 0.1, 0))
            .Run("leg", "tee-acc.c", "acc.port").Build();
        rig = rig with
        {
            Runs = [.. rig.Runs.Select(r => r.Id == "main" ? r with { To = new RunEnd("tee-acc", "a") } : r), rig.Runs.Single(r => r.Id == "main") with
            {
                Id = "on", From = new RunEnd("tee-acc", "b")
            }],
            Parts = [.. rig.Parts.Select(p => p.Id == "near" ? p with { Flow = new PartFlow(OutletLPerMin: 1) } : p)],
        };
        var answer = Ask(rig.InOrder(), "near");
        var pump = Assert.Single(answer.Pumps);
        Assert.True(pump.Pulses);
        Assert.Equal(1.7, pump.Bar, 1);
        Assert.Equal(0.157, pump.StoresL, 3);
        double drawn = Math.Sqrt(1.7 - 1.02 * Density * Gravity / 1e5), gives = 7 * Math.Sqrt(1 - 1.7 / 2.2);
        Assert.Equal(drawn, pump.LPerMin, 0.03 * drawn);
        Assert.Equal(60 / (pump.StoresL / pump.LPerMin + pump.StoresL / (gives - pump.LPerMin)), pump.StartsPerHour!.Value, 0.5);
        // On its curve at what is drawn it presses 2.2 bar (1 - (q/7)²): a switch set a little above that does not stop it.
        var runsOn = answer.Remarks.Single(r => r.Id == "pulses:pump").Words.Values[^1].Value!.Value / 1e5;
        Assert.Equal((2.2 * (1 - Math.Pow(pump.LPerMin / 7, 2))) + 0.05, runsOn, 6);
        double calm = Assert.Single(Ask(rig with
        {
            Parts = [.. rig.Parts.Select(p => p.Id == "pump" ? p with { Flow = new PartFlow(CutOutBar: runsOn) } : p)],
        }, "near").Pumps).StartsPerHour ?? 0;
        Assert.Equal(0, calm);
        // Air as high as cut-out stores nothing but what the lines give.
        var stiff = rig with { Parts = [.. rig.Parts.Select(p => p.Id == "pump" ? p with { Flow = new PartFlow(CutInBar: 1.99, CutOutBar: 2) } : p)] };
        Assert.InRange(Assert.Single(Ask(stiff.InOrder(), "near").Pumps).StoresL, 0.02, 0.025);
    }

    [Fact]
    public void Hot_and_cold_are_mixed_to_the_wish_and_too_little_flow_lights_no_heater()
    {
        RigBuilder Mixed(string heater) => Pumped().Part("split", "tee", ("a", 1.4, 0, 0), ("b", 1.5, 0, 0), ("c", 1.4, 0.1, 0))
            .Part("heater", heater, (heater == "gas-heater" ? "in" : "cold", 1.4, 0.5, 0.1), (heater == "gas-heater" ? "out" : "hot", 1.6, 0.5, 0.3))
            .Part("mixer", "mixer", ("cold", 3, 1, 1), ("hot", 3, 1.05, 1), ("spout", 3, 1, 1.2))
            .Run("to-heater", "split.c", heater == "gas-heater" ? "heater.in" : "heater.cold")
            .Run("hot", Service.Hot, "pex-1/2", heater == "gas-heater" ? "heater.out" : "heater.hot", "mixer.hot");
        Rig Joined(RigBuilder b)
        {
            var rig = b.Build();
            var main = rig.Runs.Single(r => r.Id == "main");
            return (rig with
            {
                Runs = [.. rig.Runs.Where(r => r.Id is not ("main" or "to-far")), main with { To = new RunEnd("split", "a") },
                    main with { Id = "on", From = new RunEnd("split", "b") }, rig.Runs.Single(r => r.Id == "to-far") with { To = new RunEnd("mixer", "cold") }],
            }).InOrder();
        }
        var stored = Of(Ask(Joined(Mixed("storage-heater")), "mixer"), "mixer");
        // 26 of 48 K.
        Assert.Equal(26.0 / 48, stored.HotShare!.Value, 2);
        Assert.Equal(38, stored.C!.Value, 0.3);
        Assert.Equal(60, Of(Ask(Joined(Mixed("storage-heater")), new WaterFlowInput(Open: ["mixer"], WishC: 60)), "mixer").C!.Value, 0.1);
        var gas = Joined(Mixed("gas-heater"));
        Assert.Equal(38, Of(Ask(gas, "mixer"), "mixer").C!.Value, 0.3);
        var trickle = gas with { Parts = [.. gas.Parts.Select(p => p.Id == "mixer" ? p with { Flow = new PartFlow(OutletLPerMin: 1.5) } : p)] };
        var cold = Ask(trickle, "mixer");
        Assert.Contains(cold.Remarks, r => r.Id == "unlit:heater");
        Assert.Equal(12, Of(cold, "mixer").C!.Value, 0.1);
    }

    [Fact]
    public void Town_water_comes_at_its_pressure_whatever_the_tank_and_the_attitude()
    {
        var rig = Pumped().Part("town", "town-inlet", ("in", 1.5, 0.4, 0), ("out", 1.6, 0.4, 0)).Part("join", "tee", ("a", 1.6, 0, 0), ("b", 1.7, 0, 0),
            ("c", 1.6, 0.1, 0)).Run("town-line", "town.out", "join.c").Build();
        var main = rig.Runs.Single(r => r.Id == "main");
        rig = (rig with
        {
            Runs = [.. rig.Runs.Where(r => r.Id != "main"), main with { To = new RunEnd("join", "a") }, main with { Id = "on", From = new("join", "b") }],
        }).InOrder();
        double At(Rig of, WaterFlowInput input) => Of(Ask(of, input with { Open = ["near"] }), "near").LPerMin;
        var town = new WaterFlowInput(TaskKind.Town);
        // 2.8 bar behind the regulator, less 1 m; the tank does not matter.
        double at = At(rig, town);
        Assert.True(at > At(rig, new WaterFlowInput()));
        Assert.Equal(at, At(rig, town with { FreshShare = 0 }), 3);
        double weaker = At(rig with { Brief = rig.Brief with { Town = new TownWater(1.5) } }, town);
        Assert.InRange(weaker, 0.6 * at, 0.8 * at);
        var tilted = WaterFlowStudy.Ask(new Question(rig, Conditions.Of(rig.Brief) with { Parked = new Attitude(3, 0) }), town with { Open = ["near"] });
        Assert.True(Of(tilted, "near").LPerMin < at);
    }

    /// <summary>A regulator of the rig's own holds its pressure however much stands before it, and takes only its loss where less does.</summary>
    [Fact]
    public void A_regulator_holds_its_pressure()
    {
        Rig Held(double townBar) => new RigBuilder
        {
            Brief = new RigBuilder().Brief with { Town = new TownWater(townBar) },
        }.Part("town", "town-coupling", ("in", 0, 0, 0), ("out", 0.1, 0, 0)).Part("reg", "pressure-regulator", ("in", 0.5, 0, 0), ("out", 0.6, 0, 0))
            .Part("tap", "cold-tap", ("cold", 0.7, 0, 0), ("spout", 0.7, 0, 0)).Run("a", "town.out", "reg.in").Run("b", "reg.out", "tap.cold").Build();
        double Bar(double townBar) => Of(Ask(Held(townBar), new WaterFlowInput(TaskKind.Town, Open: ["tap"])), "tap").Bar;
        Assert.InRange(Bar(6), 2.7, 2.82);
        Assert.Equal(Bar(6), Bar(4), 0.03);
        Assert.InRange(Bar(1.5), 1.2, 1.5);
    }

    [Fact]
    public void An_empty_tank_draws_air_and_a_shut_valve_is_where_water_stands()
    {
        var rig = Pumped().Build();
        var empty = Ask(rig, new WaterFlowInput(Open: ["near"], FreshShare: 0));
        Assert.Equal(0, Of(empty, "near").LPerMin);
        Assert.Contains(empty.Remarks, r => r.Id == "air:tank" && r.Fault);
        var off = Ask(rig, new WaterFlowInput(Open: ["near"], Positions: [new Setting("pump", "off")]));
        Assert.Contains(off.Remarks, r => r.Id == "nothing");
        Assert.Contains("pump", off.ShutAt);
        Assert.All(off.Runs.Where(r => r.RunId != "suction"), r => Assert.Equal(WaterReach.Apart, r.Reach));
    }

    /// <summary>With the pump running and positions fixed, another outlet never raises the flow at one.</summary>
    [Fact]
    public void One_more_outlet_never_raises_the_flow_at_another()
    {
        var random = new Random(7);
        for (int n = 0; n < 120; n++)
        {
            var (rig, taps) = RandomRigs.Tree(random, random.Next(2, 7));
            // A pump without a switch runs on.
            rig = rig with { Parts = [.. rig.Parts.Select(p => p.Id == "pump" ? p with { Flow = new PartFlow(CutInBar: 15, CutOutBar: 16) } : p)] };
            var open = taps.Where(_ => random.Next(2) == 0).DefaultIfEmpty(taps[0]).ToList();
            var before = Ask(rig, [.. open]);
            foreach (string more in taps.Except(open))
            {
                var after = Ask(rig, [.. open, more]);
                Assert.All(open, tap => Assert.True(Of(after, tap).LPerMin <= Of(before, tap).LPerMin + 1e-6, $"{n}: {tap} with {more}"));
            }
        }
    }

    /// <summary>Two regulators in line: the lower one rules, whichever comes first, and what is drawn settles.</summary>
    [Fact]
    public void Two_regulators_in_line_hold_the_lower_pressure()
    {
        var random = new Random(5);
        for (int n = 0; n < 60; n++)
        {
            double first = 1.5 + 2 * random.NextDouble(), second = 1.5 + 2 * random.NextDouble();
            var builder = new RigBuilder { Brief = new RigBuilder().Brief with { Town = new TownWater(1 + 5 * random.NextDouble()) } }
                .Part("town", "town-inlet", ("in", 0, 0, 0), ("out", 0.1, 0, 0)).Part("one", "pressure-regulator", ("in", 0.3, 0, 0), ("out", 0.4, 0, 0))
                .Part("two", "pressure-regulator", ("in", 0.6, 0, 0), ("out", 0.7, 0, 0)).Run("a", "town.out", "one.in").Run("b", "one.out", "two.in");
            var (rig, taps) = RandomRigs.Tree(random, random.Next(2, 5), builder, "two.out");
            rig = rig with
            {
                Parts = [.. rig.Parts.Select(p => p.Id is "one" or "two" ? p with { Flow = new PartFlow(HoldsBar: p.Id == "one" ? first : second) } : p)],
            };
            var open = taps.Where(_ => random.Next(2) == 0).DefaultIfEmpty(taps[0]).ToList();
            var answer = Ask(rig, new WaterFlowInput(TaskKind.Town, Open: open));
            double most = Math.Min(Math.Min(first, second), rig.Brief.TownOrUsual().AtInletBar());
            // Up to 1 m below the regulators.
            Assert.All(open, tap => Assert.InRange(Of(answer, tap).Bar, 0, most + 0.12));
            Assert.Contains(open, tap => Of(answer, tap).LPerMin > 0.3);
        }
    }

    /// <summary>What else is told of a flow: each where it is so, and not in the same rig without its cause.</summary>
    [Fact]
    public void What_is_wrong_with_a_supply_is_told_and_only_then()
    {
        var plain = Pumped().Build();
        static Rig With(Rig rig, string id, PartFlow flow) => rig with { Parts = [.. rig.Parts.Select(p => p.Id == id ? p with { Flow = flow } : p)] };
        string[] Told(Rig rig, params string[] open) => [.. Ask(rig, open).Remarks.Select(r => r.Id)];
        // Its suction lift: from a tank 2.5 m below.
        RigBuilder Deep() => new RigBuilder().Tank("tank", new Box(new(0, 0, -2.5), new(0.5, 0.5, 0.1)), ("outlet", 0.5, 0, -2.5))
            .Part("pump", "pump", ("in", 1, 0, 0), ("out", 1.2, 0, 0)).Part("near", "cold-tap", ("cold", 2, 0, 0), ("spout", 2, 0, 0))
            .Run("suction", "tank.outlet", "pump.in").Run("main", "pump.out", "near.cold");
        Assert.Contains("lift:pump", Told(With(Deep().Build(), "pump", new PartFlow(ShutoffBar: 4)), "near"));
        // A switch that it never gets to.
        Assert.Contains("never-stops:pump", Told(With(plain, "pump", new PartFlow(ShutoffBar: 1.5, CutInBar: 1, CutOutBar: 2)), "near"));
        // Two pumps with switches on the same lines.
        var two = Pumped().Part("pump-2", "pump", ("in", 1, 0.5, 0), ("out", 1.2, 0.5, 0)).Part("tank-tee", "tee", ("a", 0.8, 0, 0), ("b", 0.9, 0, 0),
            ("c", 0.8, 0.1, 0)).Part("main-tee", "tee", ("a", 1.5, 0, 0), ("b", 1.6, 0, 0), ("c", 1.5, 0.1, 0)).Run("suction", "tank.outlet", "tank-tee.a")
            .Run("s1", "tank-tee.b", "pump.in").Run("s2", "tank-tee.c", "pump-2.in").Run("main", "pump.out", "main-tee.a").Run("m2", "pump-2.out", "main-tee.c")
            .Run("m3", "main-tee.b", "tee.a").Build();
        Assert.Contains("pumps", Told(two, "near"));
        // A heater behind a check valve with nothing that takes its swelling; an appliance on its hot side.
        RigBuilder Hot() => Pumped().Part("check", "check-valve", ("in", 2.3, 0, 0), ("out", 2.4, 0, 0)).Part("heater", "storage-heater", ("cold", 2.6, 0, 0),
            ("hot", 2.6, 0.1, 0.2)).Part("machine", "washing-machine", ("cold", 3, 0.5, 0.5), ("spout", 3, 0.6, 0.5)).Run("to-far", "tee.b",
                "check.in").Run("feed",
                "check.out", "heater.cold")
            .Run("hot", Service.Hot, "pex-1/2", "heater.hot", "machine.cold");
        Assert.Contains("swells:heater", Told(Hot().Build()));
        Assert.Contains("fed-hot:machine", Told(Hot().Build(), "machine"));
        var vessel = Hot().Part("vessel-tee", "tee", ("a", 2.5, 0, 0), ("b", 2.55, 0, 0), ("c", 2.5, 0.1, 0)).Part("vessel", "expansion-vessel",
            ("port", 2.5, 0.3, 0)).Run("feed", "check.out", "vessel-tee.a").Run("feed-2", "vessel-tee.b", "heater.cold").Run("leg", "vessel-tee.c",
                "vessel.port");
        Assert.DoesNotContain("swells:heater", Told(vessel.Build()));
        Assert.Empty(Told(plain, "near").Except(["pulses:pump"]));
    }

    /// <summary>A mixing valve that gets too little hot water gives what there is, cold enough, and comes to rest.</summary>
    [Theory]
    [InlineData(0.02)]
    [InlineData(1.0)]
    [InlineData(20.0)]
    public void A_mixing_valve_that_starves_comes_to_rest(double lossBar)
    {
        var rig = Pumped().Part("heater", "storage-heater", ("cold", 2.2, 0.4, 0), ("hot", 2.2, 0.5, 0.2)).Part("mix", "mixing-valve",
            ("cold", 3, 0, 0), ("hot", 3.1, 0, 0), ("mixed", 3.05, 0, 0.1)).Part("fork", "tee", ("a", 2.3, 0, 0), ("b", 2.4, 0, 0), ("c", 2.3, 0.1, 0))
            .Part("tight", "strainer", ("in", 2.5, 0.5, 0.2), ("out", 2.6, 0.5, 0.2)).Run("to-far", "tee.b", "fork.a").Run("mix-cold", "fork.b", "mix.cold")
            .Run("feed", "fork.c", "heater.cold").Run("hot", Service.Hot, "pex-1/2", "heater.hot", "tight.in")
            .Run("hot-2", Service.Hot, "pex-1/2", "tight.out", "mix.hot").Run("mixed", "mix.mixed", "far.cold").Build();
        rig = rig with { Parts = [.. rig.Parts.Select(p => p.Id == "tight" ? p with { Flow = new PartFlow(LossBar: lossBar) } : p)] };
        var far = Of(Ask(rig, "far"), "far");
        Assert.InRange(far.LPerMin, 1, 7);
        Assert.InRange(far.C!.Value, 12, 45.3);
        if (lossBar < 0.1) Assert.InRange(far.C.Value, 44.5, 45.3);
    }

    [Fact]
    public void The_demo_rigs_give_water_at_every_tap()
    {
        foreach (string name in (string[])["sparrow", "tern", "lantern"])
        {
            var rig = DemoRigs.Of(name);
            string[] taps = [.. rig.Parts.Where(p => Catalogue.Part(p.Stock)!.Passage == Passage.Mixer).Select(p => p.Id)];
            foreach (string tap in taps)
            {
                var outlet = Of(Ask(rig, tap), tap);
                Assert.InRange(outlet.LPerMin, 0.5, 9);
                Assert.NotEmpty(outlet.Way);
            }
            Assert.All(Ask(rig, taps).Outlets, o => Assert.InRange(o.LPerMin, 0.01, 9));
        }
    }
}
