using System.Text.Json.Nodes;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Rigs.Starting;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Weights;

namespace WarmConduit.Core.Tests.Studies;

public class WeightTests
{
    private static readonly Rig Box = Start.Make(new NewRig("Test", 4, 2, 2, WayOfLiving.Weekends, FreezeSchool.Drain));

    private static readonly Axles Carrier = new(FrontXM: 5, WheelbaseM: 4, TrackM: 1.6, FrontKg: 1000, RearKg: 800);

    private static WeightsAnswer Ask(Rig rig) => WeightStudy.Ask(new Question(rig, Conditions.Of(rig.Brief)));

    private static Rig With(Axles? axles, params Edit[] edits)
    {
        var rig = edits.Length == 0 ? Box : Editor.Apply(Box, edits).Rig;
        return rig with { Shell = rig.Shell with { Axles = axles } };
    }

    // 500 × 600 × 200 mm, middle 0.25 m behind the rear axle's line at x = 1, and 0.4 m towards the kerb from the middle.
    private static readonly PlacePart Tank = new("tank", "tank", "fresh tank", new Point3(0.5, 0.3, 0));

    /// <summary>
    /// By hand: 60 L of water at 10 °C is 59.81 kg, its middle at x = 0.75, y = 0.6. Lever behind the front axle 4.25 m of 4: 63.55 kg on the rear, 3.74 kg
    /// lifted off the front. The kerb's share is 0.5 + 0.4/1.6 = 0.75, so 44.86 kg stand on the kerb's wheels. At 20 g with its own 4 kg: 63.81 × 196.133 =
    /// 12,515 N.
    /// </summary>
    [Fact]
    public void A_tank_behind_the_rear_axle_lifts_the_front_one()
    {
        var tank = Assert.Single(Ask(With(Carrier, Tank)).Tanks);
        Assert.Equal(59.81, tank.WaterKg, 2);
        Assert.Equal((63.55, -3.74, 44.86), (Math.Round(tank.RearKg!.Value, 2), Math.Round(tank.FrontKg!.Value, 2), Math.Round(tank.KerbKg!.Value, 2)));
        Assert.Equal(12_515, tank.CrashN, 0);
    }

    [Fact]
    public void A_larger_tank_weighs_as_much_more_as_its_walls_are_larger()
    {
        var tank = With(Carrier, Tank).Parts.Single();
        double empty = PartWater.EmptyKg(tank);
        // Twice every edge: four times the walls.
        Assert.Equal(4 * empty, PartWater.EmptyKg(Turning.Resized(tank, tank.Box.Size * 2)), 9);
        Assert.Equal(empty, PartWater.EmptyKg(Turning.Resized(Turning.Resized(tank, tank.Box.Size * 2), tank.Box.Size)), 9);
        Assert.Equal(3, PartWater.EmptyKg(tank with { MassKg = 3 }));
    }

    [Fact]
    public void States_add_up_and_limits_are_told()
    {
        var answer = Ask(With(Carrier with { RearMostKg = 860, TotalMostKg = 5000 }, Tank));
        Assert.Equal(["dry", "full", "half"], answer.States.Select(s => s.Id));
        Assert.All(answer.States, s => Assert.Equal(s.TotalKg!.Value, s.FrontKg!.Value + s.RearKg!.Value, 9));
        var (dry, full) = (answer.States[0], answer.States[1]);
        Assert.Equal(["dry", "full", "half", "greyFull"], Ask(With(Carrier, Tank, new PlacePart("grey", "grey-tank", "grey " +
            "tank", new Point3(2, 0.3, 0)))).States.Select(s => s.Id));
        Assert.Equal(1804, dry.TotalKg!.Value, 6);
        Assert.Equal(59.81, full.TotalKg!.Value - dry.TotalKg.Value, 2);
        Assert.Empty(dry.Over);
        Assert.Equal(["rear axle"], full.Over);
        // What hangs on the kerb side is carried by the kerb's wheels.
        Assert.Equal((0.5, true), (Math.Round(dry.FrontKerbShare!.Value, 3), full.RearKerbShare > 0.5));
    }

    [Fact]
    public void Without_axles_only_the_systems_own_weight_is_told()
    {
        var answer = Ask(With(null, Tank));
        Assert.All(answer.States, s => Assert.Null(s.FrontKg));
        // Nor with one of two axles weighed.
        Assert.All(Ask(With(Carrier with { RearKg = 0 }, Tank)).States, s => Assert.Null(s.TotalKg));
        Assert.Equal((4, 0), (answer.PartsKg, answer.LiningKg));
        // An empty box has no arches: the rear axle is guessed, the front one stands ahead of it.
        Assert.Equal((false, 4.6, 3.4, 2), (answer.Weighed, answer.Axles.FrontXM, Math.Round(answer.Axles.WheelbaseM, 6), answer.Axles.TrackM));
        Assert.Equal(63.81, answer.States[1].SystemKg, 2);
    }

    [Fact]
    public void Axles_are_typed_kept_and_refused_at_their_field()
    {
        var set = new ChangeThing("shell", new JsonObject { ["axles"] = RigDiff.Node(Carrier) });
        var done = Editor.Apply(Box, [set]);
        Assert.Equal(Carrier, RigFile.Read(System.Text.Encoding.UTF8.GetBytes(RigFile.Write(done.Rig))).Shell.Axles);
        Assert.Null(Editor.Apply(done.Rig, done.Inverse).Rig.Shell.Axles);
        var refused = Assert.Throws<RigFileException>(() => Editor.Apply(Box,
            [new ChangeThing("shell", new JsonObject { ["axles"] = RigDiff.Node(Carrier with { WheelbaseM = 0 }) })]));
        Assert.Contains(refused.Faults, f => f.Path == "shell.axles.wheelbaseM");
    }

    /// <summary>Linings by hand: 1 m² of 12 mm board and 30 mm foam board is 7.2 + 0.99 kg; the skin is the vehicle's own.</summary>
    [Fact]
    public void Linings_count_without_their_skins()
    {
        Face face = new("floor", "floor", FaceSide.Floor, 1, [new("plywood", 0.012), new("xps", 0.03), new("steel", 0.0012)], 0, []);
        var rig = Box with { Shell = Box.Shell with { Zones = [new Zone("room", "room", ZoneKind.Living, Box.Shell.Body, 1, [face], [])] } };
        Assert.Equal(8.19, Ask(rig).LiningKg, 6);
    }

    /// <summary>
    /// Lantern by hand, in moments about its rear axle at x = 7.6 − 4.8 = 2.8, positive forward. Each tank under the bed: 210 L at 10 °C are 209.34 kg at x =
    /// 0.6, so 209.34 × (0.6 − 2.8) / 4.8 = −95.95 kg on the front axle and 305.28 kg on the rear one. The grey tank: 129.6 L, 129.19 kg at x = 3.15: 9.42 kg
    /// in front, 119.77 kg behind. From fresh tanks full to grey full a tenth stays in the fresh ones: the front axle gains 0.9 × 2 × 95.95 + 9.42 = 182.12 kg,
    /// the rear one 119.77 − 0.9 × 2 × 305.28 = −429.74 kg.
    /// </summary>
    [Fact]
    public void Lanterns_axles_by_hand()
    {
        var answer = Ask(RigFile.Read(File.ReadAllBytes(Path.Combine(AppContext.BaseDirectory, "Data", "lantern.json"))));
        foreach (string id in (string[])["tank-a", "tank-b"])
        {
            var tank = answer.Tanks.Single(t => t.PartId == id);
            Assert.Equal((209.34, -95.95, 305.28), (Math.Round(tank.WaterKg, 2), Math.Round(tank.FrontKg!.Value, 2), Math.Round(tank.RearKg!.Value, 2)));
        }
        var grey = answer.Tanks.Single(t => t.PartId == "grey");
        Assert.Equal((129.19, 9.42, 119.77), (Math.Round(grey.WaterKg, 2), Math.Round(grey.FrontKg!.Value, 2), Math.Round(grey.RearKg!.Value, 2)));
        var (full, greyFull) = (answer.States.Single(s => s.Id == "full"), answer.States.Single(s => s.Id == "greyFull"));
        Assert.Equal(182.12, greyFull.FrontKg!.Value - full.FrontKg!.Value, 0.02);
        Assert.Equal(-429.74, greyFull.RearKg!.Value - full.RearKg!.Value, 0.02);
    }
}
