using WarmConduit.Core.Advice;
using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Tests.Rigs;
using WarmConduit.Core.Tests.Studies;

namespace WarmConduit.Core.Tests.Advice;

/// <summary>What is proposed against brute force with as many changes, on rigs laid by chance; the same from whichever end a line was drawn.</summary>
public class FixTruthTests
{
    // A rig that brute force is through with soon; the campaign takes the first 1, 2, 3 ….
    private static readonly int[] Soon = [28];

    private static int[] Seeds => int.TryParse(Environment.GetEnvironmentVariable("WARM_CONDUIT_FIX_RIGS"), out int n) ? [.. Enumerable.Range(1, n)] : Soon;

    private static FixAllAnswer Mended(Rig rig) => FixAll.Ask(new Question(rig, Conditions.Of(rig.Brief), TestContext.Current.CancellationToken), new());

    [Fact]
    public void A_set_leaves_no_more_than_a_tenth_above_the_best_of_as_many_changes()
    {
        var missed = new List<string>();
        foreach (int seed in Seeds)
        {
            var mended = Mended(AnyRig.Of(seed));
            // What wins no water is about something else, and is not counted.
            int changes = Math.Clamp(mended.Fixes.Count(f => f.Litres > 0.0005), 1, 6);
            var best = PlainMending.Best(AnyRig.Of(seed), changes);
            CampaignTable.Row($"| {seed} | {mended.BeforeL:0.000} | {mended.Fixes.Count} | {mended.AfterL:0.000} | {best[^1]:0.000} |");
            if (mended.AfterL > Math.Max(1.1 * best[^1], best[^1] + 0.005)) missed.Add($"{seed}: {mended.AfterL:0.000} L for {best[^1]:0.000} L");
        }
        Assert.Empty(missed);
    }

    [Fact]
    public void A_line_drawn_from_its_other_end_is_mended_as_well()
    {
        var missed = new List<string>();
        foreach (int seed in Seeds.Length > 2 ? Seeds : [6, 22, 26])
        {
            var rig = AnyRig.Of(seed);
            double one = Mended(rig).AfterL, other = Mended(rig with
            {
                Runs =
                [.. rig.Runs.Select(r => r with { From = r.To, To = r.From, Bends = [.. r.Bends.Reverse()] })]
            }).AfterL;
            if (Math.Abs(one - other) > Math.Max(0.1 * Math.Min(one, other), 0.005)) missed.Add($"{seed}: {one:0.000} L, and {other:0.000} L");
        }
        Assert.Empty(missed);
    }

    [Fact]
    public void Nose_down_by_a_degree_what_keeps_water_has_something_that_helps()
    {
        foreach (string name in (string[])["sparrow", "tern"])
        {
            var rig = DemoRigs.Of(name);
            var question = new Question(rig, Conditions.Of(rig.Brief) with { Parked = new Attitude(-1, 0) }, TestContext.Current.CancellationToken);
            var pools = question.Ask(Adviser.Ask).Findings.Where(f => f.Kind == FindingKind.Pool).ToList();
            Assert.NotEmpty(pools);
            Assert.All(pools, pool => Assert.True(Fixer.Ask(question.On(rig, default), new(pool.Id)).Fixes.Count > 0,
                $"{name}, {pool.Title}: {Fixer.Ask(question.On(rig, default), new(pool.Id)).Refused}"));
        }
    }

    [Fact]
    public void A_loose_end_at_a_port_is_joined_and_a_rig_without_a_drain_gets_one()
    {
        var rig = DemoRigs.Of("sparrow");
        var run = rig.Runs.First(r => r.Id == "kitchen-cold");
        var port = new RigIndex(rig).PlaceOf(run.To);
        var loose = rig with { Runs = [.. rig.Runs.Select(r => r.Id == run.Id ? r with { To = new RunEnd(At: port) } : r)] };
        var ask = new Question(loose, Conditions.Of(loose.Brief), TestContext.Current.CancellationToken);
        Assert.Equal(run.To, Editor.Apply(loose, Fixer.Ask(ask, new($"loose:{run.Id}:to")).Fixes[0].Edits).Rig.Runs.First(r => r.Id == run.Id).To);

        var shut = new RigBuilder().Part("tap", "mixer", ("cold", 0, 0, 0.6), ("spout", 0, 0, 0.8)).Part("cap", "end-cap", ("in", 1, 0, 0.6))
            .Run("line", "tap.cold", "cap.in", new Point3(0.5, 0, 0.3)).Build();
        shut = Editor.Apply(shut, [new SetPosition(shut.ScenarioOf(ScenarioKind.Drain).Id, "tap", Positions.Closed)]).Rig;
        var answer = Fixer.Ask(new Question(shut, Conditions.Of(shut.Brief), TestContext.Current.CancellationToken), new("nothing-open"));
        Assert.True(answer.Fixes.Any(f => f.Costs.Parts > 0 && f.Wins.Litres > 0.05), answer.Refused);
    }
}
