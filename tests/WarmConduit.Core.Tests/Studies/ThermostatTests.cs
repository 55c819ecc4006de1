using WarmConduit.Core.Advice;
using WarmConduit.Core.Advice.Cold;
using WarmConduit.Core.Advice.Modes;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Heat.Night;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Heating;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Night;
using static WarmConduit.Core.Tests.Studies.Asking;
using static WarmConduit.Core.Tests.Studies.HeatSourceTests;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>Where the sensor of a pad sits, a fan that is switched by hand, and a heater with its own pump.</summary>
public class ThermostatTests
{
    // What is counted of a night that is asked for ten hours.
    private const double Hour = 3600, Hours = 12;

    /// <summary>A tank of 60 L in a bay without heat, and one in a room of 15 °C.</summary>
    private static Rig Tanks(PadSensor? sensor, double powerW = 60) => With(new RigBuilder()
        .Zone("bay", ZoneKind.Garage, new Box(new(-0.5, -0.5, -0.5), new(1.5, 1.5, 1.5)), 6)
        .Zone("room", ZoneKind.Living, new Box(new(2, -0.5, -0.5), new(2, 2, 2)), heater: new ZoneHeater(2000, 15))
        .Tank("tank", new Box(new(0, 0, 0), new(0.5, 0.4, 0.3)), ("outlet", 0.5, 0, 0), ("vent", 0, 0, 0.29))
        .Tank("other", new Box(new(2.2, 0, 0), new(0.5, 0.4, 0.3)), ("outlet", 2.7, 0, 0), ("vent", 2.2, 0, 0.29)).Build(),
        "tank", p => p with { Pad = new Pad(powerW, 7, 18, ElectricSupply.Battery, 0.06, sensor) });

    private static double Battery(Rig rig) => new EnergyMeter(new Question(rig, Night(rig))).Of(Of(rig)).BatteryWh.Sum();

    private static Conditions Cold(Rig rig) => Night(rig) with { Hours = 72 };

    private static (double LastC, double LastWh, RigNight Night) Held(Rig rig)
    {
        Assert.Empty(RigCheck.Check(rig));
        var night = new Question(rig, Cold(rig)).Ask(RigNight.Of);
        return (night.WaterC(night.Answer.ReportS.Count - 1, night.Numbers()["tank"]), night.Heat.PadWh["tank"][^1], night);
    }

    [Fact]
    public void A_pad_goes_by_what_its_sensor_reads()
    {
        var onIt = Held(Tanks(null));
        Assert.Equal(7, onIt.LastC, 0.6);
        Assert.InRange(onIt.LastWh, 5, 55);
        // In air that stays far below 7 °C it is never off.
        var inAir = Held(Tanks(PadSensor.InRoom));
        Assert.True(inAir.Night.AirC(inAir.Night.Rig.Shell.Zones.Find("bay")!, inAir.Night.Answer.ReportS.Count - 1) < 5);
        Assert.Equal(60, inAir.LastWh, 0.01);
        Assert.True(inAir.LastC > onIt.LastC + 5);
        // On a part that is warm it is never on, and the water is what it is without a pad.
        var onOther = Held(Tanks(new PadSensor(PadSensorKind.Part, "other")));
        var bare = Tanks(null);
        var without = new Question(With(bare, "tank", p => p with { Pad = null }), Cold(bare)).Ask(RigNight.Of);
        Assert.Equal(0, onOther.LastWh, 1e-9);
        Assert.Equal(without.WaterC(without.Answer.ReportS.Count - 1, without.Numbers()["tank"]), onOther.LastC, 0.01);
        Assert.All([onIt, inAir, onOther], h => Assert.InRange(h.Night.Answer.Balance.Gap(), 0, 1e-6));
    }

    /// <summary>Of the few grams in a valve too, by a tape of 5 W.</summary>
    [Fact]
    public void A_pad_holds_a_valve()
    {
        var rig = new RigBuilder().Zone("bay", ZoneKind.Garage, new Box(new(-0.5, -0.5, -0.5), new(1.5, 1.5, 1.5)), 6)
            .Tank("tank", new Box(new(0, 0, 0), new(0.5, 0.4, 0.3)), ("outlet", 0.5, 0, 0), ("vent", 0, 0, 0.29))
            .Part("valve", "ball-valve", ("a", 0.7, 0, 0), ("b", 0.8, 0, 0)).Run("line", "tank.outlet", "valve.a").Build();
        double Last(Rig of) => new Question(of, Cold(of)).Ask(RigNight.Of) is var night
            ? night.WaterC(night.Answer.ReportS.Count - 1, night.Numbers()["valve"]) : 0;
        Assert.InRange(Last(rig), -20, -3);
        Assert.InRange(Last(With(rig, "valve", p => p with { Pad = new Pad(5, 7, 18, ElectricSupply.Battery, 0.01) })), 5.5, 7.5);
    }

    /// <summary>P/A · 0.0125 m²K/W: 60 W on 600 cm² is 12.5 K more than the water, which is more than the 11 K between on and off. So it is on for a share of
    /// the time, in which it reads 7 °C on average: w = 60 (7 - T)/12.5 is what the tank loses.</summary>
    [Fact]
    public void A_sensor_in_the_pad_reads_the_pad()
    {
        var inPad = Held(Tanks(new PadSensor(PadSensorKind.InPad)));
        Assert.Equal(60 * (7 - inPad.LastC) / 12.5, inPad.LastWh, 0.1 * inPad.LastWh);
        Assert.True(inPad.LastC < Held(Tanks(null)).LastC - 1);
        // 50 W are 10.4 K: on until the water is at 7.6 °C, and on again at 7.
        var weaker = Held(Tanks(new PadSensor(PadSensorKind.InPad), 50));
        Assert.Equal(Held(Tanks(null, 50)).LastC, weaker.LastC, 1e-6);
    }

    [Fact]
    public void A_sensor_that_misleads_is_told_and_hangs_in_the_air_once_its_part_is_gone()
    {
        var rig = Tanks(new PadSensor(PadSensorKind.Part, "other"));
        var question = new Question(rig, Cold(rig));
        var told = Assert.Single(Adviser.Ask(question).Findings, f => f.Id == "sensor:tank");
        var mended = Editor.Apply(rig, told.Mends!.Single().Edits).Rig;
        Assert.Null(mended.Parts.Find("tank")!.Pad!.Sensor);
        Assert.DoesNotContain(Adviser.Ask(new Question(mended, Cold(rig))).Findings, f => f.Id == "sensor:tank");
        // To hold it, that is the least work.
        var hold = HoldFinder.Ask(question, new HoldInput(OutdoorC: -10, WindMPerS: 0));
        Assert.Contains("the sensor of its pad put on it", Assert.Single(hold.Pieces).Words.Text, StringComparison.Ordinal);
        Assert.DoesNotContain(Adviser.Ask(new Question(Tanks(PadSensor.InRoom), Cold(rig))).Findings, f => f.Id == "sensor:tank");
        Assert.Equal(PadSensor.InRoom, Editor.Apply(rig, [new RemoveThing("parts/other")]).Rig.Parts.Find("tank")!.Pad!.Sensor);
        string Faults(PadSensor sensor) => string.Join(' ', RigCheck.Check(Tanks(null) is var r
            ? With(r, "tank", p => p with { Pad = p.Pad! with { Sensor = sensor } }) : r).Select(f => f.Path));
        Assert.Equal("parts[1].pad.sensor.partId", Faults(new(PadSensorKind.Part)));
        Assert.Equal("parts[1].pad.sensor.partId", Faults(new(PadSensorKind.Part, "tank")));
        Assert.Equal("parts[1].pad.sensor.partId", Faults(new(PadSensorKind.Part, "nobody")));
        Assert.Equal("parts[1].pad.sensor.partId", Faults(new(PadSensorKind.Room, "other")));
        Assert.Equal("parts[1].pad.sensor.kind", Faults(new((PadSensorKind)9)));
    }

    /// <summary>12 W for each hour in which it runs; off, a tenth of its output is left.</summary>
    [Fact]
    public void A_fan_by_hand_blows_however_cold_the_pipe_is_or_not_at_all()
    {
        var loop = HeaterLoop("coolant-heater", "radiator", ("in", 0.9, 0.6, 0.1), ("out", 1, 0.6, 0.1)).Build();
        Rig By(PartHeat heat, string stock = "radiator") => With(loop, "sink", p => p with { Stock = stock, Heat = heat with { HoldC = 60 } });
        Rig Cool(Rig rig) => With(rig, "heater", p => p with { Heat = new PartHeat(StopsC: 35, StartsC: 25) });
        double Given(Rig rig) => Wh(Of(rig), "sink", 0, 10);
        PartHeat pipe = new(), on = new(Fan: FanControl.On), off = new(Fan: FanControl.Off);
        // Hot fluid: on is as by its pipe.
        Assert.Equal(Given(By(pipe)), Given(By(on)), 1e-6);
        Assert.Equal(Battery(By(pipe)), Battery(By(on)), 1e-6);
        // Fluid of 35 °C: by its pipe it rests, as it does off; on it gives more than five times as much for 12 W.
        var (rests, blows) = (Cool(By(pipe)), Cool(By(on)));
        Assert.Equal(Given(rests), Given(Cool(By(off))), 0.01);
        Assert.True(Given(blows) > 5 * Given(rests) && Given(rests) > 100);
        // Off it is a radiator of a tenth that has no fan.
        Assert.Equal(Given(By(new PartHeat(RatedW: 200, RatedK: 60), "panel-radiator")), Given(By(off)), 0.01 * Given(By(off)));
        double WithoutHeater(Rig rig) => Battery(With(rig, "heater", p => p with { Heat = (p.Heat ?? PartHeat.None) with { DrawW = 0, StartW = 0 } }));
        Assert.Equal(12 * Hours, WithoutHeater(blows) - WithoutHeater(rests), 1e-6);
        Assert.Equal(18 * Hours, WithoutHeater(By(off)), 1e-6);
        Assert.Equal("parts[2].heat.fan", Assert.Single(RigCheck.Check(By(new PartHeat(Fan: (FanControl)7)))).Path);
    }

    /// <summary>The same curve in the heater as in a circulator beside it, and 16 W all the time.</summary>
    [Fact]
    public void A_heater_with_its_own_pump_does_what_one_with_a_circulator_does()
    {
        var beside = HeaterLoop("coolant-heater", "coolant-coil", ("in", 0.3, 0.25, 0.1), ("out", 0.3, 0.2, 0.1)).Build();
        var curve = beside.Parts.Find("pump")!.Flows();
        // Where the circulator was, there is a joint.
        var own = With(With(beside, "pump", p => p with { Stock = "coupling", Ports = p.Ports, Flow = new PartFlow(LossBar: 0) }), "heater", p => p with
        {
            Stock = "pumped-coolant-heater",
            Flow = new PartFlow(ShutoffBar: curve.ShutoffBar, FreeLPerMin: curve.FreeLPerMin),
        });
        Assert.Empty(RigCheck.Check(own));
        var (a, b) = (Of(beside), Of(own));
        Assert.InRange(Wh(b, "sink", 0, 10) / Wh(a, "sink", 0, 10), 0.99, 1.01);
        Assert.Equal(Hours * Hour, b.Heat.PumpS["heater"].Sum(), 1e-6);
        Assert.Equal(16 * Hours, Battery(own) - Battery(With(own, "heater", p => p with { Heat = new PartHeat(PumpW: 0) })), 1e-6);
        // Its pump dead, or switched off itself, it heats nothing.
        Assert.Equal(0, Wh(Of(own, new PlanEvent("dead", PlanEventKind.PumpFails, 0, PartId: "heater")), "sink", 0, 10));
        Assert.Equal(0, Wh(Of(own, new PlanEvent("out", PlanEventKind.HeatFails, 0, PartId: "heater")), "sink", 0, 10));
        var timed = With(own, "heater", p => p with { Heat = new PartHeat(Switch: new PumpSwitch(PumpSwitchKind.Timer, [new DailyTime(0, 12)])) });
        Assert.Empty(RigCheck.Check(timed));
        Assert.Equal(10 * Hour, Of(timed).Heat.PumpS["heater"].Sum(), 1e-6);
        string[] Modes(Rig rig) => [.. ModesStudy.Ask(new Question(rig, Night(rig))).Modes.Select(m => m.Name)];
        Assert.Equal(Modes(beside), Modes(own));
        // Short of its least run it burns on, and rests as much longer.
        var heat = new PartHeat(PowerW: 5000, LeastW: 1500, StartsC: 70, StopsC: 80, RestS: 300, LeastRunS: 900);
        Assert.Equal(new HeaterCycle(900.0 / 1350, 3600.0 / 1350), HeaterCycle.Of(heat, 1000, 5000));
        Assert.Equal(3600.0 / 1800, HeaterCycle.Of(heat, 1000, 60_000).StartsPerHour, 1e-9);
        Assert.Equal(300, Catalogue.Part("coolant-heater")!.Heat!.LeastRunS);
    }
}
