using System.Text.Json;
using WarmConduit.Core.Heat.Night;
using WarmConduit.Core.Tests.Reference;

namespace WarmConduit.Core.Tests.Heat;

[Trait("Category", "Reference")]
public class NightReferenceTests
{
    [Fact]
    public void Nights() => Cases.Each("night", Check);

    [Fact]
    public void Nights_with_loops() => Cases.Each("night_loop", Check);

    [Fact]
    public void The_loop_of_a_small_rig() => Cases.Each("night_loop_rig", Check);

    private static void Check(JsonElement c, JsonElement expected, Cases.Checker check)
    {
        var network = NightCase.Read(c);
        var answer = NightEngine.Run(network, new NightOptions(ReportS: NightCase.Reports(c)));
        int row = 0;
        foreach (var r in expected.Rows("rows"))
        {
            string at = $"at {r.Num("time_s")} s";
            for (int z = 0; z < network.Zones.Count; z++)
                check.Near($"{network.Zones[z].Id} {at}", r.GetProperty("zones_C").Num(network.Zones[z].Id), answer.ZoneC[row, z], 0, 0.15);
            for (int b = 0; b < network.Bodies.Count; b++)
            {
                var body = r.GetProperty("bodies").GetProperty(network.Bodies[b].Id);
                check.Near($"{network.Bodies[b].Id} {at}", body.Num("temperature_C"), answer.BodyC[row, b], 0, 0.15);
                check.Near($"ice of {network.Bodies[b].Id} {at}", body.Num("iceFraction"), answer.IceFraction[row, b], 0, 0.02);
            }
            for (int l = 0; l < network.Circuits.Count; l++)
            {
                var loop = r.GetProperty("loops").GetProperty(network.Circuits[l].Id);
                var found = answer.Circuits[l].Rows[row];
                if (loop.GetProperty("supply_C").ValueKind == JsonValueKind.Null) check.Same($"supply {at}", double.NaN, found.OutC[0]);
                else check.Near($"supply of {network.Circuits[l].Id} {at}", loop.Num("supply_C"), found.OutC[0], 0, 0.5);
                check.Near($"heat of {network.Circuits[l].Id} {at}", loop.Num("given_Wh"), found.GivenWh[0], 0.02, 1);
            }
            row++;
        }
        for (int b = 0; b < network.Bodies.Count; b++)
        {
            var first = expected.GetProperty("firstIce_s").GetProperty(network.Bodies[b].Id);
            double found = answer.Milestones[b].FirstIceS;
            if (first.ValueKind == JsonValueKind.Null) check.Same($"first ice of {network.Bodies[b].Id}", double.PositiveInfinity, found);
            else check.Near($"first ice of {network.Bodies[b].Id}", first.GetDouble(), found, 0.02, 60);
        }
        check.Near("balance", 0, answer.Balance.Gap(), 0, 1e-3);
    }
}
