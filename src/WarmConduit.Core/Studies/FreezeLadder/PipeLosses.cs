using System.Collections.Concurrent;
using WarmConduit.Core.Heat;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Networks;

namespace WarmConduit.Core.Studies.FreezeLadder;

/// <summary>What a metre of each kind of pipe loses in each zone. Kinds are few, pieces are many, so each is worked out once.</summary>
internal sealed class PipeLosses(Question question)
{
    private readonly Dictionary<string, double> _air = question.Zones.ToDictionary(z => z.ZoneId, z => z.AirC);
    // Winters ask on all cores at once.
    private readonly ConcurrentDictionary<(string Pipe, Sleeve? Sleeve, string? Zone), (double, double)> _known = [];

    /// <summary>Air of a zone, or outdoors, °C.</summary>
    public double AirC(Zone? zone) => zone is null ? question.Conditions.OutdoorC : _air[zone.Id];

    /// <summary>Wind in a zone, m/s.</summary>
    public double WindMPerS(Zone? zone) => zone is null || zone.Kind == ZoneKind.OpenUnderfloor ? question.Conditions.WindMPerS : 0;

    /// <summary>Resistance from the water to the air, mK/W, and the wind up to the night's that makes it least.</summary>
    public (double ResistanceMKPerW, double WorstWindMPerS) Of(PipeStock pipe, Sleeve? sleeve, Zone? zone)
    {
        var key = (pipe.Id, sleeve, zone?.Id);
        if (_known.TryGetValue(key, out var known)) return known;
        var section = new PipeSection(
            pipe.InnerDiameterM,
            pipe.OuterDiameterM,
            pipe.ConductivityWPerMK,
            sleeve?.AllM() ?? 0,
            sleeve is null or { ThicknessM: 0 } ? 0.036 : PipeSection.AsOneLayer(pipe.OuterDiameterM, Layered.Of(sleeve)));
        double worst = SurfaceCoefficient.WorstWindMPerS(section.SurfaceDiameterM(), WindMPerS(zone));
        double resistance = 1 / PipeHeat.Steady(section, Math.Max(question.Conditions.StartWaterC / 2, 0), AirC(zone), worst).ConductanceWPerMK;
        // Side by side: what is covered, and what lies bare.
        if (sleeve is { ThicknessM: > 0, GapShare: > 0 and var gaps }) resistance = 1 / (((1 - gaps) / resistance) + (gaps / Of(pipe, null, zone).ResistanceMKPerW));
        return _known[key] = (resistance, worst);
    }
}
