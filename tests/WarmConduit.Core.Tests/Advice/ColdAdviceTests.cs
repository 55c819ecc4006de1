using WarmConduit.Core.Advice;
using WarmConduit.Core.Advice.Cold;
using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Tests.Rigs;
using Xunit;

namespace WarmConduit.Core.Tests.Advice;

/// <summary>Insulation that pays, and places compared: what they say is what the rig then does.</summary>
public class ColdAdviceTests
{
    private static Question Ask(Rig rig, string? about = null) => new(rig, Conditions.Of(rig.Brief), about);

    private static (double AtS, string? Name) Breaks(Rig rig) =>
        RigNight.Of(new Question(rig, Conditions.Of(rig.Brief) with { Hours = 72 })).FirstBreak();

    [Theory]
    [InlineData("sparrow")]
    [InlineData("tern")]
    public void Each_option_and_the_best_together_win_what_they_say_when_they_are_done(string name)
    {
        var rig = DemoRigs.Of(name);
        var told = InsulationFinder.Ask(Ask(rig));
        Assert.NotEmpty(told.Options);
        Assert.Equal(told.Options.OrderByDescending(o => o.HoursWon), told.Options);
        var now = RigNight.Of(new Question(rig, Conditions.Of(rig.Brief) with { Hours = 72 }));
        foreach (var option in told.Options)
        {
            var then = RigNight.Of(new Question(Editor.Apply(rig, option.Edits).Rig, Conditions.Of(rig.Brief) with { Hours = 72 }));
            double At(RigNight night) => Enumerable.Range(0, night.Freezers.Count).Where(n => night.Freezers[n].Name == option.For).Min(n => night.Marks(n).FirstIceS);
            Assert.Equal(option.BeforeS, At(now), 1.0);
            Assert.True(At(then) > option.BeforeS + 800, option.Words.Text);
        }
        Assert.Equal(told.FirstBreakS!.Value, Breaks(rig).AtS, 1.0);
        Assert.InRange(told.Best.Count, 1, 5);
        var (at, first) = Breaks(Editor.Apply(rig, told.BestEdits).Rig);
        Assert.Equal(told.Best[^1].FirstBreakS ?? told.EndS, Math.Min(at, told.EndS), 1.0);
        Assert.Equal(told.Best[^1].First, at < told.EndS ? first : null);
        Assert.True(told.Best[^1].FirstBreakS > told.FirstBreakS + 1800);
        // One after another each is later than the one before.
        Assert.Equal(told.Best.OrderBy(b => b.FirstBreakS ?? told.EndS), told.Best);
    }

    [Fact]
    public void Prices_divide_what_is_won_and_none_is_made_up()
    {
        var rig = DemoRigs.Of("tern");
        Assert.All(InsulationFinder.Ask(Ask(rig)).Options, o => Assert.Null(o.HoursPerMoney));
        var priced = InsulationFinder.Ask(Ask(rig with { Prices = [new Price("tube", "elastomer", 4)] })).Options.First(o => o.HoursPerMoney is not null);
        var run = rig.Runs.Find(((ChangeThing)priced.Edits[0]).Thing.Split('/')[1])!;
        Assert.Equal(priced.HoursWon / (4 * new RigIndex(rig).PipeLengthM(run)), priced.HoursPerMoney!.Value, 1e-9);
        Assert.Equal(priced.HoursWon / 13, priced.HoursPerMm!.Value, 1e-9);
    }

    [Fact]
    public void Thin_pipe_in_a_thin_sleeve_is_told_by_its_critical_diameter()
    {
        // 2 k / h with k 0.036 W/mK and 10 to 20 W/m²K of still air and radiation on something so thin.
        double critical = InsulationFinder.CriticalDiameterM();
        Assert.InRange(critical, 2 * 0.036 / 20, 2 * 0.036 / 10);
        Assert.Contains(InsulationFinder.Ask(Ask(DemoRigs.Of("tern"))).Notes, n => n.Values.Any(v => v.Value == critical) && n.Text.Contains("any sleeve helps", StringComparison.Ordinal));
    }

    [Fact]
    public void A_jacket_is_in_series_with_what_a_part_loses_bare()
    {
        var tank = DemoRigs.Of("tern").Parts.First(p => Catalogue.Part(p.Stock)!.Passage == Passage.Vessel) with { Jacket = null };
        var s = tank.Box.Size;
        double area = 2 * ((s.XM * s.YM) + (s.YM * s.ZM) + (s.ZM * s.XM)), bare = PartWater.LossWPerK(tank);
        // 50 mm of XPS, 0.034 W/mK.
        Assert.Equal(1 / ((1 / bare) + (0.05 / 0.034 / area)), PartWater.LossWPerK(tank with { Jacket = new Sleeve("xps", 0.05) }), 1e-9);
        // A quarter of it bare: a quarter of the bare loss, and three quarters of the other.
        Assert.Equal((0.25 * bare) + (0.75 / ((1 / bare) + (0.05 / 0.034 / area))), PartWater.LossWPerK(tank with { Jacket = new Sleeve("xps", 0.05, 0.25) }), 1e-9);
        var rig = DemoRigs.Of("sparrow");
        double First(double? gaps) => Conductance(rig with { Runs = [.. rig.Runs.Select(r => r with { Insulation = new Sleeve("elastomer", 0.013, gaps), Bends = [.. r.Bends.Select(b => b with { Insulation = null })] })] });
        double Conductance(Rig of) => FreezeLadderStudy.Freezers(new Question(of, Conditions.Of(of.Brief) with { Water = WaterState.Wet })).First(f => f.Id == "kitchen-cold#cupboard.1").Body(Conditions.Of(of.Brief), z => z ?? "outdoor").Contacts[0].ConductanceWPerK;
        double bareRun = Conductance(rig with { Runs = [.. rig.Runs.Select(r => r with { Insulation = null, Bends = [.. r.Bends.Select(b => b with { Insulation = null })] })] });
        Assert.Equal((0.9 * First(null)) + (0.1 * bareRun), First(0.1), 1e-9);
        // A sheet of foil bubbles counts for 8 mm of air and no more.
        Assert.Equal(PartWater.LossWPerK(tank with { Jacket = new Sleeve("bubble-foil", 0.008) }), PartWater.LossWPerK(tank with { Jacket = new Sleeve("bubble-foil", 0.03) }), 1e-9);
        Assert.Contains(RigCheck.Check(DemoRigs.Of("tern") with { Parts = [tank with { Jacket = new Sleeve("straw", 1) }] }), f => f.Path == "parts[0].jacket.material");
    }

    [Fact]
    public void Ice_in_a_part_is_mended_by_what_keeps_it_warm_and_the_hours_are_told()
    {
        var rig = DemoRigs.Of("sparrow");
        var night = Conditions.Of(rig.Brief) with { Water = WaterState.Wet, HeatOn = false };
        var question = new Question(rig, night);
        var ice = question.Ask(Adviser.Ask).Findings.First(f => f is { Kind: FindingKind.FirstIce, Severity: Severity.Fault });
        var fixes = Fixer.Ask(new Question(rig, night, ice.Id)).Fixes;
        Assert.Contains(fixes, f => f.Id.StartsWith("jacket ", StringComparison.Ordinal));
        foreach (var fix in fixes)
        {
            double At(Rig of) => RigNight.Of(new Question(of, night)) is var n ? Math.Min(n.FirstBreak().AtS, n.Answer.ReportS[^1]) : 0;
            Assert.Equal((At(Editor.Apply(rig, fix.Edits).Rig) - At(rig)) / 3600, fix.Wins.HoursWon, 0.02);
        }
    }

    [Fact]
    public void A_tank_is_compared_where_it_is_and_where_it_might_be()
    {
        var rig = DemoRigs.Of("sparrow");
        var told = PlaceFinder.Ask(Ask(rig));
        Assert.Equal("fresh tank 60 L", told.PartName);
        Assert.Equal(["garage", "living space", "under the floor", "boxed in under the floor"], told.Places.Select(p => p.Name));
        Assert.Equal([true, false, false, false], told.Places.Select(p => p.IsNow));
        foreach (var place in told.Places.Skip(1))
        {
            var there = Editor.Apply(rig, place.Edits).Rig;
            var tank = there.Parts.Find(told.PartId)!;
            Assert.DoesNotContain(there.Parts, p => p.Id != tank.Id && Catalogue.Part(p.Stock)!.Look != PartLook.Joint && p.Box.Overlaps(tank.Box, 0.004));
            Assert.Equal(place.CentreM, tank.Box.Centre().ZM, 1e-9);
            Assert.Equal(Math.Max(0, 5 - place.ColdestC) * PartWater.LossWPerK(tank), place.HoldW, 1e-6);
        }
        // Under the floor it takes no room, is the coldest, and freezes first; boxed in it does not.
        var under = told.Places[2];
        Assert.Equal((0.0, told.Places.Min(p => p.ColdestC)), (under.StorageL, under.ColdestC));
        Assert.Equal(under.FirstIceS, told.Places.Min(p => p.FirstIceS));
        Assert.True((told.Places[3].FirstIceS ?? told.EndS) > under.FirstIceS);
        Assert.All(told.Places, p => Assert.True((p.EarliestS ?? told.EndS) <= (p.FirstIceS ?? told.EndS) && (p.FirstIceS ?? told.EndS) <= (p.LatestS ?? told.EndS)));
        Assert.Empty(PlaceFinder.Ask(Ask(rig with { Parts = [], Runs = [] })).Places);
    }
}
