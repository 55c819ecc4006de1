using WarmConduit.Core.Materials;

namespace WarmConduit.Core.Flow;

/// <summary>Head lost along a pipe. Closed forms, O(1).</summary>
public static class Friction
{
    /// <summary>Standard gravity, m/s².</summary>
    public const double Gravity = TradeConstants.GravityMPerS2;

    /// <summary>
    /// Darcy friction factor in every regime: Churchill (1977), 8 [(8/Re)^12 + 1/(A + B)^1.5]^(1/12), <paramref name="roughness"/> relative to the bore. Re
    /// above 0. Within some 5 % of measurement outside the transition.
    /// </summary>
    public static double Churchill(double reynolds, double roughness)
    {
        // Below this the turbulent part is less than a rounding error, and its powers overflow.
        if (reynolds < 100) return 64 / reynolds;
        double a = Square(Square(Square(Square(2.457 * Math.Log(1 / (Math.Pow(7 / reynolds, 0.9) + 0.27 * roughness))))));
        double b = Square(Square(Square(Square(37530 / reynolds))));
        double laminar = Square(8 / reynolds) * (8 / reynolds), sum = a + b;
        return 8 * Math.Pow(Square(Square(laminar)) + 1 / (sum * Math.Sqrt(sum)), 1.0 / 12);
    }

    private static double Square(double x) => x * x;

    /// <summary>Head lost alone, m, at <paramref name="q"/> m³/s: what <see cref="Pipe"/> gives, at less than half the cost.</summary>
    public static double PipeLossM(double q, double lengthM, double boreM, double roughnessM, double minorLoss, double density, double viscosity)
    {
        double area = Math.PI / 4 * boreM * boreM, speed = Math.Abs(q) / area, reynolds = density * speed * boreM / viscosity;
        double f = reynolds > 0 ? Churchill(reynolds, roughnessM / boreM) : 0;
        double friction = reynolds < 100 ? 128 * viscosity * lengthM / (Math.PI * density * Gravity * Square(boreM * boreM)) * q
            : f * lengthM / boreM * speed * speed / (2 * Gravity) * Math.Sign(q);
        return friction + minorLoss * speed * speed / (2 * Gravity) * Math.Sign(q);
    }

    /// <summary>
    /// Head lost, m, and its slope over flow, s/m², at <paramref name="q"/> m³/s (either sign). At rest the slope is that of laminar flow, never 0.
    /// </summary>
    public static (double LossM, double Slope) Pipe(double q, double lengthM, double boreM, double roughnessM, double minorLoss, double density,
        double viscosity)
    {
        double area = Math.PI / 4 * boreM * boreM, speed = Math.Abs(q) / area;
        double laminar = 128 * viscosity * lengthM / (Math.PI * density * Gravity * Math.Pow(boreM, 4));
        double minor = minorLoss / (2 * Gravity * area * area);
        double reynolds = density * speed * boreM / viscosity;
        if (reynolds < 100) return (laminar * q + minor * q * Math.Abs(q), laminar + 2 * minor * Math.Abs(q) + 1e-9);
        double rel = roughnessM / boreM, f = Churchill(reynolds, rel);
        // Slope of f by a small step: its closed form is long and no faster.
        const double step = 1e-5;
        double df = (Churchill(reynolds * (1 + step), rel) - f) / step;
        double perSquare = lengthM / (boreM * 2 * Gravity * area * area);
        return ((f * perSquare + minor) * q * Math.Abs(q), ((2 * f + df) * perSquare + 2 * minor) * Math.Abs(q));
    }

    /// <summary>
    /// What a valve of <paramref name="loss"/> velocity heads loses: the first figure times q|q| and the second times q, m at m³/s. The second is a trace of
    /// laminar loss, that of a tenth of a metre of its own bore, so that a wide open valve at rest has a slope.
    /// </summary>
    internal static (double PerSquare, double PerFlow) Valve(double loss, double boreM, double density, double viscosity) =>
        (loss / (2 * Gravity * Square(Math.PI / 4 * boreM * boreM)), 12.8 * viscosity / (Math.PI * density * Gravity * Square(boreM * boreM)));
}
