using System.Globalization;
using System.Text.Json.Nodes;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Rigs.Tables;

/// <summary>
/// Parts and runs as tables. Parts: name, stock, from rear, from kerb, above floor, turned, holds, along, across, high, ports, positions. Runs, a line for each
/// point in the order of flow: run, carries, pipe, part, port, from rear, from kerb, above floor, insulation, thickness. Things are known by their name: one
/// that is there already is moved or laid anew, one that is not is made.
/// </summary>
public static partial class RigTables
{
    private const string Rear = "from rear", Kerb = "from kerb", Height = "above floor", Along = "along", Across = "across", High = "high";
    private const int MostFaults = 200;

    /// <summary>The parts of a rig, a line each under their headings, lengths in mm.</summary>
    public static IEnumerable<IReadOnlyList<string>> Parts(Rig rig)
    {
        yield return ["name", "stock", $"{Rear} (mm)", $"{Kerb} (mm)", $"{Height} (mm)", "turned", "holds (L)", $"{Along} (mm)", $"{Across} (mm)",
            $"{High} (mm)", "ports", "positions"];
        foreach (var part in rig.Parts)
            yield return
            [
                Plain(part.Name), part.Stock, .. Millimetres(part.Box.At), Turned(part.Orientation),
                part.HoldsL?.ToString("0.###", CultureInfo.InvariantCulture) ?? "", .. Millimetres(part.Box.Size),
                string.Join("; ", part.Ports.Where(p => AsStock(part).PortAt(p.Id) is not { } usual || usual.DistanceM(part.PortAt(p.Id)!.Value) > 5e-6)
                .Select(p => Written(p, AsStock(part).PortAt(p.Id) is not null))),
                string.Join("; ", rig.Scenarios.Where(s => s.Settings.Find(part.Id) is not null).Select(s => $"{s.Id}={s.Settings.Find(part.Id)!.Position}")),
            ];
    }

    /// <summary>The runs of a rig, a line for each point under their headings, lengths in mm.</summary>
    public static IEnumerable<IReadOnlyList<string>> Runs(Rig rig)
    {
        var index = new RigIndex(rig);
        yield return ["run", "carries", "pipe", "part", "port", $"{Rear} (mm)", $"{Kerb} (mm)", $"{Height} (mm)", "insulation", "thickness (mm)"];
        foreach (var run in rig.Runs)
        {
            IReadOnlyList<string> Point(RunEnd? end, Point3 at) =>
            [
                Plain(run.Name), Camel(run.Service), run.Pipe, end?.Part is { } id ? Plain(index.Part(id).Name) : "", end?.Port ?? "", .. Millimetres(at),
                run.Insulation?.Material ?? "", run.Insulation is { } s ? (s.ThicknessM * 1000).ToString("0.##", CultureInfo.InvariantCulture) : "",
            ];
            yield return Point(run.From, index.PlaceOf(run.From));
            foreach (var bend in run.Bends) yield return Point(null, bend.At);
            yield return Point(run.To, index.PlaceOf(run.To));
        }
    }

    /// <summary>
    /// Reads a table of parts or of runs, whichever its headings say. A row that is wrong is left out and told; of a run every row has to be right. Pure.
    /// O(rows · log rows).
    /// </summary>
    /// <param name="rig">The rig it is read for.</param>
    /// <param name="lines">Its lines, the headings first.</param>
    /// <param name="system">The system in which bare numbers are meant where the heading names no unit.</param>
    /// <param name="before">Lines that could not even be taken apart.</param>
    public static TableRead Read(Rig rig, IReadOnlyList<TableLine> lines, UnitSystem system, IReadOnlyList<TableFault>? before = null)
    {
        var faults = new List<TableFault>(before ?? []);
        var sheet = new Sheet(lines, faults);
        var made = new List<(int Line, Edit Edit)>();
        string what;
        if (sheet.Has("run")) what = ReadRuns(rig, sheet, system, made, faults);
        else if (sheet.Has("stock")) what = ReadParts(rig, sheet, system, made, faults);
        else return new TableRead("Nothing to do", [], [new TableFault(1, null, "its first line has to name the columns: “name, stock, from rear, from kerb, " +
            "above floor” for parts, “run, carries, pipe, part, port, from rear, from kerb, above floor” for runs")]);
        LeaveOut(rig, made, faults);
        return new TableRead(made.Count == 0 ? "Nothing to do" : $"{made.Count} {(made.Count == 1 ? what : what + "s")} from a table",
            [.. made.Select(m => m.Edit)], [.. faults.OrderBy(f => f.Line).Take(MostFaults)]);
    }

    // What the editor refuses is left out as well, at its own line.
    private static void LeaveOut(Rig rig, List<(int Line, Edit Edit)> made, List<TableFault> faults)
    {
        if (made.Count > Editor.MaxEdits)
        {
            faults.Add(new TableFault(made[Editor.MaxEdits].Line, null, $"more than {Editor.MaxEdits} things at once; the rest is left out"));
            made.RemoveRange(Editor.MaxEdits, made.Count - Editor.MaxEdits);
        }
        var at = rig;
        made.RemoveAll(m =>
        {
            try
            {
                at = Editor.Apply(at, [m.Edit]).Rig;
                return false;
            }
            catch (RigFileException e)
            {
                faults.Add(new TableFault(m.Line, null, e.Faults[0].Reason));
                return true;
            }
        });
    }

    private static string ReadParts(Rig rig, Sheet sheet, UnitSystem system, List<(int, Edit)> made, List<TableFault> faults)
    {
        var byName = ByName(rig.Parts, p => p.Name);
        var ids = rig.Parts.Select(p => p.Id).Concat(rig.Runs.Select(r => r.Id)).ToHashSet();
        foreach (var row in sheet.Rows)
        {
            int before = faults.Count;
            string name = row["name"], stock = row["stock"];
            if (name.Length is 0 or > 80) faults.Add(new TableFault(row.Line, "name", "a name has 1 to 80 characters"));
            var kind = Catalogue.Part(stock) ?? Catalogue.Parts.FirstOrDefault(p => string.Equals(p.Name, stock, StringComparison.OrdinalIgnoreCase));
            if (kind is null)
                faults.Add(new TableFault(row.Line, "stock", stock.Length == 0 ? "say what it is"
                : $"there is no “{stock}” in stock{Nearest(stock, Catalogue.Parts.Select(p => p.Id))}"));
            var at = Place(row, system, faults);
            double? holds = row.Quantity("holds", Quantity.Volume, system, faults);
            Orientation? turned = null;
            if (row["turned"] is { Length: > 0 } turns && (turned = ReadTurned(turns)) is null)
                faults.Add(new TableFault(row.Line, "turned", "quarter turns, 0 to 3, and “mirrored” or “upside down” behind them"));
            var edges = ((string[])[Along, Across, High]).Select(c => row.Quantity(c, Quantity.Length, system, faults)).ToList();
            var ports = ReadPorts(row, faults);
            var positions = ReadPositions(row, faults);
            if (faults.Count > before) continue;
            Point3 Size(Point3 was) => new(edges[0] ?? was.XM, edges[1] ?? was.YM, edges[2] ?? was.ZM);
            // Ports that lie elsewhere than in stock, or that stock does not have; then how it stands.
            void Finish(Part part)
            {
                foreach (var port in ports)
                    made.Add((row.Line, part.PortAt(port.Id) is null
                        ? new AddThing($"parts/{part.Id}/ports", (JsonObject)RigDiff.Node(port)!)
                        : new ChangeThing($"parts/{part.Id}/ports/{port.Id}", new JsonObject { ["offset"] = Node(port.Offset) })));
                foreach (var (scenario, position) in positions) made.Add((row.Line, new SetPosition(scenario, part.Id, position)));
            }
            if (byName.TryGetValue(name, out var known))
            {
                var values = new JsonObject { ["box"] = new JsonObject { ["at"] = Node(at!.Value), ["size"] = Node(Size(known.Box.Size)) } };
                if (holds is { } l) values["holdsL"] = l;
                made.Add((row.Line, new ChangeThing($"parts/{known.Id}", values)));
                Finish(known);
                continue;
            }
            string id = Fresh(name, ids);
            made.Add((row.Line, new PlacePart(id, kind!.Id, name, at!.Value, turned == Orientation.AsStock ? null : turned)));
            var placed = Turning.FromStock(kind, id, name, at.Value, turned);
            if (Size(placed.Box.Size) is var size && size.DistanceM(placed.Box.Size) > 5e-6) made.Add((row.Line, new ResizePart(id, size)));
            Finish(placed);
            if (holds is { } litres) made.Add((row.Line, new ChangeThing($"parts/{id}", new JsonObject { ["holdsL"] = litres })));
        }
        return "part";
    }

    // A part of its stock, where and as large as it is: where its ports lie unless they were moved.
    private static Part AsStock(Part part) => Turning.Resized(Turning.FromStock(Catalogue.Part(part.Stock)!, part.Id, part.Name, part.Box.At,
        part.Orientation), part.Box.Size);

    private static string Turned(Orientation? turned) =>
        turned is null ? "" : string.Create(CultureInfo.InvariantCulture,
            $"{turned.QuarterTurns}{(turned.Mirrored ? " mirrored" : "")}{(turned.UpsideDown ? " upside down" : "")}");

    private static Orientation? ReadTurned(string text)
    {
        bool mirrored = text.Contains("mirrored", StringComparison.OrdinalIgnoreCase), over = text.Contains("upside down", StringComparison.OrdinalIgnoreCase);
        string turns = text.Replace("mirrored", "", StringComparison.OrdinalIgnoreCase).Replace("upside down", "", StringComparison.OrdinalIgnoreCase).Trim();
        return int.TryParse(turns.Length == 0 ? "0" : turns, NumberStyles.None, CultureInfo.InvariantCulture, out int quarter) && quarter <= 3
            ? new Orientation(quarter, mirrored, over) : null;
    }

    // "outlet 0/150/20", mm from its corner; of a port that stock does not have also the way it looks, its bore in mm and what it is for.
    private static string Written(Port port, bool known)
    {
        string place = string.Create(CultureInfo.InvariantCulture,
            $"{port.Id} {port.Offset.XM * 1000:0.##}/{port.Offset.YM * 1000:0.##}/{port.Offset.ZM * 1000:0.##}");
        return known ? place : string.Create(CultureInfo.InvariantCulture,
            $"{place}{(port.Facing is { } f ? $" {Camel(f)}" : "")}{(port.BoreM is { } b ? $" {b * 1000:0.###}" : "")}")
            + (port.Role is { } r ? $" {Camel(r)}" : "");
    }

    private static List<Port> ReadPorts(Sheet.Row row, List<TableFault> faults)
    {
        var ports = new List<Port>();
        foreach (string said in row["ports"].Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
        {
            string[] words = said.Split(' ', StringSplitOptions.RemoveEmptyEntries), place = words.Length > 1 ? words[1].Split('/') : [];
            double[] mm = [.. place.Select(p => double.TryParse(p, NumberStyles.Float, CultureInfo.InvariantCulture, out double v) ? v : double.NaN)];
            if (mm.Length != 3 || !mm.All(double.IsFinite))
            {
                faults.Add(new TableFault(row.Line, "ports",
                    $"“{said}”: a port is its name and its place from the corner of the part in mm, such as outlet 0/150/20"));
                continue;
            }
            var port = new Port(words[0], new Point3(Math.Round(mm[0] / 1000, 5), Math.Round(mm[1] / 1000, 5), Math.Round(mm[2] / 1000, 5)));
            foreach (string more in words.Skip(2))
            {
                if (double.TryParse(more, NumberStyles.Float, CultureInfo.InvariantCulture, out double bore)) port = port with { BoreM = bore / 1000 };
                else if (Enum.TryParse<Facing>(more, ignoreCase: true, out var facing)) port = port with { Facing = facing };
                else if (Enum.TryParse<PortRole>(more, ignoreCase: true, out var role)) port = port with { Role = role };
                else faults.Add(new TableFault(row.Line, "ports", $"“{more}” is no bore, no way to look and nothing that a port is for"));
            }
            ports.Add(port);
        }
        return ports;
    }

    private static List<(string Scenario, string Position)> ReadPositions(Sheet.Row row, List<TableFault> faults)
    {
        var positions = new List<(string, string)>();
        foreach (string said in row["positions"].Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
        {
            if (said.Split('=', StringSplitOptions.TrimEntries) is [{ Length: > 0 } scenario, { Length: > 0 } position]) positions.Add((scenario, position));
            else faults.Add(new TableFault(row.Line, "positions", $"“{said}”: a scenario and how the part stands in it, such as drain=open"));
        }
        return positions;
    }

    private static Point3? Place(Sheet.Row row, UnitSystem system, List<TableFault> faults)
    {
        double Read(string column)
        {
            if (row.Quantity(column, Quantity.Length, system, faults) is { } value) return value;
            faults.Add(new TableFault(row.Line, column, "a length belongs here"));
            return double.NaN;
        }
        var (x, y, z) = (Read(Rear), Read(Kerb), Read(Height));
        return double.IsFinite(x + y + z) ? new Point3(Math.Round(x, 5), Math.Round(y, 5), Math.Round(z, 5)) : null;
    }

    private static Dictionary<string, T> ByName<T>(IEnumerable<T> things, Func<T, string> name)
    {
        var made = new Dictionary<string, T>(StringComparer.OrdinalIgnoreCase);
        foreach (var thing in things) made.TryAdd(name(thing), thing);
        return made;
    }

    private static string Fresh(string name, HashSet<string> taken)
    {
        string stem = RigCheck.IdFrom(name, "thing");
        string id = stem;
        for (int n = 2; !taken.Add(id); n++) id = $"{stem}-{n}";
        return id;
    }

    private static string Nearest(string typed, IEnumerable<string> known)
    {
        if (typed.Length < 2) return "";
        var like = known.Where(k => k.Contains(typed, StringComparison.OrdinalIgnoreCase) || typed.Contains(k, StringComparison.OrdinalIgnoreCase)
            || k.StartsWith(typed[..2], StringComparison.OrdinalIgnoreCase)).Take(3).ToList();
        return like.Count == 0 ? "" : $"; did you mean {string.Join(", ", like)}?";
    }

    private static JsonNode Node(Point3 p) => RigDiff.Node(p)!;

    private static string Camel<T>(T value)
        where T : struct, Enum => System.Text.Json.JsonNamingPolicy.CamelCase.ConvertName(value.ToString());

    // A spreadsheet takes what begins like this for a formula.
    private static string Plain(string text) => text.Length > 0 && text[0] is '=' or '+' or '-' or '@' or '\t' or '\r' ? $"'{text}" : text;

    private static IEnumerable<string> Millimetres(Point3 at)
    {
        foreach (double m in (double[])[at.XM, at.YM, at.ZM]) yield return (m * 1000).ToString("0.##", CultureInfo.InvariantCulture);
    }
}
