using WarmConduit.Core.Advice;
using WarmConduit.Core.Advice.Outlook;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Heating;
using WarmConduit.Core.Tests.Rigs;

namespace WarmConduit.Core.Tests.Advice;

/// <summary>The one verdict: that of the ladder, with the first thing to do about it.</summary>
public class OutlookTests
{
    private static Question Of(Rig rig, Func<Conditions, Conditions> night) => new(rig, night(Conditions.Of(rig)));

    [Fact]
    public void It_is_the_ladders_verdict_on_any_rig_and_night_and_names_what_leads_there()
    {
        var states = new HashSet<(OutlookState, NextKind?)>();
        foreach (int seed in Enumerable.Range(0, 40))
        {
            var rig = AnyRig.Of(seed);
            foreach (var water in Enum.GetValues<WaterState>())
            {
                var question = Of(rig, c => c with { Water = water, OutdoorC = -3 - seed % 17, Hours = 8 + seed % 5 });
                var (told, ladder) = (question.Ask(OutlookStudy.Ask), question.Ask(FreezeLadderStudy.Ask));
                states.Add((told.State, told.Next?.Kind));
                Assert.Equal(ladder.Verdict == Verdict.Fails, told.State == OutlookState.FreezeDamage);
                if (told.State == OutlookState.AtRisk) Assert.Equal(Verdict.PassesButForIce, ladder.Verdict);
                if (told.State == OutlookState.Safe) Assert.Equal(Verdict.Passes, ladder.Verdict);
                var soonest = ladder.Rungs.Where(r => ladder.Verdict == Verdict.Fails ? r.Breaks : r.State != IceState.Safe).MinBy(r => r.AtS);
                if (told.State != OutlookState.Unknown) Assert.Equal(soonest?.AtS, told.FirstS);
                Assert.Equal(water == WaterState.Drained ? question.Ask(DrainDownStudy.Ask).Stays.TotalL : told.StaysL, told.StaysL);
                // What is told to be done by then is told early.
                if (told.Next is { BeforeS: { } before, Kind: not NextKind.Supply }) Assert.True(before <= told.FirstS);
                if (told.Next?.Kind == NextKind.Drain)
                    Assert.NotEqual(Verdict.Fails, Of(rig, _ => question.Conditions with { Water = WaterState.Drained }).Ask(FreezeLadderStudy.Ask).Verdict);
                if (told.Next?.FindingId is { } id) Assert.Contains(question.Ask(Adviser.Ask).Findings, f => f.Id == id && f.Title == told.Next.Words);
            }
        }
        Assert.Contains((OutlookState.FreezeDamage, NextKind.Drain), states);
        Assert.Contains((OutlookState.FreezeDamage, NextKind.Finding), states);
        Assert.Contains(states, s => s.Item1 == OutlookState.Safe);
    }

    /// <summary>Lantern's night takes more than the 2 L of its brief, and hardly more than its 600 Wh: what is sooner is said, at the quarter before.</summary>
    [Fact]
    public void Heat_that_runs_out_before_morning_is_told_by_when()
    {
        var lantern = DemoRigs.Of("lantern");
        OutlookAnswer With(double fuelL, double batteryWh) => Of(
            lantern with { Brief = lantern.Brief with { Choices = lantern.Brief.Chosen() with { FuelL = fuelL, BatteryWh = batteryWh } } },
            c => c with { Water = WaterState.Wet, HeatOn = true }).Ask(OutlookStudy.Ask);
        var plenty = With(50, 5000);
        Assert.Equal((OutlookState.Safe, NextKind.KeepHeat), (plenty.State, plenty.Next!.Kind));
        var fuel = With(2, 600).Next!;
        double emptyS = HeatingStudy.Ask(Of(lantern, c => c with { Water = WaterState.Wet, HeatOn = true })).Energy
            .Single(e => e.Kind == EnergyKind.Fuel).EmptyS!.Value;
        Assert.Equal((NextKind.Supply, "Fill up with fuel"), (fuel.Kind, fuel.Words));
        Assert.InRange(emptyS - fuel.BeforeS!.Value, 0, 900);
        Assert.Equal("Charge the battery", With(50, 100).Next!.Words);
        // Nothing is said of either.
        Assert.Equal(NextKind.KeepHeat, With(0, 0).Next!.Kind);
    }

    [Fact]
    public void A_full_van_is_drained_a_drained_one_is_mended_and_an_empty_one_is_not_known()
    {
        var sparrow = RigFileTests.Sparrow;
        var drained = Of(sparrow, c => c).Ask(OutlookStudy.Ask);
        Assert.Equal((OutlookState.FreezeDamage, NextKind.Finding), (drained.State, drained.Next!.Kind));
        // What is said to go first is what is to be seen to first.
        Assert.StartsWith("shower hot", drained.FirstName, StringComparison.Ordinal);
        Assert.Equal("shower hot", drained.Next.Words);
        // What breaks it once it is drained is no reason to drain it.
        var full = Of(sparrow, c => c with { Water = WaterState.Wet }).Ask(OutlookStudy.Ask);
        Assert.Equal((OutlookState.FreezeDamage, NextKind.Finding), (full.State, full.Next!.Kind));
        var mild = Of(sparrow, c => c with { Water = WaterState.Wet, OutdoorC = 8 }).Ask(OutlookStudy.Ask);
        Assert.Equal((OutlookState.Safe, null), (mild.State, mild.Next));

        var empty = sparrow with { Parts = [], Runs = [], ByHand = [], Scenarios = Scenarios.Standard };
        var unknown = Of(empty, c => c).Ask(OutlookStudy.Ask);
        Assert.Equal((OutlookState.Unknown, NextKind.Draw), (unknown.State, unknown.Next!.Kind));
    }
}
