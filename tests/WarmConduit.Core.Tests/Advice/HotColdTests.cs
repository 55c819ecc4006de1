using System.Text.Json.Nodes;
using WarmConduit.Core.Advice;
using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Tests.Rigs;
using WarmConduit.Core.Tests.Studies;
using Night = WarmConduit.Core.Studies.Conditions;

namespace WarmConduit.Core.Tests.Advice;

/// <summary>Hot and cold exchanged at a tap, or joined past the heater: found where it is so, and where it only looks so it is not.</summary>
public class HotColdTests
{
    private static RigBuilder Plumbed() => new RigBuilder()
        .Tank("tank", new Box(new(0, 0, 1), new(0.4, 0.4, 0.3)), ("outlet", 0.4, 0.2, 1))
        .Part("heater", "storage-heater", ("cold", 1, 0, 0.5), ("hot", 1, 0.1, 0.7))
        .Part("feed", "tee", ("a", 0.8, 0.2, 0.6), ("b", 0.85, 0.2, 0.6), ("c", 0.82, 0.25, 0.6))
        .Part("low", "tee", ("a", 1.5, 0.2, 0.2), ("b", 1.55, 0.2, 0.2), ("c", 1.52, 0.25, 0.2))
        .Part("mixer", "mixer", ("cold", 2, 0.2, 0.9), ("hot", 2.05, 0.2, 0.9), ("spout", 2, 0.1, 1.1))
        .Part("drain", "drain-cock", ("in", 1.6, 0.5, 0.1))
        .Run("main", "tank.outlet", "feed.a")
        .Run("heater-cold", "feed.c", "heater.cold");

    private static double StaysL(Rig rig, Night night) => DrainDownStudy.Ask(new Question(rig, night)).Stays.TotalL;

    private static Finding[] Found(Rig rig, Night night) => [.. Adviser.Ask(new Question(rig, night)).Findings.Where(f => f.Kind == FindingKind.HotCold)];

    [Fact]
    public void Exchanged_lines_of_a_tap_are_found_and_swapped()
    {
        var builder = Plumbed();
        var rig = builder.Run("cold", "feed.b", "mixer.hot").Run("hot", Service.Hot, "pex-1/2", "heater.hot", "mixer.cold").Build();
        var night = Night.Of(rig.Brief);
        var finding = Assert.Single(Found(rig, night));
        Assert.Equal(("exchanged:mixer", "mixer"), (finding.Id, finding.Title));
        var mended = Editor.Apply(rig, finding.Mends![0].Edits).Rig;
        Assert.Empty(Found(mended, night));
        Assert.Equal("cold", mended.Runs.Single(r => r.Id == "cold").To.Port);
    }

    [Fact]
    public void A_common_drain_tee_joins_hot_to_cold_and_a_valve_that_is_shut_in_use_parts_them()
    {
        var rig = Plumbed()
            .Part("hot-tee", "tee", ("a", 1.2, 0.3, 0.7), ("b", 1.25, 0.3, 0.7), ("c", 1.22, 0.35, 0.7))
            .Part("cold-tee", "tee", ("a", 1.2, 0.5, 0.6), ("b", 1.25, 0.5, 0.6), ("c", 1.22, 0.55, 0.6))
            .Run("cold", "feed.b", "cold-tee.a").Run("cold-on", "cold-tee.b", "mixer.cold")
            .Run("hot", Service.Hot, "pex-1/2", "heater.hot", "hot-tee.a").Run("hot-on", Service.Hot, "pex-1/2", "hot-tee.b", "mixer.hot")
            .Run("cold-low", "cold-tee.c", "low.a").Run("hot-low", Service.Hot, "pex-1/2", "hot-tee.c", "low.b").Run("out", "low.c", "drain.in").Build();
        var night = Night.Of(rig.Brief);
        var finding = Assert.Single(Found(rig, night));
        Assert.Equal(("past:hot-low", "low"), (finding.Id, finding.Title));
        var fix = Fixer.Ask(new Question(rig, night, TestContext.Current.CancellationToken), new(finding.Id)).Fixes[0];
        var mended = Editor.Apply(rig, fix.Edits).Rig;
        Assert.Empty(Found(mended, night));
        // Parted in use, and draining still takes both.
        Assert.Equal(StaysL(rig, night), StaysL(mended, night), 0.02);
    }

    [Fact]
    public void A_mixer_that_can_be_shut_behind_it_lets_hot_into_cold()
    {
        RigBuilder Shower() => Plumbed().Part("stop", "ball-valve", ("a", 2.5, 0.2, 1), ("b", 2.6, 0.2, 1))
            .Run("hot", Service.Hot, "pex-1/2", "heater.hot", "mixer.hot").Run("riser", Service.Hot, "pex-1/2", "mixer.spout", "stop.a");
        var rig = Shower().Run("cold", "feed.b", "mixer.cold").Build();
        Assert.Equal("crosses:mixer", Assert.Single(Found(rig, Night.Of(rig.Brief))).Id);
        rig = Shower().Part("check", "check-valve", ("in", 1.5, 0.2, 0.8), ("out", 1.6, 0.2, 0.8)).Run("cold", "feed.b", "check.in")
            .Run("cold-on", "check.out", "mixer.cold").Build();
        Assert.Empty(Found(rig, Night.Of(rig.Brief)));
    }

    [Fact]
    public void What_only_looks_so_is_not_told()
    {
        // A rig without a heater that feeds both sides of its mixer.
        var cold = new RigBuilder()
            .Tank("tank", new Box(new(0, 0, 1), new(0.4, 0.4, 0.3)), ("outlet", 0.4, 0.2, 1))
            .Part("tee", "tee", ("a", 0.8, 0.2, 0.6), ("b", 0.85, 0.2, 0.6), ("c", 0.82, 0.25, 0.6))
            .Part("mixer", "mixer", ("cold", 2, 0.2, 0.9), ("hot", 2.05, 0.2, 0.9), ("spout", 2, 0.1, 1.1))
            .Run("main", "tank.outlet", "tee.a").Run("one", "tee.b", "mixer.cold").Run("two", "tee.c", "mixer.hot").Build();
        Assert.Empty(Found(cold, Night.Of(cold.Brief)));
        // A loop whose pump sends hot water back into the cold feed, and demos with bypasses, loops and machines.
        var loop = Plumbed()
            .Part("hot-tee", "tee", ("a", 1.2, 0.3, 0.7), ("b", 1.25, 0.3, 0.7), ("c", 1.22, 0.35, 0.7))
            .Part("back", "return-pump", ("in", 1.3, 0.4, 0.5), ("out", 1.4, 0.4, 0.5))
            .Run("cold", "feed.b", "low.a").Run("cold-on", "low.b", "mixer.cold")
            .Run("hot", Service.Hot, "pex-1/2", "heater.hot", "hot-tee.a").Run("hot-on", Service.Hot, "pex-1/2", "hot-tee.b", "mixer.hot")
            .Run("loop", Service.Hot, "pex-1/2", "hot-tee.c", "back.in").Run("loop-on", Service.Hot, "pex-1/2", "back.out", "low.c").Build();
        Assert.Empty(Found(loop, Night.Of(loop.Brief)));
        foreach (string name in (string[])["sparrow", "tern", "lantern"])
            Assert.Empty(Found(DemoRigs.Of(name), Night.Of(DemoRigs.Of(name).Brief)));
        // Tern's bypass, left open in use, is told, and shut.
        var tern = Editor.Apply(DemoRigs.Of("tern"), [new SetPosition("in-use", "valve-bypass", "open")]).Rig;
        var open = Assert.Single(Found(tern, Night.Of(tern.Brief)));
        Assert.Equal("heater bypass valve", open.Title);
        Assert.Empty(Found(Editor.Apply(tern, open.Mends![0].Edits).Rig, Night.Of(tern.Brief)));
        // With an inlet for town water it is used from that too: with the bypass as in use, until its builder leaves it open there.
        var town = Editor.Apply(DemoRigs.Of("tern"),
            [new PlacePart("inlet", "town-inlet", "town water", new Point3(0.1, 0.1, 0.3)),
            new ChangeThing("runs/air-leg", new JsonObject { ["to"] = new JsonObject { ["part"] = "inlet", ["port"] = "out" } })]).Rig;
        Assert.Empty(Found(town, Night.Of(town.Brief)));
        town = Editor.Apply(town, [new SetPosition("town-water", "valve-bypass", "open")]).Rig;
        var fed = Assert.Single(Found(town, Night.Of(town.Brief)));
        Assert.Empty(Found(Editor.Apply(town, fed.Mends![0].Edits).Rig, Night.Of(town.Brief)));
    }
}
