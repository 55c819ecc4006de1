using WarmConduit.Core.Heat.Night.Steps;

namespace WarmConduit.Core.Heat.Night;

/// <summary>
/// The night: zones and bodies with phase change through hours of weather.
/// <para>
/// Scheme: over a step the air of every zone is taken to go linearly. A body, which touches only zones, boundaries and neighbours, then has an exact answer:
/// an exponential while it is all water or all ice, a midpoint rule while ice grows. That answer is linear in the zones' end temperatures, so all bodies are
/// folded into one small matrix of the zones (trapezoidal rule), solved once a step. A body that crosses into another state within a step is followed through
/// it at its exact time; what its heat then differs from what the zones were told is handed on with the next step, so that the balance closes. Second order in
/// the step; steps end at every knot of the weather, where a thermostat turns and where a body that matters to its zone changes state, and start small after
/// every jump.
/// </para>
/// <para>Cost: O(bodies + zones³) a step; 72 h of 202 bodies are some 350 steps.</para>
/// </summary>
public static class NightEngine
{
    /// <summary>
    /// Runs <paramref name="network"/>. Deterministic: the same network and options give the same bits. Throws <see cref="HeatNetworkException"/> for a network
    /// that makes no sense and <see cref="OperationCanceledException"/> when <paramref name="cancel"/> asks for it.
    /// </summary>
    public static NightAnswer Run(NightNetwork network, NightOptions? options = null, CancellationToken cancel = default)
    {
        options ??= NightOptions.Default;
        Check(options, network);
        return new NightRun(new NightLayout(network), options).Go(cancel);
    }

    private static void Check(NightOptions options, NightNetwork network)
    {
        if (!(options.MaxStepS >= NightOptions.ShortestS) || !(options.FirstStepS >= NightOptions.ShortestS))
            throw new HeatNetworkException("options", "steps must be at least 0.01 s");
        double before = network.StartS;
        foreach (double report in options.ReportS ?? [])
        {
            if (!(report >= before && report <= network.EndS))
                throw new HeatNetworkException("reports", $"times must rise from the start to the end; {report} s does not");
            before = report;
        }
    }

    /// <summary>
    /// Runs many nights, on <paramref name="threads"/> threads (0: all cores). Each is independent, so the answers do not depend on the number of threads.
    /// <paramref name="progress"/> hears how many are done.
    /// </summary>
    public static NightAnswer[] RunMany(
        IReadOnlyList<NightNetwork> networks, NightOptions? options = null, int threads = 0, IProgress<int>? progress = null,
        CancellationToken cancel = default)
    {
        var answers = new NightAnswer[networks.Count];
        int done = 0;
        var parallel = new ParallelOptions { CancellationToken = cancel, MaxDegreeOfParallelism = threads > 0 ? threads : Environment.ProcessorCount };
        Parallel.For(0, networks.Count, parallel, n =>
        {
            answers[n] = Run(networks[n], options, cancel);
            progress?.Report(Interlocked.Increment(ref done));
        });
        return answers;
    }
}
