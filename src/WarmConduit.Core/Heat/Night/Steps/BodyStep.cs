namespace WarmConduit.Core.Heat.Night;

/// <summary>
/// Exact answer of C dT/dt = G (Te - T) over a step in which Te goes linearly from Te0 to Te1, x = G·step/C:
/// T1 = E T0 + Start Te0 + End Te1, and its mean Phi T0 + MeanStart Te0 + MeanEnd Te1.
/// </summary>
internal readonly record struct BodyStep(double E, double Start, double End, double Phi, double MeanStart, double MeanEnd)
{
    public static BodyStep Of(double x)
    {
        if (x < 1e-4)
        {
            // Taylor: the closed forms lose their digits here.
            double phi0 = 1 - x / 2 + x * x / 6, end0 = x * (0.5 - x / 6), start0 = x * (0.5 - x / 3);
            return new BodyStep(1 - x + x * x / 2, start0, end0, phi0, x * (1.0 / 3 - x / 8), x * (1.0 / 6 - x / 24));
        }
        double e = Math.Exp(-x), phi = (1 - e) / x;
        return new BodyStep(e, phi - e, 1 - phi, phi, 0.5 - (phi - e) / x, 0.5 - (1 - phi) / x);
    }
}
