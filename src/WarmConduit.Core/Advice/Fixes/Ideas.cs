using System.Text.Json;
using System.Text.Json.Nodes;
using WarmConduit.Core.Advice.Cold;
using WarmConduit.Core.Advice.Rules;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Parking;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Fixes;

/// <summary>What a builder might do about a finding. Whether it helps is found by trying it. Of ideas of one <paramref name="Sort"/> the best is enough.</summary>
internal sealed record Idea(Sentence Words, IReadOnlyList<Edit> Edits, Band? Band = null, string? Sort = null);

/// <summary>Ideas by kind of finding.</summary>
internal sealed class Ideas(Question question)
{
    private const double Spare = 0.005, DrainDropM = 0.06, ClearM = 0.015;

    private readonly DrainDownAnswer _drained = question.Ask(DrainDownStudy.Ask);

    private Rig Rig => question.Rig;

    /// <summary>All ideas for <paramref name="finding"/>, the plainest first.</summary>
    public IEnumerable<Idea> For(Finding finding)
    {
        var own = (finding.Mends ?? []).Select(m => new Idea(m.Words, m.Edits));
        return own.Concat(finding.Kind switch
        {
            FindingKind.Pool => _drained.Pools.FirstOrDefault(p => p.Id == finding.Id) is { } pool ? OfPool(pool) : [],
            FindingKind.FlatRun => finding.RunIds.SelectMany(id => OfSlope(id).Concat(OfEnds(id))),
            FindingKind.Choked => finding.RunIds.SelectMany(id => OfDip(id, finding.Place)),
            FindingKind.Parking => OfParking(finding.Id),
            FindingKind.AirLock => finding.RunIds.SelectMany(id => OfHump(id, finding.Place)),
            FindingKind.NothingOpen => Open(Rig.Parts.Where(p => Catalogue.Part(p.Stock)!.Passage == Passage.Drain)),
            FindingKind.KeepsWater => finding.Place?.PartId is { } id ? ByHand(id).Concat(OfPoolsAt(id)) : [],
            FindingKind.FirstIce => finding.Place?.PartId is { } id ? ByHand(id).Concat(OfPoolsAt(id)).Concat(new WarmIdeas(question).For(id).Select(i => new Idea(i.Words, i.Edits, null, i.Sort))) : [],
            FindingKind.LooseEnd => finding.RunIds.SelectMany(Capped),
            FindingKind.JointInKeepOut => finding.Place?.PartId is { } joint ? OutOf(joint) : [],
            FindingKind.TightBend => finding.Place is { RunId: { } kinked, PointId: { } bend } ? [Without(kinked, bend), new Idea($"{question.Index.Run(kinked).Name}: straight from end to end", [new RouteRun(kinked, [])])] : [],
            FindingKind.SharedPlace => finding.RunIds.SelectMany(Aside),
            FindingKind.InTheWay => finding.RunIds.SelectMany(Around),
            FindingKind.Sag => finding.Place is { RunId: { } hanging, PointId: { } first } ? Clipped(hanging, first) : [],
            FindingKind.OutOfReach => finding.Place?.PartId is { } hidden ? Within(hidden) : [],
            FindingKind.Scald => finding.Place?.PartId is { } heater ? Tempered(heater) : [],
            FindingKind.NoIsolator => finding.Place?.PartId is { } shut ? Isolated(shut) : [],
            _ => [],
        });
    }

    // What would mend the pools that it has when it stands so.
    private IEnumerable<Idea> OfParking(string findingId)
    {
        if (findingId == ParkingRule.Outside)
        {
            if (ParkingCount.WorstOutside(question) is not { } worst) yield break;
            var there = At(worst.At);
            foreach (var pool in there._drained.Pools.Where(p => p.Shares.Count > 0).Take(4))
                foreach (var idea in there.OfPool(pool)) yield return idea;
            yield break;
        }
        foreach (var (tank, at, _) in ParkingCount.WorstTanks(question))
            if (findingId == ParkingRule.OfTank + tank.Id)
                foreach (var idea in At(at).OfTank(tank)) yield return idea;
    }

    private Ideas At(Attitude parked) => new(question.With(question.Conditions with { Parked = parked }));

    private IEnumerable<Idea> OfPool(PoolAnswer pool)
    {
        foreach (var share in pool.Shares)
            foreach (var idea in OfSlope(share.RunId)) yield return idea;
        // A bend that climbs, or one that hangs, on its own.
        foreach (var place in (Place?[])[pool.Crest, pool.Lowest])
            if (place is { RunId: { } run, PointId: { } point } && point is not (RunPoint.From or RunPoint.To) && SlopesOf(run).Straight(point) is { } straight)
                yield return Moved(run, straight);
        if (pool.Crest is { PartId: { } crest } && Movable(crest) && pool.DepthM is { } depth)
            foreach (double more in (double[])[Spare, 0.03])
                yield return Raised(crest, -(depth + more));
        if (pool.Lowest is { PartId: { } low } && Movable(low) && pool.DepthM is { } deep)
            yield return Raised(low, deep + Spare);
        if (pool.ShutBy is { PartId: { } shut }) foreach (var idea in Open([question.Index.Part(shut)])) yield return idea;
        if (pool.Shares.Count > 0 && Drained(pool.Lowest) is { } drain) yield return drain;
        foreach (var part in pool.Parts.Select(p => question.Index.Part(p.PartId)))
        {
            if (Catalogue.Part(part.Stock)!.Passage == Passage.Vessel) foreach (var idea in OfTank(part)) yield return idea;
            else if (Movable(part.Id) && pool.DepthM is { } stands) yield return Raised(part.Id, stands + Spare);
        }
    }

    private Slopes SlopesOf(string runId) => new(question.Index.Run(runId), _drained.Runs.First(r => r.RunId == runId));

    private IEnumerable<Idea> OfSlope(string runId)
    {
        var slopes = SlopesOf(runId);
        foreach (double fall in (double[])[Rig.Brief.LeastFall, TradeConstants.ToleratedFall, 0.003])
        {
            if (slopes.Lifted(fall) is { } up) yield return Moved(runId, up);
            if (slopes.Lowered(fall) is { } down) yield return Moved(runId, down);
        }
        if (Laying.ItsFall(question.Index, question.Index.Run(runId), question.Conditions.Parked, 0.003)?[0] is { } even) yield return new Idea($"Lay {question.Index.Run(runId).Name} evenly between its ends", even.Edits);
    }

    // The joint at its upper end lifted, or that at its lower end lowered.
    private IEnumerable<Idea> OfEnds(string runId)
    {
        var (run, drain) = (question.Index.Run(runId), _drained.Runs.First(r => r.RunId == runId));
        var (upper, lower) = drain.Reversed ? (run.To, run.From) : (run.From, run.To);
        double drop = question.Index.PlaceOf(upper).ZM - question.Index.PlaceOf(lower).ZM;
        double more = Rig.Brief.LeastFall * drain.LengthM - drop + Spare / 2;
        if (more <= 0) yield break;
        if (lower.Part is { } low && Movable(low)) yield return Raised(low, -more);
        if (upper.Part is { } high && Movable(high)) yield return Raised(high, more);
    }

    private Idea Moved(string runId, (RouteRun Edit, int Moved, double ByM, Band? Band) how)
    {
        var run = question.Index.Run(runId);
        var (far, way) = (Measure.Length(Math.Abs(how.ByM)), how.ByM > 0 ? "up" : "down");
        var words = how.Band is { } band
            ? Sentence.Of($"{run.Name}, bend {1 + Math.Max(0, run.Bends.ToList().FindIndex(b => b.Id == band.PointId))}: {way} by {far}")
            : Sentence.Of($"{run.Name}: {how.Moved} bends {way}, by {far} at most");
        return new Idea(words, [how.Edit], how.Band, $"{runId} {way} {how.Band?.PointId}");
    }

    private bool Movable(string partId) => Catalogue.Part(question.Index.Part(partId).Stock) is { Group: PartGroup.Joints or PartGroup.Valves or PartGroup.Drain or PartGroup.Clean or PartGroup.Move, Passage: not Passage.Vessel };

    private Idea Raised(string partId, double byM)
    {
        double by = byM > 0 ? Math.Ceiling(byM * 1000) / 1000 : Math.Floor(byM * 1000) / 1000;
        return new Idea(Sentence.Of($"{question.Index.Part(partId).Name}: {(by > 0 ? "up" : "down")} by {Measure.Length(Math.Abs(by))}"), [new MoveThings([$"parts/{partId}"], new Point3(0, 0, by))], null, $"{partId} {Math.Sign(by)}");
    }

    private IEnumerable<Idea> Open(IEnumerable<Part> parts)
    {
        string scenario = question.Scenario.Id;
        if (Rig.Scenarios.Find(scenario) is null) yield break;
        foreach (var part in parts)
            foreach (var position in Catalogue.Part(part.Stock)!.Positions.Where(p => p.Passes && p.Id is not Positions.On && p.Id != question.Scenario.PositionOf(part)?.Id))
                yield return new Idea($"Leave {part.Name} {position.Name} when draining", [new SetPosition(scenario, part.Id, position.Id)]);
    }

    // Down to the line between its neighbours, laid evenly, or a bleed on top.
    private IEnumerable<Idea> OfHump(string runId, Place? hump)
    {
        var run = question.Index.Run(runId);
        if (hump is { PointId: { } point } && SlopesOf(runId).Straight(point) is { } straight) yield return Moved(runId, straight);
        if (run.Bends.Count > 0) yield return new Idea($"Lay {run.Name} evenly between its ends", [Laying.Even(run, question.Index.CourseOf(run))]);
        var course = question.Index.CourseOf(run);
        int top = Enumerable.Range(0, course.Length).MaxBy(k => question.Conditions.Parked.HeightM(course[k]));
        if (Branch(run, course, top, "bleed", "bleed", 0.03, $"A bleed at the hump of {run.Name}") is { } bleed) yield return bleed;
    }

    /// <summary>A tee at a place on a run, with a drain cock under it.</summary>
    private Idea? Drained(Place lowest)
    {
        if (lowest.RunId is not { } runId)
        {
            // At a part: on the run that leaves it.
            if (lowest.PartId is not { } part || Rig.Runs.FirstOrDefault(r => r.From.Part == part || r.To.Part == part) is not { } beside) return null;
            runId = beside.Id;
        }
        var run = question.Index.Run(runId);
        var course = question.Index.CourseOf(run);
        int at = Enumerable.Range(0, course.Length).MinBy(k => question.Conditions.Parked.HeightM(course[k]));
        // As low as it takes, and no lower than what it stands on.
        return Branch(run, course, at, "drain-cock", "drain", -Math.Min(DrainDropM, Math.Max(0.02, course[at].ZM - 0.05)), $"A drain at the lowest place of {run.Name}");
    }

    // A tee in the place of point number `at`, and a part beside it, higher or lower by `upM`.
    private Idea? Branch(Run run, Point3[] course, int at, string stock, string name, double upM, Sentence words)
    {
        var edits = new List<Edit>();
        Point3 place;
        string? after;
        if (at > 0 && at < course.Length - 1)
        {
            edits.Add(new RouteRun(run.Id, [.. run.Bends.Where((_, i) => i != at - 1)]));
            (place, after) = (course[at], at >= 2 ? run.Bends[at - 2].Id : null);
        }
        else
        {
            int next = at == 0 ? 1 : course.Length - 2;
            double length = course[at].DistanceM(course[next]);
            if (length < 0.14) return null;
            (place, after) = (course[at].Towards(course[next], 0.06 / length), at == 0 ? null : run.Bends.Count > 0 ? run.Bends[^1].Id : null);
        }
        string stem = Free(name);
        edits.Add(new PutTee(run.Id, after, place, $"{stem}-tee", $"{run.Name}, tee", Free($"{run.Id}-on", Rig.Runs.Select(r => r.Id))));
        Rig teed;
        try
        {
            teed = Editor.Apply(Rig, edits).Rig;
        }
        catch (RigFileException)
        {
            return null;
        }
        var tee = teed.Parts.Find($"{stem}-tee")!;
        var (branch, middle) = (tee.PortAt("c")!.Value, tee.Box.Centre());
        var inlet = branch + (branch - middle with { ZM = branch.ZM }) + new Point3(0, 0, upM);
        edits.Add(new PlacePart(stem, stock, $"{run.Name}, {name}", Turning.Micro(inlet - Catalogue.Part(stock)!.Ports[0].Offset)));
        edits.Add(new InsertFragment("its line", [], [new Run(Free($"{stem}-line", Rig.Runs.Select(r => r.Id)), $"{run.Name}, line of the {name}", run.Service, run.Pipe, new RunEnd($"{stem}-tee", "c"), new RunEnd(stem, "in"), [])]));
        return new Idea(words, edits);
    }

    private string Free(string stem, IEnumerable<string>? taken = null)
    {
        var used = (taken ?? Rig.Parts.Select(p => p.Id)).ToHashSet();
        if (stem.Length > 40) stem = stem[..40].TrimEnd('-');
        for (int n = 1; ; n++)
        {
            string id = n == 1 ? stem : $"{stem}-{n}";
            if (!used.Contains(id) && !used.Contains($"{id}-tee")) return id;
        }
    }

    private IEnumerable<Idea> OfTank(Part tank)
    {
        foreach (var port in tank.Ports.Where(p => tank.RoleOf(p) is PortRole.Outlet or PortRole.Drain && p.Offset.ZM > 0.002))
            yield return new Idea($"{tank.Name}: {port.Id} at its floor", [new ChangeThing($"parts/{tank.Id}/ports/{port.Id}", new JsonObject { ["offset"] = Json(port.Offset with { ZM = 0 }) })]);
        foreach (var port in tank.Ports.Where(p => tank.RoleOf(p) == PortRole.Drain || (tank.RoleOf(p) == PortRole.Outlet && tank.Ports.All(o => tank.RoleOf(o) != PortRole.Drain))))
        {
            var middle = new Point3(tank.Box.Size.XM / 2, tank.Box.Size.YM / 2, 0);
            if (port.Offset.DistanceM(middle) > 0.02) yield return new Idea($"{tank.Name}: {port.Id} in the middle of its floor", [new ChangeThing($"parts/{tank.Id}/ports/{port.Id}", new JsonObject { ["offset"] = Json(Turning.Micro(middle)) })]);
        }
        if (question.Conditions.Parked != Attitude.Level || tank.Ports.Any(p => tank.RoleOf(p) == PortRole.Outlet))
        {
            yield return new Idea($"{tank.Name}: its outlet at the other end", [new MirrorPart(tank.Id, Axis.X)]);
            yield return new Idea($"{tank.Name}: its outlet on the other side", [new MirrorPart(tank.Id, Axis.Y)]);
        }
        if (Rig.ByHand.Find(tank.Id) is null)
            yield return new Idea($"By hand on leaving: sponge out {tank.Name}", [new AddThing("byHand", new JsonObject { ["id"] = tank.Id, ["task"] = "sponge out what the outlet leaves" })]);
    }

    private IEnumerable<Idea> ByHand(string partId)
    {
        var part = question.Index.Part(partId);
        if (Rig.ByHand.Find(partId) is null && Catalogue.Part(part.Stock)!.Remedy is { } remedy)
            yield return new Idea($"By hand on leaving: {char.ToLowerInvariant(remedy[0])}{remedy[1..]}", [new AddThing("byHand", new JsonObject { ["id"] = partId, ["task"] = $"{char.ToLowerInvariant(remedy[0])}{remedy[1..]}" })]);
    }

    // A pool that stands in a part is mended where it comes from.
    private IEnumerable<Idea> OfPoolsAt(string partId)
    {
        foreach (var pool in _drained.Pools.Where(p => p.Parts.Any(q => q.PartId == partId) || p.Threatens.Contains(partId)))
            foreach (var idea in OfPool(pool)) yield return idea;
    }

    private IEnumerable<Idea> OfDip(string runId, Place? dip)
    {
        var run = question.Index.Run(runId);
        if (dip is { PointId: { } point } && SlopesOf(runId).Straight(point) is { } straight) yield return Moved(runId, straight);
        yield return new Idea($"Lay {run.Name} evenly between its ends", [Laying.Even(run, question.Index.CourseOf(run))]);
        if (dip is { PointId: { } low }) yield return Without(runId, low);
    }

    private Idea Without(string runId, string bendId)
    {
        var run = question.Index.Run(runId);
        return new Idea($"{run.Name}: without bend {1 + run.Bends.ToList().FindIndex(b => b.Id == bendId)}", [new RouteRun(runId, [.. run.Bends.Where(b => b.Id != bendId)])]);
    }

    // A pipe's width aside, or above or below; its ends stay.
    private IEnumerable<Idea> Aside(string runId)
    {
        var run = question.Index.Run(runId);
        if (run.Bends.Count == 0) yield break;
        double far = Math.Ceiling(100 * (Catalogue.Pipe(run.Pipe)!.OuterDiameterM + 0.01)) / 100;
        foreach (var (by, words) in ((Point3, string)[])[(new(0, far, 0), "to the far side"), (new(0, -far, 0), "to the kerb side"), (new(0, 0, far), "up"), (new(0, 0, -far), "down")])
            yield return new Idea(Sentence.Of($"{run.Name}: {Measure.Length(far)} {words}"), [new RouteRun(runId, [.. run.Bends.Select(b => b with { At = Turning.Micro(b.At + by) })])], null, $"{runId} aside");
    }

    // Over, under, or past either side of each solid that a run passes through.
    private IEnumerable<Idea> Around(string runId)
    {
        var run = question.Index.Run(runId);
        var course = question.Index.CourseOf(run);
        foreach (var solid in Rig.Shell.Obstacles)
        {
            var (low, far) = (solid.Box.At, solid.Box.Far());
            foreach (var (axis, to, words) in ((Axis, double, string)[])[(Axis.Z, far.ZM + ClearM, "over"), (Axis.Z, low.ZM - ClearM, "under"), (Axis.Y, far.YM + ClearM, "past the far side of"), (Axis.Y, low.YM - ClearM, "past the kerb side of")])
            {
                Point3 Led(Point3 p) => axis == Axis.Z ? p with { ZM = to } : p with { YM = to };
                var bends = new List<Bend>();
                int led = 0;
                for (int i = 0; i + 1 < course.Length; i++)
                {
                    // A bend inside is led out with the rest.
                    if (i > 0) bends.Add(solid.Box.Holds(course[i]) ? run.Bends[i - 1] with { At = Turning.Micro(Led(course[i])) } : run.Bends[i - 1]);
                    if (Inside(course[i], course[i + 1], solid.Box) is not { } span) continue;
                    foreach (double t in (double[])[span.Enter, span.Leave])
                        if (t is > 0.001 and < 0.999) bends.Add(new Bend(Free($"led-{++led}", run.Bends.Select(b => b.Id)), Turning.Micro(Led(course[i].Towards(course[i + 1], t)))));
                }
                if (led > 0) yield return new Idea($"{run.Name}: {words} “{solid.Name}”", [new RouteRun(runId, bends)]);
            }
        }
    }

    // The share of a length that lies in a box with room for the pipe around it.
    private static (double Enter, double Leave)? Inside(Point3 a, Point3 b, Box box)
    {
        var (enter, leave) = (0.0, 1.0);
        foreach (var (from, to, low, high) in ((double, double, double, double)[])[(a.XM, b.XM, box.At.XM, box.Far().XM), (a.YM, b.YM, box.At.YM, box.Far().YM), (a.ZM, b.ZM, box.At.ZM, box.Far().ZM)])
        {
            double d = to - from;
            if (Math.Abs(d) < 1e-9)
            {
                if (from < low - ClearM || from > high + ClearM) return null;
                continue;
            }
            double t1 = (low - ClearM - from) / d, t2 = (high + ClearM - from) / d;
            (enter, leave) = (Math.Max(enter, Math.Min(t1, t2)), Math.Min(leave, Math.Max(t1, t2)));
        }
        return leave > enter ? (enter, leave) : null;
    }

    private IEnumerable<Idea> Capped(string runId)
    {
        var run = question.Index.Run(runId);
        foreach (var (name, end) in ((string, RunEnd)[])[("from", run.From), ("to", run.To)])
        {
            if (end.At is not { } at) continue;
            string cap = Free("cap");
            yield return new Idea(
                $"Cap {run.Name}",
                [new PlacePart(cap, "end-cap", $"{run.Name}, cap", Turning.Micro(at - new Point3(0, 0.015, 0.008))), new ChangeThing($"runs/{run.Id}", new JsonObject { [name] = new JsonObject { ["part"] = cap, ["port"] = "in" } })]);
        }
        yield return new Idea($"Take {run.Name} out", [new RemoveThing($"runs/{run.Id}")]);
    }

    private IEnumerable<Idea> OutOf(string partId)
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
                yield return new Idea(Sentence.Of($"Move {part.Name} out of “{keepOut.Name}”, by {Measure.Length(by.DistanceM(default))}"), [new MoveThings([$"parts/{partId}"], by)]);
        }
    }

    // A ball valve in the line that leads to the part.
    private IEnumerable<Idea> Isolated(string partId)
    {
        // At the tank or at the part, wherever there is a straight length for it.
        bool Tank(RunEnd end) => end.Part is { } id && Catalogue.Part(question.Index.Part(id).Stock) is { Group: PartGroup.Store, Passage: Passage.Vessel };
        var run = Rig.Runs.Where(r => r.Service == Service.Cold && (r.To.Part == partId || r.From.Part == partId || Tank(r.From) || Tank(r.To))).OrderByDescending(r => Tank(r.From) || Tank(r.To)).FirstOrDefault(r => LongestLeg(r).LengthM >= 0.14);
        if (run is null) yield break;
        yield return new Idea($"A ball valve in {run.Name}", Inline(run, "ball-valve", "isolator", "isolating valve", "a", "b"));
    }

    // A part in the longest straight length of a run, the rest of the run behind it.
    private IReadOnlyList<Edit> Inline(Run run, string stock, string stem, string name, string inlet, string outlet)
    {
        var course = question.Index.CourseOf(run);
        int longest = LongestLeg(run).At;
        var (a, b) = (course[longest], course[longest + 1]);
        string id = Free(stem);
        var way = Turning.AlongWay(b - a);
        var placed = Turning.FromStock(Catalogue.Part(stock)!, id, name, default, way);
        var middle = placed.PortAt(inlet)!.Value.Towards(placed.PortAt(outlet)!.Value, 0.5);
        var at = Turning.Micro(a.Towards(b, 0.5) - middle);
        var onward = run with { Id = Free($"{run.Id}-on", Rig.Runs.Select(r => r.Id)), From = new RunEnd(id, outlet), Bends = [.. run.Bends.Skip(longest)], Insulation = run.SleeveOn(longest) };
        return
        [
            new PlacePart(id, stock, name, at, way),
            new InsertFragment("its line", [], [onward]),
            new RouteRun(run.Id, [.. run.Bends.Take(longest)]),
            new ChangeThing($"runs/{run.Id}", new JsonObject { ["to"] = new JsonObject { ["part"] = id, ["port"] = inlet } }),
        ];
    }

    // A thermostatic mixing valve in the line that leaves the heater, with cold water from a tee in the line that feeds it.
    private IEnumerable<Idea> Tempered(string heaterId)
    {
        var joined = question.Ask(Joined.Of).Of(heaterId);
        var hot = joined.Where(j => j.Port is "hot" or "out").Select(j => j.Run).FirstOrDefault(r => r.From.Part == heaterId && LongestLeg(r).LengthM >= 0.14);
        if (hot is null) yield break;
        var inline = Inline(hot, "mixing-valve", "mixing-valve", "thermostatic mixing valve", "hot", "mixed");
        string valve = ((PlacePart)inline[0]).PartId;
        foreach (var feed in joined.Where(j => j.Port is "cold" or "in").Select(j => j.Run))
        {
            var course = question.Index.CourseOf(feed);
            int leg = LongestLeg(feed).At;
            if (course[leg].DistanceM(course[leg + 1]) < 0.14) continue;
            string tee = Free("tempering-tee");
            yield return new Idea(
                Sentence.Of($"A thermostatic mixing valve in {hot.Name}, with cold water from {feed.Name}"),
                [
                    .. inline,
                    new PutTee(feed.Id, leg == 0 ? null : feed.Bends[leg - 1].Id, course[leg].Towards(course[leg + 1], 0.5), tee, "tempering tee", Free($"{feed.Id}-on", Rig.Runs.Select(r => r.Id))),
                    new InsertFragment("its cold line", [], [new Run(Free("tempering", Rig.Runs.Select(r => r.Id)), "cold to the mixing valve", Service.Cold, feed.Pipe, new RunEnd(tee, "c"), new RunEnd(valve, "cold"), [])]),
                ]);
        }
    }

    // A clip in the middle of the length that hangs.
    private IEnumerable<Idea> Clipped(string runId, string pointId)
    {
        var run = question.Index.Run(runId);
        int leg = pointId == "from" ? 0 : run.Bends.ToList().FindIndex(b => b.Id == pointId) + 1;
        var course = question.Index.CourseOf(run);
        if (leg + 1 >= course.Length) yield break;
        yield return new Idea(
            $"A clip in the middle of {run.Name}, where it hangs",
            [new InsertBend(runId, new Bend(Free("clip", run.Bends.Select(b => b.Id)), Turning.Micro(course[leg].Towards(course[leg + 1], 0.5)), null, Fixing.Clip), leg == 0 ? null : run.Bends[leg - 1].Id)]);
    }

    // Over to the nearest place that a hand gets to.
    private IEnumerable<Idea> Within(string partId)
    {
        var part = question.Index.Part(partId);
        var centre = part.Box.Centre();
        foreach (var access in Rig.Shell.Access.OrderBy(a => a.Box.OutsideM(centre)).Take(2))
        {
            var (low, far) = (access.Box.At, access.Box.Far());
            double To(double at, double from, double to) => to - from < 2 * Spare ? (from + to) / 2 - at : Math.Clamp(at, from + Spare, to - Spare) - at;
            var by = Turning.Micro(new Point3(To(centre.XM, low.XM, far.XM), To(centre.YM, low.YM, far.YM), To(centre.ZM, low.ZM, far.ZM)));
            yield return new Idea(Sentence.Of($"Move {part.Name} to within reach of “{access.Name}”, by {Measure.Length(by.DistanceM(default))}"), [new MoveThings([$"parts/{partId}"], by)]);
        }
    }

    private (int At, double LengthM) LongestLeg(Run run)
    {
        var course = question.Index.CourseOf(run);
        int at = Enumerable.Range(0, course.Length - 1).MaxBy(k => course[k].DistanceM(course[k + 1]));
        return (at, course[at].DistanceM(course[at + 1]));
    }

    private static JsonNode Json<T>(T value) => JsonSerializer.SerializeToNode(value, RigFile.Compact)!;
}
