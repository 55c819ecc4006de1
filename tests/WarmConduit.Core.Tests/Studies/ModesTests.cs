using CsCheck;
using WarmConduit.Core.Advice.Modes;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Heating;
using WarmConduit.Core.Studies.Modes;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Tests.Rigs;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>Modes of heating circuits, against flows in every position and by hand.</summary>
public class ModesTests
{
    private const Service Coolant = Service.Coolant;

    private static Conditions Night(Rig rig) => Conditions.Of(rig.Brief) with { OutdoorC = -10, WindMPerS = 0, HeatOn = true, Water = WaterState.Wet };

    /// <summary>A heater and a pump, tees one after the other, a branch with a radiator from each to the return; the last tees are joined by a bypass. Valves
    /// where <paramref name="valves"/> says: of each branch, then of the bypass.</summary>
    private static RigBuilder Ladder(bool[] valves, bool pumpInBranch = false)
    {
        int n = valves.Length - 1;
        var rig = new RigBuilder().Part("heater", "coolant-heater", ("in", 0, 0.2, 0.1), ("out", 0, 0.5, 0.1))
            .Part("pump", "circulator", ("in", 0.2, 0.5, 0.1), ("out", 0.3, 0.5, 0.1)).Run("from-heater", Coolant, "epdm-5/8", "heater.out", "pump.in");
        for (int i = 0; i < n; i++)
        {
            double x = 0.5 + (0.5 * i);
            rig = rig.Part($"s{i}", "tee", ("a", x, 0.5, 0.1), ("b", x + 0.05, 0.5, 0.1), ("c", x, 0.45, 0.1))
                .Part($"r{i}", "tee", ("a", x, 0.2, 0.1), ("b", x + 0.05, 0.2, 0.1), ("c", x, 0.25, 0.1))
                .Part($"rad{i}", "panel-radiator", ("in", x, 0.4, 0.1), ("out", x, 0.3, 0.1))
                .Run($"back{i}", Coolant, "epdm-5/8", $"rad{i}.out", $"r{i}.c")
                .Run($"s{i}-line", Coolant, "epdm-5/8", i == 0 ? "pump.out" : $"s{i - 1}.b", $"s{i}.a")
                .Run($"r{i}-line", Coolant, "epdm-5/8", $"r{i}.a", i == 0 ? "heater.in" : $"r{i - 1}.b");
            rig = Valved(rig, $"branch{i}", valves[i], x, $"s{i}.c", $"rad{i}.in", pumpInBranch && i == 0);
        }
        return Valved(rig, "bypass", valves[n], 0.7 + (0.5 * n), $"s{n - 1}.b", $"r{n - 1}.b", false);
    }

    private static RigBuilder Valved(RigBuilder rig, string id, bool valve, double x, string from, string to, bool pump)
    {
        if (!valve && !pump) return rig.Run(id, Coolant, "epdm-5/8", from, to, new Point3(x + 0.3, 0.42, 0.1));
        var (stock, a, b) = pump ? ("circulator", "in", "out") : ("ball-valve", "a", "b");
        return rig.Part($"{id}-valve", stock, (a, x, 0.44, 0.1), (b, x, 0.42, 0.1)).Run(id, Coolant, "epdm-5/8", from, $"{id}-valve.{a}")
            .Run($"{id}-on", Coolant, "epdm-5/8", $"{id}-valve.{b}", to);
    }

    [Fact]
    public void What_valves_can_do_is_what_flows_in_one_of_their_positions_with_the_fewest_turns()
    {
        (from n in Gen.Int[2, 4] from valves in Gen.Bool.Array[n + 1] from pump in Gen.Bool from shut in Gen.Int[-1, n] select (valves, pump, shut)).Sample(c =>
        {
            var rig = Ladder(c.valves, c.pump).Build();
            if (c.shut >= 0 && rig.Parts.Find($"branch{c.shut}-valve") is { Stock: "ball-valve" } valve)
                rig = Editor.Apply(rig, [new SetPosition(rig.ScenarioOf(ScenarioKind.InUse).Id, valve.Id, "closed")]).Rig;
            var question = new Question(rig, Night(rig));
            var finder = new ModeFinder(question);
            var byFlow = new Dictionary<string, int>();
            foreach (int[] set in finder.All())
            {
                var settings = finder.Graph.Turnable.Select((p, t) => new Setting(finder.Graph.Parts[p].Id, finder.Graph.At(set, t).Id)).ToList();
                var heat = RigHeat.Of(question.With(question.Conditions with { HeatSettings = settings }));
                double most = heat.Flow?.FlowM3PerS.Max(Math.Abs) ?? 0;
                bool Flows(string run) => most > 1e-8 && Math.Abs(heat.Flow!.FlowM3PerS[heat.Net.EdgeOfRun(run)]) > 1e-6 * most;
                var live = finder.Graph.Live(set).Runs;
                for (int r = 0; r < live.Length; r++)
                    if (live[r] != Flows(finder.Graph.Runs[r].Id)) return false;
                var sinks = finder.Sinks.Select(s => s.Id).Where(s => Flows($"back{s[3..]}"));
                int turns = set.Where((o, t) => o != finder.First[t]).Count();
                if (!Flows("from-heater")) continue;
                string key = string.Join('|', sinks);
                byFlow[key] = Math.Min(byFlow.GetValueOrDefault(key, int.MaxValue), turns);
            }
            var found = finder.Find(CancellationToken.None).ToDictionary(m => string.Join('|', m.Sinks), m => m.Turns);
            return finder.Exhaustive && found.OrderBy(f => f.Key).SequenceEqual(byFlow.OrderBy(f => f.Key));
        }, iter: 60);
    }

    [Fact]
    public void A_mode_that_cannot_be_set_names_its_valves_and_with_them_it_can_be()
    {
        var rig = Ladder([false, false, false]).Part("calorifier", "coil-calorifier", ("cold", 2, 0.9, 0), ("hot", 2, 0.9, 0.3)).Build();
        // The second radiator's place is a coil's, in the calorifier.
        rig = rig with
        {
            Parts = [.. rig.Parts.Select(p => p.Id switch
            {
                "rad1" => p with { Stock = "coolant-coil" },
                "calorifier" => p with { Box = new Box(new(0.9, 0.25, 0.05), new(0.3, 0.3, 0.3)) },
                _ => p,
            })],
        };
        var question = new Question(rig, Night(rig));
        var modes = ModesStudy.Ask(question);
        Assert.Contains(modes.Modes, m => m is { Name: "Hot water and rooms", InUse: true, GivenW: > 100 });
        Assert.Contains(modes.Modes, m => m is { Name: "All off", GivenW: 0 });
        var missing = Assert.Single(modes.Missing, m => m.Name == "Hot water alone");
        Assert.Contains("branch0", missing.Words.ToString());
        var mended = question.On(Editor.Apply(rig, missing.Mend!.Edits).Rig, CancellationToken.None);
        var now = ModesStudy.Ask(mended);
        var hot = Assert.Single(now.Modes, m => m.Name == "Hot water alone");
        Assert.Equal(["rad1"], hot.Warms.Select(w => w.Id));
        Assert.Single(hot.Turns, t => t.Position == "closed");
        // The night in it warms the water, and the room less than in use.
        double Room(IReadOnlyList<Setting>? settings)
        {
            var night = mended.With(mended.Conditions with { HeatSettings = settings }).Ask(RigNight.Of);
            return night.AirC(mended.Rig.Shell.Zones[0], night.Morning);
        }
        Assert.True(Room(hot.Settings) < Room(null) - 1);
    }

    [Fact]
    public void A_mode_of_the_rig_is_the_same_night_as_its_positions_and_faults_are_told_at_their_field()
    {
        var rig = Ladder([true, true, true]).Build();
        Setting[] settings = [new("branch0-valve", "closed"), new("heater", "on")];
        rig = rig with { Scenarios = [.. rig.Scenarios, new Scenario("mine", "Mine", ScenarioKind.Heating, settings)] };
        Assert.Empty(RigCheck.Check(rig));
        var byId = new Question(rig, Night(rig) with { ModeId = "mine" });
        var byHand = new Question(rig, Night(rig) with { HeatSettings = settings });
        Assert.Equal(byHand.Ask(RigNight.Of).Heat.PartWh["rad1"], byId.Ask(RigNight.Of).Heat.PartWh["rad1"]);
        Assert.False(byId.Ask(RigNight.Of).Heat.PartWh.ContainsKey("rad0"));
        var answer = ModesStudy.Ask(byId);
        Assert.True(Assert.Single(answer.Modes, m => m.ScenarioId == "mine").Now);
        // Off by itself, a heater in the flow gives nothing; on without flow it is told.
        var cold = new Question(rig, Night(rig) with { HeatSettings = [new("heater", "off")] }).Ask(RigNight.Of).Heat.PartWh;
        Assert.Equal(0, cold["heater"].Sum(), 1e-9);
        Setting[] closed = [new("branch0-valve", "closed"), new("branch1-valve", "closed"), new("bypass-valve", "closed")];
        var shut = new Question(rig, Night(rig) with { HeatSettings = closed });
        var stuck = Assert.Single(ModesStudy.Ask(shut).Modes, m => m.Now);
        Assert.Contains(stuck.Checks, c => c.ToString().Contains("runs against shut valves", StringComparison.Ordinal));
        string Faults(Conditions c) => string.Join(' ', c.Check(rig).Select(f => f.Path));
        Assert.Equal("conditions.modeId", Faults(Night(rig) with { ModeId = "drain" }));
        Assert.Equal("conditions.heatSettings[0].id", Faults(Night(rig) with { HeatSettings = [new("nobody", "on")] }));
        Assert.Equal("conditions.heatSettings[0].position", Faults(Night(rig) with { HeatSettings = [new("heater", "open")] }));
        Assert.Equal("conditions.heatSettings", Faults(Night(rig) with { ModeId = "mine", HeatSettings = settings }));
    }

    /// <summary>The loop kept hot for itself: both branches shut, the bypass open. What is burnt is what its lines lose, and the pump takes 18 W.</summary>
    [Fact]
    public void Hot_standby_warms_nothing_and_its_cost_is_told()
    {
        var rig = Ladder([true, true, true]).Zone("room", ZoneKind.Living, RigBuilder.Cube(-5, -5, -5, 15)).Build();
        var question = new Question(rig, Night(rig));
        var standby = Assert.Single(ModesStudy.Ask(question).Modes, m => m.Name == "Standby, nothing warmed");
        Assert.Empty(standby.Warms);
        Assert.Equal("closed closed open", string.Join(' ', ((string[])["branch0-valve", "branch1-valve", "bypass-valve"])
            .Select(v => standby.Settings.FirstOrDefault(s => s.Id == v)?.Position ?? "open")));
        var night = new Question(rig, Night(rig) with { HeatSettings = standby.Settings }).Ask(RigNight.Of);
        double burnt = -night.UntilMorning(night.Heat.PartWh["heater"]);
        Assert.True(burnt > 100);
        Assert.Equal(burnt, night.Heat.LineWh.Values.Sum(night.UntilMorning), 0.01 * burnt);
        // 0.62 L/h at 5 kW; its burner runs for a share of the time, and starts.
        Assert.Equal(0.62 * burnt / 5000, standby.Takes.Single(t => t.Kind == EnergyKind.Fuel).UntilMorning, 1e-3);
        double hours = night.MorningS / 3600, battery = standby.Takes.Single(t => t.Kind == EnergyKind.Battery).UntilMorning;
        Assert.InRange(battery - (18 * hours), 35 * burnt / 1500, (35 * burnt / 1500) + (12 * hours * 85 * 120 / 3600));
    }

    [Fact]
    public void The_engine_is_warmed_where_it_is_wanted_and_told_where_it_is_not()
    {
        var rig = Ladder([true, true, false]).Build();
        rig = rig with { Parts = [.. rig.Parts.Select(p => p.Id == "rad1" ? p with { Stock = "engine" } : p)] };
        var modes = ModesStudy.Ask(new Question(rig, Night(rig)));
        var both = Assert.Single(modes.Modes, m => m.InUse);
        // What it takes is what its night is told to take.
        var uses = HeatingStudy.Ask(new Question(rig, Night(rig))).Energy;
        Assert.Equal(uses.Select(u => u.Kind), both.Takes.Select(t => t.Kind));
        Assert.All(uses.Zip(both.Takes), p => Assert.Equal(p.First.UntilMorning, p.Second.UntilMorning, 1e-3));
        Assert.Contains(both.Checks, c => c.Text.Contains("passes the engine", StringComparison.Ordinal));
        // By its valve alone nobody gets it, and the rooms are warm without it.
        Assert.Equal(["rad1"], Assert.Single(modes.Modes, m => m.Name == "The engine alone").Warms.Select(w => w.Id));
        var rooms = Assert.Single(modes.Modes, m => m.Name == "Rooms alone");
        Assert.Equal(["rad0"], rooms.Warms.Select(w => w.Id));
        Assert.DoesNotContain(rooms.Checks, c => c.Text.Contains("engine", StringComparison.Ordinal));
        Assert.True(rooms.GivenW < both.GivenW);
    }

    [Fact]
    public void Branches_are_balanced_to_the_shares_that_are_wished()
    {
        (from n in Gen.Int[2, 5] from shares in Gen.Double[1, 3].Array[n] select (n, shares)).Sample(c =>
        {
            // No bypass, which would have no valve of its own.
            var rig = Ladder(new bool[c.n + 1]).Build();
            rig = rig with { Runs = [.. rig.Runs.Where(r => r.Id != "bypass")] };
            var question = new Question(rig, Night(rig));
            var wishes = c.shares.Select((s, i) => new FlowWish($"rad{i}", s)).ToList();
            var answer = BalanceStudy.Ask(question, new BalanceInput(wishes));
            var heat = RigHeat.Of(question);
            double all = answer.Branches.Sum(b => b.LPerMin), wished = c.shares.Sum();
            return answer.Branches.Count == c.n && (!answer.Reached || (answer.Branches.Max(b => b.Opening) > 0.999
                && answer.Branches.Zip(c.shares).All(b => Math.Abs((b.First.LPerMin / all) - (b.Second / wished)) < 0.01)
                && answer.Branches.All(b => Math.Abs(b.NowLPerMin - (heat.ThroughM3PerS(question.Index.Part(b.PartId)) * 60e3)) < 1e-3)));
        }, iter: 30);
        Assert.Equal("wishes[0].id", Assert.Single(new BalanceInput([new("nobody", 1)]).Check(DemoRigs.Of("lantern"))).Path);
        var lantern = DemoRigs.Of("lantern");
        var demo = BalanceStudy.Ask(new Question(lantern, Conditions.Of(lantern.Brief)), new BalanceInput());
        Assert.True(demo.Reached && demo.Branches.Count == 4);
    }

    [Fact]
    public void A_pump_that_stops_leaves_everything_on_its_way_cold()
    {
        var rig = DemoRigs.Of("lantern");
        var night = Conditions.Of(rig.Brief) with { Hours = 12 };
        double Grey(PlanEventKind? fails)
        {
            var asked = new Question(rig, night with { Events = fails is { } kind ? [new PlanEvent("e", kind, 2)] : null }).Ask(RigNight.Of);
            return asked.WaterC(asked.Morning, asked.Numbers()["grey"]);
        }
        Assert.True(Grey(PlanEventKind.PumpFails) < Grey(null) - 1);
        Assert.Equal(Grey(PlanEventKind.HeatFails), Grey(PlanEventKind.PumpFails), 1e-6);
    }
}
