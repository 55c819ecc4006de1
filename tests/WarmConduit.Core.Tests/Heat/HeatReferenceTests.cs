using System.Text.Json;
using WarmConduit.Core.Heat;
using WarmConduit.Core.Tests.Reference;

namespace WarmConduit.Core.Tests.Heat;

[Trait("Category", "Reference")]
public class HeatReferenceTests
{
    private static PipeSection Section(JsonElement c) => new(
        c.Num("innerDiameter_m"), c.Num("outerDiameter_m"), c.Num("pipeConductivity_W_mK"), c.Num("insulationThickness_m"),
        c.Num("insulationConductivity_W_mK"),
        c.Num("emissivity", 0.9));

    [Fact]
    public void Steady_loss_of_pipes() => Cases.Each("pipe_steady", (c, expected, check) =>
    {
        var loss = PipeHeat.Steady(Section(c), c.Num("waterTemperature_C"), c.Num("airTemperature_C"), c.Num("airSpeed_m_s"));
        check.Near("loss", expected.Num("heatLoss_W_m"), loss.LossWPerM, 0.005);
        check.Near("surface", expected.Num("surfaceTemperature_C"), loss.SurfaceC, 0.005, 0.02);
        check.Near("conductance", expected.Num("conductance_W_mK"), loss.ConductanceWPerMK, 0.005);
    });

    [Fact]
    public void Freezing_times_of_pipes() => Cases.Each("pipe_freeze", (c, expected, check) =>
    {
        var section = Section(c);
        double resistance = section.WallResistanceMKPerW() + 1 / (c.Num("outerCoefficient_W_m2K") * Math.PI * section.SurfaceDiameterM());
        var k = new FreezingConstants(c.Num("waterHeatCapacity_J_kgK"), c.Num("latentHeat_J_kg"), c.Num("iceConductivity_W_mK"), c.Num("waterDensity_kg_m3"));
        var times = Freezing.Pipe(section.InnerDiameterM, resistance, c.Num("wallHeatCapacity_J_mK"), c.Num("startTemperature_C"),
            c.Num("airTemperature_C"), k);
        check.Near("resistance", expected.Num("resistance_mK_W"), resistance, 0.005);
        check.Near("first ice", expected.Num("timeToZero_s"), times.FirstIceS, 0.005);
        check.Near("a tenth", expected.Num("timeTo10PercentIce_s"), times.TenthS, 0.005);
        check.Near("a half", expected.Num("timeTo50PercentIce_s"), times.HalfS, 0.005);
        check.Near("solid", expected.Num("timeToSolid_s"), times.SolidS, 0.005);
    });

    [Fact]
    public void Transmittance_of_walls() => Cases.Each("shell_u", (c, expected, check) =>
    {
        static WallLayer[] Layers(JsonElement c, string name) =>
            [.. c.Rows(name).Select(l => new WallLayer(l.Num("thickness_m"), l.Num("conductivity_W_mK")))];
        double outer = 1 / SurfaceCoefficient.OuterWallWPerM2K(c.Num("windSpeed_m_s"), c.Num("outerEmissivity"), c.Num("meanOuterTemperature_C"));
        double inner = Wall.InnerSurfaceM2KPerW(Enum.Parse<HeatFlow>(c.Text("heatFlow"), ignoreCase: true));
        double u = Wall.TransmittanceWPerM2K(Layers(c, "layers"), Layers(c, "bridgeLayers"), c.Num("bridgeFraction", 0), inner, outer);
        check.Near("U", expected.Num("transmittance_W_m2K"), u, 0.005);
    });

    [Fact]
    public void An_outer_face_loses_to_wind_and_to_the_sky_it_sees() => Cases.Each("outer_face", (c, expected, check) =>
    {
        double air = c.Num("airTemperature_C"), wind = c.Num("windSpeed_m_s"), view = c.Num("skyView"), emissivity = c.Num("emissivity");
        double resistance = c.Num("resistanceZoneToSurface_m2K_W"), zone = c.Num("zoneTemperature_C");
        double sky = OuterFace.SkyC(air, c.Num("cloudFraction"));
        var face = OuterFace.Solve(zone, resistance, air, sky, view, wind, emissivity);
        check.Near("sky", expected.Num("skyTemperature_C"), sky, 0, 0.1);
        check.Near("surface", expected.Num("outerSurface_C"), face.SurfaceC, 0, 0.1);
        check.Near("flow", expected.Num("heatFlow_W_m2"), face.HeatWPerM2, 0.01);
        // As the night has it: one film, and outdoors colder by what the sky takes.
        double film = SurfaceCoefficient.OuterWallWPerM2K(wind, emissivity, air), colder = air + OuterFace.ShiftK(air, sky, view, wind, emissivity);
        double flow = (zone - colder) / (resistance + 1 / film);
        check.Near("linear surface", expected.Num("outerSurface_C"), zone - flow * resistance, 0, 0.5);
        check.Near("linear flow", expected.Num("heatFlow_W_m2"), flow, 0.05);
    });
}
