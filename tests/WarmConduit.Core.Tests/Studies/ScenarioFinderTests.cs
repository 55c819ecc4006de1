using WarmConduit.Core.Advice.Tasks;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Scenarios;
using WarmConduit.Core.Tests.Rigs;

namespace WarmConduit.Core.Tests.Studies;

public class ScenarioFinderTests
{
    /// <summary>A tank, a pump, a hose from outside, taps, drains and up to twelve things to turn, joined at random.</summary>
    private static Rig Random(Random random)
    {
        var b = new RigBuilder().Tank("tank", new Box(new(0, 0, 0), new(0.5, 0.5, 0.3)), ("outlet", 0.5, 0, 0))
            .Part("pump", "pump", ("in", 0.8, 0, 0), ("out", 1, 0, 0)).Part("town", "town-coupling", ("in", 0, 3, 0), ("out", 0.1, 3, 0));
        var ports = new List<string> { "tank.outlet", "pump.in", "pump.out", "town.out" };
        int valves = random.Next(2, 8), threes = random.Next(0, 2), drains = random.Next(0, 3), tees = random.Next(2, 7);
        (double, double, double) At() => (Math.Round(3 * random.NextDouble(), 3), Math.Round(3 * random.NextDouble(), 3), 0.2);
        void Add(string id, string stock, params string[] names)
        {
            var (x, y, z) = At();
            b.Part(id, stock, [.. names.Select((n, i) => (n, x + 0.03 * i, y, z))]);
            ports.AddRange(names.Where(n => n != "spout").Select(n => $"{id}.{n}"));
        }
        for (int i = 0; i < valves; i++) Add($"valve-{i}", "ball-valve", "a", "b");
        for (int i = 0; i < threes; i++) Add($"three-{i}", "three-way-valve", "common", "left", "right");
        for (int i = 0; i < drains; i++) Add($"drain-{i}", "drain-cock", "in");
        for (int i = 0; i < tees; i++) Add($"tee-{i}", "tee", "a", "b", "c");
        Add("check", "check-valve", "in", "out");
        Add("tap-1", "cold-tap", "cold", "spout");
        Add("tap-2", "cold-tap", "cold", "spout");
        for (int i = ports.Count - 1; i > 0; i--)
        {
            int k = random.Next(i + 1);
            (ports[i], ports[k]) = (ports[k], ports[i]);
        }
        for (int i = 0; i + 1 < ports.Count; i += 2)
            if (ports[i].Split('.')[0] != ports[i + 1].Split('.')[0]) b.Run($"run-{i}", ports[i], ports[i + 1]);
        return b.Build();
    }

    // Every position of everything, the fewest turns of those that do it.
    private static int? Exhaustive(WayGraph graph, IReadOnlyList<WayClause> clauses, int[] first)
    {
        int? best = null;
        var set = (int[])first.Clone();
        void Try(int at, int turns)
        {
            if (turns >= best) return;
            if (at == graph.Settable.Count)
            {
                if (ScenarioFinder.FaultOf(graph, clauses, set) is null) best = turns;
                return;
            }
            int part = graph.Settable[at];
            for (int k = 0; k < graph.PositionsOf(part).Count; k++)
            {
                set[part] = k;
                Try(at + 1, turns + (k == first[part] ? 0 : 1));
            }
            set[part] = first[part];
        }
        Try(0, 0);
        return best;
    }

    [Fact]
    public void It_finds_as_few_turns_as_trying_every_position_does()
    {
        var random = new Random(11);
        int done = 0, without = 0, turned = 0;
        for (int n = 0; n < 300; n++)
        {
            var rig = Random(random);
            var question = new Question(rig, Conditions.Of(rig.Brief));
            var found = FoundTasks.Of(question);
            if (found.Graph.Settable.Count > 12) continue;
            string Any(params string[] ids) => ids[random.Next(ids.Length)];
            string[] all = [.. found.Graph.Parts.Select(p => p.Id)];
            var own = new Scenario("own", "Own", ScenarioKind.Own, [], new ScenarioGoal([Any("tank", "town")], [Any("tap-1", "tap-2", "tank")],
                [Any(all), Any(all)]));
            foreach (var clauses in Enum.GetValues<TaskKind>().Select(k => found.Goals.Of(k, k == TaskKind.Own ? own : null)).Where(c => c.Count > 0))
            {
                // From positions at random, so that there is much to turn.
                int[] first = [.. Enumerable.Range(0, found.Graph.Parts.Count).Select(p => random.Next(Math.Max(1, found.Graph.PositionsOf(p).Count)))];
                int? best = Exhaustive(found.Graph, clauses, first);
                int[]? set = ScenarioFinder.Find(found.Graph, clauses, first, new HashSet<int>(), mostTurns: 12);
                Assert.Equal(best, set is null ? null : found.Graph.Settable.Count(p => set[p] != first[p]));
                if (set is not null) Assert.Null(ScenarioFinder.FaultOf(found.Graph, clauses, set));
                (done, without, turned) = (done + 1, without + (best is null ? 1 : 0), turned + (best > 1 ? 1 : 0));
            }
        }
        // Enough of each kind that the comparison says something.
        Assert.True(done > 500 && without > 50 && turned > 100, $"{done} {without} {turned}");
    }

    [Fact]
    public void The_demo_rigs_are_set_for_what_they_have()
    {
        TasksAnswer Of(string name)
        {
            var rig = DemoRigs.Of(name);
            return TaskStudy.Ask(new Question(rig, Conditions.Of(rig.Brief)));
        }
        var sparrow = Of("sparrow").Tasks.Single(t => t.Kind == TaskKind.Tank);
        Assert.True(sparrow.Can);
        // Left open, the pump's bypass would feed its own suction.
        Assert.Equal([new Setting("valve-bypass", "closed")], sparrow.Turns);
        var lantern = Of("lantern").Tasks;
        Assert.All(lantern.Where(t => t.Kind is TaskKind.Tank or TaskKind.Town or TaskKind.PumpOut or TaskKind.BlowOut), t => Assert.True(t.Can));
        Assert.Contains(lantern.Single(t => t.Kind == TaskKind.Town).Turns, t => t == new Setting("pump", "off"));
        Assert.True(Of("tern").Tasks.Single(t => t.Kind == TaskKind.BypassHeater).Can);
    }

    [Fact]
    public void What_the_builder_has_set_is_kept_and_a_valve_that_is_missing_is_found_with_its_place()
    {
        // A hose that also fills the tank: nothing stops it where the pump line joins.
        var rig = new RigBuilder().Tank("tank", new Box(new(0, 0, 0), new(0.5, 0.5, 0.3)), ("outlet", 0.5, 0, 0))
            .Part("join", "tee", ("a", 1.5, 0, 0), ("b", 1.6, 0, 0), ("c", 1.5, 0.1, 0)).Part("town", "town-inlet", ("in", 1.5, 1, 0), ("out", 1.5, 0.9, 0))
            .Part("tap", "cold-tap", ("cold", 3, 0, 1), ("spout", 3, 0, 1.2)).Run("from-tank", "tank.outlet", "join.a").Run("to-tap", "join.b", "tap.cold")
            .Run("town-line", "town.out", "join.c").Build();
        TaskSetting Town(Rig of) => TaskStudy.Ask(new Question(of, Conditions.Of(of.Brief))).Tasks.Single(t => t.Kind == TaskKind.Town);
        var town = Town(rig);
        Assert.False(town.Can);
        Assert.Contains("tank", town.Words.Text, StringComparison.Ordinal);
        Assert.Equal("Place a valve in from-tank", town.Mend!.Words.Text);
        var mended = Editor.Apply(rig, town.Mend.Edits).Rig;
        Assert.Empty(RigCheck.Check(mended));
        var after = Town(mended);
        Assert.True(after.Can);
        Assert.Equal("closed", Assert.Single(after.Turns).Position);
        // Set open by its builder, it is left open, and the task says that this is why it cannot be done, and how it can.
        var kept = Editor.Apply(mended, [new SetPosition("town-water", after.Turns[0].Id, "open")]).Rig;
        Assert.False(Town(kept).Can);
        Assert.Contains("In “Town water”, valve in from-tank open. Town water gets into tank.", Town(kept).Words.Text, StringComparison.Ordinal);
        Assert.True(Town(Editor.Apply(kept, Town(kept).Mend!.Edits).Rig).Can);
    }
}
