using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;

namespace WarmConduit.Core.Rigs;

/// <summary>Checks the shell of a rig: its body, rooms, faces and openings, what is in the way, photos.</summary>
internal static class ShellCheck
{
    /// <summary>Tells <paramref name="c"/> what is wrong. O(zones · faces).</summary>
    public static void Check(FieldChecker c, Shell shell)
    {
        c.Box("shell.body", shell.Body);
        if (shell.Axles is { } axles)
        {
            c.Range("shell.axles.frontXM", axles.FrontXM, "axles.frontXM");
            c.Range("shell.axles.wheelbaseM", axles.WheelbaseM, "axles.wheelbaseM");
            c.Range("shell.axles.trackM", axles.TrackM, "axles.trackM");
            c.Range("shell.axles.otherKg", axles.OtherKg, "axles.otherKg");
            foreach (var (field, kg) in ((string, double?)[])[("frontKg", axles.FrontKg), ("rearKg", axles.RearKg), ("frontMostKg", axles.FrontMostKg),
                ("rearMostKg", axles.RearMostKg), ("totalMostKg", axles.TotalMostKg)])
                if (kg is { } value) c.Range($"shell.axles.{field}", value, "axles.kg");
        }
        Boxes(c, "shell.obstacles", shell.Obstacles, o => o.Name, o => o.Box);
        Boxes(c, "shell.keepOuts", shell.KeepOuts, k => k.Name, k => k.Box);
        Boxes(c, "shell.access", shell.Access, a => a.Name, a => a.Box);
        Photos(c, shell.Photos ?? []);
        c.Count("shell.zones", shell.Zones.Count, 0, RigCheck.MaxZones);
        int faces = shell.Zones.Sum(z => z.Faces.Count + z.Openings.Count);
        if (faces > RigCheck.MaxFaces) c.Add("shell.zones", $"{faces} faces and openings in all, where {RigCheck.MaxFaces} are allowed", essential: false);
        var ids = c.Unique("shell.zones", shell.Zones);
        for (int i = 0; i < shell.Zones.Count; i++)
        {
            var zone = shell.Zones[i];
            string at = $"shell.zones[{i}]";
            c.Name($"{at}.name", zone.Name);
            c.Box($"{at}.box", zone.Box);
            c.Range($"{at}.airChangesPerHour", zone.AirChangesPerHour, "zone.airChangesPerHour");
            if (zone.HeatCapacityJPerK is { } capacity) c.Range($"{at}.heatCapacityJPerK", capacity, "zone.heatCapacityJPerK");
            if (zone.Measured is { } measured)
            {
                c.Range($"{at}.measured.lossFactor", measured.LossFactor, "measured.lossFactor");
                c.Range($"{at}.measured.lossDeviation", measured.LossDeviation, "measured.lossDeviation");
                c.Unique($"{at}.measured.exchange", measured.Exchange ?? []);
                for (int e = 0; e < (measured.Exchange?.Count ?? 0); e++)
                {
                    c.Towards($"{at}.measured.exchange[{e}].id", zone.Id, measured.Exchange![e].Id, ids);
                    c.Range($"{at}.measured.exchange[{e}].factor", measured.Exchange[e].Factor, "exchange.factor");
                }
            }
            c.Unique($"{at}.faces", zone.Faces);
            c.Unique($"{at}.openings", zone.Openings);
            for (int f = 0; f < zone.Faces.Count; f++) Face(c, $"{at}.faces[{f}]", zone, zone.Faces[f], ids);
            for (int o = 0; o < zone.Openings.Count; o++)
            {
                var opening = zone.Openings[o];
                c.Towards($"{at}.openings[{o}].towards", zone.Id, opening.Towards, ids);
                c.Range($"{at}.openings[{o}].areaM2", opening.AreaM2, "opening.areaM2");
                c.Range($"{at}.openings[{o}].heightM", opening.HeightM, "opening.heightM");
                if (shell.Zones.Find(opening.Towards) is { } other && opening.MostHeightM(zone, other) is var most && opening.HeightM > most + 1e-6)
                    c.Add($"{at}.openings[{o}].heightM",
                        FormattableString.Invariant($"between {zone.Name} and {other.Name} it can have {most:0.###} m at most"), essential: false);
            }
            if (zone.Heater is not { } heater) continue;
            c.Range($"{at}.heater.powerW", heater.PowerW, "heater.powerW");
            c.Range($"{at}.heater.setpointC", heater.SetpointC, "heater.setpointC");
        }
    }

    private static void Photos(FieldChecker c, IReadOnlyList<Photo> photos)
    {
        c.Count("shell.photos", photos.Count, 0, 12);
        c.Unique("shell.photos", photos);
        for (int i = 0; i < photos.Count; i++)
        {
            string at = $"shell.photos[{i}]";
            c.Name($"{at}.name", photos[i].Name);
            if (photos[i].Picture is not { Length: 64 } hash || hash.Any(d => !char.IsAsciiHexDigitLower(d)))
                c.Add($"{at}.picture", "it is not the name of a stored picture");
            c.Count($"{at}.corners", photos[i].Corners.Count, 4, 4);
            foreach (var corner in photos[i].Corners)
            {
                c.Range($"{at}.corners", corner.X, "photo.corners");
                c.Range($"{at}.corners", corner.Y, "photo.corners");
            }
            c.Range($"{at}.widthM", photos[i].WidthM, "photo.widthM");
            c.Range($"{at}.heightM", photos[i].HeightM, "photo.heightM");
            c.Range($"{at}.alongM", photos[i].AlongM, "photo.alongM");
            c.Range($"{at}.otherM", photos[i].OtherM, "photo.otherM");
        }
    }

    private static void Boxes<T>(FieldChecker c, string at, IReadOnlyList<T> things, Func<T, string> name, Func<T, Box> box)
        where T : IIdentified
    {
        c.Count(at, things.Count, 0, 100);
        c.Unique(at, things);
        for (int i = 0; i < things.Count; i++)
        {
            c.Name($"{at}[{i}].name", name(things[i]));
            c.Box($"{at}[{i}].box", box(things[i]));
        }
    }

    private static void Face(FieldChecker c, string at, Zone zone, Face face, HashSet<string> ids)
    {
        c.Name($"{at}.name", face.Name);
        c.Range($"{at}.areaM2", face.AreaM2, "face.areaM2");
        c.Range($"{at}.bridgeFraction", face.BridgeFraction, "face.bridgeFraction");
        if (face.Towards is not null) c.Towards($"{at}.towards", zone.Id, face.Towards, ids);
        foreach (var (name, layers) in new[] { ("layers", face.Layers), ("bridgeLayers", face.BridgeLayers) })
        {
            c.Count($"{at}.{name}", layers.Count, 0, 12);
            for (int i = 0; i < layers.Count; i++)
            {
                c.Known($"{at}.{name}[{i}].material", Catalogue.Solid(layers[i].Material) is not null, layers[i].Material, "material");
                c.Range($"{at}.{name}[{i}].thicknessM", layers[i].ThicknessM, "layer.thicknessM");
            }
        }
    }
}
