namespace WarmConduit.Core.Numerics;

/// <summary>Small dense linear systems.</summary>
internal static class Dense
{
    /// <summary>
    /// Solves the <paramref name="n"/> equations whose coefficients and right side are the rows of <paramref name="m"/> (n × n + 1, destroyed) by Gaussian
    /// elimination with row pivoting; null when a pivot falls under <paramref name="least"/>. O(n³).
    /// </summary>
    public static double[]? Solve(double[,] m, int n, double least = 1e-18)
    {
        for (int k = 0; k < n; k++)
        {
            int pivot = k;
            for (int r = k + 1; r < n; r++)
                if (Math.Abs(m[r, k]) > Math.Abs(m[pivot, k])) pivot = r;
            if (!(Math.Abs(m[pivot, k]) >= least)) return null;
            if (pivot != k)
                for (int c = k; c <= n; c++) (m[k, c], m[pivot, c]) = (m[pivot, c], m[k, c]);
            for (int r = k + 1; r < n; r++)
            {
                double f = m[r, k] / m[k, k];
                if (f == 0) continue;
                for (int c = k; c <= n; c++) m[r, c] -= f * m[k, c];
            }
        }
        var x = new double[n];
        for (int r = n - 1; r >= 0; r--)
        {
            double s = m[r, n];
            for (int c = r + 1; c < n; c++) s -= m[r, c] * x[c];
            x[r] = s / m[r, r];
        }
        return x;
    }
}
