using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Tests.Rigs;

public class RigCheckTests
{
    private static readonly Rig Good = RigFileTests.Sparrow;

    private static readonly RigIndex Index = new(Good);

    private static Rig Runs(Func<Run, Run> change) => Good with { Runs = [change(Good.Runs[0]), .. Good.Runs.Skip(1)] };

    private static Rig Parts(Func<Part, Part> change) => Good with { Parts = [change(Good.Parts[0]), .. Good.Parts.Skip(1)] };

    private static Rig Zones(Func<Zone, Zone> change) => Good with
    {
        Shell =
        Good.Shell with { Zones = [change(Good.Shell.Zones[0]), .. Good.Shell.Zones.Skip(1)] }
    };

    public static TheoryData<string, Rig> Bad => new()
    {
        { "id", Good with { Id = "Has Capitals" } },
        { "name", Good with { Name = " " } },
        { "note", Good with { Note = new string('x', 3000) } },
        { "brief.people", Good with { Brief = Good.Brief with { People = 0 } } },
        { "brief.lowestC", Good with { Brief = Good.Brief with { LowestC = -90 } } },
        { "brief.leastFall", Good with { Brief = Good.Brief with { LeastFall = double.NaN } } },
        { "runs[0].pipe", Runs(r => r with { Pipe = "straw" }) },
        { "runs[0].bends[0].at.zM", Runs(r => r with { Bends = [new Bend("b1", new Point3(0, 0, double.PositiveInfinity))] }) },
        { "runs[0].bends[0].at.xM", Runs(r => r with { Bends = [new Bend("b1", new Point3(900, 0, 0))] }) },
        { "runs[0].insulation.material", Runs(r => r with { Insulation = new Sleeve("cheese", 0.01) }) },
        { "runs[0].insulation.thicknessM", Runs(r => r with { Insulation = new Sleeve("xps", 4) }) },
        { "runs[0].clipSpacingM", Runs(r => r with { ClipSpacingM = 0 }) },
        { "runs[0].to", Runs(r => r with { To = r.From }) },
        { "runs[0].from.part", Runs(r => r with { From = new RunEnd("ghost", "a") }) },
        { "runs[0].from.port", Runs(r => r with { From = r.From with { Port = "ghost" } }) },
        { "runs[1].id", Runs(r => r with { Id = Good.Runs[1].Id }) },
        { "runs", Runs(r => r with { Id = Good.Parts[0].Id }) },
        { "parts[0].stock", Parts(p => p with { Stock = "samovar" }) },
        { "parts[0].holdsL", Parts(p => p with { HoldsL = -1 }) },
        { "parts[0].lossWPerK", Parts(p => p with { LossWPerK = double.NaN }) },
        { "parts[0].box.size.yM", Parts(p => p with { Box = p.Box with { Size = new Point3(1, 0, 1) } }) },
        { "parts[0].ports[1].id", Parts(p => p with { Ports = [p.Ports[0], p.Ports[0], .. p.Ports.Skip(1)] }) },
        { "parts[0].ports", Parts(p => p with { Stock = "pump" }) },
        { "shell.zones[1].id", Zones(z => z with { Id = Good.Shell.Zones[1].Id }) },
        { "shell.zones[0].airChangesPerHour", Zones(z => z with { AirChangesPerHour = -3 }) },
        { "shell.zones[0].heater.powerW", Zones(z => z with { Heater = new ZoneHeater(1e9, 18) }) },
        { "shell.zones[0].faces[0].towards", Zones(z => z with { Faces = [z.Faces[0] with { Towards = z.Id }] }) },
        { "shell.zones[0].faces[0].layers[0].material", Zones(z => z with { Faces = [z.Faces[0] with { Layers = [new FaceLayer("felt", 0.1)] }] }) },
        { "shell.zones[0].openings[0].towards", Zones(z => z with { Openings = [new Opening("o", "moon", 0.1, 0.1)] }) },
    };

    [Theory]
    [MemberData(nameof(Bad), DisableDiscoveryEnumeration = true)]
    public void A_rig_that_makes_no_sense_is_refused_at_the_field(string field, Rig rig)
    {
        var faults = RigCheck.Check(rig);
        Assert.Contains(field, faults.Select(f => f.Path));
        Assert.All(faults, f => Assert.NotEmpty(f.Reason));
        Assert.Equal(faults, Assert.Throws<RigFileException>(() => RigCheck.Demand(rig)).Faults);
    }

    [Fact]
    public void Many_faults_are_told_together_but_not_without_end()
    {
        var rig = Good with { Runs = [.. Enumerable.Range(0, 200).Select(i => Good.Runs[0] with { Id = $"r{i}", Pipe = "straw" })] };
        Assert.Equal(50, RigCheck.Check(rig).Count);
    }

    [Fact]
    public void A_place_belongs_to_the_smallest_zone_around_it_and_a_run_starts_and_ends_at_its_ports()
    {
        Assert.Equal("hatch", Index.ZoneAt(new Point3(0.1, 1.6, 0.4))!.Id);
        Assert.Equal("garage", Index.ZoneAt(new Point3(0.5, 0.5, 0.4))!.Id);
        Assert.Equal("living", Index.ZoneAt(new Point3(1.5, 0.8, 1.2))!.Id);
        Assert.Null(Index.ZoneAt(new Point3(-1, 0, 0.5)));
        var run = Good.Runs.Single(r => r.Id == "kitchen-cold");
        var course = Index.CourseOf(run);
        Assert.Equal(Index.Part("tee-main").PortAt("b"), course[0]);
        Assert.Equal(Index.Part("mixer").PortAt("cold"), course[^1]);
        Assert.Equal(run.Bends.Select(b => b.At), course.Skip(1).SkipLast(1));
        Assert.Null(Index.Part("mixer").PortAt("nowhere"));
    }

    [Fact]
    public void Every_value_of_the_catalogue_has_a_source_and_makes_sense()
    {
        Assert.All(Catalogue.Pipes, p =>
        {
            Assert.True(p.InnerDiameterM > 0 && p.OuterDiameterM > p.InnerDiameterM && p.ConductivityWPerMK > 0 && p.ModulusWarmPa <= p.ModulusColdPa);
            Assert.NotEmpty(p.Source);
            Assert.Same(p, Catalogue.Pipe(p.Id));
        });
        Assert.All(Catalogue.Solids, s => Assert.True(s.ConductivityWPerMK > 0 && s.Source.Length > 0 && Catalogue.Solid(s.Id) == s));
        Assert.All(Catalogue.Parts, p => Assert.True(p.HoldsL >= 0 && p.LossWPerK >= 0 && p.OutdoorShare is >= 0 and <= 1 && p.Source.Length > 0
            && p.KeepsWater == p.Remedy is not null));
        Assert.Equal(Catalogue.Parts.Count, Catalogue.Parts.Select(p => p.Id).Distinct().Count());
        // The table of the trade: a half-inch line holds 0.119 L a metre.
        Assert.Equal(0.1188, Catalogue.Pipe("pex-1/2")!.BoreM2() * 1000, 4);
    }
}
