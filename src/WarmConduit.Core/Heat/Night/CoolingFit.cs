using WarmConduit.Core.Numerics;

namespace WarmConduit.Core.Heat.Night;

/// <summary>A zone's thermometer, °C at each of the times.</summary>
/// <param name="ZoneId">The zone.</param>
/// <param name="C">One value for each time.</param>
public sealed record ThermometerSeries(string ZoneId, IReadOnlyList<double> C);

/// <summary>What is asked of a cooling that was measured.</summary>
/// <param name="TimeS">Times, s, rising from 0; three at the least.</param>
/// <param name="Measured">The thermometers; one at the least.</param>
/// <param name="Unknowns">How many factors are sought.</param>
/// <param name="Network">The night with the factors as they are tried, each from 0.02 to 50; zones start where a thermometer says, or as they are
/// given.</param>
/// <param name="Start">Factors to start from; left out: one each.</param>
public sealed record CoolingQuestion(
    IReadOnlyList<double> TimeS, IReadOnlyList<ThermometerSeries> Measured, int Unknowns, Func<IReadOnlyList<double>, NightNetwork> Network,
    IReadOnlyList<double>? Start = null);

/// <summary>A factor that was found.</summary>
/// <param name="Value">The factor.</param>
/// <param name="Deviation">One standard deviation as a share of it; infinite where nothing tells it.</param>
public readonly record struct FittedFactor(double Value, double Deviation)
{
    /// <summary>A factor counts as determined up to this deviation.</summary>
    public const double MostDeviation = 0.1;

    /// <summary>Whether the measurement tells it.</summary>
    public bool Determined() => Deviation <= MostDeviation;
}

/// <summary>Factors with which the night goes as the thermometers went.</summary>
/// <param name="Factors">In the order of the question.</param>
/// <param name="ResidualK">Root mean square of what is left, K.</param>
/// <param name="Fitted">What the night then says, by thermometer and time, °C.</param>
/// <param name="Covariance">Of the logarithms of the factors; empty where nothing tells them apart.</param>
public sealed record CoolingAnswer(IReadOnlyList<FittedFactor> Factors, double ResidualK, IReadOnlyList<IReadOnlyList<double>> Fitted,
    IReadOnlyList<IReadOnlyList<double>> Covariance)
{
    /// <summary>One standard deviation, as a share, of a product of factors with these <paramref name="powers"/>: a rate is what is lost over what is held.
    /// O(factors²).</summary>
    public double DeviationOf(IReadOnlyList<int> powers)
    {
        if (Covariance.Count == 0) return double.PositiveInfinity;
        double sum = 0;
        for (int a = 0; a < powers.Count; a++)
            for (int b = 0; b < powers.Count; b++)
                sum += powers[a] * powers[b] * Covariance[a][b];
        return Math.Sqrt(Math.Max(0, sum));
    }
}

/// <summary>
/// Calibration: the night's engine is run with factors on its rates until it goes as thermometers went (least squares over logarithms of the factors, bounded,
/// start temperatures free). Deviations are those of linear theory with the noise that is left.
/// </summary>
public static class CoolingFit
{
    private const double Least = 0.02, Most = 50, LogStep = 1e-4, StartStepK = 0.01, StartRangeK = 5;

    /// <summary>Solves <paramref name="question"/>. Throws <see cref="HeatNetworkException"/> for times or series that make no sense. O(rounds · (factors +
    /// zones)) nights.</summary>
    public static CoolingAnswer Solve(CoolingQuestion question, CancellationToken cancel = default)
    {
        int count = question.TimeS.Count, zones = question.Measured.Count, unknowns = question.Unknowns, all = unknowns + zones;
        if (zones == 0 || count < 3 || count * zones <= all)
            throw new HeatNetworkException("thermometers", "at least one thermometer and more readings than unknowns are needed");
        if (question.TimeS[0] != 0) throw new HeatNetworkException("times", "the first time must be 0");
        foreach (var series in question.Measured)
            if (series.C.Count != count || !series.C.All(double.IsFinite))
                throw new HeatNetworkException(series.ZoneId, "it must have one reading for each time");
        var options = new NightOptions(300, 60, question.TimeS);

        double[] Residuals(double[] x)
        {
            var network = question.Network([.. x.Take(unknowns).Select(Math.Exp)]);
            int[] at = [.. question.Measured.Select(m => network.Zones.ToList().FindIndex(z => z.Id == m.ZoneId))];
            if (at.Contains(-1)) throw new HeatNetworkException("thermometers", "a thermometer is in an unknown zone");
            var started = network.Zones.ToArray();
            for (int m = 0; m < zones; m++) started[at[m]] = started[at[m]] with { StartC = x[unknowns + m] };
            var answer = NightEngine.Run(network with { Zones = started }, options, cancel);
            return [.. question.Measured.SelectMany((m, i) => m.C.Select((c, t) => answer.ZoneC[t, at[i]] - c))];
        }

        double[] firsts = [.. question.Measured.Select(m => m.C[0])];
        var found = LeastSquares.Solve(
            Residuals, [.. question.Start?.Select(f => Math.Log(f)) ?? new double[unknowns], .. firsts],
            [.. Enumerable.Repeat(Math.Log(Least), unknowns), .. firsts.Select(c => c - StartRangeK)],
            [.. Enumerable.Repeat(Math.Log(Most), unknowns), .. firsts.Select(c => c + StartRangeK)],
            [.. Enumerable.Repeat(LogStep, unknowns), .. Enumerable.Repeat(StartStepK, zones)], cancel);
        double variance = found.Residuals.Sum(r => r * r) / (found.Residuals.Length - all);
        return new CoolingAnswer(
            [.. Enumerable.Range(0, unknowns).Select(i => new FittedFactor(Math.Exp(found.X[i]), Deviation(found, i, variance)))],
            Math.Sqrt(found.Residuals.Average(r => r * r)), [.. question.Measured.Select((m, i) =>
            (double[])[.. m.C.Select((c, t) => c + found.Residuals[(i * count) + t])])],
            found.Covariance is { } covariance ? [.. Enumerable.Range(0, unknowns)
            .Select(a => (double[])[.. Enumerable.Range(0, unknowns).Select(b => variance * covariance[a, b])])] : []);
    }

    private static double Deviation(LeastSquares.Found found, int i, double variance) => found.Covariance is { } c && c[i, i] >= 0
        ? Math.Sqrt(variance * c[i, i]) : double.PositiveInfinity;
}
