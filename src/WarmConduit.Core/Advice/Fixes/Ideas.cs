using System.Text.Json.Nodes;
using WarmConduit.Core.Advice.AllHeights;
using WarmConduit.Core.Advice.Cold;
using WarmConduit.Core.Advice.Rules;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Studies.Parking;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Fixes;

/// <summary>What a builder might do about a finding. Whether it helps is found by trying it. Of ideas of one <paramref name="Sort"/> the best is
/// enough.</summary>
internal sealed record Idea(Sentence Words, IReadOnlyList<Edit> Edits, Band? Band = null, string? Sort = null)
{
    /// <summary>Both, this one first.</summary>
    public Idea With(Idea other) => new(Words.And("; and ").And(other.Words), [.. Edits, .. other.Edits]);
}

/// <summary>What rules draw on for what might mend their findings: ideas about water that stays, and those of lines, tanks and heaters.</summary>
internal sealed class Ideas(Question question)
{
    private const double Spare = 0.005;

    /// <summary>How far under its line a drain hangs, m.</summary>
    internal const double DrainDropM = 0.06;
    private const int MostPlaces = 8;

    private readonly Fitter _fit = new(question);

    private readonly DrainDownAnswer _drained = question.Ask(DrainDownStudy.Ask);

    private Rig Rig => question.Rig;

    public RouteIdeas Routes => new(question, _fit);

    public TankIdeas Tanks => new(question, _fit);

    public HeaterIdeas Heaters => new(question, _fit);

    /// <summary>The pool of this id; null: there is none.</summary>
    public PoolAnswer? Pool(string id) => _drained.Pools.FirstOrDefault(p => p.Id == id);

    /// <summary>Drains that are there, left open.</summary>
    public IEnumerable<Idea> OpenDrains() => Open(Rig.Parts.Where(p => Catalogue.Part(p.Stock)!.Passage == Passage.Drain));

    /// <summary>A part kept warm.</summary>
    public IEnumerable<Idea> Warmed(string partId) => new WarmIdeas(question).For(partId).Select(i => new Idea(i.Words, i.Edits, null, i.Sort));

    /// <summary>All ideas for <paramref name="finding"/>, the plainest first.</summary>
    public IEnumerable<Idea> For(Finding finding)
    {
        var own = (finding.Mends ?? []).Select(m => new Idea(m.Words, m.Edits));
        return own.Concat(Adviser.RuleOf(finding.Kind).Fixes(finding, this));
    }

    /// <summary>All ideas about water that stays, each with what it is about: pools, airlocks, parts that keep theirs, lines that hold film.</summary>
    public IEnumerable<(string About, Idea Idea)> OfWater()
    {
        foreach (var pool in _drained.Pools)
            foreach (var idea in OfPool(pool)) yield return (pool.Words, idea);
        foreach (var held in _drained.Airlocks.Where(a => !a.Gulps))
            foreach (var idea in OfAirlock(held.RunIds)) yield return (held.Words, idea);
        foreach (var part in _drained.Parts.Where(p => p.RetainedL > 0.001))
        {
            string name = question.Index.Part(part.PartId).Name;
            foreach (var idea in ByHand(part.PartId)) yield return (name, idea);
            if (part.Cause == StayCause.Airlock) foreach (var idea in Tanks.Vented(part.PartId)) yield return (name, idea);
            if (part.Cause == StayCause.Shut) foreach (var idea in Open([question.Index.Part(part.PartId)])) yield return (name, idea);
        }
        foreach (var run in _drained.Runs.Where(r => r.FilmL > 0.002))
            foreach (var idea in OfSlope(run.RunId).Concat(OfEnds(run.RunId))) yield return (question.Index.Run(run.RunId).Name, idea);
    }

    // What would mend the pools that it has when it stands so.
    public IEnumerable<Idea> OfParking(string findingId)
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
                foreach (var idea in At(at).Tanks.Drained(tank)) yield return idea;
    }

    /// <summary>All heights at once.</summary>
    public IEnumerable<Idea> OfAllHeights()
    {
        var all = HeightFinder.Ask(question.With(question.Conditions with { Parked = Attitude.Level }).On(Rig, question.Cancel), new AutoFallInput());
        if (all.Edits.Count > 0) yield return new Idea($"All heights at once: {all.Changes.Count} points up or down", all.Edits);
    }

    private Ideas At(Attitude parked) => new(question.With(question.Conditions with { Parked = parked }));

    public IEnumerable<Idea> OfPool(PoolAnswer pool)
    {
        foreach (var share in pool.Shares.Where(s => !Breathes(pool, s.RunId)))
            foreach (var idea in OfSlope(share.RunId)) yield return idea;
        // A bend that climbs, or one that hangs, on its own.
        foreach (var place in (Place?[])[pool.Crest, pool.Lowest])
            if (place is { RunId: { } run, PointId: { } point } && point is not (RunPoint.From or RunPoint.To) && !Breathes(pool, run)
                && SlopesOf(run).Straight(point) is { } straight)
                yield return Moved(run, straight);
        if (pool.Crest is { PartId: { } crest } && Movable(crest) && pool.DepthM is { } depth)
            foreach (double more in (double[])[Spare, 0.03])
                yield return Raised(crest, -(depth + more));
        if (pool.Lowest is { PartId: { } low } && Movable(low) && pool.DepthM is { } deep)
            yield return Raised(low, deep + Spare);
        if (pool.ShutBy is { PartId: { } shut }) foreach (var idea in Open([question.Index.Part(shut)])) yield return idea;
        foreach (var idea in Drained(pool)) yield return idea;
        foreach (var part in pool.Parts.Select(p => question.Index.Part(p.PartId)))
        {
            if (Catalogue.Part(part.Stock)!.Passage == Passage.Vessel) foreach (var idea in Tanks.Drained(part)) yield return idea;
            else if (Movable(part.Id) && pool.DepthM is { } stands) yield return Raised(part.Id, stands + Spare);
        }
    }

    private Slopes SlopesOf(string runId) => new(question.Index.Run(runId), _drained.Runs.First(r => r.RunId == runId));

    public IEnumerable<Idea> OfSlope(string runId)
    {
        var slopes = SlopesOf(runId);
        foreach (double fall in (double[])[Rig.Brief.LeastFall, TradeConstants.ToleratedFall, 0.003])
        {
            if (slopes.Lifted(fall) is { } up) yield return Moved(runId, up);
            if (slopes.Lowered(fall) is { } down) yield return Moved(runId, down);
        }
        if (RunRegrading.ItsFall(question.Index, question.Index.Run(runId), question.Conditions.Parked, 0.003)?[0] is { } even)
            yield return new Idea($"Set even fall in {question.Index.Run(runId).Name}", even.Edits);
    }

    // The joint at its upper end lifted, or that at its lower end lowered.
    public IEnumerable<Idea> OfEnds(string runId)
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
            : Sentence.Of($"{run.Name}: {how.Moved} bends {way}, by up to {far}");
        return new Idea(words, [how.Edit], how.Band, $"{runId} {way} {how.Band?.PointId}");
    }

    private bool Movable(string partId) =>
        Catalogue.Part(question.Index.Part(partId).Stock) is
        {
            Group: PartGroup.Joints or PartGroup.Valves or PartGroup.Drain or PartGroup.Clean or PartGroup.Move,
            Passage: not Passage.Vessel
        };

    private Idea Raised(string partId, double byM)
    {
        double by = byM > 0 ? Math.Ceiling(byM * 1000) / 1000 : Math.Floor(byM * 1000) / 1000;
        return new Idea(Sentence.Of($"{question.Index.Part(partId).Name}: {(by > 0 ? "up" : "down")} by {Measure.Length(Math.Abs(by))}"),
            [new MoveThings([$"parts/{partId}"], new Point3(0, 0, by))], null, $"{partId} {Math.Sign(by)}");
    }

    private IEnumerable<Idea> Open(IEnumerable<Part> parts)
    {
        string scenario = question.Scenario.Id;
        if (Rig.Scenarios.Find(scenario) is null) yield break;
        foreach (var part in parts)
            foreach (var position in Catalogue.Part(part.Stock)!.Positions.Where(p => p.Passes && p.Id is not Positions.On
                && p.Id != question.Scenario.PositionOf(part)?.Id))
                yield return new Idea($"Leave {part.Name} {position.Name} when draining", [new SetPosition(scenario, part.Id, position.Id)]);
    }

    // What is shut left open, or a bleed where it is highest.
    public IEnumerable<Idea> OfAirlock(IReadOnlyList<string> runIds)
    {
        var runs = runIds.Select(question.Index.Run).ToList();
        var ends = runs.SelectMany(r => (RunEnd[])[r.From, r.To]).Select(e => e.Part).OfType<string>().Distinct().Select(question.Index.Part);
        foreach (var idea in Open(ends.Where(p => question.Scenario.PositionOf(p) is { Passes: false }
            && Catalogue.Part(p.Stock)!.Passage is Passage.Valve or Passage.Mixer or Passage.Drain))) yield return idea;
        // At each place that is higher than what is beside it, the highest first.
        foreach (var (run, at) in runs.SelectMany(r => Extremes(r, highest: true).Select(k => (Run: r, At: k))).OrderByDescending(p => HeightOf(p.Run, p.At))
            .Take(MostPlaces))
            if (_fit.Branch(run, at, "bleed", "bleed", 0.03, Sentence.Of($"A bleed {WordsOf(run, at)}, opened when draining")) is { } bleed) yield return bleed;
    }

    // A drain where water lies lowest; alone, and with a tap left open for the air.
    public IEnumerable<Idea> Emptied()
    {
        var drains = Drained(Rig.Runs.Where(r => r.Service is not (Service.Coolant or Service.Vent or Service.Fill)), null).ToList();
        var taps = Open(Rig.Parts.Where(p => Catalogue.Part(p.Stock)!.Passage == Passage.Mixer)).Take(2).ToList();
        return drains.Concat(drains.SelectMany(d => taps.Select(d.With)));
    }

    private string WordsOf(Run run, int at)
    {
        var end = at == 0 ? run.From : at == run.Bends.Count + 1 ? run.To : null;
        return end is null ? $"at {run.Name}, bend {at}" : end.Part is { } part ? $"in {run.Name}, beside {question.Index.Part(part).Name}"
            : $"at the loose end of {run.Name}";
    }

    private double HeightOf(Run run, int at) => question.Conditions.Parked.HeightM(question.Index.CourseOf(run)[at]);

    // Points of a run that lie lower, or higher, than the points beside them; its ends among them.
    private IEnumerable<int> Extremes(Run run, bool highest)
    {
        double sign = highest ? -1 : 1;
        double[] z = [.. question.Index.CourseOf(run).Select(p => sign * question.Conditions.Parked.HeightM(p))];
        return Enumerable.Range(0, z.Length).Where(k => (k == 0 || z[k] <= z[k - 1] + 1e-9) && (k == z.Length - 1 || z[k] <= z[k + 1] + 1e-9));
    }

    // Down to the line between its neighbours, laid evenly, or a bleed on top.
    public IEnumerable<Idea> OfHump(string runId, Place? hump)
    {
        var run = question.Index.Run(runId);
        if (hump is { PointId: { } point } && SlopesOf(runId).Straight(point) is { } straight) yield return Moved(runId, straight);
        if (run.Bends.Count > 0) yield return new Idea($"Set even fall in {run.Name}", [RunRegrading.Even(run, question.Index.CourseOf(run))]);
        var course = question.Index.CourseOf(run);
        int top = Enumerable.Range(0, course.Length).MaxBy(k => question.Conditions.Parked.HeightM(course[k]));
        if (_fit.Branch(run, top, "bleed", "bleed", 0.03, $"A bleed at the hump of {run.Name}") is { } bleed) yield return bleed;
    }

    // What lets a tank breathe or fill is no way out for its water.
    private bool Breathes(PoolAnswer pool, string runId) =>
        question.Index.Run(runId).Service is Service.Vent or Service.Fill or Service.Overflow
            && pool.Parts.Any(p => Catalogue.Part(question.Index.Part(p.PartId).Stock)!.Passage == Passage.Vessel);

    // A tee with a drain cock under it, at each low place that is wet, the lowest first.
    private IEnumerable<Idea> Drained(PoolAnswer pool) => Drained(pool.Shares.Where(s => !Breathes(pool, s.RunId)).Select(s => question.Index.Run(s.RunId)),
        pool.LevelM);

    // At each low place under the level of the water, the lowest first.
    private IEnumerable<Idea> Drained(IEnumerable<Run> runs, double? levelM)
    {
        var places = runs.SelectMany(r => Extremes(r, highest: false).Select(k => (Run: r, At: k)))
            .Where(p => levelM is not { } level || HeightOf(p.Run, p.At) < level).OrderBy(p => HeightOf(p.Run, p.At)).Take(MostPlaces);
        foreach (var (run, at) in places)
        {
            var course = question.Index.CourseOf(run);
            // As low as it takes, and no lower than what it stands on.
            if (_fit.Branch(run, at, "drain-cock", "drain", -Math.Min(DrainDropM, Math.Max(0.02, course[at].ZM - 0.05)),
                Sentence.Of($"A drain {WordsOf(run, at)}")) is { } drain) yield return drain;
        }
    }

    public IEnumerable<Idea> ByHand(string partId)
    {
        var part = question.Index.Part(partId);
        if (Rig.ByHand.Find(partId) is null && Catalogue.Part(part.Stock)!.Remedy is { } remedy)
            yield return new Idea($"By hand when leaving: {char.ToLowerInvariant(remedy[0])}{remedy[1..]}",
                [new AddThing("byHand", new JsonObject { ["id"] = partId, ["task"] = $"{char.ToLowerInvariant(remedy[0])}{remedy[1..]}" })]);
    }

    // A line that freezes is mended where its water comes from, or kept warm.
    public IEnumerable<Idea> OfBurst(string runId)
    {
        if (question.Conditions.Water != WaterState.Wet)
            foreach (var pool in _drained.Pools.Where(p => p.Shares.Any(s => s.RunId == runId)))
                foreach (var idea in OfPool(pool)) yield return idea;
        var night = question.Ask(RigNight.Of);
        if (Enumerable.Range(0, night.Candidates.Count).Where(n => night.Candidates[n].Thing == runId).OrderBy(night.BreaksS).Select(n => night.Candidates[n])
            .FirstOrDefault() is { } first)
            foreach (var idea in new WarmIdeas(question).For(first)) yield return new Idea(idea.Words, idea.Edits, null, idea.Sort);
    }

    // A pool that stands in a part is mended where it comes from.
    public IEnumerable<Idea> OfPoolsAt(string partId)
    {
        foreach (var pool in _drained.Pools.Where(p => p.Parts.Any(q => q.PartId == partId) || p.Threatens.Contains(partId)))
            foreach (var idea in OfPool(pool)) yield return idea;
    }

    public IEnumerable<Idea> OfDip(string runId, Place? dip)
    {
        var run = question.Index.Run(runId);
        if (dip is { PointId: { } point } && SlopesOf(runId).Straight(point) is { } straight) yield return Moved(runId, straight);
        yield return new Idea($"Set even fall in {run.Name}", [RunRegrading.Even(run, question.Index.CourseOf(run))]);
        if (dip is { PointId: { } low }) yield return Routes.Without(runId, low);
    }
}
