using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Studies.DrainOrder;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Holds;
using WarmConduit.Core.Studies.Parking;
using WarmConduit.Core.Studies.Standing;
using WarmConduit.Core.Tests.Rigs;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>What stays: one account, each litre once, the same wherever it is told.</summary>
public class StaysTests
{
    private static readonly Attitude[] Attitudes = [Attitude.Level, new(-1.5, 0), new(1, -2)];

    private static Question Ask(Rig rig, Attitude parked) => new(rig, Conditions.Of(rig.Brief) with { Parked = parked });

    private static Rig Shut(Rig rig, string part) => rig.Left(part, Positions.Closed);

    /// <summary>On whole rigs by chance, parked three ways: things and places add up to the sum, every screen's study tells that sum, and nothing holds more
    /// than it can.</summary>
    [Theory]
    [MemberData(nameof(Rigs))]
    public void Each_litre_is_told_once_and_by_one_figure(string name)
    {
        var rig = name.StartsWith("any-", StringComparison.Ordinal) ? AnyRig.Of(int.Parse(name[4..], System.Globalization.CultureInfo.InvariantCulture))
            : DemoRigs.Of(name);
        foreach (var parked in Attitudes)
        {
            var question = Ask(rig, parked);
            var drained = question.Ask(DrainDownStudy.Ask);
            var stays = drained.Stays;
            // By hand: runs, then parts.
            Assert.Equal(drained.Runs.Sum(r => r.PoolL + r.AirlockedL + r.FilmL) + drained.Parts.Sum(p => p.RetainedL), stays.TotalL, 1e-9);
            var holds = question.Ask(HoldsStudy.Ask);
            Assert.Equal(stays.TotalL, holds.Holds.Sum(h => h.Litres), 1e-6);
            Assert.All(holds.Holds, h => Assert.True(h.Litres > 0, h.Words));
            Assert.Equal((stays, stays), (holds.Stays, question.Ask(DrainOrderStudy.Ask).Stays));
            if (parked == Attitude.Level) Assert.Equal(stays, question.Ask(StandingStudy.Ask).Stays);
            Assert.All(drained.Runs, r => Assert.InRange(r.StaysL, 0, r.FullL + 1e-9));
            Assert.All(drained.Runs.SelectMany(r => r.Stations), s => Assert.True((s.WetTo - s.WetFrom) + (s.AirlockedTo - s.AirlockedFrom) <= 1 + 1e-3));
            Assert.All(drained.Parts, p => Assert.InRange(p.RetainedL + p.ByHandL, 0, p.FullL + 1e-9));
            Assert.All(drained.Pools, p => Assert.Equal(p.Shares.Sum(s => s.RetainedL) + p.Parts.Sum(s => s.RetainedL), p.RetainedL, 1e-9));
            // What freezes once it is drained is what stays, less what is safe in antifreeze.
            var cold = question.With(question.Conditions with { Water = WaterState.Drained }).Ask(FreezeLadderStudy.Ask);
            Assert.All(drained.Parts.Where(p => p.ProtectedL > 0), p => Assert.DoesNotContain(cold.Rungs, r => r.PartId == p.PartId));
        }
    }

    public static TheoryData<string> Rigs() => new([.. Enumerable.Range(1, 40).Select(n => $"any-{n}"), "sparrow", "tern", "lantern"]);

    /// <summary>1 m of riser in 12.3 mm bore is 119 mL; with it 40 mL in the tap, and 10 mL in the cock under the column.</summary>
    [Fact]
    public void A_tap_that_is_left_shut_changes_what_stays()
    {
        var rig = new RigBuilder().Part("tap", "mixer", ("cold", 0, 0, 1.2), ("spout", 0, 0, 1.4)).Part("drain", "drain-cock", ("in", 0, 0, 0.2))
            .Run("riser", "tap.cold", "drain.in").Build();
        Assert.Equal(0, rig.Drained().Stays.TotalL, 1e-9);
        var shut = Shut(rig, "tap").Drained();
        Assert.Equal((RigBuilder.BoreL(1), 0.05), (shut.Stays.AirlockedL, shut.Stays.PartsL), new Near(1e-9));
        Assert.Equal(StayCause.Shut, shut.Parts.Single(p => p.PartId == "tap").Cause);
        Assert.Equal(shut.Stays, Shut(rig, "tap").Standing().Stays);
        // The riser freezes full, as it is left.
        Assert.Contains(Shut(rig, "tap").Ladder(Conditions.Of(rig.Brief) with { Water = WaterState.Drained }).Rungs, r => r.RunId == "riser");
    }

    [Fact]
    public void Joined_tanks_without_a_vent_keep_all_and_one_vent_empties_its_own()
    {
        RigBuilder Pair() => new RigBuilder()
            .Tank("one", new Box(new(0, 0, 0.2), new(0.5, 0.4, 0.2)), ("outlet", 0.5, 0.2, 0.2), ("vent", 0, 0, 0.39))
            .Tank("two", new Box(new(1, 0, 0.2), new(0.5, 0.4, 0.2)), ("link", 1, 0.2, 0.2), ("outlet", 1.5, 0.2, 0.2), ("vent", 1.5, 0, 0.39))
            .Part("drain", "drain-cock", ("in", 2, 0.2, 0.1)).Run("link", "one.outlet", "two.link").Run("down", "two.outlet", "drain.in");
        Assert.Equal(80, Pair().Build().Drained().Stays.TanksL, 1e-6);
        RigBuilder Vented(RigBuilder rig, string tank, double x) => rig.Part($"air-{tank}", "open-end", ("end", x, 0, 0.6))
            .Run($"vent-{tank}", Service.Vent, "vent-hose-10", $"{tank}.vent", $"air-{tank}.end");
        Assert.Equal(0, Vented(Vented(Pair(), "one", 0), "two", 1.5).Build().Drained().Stays.TanksL, 1e-6);
        // Air comes into the first through the second, once that is empty; into none through a link that stands full.
        var second = Vented(Pair(), "two", 1.5).Build().Drained();
        Assert.Equal(0, second.Parts.Single(p => p.PartId == "two").RetainedL, 1e-6);
    }

    /// <summary>By hand: 50 L, its outlet at the floor 80 mm over the cock, so that it draws by 80 mm. A dip of 50 mm lets air by, one of 120 mm does not; nor
    /// does either where the outlet gulps.</summary>
    [Theory]
    [InlineData(0.05, "pex-1/2", 0)]
    [InlineData(0.12, "pex-1/2", 50)]
    [InlineData(0.12, "fill-hose-40", 0)]
    public void A_dip_in_its_vent_shuts_a_tank_when_it_is_deeper_than_the_water_draws(double dip, string outlet, double keepsL)
    {
        var rig = new RigBuilder()
            .Tank("tank", new Box(new(0, 0, 0.1), new(0.5, 0.5, 0.2)), ("vent", 0.1, 0.1, 0.3), ("outlet", 0.5, 0.25, 0.1))
            .Part("air", "open-end", ("end", 1, 0.1, 0.4)).Part("foot", "drain-cock", ("in", 1, 0.25, 0.02))
            .Run("vent", Service.Vent, "vent-hose-10", "tank.vent", "air.end", new Point3(0.3, 0.1, 0.35), new Point3(0.6, 0.1, 0.35 - dip))
            .Run("out", Service.Cold, outlet, "tank.outlet", "foot.in").Build();
        Assert.Equal(keepsL, rig.Drained().Stays.TanksL, 1e-6);
    }

    [Fact]
    public void A_tank_that_is_shut_stands_as_full_as_it_was_and_so_does_what_is_joined_to_it()
    {
        // A grey tank starts half full: its water stands 100 mm over its floor, and as high in its inlet.
        var rig = new RigBuilder()
            .Part("sink", "basin", ("waste", 0.2, 0.2, 0.9)).Part("tap", "open-end", ("end", 2, 0, 0.9)).Part("foot", "drain-cock", ("in", 2, 0, 0.1))
                .Run("other", "tap.end", "foot.in")
            .Build();
        rig = rig with
        {
            Parts = [.. rig.Parts, new Part("grey", "grey", "grey-tank", new Box(new(0, 0, 0), new(0.4, 0.4, 0.2)),
                [new Port("inlet", new(0.2, 0.2, 0)), new Port("drain", new(0, 0, 0))]),
                new Part("dump", "dump", "dump-valve", RigBuilder.Cube(-0.1, 0, -0.1, 0.05), [new Port("in", default)])],
            Runs = [.. rig.Runs, new Run("down", "down", Service.Waste, "waste-28", new RunEnd("sink", "waste"), new RunEnd("grey", "inlet"), []),
            new Run("dumps", "dumps", Service.Waste, "waste-28", new RunEnd("grey", "drain"), new RunEnd("dump", "in"), [])],
        };
        rig = Shut(rig.InOrder(), "dump");
        var drained = rig.Drained();
        Assert.Equal(16, drained.Parts.Single(p => p.PartId == "grey").RetainedL, 1e-6);
        var down = drained.Runs.Single(r => r.RunId == "down");
        // To half a bore.
        Assert.Equal(RigBuilder.BoreL(0.1, "waste-28"), down.PoolL, RigBuilder.BoreL(0.013, "waste-28"));
    }

    [Fact]
    public void A_trap_with_antifreeze_stays_and_is_told_as_safe()
    {
        var tern = DemoRigs.Of("tern");
        var stays = tern.Drained().Stays;
        Assert.Equal((0.6, 0.6), (stays.ProtectedL, stays.ByDesignL), new Near(1e-9));
        Assert.True(stays.TotalL > 0.6);
        // Without the task they are water that freezes.
        var bare = tern with { ByHand = [.. tern.ByHand.Where(h => Catalogue.Part(tern.Parts.Find(h.Id)!.Stock)!.Protects is false)] };
        Assert.Equal((0, stays.TotalL), (bare.Drained().Stays.ProtectedL, bare.Drained().Stays.TotalL), new Near(1e-9));
    }

    /// <summary>A pump that is run dry blows what every way from it must pass, and no more: where ways part, air takes one of them.</summary>
    [Fact]
    public void A_pump_that_is_run_dry_empties_what_its_air_must_pass()
    {
        var rig = new RigBuilder()
            .Part("air", "open-end", ("end", -1, 0, 0.8)).Part("pump", "pump", "off", ("in", 0, 0, 0.3), ("out", 0.1, 0, 0.3))
                .Part("check", "check-valve", ("in", 0.1, 0, 0.8), ("out", 0.2, 0, 0.8))
            .Part("tee", "tee", ("a", 1, 0, 0.5), ("b", 1.1, 0, 0.5), ("c", 1, 0.1, 0.5))
                .Part("tap", "mixer", "closed", ("cold", 1, 0.5, 0.9), ("spout", 1, 0.5, 1.1))
            .Part("foot", "drain-cock", ("in", 2, 0, 0.1)).Part("low", "drain-cock", ("in", 0, 0.3, 0.1))
                .Part("cross", "tee", ("a", 0, 0.1, 0.25), ("b", 0, 0.2, 0.25), ("c", 0, 0.2, 0.2))
            .Run("suction", "air.end", "cross.a").Run("feed", "cross.b", "pump.in").Run("drains", "cross.c", "low.in").Run("lift", "pump.out", "check.in")
                .Run("on", "check.out", "tee.a").Run("riser", "tee.c", "tap.cold").Run("last", "tee.b", "foot.in");
        double Hangs(Rig r, string run) => r.Drained().Runs.Single(d => d.RunId == run).AirlockedL;
        Assert.True(Hangs(rig.Build(), "riser") > 0.04);
        Assert.True(Hangs(rig.Build(), "last") > 0.04);
        rig.ByHand("pump");
        Assert.True(Hangs(rig.Build(), "riser") > 0.04);
        Assert.Equal(0, Hangs(rig.Build(), "last"));
    }

    /// <summary>The edge that is told is the last slope that drains: at it nothing is too much, a step beyond it something is.</summary>
    [Theory]
    [InlineData("sparrow")]
    [InlineData("tern")]
    [InlineData("lantern")]
    public void The_edge_of_parking_drains_and_the_next_step_does_not(string name)
    {
        var rig = DemoRigs.Of(name);
        var told = ParkingStudy.Ask(Ask(rig, Attitude.Level));
        if (told.Best is not { } best) return;
        Assert.True(told.MarginDeg >= 0.3);
        foreach (var side in told.Sides.Where(s => s.FarDeg is not null))
        {
            double deg = side.FarDeg!.Value;
            Attitude At(double d) => side.Side switch
            {
                "nose up" => best with { PitchDeg = d },
                "nose down" => best with { PitchDeg = -d },
                "kerb side up" =>
                best with { RollDeg = -d },
                _ => best with { RollDeg = d }
            };
            Assert.Equal(ParkingLimit.None, ParkingStudy.Ask(Ask(rig, At(deg))).Now);
            Assert.NotEqual(ParkingLimit.None, ParkingStudy.Ask(Ask(rig, At(deg + 0.11))).Now);
        }
    }

    private sealed class Near(double by) : IEqualityComparer<(double, double)>
    {
        public bool Equals((double, double) a, (double, double) b) => Math.Abs(a.Item1 - b.Item1) <= by && Math.Abs(a.Item2 - b.Item2) <= by;

        public int GetHashCode((double, double) pair) => 0;
    }

    [Fact(Explicit = true)]
    public void Rigs_by_chance_are_laid_down_for_the_screens()
    {
        string folder = Environment.GetEnvironmentVariable("WARM_CONDUIT_SUM_RIGS")!;
        Directory.CreateDirectory(folder);
        for (int seed = 1; seed <= 20; seed++)
            File.WriteAllText(Path.Combine(folder, $"rig-{seed:00}.json"), RigFile.Write(AnyRig.Of(seed) with { Id = $"rig-{seed:00}", Name = $"rig {seed}" }));
    }
}
