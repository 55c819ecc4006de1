using System.Text.Json;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Levels;
using WarmConduit.Core.Tests.Reference;

namespace WarmConduit.Core.Tests.Levels;

[Trait("Category", "Reference")]
public class PoolsReferenceTests
{
    [Fact]
    public void What_stays_in_bores() => Cases.Each("pools", (c, expected, check) =>
    {
        static Point3 At(JsonElement p) => new(p.Num("x_m"), p.Num("y_m"), p.Num("z_m"));
        var network = new LevelNetwork(
            [.. c.Rows("nodes").Select(n => new LevelNode(n.Text("id"), At(n)))],
            [.. c.Rows("edges").Select(e => new LevelEdge(
                e.Text("id"), e.Text("from"), e.Text("to"), e.Num("innerDiameter_m"), Enum.Parse<Passes>(e.Text("passes"), ignoreCase: true),
                [.. e.Rows("via").Select(At)]))],
            [],
            [.. c.Rows("drains").Select(d => d.GetString()!)]);
        var answer = Draining.Solve(network, new Attitude(c.Num("pitch_deg"), c.Num("roll_deg")));
        for (int e = 0; e < network.Edges.Count; e++)
        {
            string id = network.Edges[e].Id;
            check.Near(id, expected.GetProperty("trapped_L").Num(id), answer.EdgeM3[e] * 1000, 0.01, 0.0002);
        }
        check.Near("all", expected.Num("total_L"), answer.EdgeM3.Sum() * 1000, 0.01, 0.0002);
        check.Near("pools", expected.Num("total_L"), answer.Pools().Sum(p => p.VolumeM3) * 1000, 0.01, 0.0002);
    });
}
