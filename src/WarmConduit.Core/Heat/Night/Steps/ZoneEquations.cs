namespace WarmConduit.Core.Heat.Night.Steps;

/// <summary>The zones' air at the end of a step by the trapezoidal rule: a matrix in W/K, a right side in W. What is added before <see cref="Keep"/> stands
/// until the next step. Behind the zones stand bodies that circuits touch, by their mean over the step.</summary>
internal sealed class ZoneEquations(int zones, int bodies)
{
    private readonly int _all = zones + bodies;
    private readonly double[,] _keptMatrix = new double[zones + bodies, zones + bodies];
    private readonly double[] _keptSide = new double[zones + bodies];

    public readonly double[,] Matrix = new double[zones + bodies, zones + bodies];
    public readonly double[] Side = new double[zones + bodies];

    /// <summary>Two zones that exchange <paramref name="g"/> W/K and stand at these at the start.</summary>
    public void Join(int a, int b, double g, double[] startC)
    {
        double half = g / 2, flow = half * (startC[a] - startC[b]);
        Matrix[a, a] += half;
        Matrix[b, b] += half;
        Matrix[a, b] -= half;
        Matrix[b, a] -= half;
        Side[a] -= flow;
        Side[b] += flow;
    }

    /// <summary>A zone that exchanges <paramref name="g"/> W/K with what stands at <paramref name="meanC"/> over the step.</summary>
    public void Expose(int z, double g, double meanC, double[] startC)
    {
        Matrix[z, z] += g / 2;
        Side[z] += g * (meanC - (startC[z] / 2));
    }

    public void Keep()
    {
        Array.Copy(Matrix, _keptMatrix, Matrix.Length);
        Array.Copy(Side, _keptSide, _all);
    }

    public void Restore()
    {
        Array.Copy(_keptMatrix, Matrix, Matrix.Length);
        Array.Copy(_keptSide, Side, _all);
    }

    /// <summary>Solves for the air at the end, and the means of bodies. Diagonally dominant: no pivoting is needed.</summary>
    public void Solve(double[] endC, double[] bodyMeanC)
    {
        for (int k = 0; k < _all; k++)
        {
            for (int r = k + 1; r < _all; r++)
            {
                double f = Matrix[r, k] / Matrix[k, k];
                if (f == 0) continue;
                for (int c = k; c < _all; c++) Matrix[r, c] -= f * Matrix[k, c];
                Side[r] -= f * Side[k];
            }
        }
        for (int r = _all - 1; r >= 0; r--)
        {
            double s = Side[r];
            for (int c = r + 1; c < _all; c++) s -= Matrix[r, c] * (c < zones ? endC[c] : bodyMeanC[c - zones]);
            if (r < zones) endC[r] = s / Matrix[r, r];
            else bodyMeanC[r - zones] = s / Matrix[r, r];
        }
    }
}
