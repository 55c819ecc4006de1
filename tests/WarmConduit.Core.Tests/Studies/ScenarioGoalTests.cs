using System.Text.Json.Nodes;
using WarmConduit.Core.Advice;
using WarmConduit.Core.Advice.Tasks;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Scenarios;
using WarmConduit.Core.Studies.WaterFlow;

namespace WarmConduit.Core.Tests.Studies;

public class ScenarioGoalTests
{
    /// <summary>Tank, valve, pump, a filter with its bypass of three valves, a tap and a garden tap, each behind a valve, and a hose from outside.</summary>
    private static RigBuilder Filtered() => new RigBuilder().Tank("tank", new Box(new(0, 0, 0), new(0.5, 0.5, 0.3)), ("outlet", 0.5, 0, 0))
        .Part("valve-tank", "ball-valve", ("a", 0.6, 0, 0), ("b", 0.65, 0, 0)).Part("pump", "pump", ("in", 0.8, 0, 0), ("out", 1, 0, 0))
        .Part("tee-in", "tee", ("a", 1.1, 0, 0), ("b", 1.18, 0, 0), ("c", 1.14, 0.1, 0)).Part("valve-in", "ball-valve", ("a", 1.3, 0, 0), ("b", 1.35, 0, 0))
        .Part("filter", "filter", ("in", 1.5, 0, 0), ("out", 1.6, 0, 0)).Part("valve-out", "ball-valve", ("a", 1.7, 0, 0), ("b", 1.75, 0, 0))
        .Part("tee-out", "tee", ("a", 1.9, 0, 0), ("b", 1.98, 0, 0), ("c", 1.94, 0.1, 0)).Part("valve-by", "ball-valve", ("a", 1.4, 0.2, 0), ("b", 1.6, 0.2, 0))
        .Part("fork", "tee", ("a", 2.2, 0, 0), ("b", 2.28, 0, 0), ("c", 2.24, 0.1, 0)).Part("valve-tap", "ball-valve", ("a", 2.5, 0, 0), ("b", 2.55, 0, 0))
        .Part("tap", "cold-tap", ("cold", 3, 0, 0.8), ("spout", 3, 0, 1)).Part("valve-garden", "ball-valve", ("a", 2.5, 0.3, 0), ("b", 2.55, 0.3, 0))
        .Part("garden", "cold-tap", ("cold", 3, 0.4, 0.5), ("spout", 3, 0.4, 0.6))
        .Run("r1", "tank.outlet", "valve-tank.a").Run("r2", "valve-tank.b", "pump.in").Run("r3", "pump.out", "tee-in.a").Run("r4", "tee-in.b", "valve-in.a")
        .Run("r5", "valve-in.b", "filter.in").Run("r6", "filter.out", "valve-out.a").Run("r7", "valve-out.b", "tee-out.a").Run("r8", "tee-in.c", "valve-by.a")
        .Run("r9", "valve-by.b", "tee-out.c").Run("r10", "tee-out.b", "fork.a").Run("r11", "fork.b", "valve-tap.a").Run("r12", "valve-tap.b", "tap.cold")
        .Run("r13", "fork.c", "valve-garden.a").Run("r14", "valve-garden.b", "garden.cold");

    private static RigBuilder WithTown(RigBuilder rig) => rig.Part("town", "town-inlet", ("in", 2, 1, 0), ("out", 2, 0.9, 0))
        .Part("join", "tee", ("a", 1.05, 0, 0), ("b", 1.06, 0, 0), ("c", 1.05, 0.1, 0)).Run("town-line", "town.out", "join.c")
        .Run("r3", "pump.out", "join.a").Run("r3a", "join.b", "tee-in.a");

    private static Question Of(Rig rig) => new(rig, Conditions.Of(rig.Brief));

    private static TaskSetting Task(Rig rig, string name) => TaskStudy.Ask(Of(rig)).Tasks.Single(t => t.Name == name);

    private static Rig With(Rig rig, string id, string name, ScenarioGoal? goal, params Setting[] settings) => Editor.Apply(rig,
        [new AddThing("scenarios", (JsonObject)System.Text.Json.JsonSerializer.SerializeToNode(
            new Scenario(id, name, ScenarioKind.Own, settings, goal), RigFile.Compact)!)]).Rig;

    private static string[] Turned(TaskSetting task) => [.. task.Turns.Select(t => $"{t.Id} {t.Position}")];

    [Fact]
    public void In_use_a_bypass_is_shut_and_left_open_it_is_told()
    {
        var rig = Filtered().Build();
        Assert.Equal(["valve-by closed"], Turned(Task(rig, "Use tank water")));
        // Water comes into a filter from behind as well.
        Assert.Equal(["valve-by open", "valve-in closed", "valve-out closed"], Turned(Task(rig, "Bypass the filter")).Order());
        Assert.DoesNotContain(Adviser.Ask(Of(rig)).Findings, f => f.Kind == FindingKind.TwoWays);
        var open = Editor.Apply(rig, [new SetPosition("in-use", "valve-by", "open")]).Rig;
        var told = Assert.Single(Adviser.Ask(Of(open)).Findings, f => f.Kind == FindingKind.TwoWays);
        Assert.Contains("valve-by", told.Reason.Text, StringComparison.Ordinal);
        Assert.DoesNotContain(Adviser.Ask(Of(Editor.Apply(open, told.Mends![0].Edits).Rig)).Findings, f => f.Kind == FindingKind.TwoWays);
    }

    [Fact]
    public void A_goal_of_ones_own_is_found_kept_and_checked()
    {
        var rig = With(Filtered().Build(), "winter", "Winter", new ScenarioGoal(["tank"], ["tap"], ["garden"]));
        var winter = Task(rig, "Winter");
        Assert.True(winter.Can);
        Assert.Equal(["valve-garden closed"], Turned(winter));
        var flow = WaterFlowStudy.Ask(Of(rig), new WaterFlowInput(TaskKind.Own, "winter", Open: ["tap", "garden"]));
        Assert.True(flow.Outlets.Single(o => o.PartId == "tap").LPerMin > 3);
        Assert.Equal(0, flow.Outlets.Single(o => o.PartId == "garden").LPerMin);
        // What is to be reached and must not be is told as that.
        var both = Editor.Apply(rig, [new ChangeThing("scenarios/winter", new JsonObject { ["goal"] = new JsonObject
            { ["from"] = new JsonArray("tank"), ["reach"] = new JsonArray("tap"), ["avoid"] = new JsonArray("tap") } })]).Rig;
        Assert.Contains(Adviser.Ask(Of(both)).Findings, f => f.Id == "task:winter" && f.Reason.Text.Contains("one of the lists", StringComparison.Ordinal));
        // A part that goes takes its place in the lists with it, and comes back with it.
        var gone = Editor.Apply(rig, [new RemoveThing("parts/garden")]);
        Assert.Empty(gone.Rig.Scenarios.Single(s => s.Id == "winter").Goal!.Avoid);
        Assert.Equal(RigFile.Write(rig), RigFile.Write(Editor.Apply(gone.Rig, gone.Inverse).Rig));
        Assert.Contains("no part 'none'", Assert.Throws<RigFileException>(() => With(rig, "bad", "Bad", new ScenarioGoal(["none"], [], []))).Message,
            StringComparison.Ordinal);
    }

    [Fact]
    public void A_drain_that_is_to_be_reached_is_opened_and_nothing_else_lets_water_out()
    {
        var rig = With(Filtered().Part("cock", "drain-cock", ("in", 1.05, 0.3, -0.1))
            .Part("low", "tee", ("a", 1.01, 0, 0), ("b", 1.02, 0, 0), ("c", 1.01, 0.1, 0)).Run("r3", "pump.out", "low.a").Run("r3b", "low.b", "tee-in.a")
            .Run("cock-line", "low.c", "cock.in").Build(), "rinse", "Rinse",
            new ScenarioGoal(["tank"], ["cock"], []));
        var rinse = Task(rig, "Rinse");
        Assert.Equal(["cock open"], Turned(rinse));
        var flow = WaterFlowStudy.Ask(Of(rig), new WaterFlowInput(TaskKind.Own, "rinse"));
        Assert.True(flow.Pumps.Single().LPerMin > 3);
    }

    [Fact]
    public void Gear_is_joined_for_its_task_alone()
    {
        var rig = WithTown(Filtered()).Build();
        // With no branch for a bottle its hose takes the place of the suction line, and the tank gives nothing.
        var antifreeze = Task(rig, "Draw antifreeze");
        Assert.Equal("The hose of a bottle on pump, in place of r2", Assert.Single(antifreeze.Gear).Words.Text);
        Assert.True(antifreeze.Can);
        var drawn = WaterFlowStudy.Ask(Of(rig), new WaterFlowInput(TaskKind.Antifreeze, Open: ["tap"]));
        Assert.True(drawn.Outlets.Single(o => o.PartId == "tap").LPerMin > 3);
        Assert.Equal(WaterReach.Apart, drawn.Runs.SingleOrDefault(r => r.RunId == "r2")?.Reach ?? WaterReach.Apart);
        // Air comes by the inlet for town water while there is no port for it.
        Assert.Equal("An air hose on town", Assert.Single(Task(rig, "Blow out").Gear).Words.Text);
        // A loose pump on the inlet gives what its own curve gives: less than the town does.
        double Gives(Rig of) => WaterFlowStudy.Ask(Of(of), new WaterFlowInput(TaskKind.Own, "river", Open: ["tap"]))
            .Outlets.Single(o => o.PartId == "tap").LPerMin;
        var town = With(rig, "river", "River", new ScenarioGoal(["town"], ["tap"], ["tank"]));
        var loose = Editor.Apply(With(rig, "river", "River", new ScenarioGoal([], ["tap"], ["tank"])), [new ChangeThing("scenarios/river",
            new JsonObject { ["gear"] = new JsonObject { ["kind"] = "loosePump", ["partId"] = "town", ["port"] = "in" } })]).Rig;
        Assert.True(Task(loose, "River").Can);
        Assert.Contains("Open water", Task(loose, "River").Caution, StringComparison.Ordinal);
        Assert.InRange(Gives(loose), 0.5, 0.8 * Gives(town));
        Assert.Null(Editor.Apply(loose, [new RemoveThing("parts/town")]).Rig.Scenarios.Single(s => s.Id == "river").Gear);
    }

    [Fact]
    public void An_outlet_that_no_water_gets_to_and_a_bypass_half_made_are_told()
    {
        var apart = Filtered().Part("lone", "cold-tap", ("cold", 3, 2, 0.8), ("spout", 3, 2, 1)).Part("stub", "tee", ("a", 2.5, 2, 0), ("b", 2.6, 2, 0),
            ("c", 2.5, 2.1, 0)).Run("lone-line", "stub.b", "lone.cold").Build();
        Assert.Equal(["unfed:lone"], Adviser.Ask(Of(apart)).Findings.Where(f => f.Kind == FindingKind.Unfed).Select(f => f.Id));
        // Past the heater by one valve, and nothing shuts the heater off.
        RigBuilder Heated() => new RigBuilder().Tank("tank", new Box(new(0, 0, 0), new(0.5, 0.5, 0.3)), ("outlet", 0.5, 0, 0))
            .Part("pump", "pump", ("in", 0.8, 0, 0), ("out", 1, 0, 0)).Part("a", "tee", ("a", 1.2, 0, 0), ("b", 1.3, 0, 0), ("c", 1.2, 0.1, 0))
            .Part("heater", "storage-heater", ("cold", 1.8, 0, 0), ("hot", 1.8, 0.1, 0.2)).Part("b", "tee", ("a", 2.4, 0, 0.2), ("b", 2.5, 0, 0.2),
                ("c", 2.4, 0.1, 0.2)).Part("valve-by", "ball-valve", ("a", 1.7, 0.5, 0), ("b", 1.8, 0.5, 0))
            .Part("tap", "mixer", ("cold", 3, 0, 0.8), ("hot", 3, 0.1, 0.8), ("spout", 3, 0, 1)).Run("r1", "tank.outlet", "pump.in").Run("r2",
                "pump.out", "a.a")
            .Run("r3", "a.b", "heater.cold").Run("r4", Service.Hot, "pex-1/2", "heater.hot", "b.a").Run("r5", "a.c", "valve-by.a")
            .Run("r6", Service.Hot, "pex-1/2", "valve-by.b", "b.c").Run("r7", Service.Hot, "pex-1/2", "b.b", "tap.hot");
        Assert.Contains(Adviser.Ask(Of(Heated().Build())).Findings, f => f.Id == "task:BypassHeater" && f.Verb == "bypass half made");
        var whole = Heated().Part("valve-in", "ball-valve", ("a", 1.5, 0, 0), ("b", 1.55, 0, 0)).Part("valve-out", "ball-valve", ("a", 2, 0.1, 0.2),
            ("b", 2.05, 0.1, 0.2)).Run("r3", "a.b", "valve-in.a").Run("r3b", "valve-in.b", "heater.cold").Run("r4", Service.Hot, "pex-1/2",
                "heater.hot", "valve-out.a")
            .Run("r4b", Service.Hot, "pex-1/2", "valve-out.b", "b.a").Build();
        Assert.DoesNotContain(Adviser.Ask(Of(whole)).Findings, f => f.Id == "task:BypassHeater");
        Assert.Equal(["valve-by open", "valve-in closed", "valve-out closed"], Turned(Task(whole, "Bypass the heater")).Order());
    }

    [Fact]
    public void A_pump_that_runs_against_a_closed_valve_is_told_with_both_ways_out()
    {
        var rig = With(Filtered().Build(), "off", "Off", null, new Setting("valve-by", "closed"), new Setting("valve-in", "closed"));
        var told = Assert.Single(Adviser.Ask(Of(rig)).Findings, f => f.Kind == FindingKind.PumpBlocked);
        Assert.Equal("pump", told.Place!.PartId);
        Assert.All(told.Mends!, m => Assert.DoesNotContain(Adviser.Ask(Of(Editor.Apply(rig, m.Edits).Rig)).Findings, f => f.Kind == FindingKind.PumpBlocked));
        // And where it is turned so by hand.
        var flow = WaterFlowStudy.Ask(Of(rig), new WaterFlowInput(Positions: [new("valve-by", "closed"), new("valve-in", "closed")]));
        Assert.Contains(flow.Remarks, r => r.Id == "blocked:pump" && r.Fault);
        Assert.DoesNotContain(WaterFlowStudy.Ask(Of(rig), new WaterFlowInput()).Remarks, r => r.Id == "blocked:pump");
    }

    [Fact]
    public void Town_water_that_only_the_pump_keeps_from_the_tank_and_a_hose_that_lets_air_in_are_told()
    {
        var rig = WithTown(Filtered()).Build();
        Assert.Contains(Adviser.Ask(Of(rig)).Findings, f => f.Id == "town-held:pump" && f.Severity == Severity.Note);
        var shut = Editor.Apply(rig, [new SetPosition("town-water", "valve-tank", "closed")]).Rig;
        Assert.DoesNotContain(Adviser.Ask(Of(shut)).Findings, f => f.Kind == FindingKind.TownHeld);
        // The free end of a hose on the suction side.
        RigBuilder Branched() => Filtered().Part("suck", "tee", ("a", 0.7, 0, 0), ("b", 0.72, 0, 0), ("c", 0.7, 0.1, 0)).Run("r2", "valve-tank.b", "suck.a")
            .Run("r2b", "suck.b", "pump.in").Part("tail", "hose-tail", ("a", 0.7, 0.3, 0), ("b", 0.7, 0.4, 0));
        var open = Branched().Run("branch", "suck.c", "tail.a").Build();
        Assert.Contains("Air gets to pump", Task(open, "Use tank water").Words.Text, StringComparison.Ordinal);
        var valved = Branched().Part("valve-tail", "ball-valve", ("a", 0.7, 0.2, 0), ("b", 0.7, 0.25, 0)).Run("branch", "suck.c", "valve-tail.a")
            .Run("branch-2", "valve-tail.b", "tail.a").Build();
        Assert.Equal(["valve-by closed", "valve-tail closed"], Turned(Task(valved, "Use tank water")));
        var drawn = Task(valved, "Draw antifreeze");
        Assert.Equal(["valve-tail open", "valve-tank closed"], Turned(drawn).Order());
        Assert.Equal("The hose of a bottle on tail", Assert.Single(drawn.Gear).Words.Text);
    }
}
