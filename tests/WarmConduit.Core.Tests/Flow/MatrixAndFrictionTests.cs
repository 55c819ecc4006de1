using CsCheck;
using WarmConduit.Core.Flow;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Numerics;

namespace WarmConduit.Core.Tests.Flow;

public class MatrixAndFrictionTests
{
    [Fact]
    public void The_skyline_solves_what_plain_elimination_solves() =>
        Gen.Select(Gen.Int[1, 25], Gen.Select(Gen.Int[0, 24], Gen.Int[0, 24], Gen.Double[0.01, 5]).Array[0, 60], Gen.Double[-5, 5].Array[25])
            .Sample((n, links, right) =>
        {
            var used = links.Where(l => l.Item1 < n && l.Item2 < n && l.Item1 != l.Item2).ToArray();
            var skyline = new SkylineMatrix(n, used.Select(l => (l.Item1, l.Item2)));
            var dense = new double[n, n + 1];
            void Add(int i, int j, double v)
            {
                skyline.Add(i, j, v);
                dense[i, j] += v;
                if (i != j) dense[j, i] += v;
            }
            for (int i = 0; i < n; i++) Add(i, i, 0.3);
            foreach (var (a, b, g) in used)
            {
                Add(a, a, g);
                Add(b, b, g);
                Add(a, b, -g);
            }
            for (int i = 0; i < n; i++) dense[i, n] = right[i];
            var x = right[..n];
            Assert.True(skyline.Solve(x));
            var expected = Dense.Solve(dense, n)!;
            for (int i = 0; i < n; i++) Assert.Equal(expected[i], x[i], 1e-8);
        });

    [Fact]
    public void A_singular_matrix_is_told_and_not_solved()
    {
        var matrix = new SkylineMatrix(2, [(0, 1)]);
        matrix.Add(0, 0, 1);
        matrix.Add(1, 1, 1);
        matrix.Add(0, 1, -1);
        Assert.False(matrix.Solve([1, 1]));
        Assert.Null(Dense.Solve(new double[,] { { 1, 2, 3 }, { 2, 4, 6 } }, 2, 1e-12));
    }

    [Theory]
    [InlineData(500, 0, 0.128)]
    [InlineData(2000, 0, 0.032)]
    [InlineData(1e5, 0, 0.0180)]
    [InlineData(1e5, 0.001, 0.0222)]
    [InlineData(1e7, 0.01, 0.0379)]
    public void Friction_is_that_of_the_chart(double reynolds, double roughness, double expected) =>
        Assert.Equal(expected, Friction.Churchill(reynolds, roughness), 0.03 * expected);

    [Fact]
    public void Loss_rises_with_flow_is_odd_and_its_slope_is_its_derivative() =>
        Gen.Select(Gen.Double[1e-7, 5e-4], Gen.Double[0.005, 0.03], Gen.Double[0, 20]).Sample((q, bore, minor) =>
        {
            var (loss, slope) = Friction.Pipe(q, 2, bore, 1.5e-6, minor, 1000, 1e-3);
            Assert.Equal(-loss, Friction.Pipe(-q, 2, bore, 1.5e-6, minor, 1000, 1e-3).LossM, 12);
            Assert.Equal(loss, Friction.PipeLossM(q, 2, bore, 1.5e-6, minor, 1000, 1e-3), 1e-9 * loss);
            double dq = q * 1e-4, by = (Friction.PipeLossM(q + dq, 2, bore, 1.5e-6, minor, 1000, 1e-3) - Friction.PipeLossM(q - dq, 2, bore, 1.5e-6, minor,
                1000, 1e-3)) / (2 * dq);
            Assert.True(slope > 0);
            Assert.Equal(by, slope, 0.02 * by + 1e-6);
        });

    [Fact]
    public void Seven_litres_a_minute_through_half_inch_pipe_lose_what_the_trade_reckons()
    {
        // Some 10 kPa a metre... of ten metres: 7 L/min is 0.98 m/s in 12.3 mm.
        double perMetre = Friction.PipeLossM(7 / 60_000.0, 1, 0.0123, 1.5e-6, 0, 1000, 1.3e-3);
        Assert.Equal(0.13, perMetre, 0.03);
    }

    [Fact]
    public void A_tap_gives_more_when_no_other_is_open()
    {
        FlowNetwork With(double other) => new(
            1000, 1.3e-3, [new("tank", 0.3), new("pumped"), new("tee"), new("a"), new("b")],
            [
                new FlowPump("pump", "tank", "pumped", 20, 1.4e9), new FlowPipe("trunk", "pumped", "tee", 4, 0.0123, 1.5e-6, 6),
                new FlowPipe("to-a", "tee", "a", 2, 0.0123, 1.5e-6, 3), new FlowPipe("to-b", "tee", "b", 3, 0.0123, 1.5e-6, 3),
            ],
            [new("a", 1, 4e-7), new("b", 1.8, other)]);
        double alone = FlowSolver.Solve(With(0)).OutletM3PerS[0], together = FlowSolver.Solve(With(4e-7)).OutletM3PerS[0];
        Assert.True(together < 0.8 * alone);
        Assert.InRange(alone * 60_000, 3, 9);
    }

    [Fact]
    public void Small_sums_of_the_trade()
    {
        Assert.Equal(0.118, SmallSums.CutLengthM(0.08, 0.019, 0.019), 9);
        Assert.Equal(60, SmallSums.HotWaitS(6, 6), 9);
        Assert.Equal(0, SmallSums.AccumulatorL(0.75, 3, 1.4, 2), 9);
        Assert.Throws<ArgumentOutOfRangeException>(() => SmallSums.Axles(0, []));
        var loads = SmallSums.Axles(3, [new(100, 1), new(50, 4)]);
        Assert.Equal(150, loads.FrontKg + loads.RearKg, 9);
        Assert.Equal(100, loads.RearKg, 9);
    }
}
