using System.Text.Json;
using WarmConduit.Core.Heat.Night;
using WarmConduit.Core.Tests.Reference;

namespace WarmConduit.Core.Tests.Heat;

/// <summary>Reads a night of the reference cases.</summary>
internal static class NightCase
{
    public static NightNetwork Read(JsonElement c)
    {
        static IReadOnlyList<NightHeater> Heaters(JsonElement e) =>
            [.. e.Rows("heaters").Select(h => new NightHeater(h.Num("setpoint_C"), h.Num("band_K"), h.Num("power_W"), h.Num("from_s"), h.Num("to_s")))];
        static double[] Numbers(JsonElement e, string name) => [.. e.Rows(name).Select(v => v.GetDouble())];
        return new NightNetwork(
            [.. c.Rows("zones").Select(z => new NightZone(
                z.Text("id"), z.Num("heatCapacity_J_K"), z.Num("outdoorConductance_W_K"), z.Num("startTemperature_C"), Heaters(z)))],
            [.. c.Rows("links").Select(l => new NightLink(l.Text("a"), l.Text("b"), l.Num("conductance_W_K")))],
            [.. c.Rows("bodies").Select(b => new NightBody(
                b.Text("id"), b.Num("waterMass_kg"), b.Num("dryHeatCapacity_J_K"), b.Num("startTemperature_C"),
                b.Text("ice") == "cylinder" ? IceGrowth.Cylinder : IceGrowth.Lumped, b.Num("length_m", 0),
                [.. b.Rows("contacts").Select(t => new NightContact(t.Text("to"), t.Num("conductance_W_K")))], Heaters(b)))],
            new TimeSeries(Numbers(c.GetProperty("outdoor"), "time_s"), Numbers(c.GetProperty("outdoor"), "temperature_C")),
            c.Num("end_s"))
        {
            Constants = new NightConstants(c.Num("waterHeatCapacity_J_kgK"), c.Num("iceHeatCapacity_J_kgK"), c.Num("latentHeat_J_kg"),
                c.Num("iceConductivity_W_mK")),
            Circuits = [.. c.Rows("loops").Select(Loop)],
        };
    }

    // In order from its heater and back to it.
    private static NightCircuit Loop(JsonElement l)
    {
        static NightWindow[] Windows(JsonElement e, string name) => [.. e.Rows(name).Select(w => new NightWindow(w.Num("from_s"), w.Num("to_s")))];
        double kg = l.Num("flow_kg_s");
        var heater = l.GetProperty("heater");
        var path = l.Rows("path").ToList();
        return new NightCircuit(l.Text("id"), l.Num("heatCapacity_J_kgK"),
            [
                new("heater", "return", "n0", kg, Heater: new NightFluidHeater(heater.Num("power_W"), heater.Num("limit_C"), Windows(heater, "on"))),
                .. path.Select((p, i) => new NightReach($"r{i}", $"n{i}", i + 1 < path.Count ? $"n{i + 1}" : "return", kg, p.Text("to"),
                    p.Num("conductance_W_K"))),
            ],
            Windows(l, "pumpOn"));
    }

    public static double[] Reports(JsonElement c) => [.. c.Rows("report_s").Select(v => v.GetDouble())];
}
