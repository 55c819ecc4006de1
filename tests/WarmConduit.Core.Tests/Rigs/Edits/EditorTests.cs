using System.Text.Json.Nodes;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Tests.Rigs.Edits;

/// <summary>Each edit on the demo rig, with its effect and its words.</summary>
public class EditorTests
{
    private static readonly Rig Sparrow = RigFileTests.Sparrow;

    private static Edited Do(params Edit[] edits) => Editor.Apply(Sparrow, edits);

    private static string Said(Edited done, UnitSystem system = UnitSystem.Metric) => done.Words[0].Print(system);

    private static void Refused(string field, string reason, params Edit[] edits)
    {
        var fault = Assert.Throws<RigFileException>(() => Editor.Apply(Sparrow, edits)).Faults[0];
        Assert.Equal(field, fault.Path);
        Assert.Contains(reason, fault.Reason, StringComparison.Ordinal);
    }

    [Fact]
    public void Every_stock_part_is_complete_when_placed()
    {
        foreach (var stock in Catalogue.Parts)
        {
            var part = Do(new PlacePart("new", stock.Id, "new part", new Point3(1, 1, 0.5))).Rig.Parts.Find("new")!;
            Assert.Equal(stock.Size, part.Box.Size);
            Assert.All(part.Ports, p => Assert.True(p is { BoreM: > 0, Facing: not null, Role: not null } && part.Box.OutsideM(part.Box.At + p.Offset) == 0));
            Assert.True(stock.MassKg > 0 || stock.Passage == Passage.OpenEnd);
            // What moves or heats the fluid of a circuit lets it through at rest, and is set all the same.
            Assert.Equal(stock.Passage is Passage.Valve or Passage.Mixer or Passage.Pump or Passage.Drain
                || stock.Id is "circulator" or "coolant-heater" or "pumped-coolant-heater" or "loop-element" or "engine", stock.Positions.Count > 0);
            // Placed turned, its ports are on its box still.
            var turned = Do(new PlacePart("new", stock.Id, "new part", new Point3(1, 1, 0.5), new Orientation(1, true, true))).Rig.Parts.Find("new")!;
            Assert.All(turned.Ports, p => Assert.True(turned.Box.OutsideM(turned.Box.At + p.Offset) < 1e-6));
            Assert.Equal(new Point3(1, 1, 0.5), turned.Box.At);
        }
    }

    [Fact]
    public void Words_are_in_the_readers_units_and_a_name_with_braces_stays_a_name()
    {
        var raised = Do(new MoveThings(["runs/kitchen-cold/bends/b2"], new Point3(0, 0, 0.0127)));
        Assert.Equal("Raised kitchen cold, bend 2 by 13 mm", Said(raised));
        Assert.Equal("Raised kitchen cold, bend 2 by 1/2 in", Said(raised, UnitSystem.UsCustomary));
        // A drag sets the place as a value; it is told alike.
        var dragged = Do(new ChangeThing("runs/kitchen-cold/bends/b2", new JsonObject { ["at"] = JsonNode.Parse("""{"xM":2.74,"yM":1.64,"zM":0.2}""") }));
        Assert.Equal("Lowered kitchen cold, bend 2 by 10 mm", Said(dragged));
        Assert.Equal("Content of filter: 0.40 gal", Said(Do(new ChangeThing("parts/filter", new JsonObject { ["holdsL"] = 1.5 })), UnitSystem.UsCustomary));
        Assert.Equal("Removed {0}", Editor.Apply(Do(new ChangeThing("runs/drain-a-spigot", new JsonObject { ["name"] = "{0}" })).Rig,
            [new RemoveThing("runs/drain-a-spigot")]).Words[0].Print(UnitSystem.Metric));
        Assert.Equal("Lowest temperature of the brief: −12.0 °C", Said(Do(new ChangeThing("brief", new JsonObject { ["lowestC"] = -12 }))));
        Assert.Equal("Drain: heater bypass valve closed", Said(Do(new SetPosition("drain", "valve-heater", "closed")))
            .Replace(Sparrow.Parts.Find("valve-heater")!.Name, "heater bypass valve", StringComparison.Ordinal));
    }

    [Fact]
    public void What_hangs_on_a_removed_thing_goes_with_it_and_is_listed()
    {
        var done = Do(new RemoveThing("parts/valve-bypass"));
        Assert.Equal(["parts/valve-bypass", "runs/bypass-lower", "runs/bypass-upper", "scenarios/drain/settings/valve-bypass"],
            done.Effect.Removed.Select(r => r.Path()).Order());
        var zone = Do(new RemoveThing("shell/zones/underfloor"));
        Assert.Equal(4, zone.Effect.Removed.Count);
        Assert.DoesNotContain(zone.Rig.Shell.Zones.SelectMany(z => z.Faces), f => f.Towards == "underfloor");
        Assert.Contains("3 faces and openings", Said(zone), StringComparison.Ordinal);
    }

    [Fact]
    public void An_even_fall_is_even_between_what_stays_and_one_height_is_that_of_the_first()
    {
        foreach (var run in Sparrow.Runs.Where(r => r.Bends.Count > 0))
        {
            var done = Do(new GradeThings([$"runs/{run.Id}"], Grading.Even));
            var (before, after) = (new RigIndex(Sparrow).CourseOf(run), new RigIndex(done.Rig).CourseOf(done.Rig.Runs.Find(run.Id)!));
            Assert.Equal((before[0], before[^1]), (after[0], after[^1]));
            double Drop(int i) => after[i].ZM - after[i - 1].ZM;
            double Level(int i) => (after[i] with { ZM = 0 }).DistanceM(after[i - 1] with { ZM = 0 });
            double fall = (after[^1].ZM - after[0].ZM) / Enumerable.Range(1, after.Length - 1).Sum(Level);
            for (int i = 1; i < after.Length; i++) Assert.Equal(fall * Level(i), Drop(i), 3e-4);
            Assert.StartsWith("Even fall of " + run.Name, Said(done), StringComparison.Ordinal);
        }
        // An end at a tee takes the tee along, a tank stays, its port is put elsewhere.
        var tank = Sparrow.Parts.Find("tank")!;
        var line = Sparrow.Runs.First(r => r.From.Part == tank.Id);
        string[] things = ["parts/filter", $"runs/{line.Id}/from", $"runs/{line.Id}/to", $"parts/tank/ports/{tank.Ports[0].Id}"];
        var level = Do(new GradeThings(things, Grading.Level)).Rig;
        double first = Sparrow.Parts.Find("filter")!.Box.At.ZM;
        Assert.Equal(tank.Box, level.Parts.Find("tank")!.Box);
        Assert.Equal(Math.Clamp(first, tank.Box.At.ZM, tank.Box.At.ZM + tank.Box.Size.ZM), level.Parts.Find("tank")!.PortAt(tank.Ports[0].Id)!.Value.ZM, 1e-4);
        Assert.Equal(first, new RigIndex(level).CourseOf(level.Runs.Find(line.Id)!)[^1].ZM, 1e-4);
        Refused("edits[0].things[1]", "no", new GradeThings(["parts/filter", "parts/no"], Grading.Level));
        Refused("edits[0].things", "two things", new GradeThings(["parts/filter"], Grading.Level));
    }

    [Fact]
    public void A_tee_joins_both_halves_of_a_run_and_both_are_as_the_run_was()
    {
        var done = Do(new PutTee("kitchen-cold", "b1", new Point3(2.6, 1.5, 0.3), "t1", "tap tee", "kitchen-cold-on"));
        // Two halves have two names.
        Assert.Equal(["kitchen cold", "kitchen cold 2"], done.Rig.Runs.Where(r => r.Id.StartsWith("kitchen-cold", StringComparison.Ordinal))
            .Select(r => r.Name));
        var (first, second) = (done.Rig.Runs.Find("kitchen-cold")!, done.Rig.Runs.Find("kitchen-cold-on")!);
        var was = Sparrow.Runs.Find("kitchen-cold")!;
        Assert.Equal((new RunEnd("t1", "a"), new RunEnd("t1", "b"), was.To), (first.To, second.From, second.To));
        Assert.Equal(was.Bends, [.. first.Bends, .. second.Bends]);
        Assert.Equal((was.Pipe, was.Service), (second.Pipe, second.Service));
        var tee = done.Rig.Parts.Find("t1")!;
        Assert.Equal(0, tee.PortAt("a")!.Value.Towards(tee.PortAt("b")!.Value, 0.5).DistanceM(new Point3(2.6, 1.5, 0.3)), 6);
    }

    [Fact]
    public void What_cannot_be_done_is_refused_at_its_place_with_the_reason_and_all_or_none_is_done()
    {
        Refused("edits", "0 edits");
        Refused("edits[0].partId", "no part 'ghost'", new TurnPart("ghost", 1));
        Refused("edits[1].things[0]", "nothing at 'runs/x/bends/y'", new RemoveThing("parts/filter"), new MoveThings(["runs/x/bends/y"], default));
        Refused("edits[0].things[0]", "move the part", new MoveThings(["runs/kitchen-cold/from"], new Point3(0, 0, 1)));
        Refused("edits[0].partId", "used already", new PlacePart("pump", "tee", "x", default));
        Refused("edits[0].stock", "no stock part 'samovar'", new PlacePart("new", "samovar", "x", default));
        Refused("edits[0].partId", "lower-case", new PlacePart("Pump\n", "tee", "x", default));
        Refused("edits[0].position", "open, half-open, closed", new SetPosition("drain", "valve-tank", "ajar"));
        Refused("edits[0].position", "has no positions", new SetPosition("drain", "tank", "open"));
        Refused("edits[0].after", "no bend 'b9'", new InsertBend("kitchen-cold", new Bend("n", default), "b9"));
        Refused("edits[0].thing", "standard scenarios", new RemoveThing("scenarios/drain"));
        Refused("edits[0].thing", "nothing at 'brief'", new RemoveThing("brief"));
        Refused("edits[0].list", "no list", new AddThing("shell/zones/garage/layers", new JsonObject { ["id"] = "x" }));
        Refused("edits[0].people", "does not fit", new ChangeThing("brief", new JsonObject { ["people"] = "many" }));
        Refused("brief.people", "between 1 and 20", new ChangeThing("brief", new JsonObject { ["people"] = 0 }));
        Refused("parts/tank.holdsL", "more than 0 L", new ChangeThing("parts/tank", new JsonObject { ["holdsL"] = 0 }));
        Refused("parts/tank.ports[0].offset", "off its part", new ChangeThing("parts/tank/ports/fill",
            new JsonObject { ["offset"] = JsonNode.Parse("""{"xM":29,"yM":0,"zM":0}""") }));
        Refused("parts/pump.ports", "'in' and 'out'", new RemoveThing("parts/pump/ports/in"));
    }

    [Fact]
    public void A_rig_may_begin_with_nothing_and_every_state_of_its_drawing_can_be_asked_about()
    {
        var empty = Sparrow with
        {
            Parts = [],
            Runs = [],
            ByHand = [],
            Prices = [],
            Scenarios = Scenarios.Standard,
            Shell = Sparrow.Shell with { Zones = [], Obstacles = [] }
        };
        Assert.Empty(RigCheck.Check(empty));
        Edit[] steps =
        [
            new AddThing("runs", (JsonObject)JsonNode.Parse("""{"id":"line","name":"line","service":"cold","pipe":"pex-1/2","from":{"at":{"xM":0,"yM":0,"zM":0.5}},"to":{"at":{"xM":2,"yM":0,"zM":0.2}},"bends":[]}""")!),
            new PlacePart("foot", "drain-cock", "foot", new Point3(2, 0, 0.19)),
            new ChangeThing("runs/line", new JsonObject { ["to"] = JsonNode.Parse("""{"part":"foot","port":"in"}""") }),
            new PlacePart("tap", "mixer", "tap", new Point3(0, 0, 0.5)),
            new ChangeThing("runs/line", new JsonObject { ["from"] = JsonNode.Parse("""{"part":"tap","port":"cold"}""") }),
        ];
        int[] loose = [2, 2, 1, 1, 0];
        var rig = empty;
        for (int i = 0; i < steps.Length; i++)
        {
            rig = Editor.Apply(rig, [steps[i]]).Rig;
            var findings = Tests.Studies.Asking.Findings(rig, Core.Studies.Conditions.Of(rig.Brief));
            Assert.Equal(loose[i], findings.Count(f => f.Kind == Core.Advice.FindingKind.LooseEnd));
        }
        Assert.Equal(0, Tests.Studies.Asking.Drained(rig).Stays.PoolsL, 6);
    }
}
