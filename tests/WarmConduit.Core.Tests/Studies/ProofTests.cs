using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Studies.DrainOrder;
using WarmConduit.Core.Studies.Left;
using WarmConduit.Core.Tests.Rigs;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>What a jug that is not as full as it should be may point at, each beside a drain-down of its own.</summary>
public class ProofTests
{
    // A tap, and behind it four metres that fall by 40 mm to the one drain.
    private static Rig Flat() => new RigBuilder().Part("tap", "cold-tap", ("cold", 0, 1, 1.2), ("spout", 0, 1, 1.3))
        .Part("foot", "drain-cock", ("in", 4, 1, 0.3)).Run("line", "tap.cold", "foot.in", new Point3(0, 1, 0.34)).Build();

    private static Question Ask(Rig rig, Attitude? parked = null) => new(rig, Conditions.Of(rig.Brief) with { Parked = parked ?? Attitude.Level });

    // All that is in it, less what stays: with one drain that is what comes there once the tap is open.
    private static double Comes(Question question) => question.Ask(DrainDownStudy.Ask) is var down ? down.Runs.Sum(r => r.FullL) + down.Parts.Sum(p => p.FullL)
        - down.Stays.TotalL : 0;

    private static Suspect? Told(ProofAnswer proof, string words) =>
        proof.Suspects.FirstOrDefault(s => s.Words.Print(UnitSystem.Metric).Contains(words, StringComparison.Ordinal));

    [Fact]
    public void A_lean_and_a_sag_are_told_where_they_explain_it()
    {
        var rig = Flat();
        // Nose up by 2° the four metres fall the other way by 100 mm, and keep most of their water.
        double leaning = Comes(Ask(rig, new Attitude(2, 0))), level = Comes(Ask(rig));
        Assert.True(leaning < 0.6 * level);
        var told = ProofStudy.Ask(Ask(rig), new("foot", leaning));
        var lean = Told(told, "nose 2.0° up")!;
        Assert.Equal(leaning, lean.WouldBeL, 3);
        Assert.Equal(level - leaning, lean.StaysMoreL, 3);
        Assert.Contains("spirit level", lean.Try.Print(UnitSystem.Metric), StringComparison.Ordinal);
        // The other way it falls better: that explains nothing.
        Assert.Null(Told(told, "nose 2.0° down"));
        // A dip of 30 mm in the middle, drawn by hand.
        var sagging = Editor.Apply(rig, [new InsertBend("line", new Bend("dip", new Point3(2, 1, 0.29)), "b1")]).Rig;
        double dipped = Comes(Ask(sagging));
        Assert.True(dipped < level - 0.05);
        var sag = Told(ProofStudy.Ask(Ask(rig), new("foot", dipped)), "line sags by");
        if (Math.Abs(dipped - level) > JugReading.Of("foot", level, dipped).FinestL) Assert.Equal(dipped, sag!.WouldBeL, 3);
    }

    [Fact]
    public void What_came_short_may_still_run_and_what_agrees_points_at_nothing()
    {
        var rig = Flat();
        double level = Comes(Ask(rig));
        var shortage = ProofStudy.Ask(Ask(rig), new("foot", level / 3));
        Assert.Contains("half open, or clogged", shortage.Suspects[^1].Words.Print(UnitSystem.Metric), StringComparison.Ordinal);
        Assert.Equal(2 * level / 3, shortage.Suspects[^1].StaysMoreL, 6);
        Assert.Empty(ProofStudy.Ask(Ask(rig), new("foot", level)).Suspects);
        // Of too much nothing is said to run still.
        Assert.Null(Told(ProofStudy.Ask(Ask(rig), new("foot", 3 * level)), "still runs"));
        Assert.Contains("more came", ProofStudy.Ask(Ask(rig), new("foot", 3 * level)).Verdict.Text, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("sparrow")]
    [InlineData("tern")]
    public void Every_cause_that_is_told_explains_the_jug_within_its_error(string name)
    {
        var rig = DemoRigs.Of(name);
        var question = new Question(rig, Conditions.Of(rig.Brief));
        var random = new Random(7);
        int told = 0;
        var steps = question.Ask(DrainOrderStudy.Ask).Steps.Where(s => s is { Kind: DrainStepKind.Drain, OutL: > 0.3 }).ToList();
        foreach (var step in steps)
        {
            foreach (double share in (double[])[0, random.NextDouble(), 0.5, 1.5, 2 + random.NextDouble()])
            {
                double measured = share * step.OutL;
                var proof = ProofStudy.Ask(question, new(step.Id, measured));
                double finest = JugReading.Of(step.Id, step.OutL, measured).FinestL;
                Assert.Equal(step.OutL, proof.ExpectedL, 6);
                Assert.All(proof.Suspects, s => Assert.True(Math.Abs(s.WouldBeL - measured) <= finest && s.Try.Text.Length > 10 && s.PartId.Length > 0));
                told += proof.Suspects.Count;
            }
        }
        Assert.True(told > steps.Count);
    }

    [Fact]
    public void A_step_that_was_skipped_lets_its_water_out_later_and_taps_that_stay_shut_hold_it_up()
    {
        // A tank with a drain at its outlet, and a lower one at the end of its line: what the first did not let out comes at the second.
        var rig = new RigBuilder().Tank("tank", new Box(new(0, 0, 0.5), new(0.5, 0.4, 0.3)), ("outlet", 0.5, 0.2, 0.5), ("vent", 0, 0.2, 0.8))
            .Part("air", "open-end", ("end", -0.2, 0.2, 0.8)).Run("vent", Service.Vent, "vent-hose-10", "tank.vent", "air.end")
            .Part("tee", "tee", ("a", 0.6, 0.2, 0.5), ("b", 0.7, 0.2, 0.5), ("c", 0.65, 0.3, 0.5)).Part("near", "drain-cock", ("in", 0.65, 0.4, 0.4))
            .Part("far", "drain-cock", ("in", 3, 0.2, 0.2)).Run("outlet", "tank.outlet", "tee.a").Run("leg", "tee.c", "near.in").Run("line", "tee.b",
                "far.in").Build();
        var question = Ask(rig);
        var steps = question.Ask(DrainOrderStudy.Ask).Steps;
        Assert.Equal(2, steps.Count);
        // By hand: only the second was opened.
        double skipped = new Stage(question, new HashSet<string>(), new HashSet<string>()).StaysL() - new Stage(question, new HashSet<string> { steps[1].Id },
            new HashSet<string>()).StaysL();
        Assert.True(skipped > steps[1].OutL + 50);
        var told = ProofStudy.Ask(question, new(steps[1].Id, skipped)).Suspects.First(s => s.PartId == steps[0].Id);
        Assert.Contains("was skipped", told.Words.Print(UnitSystem.Metric), StringComparison.Ordinal);
        Assert.Equal(skipped, told.WouldBeL, 3);
        Assert.Contains("Open ", told.Try.Print(UnitSystem.Metric), StringComparison.Ordinal);
        // A riser of wide bore under taps that nobody opened.
        var riser = new RigBuilder().Part("tee", "tee", ("a", 0, 0, 0.3), ("b", 0.1, 0, 0.3), ("c", 0, 0.1, 0.3)).Part("drain", "drain-cock", ("in", 0, 0, 0.1))
            .Part("one", "cold-tap", ("cold", 0.1, 0, 1.5), ("spout", 0.1, 0, 1.6)).Part("two", "cold-tap", ("cold", 0, 0.1, 1.5), ("spout", 0, 0.1, 1.6))
            .Run("foot", "tee.a", "drain.in").Run("up-one", "tee.b", "one.cold").Run("up-two", "tee.c", "two.cold").Build();
        var shut = ProofStudy.Ask(Ask(riser), new("drain", 0));
        Assert.NotNull(Told(shut, "The taps were not opened"));
    }
}
