using WarmConduit.Core.Heat;
using WarmConduit.Core.Heat.Night;
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
    /// across them, so the balance is repeated with their new conductance until nothing moves by 0.01 K (at most 12 rounds). A partition or opening that both
    /// its zones list counts once. Pure.
    /// </summary>
    public static IReadOnlyList<ZoneAir> Solve(Rig rig, SteadyNight night) =>
        Solve(rig, night, z => night.HeatOn && z.Heater is { } heater ? heater : new ZoneHeater(0, 0));

    /// <summary>
    /// The balance of an evening, as the vehicle was kept until then. A room with a heater has its set point, or what its heater could hold in that weather.
    /// Living space that was kept at
    /// <paramref name="insideC"/> has that whatever it took: all that has a heater, or all of it where none has; without a heater and where nothing is said it
    /// has <see cref="Conditions.UsualInsideC"/>. Other rooms settle beside them. Pure.
    /// </summary>
    public static IReadOnlyList<ZoneAir> Kept(Rig rig, SteadyNight evening, double? insideC)
    {
        static bool Own(Zone z) => z.Heater is { PowerW: > 0 };
        bool living = rig.Shell.Zones.Any(z => z.Kind == ZoneKind.Living && Own(z));
        // Warmer outdoors than in, nothing was kept.
        return Solve(rig, evening, z =>
            z.Kind == ZoneKind.Living && (living ? Own(z) && insideC is not null : true) ? new ZoneHeater(1e9, insideC ?? Conditions.UsualInsideC)
            : Own(z) ? z.Heater!
            : new ZoneHeater(0, 0));
    }

    private static IReadOnlyList<ZoneAir> Solve(Rig rig, SteadyNight night, Func<Zone, ZoneHeater> heaterOf)
    {
        var zones = rig.Shell.Zones;
        if (zones.Count == 0) return [];
        var volumes = ZoneVolumes.Of(zones);
        var plain = zones.Select((z, i) => new SteadyZone(OutdoorWPerK(z, volumes[i], night), heaterOf(z).PowerW, heaterOf(z).SetpointC)).ToList();
        var (partitions, openings) = Between(rig);
        var links = partitions.Select(p => new SteadyLink(p.A, p.B, p.Factor * p.Face.AreaM2 * Transmittance(p.Face, night, p.Windy))).ToList();
        int solid = links.Count;
        foreach (var o in openings)
            links.Add(new SteadyLink(o.A, o.B, OpeningWPerK(o.Opening, night.OutdoorC + 1, night.OutdoorC, o.WindShare * night.WindMPerS)));

        var balance = SteadyZones.Solve(plain, links, night.OutdoorC);
        for (int round = 0; round < 12 && openings.Count > 0; round++)
        {
            for (int o = 0; o < openings.Count; o++)
            {
                var (a, b, opening, wind) = openings[o];
                links[solid + o] = new SteadyLink(a, b, OpeningWPerK(opening, balance.TemperatureC[a], balance.TemperatureC[b], wind * night.WindMPerS));
            }
            var renewed = SteadyZones.Solve(plain, links, night.OutdoorC);
            bool settled = renewed.TemperatureC.Zip(balance.TemperatureC, (x, y) => Math.Abs(x - y)).Max() < 0.01;
            balance = renewed;
            if (settled) break;
        }
        return [.. zones.Select((z, i) => new ZoneAir(z.Id, balance.TemperatureC[i], balance.HeaterW[i]))];
    }

    /// <summary>What a zone with air of <paramref name="volumeM3"/> loses to outdoors through its faces and draughts, W/K.</summary>
    public static double OutdoorWPerK(Zone zone, double volumeM3, SteadyNight night) =>
        LeakageWPerK(zone, volumeM3) + night.WindMPerS * BlownThroughWPerK(zone, volumeM3) + Measured(zone, null) * zone.Faces.Where(f => f.Towards is null)
            .Sum(f => f.AreaM2 * Transmittance(f, night, inWind: true));

    /// <summary>Its draughts without wind, W/K.</summary>
    public static double LeakageWPerK(Zone zone, double volumeM3) => Measured(zone, null) * AirExchange.LeakageWPerK(zone.AirChangesPerHour, volumeM3);

    /// <summary>What each m/s of wind blows through it besides, W/K.</summary>
    public static double BlownThroughWPerK(Zone zone, double volumeM3) => InWind(zone)
        ? Measured(zone, null) * AirExchange.LeakageWPerK(BlownThrough(zone, 1), volumeM3) : 0;

    /// <summary>
    /// A face as paths of heat that end in the outer film: m² of its clear part and of what bridges it. <paramref name="windShare"/>: how much of the wind it
    /// gets; <paramref name="factor"/>: on its area.
    /// </summary>
    public static IEnumerable<NightFilmed> Films(Face face, double factor, double windShare = 1, double skyView = 0)
    {
        double inner = InnerSurfaceM2KPerW(face), bridge = Math.Clamp(face.BridgeFraction, 0, 1);
        if (bridge < 1)
            yield return new(new WallFilm(inner + Layered.Of(face.Layers).Sum(l => l.Resistance()), windShare, skyView), factor * (1 - bridge) * face.AreaM2);
        if (bridge > 0)
            yield return new(new WallFilm(inner + Layered.Of(face.BridgeLayers).Sum(l => l.Resistance()), windShare, skyView), factor * bridge * face.AreaM2);
    }

    /// <summary>What thermometers said that a zone loses to outdoors (null), or exchanges with another one, as a share of what is typed; 1 where nothing was
    /// measured.</summary>
    public static double Measured(Zone zone, Zone? other) =>
        other is null ? zone.Measured?.LossFactor ?? 1 : (zone.Measured?.Exchange?.Find(other.Id) ?? other.Measured?.Exchange?.Find(zone.Id))?.Factor ?? 1;

    /// <summary>
    /// What zones exchange through partitions and openings, by numbers of zones; each once. A partition counts <c>Factor</c> times, as thermometers said; it is
    /// <c>Windy</c> where one of its sides is in the wind, and an opening gets <c>WindShare</c> of it.
    /// </summary>
    public static (IReadOnlyList<(int A, int B, Face Face, double Factor, bool Windy)> Partitions,
        IReadOnlyList<(int A, int B, Opening Opening, double WindShare)> Openings) Between(Rig rig)
    {
        var zones = rig.Shell.Zones;
        var index = new Dictionary<string, int>();
        for (int z = 0; z < zones.Count; z++) index[zones[z].Id] = z;
        var partitions = new List<(int, int, Face, double, bool)>();
        var openings = new List<(int, int, Opening, double)>();
        for (int z = 0; z < zones.Count; z++)
        {
            foreach (var face in zones[z].Faces)
                if (face.Towards is { } to && !ListedBefore(zones, index, z, face))
                    partitions.Add((z, index[to], face, Measured(zones[z], zones[index[to]]), InWind(zones[z]) || InWind(zones[index[to]])));
            foreach (var opening in zones[z].Openings)
                if (!ListedBefore(zones, index, z, opening))
                {
                    var other = zones[index[opening.Towards]];
                    // One that is drawn higher than its rooms are is as high as they are.
                    openings.Add((z, index[opening.Towards], opening with
                    {
                        AreaM2 = opening.AreaM2 * Measured(zones[z], other),
                        HeightM = Math.Min(opening.HeightM, opening.MostHeightM(zones[z], other))
                    }, WindShare(zones[z], other)));
                }
        }
        return (partitions, openings);
    }

    /// <summary>
    /// Transmittance of a face, W/m²K. Outdoors and an open underfloor are in the wind, so that the far side has the surface coefficient of an outer wall;
    /// between other zones it is still air on both sides.
    /// </summary>
    public static double Transmittance(Face face, SteadyNight night, bool inWind)
    {
        double inner = InnerSurfaceM2KPerW(face);
        double outer = inWind ? 1 / SurfaceCoefficient.OuterWallWPerM2K(night.WindMPerS, WallFilm.Emissivity, night.OutdoorC) : inner;
        return Wall.TransmittanceWPerM2K(Layered.Of(face.Layers), Layered.Of(face.BridgeLayers), face.BridgeFraction, inner, outer);
    }

    /// <summary>
    /// Surface resistance of still air at a face, m²K/W. A floor between two rooms is the same whichever of them it is drawn in: the warmer one is as a rule
    /// above, and where it is not, the colder one is told a little colder.
    /// </summary>
    internal static double InnerSurfaceM2KPerW(Face face) => Wall.InnerSurfaceM2KPerW(face.Side switch
    {
        FaceSide.Roof when face.Towards is null => HeatFlow.Up,
        FaceSide.Roof or FaceSide.Floor => HeatFlow.Down,
        _ => HeatFlow.Horizontal,
    });

    /// <summary>Whether the other zone lists this face too and comes first; two faces are one partition when their areas agree within 1 %.</summary>
    internal static bool ListedBefore(IReadOnlyList<Zone> zones, Dictionary<string, int> index, int z, Face face)
    {
        int other = index[face.Towards!];
        return other < z && Paired(
            zones[z].Faces.Where(f => f.Towards == face.Towards).ToList(), zones[other].Faces.Where(f => f.Towards == zones[z].Id), face, (a, b) =>
            Near(a.AreaM2, b.AreaM2));
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
    private static double OpeningWPerK(Opening opening, double hereC, double thereC, double windMPerS) =>
        AirExchange.OpeningWPerK(opening.AreaM2, opening.HeightM, Math.Max(Math.Abs(hereC - thereC), 0.5), hereC, windMPerS,
            still: opening.Above() * (thereC - hereC) > 0);

    /// <summary>The share of the wind that blows at an opening between two zones: all of it where one of them is in it.</summary>
    public static double WindShare(Zone a, Zone b) => InWind(a) || InWind(b) ? 1 : 0;
}
