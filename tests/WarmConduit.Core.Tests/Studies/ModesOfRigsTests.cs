using WarmConduit.Core.Advice.Modes;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Modes;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Tests.Rigs;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>Modes of the demo, of two heaters, of valves with three ways and of too many valves.</summary>
public class ModesOfRigsTests
{
    private static readonly Rig Lantern = DemoRigs.Of("lantern");

    private static Question Asked(Rig rig) => new(rig, Conditions.Of(rig.Brief) with { OutdoorC = -10, HeatOn = true, Water = WaterState.Wet });

    /// <summary>Two heaters side by side, each behind a valve, before one pump and two radiators, of which a valve with three ways lets fluid to one or the
    /// other, or to both.</summary>
    private static Rig TwoHeaters()
    {
        var rig = new RigBuilder()
            .Part("diesel", "coolant-heater", ("in", 0, 0.2, 0.1), ("out", 0, 0.5, 0.1))
            .Part("spare", "coolant-heater", ("in", 0.2, 0.2, 0.1), ("out", 0.2, 0.5, 0.1))
            .Part("v-diesel", "ball-valve", ("a", 0, 0.6, 0.1), ("b", 0, 0.7, 0.1))
            .Part("v-spare", "ball-valve", ("a", 0.2, 0.6, 0.1), ("b", 0.2, 0.7, 0.1))
            .Part("meet", "tee", ("a", 0, 0.8, 0.1), ("b", 0.4, 0.8, 0.1), ("c", 0.2, 0.8, 0.1))
            .Part("part", "tee", ("a", 0, 0.1, 0.1), ("b", 0.4, 0.1, 0.1), ("c", 0.2, 0.1, 0.1))
            .Part("pump", "circulator", ("in", 0.6, 0.8, 0.1), ("out", 0.7, 0.8, 0.1))
            .Part("three", "three-way-valve", ("common", 0.9, 0.8, 0.1), ("left", 0.95, 0.8, 0.1), ("right", 1, 0.8, 0.1))
            .Part("rad-a", "panel-radiator", ("in", 1.2, 0.8, 0.1), ("out", 1.2, 0.1, 0.1))
            .Part("rad-b", "panel-radiator", ("in", 1.5, 0.8, 0.1), ("out", 1.5, 0.1, 0.1))
            .Part("home", "tee", ("a", 1.2, 0.05, 0.1), ("b", 0.9, 0.05, 0.1), ("c", 1.5, 0.05, 0.1));
        foreach (var (id, from, to) in ((string, string, string)[])[
            ("1", "diesel.out", "v-diesel.a"), ("2", "v-diesel.b", "meet.a"), ("3", "spare.out", "v-spare.a"), ("4", "v-spare.b", "meet.c"),
            ("5", "meet.b", "pump.in"), ("6", "pump.out", "three.common"), ("7", "three.left", "rad-a.in"), ("8", "three.right", "rad-b.in"),
            ("9", "rad-a.out", "home.a"), ("10", "rad-b.out", "home.c"), ("11", "home.b", "part.b"),
            ("12", "part.a", "diesel.in"), ("13", "part.c", "spare.in")])
            rig = rig.Run($"r{id}", Service.Coolant, "epdm-5/8", from, to);
        return rig.Build();
    }

    [Fact]
    public void The_demo_has_its_eight_modes_and_each_is_what_its_positions_do()
    {
        var question = new Question(Lantern, Conditions.Of(Lantern.Brief));
        var answer = ModesStudy.Ask(question);
        Assert.Equal(8, answer.Modes.Count);
        Assert.Empty(answer.Missing);
        Assert.True(answer.Modes[0] is { InUse: true, Now: true, FirstIceS: null });
        foreach (var mode in answer.Modes)
        {
            var heat = RigHeat.Of(question.With(question.Conditions with { HeatSettings = mode.Settings }));
            // What is warmed is what has flow, and nothing else has any.
            Assert.Equal(heat.Acting.Where(p => !p.Heats().HeatsFluid && heat.ThroughM3PerS(p) > 1e-9).Select(p => p.Id).Order(),
                mode.Warms.Select(w => w.Id).Where(id => Lantern.Parts.Find(id) is not null).Order());
            Assert.Equal(mode.Sources.Count > 0, heat.Flow is not null);
            // A heater gives what is warmed, and what is lost on the way.
            Assert.True(mode.GivenW >= 0.98 * mode.Warms.Sum(w => w.MeanW) - 5, mode.Name);
            Assert.All(mode.Turns, t => Assert.Contains(t, mode.Settings));
        }
        // Whoever leaves the frost lines shut is told how soon.
        Assert.All(answer.Modes.Where(m => m.Warms.All(w => w.Group != HeatGroup.Frost)), m => Assert.InRange(m.FirstIceS ?? double.NaN, 60, 3600));
        // The table names each valve, the pump and the heater.
        Assert.Equal(["circulator", "heater", "valve-coil", "valve-grey", "valve-living", "valve-trace", "valve-wet"], answer.Turned);
    }

    [Fact]
    public void A_mode_that_is_looked_at_is_told_though_it_warms_no_whole_group()
    {
        var question = new Question(Lantern, Conditions.Of(Lantern.Brief) with { HeatSettings = [new("valve-wet", "closed")] });
        var answer = ModesStudy.Ask(question);
        var now = Assert.Single(answer.Modes, m => m.Now);
        Assert.Equal("As set here", now.Name);
        Assert.Equal(new Setting("valve-wet", "closed"), Assert.Single(now.Turns));
        Assert.DoesNotContain(now.Warms, w => w.Id == "rad-wet");
    }

    [Fact]
    public void Each_of_two_heaters_has_its_modes_and_the_other_is_off()
    {
        var rig = TwoHeaters();
        Assert.Empty(RigCheck.Check(rig));
        var modes = ModesStudy.Ask(Asked(rig)).Modes;
        foreach (string heater in (string[])["diesel", "spare"])
        {
            var mode = Assert.Single(modes, m => m.Name == $"{heater}: rooms alone");
            Assert.Equal([heater], mode.Sources);
            Assert.Equal(2, mode.Warms.Count);
            string other = heater == "diesel" ? "spare" : "diesel";
            Assert.Contains(new Setting(other, "off"), mode.Settings);
            Assert.True(mode.GivenW > 50);
        }
    }

    [Fact]
    public void A_valve_with_three_ways_lets_to_each_radiator_alone()
    {
        var rig = TwoHeaters();
        var finder = new ModeFinder(Asked(rig));
        Assert.Equal(finder.Settings, finder.All().Count());
        var found = finder.Find(CancellationToken.None);
        Assert.Contains(found, m => m.Sinks.SequenceEqual(["rad-a"]));
        Assert.Contains(found, m => m.Sinks.SequenceEqual(["rad-b"]));
        Assert.Contains(found, m => m.Sinks.SequenceEqual(["rad-a", "rad-b"]));
    }

    [Fact]
    public void A_valve_that_is_half_open_stays_so_and_one_that_throttles_takes_flow()
    {
        string use = Lantern.ScenarioOf(ScenarioKind.InUse).Id;
        var half = Editor.Apply(Lantern, [new SetPosition(use, "valve-grey", Positions.HalfOpen)]).Rig;
        var question = new Question(half, Conditions.Of(half.Brief));
        var modes = ModesStudy.Ask(question).Modes;
        Assert.Contains(new Setting("valve-grey", Positions.HalfOpen), Assert.Single(modes, m => m.Name == "Hot water and frost protection").Settings);
        Assert.Contains(new Setting("valve-grey", Positions.Closed), Assert.Single(modes, m => m.Name == "Rooms alone").Settings);
        double Grey(Rig rig) => RigHeat.Of(new Question(rig, Conditions.Of(rig.Brief))) is var heat ? heat.ThroughM3PerS(rig.Parts.Find("coil-grey")!) : 0;
        Assert.True(Grey(half) < Grey(Lantern));
    }

    [Fact]
    public void With_too_many_valves_those_with_the_fewest_turns_are_gone_through_and_that_is_said()
    {
        var rig = new RigBuilder().Part("heater", "coolant-heater", ("in", 0, 0.2, 0.1), ("out", 0, 0.5, 0.1))
            .Part("pump", "circulator", ("in", 0.2, 0.5, 0.1), ("out", 0.3, 0.5, 0.1)).Part("rad", "panel-radiator", ("in", 9, 0.5, 0.1), ("out", 9, 0.2, 0.1))
            .Run("a", Service.Coolant, "epdm-5/8", "heater.out", "pump.in").Run("z", Service.Coolant, "epdm-5/8", "rad.out", "heater.in");
        string from = "pump.out";
        for (int v = 0; v < 13; v++)
        {
            rig = rig.Part($"v{v:00}", "ball-valve", ("a", 0.5 + (0.5 * v), 0.5, 0.1), ("b", 0.6 + (0.5 * v), 0.5, 0.1))
                .Run($"to{v}", Service.Coolant, "epdm-5/8", from, $"v{v:00}.a");
            from = $"v{v:00}.b";
        }
        var finder = new ModeFinder(Asked(rig.Run("last", Service.Coolant, "epdm-5/8", from, "rad.in").Build()));
        Assert.False(finder.Exhaustive);
        var sets = finder.All().ToList();
        Assert.Equal(1 << ModeFinder.MostTurnable, sets.Count);
        int[] turns = [.. sets.Select(s => s.Where((o, t) => o != finder.First[t]).Count())];
        Assert.Equal(turns.Order(), turns);
        Assert.Equal(sets.Count, sets.Select(s => string.Join(',', s)).Distinct().Count());
        // In line, all have to be open.
        Assert.Equal(0, Assert.Single(finder.Find(CancellationToken.None)).Turns);
        var answer = ModesStudy.Ask(Asked(rig.Build()));
        Assert.Contains("too many positions", answer.Searched!.Text, StringComparison.Ordinal);
    }

    [Fact]
    public void Without_a_heater_or_a_line_there_is_nothing_to_set()
    {
        var sparrow = DemoRigs.Of("sparrow");
        var answer = ModesStudy.Ask(Asked(sparrow));
        Assert.Empty(answer.Modes);
        Assert.Null(answer.Searched);
        var removed = Editor.Apply(Lantern with { Scenarios = Lantern.Scenarios }, [new RemoveThing("scenarios/mode-away")]).Rig;
        Assert.Null(removed.Scenarios.Find("mode-away"));
        Assert.Throws<RigFileException>(() => Editor.Apply(Lantern, [new RemoveThing("scenarios/in-use")]));
        // A valve that is gone is gone from the modes too.
        var without = Editor.Apply(Lantern, [new RemoveThing("parts/valve-coil")]).Rig;
        Assert.DoesNotContain(without.Scenarios.Find("mode-away")!.Settings, s => s.Id == "valve-coil");
    }
}
