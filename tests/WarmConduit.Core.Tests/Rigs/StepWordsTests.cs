using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Words;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Tests.Rigs;

public class StepWordsTests
{
    private static readonly Shell Van = new(new Box(default, new(3, 1.7, 1.8)),
        [new Obstacle("arch", "arch", ObstacleKind.WheelArch, new Box(new(1, 0, 0), new(0.8, 0.3, 0.3)))], [], [], []);
    private static readonly Point3 From = new(2, 0.1, 0.5), Towards = new(1, 0.1, 0.5);

    [Theory]
    [InlineData("rear 1.2 m", 0.8, 0.1, 0.5)]
    [InlineData("rear 1.2 m, fall 2 %", 0.8, 0.1, 0.476)]
    [InlineData("rear 1 m far 50 cm rise 1/4 in/ft", 1, 0.6, 0.5312)]
    [InlineData("up 12 in", 2, 0.1, 0.8048)]
    [InlineData("400", 1.6, 0.1, 0.5)]
    [InlineData("60 cm fall 2%", 1.4, 0.1, 0.488)]
    [InlineData("height 350 mm", 1, 0.1, 0.35)]
    [InlineData("clear 20mm", 1, 0.1, 0.32)]
    [InlineData("forward 0.5 m clear 20 mm", 2.5, 0.1, 0.02)]
    [InlineData("fall 1 %", 1, 0.1, 0.49)]
    [InlineData("rear 1.2", 0.8, 0.1, 0.5)]
    [InlineData("4.2 m, 0.2 m, 0.30 m", 4.2, 0.2, 0.3)]
    [InlineData("at 4.2, 0.2, 0.3", 4.2, 0.2, 0.3)]
    [InlineData("at 4, 0.2, 0.3", 4, 0.2, 0.3)]
    [InlineData("4.2 m, 0.2, 0.3", 4.2, 0.2, 0.3)]
    [InlineData("at 4200, 200, 300", 4.2, 0.2, 0.3)]
    [InlineData("at 4,2; 0,2; 0,3", 4.2, 0.2, 0.3)]
    public void Words_lead_to_a_point(string text, double x, double y, double z) =>
        Assert.Equal(new Point3(x, y, z), StepWords.Read(text, From, Towards, Van, UnitSystem.Metric, []).At);

    [Fact]
    public void A_port_is_ended_on_by_its_name()
    {
        PortName[] ports = [new("fresh tank outlet", "fresh", "outlet", new Point3(1, 1, 0.1)), new("fresh tank vent", "fresh", "vent", new Point3(1, 1, 0.4))];
        Assert.Equal("outlet", StepWords.Read("to fresh tank OUT", From, Towards, Van, UnitSystem.Metric, ports).To!.Port);
        Assert.Equal(["to fresh tank outlet", "to fresh tank vent"], StepWords.Read("to fresh", From, Towards, Van, UnitSystem.Metric, ports).Next);
        Assert.Throws<QuantityFormatException>(() => StepWords.Read("to the moon", From, Towards, Van, UnitSystem.Metric, ports));
    }

    [Fact]
    public void What_was_understood_is_said_back()
    {
        Assert.Equal("1200 mm on, to 476 mm above the floor, falling 2.0%",
            StepWords.Read("rear 1.2 m fall 2 %", From, Towards, Van, UnitSystem.Metric, []).Understood.Print(UnitSystem.Metric));
        Assert.EndsWith(", level", StepWords.Read("24", From, Towards, Van, UnitSystem.UsCustomary, []).Understood.Print(UnitSystem.UsCustomary),
            StringComparison.Ordinal);
        Assert.Equal(2 - 24 * 0.0254, StepWords.Read("24", From, Towards, Van, UnitSystem.UsCustomary, []).At.XM, 4);
    }

    [Theory]
    [InlineData("", 0, "a direction and a length")]
    [InlineData("sideways 3 m", 0, "sideways")]
    [InlineData("rear", 0, "after rear comes a length")]
    [InlineData("rear 1 m fall lots", 9, "after fall comes a share")]
    [InlineData("rear 1 m fall", 9, "after fall comes a share")]
    [InlineData("up 3 kg", 3, "")]
    [InlineData("at 1 m, 2 m", 3, "three lengths")]
    [InlineData("1 m, 2 kg, 3 m", 3, "")]
    public void What_is_not_understood_is_told_at_its_place(string text, int position, string reason)
    {
        var refused = Assert.Throws<QuantityFormatException>(() => StepWords.Read(text, From, Towards, Van, UnitSystem.Metric, []));
        Assert.Contains(reason, refused.Message, StringComparison.Ordinal);
        Assert.InRange(refused.Position, position, text.Length);
    }

    [Fact]
    public void Words_are_completed()
    {
        Assert.Equal(["forward", "far", "fall"], StepWords.After("rear 1 m, f").Select(w => w.Word));
        Assert.Empty(StepWords.After("rear"));
        Assert.Equal(StepWords.All, StepWords.After(""));
    }
}
