using WarmConduit.Application.Tables;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Rigs.Starting;
using WarmConduit.Core.Rigs.Tables;
using WarmConduit.Core.Units;

namespace WarmConduit.Server.Tests;

public class RigTableTests
{
    private static readonly NewRig Van = new("Test", 3.7, 1.75, 1.9, WayOfLiving.Weekends, FreezeSchool.Drain, "long-van");
    private static readonly Rig Bare = Start.Make(Van), Full = Start.Make(Van with { Starter = "weekend-drain" });

    private static Rig Taken(Rig rig, string text, UnitSystem system = UnitSystem.Metric)
    {
        var read = RigTableText.Read(rig, text, system);
        Assert.Empty(read.Faults);
        return Editor.Apply(rig, read.Edits).Rig;
    }

    /// <summary>Every part and every point of a whole van goes out and comes back, into an empty one, to the hundredth of a millimetre.</summary>
    [Fact]
    public void A_whole_van_goes_through_tables()
    {
        // Parts whose ports are as stock has them; those of the starter were drawn with ports of their own.
        var stocked = Bare;
        foreach (var set in PartSets.All)
            stocked = Editor.Apply(stocked, [new PlaceSet(set.Id, set.Id, new Point3(0.1 + 0.3 * PartSets.All.ToList().IndexOf(set), 0.3, 0.2))]).Rig;
        // A part is known by its name.
        stocked = stocked with { Parts = [.. stocked.Parts.Select(p => p with { Name = p.Id })], Runs = [.. stocked.Runs.Select(r => r with { Name = r.Id })] };
        var back = Taken(Taken(Bare, RigTableText.Write(RigTables.Parts(stocked))), RigTableText.Write(RigTables.Runs(stocked)));
        Assert.Equal(RigTableText.Write(RigTables.Parts(stocked)), RigTableText.Write(RigTables.Parts(back)));
        Assert.Equal(RigTableText.Write(RigTables.Runs(stocked)), RigTableText.Write(RigTables.Runs(back)));
        var (there, here) = (new RigIndex(stocked), new RigIndex(back));
        foreach (var run in stocked.Runs)
            Assert.All(there.CourseOf(run).Zip(here.CourseOf(here.Run(run.Id))), p => Assert.True(p.First.DistanceM(p.Second) < 1e-5));
    }

    /// <summary>Sizes, ports that were moved or made, and how valves stand: tables alone rebuild a rig, and it drains as it did.</summary>
    [Fact]
    public void Sizes_ports_and_positions_go_through_tables_too()
    {
        foreach (string name in (string[])["sparrow", "tern", "lantern"])
        {
            var rig = RigFile.Read(File.ReadAllBytes(Path.Combine(Host.Root, $"demo/{name}.json")));
            var bare = rig with { Parts = [], Runs = [], ByHand = [], Scenarios = [.. rig.Scenarios.Select(s => s with { Settings = [] })], Plans = [] };
            var back = Taken(Taken(bare, RigTableText.Write(RigTables.Parts(rig))), RigTableText.Write(RigTables.Runs(rig)));
            // Its ids come from its names, and with them the order.
            static IEnumerable<string> Lines(Rig r) => RigTableText.Write(RigTables.Parts(r)).Split('\n').Order(StringComparer.Ordinal);
            Assert.Equal(Lines(rig), Lines(back));
            static double Stays(Rig r) => new Core.Studies.Question(r, Core.Studies.Conditions.Of(r.Brief))
                .Ask(Core.Studies.DrainDown.DrainDownStudy.Ask).Runs.Sum(x => x.StaysL);
            Assert.Equal(Stays(rig with { ByHand = [] }), Stays(back), 0.0005);
        }
    }

    [Fact]
    public void What_has_its_name_already_is_moved_not_made_again()
    {
        var same = Taken(Full, RigTableText.Write(RigTables.Parts(Full)));
        Assert.Equal((Full.Parts.Count, RigTableText.Write(RigTables.Parts(Full))), (same.Parts.Count, RigTableText.Write(RigTables.Parts(same))));
        var moved = Taken(Full, "name;stock;from rear (in);from kerb;above floor\nPUMP;pump;30;1,05 m;9 in");
        Assert.Equal(new Point3(0.762, 1.05, 0.2286), moved.Parts.Find("pump")!.Box.At);
        Assert.Equal(Full.Parts.Count, moved.Parts.Count);
    }

    [Fact]
    public void Bad_rows_are_told_by_line_and_column_and_good_ones_taken()
    {
        string table = string.Join('\n',
            "name,stock,from rear,from kerb,above floor,turned",
            "good tap,mixer,2000,1400,900,1",
            ",mixer,1,1,1,",
            "odd,mixr,1,1,1,",
            "far,mixer,2 kg,1,,",
            "turned,mixer,1,1,1,7",
            "away,mixer,900 m,1,1,",
            "\"quoted, tap\",cold tap,2.1 m,1.4 m,0.9 m,");
        var read = RigTableText.Read(Bare, table, UnitSystem.Metric);
        Assert.Equal(["good tap", "quoted, tap"], read.Edits.Cast<PlacePart>().Select(p => p.Name));
        Assert.Equal(
            [(3, "name"), (4, "stock"), (5, "above floor"), (5, "from rear"), (6, "turned"), (7, null)],
            read.Faults.Select(f => (f.Line, f.Column)).OrderBy(f => f.Line).ThenBy(f => f.Column, StringComparer.Ordinal));
        Assert.Contains("did you mean mixer", read.Faults.Single(f => f.Column == "stock").Reason, StringComparison.Ordinal);
        Assert.Equal("2 parts from a table", read.Words.Text);
    }

    [Fact]
    public void A_run_with_one_bad_line_is_left_out_whole()
    {
        string table = string.Join('\n',
            "run\tcarries\tpipe\tpart\tport\tfrom rear\tfrom kerb\tabove floor",
            "new cold\tcold\tpex-1/2\ttee-cold\tc\t\t\t",
            "\t\t\t\t\t1 m\t1 m\t300",
            "\t\t\t\t\t1.5 m\t1 m\t310",
            "bad\twet\tpex-9\tcold tee\tz\t\t\t",
            "bad\t\t\tno such\tin\t\t\t",
            "short\tcold\tpex-1/2\tcold tee\tc\t\t\t");
        var full = Full with { Parts = [.. Full.Parts.Select(p => p.Id == "tee-cold" ? p with { Name = "tee-cold" } : p)] };
        var read = RigTableText.Read(full, table, UnitSystem.Metric);
        var add = Assert.IsType<AddThing>(Assert.Single(read.Edits));
        Assert.Equal("new-cold", (string?)add.Value["id"]);
        Assert.Equal(["carries", "pipe", "part", "part", null, "part"], read.Faults.Select(f => f.Column));
        Assert.Equal([5, 5, 5, 6, 7, 7], read.Faults.Select(f => f.Line).Order());
        var made = Editor.Apply(full, read.Edits).Rig.Runs.Find("new-cold")!;
        Assert.Equal((1, 1.5, true), (made.Bends.Count, made.To.At!.Value.XM, made.To.IsLoose()));
    }

    [Theory]
    [InlineData("")]
    [InlineData("hello")]
    [InlineData("name,what\na,b")]
    [InlineData("\"unclosed")]
    public void What_is_no_table_is_told(string text)
    {
        var read = RigTableText.Read(Bare, text, UnitSystem.Metric);
        Assert.Empty(read.Edits);
        Assert.Contains(read.Faults, f => f.Reason.Contains("name the columns", StringComparison.Ordinal));
    }

    [Fact]
    public void A_name_that_a_spreadsheet_would_work_out_is_written_as_text()
    {
        foreach (string name in (string[])["=1+1", "\t=1+1", "@x"])
        {
            var rig = Editor.Apply(Bare, [new PlacePart("x", "tee", name, default)]).Rig;
            Assert.Contains($"'{name}", RigTableText.Write(RigTables.Parts(rig)), StringComparison.Ordinal);
            Assert.Equal(name, Taken(Bare, RigTableText.Write(RigTables.Parts(rig))).Parts.Single().Name);
        }
    }
}
