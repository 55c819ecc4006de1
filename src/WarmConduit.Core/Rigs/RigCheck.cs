using System.Text.RegularExpressions;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;

namespace WarmConduit.Core.Rigs;

/// <summary>Checks that a rig makes sense as a document: ids, references, finite numbers, sizes a vehicle can have. It does not judge the design.</summary>
public static partial class RigCheck
{
    private const double FarthestM = 30;
    private const int MaxFaults = 50;

    /// <summary>Throws <see cref="RigFileException"/> when <see cref="Check"/> finds anything.</summary>
    public static void Demand(Rig rig)
    {
        var faults = Check(rig);
        if (faults.Count > 0) throw new RigFileException(faults);
    }

    /// <summary>All faults of <paramref name="rig"/> (the first 50), empty when it is sound. O(parts + runs).</summary>
    public static IReadOnlyList<RigFault> Check(Rig rig)
    {
        var c = new Checker();
        if (rig.FormatVersion != Rig.CurrentFormat) c.Add("formatVersion", $"version {rig.FormatVersion} is not known; this program reads version {Rig.CurrentFormat}");
        c.Id("id", rig.Id);
        c.Name("name", rig.Name);
        if (rig.Note.Length > 2000) c.Add("note", "it is longer than 2000 characters");
        CheckBrief(c, rig.Brief);
        CheckShell(c, rig.Shell);
        CheckParts(c, rig.Parts);
        CheckRuns(c, rig);
        return c.Faults;
    }

    private static void CheckBrief(Checker c, Brief b)
    {
        c.Range("brief.people", b.People, 1, 20, "");
        c.Range("brief.daysBetweenFills", b.DaysBetweenFills, 0.1, 365, "days");
        c.Range("brief.litresPerPersonDay", b.LitresPerPersonDay, 0.1, 500, "L");
        c.Range("brief.lowestC", b.LowestC, -60, 30, "°C");
        c.Range("brief.windMPerS", b.WindMPerS, 0, 60, "m/s");
        c.Range("brief.nightsWithoutHeat", b.NightsWithoutHeat, 0, 365, "");
        c.Range("brief.leastFall", b.LeastFall, 0, 0.2, "m/m");
    }

    private static void CheckShell(Checker c, Shell shell)
    {
        c.Box("shell.body", shell.Body);
        c.Count("shell.obstacles", shell.Obstacles.Count, 0, 50);
        for (int i = 0; i < shell.Obstacles.Count; i++) c.Box($"shell.obstacles[{i}].box", shell.Obstacles[i].Box);
        c.Count("shell.zones", shell.Zones.Count, 1, 40);
        var ids = c.Unique("shell.zones", shell.Zones.Select(z => z.Id));
        for (int i = 0; i < shell.Zones.Count; i++)
        {
            var zone = shell.Zones[i];
            string at = $"shell.zones[{i}]";
            c.Name($"{at}.name", zone.Name);
            c.Box($"{at}.box", zone.Box);
            c.Range($"{at}.airChangesPerHour", zone.AirChangesPerHour, 0, 1000, "an hour");
            c.Count($"{at}.faces", zone.Faces.Count, 0, 40);
            for (int f = 0; f < zone.Faces.Count; f++) CheckFace(c, $"{at}.faces[{f}]", zone, zone.Faces[f], ids);
            for (int o = 0; o < zone.Openings.Count; o++)
            {
                var opening = zone.Openings[o];
                c.Towards($"{at}.openings[{o}].towards", zone.Id, opening.Towards, ids);
                c.Range($"{at}.openings[{o}].areaM2", opening.AreaM2, 0, 20, "m²");
                c.Range($"{at}.openings[{o}].heightM", opening.HeightM, 0, 5, "m");
            }
            if (zone.Heater is not { } heater) continue;
            c.Range($"{at}.heater.powerW", heater.PowerW, 0, 50_000, "W");
            c.Range($"{at}.heater.setpointC", heater.SetpointC, -20, 40, "°C");
        }
    }

    private static void CheckFace(Checker c, string at, Zone zone, Face face, HashSet<string> ids)
    {
        c.Range($"{at}.areaM2", face.AreaM2, 0, 200, "m²");
        c.Range($"{at}.bridgeFraction", face.BridgeFraction, 0, 1, "");
        if (face.Towards is not null) c.Towards($"{at}.towards", zone.Id, face.Towards, ids);
        foreach (var (name, layers) in new[] { ("layers", face.Layers), ("bridgeLayers", face.BridgeLayers) })
        {
            c.Count($"{at}.{name}", layers.Count, 0, 12);
            for (int i = 0; i < layers.Count; i++)
            {
                c.Known($"{at}.{name}[{i}].material", Catalogue.Solid(layers[i].Material) is not null, layers[i].Material, "material");
                c.Range($"{at}.{name}[{i}].thicknessM", layers[i].ThicknessM, 0, 1, "m");
            }
        }
    }

    private static void CheckParts(Checker c, IReadOnlyList<Part> parts)
    {
        c.Count("parts", parts.Count, 0, 500);
        c.Unique("parts", parts.Select(p => p.Id));
        for (int i = 0; i < parts.Count; i++)
        {
            var part = parts[i];
            string at = $"parts[{i}]";
            c.Name($"{at}.name", part.Name);
            c.Known($"{at}.stock", Catalogue.Part(part.Stock) is not null, part.Stock, "stock part");
            c.Box($"{at}.box", part.Box);
            c.Count($"{at}.ports", part.Ports.Count, 1, 16);
            c.Unique($"{at}.ports", part.Ports.Select(p => p.Id));
            for (int k = 0; k < part.Ports.Count; k++) c.Place($"{at}.ports[{k}].offset", part.Ports[k].Offset);
            if (part.HoldsL is { } holds) c.Range($"{at}.holdsL", holds, 0, 2000, "L");
            if (part.LossWPerK is { } loss) c.Range($"{at}.lossWPerK", loss, 0, 100, "W/K");
            if (Catalogue.Part(part.Stock)?.Passage is Passage.OneWay or Passage.Pump && (part.PortAt("in") is null || part.PortAt("out") is null))
                c.Add($"{at}.ports", "a part with a direction needs the ports 'in' and 'out'");
        }
    }

    private static void CheckRuns(Checker c, Rig rig)
    {
        c.Count("runs", rig.Runs.Count, 0, 1000);
        c.Unique("runs", rig.Runs.Select(r => r.Id));
        var parts = new Dictionary<string, Part>();
        foreach (var p in rig.Parts) parts.TryAdd(p.Id, p);
        var shared = rig.Parts.Select(p => p.Id).Intersect(rig.Runs.Select(r => r.Id)).FirstOrDefault();
        if (shared is not null) c.Add("runs", $"the id '{shared}' is a part's already");
        for (int i = 0; i < rig.Runs.Count; i++)
        {
            var run = rig.Runs[i];
            string at = $"runs[{i}]";
            c.Name($"{at}.name", run.Name);
            c.Known($"{at}.pipe", Catalogue.Pipe(run.Pipe) is not null, run.Pipe, "pipe");
            foreach (var (name, end) in new[] { ("from", run.From), ("to", run.To) })
            {
                if (!parts.TryGetValue(end.Part, out var part)) c.Add($"{at}.{name}.part", $"there is no part '{end.Part}'");
                else if (part.PortAt(end.Port) is null) c.Add($"{at}.{name}.port", $"part '{end.Part}' has no port '{end.Port}'");
            }
            if (run.From == run.To) c.Add($"{at}.to", "a run cannot end where it starts");
            c.Count($"{at}.via", run.Via.Count, 0, 200);
            for (int k = 0; k < run.Via.Count; k++) c.Place($"{at}.via[{k}]", run.Via[k]);
            if (run.Insulation is { } sleeve)
            {
                c.Known($"{at}.insulation.material", Catalogue.Solid(sleeve.Material) is not null, sleeve.Material, "material");
                c.Range($"{at}.insulation.thicknessM", sleeve.ThicknessM, 0, 0.3, "m");
            }
            if (run.ClipSpacingM is { } clips) c.Range($"{at}.clipSpacingM", clips, 0.05, 10, "m");
        }
    }

    [GeneratedRegex("^[a-z0-9][a-z0-9-]{0,59}$")]
    private static partial Regex IdPattern();

    private sealed class Checker
    {
        public List<RigFault> Faults { get; } = [];

        public void Add(string path, string reason)
        {
            if (Faults.Count < MaxFaults) Faults.Add(new RigFault(path, reason));
        }

        public void Id(string path, string id)
        {
            if (!IdPattern().IsMatch(id)) Add(path, "an id is 1 to 60 lower-case letters, digits and hyphens");
        }

        public void Name(string path, string name)
        {
            if (string.IsNullOrWhiteSpace(name) || name.Length > 80) Add(path, "a name has 1 to 80 characters");
        }

        public void Range(string path, double value, double low, double high, string unit)
        {
            if (double.IsFinite(value) && value >= low && value <= high) return;
            string range = FormattableString.Invariant($"it must lie between {low} and {high} {unit}").TrimEnd();
            Add(path, double.IsFinite(value) ? range : "it is not a finite number; " + range);
        }

        public void Count(string path, int count, int low, int high)
        {
            if (count < low || count > high) Add(path, $"{count} entries, where {low} to {high} are allowed");
        }

        public void Place(string path, Point3 p)
        {
            Range($"{path}.xM", p.XM, -FarthestM, FarthestM, "m");
            Range($"{path}.yM", p.YM, -FarthestM, FarthestM, "m");
            Range($"{path}.zM", p.ZM, -FarthestM, FarthestM, "m");
        }

        public void Box(string path, Box box)
        {
            Place($"{path}.at", box.At);
            Range($"{path}.size.xM", box.Size.XM, 0.001, FarthestM, "m");
            Range($"{path}.size.yM", box.Size.YM, 0.001, FarthestM, "m");
            Range($"{path}.size.zM", box.Size.ZM, 0.001, FarthestM, "m");
        }

        public void Known(string path, bool known, string value, string what)
        {
            if (!known) Add(path, $"there is no {what} '{value}' in the catalogue");
        }

        public void Towards(string path, string zone, string towards, HashSet<string> ids)
        {
            if (towards == zone) Add(path, "a zone cannot face itself");
            else if (!ids.Contains(towards)) Add(path, $"there is no zone '{towards}'");
        }

        public HashSet<string> Unique(string path, IEnumerable<string> ids)
        {
            var seen = new HashSet<string>();
            int i = 0;
            foreach (string id in ids)
            {
                Id($"{path}[{i}].id", id);
                if (!seen.Add(id)) Add($"{path}[{i}].id", $"the id '{id}' is used twice");
                i++;
            }
            return seen;
        }
    }
}
