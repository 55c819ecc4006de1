using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Starting;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Measuring;
using WarmConduit.Core.Studies.Supply;

namespace WarmConduit.Core.Tests.Studies;

public class SupplyTests
{
    private static Rig Weekend(BriefChoices? choices = null)
    {
        var rig = Start.Make(new NewRig("Test", 3.7, 1.75, 1.9, WayOfLiving.Weekends, FreezeSchool.Drain, "long-van", "weekend-drain"));
        return rig with { Brief = rig.Brief with { Choices = choices } };
    }

    private static SupplyAnswer Ask(Rig rig) => SupplyStudy.Ask(new Question(rig, Conditions.Of(rig.Brief)));

    private static Consequence Of(SupplyAnswer answer, string id) => answer.Consequences.Single(c => c.Id == id);

    /// <summary>By hand: 2 people × 9 L × 3 days = 54 L, 53.83 kg at 10 °C (996.84 kg/m³); the tank of 500 × 600 × 200 mm holds 60 L, 3.33 days; 4 trips with a
    /// can of 15 L.</summary>
    [Fact]
    public void A_fill_by_hand()
    {
        var answer = Ask(Weekend());
        Assert.Equal((54, 60), (answer.WantedL, Math.Round(answer.FreshL, 6)));
        var wanted = Of(answer, "wanted").Words.Values;
        Assert.Equal(18, wanted[0].Value);
        Assert.Equal(53.83, wanted[2].Value!.Value, 2);
        var lasts = Of(answer, "lasts");
        Assert.Equal(60 / 18.0 * 86_400, lasts.Words.Values[1].Value!.Value, 3);
        Assert.False(lasts.Lacking);
        Assert.StartsWith("A fill from a can is 4 trips", Of(answer, "cans").Words.Text, StringComparison.Ordinal);
        Assert.StartsWith("A fill from a can is 1 trip of", Of(Ask(Weekend(BriefChoices.Usual with { CanL = 60 })), "cans").Words.Text,
            StringComparison.Ordinal);
    }

    /// <summary>By hand: 0.75 L with 1.2 bar of air between 1.4 and 2.0 bar, absolute: 0.75 × 2.21325 × (1/2.41325 - 1/3.01325) = 0.13696 L; with 1.4 bar
    /// 0.14934 L.</summary>
    [Theory]
    [InlineData(AccumulatorSchool.BelowCutIn, 0.13696)]
    [InlineData(AccumulatorSchool.AtCutIn, 0.14934)]
    public void The_accumulators_school_sets_the_water_between_starts(AccumulatorSchool school, double litres) =>
        Assert.Equal(litres, Of(Ask(Weekend(BriefChoices.Usual with { Accumulator = school })), "accumulator").Words.Values[2].Value!.Value, 5);

    [Fact]
    public void What_the_rig_lacks_is_told()
    {
        var rig = Weekend();
        Assert.True(Of(Ask(rig with { Brief = rig.Brief with { DaysBetweenFills = 9 } }), "lasts").Lacking);
        Assert.True(Of(Ask(rig), "grey").Lacking);
        Assert.False(Of(Ask(Weekend(BriefChoices.Usual with { Grey = GreySchool.Bucket })), "grey").Lacking);
        var warm = rig with { Brief = rig.Brief with { School = FreezeSchool.Heat, Choices = BriefChoices.Usual with { FuelL = 0.1 } } };
        Assert.True(Of(Ask(warm), "fuel").Lacking);
        Assert.False(Of(Ask(warm with { Brief = warm.Brief with { Choices = BriefChoices.Usual with { FuelL = 50 } } }), "fuel").Lacking);
        // 25 psi is 1.72 bar; no part is weaker than the pump's 4 bar.
        Assert.Equal(172_369, Of(Ask(Weekend(BriefChoices.Usual with { Air = AirSchool.Psi25 })), "air").Words.Values[0].Value!.Value, 0);
    }

    /// <summary>Every choice is read: each says something of its own beside it.</summary>
    [Fact]
    public void Joints_are_counted_and_every_school_is_answered()
    {
        string Said(BriefChoices choices, string id) => Of(Ask(Weekend(choices)), id).Words.Text;
        int ends = 2 * Weekend().Runs.Count(r => r.Service is Service.Cold or Service.Hot);
        Assert.StartsWith($"{ends} rings", Said(BriefChoices.Usual, "joints"), StringComparison.Ordinal);
        Assert.StartsWith($"{ends} clips", Said(BriefChoices.Usual with { Joints = JointSchool.Barb }, "joints"), StringComparison.Ordinal);
        Assert.StartsWith($"{ends} pipe ends", Said(BriefChoices.Usual with { Joints = JointSchool.PushFit }, "joints"), StringComparison.Ordinal);
        Assert.NotEqual(Said(BriefChoices.Usual, "threads"), Said(BriefChoices.Usual with { Threads = ThreadSchool.Paste }, "threads"));
        Assert.All(Schools.All, s => Assert.True(s.Ways.Count > 1 && s.Ways.All(w => w.GoodFor.Length > 20)));
    }

    [Fact]
    public void A_choice_out_of_range_is_refused_at_its_field()
    {
        var faults = RigCheck.Check(Weekend(BriefChoices.Usual with { CanL = 0, BatteryWh = double.NaN, LocalRules = new string('x', 1001) }));
        Assert.Equal(["brief.choices.batteryWh", "brief.choices.canL", "brief.choices.localRules"], faults.Select(f => f.Path).Order());
        Assert.Equal(BriefChoices.Usual with { CanL = 20 },
            RigFile.Read(System.Text.Encoding.UTF8.GetBytes(RigFile.Write(Weekend(BriefChoices.Usual with { CanL = 20 })))).Brief.Choices);
    }

    /// <summary>What moves the coldest room most leads, and what is missing comes before all.</summary>
    [Fact]
    public void What_to_measure_next()
    {
        static MeasureNextAnswer Next(Rig rig) => MeasureNextStudy.Ask(new Question(rig, Conditions.Of(rig.Brief)));
        var empty = Next(Start.Make(new NewRig("Test", 3.7, 1.75, 1.9, WayOfLiving.Weekends, FreezeSchool.Drain)));
        Assert.Equal((null, "rooms, arches, tank"), (empty.ZoneId, string.Join(", ", empty.Items.Select(i => i.Id))));
        var next = Next(Weekend());
        Assert.Equal("garage", next.ZoneId);
        Assert.StartsWith("holds-", next.Items[0].Id, StringComparison.Ordinal);
        var swings = next.Items.Where(i => i.SwingK is not null).Select(i => i.SwingK!.Value).ToList();
        Assert.True(swings.Count > 1);
        Assert.Equal(swings.OrderDescending(), swings);
        // The garage hangs on its own draughts; the roof is the heater's business, which holds the living space anyhow.
        double Of(string id) => next.Items.SingleOrDefault(i => i.Id == id)?.SwingK ?? 0;
        Assert.True(Of("leaks-garage") > 0.2);
        Assert.True(Of("leaks-garage") > Of("layers-roof"));
    }
}
