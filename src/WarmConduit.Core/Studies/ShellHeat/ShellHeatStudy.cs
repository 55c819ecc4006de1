using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Night;

namespace WarmConduit.Core.Studies.ShellHeat;

/// <summary>What a face loses on this night.</summary>
/// <param name="FaceId">The face, in its zone.</param>
/// <param name="TransmittanceWPerM2K">Its transmittance, W/m²K.</param>
/// <param name="WPerK">That times its area, and times the calibration, where there is one.</param>
/// <param name="DrawnM2">Its area by the boxes, m²; null: the boxes have no such face.</param>
public sealed record FaceHeat(string FaceId, double TransmittanceWPerM2K, double WPerK, double? DrawnM2);

/// <summary>A zone on this night.</summary>
/// <param name="ZoneId">The zone.</param>
/// <param name="AirC">Its air in the morning, °C.</param>
/// <param name="HeaterW">What its heater gave in the hour before, W.</param>
/// <param name="LeakWPerK">Its air leakage.</param>
/// <param name="VolumeM3">Its air: its box less the rooms inside it, m³.</param>
/// <param name="AssumedJPerK">Its heat capacity where none is typed, J/K. Estimate.</param>
/// <param name="Faces">Its faces.</param>
/// <param name="HoldsWater">Parts or runs with water are in it.</param>
public sealed record ZoneHeat(string ZoneId, double AirC, double HeaterW, double LeakWPerK, double VolumeM3, double AssumedJPerK,
    IReadOnlyList<FaceHeat> Faces, bool HoldsWater);

/// <summary>A room that builders forget, added with one press.</summary>
/// <param name="Id">Stable id.</param>
/// <param name="Name">In words.</param>
/// <param name="Words">Why it matters.</param>
/// <param name="Zone">The zone as it would be added; its faces come with the drawing.</param>
public sealed record ForgottenZone(string Id, string Name, string Words, Zone Zone);

/// <summary>The shell on a night.</summary>
/// <param name="Zones">In order of id.</param>
/// <param name="ColdestId">The coldest zone with water in it; null: none has.</param>
/// <param name="Forgotten">Rooms that builders forget and that are not drawn here.</param>
public sealed record ShellHeatAnswer(IReadOnlyList<ZoneHeat> Zones, string? ColdestId, IReadOnlyList<ForgottenZone> Forgotten);

/// <summary>What the shell does on a night: how much each face lets through, and how cold each zone gets.</summary>
public static class ShellHeatStudy
{
    /// <summary>Asks the night, and the boxes for the areas they have. Pure. O(points + faces + cells of the boxes).</summary>
    public static ShellHeatAnswer Ask(Question question)
    {
        var (rig, night) = (question.Rig, question.Conditions.Steady());
        var zones = rig.Shell.Zones;
        var air = question.Ask(RigNight.Of).Zones().ToDictionary(z => z.ZoneId);
        var drawn = Skin.Of(zones).GroupBy(p => (p.ZoneId, Skin.SideOf(p.Facing), p.Towards)).ToDictionary(g => g.Key, g => g.Sum(p => p.AreaM2));
        var wet = new HashSet<string>();
        foreach (var part in rig.Parts)
            if (PartWater.HoldsL(part) > 0 && question.Index.ZoneAt(part.Box.Centre()) is { } zone) wet.Add(zone.Id);
        foreach (var run in rig.Runs.Where(r => r.Service is Service.Cold or Service.Hot or Service.Waste))
            foreach (var at in question.Index.CourseOf(run))
                if (question.Index.ZoneAt(at) is { } zone) wet.Add(zone.Id);
        var volumes = ZoneVolumes.Of(zones);
        var made = zones.Select((zone, number) =>
        {
            // Faces that look the same way share what the boxes have, by their areas.
            var faces = zone.Faces.Select(f =>
            {
                bool inWind = f.Towards is null || ZoneBalance.InWind(zone) || ZoneBalance.InWind(zones.Find(f.Towards)!);
                double u = ZoneBalance.Transmittance(f, night, inWind);
                double like = zone.Faces.Where(o => o.Side == f.Side && o.Towards == f.Towards).Sum(o => o.AreaM2);
                double? boxes = drawn.TryGetValue((zone.Id, f.Side, f.Towards), out double whole) ? like > 0 ? whole * f.AreaM2 / like : whole : null;
                return new FaceHeat(f.Id, u, ZoneBalance.Measured(zone, f.Towards is null ? null : zones.Find(f.Towards)) * u * f.AreaM2, boxes);
            }).ToList();
            double leaks = ZoneBalance.LeakageWPerK(zone, volumes[number]) + (night.WindMPerS * ZoneBalance.BlownThroughWPerK(zone, volumes[number]));
            return new ZoneHeat(zone.Id, air[zone.Id].AirC, air[zone.Id].HeaterW, leaks, volumes[number], ZoneCapacity.AssumedJPerK(zone, volumes[number]),
                faces, wet.Contains(zone.Id));
        }).ToList();
        return new ShellHeatAnswer(made, made.Where(z => z.HoldsWater).MinBy(z => z.AirC)?.ZoneId, Forgotten(rig.Shell));
    }

    private static List<ForgottenZone> Forgotten(Shell shell)
    {
        var offers = new List<ForgottenZone>();
        var (at, far) = (shell.Body.At, shell.Body.Far());
        bool Has(params ZoneKind[] kinds) => shell.Zones.Any(z => kinds.Contains(z.Kind));
        void Offer(string id, string name, ZoneKind kind, Box box, double changes, string words)
        {
            if (shell.Zones.Find(id) is null) offers.Add(new ForgottenZone(id, name, words, new Zone(id, name, kind, box, changes, [], [])));
        }
        if (!Has(ZoneKind.Living))
            Offer("living", "living space", ZoneKind.Living, shell.Body, 0.8,
            "The room that is heated. Draw it first, as large as the body; other rooms are taken out of it.");
        if (!Has(ZoneKind.OpenUnderfloor, ZoneKind.EnclosedUnderfloor))
            Offer("underfloor", "under the floor", ZoneKind.OpenUnderfloor,
                new Box(at - new Point3(0, 0, 0.36), new Point3(shell.Body.Size.XM, shell.Body.Size.YM, 0.36)), 60,
                "Tanks, valves and pipe down there are in the wind.");
        if (!Has(ZoneKind.Hatch))
            Offer("hatch", "hatch", ZoneKind.Hatch, new Box(new Point3(at.XM + 0.02, far.YM - 0.14, at.ZM + 0.3), new Point3(0.3, 0.14, 0.32)), 4,
            "A filler, a shower box or a town inlet behind a plastic lid is nearly outdoors.");
        if (!Has(ZoneKind.WallCavity))
            Offer("wall-cavity", "wall cavity", ZoneKind.WallCavity, new Box(new Point3(at.XM, far.YM - 0.04, at.ZM),
            new Point3(shell.Body.Size.XM, 0.04, Math.Min(0.9, shell.Body.Size.ZM))), 1, "Pipe between lining and skin has the insulation on the wrong side.");
        if (!Has(ZoneKind.WheelArch) && shell.Obstacles.FirstOrDefault(o => o.Kind == ObstacleKind.WheelArch) is { } arch)
            Offer("arch-corner", "corner behind the arch", ZoneKind.WheelArch,
                new Box(new Point3(Math.Max(at.XM, arch.Box.At.XM - 0.25), arch.Box.At.YM, at.ZM),
                new Point3(0.25, Math.Max(0.1, arch.Box.Size.YM), Math.Max(0.1, arch.Box.Size.ZM))), 1,
                "Bare metal on two sides and no air: pipes end there and freeze first.");
        if (!Has(ZoneKind.EnclosedUnderfloor))
            Offer("skirt", "behind the skirt", ZoneKind.EnclosedUnderfloor,
            new Box(new Point3(at.XM + shell.Body.Size.XM * 0.3, at.YM, at.ZM - 0.36),
            new Point3(shell.Body.Size.XM * 0.3, Math.Min(0.5, shell.Body.Size.YM), 0.36)), 6,
            "A skirt keeps the wind off what hangs behind it, if it is shut below too.");
        return offers;
    }
}
