using CsCheck;
using WarmConduit.Core.Geometry;

namespace WarmConduit.Core.Tests.Geometry;

/// <summary>A wall as a camera sees it.</summary>
public class HomographyTests
{
    [Fact]
    public void Corners_go_to_corners_and_straight_lines_stay_straight() =>
        Gen.Select(Gen.Double[-0.2, 0.2], Gen.Double[-0.2, 0.2], Gen.Double[-0.2, 0.2], Gen.Double[0.1, 0.9]).Sample((a, b, c, t) =>
        {
            (double X, double Y)[] corners = [(a, b), (1 + b, c), (1 + c, 1 + a), (c, 1 - b)];
            var seen = Homography.FromUnitSquare(corners)!;
            (double, double)[] square = [(0, 0), (1, 0), (1, 1), (0, 1)];
            for (int i = 0; i < 4; i++)
            {
                var (x, y) = seen.At(square[i].Item1, square[i].Item2)!.Value;
                Assert.Equal(corners[i].X, x, 1e-9);
                Assert.Equal(corners[i].Y, y, 1e-9);
            }
            // A point on the upper edge lies between its ends.
            var on = seen.At(t, 0)!.Value;
            Assert.Equal(0, (corners[1].X - corners[0].X) * (on.Y - corners[0].Y) - (corners[1].Y - corners[0].Y) * (on.X - corners[0].X), 1e-9);
        });

    [Fact]
    public void Three_in_a_line_and_corners_that_cross_are_no_wall()
    {
        Assert.Null(Homography.FromUnitSquare([(0, 0), (0.5, 0), (1, 0), (0, 1)]));
        Assert.Null(Homography.FromUnitSquare([(0, 0), (1, 1), (1, 0), (0, 1)]));
    }
}
