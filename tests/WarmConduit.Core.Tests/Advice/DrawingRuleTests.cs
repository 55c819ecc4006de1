using System.Text.Json.Nodes;
using WarmConduit.Core.Advice;
using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Levels;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Rigs.Starting;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Holds;

namespace WarmConduit.Core.Tests.Advice;

/// <summary>What is told while a rig is drawn: a sound van, one thing wrong with it at a time, and the mend that goes with it.</summary>
public class DrawingRuleTests
{
    private static readonly Rig Sound = Start.Make(new NewRig("Test", 3.7, 1.75, 1.9, WayOfLiving.Weekends, FreezeSchool.Drain, "long-van", "weekend-drain"));

    private static IReadOnlyList<Finding> Ask(Rig rig) => Adviser.Ask(new Question(rig, Conditions.Of(rig.Brief))).Findings;

    private static Rig With(params Edit[] edits) => Editor.Apply(Sound, edits).Rig;

    private static JsonObject End(string part, string port) => new() { ["part"] = part, ["port"] = port };

    private static InsertFragment Line(string id, Service service, RunEnd from, RunEnd to) => new(id, [], [new Run(id, id, service, "pex-1/2", from, to, [])]);

    private static readonly Edit[] Relief = [new PlacePart("relief-2", "relief-valve", "relief valve", new(2.5, 1.2, 0.6)),
        new PlacePart("cap", "end-cap", "cap", new(2.7, 1.2, 0.5))];

    private static Rig Bare(Rig rig) => rig with
    {
        Shell = rig.Shell with
        {
            Zones =
        [.. rig.Shell.Zones.Select(z => z with { Faces = [.. z.Faces.Select(f => f with { Layers = [.. f.Layers.TakeLast(1)] })] })]
        }
    };

    private static ChangeThing Run(string id, JsonObject values) => new($"runs/{id}", values);

    public static TheoryData<string, FindingKind, string, bool> Wrongs() => new()
    {
        { "pump", FindingKind.Backwards, "backwards:pump", true },
        { "check", FindingKind.Backwards, "backwards:check-heater", true },
        { "filter", FindingKind.Backwards, "backwards:filter", true },
        { "heater", FindingKind.Backwards, "backwards:heater", true },
        { "trap", FindingKind.Backwards, "backwards:trap", true },
        { "valve", FindingKind.NoIsolator, "isolator:pump", false },
        { "vent", FindingKind.Choked, "dip:tank-vent", true },
        { "fill", FindingKind.Choked, "dip:tank-fill", true },
        { "waste", FindingKind.Choked, "narrow:sink-waste", true },
        { "hose", FindingKind.PipeUnfit, "heat:kitchen-hot", true },
        { "vent hose under pressure", FindingKind.PipeUnfit, "pressure:cold-main", true },
        { "arch", FindingKind.InTheWay, "through:cold-main:arch-1-far", false },
        { "outside", FindingKind.InTheWay, "outside:shower-cold", false },
        { "one place", FindingKind.SharedPlace, "shared:cold-main:second", false },
        { "reach", FindingKind.OutOfReach, "reach:tee-main", false },
        { "air", FindingKind.SchoolLacks, "school:air-port", false },
        { "sag", FindingKind.Pool, "pool:kitchen-cold", true },
        { "clips", FindingKind.Sag, "sag:shower-hot", true },
        { "one clip", FindingKind.Sag, "sag:shower-hot", true },
        { "slack", FindingKind.Sag, "slack:kitchen-cold", true },
        { "filter of the lived-in", FindingKind.NoIsolator, "isolator:filter", false },
        { "kink", FindingKind.TightBend, "tight:tank-vent", false },
        { "skin", FindingKind.BareSkin, "skin:kitchen-cold", true },
        { "breath", FindingKind.NoAir, "breath:tank", false },
        { "thin vent", FindingKind.NoAir, "vent:tank", false },
        { "light", FindingKind.Light, "light:tank", true },
        { "town", FindingKind.Backflow, "backflow:town", true },
        { "relief shut", FindingKind.ReliefShut, "shut:relief-2", false },
        { "relief plugged", FindingKind.ReliefShut, "plugged:relief-2", true },
        { "traps", FindingKind.SchoolLacks, "school:trap:trap", true },
    };

    [Theory]
    [MemberData(nameof(Wrongs))]
    public void One_thing_wrong_is_told_and_mended(string wrong, FindingKind kind, string id, bool mended)
    {
        var rig = wrong switch
        {
            "pump" => With(Run("strainer-pump", new() { ["to"] = End("pump", "out") }), Run("pump-accumulator", new() { ["from"] = End("pump", "in") })),
            "check" => With(Run("heater-feed", new() { ["to"] = End("check-heater", "out") }),
            Run("heater-inlet", new() { ["from"] = End("check-heater", "in") })),
            "filter" => With(Run("to-filter", new() { ["to"] = End("filter", "out") }), Run("from-filter", new() { ["from"] = End("filter", "in") })),
            "heater" => With(Run("heater-inlet", new() { ["to"] = End("heater", "hot") }), Run("heater-outlet", new() { ["from"] = End("heater", "cold") })),
            "trap" => With(Run("sink-waste", new() { ["to"] = End("trap", "out") }), Run("grey-inlet", new() { ["from"] = End("trap", "in") })),
            "valve" => With(new RemoveThing("parts/valve-tank"), new InsertFragment("hose", [],
            [new Run("hose", "hose", Service.Cold, "pex-1/2", new("tank", "outlet"), new("tee-suction", "a"), [])])),
            "vent" => With(new RouteRun("tank-vent", [new Bend("b1", new(0.05, 0.36, 0.3))])),
            "fill" => With(new RouteRun("tank-fill", [new Bend("b1", new(0.18, 0.05, 0.2))])),
            "waste" => With(Run("sink-waste", new() { ["pipe"] = "pvc-hose-1/2" })),
            "hose" => With(Run("kitchen-hot", new() { ["pipe"] = "pvc-hose-1/2" })),
            "vent hose under pressure" => With(Run("cold-main", new() { ["pipe"] = "vent-hose-10" })),
            "arch" => With(new RouteRun("cold-main", [new Bend("b1", new(1, 1.65, 0.1)), new Bend("b2", new(1.8, 1.65, 0.1))])),
            "outside" => With(new RouteRun("shower-cold", [new Bend("b1", new(0.5, 2.4, 0.4))])),
            "one place" => With(new InsertFragment("second", [], [Sound.Runs.Find("cold-main")! with { Id = "second", Name = "second",
            From = new(At: new(0.9, 1.649, 0.31)), To = new(At: new(1.9, 1.65, 0.35)) }])),
            "reach" => With(new AddThing("shell/access", new JsonObject
            {
                ["id"] = "hatch",
                ["name"] = "hatch",
                ["box"] = JsonNode.Parse("""{"at":{"xM":0,"yM":0,"zM":0},"size":{"xM":1.7,"yM":1.75,"zM":1}}""")
            })),
            "sag" => With(new RouteRun("kitchen-cold", [new Bend("b1", new(2.15, 1.69, 0.36)), new Bend("b2", new(2.8, 1.69, 0.22))])),
            "air" => With(new ChangeThing("brief", new() { ["school"] = "air" })),
            "one clip" => With(Run("shower-hot", new() { ["clipSpacingM"] = null }),
            new RouteRun("shower-hot", [Sound.Runs.Find("shower-hot")!.Bends[0] with { Fixing = Fixing.Clip }])),
            "slack" => With(Run("kitchen-cold", new() { ["slackM"] = 0.04 })),
            "filter of the lived-in" => Editor.Apply(Sound with { Brief = Sound.Brief with { Living = WayOfLiving.LivedIn } },
            [new RemoveThing("parts/valve-tank"), new InsertFragment("hose", [],
            [new Run("hose", "hose", Service.Cold, "pex-1/2", new("tank", "outlet"), new("tee-suction", "a"), [])])]).Rig,
            "clips" => With(Run("shower-hot", new() { ["clipSpacingM"] = 1.2 })),
            // A hose that turns back within its own width.
            "kink" => With(new RouteRun("tank-vent", [new Bend("b1", new(0.3, 0.05, 0.5)), new Bend("b2", new(0.3, 0.09, 0.51)),
                new Bend("b3", new(0.3, 0.05, 0.52))])),
            "skin" => Bare(With(Run("kitchen-cold", new() { ["insulation"] = null }),
            new RouteRun("kitchen-cold", [new Bend("b1", new(2.15, 1.745, 0.36)), new Bend("b2", new(2.8, 1.745, 0.35))]))),
            "breath" => With(new RemoveThing("runs/tank-vent")),
            "thin vent" => With(Run("tank-vent", new() { ["pipe"] = "pex-3/8" }),
            new RouteRun("tank-vent", [new Bend("b1", new(0.1, 0.05, 0.6)), new Bend("b2", new(3.6, 0.05, 1.2)), new Bend("b3", new(0.1, 0.05, 1.8))])),
            "light" => With(new MoveThings(["parts/tank"], new Point3(2, 0, 0.3))),
            "town" => With(new PlacePart("town", "town-coupling", "town coupling", new(0.5, 0.1, 0.5)),
            new PlacePart("tap", "cold-tap", "cold tap", new(1, 0.1, 0.5)), Line("town-line", Service.Cold, new("town", "out"), new("tap", "cold"))),
            "relief shut" => With([.. Relief, new PlacePart("between", "ball-valve", "valve", new(2.2, 1.2, 0.6)),
            Line("relieves", Service.Hot, new("between", "b"), new("relief-2", "in")),
            Line("feeds", Service.Hot, new("heater", "drain"), new("between", "a"))]),
            "relief plugged" => With([.. Relief, Line("drips", Service.Hot, new("relief-2", "out"), new("cap", "in"))]),
            "traps" => Editor.Apply(Sound with { Brief = Sound.Brief with { Choices = BriefChoices.Usual } },
            [new ChangeThing("parts/trap", new() { ["stock"] = "trap" })]).Rig,
            _ => throw new ArgumentOutOfRangeException(nameof(wrong)),
        };
        Assert.DoesNotContain(Ask(Sound), f => f.Id == id);
        var finding = Assert.Single(Ask(rig), f => f.Id == id);
        Assert.Equal(kind, finding.Kind);
        Assert.All(finding.RunIds, run => Assert.NotNull(rig.Runs.Find(run)));
        Assert.Equal(mended, finding.Mends is { Count: > 0 });
        // What was tried and is offered makes it go.
        var tried = Fixer.Ask(new Question(rig, Conditions.Of(rig.Brief)), new(id));
        Assert.All(tried.Fixes, f => Assert.DoesNotContain(Ask(Editor.Apply(rig, f.Edits).Rig), o => o.Id == id
            && kind is not (FindingKind.Pool or FindingKind.Parking)));
        Assert.True((mended || wrong is "valve" or "filter of the lived-in" or "reach" or "arch" or "one " +
            "place" or "kink" or "breath") == tried.Fixes.Count > 0, tried.Refused);
        if (!mended) return;
        var after = Editor.Apply(rig, finding.Mends![0].Edits).Rig;
        Assert.DoesNotContain(Ask(after), f => f.Id == id);
        // It makes nothing worse.
        Assert.True(Ask(after).Count < Ask(rig).Count);
    }

    [Fact]
    public void A_line_through_the_floor_wants_a_grommet_where_it_passes()
    {
        var holes = Assert.Single(Ask(Sound), f => f.Kind == FindingKind.NoGrommet);
        Assert.Equal(["grey-inlet", "grey-vent", "relief-drip"], holes.RunIds.Order());
        var lined = Editor.Apply(Sound, holes.Mends![0].Edits).Rig;
        Assert.DoesNotContain(Ask(lined), f => f.Kind == FindingKind.NoGrommet);
        // The line itself lies as before, and a grommet beside the hole lines nothing.
        var index = new RigIndex(lined);
        Assert.Equal(new RigIndex(Sound).PipeLengthM(Sound.Runs.Find("grey-inlet")!), index.PipeLengthM(index.Run("grey-inlet")), 5);
        var grommet = index.Run("grey-inlet").Bends.Single(b => b.Fixing == Fixing.Grommet);
        Assert.Contains(Ask(Editor.Apply(lined, [new MoveThings([$"runs/grey-inlet/bends/{grommet.Id}"], new Point3(0, 0, 0.06))]).Rig), f =>
            f.Kind == FindingKind.NoGrommet);
    }

    [Fact]
    public void Slack_hangs_as_deep_as_a_flat_arc_and_keeps_what_lies_in_the_belly()
    {
        // 1 m across and 1.5 mm longer: √(3/8 · 1 · 0.0015) = 23.7 mm, and the arc is as long as the hose to a hundredth of a millimetre.
        double depth = HangingHose.BellyM(1, 0.0015);
        Assert.Equal(0.023717, depth, 6);
        Point3[] arc = [default, .. HangingHose.Course(default, new(1, 0, 0), depth, 400), new(1, 0, 0)];
        Assert.Equal(1.0015, arc.Skip(1).Zip(arc, (b, a) => b.DistanceM(a)).Sum(), 5);
        var slack = With(Run("kitchen-cold", new() { ["slackM"] = 0.04 }));
        double Sags(Rig rig) => new Question(rig, Conditions.Of(rig.Brief)).Ask(HoldsStudy.Ask).Holds.Where(h => h.Kind == HoldKind.Sag).Sum(h => h.Litres);
        Assert.InRange(Sags(slack) - Sags(Sound), 0.01, 0.2);
        // Hose that hangs through weighs as well.
        double Dry(Rig rig) => new Question(rig, Conditions.Of(rig.Brief)).Ask(WarmConduit.Core.Studies.Weights.WeightStudy.Ask).PipeKg;
        Assert.Equal(0.04 * WarmConduit.Core.Materials.Catalogue.Pipe("pex-1/2")!.WallKgPerM(), Dry(slack) - Dry(Sound), 4);
    }

    [Fact]
    public void Hot_water_that_reaches_a_tap_unmixed_is_told_with_its_caution()
    {
        var scald = Assert.Single(Ask(Sound), f => f.Kind == FindingKind.Scald);
        Assert.Contains("licensed", scald.Caution, StringComparison.Ordinal);
        // A valve in the line, with cold water to mix, is tried and mends it.
        var fix = Fixer.Ask(new Question(Sound, Conditions.Of(Sound.Brief)), new(scald.Id)).Fixes[0];
        Assert.DoesNotContain(Ask(Editor.Apply(Sound, fix.Edits).Rig), f => f.Kind == FindingKind.Scald);
        Assert.Contains(fix.Edits, e => e is PlacePart { Stock: "mixing-valve" });
        // Behind a mixing valve it is not.
        var mixed = With(
            new PlacePart("mix", "mixing-valve", "mixing valve", new Point3(2.4, 1.4, 0.7)),
            Run("heater-outlet", new() { ["to"] = End("mix", "hot") }));
        Assert.DoesNotContain(Ask(mixed), f => f.Kind == FindingKind.Scald);
    }

    [Fact]
    public void What_a_school_asks_for_is_asked_only_of_those_who_chose_it()
    {
        string[] Lacking(BriefChoices? choices, FreezeSchool school = FreezeSchool.Drain) =>
            [.. Ask(Sound with { Brief = Sound.Brief with { Choices = choices, School = school } }).Where(f => f.Kind == FindingKind.SchoolLacks)
                .Select(f => f.Id["school:".Length..]).Order()];
        Assert.Empty(Lacking(null));
        Assert.Equal(["drinking-tap"], Lacking(BriefChoices.Usual));
        Assert.Equal(["bypass:filter"], Lacking(BriefChoices.Usual with { Filter = FilterSchool.Everything }));
        Assert.Equal(["manifold"], Lacking(BriefChoices.Usual with { Filter = FilterSchool.None, Piping = PipingSchool.HomeRuns }));
        Assert.Equal(["return-pump"], Lacking(BriefChoices.Usual with { Filter = FilterSchool.None, Piping = PipingSchool.Loop }));
        Assert.Equal(["air-port", "heater-bypass"], Lacking(null, FreezeSchool.Air));
        Assert.Equal(["heater-bypass"], Lacking(null, FreezeSchool.Antifreeze));
        // An empty vehicle is left in peace.
        Assert.DoesNotContain(Ask(Start.Make(new NewRig("Test", 3.7, 1.75, 1.9, WayOfLiving.LaidUp, FreezeSchool.Air, "long-van"))), f =>
            f.Kind == FindingKind.SchoolLacks);
    }

    /// <summary>Valves alone make no bypass: one has to lead from cold to hot, or around the filter.</summary>
    [Fact]
    public void A_bypass_is_what_leads_around()
    {
        Rig Of(FreezeSchool school, params Edit[] edits) => With(edits) is var rig
            ? rig with { Brief = rig.Brief with { School = school, Choices = BriefChoices.Usual with { Filter = FilterSchool.Everything } } } : rig;
        static bool Lacks(Rig rig, string id) => Ask(rig).Any(f => f.Id == $"school:{id}");
        Edit[] valves = [.. Enumerable.Range(1, 3).Select(n => new PlacePart($"v{n}", "ball-valve", $"valve {n}", new Point3(1 + n * 0.2, 0.5, 0.5)))];
        Assert.True(Lacks(Of(FreezeSchool.Antifreeze, valves), "heater-bypass"));
        Run Stub(string id, Service service, string port) => new(id, id, service, "pex-1/2", new RunEnd("v1", port),
            new RunEnd(At: new Point3(1.3, 0.7, 0.5)), []);
        // Loose ends join nothing yet; a tee on each side does.
        var across = Of(FreezeSchool.Antifreeze, [.. valves, new PlacePart("t1", "tee", "t1", new(1, 0.6, 0.5)),
            new PlacePart("t2", "tee", "t2", new(1.4, 0.6, 0.5)),
            new InsertFragment("across", [], [Stub("c", Service.Cold, "a") with { To = new("t1", "a") },
            Stub("h", Service.Hot, "b") with { To = new("t2", "a") }])]);
        Assert.False(Lacks(across, "heater-bypass"));
        Assert.True(Lacks(Of(FreezeSchool.Antifreeze, [.. valves, new InsertFragment("loose", [],
            [Stub("c", Service.Cold, "a"), Stub("h", Service.Hot, "b")])]), "heater-bypass"));
        var set = Of(FreezeSchool.Drain, new PlaceSet("filter-bypass", "new", new Point3(1, 0.3, 0.5)));
        Assert.Equal((true, false), (Lacks(set, "bypass:filter"), Lacks(set, "bypass:new-filter")));
    }
}
