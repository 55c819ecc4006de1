using WarmConduit.Core.Numerics;

namespace WarmConduit.Core.Flow;

/// <summary>Settings of balancing valves: openings 0..1 in the order asked, the shares that result, and whether they are those wanted.</summary>
public sealed record BalancingAnswer(IReadOnlyList<double> Opening, IReadOnlyList<double> Share, bool Reached, FlowAnswer Flow);

/// <summary>How far to close the valves of parallel branches so that each gets its share.</summary>
public static class Balancing
{
    /// <summary>
    /// Openings of <paramref name="valves"/> (ids of <see cref="FlowValve"/> edges, flow from → to) such that their flows are to each other as <paramref name="shares"/>
    /// (above 0). The branch that is worst off with all open stays open, so that nothing is throttled for nothing. Newton on the logarithms of the losses, its
    /// Jacobian by differences: n + 1 network solutions a round, some six rounds. Not reached within 1e-4 when a branch cannot be throttled that far.
    /// </summary>
    public static BalancingAnswer Solve(FlowNetwork network, IReadOnlyList<string> valves, IReadOnlyList<double> shares)
    {
        int n = valves.Count;
        if (n != shares.Count || n == 0) throw new FlowNetworkException("shares", "as many shares as valves are wanted, and at least one");
        var edge = new int[n];
        for (int i = 0; i < n; i++)
        {
            edge[i] = Array.FindIndex([.. network.Edges], e => e.Id == valves[i]);
            if (edge[i] < 0 || network.Edges[edge[i]] is not FlowValve { OpenLoss: > 0 }) throw new FlowNetworkException(valves[i], "it is no valve with a loss of its own");
            if (!(shares[i] > 0) || double.IsInfinity(shares[i])) throw new FlowNetworkException(valves[i], "its share must be finite and above 0");
        }
        double all = shares.Sum();
        double[] want = [.. shares.Select(s => s / all)];
        var x = new double[n];
        var (got, flow) = Shares(x);
        int open = Enumerable.Range(0, n).MinBy(i => got[i] / want[i]);
        int[] free = [.. Enumerable.Range(0, n).Where(i => i != open)];
        for (int round = 0; round < 30 && Off(got) > 1e-7; round++)
        {
            var jacobian = new double[free.Length, free.Length + 1];
            for (int c = 0; c < free.Length; c++)
            {
                var moved = (double[])x.Clone();
                moved[free[c]] += 1e-3;
                var (there, _) = Shares(moved);
                for (int r = 0; r < free.Length; r++) jacobian[r, c] = (Math.Log(there[free[r]]) - Math.Log(got[free[r]])) / 1e-3;
            }
            for (int r = 0; r < free.Length; r++) jacobian[r, free.Length] = Math.Log(want[free[r]] / got[free[r]]);
            var step = Dense.Solve(jacobian, free.Length, 1e-14);
            if (step is null) break;
            double before = Off(got), damp = 1;
            for (int half = 0; half < 8; half++, damp /= 2)
            {
                var next = (double[])x.Clone();
                for (int k = 0; k < free.Length; k++) next[free[k]] = Math.Clamp(x[free[k]] + damp * step[k], 0, 25);
                (got, flow) = Shares(next);
                if (Off(got) >= before && half < 7) continue;
                x = next;
                break;
            }
        }
        return new BalancingAnswer([.. x.Select(v => Math.Exp(-v / 2))], got, Off(got) < 1e-4, flow);

        double Off(double[] share) => Enumerable.Range(0, n).Max(i => Math.Abs(share[i] - want[i]));

        (double[] Share, FlowAnswer Flow) Shares(double[] logLoss)
        {
            var edges = network.Edges.ToArray();
            for (int i = 0; i < n; i++) edges[edge[i]] = (FlowValve)edges[edge[i]] with { Opening = Math.Exp(-logLoss[i] / 2) };
            var answer = FlowSolver.Solve(network with { Edges = edges });
            double[] q = [.. edge.Select(e => Math.Max(answer.FlowM3PerS[e], 1e-15))];
            double sum = q.Sum();
            return ([.. q.Select(v => v / sum)], answer);
        }
    }
}
