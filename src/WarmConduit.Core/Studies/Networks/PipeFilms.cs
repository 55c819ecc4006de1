using System.Collections.Concurrent;
using WarmConduit.Core.Heat;
using WarmConduit.Core.Heat.Night;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.Networks;

/// <summary>What a metre of each kind of pipe loses, as films that follow the air and the wind. Kinds are few, pieces are many, so each is worked out once.
/// Safe to share between threads.</summary>
internal sealed class PipeFilms
{
    // Between two lines that lie side by side and are a few kelvin apart.
    private const double NearC = 5;

    private readonly ConcurrentDictionary<(string Pipe, Sleeve? Sleeve, bool Windy, Bundle? Bundle), NightFilmed[]> _known = [];

    /// <summary>The films of a metre: of what is covered, and of gaps that lie bare. <paramref name="windy"/>: outdoors, or under the floor in the
    /// wind; <paramref name="bundle"/>: with what the sleeve goes around it; null: it alone.</summary>
    public IReadOnlyList<NightFilmed> Of(PipeStock pipe, Sleeve? sleeve, bool windy, Bundle? bundle = null) =>
        _known.GetOrAdd((pipe.Id, sleeve, windy, bundle), _ => Made(pipe, sleeve, windy, bundle));

    /// <summary>Resistance from the water at <paramref name="waterC"/> to the air, mK/W.</summary>
    public double ResistanceMKPerW(PipeStock pipe, Sleeve? sleeve, bool windy, double waterC, double airC, double windMPerS, Bundle? bundle = null)
    {
        double share = 0.5;
        return 1 / Of(pipe, sleeve, windy, bundle).Sum(f => f.Size * f.Film.WPerK(waterC, airC, windMPerS, ref share));
    }

    /// <summary>The same in still air that is hardly colder.</summary>
    public double StillResistanceMKPerW(PipeStock pipe, Sleeve? sleeve) => ResistanceMKPerW(pipe, sleeve, false, NearC, 0, 0);

    /// <summary>Resistance of a sleeve around <paramref name="innerM"/> metres, mK/W; 0 where there is none.</summary>
    public static double SleeveMKPerW(double innerM, Sleeve? sleeve) => sleeve is not { ThicknessM: > 0 } ? 0
        : Math.Log((innerM + (2 * sleeve.AllM())) / innerM) / (2 * Math.PI * PipeSection.AsOneLayer(innerM, Layered.Of(sleeve)));

    /// <summary>Whether air in a zone (null: outdoors) moves with the wind.</summary>
    public static bool InWind(Zone? zone) => zone is null || ZoneBalance.InWind(zone);

    private NightFilmed[] Made(PipeStock pipe, Sleeve? sleeve, bool windy, Bundle? bundle)
    {
        var bare = new PipeSection(pipe.InnerDiameterM, pipe.OuterDiameterM, pipe.ConductivityWPerMK);
        if (sleeve is null or { ThicknessM: 0 }) return [new(new CylinderFilm(bare.SurfaceDiameterM(), bare.WallResistanceMKPerW(), bare.Emissivity,
            windy ? 1 : 0), 1)];
        // Of a common sleeve each line has its share, behind its own wall.
        var (innerM, part) = bundle is { } both ? (both.DiameterM, both.Share) : (pipe.OuterDiameterM, 1);
        var film = new CylinderFilm(innerM + (2 * sleeve.AllM()), SleeveMKPerW(innerM, sleeve) + (part * bare.WallResistanceMKPerW()), bare.Emissivity,
            windy ? 1 : 0);
        // Side by side: what is covered, and what lies bare.
        return sleeve is { GapShare: > 0 and var gaps } ? [new(film, part * (1 - gaps)), new(Of(pipe, null, windy)[0].Film, gaps)] : [new(film, part)];
    }
}

/// <summary>What a common sleeve goes around, as a pipe in it sees it.</summary>
/// <param name="DiameterM">Diameter of the circle that is as long as the way around the bundle, m.</param>
/// <param name="Share">Share of the bundle's loss that is this pipe's: by diameter.</param>
internal readonly record struct Bundle(double DiameterM, double Share)
{
    /// <summary>Pipes side by side in a row, as one of <paramref name="ownM"/> sees them with <paramref name="othersM"/> (diameters, m): the way around is two
    /// half circles and the straight lines between them, so that what hangs through between three is told as sleeve too.</summary>
    public static Bundle Of(double ownM, IReadOnlyCollection<double> othersM)
    {
        double sum = ownM + othersM.Sum(), ends = othersM.Append(ownM).OrderDescending().Take(2).Sum();
        return new Bundle(((2 * sum) + (((Math.PI / 2) - 1) * ends)) / Math.PI, ownM / sum);
    }
}
