using System.Text;
using System.Text.Json.Nodes;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Tests.Rigs;

/// <summary>Files of older versions.</summary>
public class UpgradeTests
{
    private static readonly byte[] First = File.ReadAllBytes(Path.Combine(AppContext.BaseDirectory, "Data", "sparrow-v1.json"));

    private static RigFault Refused(Action<JsonNode> spoil)
    {
        var root = JsonNode.Parse(First)!;
        spoil(root);
        return Assert.Throws<RigFileException>(() => RigFile.Read(Encoding.UTF8.GetBytes(root.ToJsonString()))).Faults[0];
    }

    [Fact]
    public void A_file_of_version_1_is_the_rig_it_was()
    {
        var rig = RigFile.Read(First);
        Assert.Equal(RigFile.Write(Upgraded.Bare(RigFileTests.Sparrow.Unheated())), RigFile.Write(rig));
        Assert.Equal(104, rig.Brief.HoursWithoutHeat);
        // One drained state is the drain scenario; what was taken to be emptied by hand is a list.
        var drain = rig.ScenarioOf(ScenarioKind.Drain);
        Assert.Equal(Positions.HalfOpen, drain.PositionOf(rig.Parts.Find("valve-bypass")!)!.Id);
        Assert.Equal(Positions.Open, drain.PositionOf(rig.Parts.Find("drain-a")!)!.Id);
        Assert.Equal(Positions.Closed, rig.ScenarioOf(ScenarioKind.InUse).PositionOf(rig.Parts.Find("drain-a")!)!.Id);
        Assert.Equal(Positions.On, rig.ScenarioOf(ScenarioKind.InUse).PositionOf(rig.Parts.Find("pump")!)!.Id);
        Assert.Equal(["filter", "pump", "strainer"], rig.ByHand.Select(h => h.Id));
        Assert.Equal(6, rig.Scenarios.Count);
        Assert.Empty(rig.Prices);
        // Bends have ids in the order of flow.
        Assert.All(rig.Runs, r => Assert.Equal(r.Bends.Select((_, i) => $"b{i + 1}"), r.Bends.Select(b => b.Id)));
    }

    [Theory]
    [InlineData(0, 0)]
    [InlineData(1, 8)]
    [InlineData(3, 56)]
    public void Nights_without_heat_become_hours(int nights, double hours)
    {
        var root = JsonNode.Parse(First)!;
        root["brief"]!["nightsWithoutHeat"] = nights;
        Assert.Equal(hours, RigFile.Read(Encoding.UTF8.GetBytes(root.ToJsonString())).Brief.HoursWithoutHeat);
    }

    [Fact]
    public void A_file_that_is_not_as_its_version_has_it_is_refused_at_the_place()
    {
        Assert.Equal("scenarios", Refused(r => r["scenarios"] = new JsonArray()).Path);
        Assert.Equal("brief.nightsWithoutHeat", Refused(r => r["brief"]!["nightsWithoutHeat"] = "two").Path);
        Assert.Equal("parts[2].whenDrained", Refused(r => r["parts"]![2]!["whenDrained"] = "ajar").Path);
        Assert.Equal("runs[1].via", Refused(r => r["runs"]![1]!["via"] = 3).Path);
        Assert.Equal("runs", Refused(r => r.AsObject().Remove("runs")).Path);
        Assert.Equal("shell.zones[0].faces[1].id", Refused(r => r["shell"]!["zones"]![0]!["faces"]![1]!["id"] = "mine").Path);
        var newer = Refused(r => r["formatVersion"] = 3);
        Assert.Equal("formatVersion", newer.Path);
        Assert.Contains("version 3", newer.Reason, StringComparison.Ordinal);
        // Rules that came later bind new files, whatever their version.
        Assert.EndsWith("holdsL", Refused(r => r["parts"]![0]!["holdsL"] = 0).Path);
    }
}
