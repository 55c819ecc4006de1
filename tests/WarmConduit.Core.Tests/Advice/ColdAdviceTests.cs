using WarmConduit.Core.Advice;
using WarmConduit.Core.Advice.Cold;
using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Heat;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Tests.Rigs;
using WarmConduit.Core.Tests.Studies;

namespace WarmConduit.Core.Tests.Advice;

/// <summary>Insulation that pays, and places compared: what they say is what the rig then does.</summary>
public class ColdAdviceTests
{
    private static Question Ask(Rig rig) => new(rig, Conditions.Of(rig.Brief));

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
            var then = RigNight.Of(new Question(Editor.Apply(rig, option.Edits).Rig,
                Conditions.Of(rig.Brief) with { Hours = 72, Events = option.Event is { } done ? [done] : null }));
            double At(RigNight night) => Enumerable.Range(0, night.Candidates.Count).Where(n => night.Candidates[n].Name == option.For)
                .Min(n => night.Marks(n).FirstIceS);
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
        // A board by its area and thickness: 25 mm around a tank at 12 a square metre of 20 mm.
        var cold = Tank(0.7) with { Prices = [new Price("board", "xps", 12, PriceUnit.SquareMetre)] };
        var jacket = InsulationFinder.Ask(new Question(cold, Arctic(cold))).Options.First(o => o.Words.Text.Contains("a jacket of", StringComparison.Ordinal));
        Assert.Equal(jacket.HoursWon / (12 * 2.5 * 25 / 20), jacket.HoursPerMoney!.Value, 1e-9);
        Assert.Equal(["prices[0].unit", "prices[1].unit"], RigCheck.Check(cold with
        {
            Prices =
            [new("a", "xps", 1, PriceUnit.Each), new("b", "pex-1/2", 1, PriceUnit.SquareMetre)]
        }).Select(f => f.Path));
    }

    [Fact]
    public void Thin_pipe_in_a_thin_sleeve_is_told_by_its_critical_diameter()
    {
        // 2 k / h with k 0.036 W/mK and 10 to 20 W/m²K of still air and radiation on something so thin.
        double critical = InsulationFinder.CriticalDiameterM();
        Assert.InRange(critical, 2 * 0.036 / 20, 2 * 0.036 / 10);
        Assert.Contains(InsulationFinder.Ask(Ask(DemoRigs.Of("tern"))).Notes, n => n.Values.Any(v => v.Value == critical)
            && n.Text.Contains("any sleeve helps", StringComparison.Ordinal));
    }

    // A plain tank of a metre by half by half, off all faces of a room of 2 m or with its underside on the floor, 12 mm of plywood over 50 mm of XPS, an open
    // underfloor below.
    private static Rig Tank(double aboveM, Sleeve? jacket = null, IReadOnlyList<Facing>? off = null)
    {
        var rig = new RigBuilder().Tank("tank", new Box(new(0.5, 0.5, aboveM), new(1, 0.5, 0.5)), ("outlet", 0.5, 0.6, aboveM + 0.05)).Build();
        Zone Of(string id, ZoneKind kind, double z, double high, params Face[] faces) =>
            new(id, id, kind, new Box(new(0, 0, z), new(2, 2, high)), 0.5, faces, []);
        var floor = new Face("floor-under", "floor", FaceSide.Floor, 4, [new("plywood", 0.012), new("xps", 0.05)], 0, [], "under");
        rig = rig with
        {
            Shell = rig.Shell with { Zones = [Of("room", ZoneKind.Living, 0, 2, floor), Of("under", ZoneKind.OpenUnderfloor, -1, 1)] },
            Parts = [rig.Parts[0] with { Jacket = jacket, JacketOff = off, HoldsL = 20 }],
        };
        Assert.Empty(RigCheck.Check(rig));
        return rig;
    }

    private static Conditions Arctic(Rig rig) => Conditions.Of(rig.Brief) with { OutdoorC = -30, Water = WaterState.Wet, HeatOn = false };

    private static IReadOnlyList<PartContact> Losses(Rig rig) => PartContacts.Of(Ask(rig), rig.Parts[0]);

    [Fact]
    public void A_tank_loses_by_each_side_through_its_jacket_and_through_what_it_stands_on()
    {
        // 1/(1/5 + 0.005/0.4 + 1/8) W/m²K over 2.5 m².
        double air = 0.2 + 0.0125 + 0.125, jacket = 0.05 / 0.034;
        double Sum(Rig rig) => Losses(rig).Sum(c => c.WPerK);
        Assert.Equal(2.5 / air, Sum(Tank(0.7)), 1e-6);
        Assert.Equal(2.5 / (air + jacket), Sum(Tank(0.7, new Sleeve("xps", 0.05))), 1e-6);
        // A quarter of it bare, or its top left bare.
        Assert.Equal((0.25 * 2.5 / air) + (0.75 * 2.5 / (air + jacket)), Sum(Tank(0.7, new Sleeve("xps", 0.05, 0.25))), 1e-6);
        Assert.Equal((0.5 / air) + (2 / (air + jacket)), Sum(Tank(0.7, new Sleeve("xps", 0.05), [Facing.Up])), 1e-6);
        // Two layers are in series; a sheet of foil bubbles counts for 8 mm of air and no more.
        Assert.Equal(2.5 / (air + jacket + (0.008 / 0.04)), Sum(Tank(0.7, new Sleeve("xps", 0.05, Over: new Sleeve("bubble-foil", 0.03)))), 1e-6);

        // On the floor half a square metre of it has the floor and the wind under it instead of the room.
        var rig = Tank(0);
        var night = Conditions.Of(rig.Brief);
        double floor = (0.012 / Catalogue.Solid("plywood")!.ConductivityWPerMK) + (0.05 / 0.034)
            + (1 / SurfaceCoefficient.OuterWallWPerM2K(night.WindMPerS, 0.9, night.OutdoorC));
        var losses = Losses(rig).ToDictionary(c => (c.To!.Id, c.Through), c => c.AtWPerK(night.OutdoorC, night.WindMPerS));
        Assert.Equal([("room", false), ("under", true)], losses.Keys.Order());
        Assert.Equal(2 / air, losses[("room", false)], 1e-6);
        Assert.Equal(0.5 / (0.2 + 0.0125 + floor), losses[("under", true)], 1e-6);
        Assert.Contains(InsulationFinder.Ask(new Question(rig, Arctic(rig))).Options, o =>
            o.Words.Text.Contains("except where it touches something", StringComparison.Ordinal));
        // Under the floor five sides are in the wind, and the top has the room above it through the floor.
        double wind = 1 / SurfaceCoefficient.OuterWallWPerM2K(night.WindMPerS, 0.9, night.OutdoorC);
        var under = Losses(Tank(-0.5)).ToDictionary(c => (c.To!.Id, c.Through), c => c.AtWPerK(night.OutdoorC, night.WindMPerS));
        Assert.Equal(2 / (0.2 + 0.0125 + wind), under[("under", false)], 1e-6);
        Assert.Equal(0.5 / (0.2 + 0.0125 + floor - wind + 0.17), under[("room", true)], 1e-6);
        // Any other figure of its own is for all of it, to its room.
        Assert.Equal([(3.0, false)], Losses(rig with { Parts = [rig.Parts[0] with { LossWPerK = 3 }] }).Select(c => (c.WPerK, c.Through)));
    }

    [Fact]
    public void A_sleeve_of_several_layers_and_gaps_is_checked_and_adds_up()
    {
        var rig = DemoRigs.Of("sparrow");
        double Loss(Sleeve? sleeve) =>
            FreezeLadderStudy.Candidates(new Question(With(sleeve), Conditions.Of(rig.Brief) with { Water = WaterState.Wet }))
                .First(f => f.Id == "kitchen-cold#cupboard.1").Body(Conditions.Of(rig.Brief), z => z ?? "outdoor").Contacts.Sum(c => RigBuilder.At5WPerK(c));
        Rig With(Sleeve? sleeve) => rig with
        {
            Runs = [.. rig.Runs.Select(r =>
            r with { Insulation = sleeve, Bends = [.. r.Bends.Select(b => b with { Insulation = null })] })]
        };
        Assert.Equal((0.9 * Loss(new Sleeve("elastomer", 0.013))) + (0.1 * Loss(null)), Loss(new Sleeve("elastomer", 0.013, 0.1)), 1e-5);
        // Twice 10 mm of one material are 20 mm of it, and a poorer one outside holds less than a better one.
        Assert.Equal(Loss(new Sleeve("elastomer", 0.02)), Loss(new Sleeve("elastomer", 0.01, Over: new Sleeve("elastomer", 0.01))), 1e-9);
        Assert.True(Loss(new Sleeve("elastomer", 0.01, Over: new Sleeve("plywood", 0.01))) > Loss(new Sleeve("elastomer", 0.01,
            Over: new Sleeve("pir", 0.01))));
        // ln(20/15)/k + ln(30/20)/k' on a pipe of 15 mm.
        Assert.Equal(Math.Log(30 / 15.0) / ((Math.Log(20 / 15.0) / 0.036) + (Math.Log(30 / 20.0) / 0.024)),
            PipeSection.AsOneLayer(0.015, [new(0.0025, 0.036), new(0.005, 0.024)]), 1e-12);
        foreach (var (wrong, path) in ((Sleeve, string)[])[
            (new("elastomer", 0.01, Over: new("straw", 0.01)), "over.material"), (new("elastomer", 0, Over: new("xps", 0.01)), "over"),
            (new("elastomer", 0.01, Over: new("xps", 0.01, 0.1)), "over.gapShare"),
            (new("elastomer", 0.01, Over: new("xps", 0.01, Over: new("xps", 0.01, Over: new("xps", 0.01)))), "over.over.over")])
            Assert.Contains(RigCheck.Check(With(wrong)), f => f.Path == $"runs[0].insulation.{path}");
        var part = rig.Parts[0];
        Assert.Contains(RigCheck.Check(rig with { Parts = [part with { JacketOff = [Facing.Up] }, .. rig.Parts.Skip(1)] }), f =>
            f.Path == "parts[0].jacketOff");
    }

    [Fact]
    public void Ice_in_a_part_is_mended_by_what_keeps_it_warm_and_the_hours_are_told()
    {
        var rig = DemoRigs.Of("sparrow");
        var night = Conditions.Of(rig.Brief) with { Water = WaterState.Wet, HeatOn = false };
        var question = new Question(rig, night);
        var ice = question.Ask(Adviser.Ask).Findings.First(f => f is { Kind: FindingKind.FirstIce, Severity: Severity.Fault });
        var fixes = Fixer.Ask(new Question(rig, night), new FixesInput(ice.Id)).Fixes;
        Assert.Contains(fixes, f => f.Id.StartsWith("jacket ", StringComparison.Ordinal));
        foreach (var fix in fixes)
        {
            double At(Rig of) => RigNight.Of(new Question(of, night)) is var n ? Math.Min(n.FirstBreak().AtS, n.Answer.ReportS[^1]) : 0;
            Assert.Equal((At(Editor.Apply(rig, fix.Edits).Rig) - At(rig)) / 3600, fix.Wins.HoursWon, 0.02);
        }
    }

    [Fact]
    public void A_cupboard_door_left_open_is_planned_and_a_tank_in_the_wind_is_boxed_in_or_set_inside()
    {
        var rig = DemoRigs.Of("sparrow");
        var night = Conditions.Of(rig.Brief) with { OutdoorC = -55, Water = WaterState.Wet, HeatOn = true };
        // The heater holds the living space, so the cupboard is colder than what it opens to.
        var door = InsulationFinder.Ask(new Question(rig, night)).Options.FirstOrDefault(o => o.Event is not null);
        Assert.NotNull(door);
        Assert.Equal((PlanEventKind.Open, "cupboard", "living"), (door.Event!.Kind, door.Event.ZoneId, door.Event.Towards));
        Assert.Empty(door.Edits);
        // Planned once, it is not offered again.
        Assert.DoesNotContain(InsulationFinder.Ask(new Question(rig, night with { Events = [door.Event] })).Options, o => o.Event is not null);
        var under = Tank(-0.5);
        var options = InsulationFinder.Ask(new Question(under, Arctic(under))).Options;
        Assert.All((string[])["set inside, in room", "boxed in under the floor"], words =>
            Assert.True(Assert.Single(options, o => o.Words.Text.Contains(words, StringComparison.Ordinal)).HoursWon > 1));
    }

    [Fact]
    public void A_tank_is_compared_where_it_is_and_where_it_might_be()
    {
        var rig = DemoRigs.Of("sparrow").Unheated();
        var told = PlaceFinder.Ask(Ask(rig), new PlacesInput());
        Assert.Equal("fresh tank 60 L", told.PartName);
        Assert.Equal(["garage", "living space", "under the floor", "boxed in under the floor"], told.Places.Select(p => p.Name));
        Assert.Equal([true, false, false, false], told.Places.Select(p => p.IsNow));
        foreach (var place in told.Places.Skip(1))
        {
            var there = Editor.Apply(rig, place.Edits).Rig;
            var tank = there.Parts.Find(told.PartId)!;
            Assert.DoesNotContain(there.Parts, p => p.Id != tank.Id && Catalogue.Part(p.Stock)!.Look != PartLook.Joint && p.Box.Overlaps(tank.Box, 0.004));
            Assert.Equal(place.CentreM, tank.Box.Centre().ZM, 1e-9);
            // Held at 5 °C against the coldest of each that it loses to: no more than its bare sides could lose to the coldest of all.
            Assert.InRange(place.HoldW, 0, Math.Max(0, 5 - rig.Brief.LowestC) * 4.71 * PartContacts.Sides.Sum(s => tank.SideM2(s)));
            Assert.Equal(place.ColdestC >= 5 && there.Brief.LowestC >= 5, place.HoldW <= 0);
        }
        // Under the floor it takes no room, is the coldest, and freezes first; boxed in it does not.
        var under = told.Places[2];
        Assert.Equal((0.0, told.Places.Min(p => p.ColdestC)), (under.StorageL, under.ColdestC));
        Assert.Equal(under.FirstIceS, told.Places.Min(p => p.FirstIceS));
        Assert.True((told.Places[3].FirstIceS ?? told.EndS) > under.FirstIceS);
        Assert.All(told.Places, p => Assert.True((p.EarliestS ?? told.EndS) <= (p.FirstIceS ?? told.EndS)
            && (p.FirstIceS ?? told.EndS) <= (p.LatestS ?? told.EndS)));
        Assert.Empty(PlaceFinder.Ask(Ask(rig with { Parts = [], Runs = [] }), new PlacesInput()).Places);
    }
}
