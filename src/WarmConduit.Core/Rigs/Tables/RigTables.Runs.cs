using System.Text.Json.Nodes;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Rigs.Tables;

/// <summary>Reading tables of runs.</summary>
public static partial class RigTables
{
    private static string ReadRuns(Rig rig, Sheet sheet, UnitSystem system, List<(int, Edit)> made, List<TableFault> faults)
    {
        var parts = ByName(rig.Parts, p => p.Name);
        var runs = ByName(rig.Runs, r => r.Name);
        var ids = rig.Parts.Select(p => p.Id).Concat(rig.Runs.Select(r => r.Id)).ToHashSet();
        foreach (var rows in InARow(sheet.Rows))
        {
            int before = faults.Count;
            var first = rows[0];
            string name = first["run"];
            if (name.Length is 0 or > 80) faults.Add(new TableFault(first.Line, "run", "a name has 1 to 80 characters"));
            if (rows.Count < 2) faults.Add(new TableFault(first.Line, null, "a run has at least two lines: where it starts, and where it ends"));
            if (!Enum.TryParse<Service>(first["carries"], ignoreCase: true, out var service))
                faults.Add(new TableFault(first.Line, "carries", $"one of {string.Join(", ", Enum.GetValues<Service>().Select(Camel))}"));
            var pipe = Catalogue.Pipe(first["pipe"]) ?? Catalogue.Pipes.FirstOrDefault(p =>
                string.Equals(p.Name, first["pipe"], StringComparison.OrdinalIgnoreCase));
            if (pipe is null)
                faults.Add(new TableFault(first.Line, "pipe",
                $"there is no pipe “{first["pipe"]}”{Nearest(first["pipe"], Catalogue.Pipes.Select(p => p.Id))}"));
            Sleeve? sleeve = null;
            if (first["insulation"] is { Length: > 0 } material)
            {
                if (Catalogue.Solid(material) is null)
                    faults.Add(new TableFault(first.Line, "insulation",
                    $"there is no material “{material}”{Nearest(material, Catalogue.Solids.Select(s => s.Id))}"));
                sleeve = new Sleeve(material, first.Quantity("thickness", Quantity.Length, system, faults) ?? 0.013);
            }
            RunEnd End(Sheet.Row row)
            {
                if (row["part"].Length == 0) return new RunEnd(At: Place(row, system, faults) ?? default(Point3));
                if (!parts.TryGetValue(row["part"], out var part))
                {
                    faults.Add(new TableFault(row.Line, "part", $"there is no part “{row["part"]}”{Nearest(row["part"], parts.Keys)}"));
                    return new RunEnd();
                }
                if (part.PortAt(row["port"]) is null)
                    faults.Add(new TableFault(row.Line, "port", $"{part.Name} has the ports {string.Join(", ", part.Ports.Select(p => p.Id))}"));
                return new RunEnd(part.Id, row["port"]);
            }
            var from = End(first);
            var to = rows.Count > 1 ? End(rows[^1]) : from;
            var bends = new List<Bend>();
            foreach (var row in rows.Skip(1).SkipLast(1))
                if (Place(row, system, faults) is { } at)
                    bends.Add(new Bend($"b{bends.Count + 1}", at));
            if (faults.Count > before) continue;
            if (runs.TryGetValue(name, out var known))
            {
                made.Add((first.Line, new RouteRun(known.Id, bends)));
                made.Add((first.Line, new ChangeThing($"runs/{known.Id}",
                    new JsonObject
                    {
                        ["service"] = Camel(service),
                        ["pipe"] = pipe!.Id,
                        ["from"] = RigDiff.Node(from),
                        ["to"] = RigDiff.Node(to),
                        ["insulation"] = RigDiff.Node(sleeve)
                    })));
            }
            else made.Add((first.Line, new AddThing("runs", (JsonObject)RigDiff.Node(new Run(Fresh(name, ids), name, service, pipe!.Id, from, to, bends,
                sleeve))!)));
        }
        return "run";
    }

    // Lines that follow each other under one name; a line without a name goes with the one above.
    private static List<List<Sheet.Row>> InARow(List<Sheet.Row> rows)
    {
        var groups = new List<List<Sheet.Row>>();
        string? name = null;
        foreach (var row in rows)
        {
            string run = row["run"];
            if (groups.Count == 0 || (run.Length > 0 && !string.Equals(run, name, StringComparison.OrdinalIgnoreCase)))
            {
                groups.Add([]);
                name = run;
            }
            groups[^1].Add(row);
        }
        return groups;
    }
}
