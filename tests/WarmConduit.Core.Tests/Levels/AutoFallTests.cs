using System.Text.Json;
using CsCheck;
using WarmConduit.Core.Levels;
using WarmConduit.Core.Tests.Reference;

namespace WarmConduit.Core.Tests.Levels;

public class AutoFallTests
{
    private static FallQuestion Read(JsonElement c) => new(
        [.. c.Rows("nodes").Select(n => new FallPoint(n.Text("id"), n.Num("lowest_m"), n.Num("highest_m")))],
        [.. c.Rows("edges").Select(e => new FallLength(e.Text("from"), e.Text("to"), e.Num("length_m"), e.Num("dx_m"), e.Num("dy_m")))],
        c.Num("pitchTolerance_deg"), c.Num("rollTolerance_deg"), c.Num("minimumFall"));

    [Fact]
    [Trait("Category", "Reference")]
    public void Greatest_margins() => Cases.Each("auto_fall", (c, expected, check) =>
    {
        var question = Read(c);
        var answer = AutoFall.Solve(question);
        check.Near("margin", expected.Num("margin"), answer.Margin, 0, 1e-4);
        check.Same("feasible", expected.GetProperty("feasible").GetBoolean(), answer.Feasible);
        check.Near("certificate", answer.Margin, answer.Binding!.Margin(), 0, 1e-9);
    });

    private static readonly Gen<FallQuestion> Any =
        from n in Gen.Int[2, 30]
        from limits in Gen.Select(Gen.Double[0, 0.5], Gen.Double[0, 0.5]).Array[n]
        from links in Gen.Select(Gen.Int[0, 999], Gen.Double[0.1, 2], Gen.Double[0, 1]).Array[n + 4]
        from pitch in Gen.Double[0, 2]
        select new FallQuestion(
            [.. limits.Select((l, i) => new FallPoint($"p{i}", l.Item1, l.Item1 + l.Item2))],
            [.. links.Select((l, e) => (From: 1 + e % (n - 1), To: l.Item1 % (1 + e % (n - 1)), l)).Select(t => new FallLength(
                $"p{t.From}", $"p{t.To}", t.l.Item2, t.l.Item2 * t.l.Item3, t.l.Item2 * (1 - t.l.Item3)))],
            pitch, 1, 0.02);

    [Fact]
    public void Heights_have_the_margin_the_chain_allows_no_more_and_the_changes_make_it_possible() => Any.Sample(question =>
    {
        var answer = AutoFall.Solve(question);
        var index = question.Points.Select((p, i) => (p.Id, i)).ToDictionary(t => t.Id, t => t.i);
        double pitch = Math.Tan(question.PitchToleranceDeg * Math.PI / 180), roll = Math.Tan(Math.PI / 180);
        foreach (var l in question.Lengths)
        {
            double drop = answer.HeightM[index[l.From]] - answer.HeightM[index[l.To]];
            Assert.True(drop >= answer.Margin * l.LengthM + pitch * Math.Abs(l.DxM) + roll * Math.Abs(l.DyM) - 1e-7);
        }
        for (int p = 0; p < question.Points.Count; p++)
            Assert.InRange(answer.HeightM[p], question.Points[p].LowestM - 1e-7, question.Points[p].HighestM + 1e-7);
        Assert.Equal(answer.Margin, answer.Binding!.Margin(), 1e-9);
        Assert.Equal(answer.Feasible, answer.Changes.Count == 0);
        // Each change is the least for its chain: with all of them made the wanted fall is possible, with one of them cut short it is not.
        FallQuestion Lowered(double share) => question with
        {
            Points = [.. question.Points.Select(p => p with { LowestM = p.LowestM - answer.Changes.Where(c => c.Chain.Points[^1] == p.Id)
                .Sum(c => c.ByM * share + 1e-8) })],
        };
        Assert.True(AutoFall.Solve(Lowered(1)).Feasible);
        if (answer.Changes.Any(c => c.ByM > 1e-4)) Assert.False(AutoFall.Solve(Lowered(0.9)).Feasible);
    });

    [Fact]
    public void A_loop_that_shall_fall_all_the_way_round_is_named_and_bad_limits_are_refused()
    {
        var round = new FallQuestion(
            [new("a", 0, 1), new("b", 0, 1), new("c", 0, 1)], [new("a", "b", 1, 1, 0), new("b", "c", 1, 1, 0), new("c", "a", 1, 1, 0)], 1, 0, 0.01);
        var answer = AutoFall.Solve(round);
        Assert.False(answer.Feasible);
        Assert.Equal(-Math.Tan(Math.PI / 180), answer.Margin, 1e-9);
        Assert.Equal(answer.Binding!.Points[0], answer.Binding.Points[^1]);
        Assert.Equal("b", Assert.Throws<LevelNetworkException>(() => AutoFall.Solve(round with
        {
            Points =
            [new("a", 0, 1), new("b", 2, 1), new("c", 0, 1)]
        })).Place);
        Assert.Equal("a-x", Assert.Throws<LevelNetworkException>(() => AutoFall.Solve(round with { Lengths = [new("a", "x", 1, 0, 0)] })).Place);
    }
}
