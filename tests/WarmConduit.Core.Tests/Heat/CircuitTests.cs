using WarmConduit.Core.Heat;
using WarmConduit.Core.Heat.Night;

namespace WarmConduit.Core.Tests.Heat;

/// <summary>Circuits in rooms that do not change, by hand, and those that make no sense.</summary>
public class CircuitTests
{
    private const double Hour = 3600, Kg = 0.05, Cp = 4000, Carried = Kg * Cp;

    private static NightNetwork With(params NightReach[] reaches) => new(
        [new("warm", 1e12, 0, 20, []), new("cold", 1e12, 0, 0, [])], [], [], TimeSeries.Constant(-10), Hour)
    {
        Circuits = [new NightCircuit("c", Cp, reaches, [NightWindow.Always])],
    };

    private static NightReach Heater(double watt, double limitC) =>
        new("heater", "a", "b", Kg, Heater: new NightFluidHeater(watt, limitC, [NightWindow.Always]));

    private static NightCircuitRow At(NightNetwork network) => NightEngine.Run(network, new NightOptions(ReportS: [Hour / 2])).Circuits[0].Rows[0];

    /// <summary>100 W/K at 200 W/K of flow leave e^-0.5 of the difference: a heater of 1000 W, 5 K, stands where that loses 5 K.</summary>
    [Fact]
    public void A_heater_stands_where_its_circuit_loses_what_it_gives()
    {
        double left = Math.Exp(-0.5), supply = 5 / (1 - left);
        var row = At(With(Heater(1000, 80), new("r", "b", "a", Kg, "cold", 100)));
        Assert.Equal(supply, row.OutC[0], 1e-4);
        Assert.Equal(supply * left, row.OutC[1], 1e-4);
        Assert.Equal((-1000.0, 1000.0), (Math.Round(row.HeatW[0], 2), Math.Round(row.HeatW[1], 2)));
        // With more than it takes it stays at its limit, and gives what is lost there.
        var limited = At(With(Heater(50_000, 60), new("r", "b", "a", Kg, "cold", 100)));
        Assert.Equal(60, limited.OutC[0], 1e-6);
        Assert.Equal(Carried * 60 * (1 - left), -limited.HeatW[0], 1e-3);
    }

    /// <summary>A third past the warm room, the rest past outdoors; what comes back is mixed by flow.</summary>
    [Fact]
    public void Branches_mix_by_their_flow()
    {
        var row = At(With(Heater(50_000, 60), new("one", "b", "a", Kg / 3, "warm", 1e6), new("two", "b", "a", Kg * 2 / 3, "outdoor", 1e6)));
        Assert.Equal((20.0, -10.0), (Math.Round(row.OutC[1], 3), Math.Round(row.OutC[2], 3)));
        Assert.Equal((20.0 / 3) - (10 * 2 / 3.0), row.InC[0], 1e-3);
        // Off, it carries from the warm room to outdoors.
        var off = At(With(new("heater", "a", "b", Kg, Heater: new NightFluidHeater(5000, 60, [])), new("one", "b", "c", Kg, "warm", 1e6),
            new("two", "c", "a", Kg, "outdoor", 1e6)));
        Assert.Equal((-30 * Carried, 30 * Carried, 0.0), (Math.Round(off.HeatW[1]), Math.Round(off.HeatW[2]), Math.Round(off.HeatW[0])));
    }

    /// <summary>Whoever asks for reports at the hours, at which steps end anyhow, changes nothing of the night.</summary>
    [Fact]
    public void A_report_leaves_the_night_as_it_is()
    {
        for (int seed = 0; seed < 12; seed++)
        {
            var night = new NightGen(seed).WithCircuits();
            var (asked, silent) = (NightEngine.Run(night, new NightOptions(ReportS: NightOptions.Every(Hour, 24 * Hour))), NightEngine.Run(night));
            Assert.Equal(silent.Steps, asked.Steps);
            Assert.Equal(silent.Milestones, asked.Milestones);
            for (int c = 0; c < night.Circuits.Count; c++) Assert.Equal(silent.Circuits[c].HeatWhByHour, asked.Circuits[c].HeatWhByHour);
        }
    }

    [Fact]
    public void Circuits_that_make_no_sense_are_refused_with_their_place()
    {
        string Refused(params NightReach[] reaches) => Assert.Throws<HeatNetworkException>(() => NightEngine.Run(With(reaches))).Place;
        var back = new NightReach("r", "b", "a", Kg, "cold", 10);
        Assert.Equal("c: r", Refused(Heater(100, 60), back with { Target = "attic" }));
        Assert.Equal("c: r", Refused(Heater(100, 60), back with { ConductanceWPerK = -1 }));
        Assert.Equal("c: r", Refused(Heater(100, 60), back with { Target = "outdoor", Emission = new NightEmission(100, 50) }));
        Assert.Equal("c: heater", Refused(Heater(double.NaN, 60), back));
        Assert.Equal("c: heater", Refused(Heater(100, 60) with { Target = "cold" }, back));
        // What comes to a node leaves it.
        Assert.Equal("c", Refused(Heater(100, 60), back with { KgPerS = Kg / 2 }));
    }
}
