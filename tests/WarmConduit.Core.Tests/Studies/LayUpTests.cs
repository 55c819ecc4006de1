using WarmConduit.Core.Advice.LayUp;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Levels;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.LayUp;
using WarmConduit.Core.Studies.Left;
using WarmConduit.Core.Tests.Reference;
using WarmConduit.Core.Tests.Rigs;

namespace WarmConduit.Core.Tests.Studies;

public class LayUpTests
{
    [Fact]
    [Trait("Category", "Reference")]
    public void Air_that_lifts_water() => Cases.Each("air_lift", (c, expected, check) =>
    {
        double bore = c.Num("innerDiameter_m"), free = c.Num("freeAir_L_min"), bar = c.Num("linePressure_bar_gauge");
        double number = AirLift.Number(bore, free, bar, c.Num("airTemperature_C"), c.Num("waterDensity_kg_m3"));
        check.Near("speed", expected.Num("airSpeed_m_s"), AirLift.SpeedMPerS(bore, free, bar), 0.005);
        check.Near("number", expected.Num("number"), number, 0.005);
        check.Same("carries", expected.Text("carries"), AirLift.Carries(number).ToString().ToLowerInvariant());
        // What it needs for a number is what has that number.
        check.Near("needs", free, AirLift.NeedsLPerMin(bore, bar, c.Num("airTemperature_C"), c.Num("waterDensity_kg_m3"), number), 1e-9);
    });

    [Fact]
    [Trait("Category", "Reference")]
    public void What_air_sweeps_in_a_rig_that_is_the_case() => Cases.Each("swept", (c, expected, check) =>
    {
        // A manifold for each node, a non-return valve where water passes one way, and two caps where nothing does.
        var edges = c.Rows("edges").ToList();
        string[] nodes = [.. edges.SelectMany(e => new[] { e.Text("from"), e.Text("to") }).Append(c.Text("port")).Append(c.Text("outlet")).Distinct().Order()];
        var ports = nodes.ToDictionary(n => n, _ => new List<string>());
        string Next(string node)
        {
            ports[node].Add($"p{ports[node].Count}");
            return $"{node}.{ports[node][^1]}";
        }
        var builder = new RigBuilder();
        builder.Part("air", "air-port", ("in", 0, 0, 0)).Part("tap", "cold-tap", ("cold", 9, 0, 0), ("spout", 9, 0, 0.1)).Run("port", "air.in",
            Next(c.Text("port")))
            .Run("tail", Next(c.Text("outlet")), "tap.cold");
        foreach (var e in edges)
        {
            string id = e.Text("id");
            switch (e.Text("passes"))
            {
                case "both":
                    builder.Run($"{id}-a", Next(e.Text("from")), Next(e.Text("to")));
                    break;
                case "forward":
                    builder.Part(id, "check-valve", ("in", 4, 1, 0), ("out", 4, 1, 0.1)).Run($"{id}-a", Next(e.Text("from")), $"{id}.in")
                        .Run($"{id}-b", $"{id}.out", Next(e.Text("to")));
                    break;
                default:
                    builder.Part($"{id}-x", "end-cap", ("in", 4, 2, 0)).Part($"{id}-y", "end-cap", ("in", 4, 3, 0)).Run($"{id}-a", Next(e.Text("from")),
                        $"{id}-x.in")
                        .Run($"{id}-b", $"{id}-y.in", Next(e.Text("to")));
                    break;
            }
        }
        foreach (string node in nodes) builder.Part(node, "manifold-5", [.. ports[node].Select((p, n) => (p, 1 + (0.1 * n), 0.0, 0.0))]);
        var step = BlowOutStudy.Ask(Of(builder.Build()), new BlowOutInput()).Steps.Single();
        check.Same("swept", string.Join(' ', expected.Rows("swept").Select(e => e.GetString()).Order()),
            string.Join(' ', step.RunIds.Except(["port", "tail"]).Select(r => r[..^2]).Distinct().Order()));
    });

    [Fact]
    public void A_bypass_that_lies_shut_keeps_its_water_and_is_told_as_a_dead_leg()
    {
        var rig = new RigBuilder().Tank("tank", new Box(new(0, 0, 0), new(0.5, 0.5, 0.3)), ("outlet", 0.5, 0, 0)).Part("pump", "pump", ("in", 0.8, 0, 0),
                ("out", 1, 0, 0)).Part("check", "check-valve", ("in", 1.1, 0, 0), ("out", 1.15, 0, 0))
            .Part("tee-air", "tee", ("a", 1.2, 0, 0), ("b", 1.25, 0, 0), ("c", 1.2, 0.1, 0)).Part("air", "air-port", ("in", 1.2, 0.2, 0))
            .Part("tee-in", "tee", ("a", 2, 0, 0), ("b", 2.1, 0, 0), ("c", 2, 0.1, 0)).Part("tee-out", "tee", ("a", 3, 0, 0), ("b", 3.1, 0, 0), ("c", 3, 0.1,
                0))
            .Part("valve-in", "ball-valve", ("a", 2.2, 0, 0), ("b", 2.3, 0, 0)).Part("valve-out", "ball-valve", ("a", 2.8, 0, 0), ("b", 2.9, 0, 0))
            .Part("bypass", "ball-valve", ("a", 2.4, 0.1, 0), ("b", 2.6, 0.1, 0)).Part("heater", "storage-heater", ("cold", 2.4, 0, 0.1), ("hot", 2.6, 0, 0.3))
            .Part("tap", "cold-tap", ("cold", 4, 0, 0.8), ("spout", 4, 0, 0.9)).Run("suction", "tank.outlet", "pump.in").Run("r1", "pump.out", "check.in")
            .Run("r2", "check.out", "tee-air.a").Run("port", "tee-air.c", "air.in").Run("trunk", "tee-air.b", "tee-in.a").Run("leg-1", "tee-in.b", "valve-in.a")
            .Run("leg-2", "valve-in.b", "heater.cold").Run("leg-3", "heater.hot", "valve-out.a").Run("leg-4", "valve-out.b", "tee-out.a")
            .Run("by-1", "tee-in.c", "bypass.a").Run("by-2", "bypass.b", "tee-out.c").Run("tail", "tee-out.b", "tap.cold").Build();
        var air = BlowOutStudy.Ask(Of(rig), new BlowOutInput(AirSource.WorkshopCompressor, Drained: false));
        var step = air.Steps.Single();
        RunAir Run(string id) => air.Runs.Single(r => r.RunId == id);
        // The air goes through the heater, which was drained; what lies shut beside it keeps its water, and is told as a dead leg.
        string[] legs = ["leg-1", "leg-2", "leg-3", "leg-4"], beside = ["by-1", "by-2"];
        Assert.Equal([.. legs, "tail", "trunk"], step.RunIds.Except(["port"]).Order());
        Assert.All(beside, by => Assert.Equal((AirCarries.None, Run(by).FullL, Run(by).FullL), (Run(by).Carries, Run(by).BeforeL, Run(by).AfterL[^1])));
        Assert.Equal(beside.Concat(["r1", "r2", "suction"]).Sum(r => Run(r).FullL), air.DeadL, 9);
        Assert.All(legs, leg => Assert.True(Run(leg).AfterL[^1] < 0.02 * Run(leg).FullL));
        // The heater's ten litres are on the way of its air.
        Assert.InRange(step.PathL, 10, 12);
    }

    /// <summary>A port, a trunk that rises by 0.5 m to a tee, a narrow riser to one tap, a wide one to the other, and a stub.</summary>
    private static RigBuilder Risers() => new RigBuilder().Tank("tank", new Box(new(0, 0, 0), new(0.5, 0.5, 0.3)), ("outlet", 0.5, 0, 0))
        .Part("pump", "pump", ("in", 0.8, 0, 0), ("out", 1, 0, 0)).Part("check", "check-valve", ("in", 1.1, 0, 0), ("out", 1.15, 0, 0))
        .Part("tee-air", "tee", ("a", 1.2, 0, 0), ("b", 1.25, 0, 0), ("c", 1.2, 0.1, 0)).Part("air", "air-port", ("in", 1.2, 0.2, 0))
        .Part("tee", "tee", ("a", 2, 0, 0.5), ("b", 2.1, 0, 0.5), ("c", 2, 0.1, 0.5)).Part("tee-stub", "tee", ("a", 2.5, 0, 0.5), ("b", 2.6, 0, 0.5),
            ("c", 2.5, 0.1, 0.5)).Part("cap", "end-cap", ("in", 2.5, 1.1, 0.5))
        .Part("narrow", "cold-tap", ("cold", 3, 0, 1.5), ("spout", 3, 0, 1.6)).Part("wide", "cold-tap", ("cold", 2, 1.1, 1.5), ("spout", 2, 1.1, 1.6))
        .Run("suction", "tank.outlet", "pump.in").Run("r1", "pump.out", "check.in").Run("r2", "check.out", "tee-air.a").Run("port", "tee-air.c", "air.in")
        .Run("trunk", "tee-air.b", "tee.a").Run("to-stub", "tee.b", "tee-stub.a").Run("stub", "tee-stub.c", "cap.in")
        .Run("up-narrow", Service.Cold, "pex-3/8", "tee-stub.b", "narrow.cold").Run("up-wide", Service.Cold, "pex-3/4", "tee.c", "wide.cold");

    private static Question Of(Rig rig) => new(rig, Conditions.Of(rig.Brief) with { Parked = Attitude.Level });

    [Fact]
    public void Two_risers_of_different_bore_on_one_compressor_by_hand()
    {
        var answer = BlowOutStudy.Ask(Of(Risers().Build()), new BlowOutInput(AirSource.SmallCompressor, FreeLPerMin: 60, TankL: 0, Rounds: 1, Drained: false));
        Assert.True(answer.Can);
        var (narrow, wide) = (answer.Steps.Single(s => s.PartId == "narrow"), answer.Steps.Single(s => s.PartId == "wide"));
        // The school of 30 psi, less a tenth: 1.86 bar. Each tap's worst riser by its own bore.
        Assert.Equal(1.862, answer.LineBar, 3);
        double Number(double bore) => AirLift.Number(bore, 60, answer.LineBar, 5, Water.DensityKgPerM3(5));
        Assert.Equal((0.0123, 0.0173), (narrow.WidestM, wide.WidestM));
        Assert.Equal(Number(0.0123), narrow.Number, 6);
        Assert.Equal(Number(0.0173), wide.Number, 6);
        RunAir Run(string id) => answer.Runs.Single(r => r.RunId == id);
        // 60 L/min: bubbles in 3/4 in, plugs in the trunk of 1/2 in for the narrow tap, all in 3/8 in.
        Assert.Equal((AirCarries.Bubbles, AirCarries.Plugs, AirCarries.All), (Run("up-wide").Carries, Run("trunk").Carries, Run("up-narrow").Carries));
        Assert.Equal(Run("up-wide").BeforeL, Run("up-wide").AfterL[0]);
        Assert.Equal(0.08 * Run("trunk").FullL, Run("trunk").AfterL[0], 9);
        Assert.Equal(0.01 * Run("up-narrow").FullL, Run("up-narrow").AfterL[0], 9);
        // The stub and what lies behind the check valve are dead legs, and keep all.
        Assert.Equal(["r1", "r2", "stub", "suction"], answer.Runs.Where(r => r.Carries == AirCarries.None).Select(r => r.RunId));
        Assert.Equal(answer.Runs.Where(r => r.Carries == AirCarries.None).Sum(r => r.FullL), answer.DeadL, 9);
        // Plug and film, at the pressure of the line; with little air that takes longer than the ten seconds that it takes to look.
        Assert.Equal(10, narrow.ShortestS);
        var slow = BlowOutStudy.Ask(Of(Risers().Build()), new BlowOutInput(FreeLPerMin: 4, TankL: 0)).Steps.Single(s => s.PartId == "narrow");
        Assert.Equal(2 * 60 * narrow.PathL * (answer.LineBar + 1.01325) / 1.01325 / 4, slow.ShortestS, 6);
        // Its lines and its three tees.
        Assert.Equal(answer.Runs.Where(r => narrow.RunIds.Contains(r.RunId)).Sum(r => r.FullL) + (3 * 0.005), narrow.PathL, 6);
    }

    [Fact]
    public void A_tank_helps_where_it_lasts_and_a_weak_part_limits_the_pressure()
    {
        var rig = Risers().Build();
        BlowOutAnswer With(double tankL) => BlowOutStudy.Ask(Of(rig), new BlowOutInput(FreeLPerMin: 25, TankL: tankL, TankBar: 8));
        var (none, some) = (With(0), With(24));
        Assert.All(none.Steps, s => Assert.Null(s.LastsS));
        Assert.All(some.Steps, s => Assert.True(s.Carries == AirCarries.All && s.LastsS >= s.ShortestS && s.RecoversS > 0));
        Assert.True(some.AfterL[^1] < none.AfterL[^1]);
        // A tank that runs down before the outlet is blown out is no help.
        Assert.All(With(0.1).Steps, s => Assert.Equal(25, s.FreeLPerMin));
        // A foot pump on the line is rated 3 bar, above the school; a line of fill hose on it, 1 bar, rules. One on the tank's fill does not.
        Assert.Equal(30 * 0.0689476, none.LimitBar, 3);
        var soft = Risers().Run("stub", Service.Cold, "fill-hose-40", "tee-stub.c", "cap.in").Build();
        var limited = BlowOutStudy.Ask(Of(soft), new BlowOutInput());
        Assert.Equal((Catalogue.Pipe("fill-hose-40")!.RatedBar, "the rating of stub"), (limited.LimitBar, limited.LimitBy.Text));
        var empty = new RigBuilder().Build();
        Assert.Empty(BlowOutStudy.Ask(Of(empty), new BlowOutInput()).Steps);
    }

    [Fact]
    public void Sweeping_more_outlets_never_leaves_more_and_what_comes_is_what_was_less_what_is_left()
    {
        var random = new Random(3);
        for (int n = 0; n < 60; n++)
        {
            var builder = new RigBuilder().Part("tee-air", "tee", ("a", 1, 0, 0), ("b", 1.1, 0, 0), ("c", 1, 0.1, 0)).Part("air", "air-port", ("in", 0.8, 0, 0))
                .Run("port", "air.in", "tee-air.a");
            var (rig, taps) = RandomRigs.Tree(random, random.Next(2, 7), builder, "tee-air.b");
            var question = Of(rig);
            var source = (AirSource)random.Next(4);
            string[] skip = [.. taps.Where(_ => random.Next(2) == 0).Select(t => $"{t}.cold")];
            bool drained = random.Next(2) == 0;
            BlowOutAnswer Blow(string[] closed) => BlowOutStudy.Ask(question, new BlowOutInput(source, Skip: closed, Drained: drained, Rounds: 3));
            var (all, some) = (Blow([]), Blow(skip));
            for (int round = 0; round < 3; round++) Assert.True(all.AfterL[round] <= some.AfterL[round] + 1e-12);
            Assert.True(all.AfterL[0] <= all.BeforeL + 1e-12 && all.AfterL[2] <= all.AfterL[1] + 1e-12 && all.AfterL[1] <= all.AfterL[0] + 1e-12);
            // Every run of a tree is on the way to some tap, but for what hangs on nothing.
            var byHand = all.Steps.SelectMany(s => s.RunIds).ToHashSet();
            Assert.Equal(all.Runs.Where(r => r.Carries != AirCarries.None).Select(r => r.RunId).ToHashSet(), byHand);
            if (drained) Assert.All(all.Runs, r => Assert.Equal(question.Ask(DrainDownStudy.Ask).Runs.Single(d => d.RunId == r.RunId).StaysL, r.BeforeL, 9));
        }
    }

    [Fact]
    public void Antifreeze_by_hand()
    {
        var rig = Risers().Part("tail", "hose-tail", ("a", 0.6, 0.5, 0), ("b", 0.6, 0.6, 0)).Part("tee-tail", "tee", ("a", 0.65, 0, 0), ("b", 0.7, 0, 0),
                ("c", 0.65, 0.1, 0)).Part("valve-tank", "ball-valve", ("a", 0.55, 0, 0), ("b", 0.6, 0, 0)).Part("valve-tail", "ball-valve", ("a", 0.6, 0.2, 0),
                ("b", 0.6, 0.3, 0)).Run("suction", "tank.outlet", "valve-tank.a").Run("s2", "valve-tank.b", "tee-tail.a").Run("s3", "tee-tail.b", "pump.in")
            .Run("s4", "tee-tail.c", "valve-tail.a").Run("s5", "valve-tail.b", "tail.a").Part("trap", "trap", ("in", 4, 0, 0), ("out", 4.1, 0, 0)).Build();
        var question = Of(rig);
        var answer = AntifreezeStudy.Ask(question, new AntifreezeInput(0.5, Drained: false));
        Assert.True(answer.Can);
        double Bore(params string[] runs) => runs.Sum(id => BlowOutStudy.FullL(question, question.Index.Run(id)));
        double Parts(params string[] parts) => parts.Sum(id => PartWater.HoldsL(question.Index.Part(id)));
        string[] common = ["s5", "s4", "s3", "r1", "r2", "trunk"], on = ["tail", "valve-tail", "tee-tail", "pump", "check", "tee-air", "tee"];
        var (first, second) = (answer.Steps[0], answer.Steps[1]);
        Assert.Equal(("narrow", "wide"), (first.PartId, second.PartId));
        Assert.Equal([.. common, "to-stub", "up-narrow"], first.RunIds);
        double content = Bore([.. common, "to-stub", "up-narrow"]) + Parts([.. on, "tee-stub"]);
        // As much water was on the way as it holds: half and half.
        Assert.Equal(content, first.WaterL, 6);
        Assert.Equal(0.25, first.Glycol, 6);
        Assert.Equal(GlycolWater.FreezingC(0.25), first.FreezesC, 6);
        Assert.True(first.BurstsC < first.FreezesC);
        // The second takes what the first has not filled.
        Assert.Equal(2 * Bore("up-wide") + 0.1, second.DrawnL, 6);
        Assert.Equal(content + Bore("up-wide"), answer.LinesL, 6);
        Assert.Equal(answer.Steps.Sum(s => s.DrawnL) + 1, answer.TotalL, 9);
        Assert.Equal("trap", Assert.Single(answer.Traps).PartId);
        // Plain: the stub, the port's leg, and suction before the bottle's tee.
        Assert.Equal(["port", "s2", "stub", "suction"], answer.Plain.Select(p => p.RunId).Order());
        // What both lead through has the weaker of them; said of the rig, that is what its night starts from.
        Assert.Equal(Math.Min(first.Glycol, second.Glycol), answer.Stands.Single(s => s.Thing == "runs/trunk").Glycol);
        Assert.Equal(first.Glycol, answer.Stands.Single(s => s.Thing == "runs/up-narrow").Glycol);
        Assert.All(answer.Stands, s => Assert.True(new LeftAct("a", LeftActKind.Antifreeze, DateTimeOffset.UnixEpoch, s.Thing, Glycol: s.Glycol).IsIn(rig)));
        // Drained first, it is stronger everywhere, and never stronger than the bottle.
        var drained = AntifreezeStudy.Ask(question, new AntifreezeInput(0.5));
        Assert.All(drained.Steps.Zip(answer.Steps), s => Assert.InRange(s.First.Glycol, s.Second.Glycol, 0.5));
        Assert.Equal((int)Math.Ceiling(1.1 * drained.TotalL), drained.Bottles.Single(b => b.SizeL == 1).Count);
    }

    [Fact]
    public void What_was_blown_out_holds_a_film_and_its_night_starts_from_that()
    {
        foreach (string name in (string[])["tern", "lantern"])
        {
            var question = Of(DemoRigs.Of(name));
            var input = new ProcedureInput(ProcedureKind.AirLayUp, new BlowOutInput(AirSource.WorkshopCompressor));
            var made = ProcedureStudy.Ask(question, input);
            LeftAnswer After(Func<ProcedureStep, bool> done) => LeftOf(question.Rig, (made with { Steps = [.. made.Steps.Where(done)] }).Acts());
            LeftAnswer LeftOf(Rig rig, IReadOnlyList<LeftAct> acts)
            {
                var left = rig with { Left = acts };
                Assert.Empty(RigCheck.Check(left));
                return LeftStudy.Ask(Of(left));
            }
            double drained = After(s => !s.Id.StartsWith("blow:", StringComparison.Ordinal)).StaysL, once = After(s => !s.Id.EndsWith(":2",
                StringComparison.Ordinal)).StaysL, twice = After(_ => true).StaysL;
            Assert.True(twice < once && once < drained);
            // By hand: each swept run holds its film, if it held more; all else what it held.
            var air = BlowOutStudy.Ask(question, input.Air!);
            var down = question.Ask(DrainDownStudy.Ask).Runs.ToDictionary(r => r.RunId);
            double less = air.Runs.Where(r => r.Carries <= AirCarries.Plugs).Sum(r => down[r.RunId].StaysL - Math.Min(down[r.RunId].StaysL, r.AfterL[^1]));
            Assert.Equal(drained - less, twice, 6);
            // One outlet skipped leaves what only it had left to sweep.
            string last = made.Steps.Last(s => s.Id.StartsWith("blow:", StringComparison.Ordinal) && s.Marks.Count > 0).Id[..^2];
            Assert.True(After(s => !s.Id.StartsWith(last, StringComparison.Ordinal)).StaysL > twice);
        }
    }

    [Fact]
    public void Steps_of_ones_own_a_makers_and_what_goes_home()
    {
        var rig = DemoRigs.Of("tern");
        var heater = rig.Parts.First(PartWater.HeatsWater);
        OwnStep[] own =
        [
            new("bus", OwnStepKind.Step, "Park nose down", [], First: true), new("key", OwnStepKind.Step, "Hang the key up", [ProcedureKind.AirLayUp]),
            new("maker", OwnStepKind.Maker, "Turn its knob to drain", [], $"parts/{heater.Id}"), new("food", OwnStepKind.Home, "tins and the guitar", []),
        ];
        var with = rig with { OwnSteps = own.InOrder() };
        Assert.Empty(RigCheck.Check(with));
        ProcedureAnswer Made(Rig of, ProcedureKind kind) => ProcedureStudy.Ask(Of(of), new ProcedureInput(kind));
        var (plain, made) = (Made(rig, ProcedureKind.AirLayUp), Made(with, ProcedureKind.AirLayUp));
        Assert.Equal("own:bus", made.Steps[0].Id);
        Assert.Equal("Take home: tins and the guitar", made.Steps[^1].Words.Text);
        Assert.Contains(made.Steps, s => s.Id == "own:key");
        Assert.DoesNotContain(Made(with, ProcedureKind.DrainLayUp).Steps, s => s.Id == "own:key");
        Assert.Contains(Made(with, ProcedureKind.Reopen).Steps, s => s.Words.Text == "Bring back: tins and the guitar");
        // The maker's step is in the place of ours, and what comes out and is remembered stays the same.
        Assert.DoesNotContain(made.Steps, s => s.PartIds is [var only] && only == heater.Id && s.Id != "maker:maker");
        Assert.Equal(plain.Steps.Sum(s => s.OutL ?? 0), made.Steps.Sum(s => s.OutL ?? 0), 9);
        Assert.Equal(plain.Acts().Select(a => (a.Kind, a.Thing)).ToHashSet(), made.Acts().Select(a => (a.Kind, a.Thing)).ToHashSet());
        // It goes with its part.
        Assert.DoesNotContain(Editor.Apply(with, [new RemoveThing($"parts/{heater.Id}")]).Rig.OwnSteps!, s => s.Id == "maker");
        Assert.Equal(["ownSteps[0].thing"], RigCheck.Check(rig with { OwnSteps = [own[2] with { Thing = null }] }).Select(f => f.Path));
    }

    [Fact]
    public void A_dose_of_bleach_by_hand()
    {
        // 90 L at 50 mg/L are 4.5 g of chlorine: of bleach of 4 %, 112.5 mL; of 12 % a third of that.
        Assert.Equal(0.1125, new DoseInput().OfL(90), 9);
        Assert.Equal(0.0375, new DoseInput(0.12).OfL(90), 9);
        var made = ProcedureStudy.Ask(Of(DemoRigs.Of("sparrow")), new ProcedureInput(ProcedureKind.Reopen, Dose: new DoseInput(0.12, 20, 12)));
        Assert.Contains("bleach of 12 %, and fill up: 20 mg", made.Steps.Single(s => s.Id == "dose").Words.Text, StringComparison.Ordinal);
        Assert.Equal(12 * 3600, made.Steps.Single(s => s.Id == "contact").ShortestS);
        Assert.Contains(made.Steps.Single(s => s.Id == "dose").Marks, m => m.Kind == LeftActKind.Filled);
        Assert.Equal(["dose.strength"], new ProcedureInput(ProcedureKind.Reopen, Dose: new DoseInput(0)).Check(DemoRigs.Of("sparrow")).Select(f => f.Path));
    }

    [Fact]
    public void A_port_is_proposed_where_its_air_gets_to_every_outlet()
    {
        // Without its port, whose air came in between the pump and the trunk.
        var rig = Editor.Apply(Risers().Build(), [new RemoveThing("parts/air")]).Rig;
        var question = Of(rig);
        Assert.Empty(BlowOutStudy.Ask(question, new BlowOutInput()).Gear);
        var port = AirPortStudy.Ask(question);
        Assert.Equal((false, 2), (port.Has, port.Outlets));
        var best = port.Places[0];
        Assert.Equal(2, best.Reached);
        var with = Editor.Apply(rig, best.Edits).Rig;
        Assert.Empty(RigCheck.Check(with));
        Assert.True(BlowOutStudy.Ask(Of(with), new BlowOutInput()).Can);
        // It has one now, and needs no other.
        Assert.Equal((true, 0), (AirPortStudy.Ask(Of(with)).Has, AirPortStudy.Ask(Of(with)).Places.Count));
    }

    [Fact]
    public void An_inlet_for_town_water_takes_an_air_hose_and_a_circuit_of_its_own_has_a_port_of_its_own()
    {
        // A town inlet behind the check valve instead of a port: the hose goes there, with its adapter.
        var town = Editor.Apply(Risers().Part("inlet", "town-inlet", ("in", 1.2, 0.5, 0), ("out", 1.2, 0.4, 0)).Build(), [new RemoveThing("parts/air"),
            new AddThing("runs", (System.Text.Json.Nodes.JsonObject)System.Text.Json.JsonSerializer.SerializeToNode(new Run("from-town", "from town",
                Service.Cold,
                "pex-1/2", new RunEnd("inlet", "out"), new RunEnd("tee-air", "c"), []), RigFile.Json)!)]).Rig;
        var air = BlowOutStudy.Ask(Of(town), new BlowOutInput());
        Assert.Equal("inlet", Assert.Single(air.Gear).PartId);
        Assert.True(air.Can);
        Assert.All(air.Steps, s => Assert.Contains("from-town", s.RunIds));
        Assert.Contains(ProcedureStudy.Ask(Of(town), new ProcedureInput(ProcedureKind.AirLayUp)).Steps, s => s.Id == "air:inlet");
        // A second circuit on a pump of its own, to rinse a tank: the port of the first does nothing for it, so it is given one.
        var rinse = Risers().Part("pump-2", "pump", ("in", 0.8, 3, 0), ("out", 1, 3, 0)).Part("check-2", "check-valve", ("in", 1.1, 3, 0), ("out", 1.15, 3, 0))
            .Part("rinse", "cold-tap", ("cold", 3, 3, 0.5), ("spout", 3, 3, 0.6)).Run("rinse-1", "pump-2.out", "check-2.in").Run("rinse-2", "check-2.out",
                "rinse.cold")
            .Build();
        var question = Of(rinse);
        Assert.Empty(BlowOutStudy.Ask(question, new BlowOutInput()).Steps.Single(s => s.PartId == "rinse").RunIds);
        var port = AirPortStudy.Ask(question);
        // Neither a run of the name that it would take nor the first port is in its way.
        Assert.Equal((false, 3), (port.Has, port.Outlets));
        var with = Editor.Apply(rinse, port.Places[0].Edits).Rig;
        var both = BlowOutStudy.Ask(Of(with), new BlowOutInput());
        Assert.Equal(2, both.Gear.Count);
        Assert.All(both.Steps, s => Assert.NotEmpty(s.RunIds));
        // Air of one circuit gets nowhere in the other.
        Assert.DoesNotContain(both.Steps.Single(s => s.PartId == "rinse").RunIds, r => r is "trunk" or "up-wide" or "up-narrow");
    }

    [Fact]
    [Trait("Category", "Reference")]
    public void Antifreeze_in_a_rig_that_is_the_case() => Cases.Each("glycol", (c, expected, check) =>
    {
        // What was left stands in a heater that keeps its water, and the rest of the way is a coil that runs out.
        (AntifreezeAnswer Answer, Question Question) Made(double keepsL, double dryL)
        {
            var rig = new RigBuilder().Part("tail", "hose-tail", ("a", 0.2, 0, 0.2), ("b", 0.3, 0, 0.2)).Part("pump", "pump", ("in", 0.32, 0, 0.2), ("out",
                0.4, 0, 0.2))
                .Part("low", "tee", ("a", 0.42, 0, 0.2), ("b", 0.5, 0, 0.25), ("c", 0.45, 0.1, 0.2)).Part("drain", "drain-cock", ("in", 0.45, 0.2, 0.1))
                .Part("keeps", "filter", ("in", 0.6, 0, 0.5), ("out", 0.7, 0, 0.6)).Part("dry", "coupling", ("a", 0.8, 0, 0.7), ("b", 0.8, 0, 0.8))
                .Part("tap", "cold-tap", ("cold", 1, 0, 1.2), ("spout", 1, 0, 1.3)).Run("r1", "tail.b", "pump.in").Run("r2", "pump.out", "low.a")
                .Run("r3", "low.b", "keeps.in").Run("r4", "keeps.out", "dry.a").Run("r5", "dry.b", "tap.cold").Run("leg", "low.c", "drain.in").Build();
            rig = rig with
            {
                Parts = [.. rig.Parts.Select(p => p.Id switch { "keeps" => p with { HoldsL = keepsL }, "dry" => p with { HoldsL = dryL }, _ =>
                p })]
            };
            var question = Of(rig);
            return (AntifreezeStudy.Ask(question, new AntifreezeInput(c.Num("glycolVolumeFraction"))), question);
        }
        double added = c.Num("added_L"), left = c.Num("waterLeft_L");
        // Pipes and the pump hold something of their own: the two parts make up the rest.
        var (bare, _) = Made(left, added - left);
        double keeps = left - (bare.Steps.Single().WaterL - left), dry = added - left - (bare.LinesL - added) + (left - keeps);
        var (answer, asked) = Made(keeps, dry);
        var step = answer.Steps.Single();
        check.Near("added", added, answer.LinesL, 0.005);
        check.Near("left", left, step.WaterL, 0.005);
        check.Near("fraction", expected.Num("volumeFraction"), step.Glycol, 0.005);
        check.Near("freezes", expected.Num("freezePoint_C"), step.FreezesC, 0.005);
        check.Same("reached", true, asked.Rig.Runs.All(r => r.Id == "leg" || step.RunIds.Contains(r.Id)));
    });

    [Fact]
    public void What_steps_let_out_and_what_is_left_is_what_was_in_also_on_rigs_by_chance()
    {
        var random = new Random(11);
        for (int n = 0; n < 40; n++)
        {
            var (rig, taps) = RandomRigs.Tree(random, random.Next(1, 6));
            var question = Of(rig);
            foreach (var kind in (ProcedureKind[])[ProcedureKind.WeekendDrain, ProcedureKind.DrainLayUp, ProcedureKind.HeatFailed])
            {
                var made = ProcedureStudy.Ask(question, new ProcedureInput(kind));
                double full = question.Tasks.Graph.Runs.Sum(r => BlowOutStudy.FullL(question, r)) + rig.Parts.Sum(PartWater.HoldsL);
                // What is in it is counted by hand; what no step empties, since nothing opens there, is left.
                Assert.Equal(full, made.InL, 0.01 * full);
                Assert.Equal(made.InL, made.Steps.Sum(s => s.OutL ?? 0) + made.StaysL, 6);
                Assert.All(made.Steps.Where(s => s.OutL is not null), s => Assert.Equal(0.03 + (0.1 * s.OutL!.Value), s.GiveOrTakeL!.Value, 9));
                Assert.All(taps, t => Assert.Contains(made.Steps, s => s.PartIds.Contains(t)));
            }
        }
    }

    [Fact]
    public void The_demo_rigs_can_be_blown_out_and_filled()
    {
        foreach (string name in (string[])["tern", "lantern"])
        {
            var question = Of(DemoRigs.Of(name));
            var air = BlowOutStudy.Ask(question, new BlowOutInput(AirSource.WorkshopCompressor));
            Assert.True(air.Can);
            Assert.All(air.Steps, s => Assert.NotEmpty(s.RunIds));
            Assert.True(air.AfterL[^1] < 0.5 * air.BeforeL + 0.05 && air.LimitBar <= 2.07);
            var fluid = AntifreezeStudy.Ask(question, new AntifreezeInput());
            Assert.True(fluid.Can);
            Assert.All(fluid.Steps, s => Assert.InRange(s.Glycol, 0.01, 0.45));
        }
    }

    [Fact]
    public void Procedures_have_what_the_rig_has_and_their_litres_add_up()
    {
        foreach (string name in (string[])["sparrow", "tern", "lantern"])
        {
            var question = Of(DemoRigs.Of(name));
            foreach (var kind in Enum.GetValues<ProcedureKind>())
            {
                var made = ProcedureStudy.Ask(question, new ProcedureInput(kind));
                Assert.NotEmpty(made.Steps);
                Assert.Equal(made.Steps.Count, made.Steps.Select(s => s.Id).Distinct().Count());
                Assert.All(made.Steps, s => Assert.All(s.PartIds, id => Assert.NotNull(question.Rig.Parts.Find(id))));
                Assert.All(made.Ends, e => Assert.Contains(e.Position, Catalogue.Part(question.Index.Part(e.Id).Stock)!.Positions.Select(p => p.Id)));
                Assert.True(made.ShortestS > 0 && made.LongestS >= made.ShortestS);
            }
            // What comes out is what was in, less what is left; the air takes some of that.
            var drained = ProcedureStudy.Ask(question, new ProcedureInput(ProcedureKind.DrainLayUp));
            Assert.Equal(drained.InL, drained.OutL + drained.StaysL, 0.02 * drained.InL);
            var air = ProcedureStudy.Ask(question, new ProcedureInput(ProcedureKind.AirLayUp));
            Assert.Equal(drained.OutL + drained.StaysL, air.OutL + air.StaysL, 0.01);
            Assert.True(air.StaysL <= drained.StaysL);
            // Everything that the lay-up opens ends as it is left; heat goes off first.
            Assert.StartsWith("off:", drained.Steps[0].Id, StringComparison.Ordinal);
            var fluid = ProcedureStudy.Ask(question, new ProcedureInput(ProcedureKind.AntifreezeLayUp));
            Assert.Equal(fluid.Steps.Sum(s => s.InL ?? 0), fluid.FluidL, 6);
            Assert.True(fluid.FluidL > 0);
        }
        // Sparrow has an outdoor shower, Lantern a washing machine and a toilet: none is forgotten.
        Assert.Contains(ProcedureStudy.Ask(Of(DemoRigs.Of("sparrow")), new ProcedureInput(ProcedureKind.DrainLayUp)).Steps, s => s.Id.StartsWith("outdoors:",
            StringComparison.Ordinal));
        var lantern = ProcedureStudy.Ask(Of(DemoRigs.Of("lantern")), new ProcedureInput(ProcedureKind.AirLayUp)).Steps;
        Assert.Contains(lantern, s => s.Id.StartsWith("appliance:", StringComparison.Ordinal));
        Assert.Contains(lantern, s => s.Id.StartsWith("toilet:", StringComparison.Ordinal));
        // In a failed night what freezes first comes first.
        var failed = ProcedureStudy.Ask(Of(DemoRigs.Of("sparrow")), new ProcedureInput(ProcedureKind.HeatFailed)).Steps.TakeWhile(s => s.Id.StartsWith("first:",
            StringComparison.Ordinal)).Select(s => s.ShortestS!.Value).ToList();
        Assert.True(failed.Count > 1);
        Assert.Equal(failed.Order(), failed);
    }

    [Fact]
    public void Schools_side_by_side_agree_with_each_procedure_and_night()
    {
        var rig = DemoRigs.Of("sparrow");
        var question = Of(rig);
        var schools = SchoolsStudy.Ask(question).Schools.ToDictionary(s => s.School);
        // Drained it is what the brief's night tells; air takes what stands in lines, and never adds to what breaks.
        var night = new Question(rig, Conditions.Of(rig.Brief) with { HeatOn = false, Water = WaterState.Drained });
        Assert.Equal(night.Ask(FreezeLadderStudy.Ask).Rungs.Count(r => r.Breaks), schools[FreezeSchool.Drain].Breaks);
        Assert.True(schools[FreezeSchool.Drain].Breaks > 0 && schools[FreezeSchool.Air].Breaks <= schools[FreezeSchool.Drain].Breaks);
        Assert.True(schools[FreezeSchool.Antifreeze].Breaks <= schools[FreezeSchool.Drain].Breaks);
        Assert.Equal(ProcedureStudy.Ask(night, new ProcedureInput(ProcedureKind.AntifreezeLayUp)).FluidL, schools[FreezeSchool.Antifreeze].FluidL, 9);
        int traps = rig.Parts.Count(PartWater.IsTrap);
        Assert.Equal(traps, schools[FreezeSchool.Drain].FluidL, 9);
        Assert.True(schools[FreezeSchool.Heat].StaysL > 50 && schools[FreezeSchool.Heat].LongestS == 0);
    }

    [Fact]
    public void A_simulated_compressor_keeps_its_air_and_shows_its_mistakes()
    {
        var question = Of(Risers().Build());
        var random = new Random(9);
        for (int n = 0; n < 40; n++)
        {
            var input = new CompressorInput(new BlowOutInput((AirSource)random.Next(4)), random.NextDouble() * 4, random.Next(3) == 0 ? null : "narrow.cold",
                1 + random.Next(200));
            var gone = CompressorStudy.Ask(question, input);
            double most = Math.Max(1, gone.MadeL + gone.LeftL);
            Assert.InRange(gone.MadeL - gone.LeftL - gone.StoredL, -0.001 * most, 0.001 * most);
            Assert.All(gone.Gauges, g => Assert.True(g.LineBar <= gone.RegulatorBar + 1e-6 && g.TankBar >= 0));
        }
        CompressorAnswer Run(double? regulator, string? outlet, AirSource source = AirSource.SmallCompressor, double s = 60) =>
            CompressorStudy.Ask(question, new CompressorInput(new BlowOutInput(source), regulator, outlet, s));
        // The regulator left open, the outlet left shut, the tank run down: each is told; done right, none is.
        Assert.True(Run(6, null) is { Fault: true, HighestBar: > 5 } open && open.Words.Text.Contains("limit", StringComparison.Ordinal));
        Assert.Contains("No outlet is open", Run(null, null).Words.Text, StringComparison.Ordinal);
        var down = Run(null, "narrow.cold", s: 120);
        Assert.True(down.Fault && down.Gauges[^1].TankBar < 0.3 * down.Gauges[0].TankBar);
        Assert.Contains("run down", down.Words.Text, StringComparison.Ordinal);
        Assert.False(Run(null, "narrow.cold", AirSource.WorkshopCompressor, 5).Fault);
        // The tank lasts as long as the advice says.
        var advised = BlowOutStudy.Ask(question, new BlowOutInput()).Steps.Single(s => s.PartId == "narrow");
        Assert.Equal(advised.LastsS!.Value, down.Gauges.First(g => g.S > 1 && g.Carries > AirCarries.All).S, 0.15 * advised.LastsS.Value + 1);
        // Shut, the lines stand at the regulator's pressure: the advice's own.
        Assert.Equal(BlowOutStudy.Ask(question, new BlowOutInput()).LineBar, Run(null, null).Gauges[^1].LineBar, 3);
    }
}
