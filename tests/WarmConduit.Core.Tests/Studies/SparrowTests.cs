using WarmConduit.Core.Advice;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Tests.Rigs;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>Questions asked of the demo rig, whose answers a builder could check with a tape and a bottle.</summary>
public class SparrowTests
{
    private static readonly Rig Sparrow = RigFileTests.Sparrow;
    private static readonly Conditions Night = Conditions.Of(Sparrow.Brief);

    private static (DrainDownAnswer Drain, FreezeLadderAnswer Ladder, IReadOnlyList<Finding> Findings) Ask(Rig rig, Conditions night)
    {
        var question = new Question(rig, night);
        return (question.Ask(DrainDownStudy.Ask), question.Ask(FreezeLadderStudy.Ask), question.Ask(Adviser.Ask).Findings);
    }

    private static Rig WithBend(Rig rig, string runId, int bend, double z) => rig with
    {
        Runs = [.. rig.Runs.Select(r => r.Id == runId ? r with { Bends =
            [.. r.Bends.Select((b, i) => i == bend ? b with { At = b.At with { ZM = z } } : b)] } : r)],
    };

    private static Rig WithPart(Rig rig, string id, Func<Part, Part> change) => rig with { Parts = [.. rig.Parts.Select(p => p.Id == id ? change(p) : p)] };

    private static Rig Mended() => WithBend(WithBend(Sparrow, "kitchen-cold", 1, 0.40), "shower-hot", 0, 0.49) is var rig
        ? WithPart(rig, "shower", p => p with { Box = p.Box with { At = p.Box.At with { ZM = p.Box.At.ZM + 0.04 } } })
        : rig;

    [Fact]
    public void It_has_the_two_faults_to_find_and_no_other_run_holds_water_or_is_too_flat()
    {
        var answer = Ask(Sparrow, Night);
        Assert.Equal(["kitchen-cold", "shower-hot"], answer.Drain.Pools.SelectMany(p => p.Shares).Select(s => s.RunId).Order());
        Assert.DoesNotContain(answer.Findings, f => f.Kind == FindingKind.FlatRun);
        // The low bend lies 150 mm under its crest; the water beyond it is the bore's 0.119 L/m over 0.79 m.
        var kitchen = answer.Drain.Pools[0];
        Assert.Equal(0.093, kitchen.RetainedL, 0.002);
        Assert.Equal(0.36, kitchen.LevelM!.Value, 9);
        Assert.Equal("b2", kitchen.Lowest.PointId);
        Assert.Equal(["shower"], answer.Drain.Pools[1].Threatens);
    }

    [Fact]
    public void Raising_two_bends_empties_it_but_for_what_keeps_its_water_by_design()
    {
        var drain = Mended().Drained();
        Assert.Empty(drain.Pools);
        Assert.Equal((0.0, 1.07), (Math.Round(drain.BelowCrestsL(), 6), Math.Round(drain.Stays.ByHandL, 6)));
        // What is left hangs under the accumulator and under the check valve, where no air gets in.
        Assert.Equal(["accumulator-leg", "heater-feed"], drain.Runs.Where(r => r.AirlockedL > 0).Select(r => r.RunId));
        Assert.Equal(drain.Stays.TotalL, drain.Runs.Sum(r => r.AirlockedL), 1e-6);
        Assert.All(drain.Runs, r => Assert.NotNull(r.RouteEnd));
        Assert.True(Mended().Standing().Limit.StandsAllTried);
        double coldest = Sparrow.Standing().Limit.ColdestC!.Value;
        Assert.InRange(coldest, -3, -1);
        // As it is printed, to a tenth, it is a night that the rig stands.
        Assert.Equal(Math.Round(coldest, 1), coldest, 1e-12);
        Assert.NotEqual(Verdict.Fails, new Question(Sparrow, Conditions.Of(Sparrow.Brief) with { OutdoorC = coldest }).Ask(FreezeLadderStudy.Ask).Verdict);
    }

    [Theory]
    [InlineData(3, 0, "fresh tank 60 L and tank to valve")]
    [InlineData(-3, 0, "grey tank 32 L")]
    [InlineData(5, -5, "fresh tank 60 L and tank to valve")]
    public void Parked_on_a_slope_water_that_stays_is_told_once_with_the_tank_it_stands_in(double pitch, double roll, string most)
    {
        var answer = Ask(Sparrow, Night with { Parked = new Attitude(pitch, roll) });
        var pools = answer.Drain.Pools;
        Assert.Equal(most, pools[0].Words);
        var finding = Assert.Single(answer.Findings, f => f.Kind == FindingKind.Pool && f.Title == most);
        // A tank that its own slope holds back is not told to lower its valve.
        if (pools[0].Shares.Count == 0) Assert.Contains("The slope holds it back", finding.Reason.Text, StringComparison.Ordinal);
        Assert.Distinct(pools.SelectMany(p => p.Parts).Select(p => p.PartId));
        // Less than a cup in a tank is not named.
        var stays = answer.Drain.Stays;
        Assert.InRange(stays.PoolsL + stays.PartsL + stays.TanksL - stays.ByDesignL - pools.Sum(p => p.RetainedL), -1e-9, 0.25);
        Assert.All(pools.Where(p => p.Shares.Count > 0), p => Assert.True(p.DepthM > 0));
    }

    [Fact]
    public void A_forgotten_bypass_valve_shuts_the_pressure_side_in()
    {
        var rig = Mended().Left("valve-bypass", "closed");
        var answer = Ask(rig, Night);
        var pool = answer.Drain.Pools[0];
        Assert.Contains(pool.Shares, s => s.RunId == "pump-accumulator");
        Assert.Contains("accumulator", pool.Threatens);
        Assert.True(answer.Drain.Stays.PoolsL > 0.05);
    }

    [Fact]
    public void With_nothing_open_everything_stays()
    {
        var rig = Sparrow.With([.. Sparrow.Scenarios.Find("drain")!.Settings.Select(s => s with { Position = "closed" })]) with { ByHand = [] };
        rig = rig with { Parts = [.. rig.Parts.Select(p => p.Stock is "open-end" or "basin" ? p with { Stock = "tee" } : p)] };
        var drain = rig.Drained();
        // The grey tank starts the night half full.
        Assert.Equal(drain.Runs.Sum(r => r.FullL) + drain.Parts.Sum(p => p.PartId == "grey-tank" ? p.FullL / 2 : p.FullL), drain.Stays.TotalL, 9);
        var finding = rig.Findings(Night)[0];
        Assert.Equal((FindingKind.NothingOpen, Severity.Fault), (finding.Kind, finding.Severity));
    }

    [Fact]
    public void Nose_up_keeps_the_tank_from_emptying_by_the_wedge_behind_its_outlet()
    {
        // The floor rises 0.5 m x tan 3° to its outlet, and the valve after it stands 2.4 mm higher still; the floor has 0.3 m².
        var tank = Sparrow.Drained(new Attitude(3, 0)).Parts.Single(p => p.PartId == "tank");
        double tan = Math.Tan(3 * Math.PI / 180);
        Assert.Equal((0.5 * tan / 2 + 0.16 * tan - 0.006) * 0.3 * 1000, tank.RetainedL, 0.1);
        Assert.Equal(0, Sparrow.Drained(new Attitude(-3, 0)).Parts.Single(p => p.PartId == "tank").RetainedL, 3);
    }

    [Fact]
    public void Left_full_the_hatch_freezes_first_when_the_van_is_heated_and_everything_when_it_is_not()
    {
        var wet = Night with { Water = WaterState.Wet };
        var heated = Ask(Sparrow, wet with { HeatOn = true }).Ladder;
        Assert.Contains("hatch", heated.Rungs.Where(r => r.State != IceState.Safe).Select(r => r.ZoneId));
        Assert.All(heated.Rungs.Where(r => r.ZoneId is "living" or "cupboard"), r => Assert.Equal(IceState.Safe, r.State));
        Assert.Equal(18, heated.Zones.Single(z => z.ZoneId == "living").AirC, 0.5);
        var cold = Ask(Sparrow.Unheated(), wet with { HeatOn = false, Hours = 240 }).Ladder;
        Assert.All(cold.Rungs.Where(r => r.PartId is null), r => Assert.NotEqual(IceState.Safe, r.State));
        // What freezes in them still keeps rooms a little warmer than outdoors.
        Assert.All(cold.Zones, z => Assert.InRange(z.AirC, wet.OutdoorC, wet.OutdoorC + 3));
    }

    [Fact]
    public void Colder_windier_or_cooler_at_the_start_never_freezes_later()
    {
        static double First(Conditions night) => Ask(Sparrow, night).Ladder.Rungs[0].FirstIceS ?? double.PositiveInfinity;
        var night = Night with { Water = WaterState.Wet, HeatOn = true };
        Assert.True(First(night with { OutdoorC = -15 }) < First(night));
        Assert.True(First(night with { WindMPerS = 12 }) < First(night));
        Assert.True(First(night with { StartWaterC = 5 }) < First(night));
        Assert.Equal(double.PositiveInfinity, First(night with { OutdoorC = 2 }));
    }

    [Fact]
    public void Ladder_is_in_order_and_every_finding_has_place_number_and_reason()
    {
        var answer = Ask(Sparrow, Night with { Water = WaterState.Wet, Parked = new Attitude(2, -1) });
        // What breaks leads, by when it does.
        var times = answer.Ladder.Rungs.Select(r => (!r.Breaks, r.AtS ?? double.PositiveInfinity)).ToList();
        Assert.Equal(times.Order(), times);
        Assert.All(answer.Ladder.Rungs, r => Assert.True((r.FirstIceS ?? 0) <= (r.BlockedS ?? double.PositiveInfinity)
            && (r.BlockedS ?? 0) <= (r.SolidS ?? double.PositiveInfinity)));
        Assert.Equal(answer.Findings.Count, answer.Findings.Select(f => f.Id).Distinct().Count());
        Assert.All(answer.Findings, f => Assert.True(f.Title.Length > 0 && f.Reason.Text.Length > 0 && f.Why?.Formula.Length != 0
            && f.Number?.Value is not null));
        // Tilted, lines that fell by 2 % no longer do.
        Assert.Contains(answer.Findings, f => f.Kind == FindingKind.FlatRun);
    }

    [Fact]
    public void A_pool_weighs_less_where_the_rig_is_to_be_blown_out()
    {
        static Severity Of(FreezeSchool school) =>
            Ask(Sparrow with { Brief = Sparrow.Brief with { School = school } }, Night).Findings.First(f => f.Kind == FindingKind.Pool).Severity;
        Assert.Equal(Severity.Fault, Of(FreezeSchool.Drain));
        Assert.Equal(Severity.Warning, Of(FreezeSchool.Air));
    }
}
