using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;

namespace WarmConduit.Core.Levels;

/// <summary>
/// A pipe full of water between clips. Diameters in m, densities kg/m³, elastic modulus Pa (warm pipe is softer). Simply supported at the clips: on the safe
/// side, since a pipe that runs through a clip sags about a fifth of this.
/// </summary>
public readonly record struct ClippedPipe(double InnerDiameterM, double OuterDiameterM, double PipeKgPerM3, double WaterKgPerM3, double ElasticModulusPa)
{
    private const double Gravity = TradeConstants.GravityMPerS2;

    /// <summary>A pipe of the catalogue full of cool water; warm pipe is softer.</summary>
    public static ClippedPipe Of(PipeStock pipe, bool warm) =>
        new(pipe.InnerDiameterM, pipe.OuterDiameterM, pipe.DensityKgPerM3, Water.DensityKgPerM3(10), warm ? pipe.ModulusWarmPa : pipe.ModulusColdPa);

    /// <summary>Weight of pipe and water, N/m.</summary>
    public double WeightNPerM()
    {
        double bore = InnerDiameterM * InnerDiameterM, wall = OuterDiameterM * OuterDiameterM - bore;
        return Gravity * Math.PI / 4 * (bore * WaterKgPerM3 + wall * PipeKgPerM3);
    }

    /// <summary>Bending stiffness EI, N·m².</summary>
    public double StiffnessNM2() => ElasticModulusPa * Math.PI / 64 * (Math.Pow(OuterDiameterM, 4) - Math.Pow(InnerDiameterM, 4));

    /// <summary>Sag at the middle of a span, m: 5 w s⁴/(384 EI).</summary>
    public double SagM(double spanM) => 5 * WeightNPerM() * Math.Pow(spanM, 4) / (384 * StiffnessNM2());

    /// <summary>Slope at the clip, m/m: w s³/(24 EI). A span pools when it exceeds the fall.</summary>
    public double EndSlope(double spanM) => WeightNPerM() * Math.Pow(spanM, 3) / (24 * StiffnessNM2());

    /// <summary>Widest spacing, m, at which a line of <paramref name="fall"/> (m/m) still runs dry: (24 EI i/w)^⅓.</summary>
    public double SpacingForFallM(double fall) => Math.Cbrt(24 * StiffnessNM2() * fall / WeightNPerM());

    /// <summary>
    /// <paramref name="edge"/> as it hangs: every straight length from <paramref name="from"/> to <paramref name="to"/> through its bends is held at both ends
    /// and by clips no farther apart than <paramref name="spacingM"/>, and sags between them. The curve is drawn with <paramref name="pointsASpan"/> points,
    /// and pools like any other course. O(points). Throws <see cref="LevelNetworkException"/> naming the edge for a pipe or a course that is none.
    /// </summary>
    public LevelEdge Sagged(LevelEdge edge, Point3 from, Point3 to, double spacingM, int pointsASpan = 7)
    {
        if (!(spacingM > 0)) throw new LevelNetworkException(edge.Id, "the distance between clips must be above 0");
        if (pointsASpan is < 1 or > 1000) throw new LevelNetworkException(edge.Id, "the number of points must be from 1 to 1000");
        if (!(WeightNPerM() >= 0 && StiffnessNM2() > 0) || !double.IsFinite(WeightNPerM() + StiffnessNM2()))
            throw new LevelNetworkException(edge.Id, "its pipe must have a mass, a wall and an elastic modulus above 0");
        Point3[] course = [from, .. edge.Via, to];
        if (!course.All(LevelGraph.IsNear)) throw new LevelNetworkException(edge.Id, "its course must be finite numbers");
        var via = new List<Point3>();
        for (int k = 0; k + 1 < course.Length; k++)
        {
            var (a, b) = (course[k], course[k + 1]);
            double length = a.DistanceM(b), flat = Math.Sqrt(Math.Pow(a.XM - b.XM, 2) + Math.Pow(a.YM - b.YM, 2));
            if (length / spacingM > 10_000) throw new LevelNetworkException(edge.Id, "at most 10,000 clips on one length");
            int spans = Math.Max(1, (int)Math.Ceiling(length / spacingM - 1e-9));
            // Only the weight across the pipe bends it: an upright one does not sag.
            double sag = length > 0 ? SagM(length / spans) * flat / length : 0;
            for (int s = 0; s < spans; s++)
            {
                for (int i = 1; i <= pointsASpan && sag > 0; i++)
                {
                    double u = (double)i / (pointsASpan + 1), w = 16.0 / 5 * u * (1 - 2 * u * u + u * u * u);
                    via.Add(a.Towards(b, (s + u) / spans) - new Point3(0, 0, sag * w));
                }
                if (s + 1 < spans || k + 2 < course.Length) via.Add(s + 1 < spans ? a.Towards(b, (s + 1.0) / spans) : b);
            }
        }
        return edge with { Via = via };
    }
}
