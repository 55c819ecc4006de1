using System.Text.Json.Nodes;
using WarmConduit.Core.Advice.Tasks;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Scenarios;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Fixes;

/// <summary>Ideas about where lines and parts lie: out of the way, within reach, held, joined.</summary>
internal sealed class RouteIdeas(Question question, Fitter fit)
{
    /// <summary>What makes a task possible, by its name.</summary>
    public IEnumerable<Idea> MendFor(string task)
    {
        var found = question.Tasks;
        if (found.Named(task, question.Cancel) is { } named && TaskStudy.MendOf(question, found, named) is { } mend)
            yield return new Idea(mend.Words, mend.Edits);
    }

    private const double Spare = 0.005, ClearM = 0.015, NearM = 0.1;

    private Rig Rig => question.Rig;

    /// <summary>Without one of its bends.</summary>
    public Idea Without(string runId, string bendId)
    {
        var run = question.Index.Run(runId);
        return new Idea($"{run.Name}: without bend {1 + run.Bends.ToList().FindIndex(b => b.Id == bendId)}",
            [new RouteRun(runId, [.. run.Bends.Where(b => b.Id != bendId)])]);
    }

    /// <summary>A pipe's width aside, or above or below; its ends stay.</summary>
    public IEnumerable<Idea> Aside(string runId)
    {
        var run = question.Index.Run(runId);
        if (run.Bends.Count == 0) yield break;
        double far = Math.Ceiling(100 * (Catalogue.Pipe(run.Pipe)!.OuterDiameterM + 0.01)) / 100;
        foreach (var (by, words) in ((Point3, string)[])[(new(0, far, 0), "to the far side"), (new(0, -far, 0), "to the kerb side"), (new(0, 0, far), "up"),
            (new(0, 0, -far), "down")])
            yield return new Idea(Sentence.Of($"{run.Name}: {Measure.Length(far)} {words}"),
                [new RouteRun(runId, [.. run.Bends.Select(b => b with { At = Turning.Micro(b.At + by) })])], null, $"{runId} aside");
    }

    /// <summary>Over, under, or past either side of each solid that a run passes through.</summary>
    public IEnumerable<Idea> Around(string runId)
    {
        var run = question.Index.Run(runId);
        var course = question.Index.CourseOf(run);
        foreach (var solid in Rig.Shell.Obstacles)
        {
            var (low, far) = (solid.Box.At, solid.Box.Far());
            foreach (var (axis, to, words) in ((Axis, double, string)[])[(Axis.Z, far.ZM + ClearM, "over"), (Axis.Z, low.ZM - ClearM, "under"),
                (Axis.Y, far.YM + ClearM, "past the far side of"), (Axis.Y, low.YM - ClearM, "past the kerb side of")])
            {
                Point3 Led(Point3 p) => axis == Axis.Z ? p with { ZM = to } : p with { YM = to };
                var bends = new List<Bend>();
                int led = 0;
                for (int i = 0; i + 1 < course.Length; i++)
                {
                    // A bend inside is led out with the rest.
                    if (i > 0) bends.Add(solid.Box.Holds(course[i]) ? run.Bends[i - 1] with { At = Turning.Micro(Led(course[i])) } : run.Bends[i - 1]);
                    if (solid.Box.Through(course[i], course[i + 1], ClearM) is not { } span) continue;
                    foreach (double t in (double[])[span.Enter, span.Leave])
                        if (t is > 0.001 and < 0.999)
                            bends.Add(new Bend(fit.Free($"led-{++led}", run.Bends.Select(b => b.Id)), Turning.Micro(Led(course[i].Towards(course[i + 1], t)))));
                }
                if (led > 0) yield return new Idea($"{run.Name}: {words} “{solid.Name}”", [new RouteRun(runId, bends)]);
            }
        }
    }

    /// <summary>A run without one of its bends, or without any.</summary>
    public IEnumerable<Idea> Unbent(string runId, string bend) => [Without(runId, bend),
        new Idea($"{question.Index.Run(runId).Name}: straight from end to end", [new RouteRun(runId, [])])];

    public IEnumerable<Idea> Capped(string runId)
    {
        var run = question.Index.Run(runId);
        foreach (var (name, end) in ((string, RunEnd)[])[("from", run.From), ("to", run.To)])
        {
            if (end.At is not { } at) continue;
            if (PortNear(at) is { } near)
                yield return new Idea($"Join {run.Name} to {near.Words}",
                [new ChangeThing($"runs/{run.Id}", new JsonObject { [name] = new JsonObject { ["part"] = near.Part, ["port"] = near.Port } })]);
            string cap = fit.Free("cap");
            yield return new Idea(
                $"Cap {run.Name}",
                [new PlacePart(cap, "end-cap", $"{run.Name}, cap", Turning.Micro(at - new Point3(0, 0.015, 0.008))),
                new ChangeThing($"runs/{run.Id}", new JsonObject { [name] = new JsonObject { ["part"] = cap, ["port"] = "in" } })]);
        }
        yield return new Idea($"Remove {run.Name}", [new RemoveThing($"runs/{run.Id}")]);
    }

    // A port that nothing is joined to, nearer than a hand's breadth: the nearest.
    private (string Part, string Port, string Words)? PortNear(Point3 at)
    {
        var near = Rig.Parts.SelectMany(p => p.Ports.Select(o => (Part: p, Port: o, FarM: p.PortAt(o.Id)!.Value.DistanceM(at))))
            .Where(p => p.FarM < NearM && !question.Index.IsJoined(p.Part.Id, p.Port.Id)).ToList();
        return near.Count == 0 ? null : near.MinBy(p => p.FarM) is var best ? (best.Part.Id, best.Port.Id, $"{best.Part.Name}, {best.Port.Called()}") : null;
    }

    /// <summary>Out of each place that is kept free, by the shorter ways.</summary>
    public IEnumerable<Idea> OutOf(string partId)
    {
        var part = question.Index.Part(partId);
        foreach (var keepOut in Rig.Shell.KeepOuts.Where(k => k.Box.Holds(part.Box.Centre()) || k.Box.Overlaps(part.Box)))
        {
            var (low, high, at, far) = (keepOut.Box.At, keepOut.Box.Far(), part.Box.At, part.Box.Far());
            Point3[] ways =
            [
                new(low.XM - far.XM - Spare, 0, 0), new(high.XM - at.XM + Spare, 0, 0), new(0, low.YM - far.YM - Spare, 0), new(0, high.YM - at.YM + Spare, 0),
            ];
            foreach (var by in ways.OrderBy(w => w.DistanceM(default)).Take(3))
                yield return new Idea(Sentence.Of($"Move {part.Name} out of “{keepOut.Name}”, by {Measure.Length(by.DistanceM(default))}"),
                    [new MoveThings([$"parts/{partId}"], by)]);
        }
    }

    /// <summary>A clip in the middle of the length that hangs.</summary>
    public IEnumerable<Idea> Clipped(string runId, string pointId)
    {
        var run = question.Index.Run(runId);
        int leg = pointId == "from" ? 0 : run.Bends.ToList().FindIndex(b => b.Id == pointId) + 1;
        var course = question.Index.CourseOf(run);
        if (leg + 1 >= course.Length) yield break;
        yield return new Idea(
            $"A clip in the middle of {run.Name}, where it hangs",
            [new InsertBend(runId, new Bend(fit.Free("clip", run.Bends.Select(b => b.Id)), Turning.Micro(course[leg].Towards(course[leg + 1], 0.5)), null,
            Fixing.Clip), leg == 0 ? null : run.Bends[leg - 1].Id)]);
    }

    /// <summary>Over to the nearest place that a hand gets to.</summary>
    public IEnumerable<Idea> Within(string partId)
    {
        var part = question.Index.Part(partId);
        var centre = part.Box.Centre();
        foreach (var access in Rig.Shell.Access.OrderBy(a => a.Box.OutsideM(centre)).Take(2))
        {
            var (low, far) = (access.Box.At, access.Box.Far());
            double To(double at, double from, double to) => to - from < 2 * Spare ? (from + to) / 2 - at : Math.Clamp(at, from + Spare, to - Spare) - at;
            var by = Turning.Micro(new Point3(To(centre.XM, low.XM, far.XM), To(centre.YM, low.YM, far.YM), To(centre.ZM, low.ZM, far.ZM)));
            yield return new Idea(Sentence.Of($"Move {part.Name} to within reach of “{access.Name}”, by {Measure.Length(by.DistanceM(default))}"),
                [new MoveThings([$"parts/{partId}"], by)]);
        }
    }

    /// <summary>A ball valve in the line that leads to the part.</summary>
    public IEnumerable<Idea> Isolated(string partId)
    {
        // At the tank or at the part, wherever there is a straight length for it.
        bool Tank(RunEnd end) => end.Part is { } id && Catalogue.Part(question.Index.Part(id).Stock) is { Group: PartGroup.Store, Passage: Passage.Vessel };
        var run = Rig.Runs.Where(r => r.Service == Service.Cold && (r.To.Part == partId || r.From.Part == partId || Tank(r.From) || Tank(r.To)))
            .OrderByDescending(r => Tank(r.From) || Tank(r.To)).FirstOrDefault(r => fit.LongestLeg(r).LengthM >= Fitter.StraightM);
        if (run is null) yield break;
        yield return new Idea($"A ball valve in {run.Name}", fit.Inline(run, "ball-valve", "isolator", "isolating valve", "a", "b"));
    }
}
