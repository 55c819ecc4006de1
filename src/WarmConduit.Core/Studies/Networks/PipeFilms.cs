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

    private readonly ConcurrentDictionary<(string Pipe, Sleeve? Sleeve, bool Windy), NightFilmed[]> _known = [];

    /// <summary>The films of a metre: of what is covered, and of gaps that lie bare. <paramref name="windy"/>: outdoors, or under the floor in the
    /// wind.</summary>
    public IReadOnlyList<NightFilmed> Of(PipeStock pipe, Sleeve? sleeve, bool windy) =>
        _known.GetOrAdd((pipe.Id, sleeve, windy), _ => Made(pipe, sleeve, windy));

    /// <summary>Resistance from the water at <paramref name="waterC"/> to the air, mK/W.</summary>
    public double ResistanceMKPerW(PipeStock pipe, Sleeve? sleeve, bool windy, double waterC, double airC, double windMPerS)
    {
        double share = 0.5;
        return 1 / Of(pipe, sleeve, windy).Sum(f => f.Size * f.Film.WPerK(waterC, airC, windMPerS, ref share));
    }

    /// <summary>The same in still air that is hardly colder.</summary>
    public double StillResistanceMKPerW(PipeStock pipe, Sleeve? sleeve) => ResistanceMKPerW(pipe, sleeve, false, NearC, 0, 0);

    /// <summary>Whether air in a zone (null: outdoors) moves with the wind.</summary>
    public static bool InWind(Zone? zone) => zone is null || ZoneBalance.InWind(zone);

    private NightFilmed[] Made(PipeStock pipe, Sleeve? sleeve, bool windy)
    {
        var section = new PipeSection(
            pipe.InnerDiameterM, pipe.OuterDiameterM, pipe.ConductivityWPerMK, sleeve?.AllM() ?? 0,
            sleeve is null or { ThicknessM: 0 } ? 0.036 : PipeSection.AsOneLayer(pipe.OuterDiameterM, Layered.Of(sleeve)));
        var film = new CylinderFilm(section.SurfaceDiameterM(), section.WallResistanceMKPerW(), section.Emissivity, windy ? 1 : 0);
        // Side by side: what is covered, and what lies bare.
        return sleeve is { ThicknessM: > 0, GapShare: > 0 and var gaps } ? [new(film, 1 - gaps), new(Of(pipe, null, windy)[0].Film, gaps)] : [new(film, 1)];
    }
}
