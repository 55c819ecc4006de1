using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Rigs.Words;
using WarmConduit.Core.Tests.Studies;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Tests.Rigs;

public class PlaceWordsTests
{
    private static readonly Rig Van = new RigBuilder().Tank("tank", new Box(new(0, 0, 0.5), new(0.5, 0.5, 0.2)), ("outlet", 0.5, 0.25, 0.5),
        ("vent", 0, 0, 0.69)).Build();

    private static PlaceRead Read(string text, UnitSystem system = UnitSystem.Metric) => PlaceWords.Read(Van, text, system, "new", "new-run");

    [Fact]
    public void A_part_is_placed_and_joined_in_words()
    {
        var read = Read("place cold tap at 1.2 m, 10 in, 400 joining tank outlet");
        Assert.Equal("cold tap: 1200 mm from the rear, 254 mm from the kerb, 400 mm above the floor; PEX 1/2 in from tank outlet to its cold",
            read.Understood!.Print(UnitSystem.Metric));
        var made = Editor.Apply(Van, read.Edits).Rig;
        Assert.Equal(new Point3(1.2, 0.254, 0.4), made.Parts.Find("new")!.Box.At);
        Assert.Equal((new RunEnd("tank", "outlet"), new RunEnd("new", "cold"), Service.Cold),
            (made.Runs.Find("new-run")!.From, made.Runs.Find("new-run")!.To, made.Runs.Find("new-run")!.Service));
        Assert.Equal(48 * 0.0254, ((PlacePart)Read("cold tap at 48, 10, 0", UnitSystem.UsCustomary).Edits[0]).At.XM, 9);
        // A vent carries air.
        Assert.Equal(Service.Vent, Editor.Apply(Van, Read("vent with insect mesh at 0, 0, 1 m joining tank vent").Edits).Rig.Runs[0].Service);
    }

    [Fact]
    public void What_is_not_all_there_yet_is_completed()
    {
        Assert.Contains("place cold tap at ", Read("place cold").Next);
        Assert.Equal(["place cold tap at 1, 2, 3 joining "], Read("place cold tap at 1, 2, 3").Next);
        Assert.Equal(["cold tap at 1, 2, 3 joining tank outlet", "cold tap at 1, 2, 3 joining tank vent"],
            Read("cold tap at 1, 2, 3 joining tank ").Next.Order());
        Assert.Null(Read("cold tap at 1, 2").Understood);
    }

    [Theory]
    [InlineData("place flywheel at 1, 2, 3", 6, "nothing of that name")]
    [InlineData("ball valve at 1, 2, 3", 0, "that could be ball valve 15 mm, ball valve 22 mm")]
    [InlineData("cold tap at 1, 2 bar, 3", 14, "")]
    [InlineData("cold tap at 1, 2, 3, 4", 12, "three lengths")]
    [InlineData("cold tap at 1, 2, 3 joining the moon", 28, "no part has a free port")]
    public void What_is_not_understood_is_said_with_its_place(string text, int position, string said)
    {
        var e = Assert.Throws<QuantityFormatException>(() => Read(text));
        Assert.Contains(said, e.Message, StringComparison.Ordinal);
        Assert.InRange(e.Position, position, position + 3);
    }
}
