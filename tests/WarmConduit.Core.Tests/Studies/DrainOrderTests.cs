using WarmConduit.Core.Advice;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Studies.DrainOrder;
using WarmConduit.Core.Studies.Holds;
using WarmConduit.Core.Tests.Rigs;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>In which order a rig is drained, what comes out, and what a jug tells.</summary>
public class DrainOrderTests
{
    private static Question Ask(Rig rig) => new(rig, Conditions.Of(rig.Brief));

    [Theory]
    [InlineData("sparrow")]
    [InlineData("tern")]
    [InlineData("lantern")]
    public void What_comes_out_and_what_stays_is_what_was_in_it(string name)
    {
        var rig = DemoRigs.Of(name);
        var order = DrainOrderStudy.Ask(Ask(rig));
        Assert.Equal(order.FullL, order.Steps.Sum(s => s.OutL) + order.Stays.TotalL, 1e-6);
        Assert.Equal(Ask(rig).Ask(DrainDownStudy.Ask).Stays, order.Stays);
        // Every opening and every task is a step, the tank's drain first, hands last; the water of a step is that of the rig part way.
        Assert.Equal(rig.Parts.Count(p => Catalogue.Part(p.Stock)!.Passage == Passage.Drain && Ask(rig).Scenario.PositionOf(p)!.Passes) + rig.ByHand.Count + 1,
            order.Steps.Count);
        Assert.True(order.Steps[0].Kind == DrainStepKind.Drain && order.Steps[0].OutL > 50);
        Assert.Equal(order.Steps.OrderBy(s => s.Kind == DrainStepKind.Hand).Select(s => s.Id), order.Steps.Select(s => s.Id));
        Assert.Equal(order.Stays.TotalL, AfterStepStudy.Ask(Ask(rig), new(order.Steps.Count)).DrainDown.Stays.TotalL, 1e-9);
        Assert.True(AfterStepStudy.Ask(Ask(rig), new(1)).DrainDown.Stays.TotalL > order.Stays.TotalL);
    }

    [Fact]
    public void A_tank_empties_in_the_time_of_the_closed_form()
    {
        // 0.5 x 0.4 x 0.3 m over a cock at its floor: t = 2 A sqrt(h) / (Cd a sqrt(2 g)).
        var rig = new RigBuilder().Tank("tank", new Box(new(0, 0, 0.5), new(0.5, 0.4, 0.3)), ("outlet", 0.5, 0.2, 0.5), ("vent", 0, 0.2, 0.8))
            .Part("air", "open-end", ("end", -0.2, 0.2, 0.8)).Run("vent", Service.Vent, "vent-hose-10", "tank.vent", "air.end")
            .Part("drain", "drain-cock", ("in", 0.51, 0.2, 0.5)).Run("line", "tank.outlet", "drain.in").Build();
        var step = DrainOrderStudy.Ask(Ask(rig)).Steps.Single(s => s.Id == "drain");
        double bore = Catalogue.Part("drain-cock")!.Ports[0].BoreM, area = Math.PI / 4 * bore * bore;
        double closed = 2 * 0.5 * 0.4 * Math.Sqrt(0.3) / (0.6 * area * Math.Sqrt(2 * 9.80665));
        Assert.Equal(60, step.OutL, 0.03);
        Assert.Equal(closed, step.ShortestS!.Value, 0.01 * closed);
        Assert.True(step.LongestS >= step.ShortestS);
    }

    [Fact]
    public void A_riser_under_a_tap_that_is_left_shut_keeps_its_water_up_to_20_mm_of_bore()
    {
        Rig Riser(string pipe) => new RigBuilder().Part("tap", "mixer", ("cold", 0, 0, 1.2), ("spout", 0, 0, 1.4))
            .Part("drain", "drain-cock", ("in", 0, 0, 0.2))
            .Run("riser", Service.Cold, pipe, "tap.cold", "drain.in").Build();
        var narrow = DrainOrderStudy.Ask(Ask(Riser("pex-1/2")));
        double bore = Catalogue.Pipe("pex-1/2")!.BoreM2() * 1.0 * 1000;
        Assert.Equal(0, narrow.Stays.TotalL, 1e-3);
        var forgotten = narrow.Forgets.Single(f => f.PartId == "tap");
        // With it, what hangs in the tap above it and in the cock below.
        Assert.Equal(bore + Catalogue.Part("mixer")!.HoldsL + Catalogue.Part("drain-cock")!.HoldsL, forgotten.MoreL, 1e-3);
        Assert.Equal("riser", forgotten.Where);
        string wide = Catalogue.Pipes.First(p => p.InnerDiameterM > 0.02).Id;
        Assert.True(DrainOrderStudy.Ask(Ask(Riser(wide))).Forgets.All(f => f.PartId != "tap" || f.MoreL < 0.06));
    }

    [Fact]
    public void A_missing_half_litre_points_at_what_would_explain_it()
    {
        var rig = DemoRigs.Of("tern");
        var step = DrainOrderStudy.Ask(Ask(rig)).Steps.First(s => s.Id != "taps" && s.OutL is > 1 and < 5);
        // As much as comes when one of the valves is shut is measured: that valve is the first suspect.
        var all = ProofStudy.Ask(Ask(rig), new(step.Id, 0));
        Assert.NotEmpty(all.Suspects);
        foreach (var suspect in all.Suspects.Where(s => Math.Abs(s.WouldBeL - step.OutL) > 0.3 * step.OutL))
        {
            var told = ProofStudy.Ask(Ask(rig), new(step.Id, suspect.WouldBeL));
            Assert.Equal(suspect.WouldBeL, told.Suspects[0].WouldBeL, 1e-9);
        }
        var good = ProofStudy.Ask(Ask(rig), new(step.Id, step.OutL + 0.02));
        Assert.Empty(good.Suspects);
        Assert.Equal(step.OutL, good.ExpectedL, 1e-9);
        Assert.Empty(ProofStudy.Ask(Ask(rig), new("nothing", 1)).Suspects);
        foreach (double litres in (double[])[-1, double.NaN, 1e9])
            Assert.Equal(["measuredL"], new ProofInput("drain-a", litres).Check(rig).Select(f => f.Path));
    }

    [Fact]
    public void A_weekend_rig_is_judged_by_its_worst_drain_and_by_the_time_it_takes()
    {
        var rig = DemoRigs.Of("sparrow");
        string drain = rig.Parts.First(p => p.Stock == "drain-cock").Id;
        Rig Reached(Reach reach) => rig with { Parts = [.. rig.Parts.Select(p => p.Id == drain ? p with { Reach = reach } : p)] };
        Assert.DoesNotContain(Adviser.Ask(Ask(Reached(new Reach(ReachKind.Kneeling)))).Findings, f => f.Id == $"worst:{drain}");
        var hidden = Reached(new Reach(ReachKind.Panel, 8));
        var finding = Adviser.Ask(Ask(hidden)).Findings.Single(f => f.Id == $"worst:{drain}");
        Assert.Contains("behind a panel with 8 screws", finding.Reason.Print(UnitSystem.Metric), StringComparison.Ordinal);
        // 45 s and ten a screw instead of a quarter of a minute.
        Assert.Equal(45 + 80 - 15, DrainOrderStudy.Ask(Ask(hidden)).ShortestS - DrainOrderStudy.Ask(Ask(rig)).ShortestS, 1e-6);
        Assert.Equal("behind a panel with 8 screws", DrainOrderStudy.Ask(Ask(hidden)).Steps.First(s => s.Id == drain).Reach);
        // Nobody opens it each week where the rig is lived in.
        Assert.DoesNotContain(Adviser.Ask(Ask(hidden with { Brief = hidden.Brief with { Living = WayOfLiving.LivedIn } })).Findings, f =>
            f.Id == $"worst:{drain}");
    }

    [Fact]
    public void Everything_that_holds_water_is_listed_with_what_empties_it()
    {
        // A main that is open at its top, a shut tap on a wide riser and one on a narrow one, a dead leg that hangs from it, a strainer, and clips too far
        // apart.
        string wide = Catalogue.Pipes.First(p => p.InnerDiameterM > 0.02).Id;
        var rig = new RigBuilder()
            .Part("air", "open-end", ("end", 0, 0, 0.9)).Part("tap", "mixer", "closed", ("cold", 1, 0.5, 0.9), ("spout", 1, 0.5, 1.1))
                .Part("basin", "mixer", "closed", ("cold", 1, -0.5, 0.9), ("spout", 1, -0.5, 1.1))
            .Part("cross", "tee", ("a", 1, 0, 0.5), ("b", 1.1, 0, 0.5), ("c", 1, 0.1, 0.5), ("d", 1, -0.1, 0.5))
            .Part("strainer", "strainer", ("in", 2, 0, 0.48), ("out", 2.1, 0, 0.48))
                .Part("tee", "tee", ("a", 3, 0, 0.46), ("b", 3.1, 0, 0.46), ("c", 3.05, 0.1, 0.46)).Part("cap", "end-cap", ("in", 3.05, 1, 0.2))
                .Part("drain", "drain-cock", ("in", 4, 0, 0.455))
            .Run("down", "air.end", "cross.a").Run("riser", Service.Cold, wide, "tap.cold", "cross.c").Run("thin", "basin.cold", "cross.d")
            .Run("first", "cross.b", "strainer.in").Run("second", "strainer.out", "tee.a").Run("leg", "tee.c", "cap.in")
                .Run("last", "tee.b", "drain.in").Build();
        rig = rig with { Runs = [.. rig.Runs.Select(r => r.Id == "last" ? r with { ClipSpacingM = 1.0 } : r)] };
        var told = HoldsStudy.Ask(Ask(rig));
        HoldKind[] Of(string words) => [.. told.Holds.Where(h => h.Words.StartsWith(words, StringComparison.Ordinal)).Select(h => h.Kind)];
        Assert.Equal([HoldKind.Shut], Of("tap"));
        Assert.Empty(Of("riser"));
        Assert.Equal([HoldKind.Shut], Of("basin"));
        Assert.Equal([HoldKind.Airlock], Of("thin"));
        Assert.Equal([HoldKind.Design], Of("strainer"));
        Assert.Contains(HoldKind.DeadLeg, Of("leg"));
        Assert.Contains(HoldKind.Sag, Of("last"));
        Assert.True(told.Holds.First(h => h.Kind == HoldKind.Design).Breaks);
        Assert.All(told.Holds, h => Assert.NotEmpty(h.Empties.Print(UnitSystem.Metric)));
        Assert.Equal(Ask(rig).Ask(DrainDownStudy.Ask).Stays, told.Stays);
        Assert.Equal(told.Stays.TotalL, told.Holds.Sum(h => h.Litres), 1e-6);
    }
}
