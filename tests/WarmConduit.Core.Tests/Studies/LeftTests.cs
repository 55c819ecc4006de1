using System.Text.Json.Nodes;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Heat;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Studies.DrainOrder;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Left;
using WarmConduit.Core.Tests.Rigs;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>The state of a rig: from what was done, what was not, and what jugs took.</summary>
public class LeftTests
{
    private static readonly DateTimeOffset Evening = new(2026, 11, 1, 18, 0, 0, TimeSpan.Zero);

    private static Rig After(Rig rig, params IEnumerable<string> done) =>
        rig with { Left = [.. done.Select((d, n) => new LeftAct($"a{n}", LeftActKind.Done, Evening.AddMinutes(n), $"parts/{d}"))] };

    private static Question Ask(Rig rig, WaterState water = WaterState.AsLeft) => new(rig, Conditions.Of(rig.Brief) with { Water = water, HeatOn = false });

    private static LeftAnswer Told(Rig rig) => Ask(rig).Ask(LeftStudy.Ask);

    private static IEnumerable<string> Steps(Rig rig) => DrainOrderStudy.Ask(Ask(rig, WaterState.Drained)).Steps.SelectMany(s => s.PartIds).Distinct();

    private static IEnumerable<Rig> Rigs() => Enumerable.Range(1, 25).Select(n => AnyRig.Of(n)).Append(DemoRigs.Of("sparrow")).Append(DemoRigs.Of("tern"));

    private static List<(string, double, double?)> Ladder(Rig rig, WaterState water) =>
        [.. Ask(rig, water).Ask(FreezeLadderStudy.Ask).Rungs.Select(r => (r.Id, r.WaterL, r.FirstIceS))];

    /// <summary>Full and drained are two such states, to the bit.</summary>
    [Fact]
    public void With_nothing_done_it_is_full_and_with_all_done_it_is_drained()
    {
        foreach (var rig in Rigs())
        {
            Assert.Equal(Ladder(rig, WaterState.Wet), Ladder(After(rig), WaterState.AsLeft));
            var all = After(rig, Steps(rig));
            Assert.Equal(Ladder(rig, WaterState.Drained), Ladder(all, WaterState.AsLeft));
            // The sum that every screen tells.
            Assert.Equal(Ask(rig).Ask(DrainDownStudy.Ask).Stays.TotalL, Told(all).StaysL, 1e-9);
            Assert.Empty(Told(all).NotDone);
            // Filling ends it; what is done after that counts again.
            var filled = all with { Left = [.. all.Left!, new LeftAct("filled", LeftActKind.Filled, Evening.AddDays(1))] };
            Assert.Equal(Ladder(rig, WaterState.Wet), Ladder(filled, WaterState.AsLeft));
            Assert.Equal((Evening.AddDays(1), null), (Told(filled).Filled, Told(filled).At));
        }
    }

    /// <summary>SurfaceContacts the list of what is forgotten, which is worked out by itself.</summary>
    [Fact]
    public void What_one_step_forgotten_leaves_is_in_it()
    {
        int tried = 0;
        foreach (var rig in Rigs())
        {
            var order = DrainOrderStudy.Ask(Ask(rig, WaterState.Drained));
            var steps = Steps(rig).ToList();
            double drained = Ask(rig, WaterState.Drained).Ask(LeftWater.Of) is var none ? Litres(none) : 0;
            foreach (var forgotten in order.Forgets.Where(f => rig.ByHand.Find(f.PartId) is null).Take(3))
            {
                var left = After(rig, steps.Where(s => s != forgotten.PartId));
                Assert.Equal(drained + forgotten.MoreL, Litres(Ask(left).Ask(LeftWater.Of)), 1e-6);
                Assert.Contains(Told(left).NotDone, p => p.PartId == forgotten.PartId);
                tried++;
            }
        }
        Assert.True(tried > 30);
    }

    private static double Litres(LeftWater left) => Enumerable.Range(0, left.Runs.Count).Sum(left.LitresIn) + left.Parts.Sum(p => p.AllL);

    [Fact]
    public void What_a_jug_lacks_is_still_in_it()
    {
        int tried = 0;
        foreach (var rig in Rigs())
        {
            var steps = Steps(rig).ToList();
            var all = After(rig, steps);
            double drained = Litres(Ask(all).Ask(LeftWater.Of));
            foreach (var act in all.Left!)
            {
                Rig Jug(double litres) => all with { Left = [.. all.Left.Select(a => a.Id == act.Id ? a with { OutL = litres } : a)] };
                var reading = Told(Jug(0)).Readings.Single();
                if (!reading.IsShort) continue;
                tried++;
                // A jug as full as it should be changes nothing; an empty one leaves no less than is missing.
                Assert.Equal(drained, Litres(Ask(Jug(reading.ExpectedL)).Ask(LeftWater.Of)), 1e-9);
                var missing = Ask(Jug(0)).Ask(LeftWater.Of);
                Assert.True(Litres(missing) >= drained + reading.ExpectedL - 1e-3, $"{rig.Name} {act.Thing}");
                Assert.All(missing.Runs.Zip(Ask(all).Ask(LeftWater.Of).Runs), r => Assert.True(r.First.StaysL >= r.Second.StaysL));
                // The list of what may be behind it expects as much.
                Assert.Equal(reading.ExpectedL, ProofStudy.Ask(Ask(Jug(0)), new(reading.PartId, 0)).ExpectedL, 1e-9);
            }
        }
        Assert.True(tried > 40);
    }

    /// <summary>Drained for some hours and filled again, it is full, whatever was opened in the evening.</summary>
    [Fact]
    public void A_filling_in_the_course_of_the_night_ends_it_too()
    {
        var rig = After(DemoRigs.Of("tern"), Steps(DemoRigs.Of("tern")));
        PlanEvent[] drained = [new("drained", PlanEventKind.Drained, 1, 2)];
        var night = Conditions.Of(rig) with { HeatOn = false, Hours = 12, Events = drained };
        Assert.Equal(
            [WaterState.AsLeft, WaterState.Drained, WaterState.Wet],
            WarmConduit.Core.Studies.Night.NightCourse.Of(night, 12 * 3600).Select(s => s.Water));
    }

    private static Rig Line() => new RigBuilder().Part("tap", "open-end", ("end", 0, 0, 0.6)).Part("foot", "drain-cock", ("in", 3, 0, 0.2))
        .Run("line", "tap.end", "foot.in").Build();

    private static Rig Antifreeze(Rig rig, params (string Thing, double Glycol)[] of) =>
        rig with { Left = [.. of.Select((g, n) => new LeftAct($"g{n}", LeftActKind.Antifreeze, Evening.AddMinutes(n), g.Thing, Glycol: g.Glycol))] };

    /// <summary>Cooling in constant still air, stepped by the second; half a kelvin either way of its freezing point.</summary>
    [Theory]
    [InlineData(0.3, -20)]
    [InlineData(0.3, -14)]
    [InlineData(0.15, -6)]
    [InlineData(0.5, -40)]
    public void Antifreeze_has_first_ice_at_its_freezing_point_never_later(double glycol, double airC)
    {
        var rig = Antifreeze(Line(), ("runs/line", glycol));
        var night = new Conditions(airC, 0, false, 10, WaterState.AsLeft, 22, 24, Attitude.Level, InsideC: airC);
        var told = rig.Ladder(night).Rungs.Single(r => r.RunId == "line");
        var pipe = Catalogue.Pipe("pex-1/2")!;
        var section = new PipeSection(pipe.InnerDiameterM, pipe.OuterDiameterM, pipe.ConductivityWPerMK);
        double capacity = (pipe.BoreM2() * 1000 * GlycolWater.HeatCapacityJPerKgK(GlycolWater.MassFraction(glycol), 0)) + pipe.WallJPerMK(),
            celsius = 10, seconds = 0;
        for (; celsius > GlycolWater.FreezingC(glycol); seconds++) celsius -= PipeHeat.Steady(section, celsius, airC, 0).LossWPerM / capacity;
        Assert.InRange(told.FirstIceS!.Value, (0.98 * seconds) - 115, 1.005 * seconds);
        // Warmer than that nothing happens, however long.
        Assert.Null(rig.Ladder(night with { OutdoorC = GlycolWater.FreezingC(glycol) + 0.5, InsideC = GlycolWater.FreezingC(glycol) + 0.5 }).Rungs.Single(r =>
            r.RunId == "line").FirstIceS);
        Assert.Equal(airC < GlycolWater.BurstProtectionC(glycol), told.State == IceState.Solid);
    }

    [Fact]
    public void The_word_is_that_of_the_worst_piece()
    {
        Assert.Equal(LeftWord.Wet, Told(After(Line())).Word);
        var emptied = Told(After(Line(), "foot"));
        Assert.Equal((LeftWord.Drained, 0.0), (emptied.Word, emptied.StaysL));
        var half = Told(Antifreeze(Line(), ("runs/line", 0.3)));
        Assert.Equal(LeftWord.Wet, half.Word);
        Assert.Equal("parts/foot", half.Things[0].Thing);
        // Both: the weaker one says how far.
        var both = Told(Antifreeze(Line(), ("runs/line", 0.4), ("parts/foot", 0.3)));
        Assert.Equal((LeftWord.Protected, GlycolWater.FreezingC(0.3)), (both.Word, both.ProtectedC));
        // What came last counts.
        Assert.Equal(LeftWord.Wet, Told(Antifreeze(Line(), ("runs/line", 0.4), ("parts/foot", 0.3), ("parts/foot", 0))).Word);
    }

    [Fact]
    public void It_is_edited_like_all_else_and_goes_with_what_it_was_done_to()
    {
        var rig = DemoRigs.Of("sparrow");
        string drain = Steps(rig).First();
        JsonObject Act(string id, string thing, string more = "") =>
            (JsonObject)JsonNode.Parse($$"""{"id":"{{id}}","kind":"done","at":"2026-11-01T18:00:00Z","thing":"{{thing}}"{{more}}}""")!;
        var done = Editor.Apply(rig, [new AddThing("left", Act("one", $"parts/{drain}", ""","outL":2.5"""))]);
        Assert.Equal(2.5, done.Rig.Left!.Single().OutL);
        Assert.Equal([$"Done: {rig.Parts.Find(drain)!.Name}"], done.Words.Select(w => w.Text));
        Assert.Equal(WaterState.AsLeft, Conditions.Of(done.Rig).Water);
        Assert.Null(Editor.Apply(done.Rig, done.Inverse).Rig.Left);
        var gone = Editor.Apply(done.Rig, [new RemoveThing($"parts/{drain}")]);
        Assert.Null(gone.Rig.Left);
        Assert.Equal(done.Rig.Left, Editor.Apply(gone.Rig, gone.Inverse).Rig.Left);
        string Refused(string id, string thing, string more = "") => Assert.Throws<RigFileException>(() =>
            Editor.Apply(rig, [new AddThing("left", Act(id, thing, more))])).Faults[0].Path;
        Assert.Equal(["left/a.thing", "left/b.thing", "left/c.outL", "left/d.glycol"],
            [Refused("a", "parts/none"), Refused("b", $"runs/{rig.Runs[0].Id}"), Refused("c", $"parts/{drain}", ""","outL":-1"""),
            Refused("d", $"parts/{drain}", ""","glycol":0.3""")]);
    }
}
