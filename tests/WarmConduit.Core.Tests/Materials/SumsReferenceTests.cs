using WarmConduit.Core.Heat;
using WarmConduit.Core.Levels;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Tests.Reference;

namespace WarmConduit.Core.Tests.Materials;

[Trait("Category", "Reference")]
public class SumsReferenceTests
{
    [Fact]
    public void Antifreeze_diluted_by_what_was_left() => Cases.Each("glycol", (c, expected, check) =>
    {
        double fraction = GlycolWater.Diluted(c.Num("glycolVolumeFraction"), c.Num("added_L"), c.Num("waterLeft_L"));
        check.Near("fraction", expected.Num("volumeFraction"), fraction, 1e-9);
        check.Near("freezing point", expected.Num("freezePoint_C"), GlycolWater.FreezingC(fraction), 0, 0.2);
    });

    [Fact]
    public void Accumulators() => Cases.Each("accumulator", (c, expected, check) => check.Near(
        "drawdown", expected.Num("drawdown_L"), SmallSums.AccumulatorL(c.Num("volume_L"), c.Num("precharge_bar"), c.Num("cutIn_bar"),
        c.Num("cutOut_bar")), 0.005));

    [Fact]
    public void Axles() => Cases.Each("axles", (c, expected, check) =>
    {
        var loads = SmallSums.Axles(c.Num("wheelbase_m"), c.Rows("masses").Select(m => new PlacedMass(m.Num("mass_kg"), m.Num("x_m"))));
        check.Near("front", expected.Num("front_kg"), loads.FrontKg, 0, 0.1);
        check.Near("rear", expected.Num("rear_kg"), loads.RearKg, 0, 0.1);
    });

    [Fact]
    public void Sag_between_clips() => Cases.Each("clip_sag", (c, expected, check) =>
    {
        var pipe = new ClippedPipe(
            c.Num("innerDiameter_m"), c.Num("outerDiameter_m"), c.Num("pipeDensity_kg_m3"), c.Num("waterDensity_kg_m3"), c.Num("elasticModulus_Pa"));
        check.Near("weight", expected.Num("weight_N_m"), pipe.WeightNPerM(), 0.005);
        check.Near("sag", expected.Num("sag_m"), pipe.SagM(c.Num("clipSpacing_m")), 0.005);
        check.Near("slope", expected.Num("endSlope"), pipe.EndSlope(c.Num("clipSpacing_m")), 0.005);
        check.Near("spacing", expected.Num("spacingForFall_m"), pipe.SpacingForFallM(c.Num("fall")), 0.005);
    });

    [Fact]
    public void Trace_lines() => Cases.Each("trace", (c, expected, check) =>
    {
        var contact = new TraceContact(c.Num("traceConductance_W_mK"), c.Num("waterToAir_W_mK"), c.Num("coolantToAir_W_mK"));
        var answer = TraceLine.Solve(
            contact, c.Num("flow_kg_s"), c.Num("heatCapacity_J_kgK"), c.Num("airTemperature_C"), c.Num("inletTemperature_C"), c.Num("length_m"),
            c.Num("holdTemperature_C"));
        check.Near("outlet", expected.Num("outlet_C"), answer.OutletC, 0, 0.1);
        check.Near("water at inlet", expected.Num("waterAtInlet_C"), answer.WaterAtInletC, 0, 0.1);
        check.Near("water at outlet", expected.Num("waterAtOutlet_C"), answer.WaterAtOutletC, 0, 0.1);
        check.Near("heat", expected.Num("heat_W"), answer.HeatW, 0.005);
        check.Near("reach", expected.Num("reach_m"), answer.ReachM, 0.005);
    });

    [Fact]
    public void Burst_protection_reaches_lower_than_the_freezing_point_and_neither_rises_with_more_glycol()
    {
        for (double x = 0; x < 0.6; x += 0.01)
        {
            Assert.True(GlycolWater.BurstProtectionC(x) <= GlycolWater.FreezingC(x));
            Assert.True(GlycolWater.FreezingC(x + 0.01) <= GlycolWater.FreezingC(x));
            Assert.True(GlycolWater.BurstProtectionC(x + 0.01) <= GlycolWater.BurstProtectionC(x));
        }
        // Half and half at 20 °C: some 1040 kg/m³, 3.56 kJ/kgK, 6 mPa·s in tables, which differ by a few per cent.
        Assert.Equal(1041, GlycolWater.DensityKgPerM3(0.5, 20), 6.0);
        Assert.Equal(3560, GlycolWater.HeatCapacityJPerKgK(0.5, 20), 100.0);
        Assert.Equal(6.2e-3, GlycolWater.ViscosityPaS(0.5, 20), 0.8e-3);
    }
}
