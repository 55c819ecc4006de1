using WarmConduit.Core.Geometry;
using WarmConduit.Core.Heat;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Tests.Rigs;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>What happens in the course of a night: each event does what it should.</summary>
public class NightPlanTests
{
    private static readonly Conditions Frost = new(-10, 2, true, 12, WaterState.Wet, 22, 48, Attitude.Level);

    // 10 m² of 30 mm of XPS, half of it rearward, half an air change, and a heater that is never enough to reach its set point.
    private static readonly Zone Room = new(
        "room", "room", ZoneKind.Living, RigBuilder.Cube(0, 0, 0, 2), 0.5,
        [new("front", "front", FaceSide.Wall, 5, [new("xps", 0.03)], 0, []), new("rear", "rear", FaceSide.Wall, 5, [new("xps", 0.03)], 0, [], Rearward: true)],
        [], new ZoneHeater(150, 40), 50_000);

    private static ZoneHours Settle(Conditions night, params PlanEvent[] events) => Settle(Room, night, events);

    private static ZoneHours Settle(Zone room, Conditions night, params PlanEvent[] events)
    {
        var rig = new RigBuilder().Build();
        return new Question(rig with { Shell = rig.Shell with { Zones = [room] } }, night with { Events = events }).Ask(NightStudy.Ask).Zones.Single();
    }

    private static PlanEvent On(PlanEventKind kind, double from = 0, double? until = null) => new(kind.ToString().ToLowerInvariant(), kind, from, until);

    [Fact]
    public void The_heat_stops_and_comes_back_with_what_feeds_it()
    {
        double g = RigBuilder.LossWPerK(Room, Frost), warm = -10 + (150 / g);
        Assert.Equal(warm, Settle(Frost).C[^1], 0.1);
        Assert.Equal(-10, Settle(Frost, On(PlanEventKind.HeatFails)).C[^1], 0.1);
        Assert.Equal(-10, Settle(Frost, On(PlanEventKind.FuelOut)).C[^1], 0.1);
        Assert.Equal(-10, Settle(Frost, On(PlanEventKind.BatteryOut)).C[^1], 0.1);
        Assert.Equal(warm, Settle(Frost, On(PlanEventKind.BatteryOut), On(PlanEventKind.Mains)).C[^1], 0.1);
        var electric = Room with { Heater = Room.Heater! with { Electric = true } };
        Assert.Equal(warm, Settle(electric, Frost, On(PlanEventKind.FuelOut)).C[^1], 0.1);
        Assert.Equal(-10, Settle(electric, Frost, On(PlanEventKind.BatteryOut)).C[^1], 0.1);
        Assert.Equal(warm, Settle(Frost with { HeatOn = false }, On(PlanEventKind.HeatOn)).C[^1], 0.1);
        // Away for ten hours: nothing is burnt meanwhile, 150 W before and after.
        var away = Settle(Frost, On(PlanEventKind.Away, 6.5, 16.5));
        Assert.Equal([150, 75, 0], [away.HeaterWh[5], away.HeaterWh[6], away.HeaterWh.Skip(7).Take(9).Sum()]);
        Assert.Equal([75, 150], [away.HeaterWh[16], away.HeaterWh[17]]);
        // Two hours after it stopped it has cooled by its own time, C / G.
        Assert.Equal(-10 + ((away.C[6] + 10) * Math.Exp(-g * 5400 / 50_000)), away.C[8], 0.4);
    }

    [Fact]
    public void A_set_back_holds_what_is_asked_and_no_more()
    {
        var strong = Room with { Heater = new ZoneHeater(5000, 18) };
        var night = Settle(strong, Frost, new PlanEvent("back", PlanEventKind.SetBack, 4, 24, HoldC: 8),
            new PlanEvent("away", PlanEventKind.Away, 12, 20, HoldC: 5), new PlanEvent("more", PlanEventKind.SetBack, 30, null, HoldC: 35));
        foreach (var (hour, c) in ((int, double)[])[(3, 18), (10, 8), (18, 5), (23, 8), (29, 18), (47, 18)]) Assert.Equal(c, night.C[hour], 0.5);
    }

    [Fact]
    public void An_open_window_and_a_drive_take_what_is_reckoned_by_hand()
    {
        // 0.2 m² half a metre high: 0.6 A/3 √(g H ΔT/T̄) by warmth, 0.025 A v by wind, in quadrature.
        var window = new PlanEvent("window", PlanEventKind.Open, 0, null, ZoneId: "room", AreaM2: 0.2, HeightM: 0.5);
        double c = Settle(Frost, window).C[^1], dT = c + 10;
        double air = Math.Sqrt(Math.Pow(0.6 * 0.2 / 3 * Math.Sqrt(9.80665 * 0.5 * dT / (((c - 10) / 2) + 273.15)), 2) + Math.Pow(0.025 * 0.2 * 2, 2));
        Assert.Equal(150, (RigBuilder.LossWPerK(Room, Frost) + (AirExchange.AirJPerM3K * air)) * dT, 1.0);
        // 25 m/s on the front, half of that on the rear.
        double U(double wind) => 1 / (0.13 + (0.03 / 0.034) + (1 / SurfaceCoefficient.OuterWallWPerM2K(wind, 0.9, -10)));
        double driven = (150 / (Settle(Frost, new PlanEvent("drive", PlanEventKind.Drive, 0, null, SpeedMPerS: 25)).C[^1]
            + 10)) - AirExchange.LeakageWPerK(0.5, 8);
        double xps = ZoneBalance.Transmittance(Room.Faces[0], Frost.Steady() with { WindMPerS = 25 }, true) / U(25);
        Assert.Equal((5 * U(25)) + (5 * U(12.5)), driven / xps, 0.02);
    }

    [Fact]
    public void A_cupboard_door_lets_the_room_warm_the_cupboard()
    {
        var cupboard = new Zone("cupboard", "cupboard", ZoneKind.Cupboard, new Box(new(3, 0, 0), new(1, 1, 1)), 0.2,
            [new("wall", "wall", FaceSide.Wall, 3, [new("xps", 0.01)], 0, [])], []);
        var rig = new RigBuilder().Build();
        rig = rig with { Shell = rig.Shell with { Zones = [cupboard, Room with { Heater = new ZoneHeater(5000, 18) }] } };
        var door = new PlanEvent("door", PlanEventKind.Open, 12, 36, ZoneId: "cupboard", Towards: "room", AreaM2: 0.3, HeightM: 0.6);
        var c = new Question(rig, Frost with { Events = [door] }).Ask(NightStudy.Ask).Zones.Single(z => z.ZoneId == "cupboard").C;
        Assert.True(c[11] < -9 && c[35] > 10 && c[47] < -8, string.Join(' ', c));
    }

    [Fact]
    public void What_is_drained_in_time_does_not_freeze_and_what_has_ice_by_then_stays()
    {
        var rig = DemoRigs.Of("tern");
        RigNight Night(params PlanEvent[] events) => RigNight.Of(new Question(rig,
            Conditions.Of(rig.Brief) with { HeatOn = false, Water = WaterState.Wet, InsideC = 18, Hours = 40, OutdoorC = -15, Events = events }));
        double Ice(RigNight night) => Enumerable.Range(0, night.Candidates.Count).Where(n => double.IsFinite(night.Marks(n).FirstIceS)).Count();
        var (wet, drained, late, again) = (Night(), Night(On(PlanEventKind.Drained, 0.5)), Night(On(PlanEventKind.Drained, 30)),
            Night(On(PlanEventKind.Drained, 0.5, 10)));
        Assert.True(Ice(drained) < Ice(wet));
        // Thirty hours at -15 °C are too many: draining then wins nothing that was frozen.
        Assert.Equal(Ice(wet), Ice(late));
        Assert.True(Ice(again) > Ice(drained));
        // Ice that was there goes on as it was.
        int first = Enumerable.Range(0, wet.Candidates.Count).MinBy(n => wet.Marks(n).FirstIceS);
        Assert.Equal(wet.Marks(first).FirstIceS, late.Marks(Enumerable.Range(0, late.Candidates.Count)
            .First(n => late.Candidates[n].Id == wet.Candidates[first].Id)).FirstIceS, 1.0);
    }

    [Theory]
    [InlineData("sparrow")]
    [InlineData("tern")]
    public void Drained_at_once_it_is_the_night_of_a_drained_rig_piece_by_piece(string name)
    {
        var rig = DemoRigs.Of(name);
        var night = Conditions.Of(rig.Brief) with { HeatOn = false, Hours = 24, OutdoorC = -15 };
        RigNight Ask(Conditions asked) => RigNight.Of(new Question(rig, asked));
        var (drained, soon) = (Ask(night with { Water = WaterState.Drained }),
            Ask(night with { Water = WaterState.Wet, Events = [On(PlanEventKind.Drained, 0.05)] }));
        var now = Enumerable.Range(0, soon.Candidates.Count).ToDictionary(n => soon.Candidates[n].Id);
        for (int n = 0; n < drained.Candidates.Count; n++)
        {
            int same = now[drained.Candidates[n].Id];
            Assert.Equal(drained.Candidates[n].Zone?.Id, soon.Candidates[same].Zone?.Id);
            // Three minutes full are three minutes that a puddle has lost less in.
            Assert.True(soon.Marks(same).FirstIceS - drained.Marks(n).FirstIceS is >= -60 and < 400 or double.NaN, drained.Candidates[n].Name);
        }
        // What was there only while it was full has no ice after.
        Assert.All(Enumerable.Range(0, soon.Candidates.Count).Where(n => drained.Candidates.All(f => f.Id != soon.Candidates[n].Id)), n =>
            Assert.False(soon.Marks(n).FirstIceS is > 180 and < double.PositiveInfinity));
    }

    [Theory]
    [InlineData("sparrow")]
    [InlineData("lantern")]
    public void A_night_cut_where_nothing_changes_is_the_same_night(string name)
    {
        var rig = DemoRigs.Of(name);
        var plain = Conditions.Of(rig.Brief) with { Water = WaterState.Wet, HeatOn = true, Cloud = 0 };
        // A set-back to more than any heater holds changes nothing.
        var cut = plain with { Events = [new PlanEvent("none", PlanEventKind.SetBack, 1.25, 3.7, HoldC: 40), On(PlanEventKind.Mains, 5)] };
        var (one, many) = (RigNight.Of(new Question(rig, plain)), RigNight.Of(new Question(rig, cut)));
        Assert.InRange(many.Answer.Balance.Gap(), 0, 0.001);
        Assert.Equal(one.Candidates.Select(f => f.Id), many.Candidates.Select(f => f.Id));
        for (int r = 0; r < one.Answer.ReportS.Count; r++)
        {
            foreach (var zone in rig.Shell.Zones) Assert.Equal(one.AirC(zone, r), many.AirC(zone, r), 0.1);
            for (int n = 0; n < one.Candidates.Count; n++) Assert.Equal(one.Ice(r, n), many.Ice(r, n), 0.02);
        }
        Assert.All(rig.Shell.Zones.Where(z => z.Heater is not null), z =>
            Assert.Equal(one.HeaterWh(z).Sum(), many.HeaterWh(z).Sum(), 0.01 * one.HeaterWh(z).Sum()));
    }

    /// <summary>What is planned has one home: asked by the plan's id, or by its events, the night is the same, and an event that is moved by an edit moves in
    /// it.</summary>
    [Fact]
    public void A_night_goes_by_the_plan_that_it_names_as_the_rig_has_it()
    {
        var rig = DemoRigs.Of("lantern");
        var plan = new NightPlan("tonight", "Tonight", 22, 12, true, 12, [On(PlanEventKind.HeatFails, 2)]);
        var night = Conditions.Of(rig.Brief) with { Water = WaterState.Wet, HeatOn = true, Hours = 12 };
        static string Told(Question q) => System.Text.Json.JsonSerializer.Serialize(q.Ask(FreezeLadderStudy.Ask), RigFile.Compact);
        string By(params PlanEvent[] events) => Told(new Question(rig, night with { Events = events }));
        var planned = new Question(rig with { Plans = [plan] }, night with { PlanId = "tonight" }).Warm();
        Assert.Equal(By(plan.Events[0]), Told(planned));
        Assert.NotEqual(By(), Told(planned));
        string path = $"plans/tonight/events/{plan.Events[0].Id}";
        var moved = Editor.Apply(planned.Rig, [new ChangeThing(path, new System.Text.Json.Nodes.JsonObject { ["atH"] = 5 })]);
        Assert.Equal(By(plan.Events[0] with { AtH = 5 }), Told(planned.On(moved.Rig, default)));
        // Without the plan nothing happens, and a night cannot name one that is not there, nor have events beside it.
        Assert.Equal(By(), Told(planned.On(Editor.Apply(planned.Rig, [new RemoveThing("plans/tonight")]).Rig, default)));
        Assert.Equal(["conditions.planId"], (night with { PlanId = "none" }).Check(rig).Select(f => f.Path));
        Assert.Equal(["conditions.events"], (night with { PlanId = "tonight", Events = [] }).Check(planned.Rig).Select(f => f.Path));
    }

    [Fact]
    public void Plans_are_kept_in_the_rig_and_a_door_of_a_room_that_goes_goes_with_it()
    {
        var sparrow = DemoRigs.Of("sparrow") with { Plans = null };
        var plan = new NightPlan("away", "Away for five days", 8, 120, true, 12,
            [new("open", PlanEventKind.Open, 1, 2, ZoneId: "garage", AreaM2: 1, HeightM: 0.7), On(PlanEventKind.Away, 2)], false, 18);
        var kept = Editor.Apply(sparrow, [new AddThing("plans", (System.Text.Json.Nodes.JsonObject)RigDiff.Node(plan)!)]);
        var read = RigFile.Read(RigFile.WriteCompact(kept.Rig));
        Assert.Equal(["away"], read.Plans!.Select(p => p.Id));
        Assert.Equal(["away", "open"], read.Plans![0].Events.Select(e => e.Id));
        Assert.Equal(sparrow.Plans, Editor.Apply(kept.Rig, [new Restore("Undone", kept.Effect.Inverse())]).Rig.Plans);
        Assert.Equal(["away"], Editor.Apply(kept.Rig, [new RemoveThing("shell/zones/garage")]).Rig.Plans![0].Events.Select(e => e.Id));
        Assert.Empty(RigCheck.Check(kept.Rig));
        foreach (var (wrong, field) in ((PlanEvent, string)[])
                 [
                     (On(PlanEventKind.SetBack), "holdC"), (On(PlanEventKind.Drive), "speedMPerS"), (On(PlanEventKind.Open), "zoneId"),
                     (On(PlanEventKind.Mains, 5, 4), "untilH"),
                     (new("x", PlanEventKind.Open, 0, null, ZoneId: "attic", AreaM2: 1, HeightM: 1), "zoneId"), (On(PlanEventKind.Away, 241), "atH"),
                     (new("x", PlanEventKind.Away, 0, HoldC: 90), "holdC"),
                 ])
        {
            Assert.Contains((Frost with { Events = [wrong] }).Check(sparrow), f => f.Path == $"conditions.events[0].{field}");
            Assert.Contains(RigCheck.Check(sparrow with { Plans = [plan with { Events = [wrong] }] }), f => f.Path == $"plans[0].events[0].{field}");
        }
    }
}
