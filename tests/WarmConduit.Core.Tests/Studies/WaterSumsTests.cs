using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Filling;
using WarmConduit.Core.Studies.HotWait;
using WarmConduit.Core.Studies.Scenarios;
using WarmConduit.Core.Tests.Rigs;

namespace WarmConduit.Core.Tests.Studies;

public class WaterSumsTests
{
    private static Question Asked(Rig rig) => new(rig, Conditions.Of(rig.Brief));

    /// <summary>A storage heater, 6 m of hot line in 1/2 in PEX, a mixer.</summary>
    private static Rig Hot(string heater = "storage-heater")
    {
        bool gas = heater == "gas-heater";
        return new RigBuilder().Tank("tank", new Box(new(0, 0, 0), new(0.5, 0.5, 0.3)), ("outlet", 0.5, 0, 0), ("vent", 0, 0, 0.29))
            .Part("pump", "pump", ("in", 0.8, 0, 0), ("out", 1, 0, 0)).Part("tee", "tee", ("a", 1.2, 0, 0), ("b", 1.3, 0, 0), ("c", 1.2, 0.1, 0))
            .Part("heater", heater, (gas ? "in" : "cold", 1.5, 0.3, 0), (gas ? "out" : "hot", 1.5, 0.3, 0.3))
            .Part("mixer", "mixer", ("cold", 4, 0, 0.8), ("hot", 4, 0.05, 0.8), ("spout", 4, 0, 1))
            .Part("valve", "ball-valve", ("a", 0.6, 0, 0), ("b", 0.7, 0, 0))
            .Run("suction", "tank.outlet", "valve.a").Run("suction-2", "valve.b", "pump.in").Run("main", "pump.out", "tee.a").Run("cold", "tee.b", "mixer.cold")
            .Run("to-heater", "tee.c", gas ? "heater.in" : "heater.cold")
            .Run("hot", Service.Hot, "pex-1/2", gas ? "heater.out" : "heater.hot", "mixer.hot", new Point3(1.5, 3.3, 0.3), new Point3(4, 3.3, 0.3))
            .Build();
    }

    /// <summary>By hand: 3 + 2.5 + 3.288 m of bore 12.3 mm hold 1.0444 L; the wall, 15.9 mm of 940 kg/m³ and 2000 J/kgK, takes as much warmth as 0.338 L of
    /// water: 79.7 mm² × 8.788 m × 940 × 2000 / (992.9 × 4180.6).</summary>
    [Fact]
    public void Hot_wait_by_hand()
    {
        var wait = Assert.Single(HotWaitStudy.Ask(Asked(Hot())).Outlets);
        double lengthM = 3 + 2.5 + Math.Sqrt((3.25 * 3.25) + (0.5 * 0.5)), bore = Math.PI / 4 * 0.0123 * 0.0123, wall = (Math.PI / 4 * 0.0159 * 0.0159) - bore;
        // The tap itself holds 0.04 L.
        double litres = (1000 * lengthM * (bore + (wall * 940 * 2000 / (991.9 * 4180.5)))) + 0.04;
        Assert.Equal(litres, wait.Litres, 0.01);
        Assert.Equal(60 * wait.Litres / wait.LPerMin, wait.S, 6);
        // Two people, three draws each.
        Assert.Equal(6 * wait.Litres, wait.WastedLADay, 6);
        Assert.Equal(["hot"], wait.RunIds);
        // An instantaneous one is cold itself, and starts once it flows.
        var gas = Assert.Single(HotWaitStudy.Ask(Asked(Hot("gas-heater"))).Outlets);
        Assert.Equal(litres + 0.6 + (4.0 / 60 * gas.LPerMin), gas.Litres, 0.01);
    }

    [Fact]
    public void What_would_waste_less_does_when_it_is_done()
    {
        var rig = Hot();
        var before = Assert.Single(HotWaitStudy.Ask(Asked(rig)).Outlets);
        var bore = before.Savings.Single(s => s.Kind == HotSavingKind.SmallerBore);
        var after = Assert.Single(HotWaitStudy.Ask(Asked(Editor.Apply(rig, bore.Edits).Rig)).Outlets);
        Assert.Equal(before.WastedLADay - bore.SavesLADay, after.WastedLADay, 6);
        Assert.Equal(bore.Litres, after.Litres, 6);
        // A line of its own is shorter than this one, and as small.
        Assert.True(before.Savings.Single(s => s.Kind == HotSavingKind.HomeRun).Litres < bore.Litres);
        Assert.All(before.Savings.SelectMany(s => s.Edits), e => Assert.Empty(RigCheck.Check(Editor.Apply(rig, [e]).Rig)));
    }

    /// <summary>By hand: 2.8 bar through 10 m of 12.7 mm smooth hose (Blasius) and 5 velocity heads: about 26 L/min, by bisection here; 75 L in 2.9 min; 5 cans
    /// of 15 L: 75/8 min and ten of fetching.</summary>
    [Fact]
    public void Filling_by_hand()
    {
        var rig = Hot();
        var fill = Assert.Single(FillStudy.Ask(Asked(rig)).Tanks);
        double low = 1, high = 100;
        for (int i = 0; i < 60; i++)
        {
            double q = (low + high) / 2, speed = q / 60e3 / (Math.PI / 4 * 0.0127 * 0.0127), reynolds = speed * 0.0127 / 1.23e-6;
            double head = ((0.3164 / Math.Pow(reynolds, 0.25) * 10 / 0.0127) + 5) * speed * speed / 2;
            if (head < 2.8e5 / 997) low = q;
            else high = q;
        }
        Assert.Equal(low, fill.HoseLPerMin, 0.06 * low);
        Assert.Equal(75 / fill.HoseLPerMin * 60, fill.HoseS, 3);
        Assert.Equal((5, (75 / 8.0 * 60) + 600), (fill.Cans, fill.CanFillS));
        Assert.True(fill.Lacking);
        Assert.Equal(1.8 * 1000 * 9.80665, fill.BlockedPa!.Value, 1);
        // A vent hose of 10 mm lets out what a hose brings in, or says that it does not.
        var vented = DemoRigs.Of("sparrow");
        var of = FillStudy.Ask(Asked(vented)).Tanks.Single(t => t.PartId == "tank");
        Assert.Equal(of.VentLPerMin < of.HoseLPerMin, of.Lacking);
    }

    [Fact]
    public void A_part_is_isolated_by_the_fewest_valves_with_the_litres_that_spill()
    {
        var rig = Hot();
        ServiceAnswer Of(string part) => ServiceStudy.Ask(Asked(rig), new ServiceInput(part));
        var pump = Of("pump");
        Assert.True(pump.Can);
        Assert.Contains(new Setting("valve", "closed"), pump.Turns);
        // From the valve to both taps, with the heater that hangs on the same line; by hand: bores, and what parts hold.
        Assert.InRange(pump.SpillsL, 10.12, 13);
        Assert.False(Of("valve").Can);
        Assert.NotEmpty(new ServiceInput("nothing").Check(rig));
    }
}
