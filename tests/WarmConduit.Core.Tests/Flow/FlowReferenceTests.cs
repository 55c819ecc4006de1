using WarmConduit.Core.Flow;
using WarmConduit.Core.Tests.Reference;

namespace WarmConduit.Core.Tests.Flow;

[Trait("Category", "Reference")]
public class FlowReferenceTests
{
    [Fact]
    public void Flows_and_heads() => Cases.Each("flow", (c, expected, check) =>
    {
        var network = new FlowNetwork(
            c.Num("density_kg_m3"),
            c.Num("viscosity_Pa_s"),
            [.. c.Rows("nodes").Select(n => new FlowNode(n.Text("id"), n.TryGetProperty("head_m", out var h) ? h.GetDouble() : null))],
            [.. c.Rows("edges").Select(e => e.Text("kind") == "pump"
                ? (FlowEdge)new FlowPump(e.Text("id"), e.Text("from"), e.Text("to"), e.Num("shutoffHead_m"), e.Num("curve_s2_m5"))
                : new FlowPipe(e.Text("id"), e.Text("from"), e.Text("to"), e.Num("length_m"), e.Num("innerDiameter_m"), e.Num("roughness_m"),
                    e.Num("minorLoss")))],
            [.. c.Rows("outlets").Select(o => new FlowOutlet(o.Text("node"), o.Num("height_m"), o.Num("coefficient_m3_s_Pa05")))]);
        var answer = FlowSolver.Solve(network);
        double largest = expected.GetProperty("flows_L_min").EnumerateObject().Max(f => Math.Abs(f.Value.GetDouble()));
        for (int e = 0; e < network.Edges.Count; e++)
            check.Near(network.Edges[e].Id, expected.GetProperty("flows_L_min").Num(network.Edges[e].Id), answer.FlowM3PerS[e] * 60_000, 0, 0.005 * largest);
        double span = expected.GetProperty("heads_m").EnumerateObject().Max(f => Math.Abs(f.Value.GetDouble()));
        foreach (var head in expected.GetProperty("heads_m").EnumerateObject())
        {
            int i = network.Nodes.ToList().FindIndex(n => n.Id == head.Name);
            check.Near(head.Name, head.Value.GetDouble(), answer.HeadM[i], 0, 0.005 * span);
        }
        check.Same("converged", true, answer.Converged);
    });
}
