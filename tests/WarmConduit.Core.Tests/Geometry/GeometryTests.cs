using CsCheck;
using WarmConduit.Core.Geometry;

namespace WarmConduit.Core.Tests.Geometry;

public class GeometryTests
{
    private static readonly Gen<Point3> Place = Gen.Select(Gen.Double[-5, 5], Gen.Double[-5, 5], Gen.Double[-5, 5], (x, y, z) => new Point3(x, y, z));

    [Fact]
    public void Nose_up_raises_the_cab_and_roll_raises_the_side_away_from_the_kerb()
    {
        var cab = new Point3(3, 0, 0.2);
        var far = new Point3(0, 2, 0.2);
        Assert.True(new Attitude(2, 0).HeightM(cab) > 0.2 && new Attitude(2, 0).HeightM(far) == 0.2);
        Assert.True(new Attitude(0, 2).HeightM(far) > 0.2 && new Attitude(0, 2).HeightM(cab) == 0.2);
        Assert.Equal(0.2 + 3 * Math.Tan(2 * Math.PI / 180), new Attitude(2, 0).HeightM(cab), 12);
        Assert.Equal(0.2, Attitude.Level.HeightM(cab));
    }

    [Fact]
    public void A_point_on_the_way_is_as_far_as_it_says() => Gen.Select(Place, Place, Gen.Double[0, 1]).Sample((a, b, t) =>
    {
        var p = a.Towards(b, t);
        Assert.Equal(t * a.DistanceM(b), a.DistanceM(p), 1e-9);
        Assert.Equal(a.DistanceM(b), a.DistanceM(p) + p.DistanceM(b), 1e-9);
        Assert.Equal(a.DistanceM(b), b.DistanceM(a), 1e-12);
    });

    [Fact]
    public void A_box_holds_its_corners_its_middle_and_nothing_beyond()
    {
        var box = new Box(new Point3(1, 2, 3), new Point3(0.5, 0.25, 2));
        Assert.True(box.Holds(box.At) && box.Holds(box.Far()) && box.Holds(box.Centre()));
        Assert.False(box.Holds(box.At - new Point3(0.001, 0, 0)));
        Assert.False(box.Holds(box.Far() + new Point3(0, 0, 0.001)));
        Assert.Equal(0.25, box.VolumeM3(), 12);
    }
}
