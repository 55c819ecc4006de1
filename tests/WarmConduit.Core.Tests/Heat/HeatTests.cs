using CsCheck;
using WarmConduit.Core.Heat;
using WarmConduit.Core.Materials;

namespace WarmConduit.Core.Tests.Heat;

public class HeatTests
{
    [Fact]
    public void A_pipe_loses_more_in_wind_less_in_foam_and_nothing_to_air_as_warm_as_itself()
    {
        var bare = new PipeSection(0.0123, 0.0159, 0.41);
        double Loss(PipeSection p, double wind) => PipeHeat.Steady(p, 20, -5, wind).LossWPerM;
        Assert.True(Loss(bare, 5) > 2 * Loss(bare, 0));
        Assert.True(Loss(bare with { InsulationThicknessM = 0.013 }, 0) < 0.6 * Loss(bare, 0));
        Assert.True(Loss(bare with { Emissivity = 0.2 }, 0) < Loss(bare, 0));
        var same = PipeHeat.Steady(bare, 12, 12, 0);
        Assert.Equal(0, same.LossWPerM);
        Assert.True(same.ConductanceWPerMK > 0 && double.IsFinite(same.ConductanceWPerMK));
    }

    [Fact]
    public void The_film_of_the_worst_wind_never_falls_as_the_wind_rises_and_is_never_under_that_of_a_lower_wind() =>
        Gen.Select(Gen.Double[0.005, 0.2], Gen.Double[0, 40], Gen.Double[-30, 30], Gen.Double[0, 30], Gen.Double[0, 1]).Sample((d, surface, air, wind, share) =>
        {
            double At(double v, double emissivity = 0.9) => SurfaceCoefficient.CylinderWPerM2K(d, surface, air, v, emissivity);
            double worst = SurfaceCoefficient.WorstWindMPerS(d, wind);
            Assert.InRange(worst, 0, wind);
            Assert.True(double.IsFinite(At(worst)) && At(worst) > 0 && At(worst, 0.2) < At(worst));
            Assert.True(At(worst) >= At(share * wind) - 1e-9);
            Assert.True(At(SurfaceCoefficient.WorstWindMPerS(d, wind + share)) >= At(worst) - 1e-9);
        });

    [Fact]
    public void Radiation_near_room_temperature_is_some_five_watts_a_kelvin() => Assert.Equal(5.1, SurfaceCoefficient.RadiationWPerM2K(20, 0, 0.98), 0.2);

    [Fact]
    public void Metal_ribs_spoil_a_wall_and_more_layers_mend_it()
    {
        WallLayer[] clear = [new(0.006, 0.13), new(0.025, 0.036), new(0.001, 50)], rib = [new(0.006, 0.13), new(0.026, 50)];
        double U(double ribs, params WallLayer[] layers) => Wall.TransmittanceWPerM2K(layers, rib, ribs, 0.13, 0.04);
        Assert.True(U(0.02, clear) > 1.05 * U(0, clear));
        Assert.True(U(0, [.. clear, new(0.02, 0.036)]) < U(0, clear));
        Assert.Equal(1 / (0.13 + 0.006 / 0.13 + 0.025 / 0.036 + 0.001 / 50 + 0.04), U(0, clear), 9);
    }

    [Fact]
    public void A_tank_on_a_floor_loses_through_the_floor_and_an_insulated_face_less_than_a_bare_one()
    {
        double bare = TankFace.TransmittanceWPerM2K(0.005, [], 8), foam = TankFace.TransmittanceWPerM2K(0.005, [new(0.02, 0.036)], 8);
        Assert.Equal(1 / (0.2 + 0.0125 + 0.125), bare, 9);
        Assert.True(foam < 0.5 * bare);
        double floor = TankFace.AgainstWPerM2K(0.005, [], [new(0.012, 0.13), new(0.03, 0.034)], 20);
        Assert.Equal(1 / (0.2 + 0.0125 + 0.05 + 0.012 / 0.13 + 0.03 / 0.034), floor, 9);
    }

    [Fact]
    public void Air_through_an_opening_goes_with_the_root_of_the_difference_and_leakage_with_the_changes()
    {
        double one = AirExchange.OpeningWPerK(0.1, 0.5, 1, 5), four = AirExchange.OpeningWPerK(0.1, 0.5, 4, 5);
        Assert.Equal(2, four / one, 9);
        Assert.Equal(0, AirExchange.OpeningWPerK(0.1, 0.5, 0, 5));
        // Half an air change an hour of 10 m³: 1.8 W/K.
        Assert.Equal(1.8, AirExchange.LeakageWPerK(0.5, 10), 0.05);
    }

    [Fact]
    public void A_steady_balance_balances_for_any_zones() =>
        Gen.Select(Gen.Double[0.5, 50].Array[1, 7], Gen.Double[0, 30].Array[8], Gen.Double[0, 3000].Array[8], Gen.Double[-10, 25].Array[8], Gen.Double[-30, 20])
            .Sample((outdoor, link, heater, set, air) =>
        {
            SteadyZone[] zones = [.. outdoor.Select((g, i) => new SteadyZone(g, i % 3 > 0 ? heater[i] : 0, set[i]))];
            SteadyLink[] links = [.. Enumerable.Range(1, zones.Length - 1).Select(i => new SteadyLink(i, (i - 1) / 2, link[i]))];
            var balance = SteadyZones.Solve(zones, links, air);
            for (int z = 0; z < zones.Length; z++)
            {
                double sum = zones[z].OutdoorWPerK * (air - balance.TemperatureC[z]) + balance.HeaterW[z];
                foreach (var l in links)
                    sum += l.A == z ? l.ConductanceWPerK * (balance.TemperatureC[l.B] - balance.TemperatureC[z])
                        : l.B == z ? l.ConductanceWPerK * (balance.TemperatureC[l.A] - balance.TemperatureC[z]) : 0;
                Assert.Equal(0, sum, 1e-5);
                Assert.InRange(balance.HeaterW[z], -1e-9, zones[z].HeaterW + 1e-6);
                // A heater holds its set point, or is at its limit and short of it, or off in a zone that is warmer by itself.
                if (balance.HeaterW[z] < zones[z].HeaterW - 1e-6) Assert.InRange(balance.TemperatureC[z], set[z] - 1e-6, double.PositiveInfinity);
                if (balance.HeaterW[z] > 1e-6) Assert.InRange(balance.TemperatureC[z], double.NegativeInfinity, set[z] + 1e-6);
            }
        });

    [Fact]
    public void Freezing_never_happens_in_air_above_zero_and_starts_at_once_in_water_at_zero()
    {
        Assert.Equal(FreezingTimes.Never, Freezing.Pipe(0.0123, 2, 100, 10, 0, FreezingConstants.Default));
        Assert.Equal(FreezingTimes.Never, Freezing.Lump(1, 0, 0, 10, -5, FreezingConstants.Default));
        var at0 = Freezing.Lump(1, 500, 1, 0, -5, FreezingConstants.Default);
        Assert.Equal(0, at0.FirstIceS);
        Assert.Equal(333_600 / 5.0, at0.SolidS, 6);
        var pipe = Freezing.Pipe(0.0123, 2, 100, 10, -5, FreezingConstants.Default);
        Assert.True(pipe.FirstIceS < pipe.TenthS && pipe.TenthS < pipe.HalfS && pipe.HalfS < pipe.SolidS);
        Assert.True(Freezing.PartlyFilled(0.03, 2, 100, 10, -5, FreezingConstants.Default).SolidS < pipe.SolidS);
    }

    [Fact]
    public void A_trace_line_with_no_flow_is_refused_and_one_that_need_not_work_reaches_for_ever()
    {
        var contact = new TraceContact(1.5, 0.15, 0.2);
        Assert.Throws<ArgumentOutOfRangeException>(() => TraceLine.Solve(contact, 0, 3800, -10, 40, 5, 5));
        Assert.Equal(double.PositiveInfinity, TraceLine.Solve(contact, 0.05, 3800, 8, 40, 5, 5).ReachM);
        Assert.Equal(0, TraceLine.Solve(contact, 0.05, 3800, -10, 4, 5, 5).ReachM);
        // Better contact holds the water warmer; a faster flow reaches farther.
        TraceAnswer With(double trace, double flow) => TraceLine.Solve(contact with { TraceWPerMK = trace }, flow, 3800, -10, 40, 5, 5);
        Assert.True(With(TraceContact.SpreadingPlateWPerMK, 0.05).WaterAtInletC > With(TraceContact.PlainPlasticWPerMK, 0.05).WaterAtInletC);
        Assert.Equal(2, With(1.5, 0.1).ReachM / With(1.5, 0.05).ReachM, 9);
    }

    [Fact]
    public void Water_ice_and_air_are_what_tables_say()
    {
        Assert.Equal(0.598, Water.ConductivityWPerMK(20), 0.01);
        Assert.Equal(4182, Water.HeatCapacityJPerKgK(20), 10.0);
        Assert.Equal(998, Water.DensityKgPerM3(20), 3.0);
        Assert.Equal(1.002e-3, Water.ViscosityPaS(20), 2e-5);
        Assert.Equal(1.79e-3, Water.ViscosityPaS(0), 5e-5);
        Assert.Equal(2.22, Ice.ConductivityWPerMK(0), 0.01);
        Assert.Equal(2062, Ice.HeatCapacityJPerKgK(0), 5.0);
        Assert.Equal(917, Ice.DensityKgPerM3(0), 1.0);
        Assert.Equal(1.293, Air.DensityKgPerM3(0), 0.002);
        Assert.Equal(1.72e-5, Air.ViscosityPaS(0), 2e-7);
    }
}
