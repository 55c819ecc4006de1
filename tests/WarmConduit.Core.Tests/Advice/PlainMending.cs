using System.Text.Json.Nodes;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;

namespace WarmConduit.Core.Tests.Advice;

/// <summary>
/// The best that so many changes do to what stays, by brute force and with none of the adviser's ideas: a drain or a bleed at any point of any run and in the
/// middle of any length, any bend at heights between and beside its neighbours or taken out, any run laid even, any joint up or down, anything opened, any tank
/// vented, anything emptied by hand; all of them on top of each of the best sets so far.
/// </summary>
internal static class PlainMending
{
    private const int Width = 8;

    /// <summary>Litres that stay at the least with 0, 1, 2 … changes.</summary>
    public static List<double> Best(Rig rig, int changes)
    {
        double Stays(Rig r) => new Question(r, Conditions.Of(r.Brief)).Ask(DrainDownStudy.Ask).Stays.TotalL;
        var best = new List<double> { Stays(rig) };
        var beam = new List<(Rig Rig, double Litres)> { (rig, best[0]) };
        for (int n = 1; n <= changes; n++)
        {
            var next = new List<(Rig Rig, double Litres)>();
            foreach (var (so, _) in beam)
                foreach (var change in Changes(so))
                {
                    Rig done;
                    try
                    {
                        done = Editor.Apply(so, change).Rig;
                    }
                    catch (RigFileException)
                    {
                        continue;
                    }
                    if (InTheWay(so, done)) continue;
                    next.Add((done, Stays(done)));
                }
            // Sets that come to the same are one.
            beam = [.. next.OrderBy(s => s.Litres).DistinctBy(s => Math.Round(s.Litres, 6)).Take(Width)];
            if (beam.Count == 0) break;
            best.Add(Math.Min(best[^1], beam[0].Litres));
        }
        return best;
    }

    private static bool InTheWay(Rig before, Rig after) =>
        after.Parts.Where(p => Catalogue.Part(p.Stock)!.Look != PartLook.Joint && before.Parts.Find(p.Id)?.Box != p.Box)
            .Any(p => after.Shell.Obstacles.Any(o => o.Box.Overlaps(p.Box, 0.004))
                || after.Parts.Any(o => o.Id != p.Id && Catalogue.Part(o.Stock)!.Look != PartLook.Joint && o.Box.Overlaps(p.Box, 0.004)
                && !(before.Parts.Find(p.Id) is { } was && was.Box.Overlaps(o.Box, 0.004))));

    private static IEnumerable<IReadOnlyList<Edit>> Changes(Rig rig)
    {
        var index = new RigIndex(rig);
        foreach (var run in rig.Runs.Where(r => r.Service is not Service.Coolant))
        {
            var course = index.CourseOf(run);
            for (int k = 0; k < course.Length; k++)
            {
                if (k + 1 < course.Length && course[k].DistanceM(course[k + 1]) > 0.05)
                {
                    double length = course[k].DistanceM(course[k + 1]);
                    foreach (double at in (double[])[Math.Min(0.045, length / 2), length / 2, Math.Max(length / 2, length - 0.045)])
                        foreach (var change in Branches(rig, run, course[k].Towards(course[k + 1], at / length), k == 0 ? null : run.Bends[k - 1].Id, null))
                            yield return change;
                }
                if (k == 0 || k == course.Length - 1) continue;
                foreach (var change in Branches(rig, run, course[k], k == 1 ? null : run.Bends[k - 2].Id, run.Bends[k - 1].Id)) yield return change;
                double a = course[k - 1].ZM, b = course[k + 1].ZM, even = course[k - 1]
                    .Towards(course[k + 1], course[k - 1].DistanceM(course[k]) / (course[k - 1].DistanceM(course[k]) + course[k].DistanceM(course[k + 1]))).ZM;
                foreach (double z in (double[])[even, a + 0.004, a - 0.004, b + 0.004, b - 0.004, a + 0.03, a - 0.03, b + 0.03, b - 0.03])
                    yield return [new RouteRun(run.Id, [.. run.Bends.Select((bend, i) => i == k - 1 ? bend with { At = bend.At with { ZM = z } } : bend)])];
                yield return [new RouteRun(run.Id, [.. run.Bends.Where((_, i) => i != k - 1)])];
            }
            if (run.Bends.Count > 1) yield return [new RouteRun(run.Id, [])];
            if (run.Bends.Count > 0) yield return [new RouteRun(run.Id, Even(run, course))];
        }
        string scenario = rig.ScenarioOf(ScenarioKind.Drain).Id;
        foreach (var part in rig.Parts)
        {
            var stock = Catalogue.Part(part.Stock)!;
            foreach (var position in stock.Positions.Where(p => p.Passes && p.Id != Positions.On))
                yield return [new SetPosition(scenario, part.Id, position.Id)];
            if (stock is { KeepsWater: true, Protects: false } && rig.ByHand.Find(part.Id) is null)
                yield return [new AddThing("byHand", new JsonObject { ["id"] = part.Id, ["task"] = stock.Remedy })];
            if (stock.Group is PartGroup.Joints or PartGroup.Valves or PartGroup.Drain)
                foreach (double by in (double[])[-0.2, -0.1, -0.05, -0.02, 0.02, 0.05, 0.1, 0.2])
                    yield return [new MoveThings([$"parts/{part.Id}"], new Point3(0, 0, by))];
            if (stock.Passage != Passage.Vessel) continue;
            foreach (var port in part.Ports.Where(p => rig.Runs.All(r => (r.From.Part, r.From.Port) != (part.Id, p.Id)
                && (r.To.Part, r.To.Port) != (part.Id, p.Id))))
                foreach (var (open, end, service, pipe, by) in ((string, string, Service, string, double)[])[("vent-cap", "end", Service.Vent, "vent-hose-10",
                    0.5), ("drain-cock", "in", Service.Cold, "pex-1/2", -0.06)])
                    yield return
                    [
                        new PlacePart($"plain-{rig.Parts.Count}", open, "end",
                        part.PortAt(port.Id)!.Value + new Point3(0, 0, by) - Catalogue.Part(open)!.Ports[0].Offset),
                        new InsertFragment("line", [], [new Run($"plain-{rig.Runs.Count}", "line", service, pipe, new RunEnd(part.Id, port.Id),
                        new RunEnd($"plain-{rig.Parts.Count}", end), [])]),
                    ];
            if (stock.Group == PartGroup.Heat) continue;
            foreach (var port in part.Ports.Where(p => p.Offset.ZM > 0))
                yield return [new ChangeThing($"parts/{part.Id}/ports/{port.Id}",
                new JsonObject { ["offset"] = JsonNode.Parse(FormattableString.Invariant($"{{\"xM\":{port.Offset.XM},\"yM\":{port.Offset.YM},\"zM\":0}}")) })];
        }
    }

    private static List<Bend> Even(Run run, Point3[] course)
    {
        double total = 0, at = 0;
        for (int i = 1; i < course.Length; i++) total += course[i].DistanceM(course[i - 1]);
        var bends = new List<Bend>();
        for (int i = 1; i + 1 < course.Length; i++)
        {
            at += course[i].DistanceM(course[i - 1]);
            bends.Add(run.Bends[i - 1] with { At = course[i] with { ZM = course[0].ZM + ((course[^1].ZM - course[0].ZM) * at / total) } });
        }
        return bends;
    }

    // A tee in the line, and on its branch a cock 60 mm below or a bleed 30 mm above, on either side.
    private static IEnumerable<IReadOnlyList<Edit>> Branches(Rig rig, Run run, Point3 at, string? after, string? instead)
    {
        string id = $"plain-{rig.Parts.Count}";
        List<Edit> teed = [];
        if (instead is not null) teed.Add(new RouteRun(run.Id, [.. run.Bends.Where(b => b.Id != instead)]));
        teed.Add(new PutTee(run.Id, after, at, $"{id}-tee", "tee", $"{id}-on"));
        Rig so;
        try
        {
            so = Editor.Apply(rig, teed).Rig;
        }
        catch (RigFileException)
        {
            yield break;
        }
        var c = so.Parts.Find($"{id}-tee")!.PortAt("c")!.Value;
        foreach (var (stock, up) in ((string, double)[])[("drain-cock", -0.06), ("bleed", 0.03)])
            yield return
            [
                .. teed, new PlacePart(id, stock, stock, c + new Point3(0, 0.03, up) - Catalogue.Part(stock)!.Ports[0].Offset),
                new InsertFragment("leg", [], [new Run($"{id}-leg", "leg", run.Service, run.Pipe, new RunEnd($"{id}-tee", "c"), new RunEnd(id, "in"), [])]),
            ];
    }
}
