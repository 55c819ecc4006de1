namespace WarmConduit.Core.Numerics;

/// <summary>Least squares of a few unknowns between bounds.</summary>
internal static class LeastSquares
{
    private const int MostRounds = 60;
    // What χ² may still fall by: the unknowns are then within a hundredth of their deviations.
    private const double Settled = 1e-4;

    /// <summary>What was found.</summary>
    /// <param name="X">The unknowns.</param>
    /// <param name="Residuals">What is left.</param>
    /// <param name="Covariance">Of the unknowns, for residuals of deviation one: (JᵀJ)⁻¹; null where they cannot be told apart.</param>
    public sealed record Found(double[] X, double[] Residuals, double[,]? Covariance);

    /// <summary>
    /// Levenberg and Marquardt's method with differences of <paramref name="step"/> for derivatives, on all cores. <paramref name="residuals"/> must be pure.
    /// O(rounds · unknowns) evaluations.
    /// </summary>
    public static Found Solve(Func<double[], double[]> residuals, double[] start, double[] low, double[] high, double[] step, CancellationToken cancel)
    {
        int n = start.Length;
        double[] x = [.. start.Select((v, i) => Math.Clamp(v, low[i], high[i]))];
        var r = residuals(x);
        double sum = Square(r), damping = 1e-3;
        double[][] j = Slopes();
        for (int round = 0; round < MostRounds && damping < 1e12; round++)
        {
            cancel.ThrowIfCancellationRequested();
            var m = Normal(j, n);
            for (int i = 0; i < n; i++)
            {
                m[i, i] *= 1 + damping;
                m[i, n] = -Dot(j[i], r);
            }
            if (Dense.Solve(m, n, 1e-300) is not { } by)
            {
                damping *= 10;
                continue;
            }
            double[] next = [.. x.Select((v, i) => Math.Clamp(v + by[i], low[i], high[i]))];
            var then = residuals(next);
            double less = Square(then);
            if (less < sum)
            {
                bool done = sum - less <= Settled * less / Math.Max(1, r.Length - n);
                (x, r, sum, damping) = (next, then, less, Math.Max(1e-12, damping / 10));
                if (done) break;
                j = Slopes();
            }
            else
            {
                damping *= 10;
            }
        }
        // The last step was a small one: the slopes are those of where it began.
        return new Found(x, r, Inverse(j, n));

        double[][] Slopes()
        {
            var made = new double[n][];
            Parallel.For(0, n, CoreUse.Some(cancel), i =>
            {
                // Away from a bound that it stands at.
                double by = x[i] + step[i] > high[i] ? -step[i] : step[i];
                var moved = (double[])x.Clone();
                moved[i] += by;
                made[i] = [.. residuals(moved).Select((v, k) => (v - r[k]) / by)];
            });
            return made;
        }
    }

    private static double[,] Normal(double[][] j, int n)
    {
        var m = new double[n, n + 1];
        for (int a = 0; a < n; a++)
            for (int b = 0; b < n; b++)
                m[a, b] = Dot(j[a], j[b]);
        return m;
    }

    private static double[,]? Inverse(double[][] j, int n)
    {
        var inverse = new double[n, n];
        for (int c = 0; c < n; c++)
        {
            var m = Normal(j, n);
            m[c, n] = 1;
            if (Dense.Solve(m, n, 1e-300) is not { } column) return null;
            for (int i = 0; i < n; i++) inverse[i, c] = column[i];
        }
        return inverse;
    }

    private static double Square(double[] v) => Dot(v, v);

    private static double Dot(double[] a, double[] b)
    {
        double sum = 0;
        for (int i = 0; i < a.Length; i++) sum += a[i] * b[i];
        return sum;
    }
}
