using WarmConduit.Core.Advice;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Tests.Studies;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Tests.Advice;

/// <summary>What is said, of what, how heavily, and where it leads.</summary>
public class AdviserTests
{
    private static readonly Conditions Mild = new(5, 0, false, 10, WaterState.Drained, 22, 8, Attitude.Level);

    private static IReadOnlyList<Finding> Ask(RigBuilder rig, Conditions? night = null) => rig.Build().Findings(night ?? Mild);

    private static RigBuilder Falling(double top, double foot, params Point3[] via) => new RigBuilder()
        .Part("tap", "open-end", ("end", 0, 0, top))
        .Part("foot", "drain-cock", ("in", 3, 0, foot))
        .Run("line", "tap.end", "foot.in", via);

    /// <summary>What mends a kind and how a try against it is judged stands with one rule.</summary>
    [Fact]
    public void Every_kind_of_finding_is_of_one_rule_that_finds_it()
    {
        foreach (var kind in Enum.GetValues<FindingKind>()) Assert.Contains(kind, Adviser.RuleOf(kind).Kinds);
    }

    [Fact]
    public void A_sound_line_on_a_mild_night_is_not_spoken_of() => Assert.Empty(Ask(Falling(0.5, 0.2)));

    [Theory]
    [InlineData(0.05, Severity.Warning)]
    [InlineData(0.045, Severity.Note)]
    [InlineData(0.20, null)]
    public void A_flat_line_weighs_by_how_flat_it_is(double drop, Severity? weight)
    {
        // 0.045 m in 3 m is 1.5 %: tolerated. 0.05 m in two unequal parts leaves one of them dead level.
        var rig = drop == 0.05 ? Falling(0.25, 0.2, new Point3(1, 0, 0.2)) : Falling(0.2 + drop, 0.2);
        var flat = Ask(rig).SingleOrDefault(f => f.Kind == FindingKind.FlatRun);
        Assert.Equal(weight, flat?.Severity);
        if (flat is null) return;
        Assert.Equal(["line"], flat.RunIds);
        Assert.Equal(Quantity.Fall, flat.Number!.Quantity);
        Assert.Equal(0.02, flat.Reason.Values[^1].Value);
        Assert.Equal("line", flat.Place!.RunId);
    }

    [Fact]
    public void The_least_fall_asked_for_is_the_builders()
    {
        static int Flat(RigBuilder rig, double leastFall)
        {
            rig.Brief = rig.Brief with { LeastFall = leastFall };
            return Ask(rig).Count(f => f.Kind == FindingKind.FlatRun);
        }
        Assert.Equal((0, 1), (Flat(Falling(0.29, 0.2), 0.02), Flat(Falling(0.29, 0.2), 0.05)));
        Assert.Equal((1, 0), (Flat(Falling(0.21, 0.2), 0.02), Flat(Falling(0.21, 0.2), 0.003)));
    }

    [Fact]
    public void A_pool_names_its_crest_its_depth_and_the_place_for_a_drain()
    {
        var pool = Ask(Falling(0.6, 0.1, new Point3(1, 0, 0.2), new Point3(2, 0, 0.3))).First(f => f.Kind == FindingKind.Pool);
        Assert.Equal(Severity.Fault, pool.Severity);
        Assert.Equal("line", pool.Title);
        Assert.Equal("b1", pool.Place!.PointId);
        Assert.Contains("line, bend 2", pool.Reason.Text);
        Assert.Equal(0.1, pool.Reason.Values[0].Value!.Value, 9);
        Assert.Equal(pool.Number!.Value!.Value, pool.Why!.Inputs.Sum(i => i.Value.Value!.Value), 9);
    }

    [Fact]
    public void A_length_that_climbs_into_a_pool_is_told_once()
    {
        var findings = Ask(Falling(0.6, 0.1, new Point3(1, 0, 0.2), new Point3(2, 0, 0.3)));
        Assert.DoesNotContain(findings, f => f.Kind == FindingKind.FlatRun);
    }

    [Fact]
    public void Water_that_nothing_lets_out_is_told_with_what_shuts_it_in()
    {
        var rig = new RigBuilder()
            .Part("tap", "tee", ("end", 0, 0, 0.9))
            .Part("cock", "ball-valve", "closed", ("a", 1, 0, 0.5), ("b", 1.1, 0, 0.49))
            .Part("foot", "drain-cock", ("in", 2, 0, 0.1))
            .Run("above", "tap.end", "cock.a")
            .Run("below", "cock.b", "foot.in");
        var pool = Ask(rig).First(f => f.Kind == FindingKind.Pool);
        Assert.Contains("closed in by cock", pool.Reason.Text);
        Assert.Equal(["above"], pool.RunIds);
    }

    [Fact]
    public void A_tank_that_keeps_litres_is_a_finding_and_one_that_keeps_drops_is_not()
    {
        RigBuilder Tank(double outlet) => new RigBuilder()
            .Tank("tank", new Box(new(0, 0, 0.2), new(0.5, 0.5, 0.2)), ("outlet", 0.5, 0.25, outlet), ("vent", 0, 0, 0.4))
            .Part("air", "open-end", ("end", 0, 0, 0.9)).Run("vent", Service.Vent, "vent-hose-10", "tank.vent", "air.end")
            .Part("foot", "drain-cock", ("in", 1, 0.25, 0.02)).Run("out", "tank.outlet", "foot.in");
        Assert.DoesNotContain(Ask(Tank(0.2005)), f => f.Kind == FindingKind.Pool);
        var kept = Ask(Tank(0.22)).Single(f => f.Kind == FindingKind.Pool);
        Assert.Equal(5, kept.Number!.Value!.Value, 0.05);
        Assert.Equal(50, kept.Reason.Values[1].Value!.Value, 0.01);
    }

    [Fact]
    public void A_bowl_is_told_once_with_its_remedy_frozen_or_not()
    {
        var rig = Falling(0.5, 0.2).Part("filter", "filter", ("in", 1, 1, 0.5));
        var mild = Assert.Single(Ask(rig));
        Assert.Equal((FindingKind.KeepsWater, Severity.Warning), (mild.Kind, mild.Severity));
        Assert.Contains("Unscrew its bowl", mild.Reason.Text);
        var cold = Assert.Single(Ask(rig, Mild with { OutdoorC = -12 }));
        Assert.Equal((FindingKind.FirstIce, Severity.Fault), (cold.Kind, cold.Severity));
        Assert.Contains("Unscrew its bowl", cold.Reason.Text);
    }

    [Fact]
    public void Faults_come_first_then_what_is_to_see_to_then_notes_and_the_soonest_ice_and_the_largest_pool_lead()
    {
        var rig = new RigBuilder()
            .Part("tap", "open-end", ("end", 0, 0, 0.9)).Part("foot", "drain-cock", ("in", 5, 0, 0.1))
            .Part("tee", "tee", ("a", 2.4, 0, 0.6), ("b", 2.6, 0, 0.59))
            .Run("small", "tap.end", "tee.a", new Point3(2, 0, 0.55))
            .Run("large", "tee.b", "foot.in", new Point3(3, 0, 0.2), new Point3(4, 0, 0.5))
            .Part("filter", "filter", ("in", 1, 1, 0.5)).Part("strainer", "strainer", ("in", 2, 1, 0.5)).Part("hose", "shower-hose", ("in", 3, 1, 0.5));
        var findings = Ask(rig, Mild with { OutdoorC = -12 });
        Assert.Equal(findings.Select(f => f.Severity).Order(), findings.Select(f => f.Severity));
        // Ice breaks something at the small pool, and nothing at the large one: damage goes first.
        Assert.Equal(["small", "large"], findings.Where(f => f.Kind == FindingKind.Pool).Select(f => f.Title));
        Assert.Equal("large", findings.Last(f => f.Severity == Severity.Fault).Title);
        Assert.Equal(["small", "strainer", "filter"], findings.Where(f => f.Kind == FindingKind.FirstIce && f.Severity == Severity.Fault).Select(f => f.Title));
    }
}
