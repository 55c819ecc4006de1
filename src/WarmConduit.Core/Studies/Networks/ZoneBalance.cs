using WarmConduit.Core.Heat;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.Networks;

/// <summary>Air of a zone on the steady night, °C, and what its heater gives, W.</summary>
/// <param name="ZoneId">The zone.</param>
/// <param name="AirC">Air, °C.</param>
/// <param name="HeaterW">What its heater gives, W.</param>
public sealed record ZoneAir(string ZoneId, double AirC, double HeaterW);

/// <summary>Air of each zone of a rig on a steady night.</summary>
public static class ZoneBalance
{
    /// <summary>
    /// Solves the linear balance of all zones: faces (ISO 6946, wind on every outer face), leakage, openings, heaters. Openings depend on the difference
    /// across them, so the balance is repeated with their new conductance until nothing moves by 0.01 K (at most 12 rounds). A partition or opening that both its zones
    /// list counts once. Pure.
    /// </summary>
    public static IReadOnlyList<ZoneAir> Solve(Rig rig, Conditions night) =>
        Solve(rig, night, z => night.HeatOn && z.Heater is { } heater ? heater : new ZoneHeater(0, 0));

    /// <summary>
    /// The balance of an evening on which the vehicle was kept at <see cref="Conditions.InsideC"/>: rooms with a heater, or the living space where there is none, as warm as that whatever it
    /// takes, the others as they settle beside them. Pure.
    /// </summary>
    public static IReadOnlyList<ZoneAir> Kept(Rig rig, Conditions evening)
    {
        bool heated = rig.Shell.Zones.Any(z => z.Heater is { PowerW: > 0 });
        bool IsKept(Zone z) => heated ? z.Heater is { PowerW: > 0 } : z.Kind == ZoneKind.Living;
        // Warmer outdoors than in, nothing was kept.
        return Solve(rig, evening, z => IsKept(z) ? new ZoneHeater(1e9, evening.InsideC) : new ZoneHeater(0, 0));
    }

    private static IReadOnlyList<ZoneAir> Solve(Rig rig, Conditions night, Func<Zone, ZoneHeater> heaterOf)
    {
        var zones = rig.Shell.Zones;
        if (zones.Count == 0) return [];
        var plain = zones.Select(z => new SteadyZone(OutdoorWPerK(z, night), heaterOf(z).PowerW, heaterOf(z).SetpointC)).ToList();
        var (between, openings) = Between(rig, night);
        var links = between.ToList();
        int solid = links.Count;
        foreach (var (a, b, opening) in openings) links.Add(new SteadyLink(a, b, OpeningWPerK(opening, 1, night.OutdoorC, WindShare(zones[a], zones[b]) * night.WindMPerS)));

        var balance = SteadyZones.Solve(plain, links, night.OutdoorC);
        for (int round = 0; round < 12 && openings.Count > 0; round++)
        {
            for (int o = 0; o < openings.Count; o++)
            {
                var (a, b, opening) = openings[o];
                double dT = Math.Abs(balance.TemperatureC[a] - balance.TemperatureC[b]);
                links[solid + o] = new SteadyLink(a, b, OpeningWPerK(opening, dT, balance.TemperatureC[a], WindShare(zones[a], zones[b]) * night.WindMPerS));
            }
            var renewed = SteadyZones.Solve(plain, links, night.OutdoorC);
            bool settled = renewed.TemperatureC.Zip(balance.TemperatureC, (x, y) => Math.Abs(x - y)).Max() < 0.01;
            balance = renewed;
            if (settled) break;
        }
        return [.. zones.Select((z, i) => new ZoneAir(z.Id, balance.TemperatureC[i], balance.HeaterW[i]))];
    }

    /// <summary>What a zone loses to outdoors through its faces and draughts, W/K. <paramref name="rearWind"/>: the share of the wind that rearward faces get.</summary>
    public static double OutdoorWPerK(Zone zone, Conditions night, double rearWind = 1) =>
        Measured(zone, null) * (AirExchange.LeakageWPerK(zone.AirChangesPerHour + (InWind(zone) ? BlownThrough(zone, night.WindMPerS) : 0), zone.Box.VolumeM3())
        + zone.Faces.Where(f => f.Towards is null).Sum(f => f.AreaM2 * Transmittance(f, f.Rearward == true && rearWind != 1 ? night with { WindMPerS = rearWind * night.WindMPerS } : night, inWind: true)));

    /// <summary>What thermometers said that a zone loses to outdoors (null), or exchanges with another one, as a share of what is typed; 1 where nothing was measured.</summary>
    public static double Measured(Zone zone, Zone? other) =>
        other is null ? zone.Measured?.LossFactor ?? 1 : (zone.Measured?.Exchange?.Find(other.Id) ?? other.Measured?.Exchange?.Find(zone.Id))?.Factor ?? 1;

    /// <summary>What zones exchange through partitions, and their openings, by numbers of zones; each once.</summary>
    public static (IReadOnlyList<SteadyLink> Links, IReadOnlyList<(int A, int B, Opening Opening)> Openings) Between(Rig rig, Conditions night)
    {
        var zones = rig.Shell.Zones;
        var index = new Dictionary<string, int>();
        for (int z = 0; z < zones.Count; z++) index[zones[z].Id] = z;
        var links = new List<SteadyLink>();
        var openings = new List<(int A, int B, Opening Opening)>();
        for (int z = 0; z < zones.Count; z++)
        {
            foreach (var face in zones[z].Faces)
                if (face.Towards is { } to && !ListedBefore(zones, index, z, face)) links.Add(new SteadyLink(z, index[to], Measured(zones[z], zones[index[to]]) * face.AreaM2 * Transmittance(face, night, InWind(zones[index[to]]))));
            foreach (var opening in zones[z].Openings)
                if (!ListedBefore(zones, index, z, opening)) openings.Add((z, index[opening.Towards], opening with { AreaM2 = opening.AreaM2 * Measured(zones[z], zones[index[opening.Towards]]) }));
        }
        return (links, openings);
    }

    /// <summary>
    /// Transmittance of a face, W/m²K. Outdoors and an open underfloor are in the wind, so that the far side has the surface coefficient of an outer wall; between other zones it is still air
    /// on both sides.
    /// </summary>
    public static double Transmittance(Face face, Conditions night, bool inWind)
    {
        double inner = InnerSurfaceM2KPerW(face.Side);
        double outer = inWind ? 1 / SurfaceCoefficient.OuterWallWPerM2K(night.WindMPerS, 0.9, night.OutdoorC) : inner;
        return Wall.TransmittanceWPerM2K(Layered.Of(face.Layers), Layered.Of(face.BridgeLayers), face.BridgeFraction, inner, outer);
    }

    /// <summary>Surface resistance of still air at a face, m²K/W.</summary>
    internal static double InnerSurfaceM2KPerW(FaceSide side) => Wall.InnerSurfaceM2KPerW(side switch
    {
        FaceSide.Roof => HeatFlow.Up,
        FaceSide.Floor => HeatFlow.Down,
        _ => HeatFlow.Horizontal,
    });

    /// <summary>Whether the other zone lists this face too and comes first; two faces are one partition when their areas agree within 1 %.</summary>
    internal static bool ListedBefore(IReadOnlyList<Zone> zones, Dictionary<string, int> index, int z, Face face)
    {
        int other = index[face.Towards!];
        return other < z && Paired(
            zones[z].Faces.Where(f => f.Towards == face.Towards).ToList(), zones[other].Faces.Where(f => f.Towards == zones[z].Id), face, (a, b) => Near(a.AreaM2, b.AreaM2));
    }

    /// <summary>As for faces; areas and heights agree within 1 %.</summary>
    internal static bool ListedBefore(IReadOnlyList<Zone> zones, Dictionary<string, int> index, int z, Opening opening)
    {
        int other = index[opening.Towards];
        return other < z && Paired(
            zones[z].Openings.Where(o => o.Towards == opening.Towards).ToList(), zones[other].Openings.Where(o => o.Towards == zones[z].Id), opening,
            (a, b) => Near(a.AreaM2, b.AreaM2) && Near(a.HeightM, b.HeightM));
    }

    // Each entry of the other side is taken for one of this side.
    private static bool Paired<T>(List<T> mine, IEnumerable<T> theirs, T wanted, Func<T, T, bool> same)
        where T : class
    {
        var left = theirs.ToList();
        foreach (var entry in mine)
        {
            int match = left.FindIndex(t => same(entry, t));
            if (ReferenceEquals(entry, wanted)) return match >= 0;
            if (match >= 0) left.RemoveAt(match);
        }
        return false;
    }

    private static bool Near(double a, double b) => Math.Abs(a - b) <= 0.01 * Math.Max(a, b);

    internal static bool InWind(Zone zone) => zone.Kind == ZoneKind.OpenUnderfloor;

    // A tenth of the wind gets through between wheels, axles and frame. Estimate; without it more wind would only warm the underfloor through the floor.
    internal static double BlownThrough(Zone zone, double windMPerS) => 3600 * 0.1 * windMPerS / Math.Max(zone.Box.Size.XM, zone.Box.Size.YM);

    // Half a kelvin at least, so that a start at rest can move.
    private static double OpeningWPerK(Opening opening, double dT, double airC, double windMPerS) => AirExchange.OpeningWPerK(opening.AreaM2, opening.HeightM, Math.Max(dT, 0.5), airC, windMPerS);

    /// <summary>The share of the wind that blows at an opening between two zones: all of it where one of them is in it.</summary>
    public static double WindShare(Zone a, Zone b) => InWind(a) || InWind(b) ? 1 : 0;
}
