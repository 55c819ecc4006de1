using WarmConduit.Core.Heat;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.FreezeLadder;

/// <summary>Air of each zone of a rig on a steady night.</summary>
public static class ZoneTemperatures
{
    /// <summary>
    /// Solves the linear balance of all zones: faces (ISO 6946, wind on every outer face), leakage, openings, heaters. Openings depend on the difference
    /// across them, so the balance is repeated with their new conductance until nothing moves by 0.01 K (at most 12 rounds). Pure.
    /// </summary>
    public static IReadOnlyList<ZoneAir> Ask(Rig rig, Conditions night)
    {
        var zones = rig.Shell.Zones;
        var index = new Dictionary<string, int>();
        for (int z = 0; z < zones.Count; z++) index[zones[z].Id] = z;
        var plain = new List<SteadyZone>(zones.Count);
        var links = new List<SteadyLink>();
        for (int z = 0; z < zones.Count; z++)
        {
            var zone = zones[z];
            double outdoors = AirExchange.LeakageWPerK(zone.AirChangesPerHour, zone.Box.VolumeM3());
            foreach (var face in zone.Faces)
            {
                double conductance = face.AreaM2 * Transmittance(face, night);
                if (face.Towards is null) outdoors += conductance;
                else links.Add(new SteadyLink(z, index[face.Towards], conductance));
            }
            plain.Add(new SteadyZone(outdoors, night.HeatOn ? zone.Heater?.PowerW ?? 0 : 0, zone.Heater?.SetpointC ?? 0));
        }
        int solid = links.Count;
        var openings = new List<(int A, int B, Opening Opening)>();
        for (int z = 0; z < zones.Count; z++)
            foreach (var opening in zones[z].Openings)
                openings.Add((z, index[opening.Towards], opening));
        foreach (var (a, b, opening) in openings) links.Add(new SteadyLink(a, b, OpeningWPerK(opening, 1, night.OutdoorC)));

        var balance = SteadyZones.Solve(plain, links, night.OutdoorC);
        for (int round = 0; round < 12 && openings.Count > 0; round++)
        {
            for (int o = 0; o < openings.Count; o++)
            {
                var (a, b, opening) = openings[o];
                double dT = Math.Abs(balance.TemperatureC[a] - balance.TemperatureC[b]);
                links[solid + o] = new SteadyLink(a, b, OpeningWPerK(opening, dT, balance.TemperatureC[a]));
            }
            var renewed = SteadyZones.Solve(plain, links, night.OutdoorC);
            bool settled = renewed.TemperatureC.Zip(balance.TemperatureC, (x, y) => Math.Abs(x - y)).Max() < 0.01;
            balance = renewed;
            if (settled) break;
        }
        return [.. zones.Select((z, i) => new ZoneAir(z.Id, balance.TemperatureC[i], balance.HeaterW[i]))];
    }

    /// <summary>Transmittance of a face, W/m²K; between zones the film of the far side is a still one too.</summary>
    public static double Transmittance(Face face, Conditions night)
    {
        var flow = face.Side switch
        {
            FaceSide.Roof => HeatFlow.Up,
            FaceSide.Floor => HeatFlow.Down,
            _ => HeatFlow.Horizontal,
        };
        double inner = Wall.InnerFilmM2KPerW(flow);
        double outer = face.Towards is not null ? inner : 1 / Film.OuterWallWPerM2K(night.WindMPerS, 0.9, night.OutdoorC);
        return Wall.TransmittanceWPerM2K(Layers(face.Layers), Layers(face.BridgeLayers), face.BridgeFraction, inner, outer);
    }

    private static WallLayer[] Layers(IReadOnlyList<FaceLayer> layers) =>
        [.. layers.Select(l => new WallLayer(l.ThicknessM, Catalogue.Solid(l.Material)!.ConductivityWPerMK))];

    // Half a kelvin at least, so that a start at rest can move.
    private static double OpeningWPerK(Opening opening, double dT, double airC) => AirExchange.OpeningWPerK(opening.AreaM2, opening.HeightM, Math.Max(dT, 0.5), airC);
}
