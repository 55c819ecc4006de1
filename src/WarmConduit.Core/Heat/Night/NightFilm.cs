namespace WarmConduit.Core.Heat.Night;

/// <summary>
/// A conductance that ends in a surface film, for one unit of its size: how much goes through hangs on the wind, and in still air on how far the two sides are
/// apart. Evaluated anew in every step. Both kinds never fall as the wind rises, and what they let through never falls as the difference grows.
/// </summary>
public abstract record NightFilm
{
    /// <summary>
    /// W/K between <paramref name="innerC"/> and air of <paramref name="airC"/>, °C, in a wind of <paramref name="windMPerS"/>. <paramref name="surfaceShare"/>
    /// (0..1) is where the surface lies between air and inside: a guess that comes in, and the answer that goes out. O(1).
    /// </summary>
    public abstract double WPerK(double innerC, double airC, double windMPerS, ref double surfaceShare);

    /// <summary>More than it can ever be in a wind of up to <paramref name="windMPerS"/>, W/K.</summary>
    public abstract double MostWPerK(double windMPerS);

    /// <summary>Checks its numbers; throws <see cref="HeatNetworkException"/> naming <paramref name="place"/>.</summary>
    internal abstract void Check(string place);
}

/// <summary>A metre of pipe: <paramref name="InnerMKPerW"/> from its water to its outermost surface of <paramref name="DiameterM"/>, the film of ISO 12241 on
/// that, of which <paramref name="WindShare"/> (0..1) is in the wind.</summary>
public sealed record CylinderFilm(double DiameterM, double InnerMKPerW, double Emissivity, double WindShare) : NightFilm
{
    private const double LeastK = 1e-3, WithinShare = 1e-4;
    private const int MostRounds = 20;

    /// <inheritdoc/>
    public override double WPerK(double innerC, double airC, double windMPerS, ref double surfaceShare)
    {
        // At equal temperatures the ratio is still wanted: a thousandth of a kelvin stands in for the difference.
        double difference = innerC - airC;
        if (Math.Abs(difference) < LeastK) difference = LeastK;
        double blown = SurfaceCoefficient.WindOnCylinderWPerM2K(DiameterM, WindShare * windMPerS), outside = 0;
        for (int round = 0; round < MostRounds; round++)
        {
            double over = surfaceShare * difference;
            double h = Math.Max(SurfaceCoefficient.StillCylinderWPerM2K(DiameterM, over), blown)
                + SurfaceCoefficient.RadiationWPerM2K(airC + over, airC, Emissivity);
            outside = 1 / (h * Math.PI * DiameterM);
            double share = outside / (outside + InnerMKPerW);
            bool settled = Math.Abs(share - surfaceShare) < WithinShare;
            surfaceShare = share;
            if (settled) break;
        }
        return 1 / (outside + InnerMKPerW);
    }

    /// <inheritdoc/>
    public override double MostWPerK(double windMPerS)
    {
        double share = 1;
        return WPerK(100, 0, windMPerS, ref share);
    }

    /// <inheritdoc/>
    internal override void Check(string place)
    {
        HeatNumbers.Positive(place, "diameter", DiameterM);
        HeatNumbers.NotNegative(place, "resistance under its film", InnerMKPerW);
        HeatNumbers.NotNegative(place, "emissivity", Emissivity);
        HeatNumbers.NotNegative(place, "share of the wind", WindShare);
    }
}

/// <summary>
/// A square metre behind <paramref name="ResistanceM2KPerW"/>, with the outer film of ISO 6946 in <paramref name="WindShare"/> (0..1) of the wind. <paramref
/// name="SkyView"/> (0..1): how much of the sky it sees, for what a zone loses to outdoors.
/// </summary>
public sealed record WallFilm(double ResistanceM2KPerW, double WindShare, double SkyView = 0) : NightFilm
{
    /// <summary>Emissivity of painted outer faces.</summary>
    public const double Emissivity = 0.9;

    /// <inheritdoc/>
    public override double WPerK(double innerC, double airC, double windMPerS, ref double surfaceShare) =>
        1 / (ResistanceM2KPerW + 1 / SurfaceCoefficient.OuterWallWPerM2K(WindShare * windMPerS, Emissivity, airC));

    /// <summary>How much colder than the air outdoors is to it under a sky of <paramref name="skyC"/>, K (0 or less).</summary>
    public double SkyShiftK(double airC, double skyC, double windMPerS) => SkyView == 0 ? 0
        : OuterFace.ShiftK(airC, skyC, SkyView, WindShare * windMPerS, Emissivity);

    /// <inheritdoc/>
    public override double MostWPerK(double windMPerS)
    {
        double share = 1;
        return WPerK(0, 40, windMPerS, ref share);
    }

    /// <inheritdoc/>
    internal override void Check(string place)
    {
        HeatNumbers.NotNegative(place, "resistance under its film", ResistanceM2KPerW);
        HeatNumbers.NotNegative(place, "share of the wind", WindShare);
        HeatNumbers.NotNegative(place, "view of the sky", SkyView);
    }
}

/// <summary>So much of a film: m of a cylinder, m² of a wall.</summary>
public readonly record struct NightFilmed(NightFilm Film, double Size);
