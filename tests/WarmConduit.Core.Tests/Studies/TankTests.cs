using WarmConduit.Core.Advice;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Tanks;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>What the heights of a tank's ports decide.</summary>
public class TankTests
{
    private static Question Of(RigBuilder builder, Attitude? parked = null) =>
        new(builder.Build(), Conditions.Of(builder.Build().Brief) with { Parked = parked ?? Attitude.Level });

    private static RigBuilder Pair(bool secondBreathes) => new RigBuilder()
        .Tank("one", new Box(new(0, 0, 0.2), new(0.5, 0.4, 0.2)), ("outlet", 0.5, 0.2, 0.22), ("vent", 0, 0, 0.39))
        .Tank("two", new Box(new(1, 0, 0.2), new(0.5, 0.4, 0.2)), ("outlet", 1, 0.2, 0.22), ("vent", 1.5, 0, 0.39))
        .Part("air", "open-end", ("end", 0, 0, 0.9)).Part("air-two", "open-end", ("end", 1.5, 0, 0.9))
        .Run("link", "one.outlet", "two.outlet")
        .Run("vent", Service.Vent, "vent-hose-10", "one.vent", "air.end")
        .Run("vent-two", secondBreathes ? Service.Vent : Service.Cold, "vent-hose-10", "two.vent", "air-two.end");

    [Fact]
    public void An_outlet_20_mm_up_leaves_a_tenth_and_more_on_a_slope()
    {
        var level = TankStudy.Ask(Of(Pair(true))).Tanks[0];
        Assert.Equal((40, 4, 4, "outlet"), (Math.Round(level.FullL, 9), Math.Round(level.NeverPumpedL!.Value, 9), Math.Round(level.NeverDrainedL, 9),
            level.LowestPort));
        Assert.Equal(2, level.OverFillL!.Value, 1e-9);
        // A port is told by the name that its builder gave it.
        var asked = Of(Pair(true));
        var named = asked.Rig with
        {
            Parts = [.. asked.Rig.Parts.Select(p => p with { Ports = [.. p.Ports.Select(o => o.Id == "outlet" ? o with { Name = "rear outlet" } : o)] })]
        };
        Assert.Equal("rear outlet", TankStudy.Ask(new Question(named, asked.Conditions)).Tanks[0].LowestPort);
        // Its outlet is at the cab's end: with the cab 2° up, half its length stands against it too.
        var nose = TankStudy.Ask(Of(Pair(true), new Attitude(2, 0))).Tanks[0];
        Assert.Equal(4 + 40 * Math.Tan(2 * Math.PI / 180) * 0.25 / 0.2, nose.NeverPumpedL!.Value, 1e-6);
    }

    [Fact]
    public void Twins_level_only_when_both_breathe()
    {
        Assert.Equal(["two"], TankStudy.Ask(Of(Pair(true))).Tanks[0].Twins);
        Assert.DoesNotContain(Adviser.Ask(Of(Pair(true))).Findings, f => f.Kind == FindingKind.NoAir);
        var still = Assert.Single(Adviser.Ask(Of(Pair(false))).Findings, f => f.Kind == FindingKind.NoAir);
        Assert.Equal("breath:two", still.Id);
        Assert.Contains("only when both can breathe", still.Reason.Text, StringComparison.Ordinal);
    }

    /// <summary>0.51 m of 10 mm hose, drawn on at 12 L/min: v = 2.546 m/s, Re = 1819, so 64/Re · L/D + 1.5 times ½ρv².</summary>
    [Fact]
    public void A_vent_lets_by_what_is_drawn()
    {
        var tank = TankStudy.Ask(Of(Pair(true))).Tanks[0];
        double v = 12 / 60e3 / (Math.PI / 4 * 1e-4), dynamic = 1.25 / 2 * v * v;
        Assert.Equal("air", tank.VentEnd);
        Assert.Equal(dynamic * (1.5 + 64 / (v * 0.01 / 1.4e-5) * 0.51 / 0.01), tank.VentPa!.Value, 1e-6);
    }
}
