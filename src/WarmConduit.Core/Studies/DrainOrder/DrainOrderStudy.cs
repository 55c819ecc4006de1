using WarmConduit.Core.Flow;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.DrainOrder;

/// <summary>In which order a rig is drained.</summary>
public static class DrainOrderStudy
{
    /// <summary>The step in which all taps are opened.</summary>
    public const string Taps = "taps";

    // A sharp-edged opening; hands take a quarter of a minute a step; up to this many drains every order is walked.
    private const double Discharge = 0.6, HandS = 15, LeastL = 0.001, CoolC = 10, SmoothM = 1.5e-6;
    private const int MostWalked = 7;

    /// <summary>
    /// An order with few steps and little walking: the tank by its own drain first where it would else run out of the lines' drains, then the taps, so that air
    /// gets in, then the drains on the shortest way, then what is done by hand. Pure. O(steps · drain-down). Times are estimates.
    /// </summary>
    public static DrainOrderAnswer Ask(Question question)
    {
        var walk = question.Ask(WalkOf);
        var forgets = walk.Steps.SelectMany(s => s.PartIds.Select(part => walk.Forget(question, part, s.Kind))).ToList();
        return new DrainOrderAnswer(
            walk.Steps, walk.Full.StaysL(), walk.Last.Drained.Stays, walk.WalkM, walk.HandsS + walk.Steps.Sum(s => s.ShortestS ?? 0),
            (2 * walk.HandsS) + walk.Steps.Sum(s => s.LongestS ?? 0), walk.Last.Drained.Airlocks,
            [.. forgets.Where(f => f.MoreL >= LeastL).OrderByDescending(f => f.MoreL)]);
    }

    /// <summary>The steps, without what each leaves if it is forgotten: that is half of the work. Pure. O(steps · drain-down).</summary>
    internal static DrainWalk WalkOf(Question question)
    {
        var none = new HashSet<string>();
        var full = new Stage(question, none, none);
        var order = Order(question, full);
        var steps = new List<DrainStep>();
        var (opened, done) = (new HashSet<string>(), new HashSet<string>());
        var before = full;
        double walked = 0, hand = 0;
        Point3? stood = null;
        foreach (var (id, parts, kind, why) in order)
        {
            question.Cancel.ThrowIfCancellationRequested();
            if (kind == DrainStepKind.Hand) done.Add(id);
            else opened.UnionWith(parts);
            var after = new Stage(question, opened, done);
            double comes = Math.Max(0, before.StaysL() - after.StaysL());
            var at = question.Index.Part(parts[0]).Box.Centre();
            if (kind != DrainStepKind.Taps)
            {
                walked += stood is { } from ? from.DistanceM(at) : 0;
                stood = at;
            }
            var (shortest, longest) = kind == DrainStepKind.Drain && comes > LeastL ? Times(question, before, after, question.Index.Part(id), comes)
                : (null, null);
            string? reach = ReachOf(question.Rig, question.Index.Part(parts[0]), at);
            hand += question.Index.Part(parts[0]).Reach?.HandS() ?? HandS;
            steps.Add(new DrainStep(id, kind, WordsOf(question, id, kind), parts, comes, after.StaysL(), shortest, longest, reach, true, why));
            before = after;
        }
        var walk = new DrainWalk(steps, full, before, walked, hand);
        // What is opened for nothing: it is told, since a drop there says that another is stuck.
        for (int n = 0; n < steps.Count; n++)
            if (steps[n].Kind == DrainStepKind.Drain && steps[n].OutL < LeastL && walk.Forget(question, steps[n].Id, DrainStepKind.Drain).MoreL < LeastL)
                steps[n] = steps[n] with { Needed = false };
        return walk;
    }

    /// <summary>A draining, step by step.</summary>
    internal sealed record DrainWalk(IReadOnlyList<DrainStep> Steps, Stage Full, Stage Last, double WalkM, double HandsS)
    {
        private readonly Dictionary<string, Forgotten> _forgets = [];

        /// <summary>What one thing leaves if it is forgotten; worked out once. O(drain-down).</summary>
        public Forgotten Forget(Question question, string partId, DrainStepKind kind) =>
            _forgets.TryGetValue(partId, out var known) ? known : _forgets[partId] = Forgets(question, partId, kind, Last);
    }

    internal static List<(string Id, string[] Parts, DrainStepKind Kind, string Why)> Order(Question question, Stage full)
    {
        var rig = question.Rig;
        var (none, order) = (new HashSet<string>(), new List<(string Id, string[] Parts, DrainStepKind Kind, string Why)>());
        Part[] taps = [.. rig.Parts.Where(p => Catalogue.Part(p.Stock)!.Passage == Passage.Mixer && question.Scenario.PositionOf(p)?.Passes == true)];
        var drains = rig.Parts.Where(p => Catalogue.Part(p.Stock)!.Passage == Passage.Drain && question.Scenario.PositionOf(p)?.Passes == true).ToList();
        // What each would let out of the tanks by itself.
        double InTanks(Stage stage) => stage.Drained.Parts.Where(p => Catalogue.Part(question.Index.Part(p.PartId).Stock) is { Passage: Passage.Vessel })
            .Sum(p => p.RetainedL + p.ByHandL);
        double tanks = InTanks(full);
        var fromTank = drains.ToDictionary(d => d.Id, d => tanks - InTanks(new Stage(question, new HashSet<string> { d.Id }, none)));
        var nearTank = drains.Where(d => fromTank[d.Id] > 0.5).OrderByDescending(d => fromTank[d.Id]).ToList();
        var first = new List<Part>();
        double left = tanks;
        var open = new HashSet<string>();
        foreach (var drain in nearTank)
        {
            open.Add(drain.Id);
            double now = InTanks(new Stage(question, open, none));
            if (left - now > 0.5) first.Add(drain);
            else open.Remove(drain.Id);
            left = Math.Min(left, now);
        }
        foreach (var drain in first)
            order.Add((drain.Id, [drain.Id], DrainStepKind.Drain,
            "First, because a tank empties here. Opened later, its water would run out of the line drains and hide what they let out."));
        if (taps.Length > 0)
            order.Add((Taps, [.. taps.Select(t => t.Id)], DrainStepKind.Taps, "Lets air in behind the water. A line that is shut at the top keeps its water."));
        foreach (var drain in Walk([.. drains.Except(first)], first.Count > 0 ? first[^1].Box.Centre() : null))
            order.Add((drain.Id, [drain.Id], DrainStepKind.Drain, "Next on the shortest way round."));
        foreach (var hand in rig.ByHand) order.Add((hand.Id, [hand.Id], DrainStepKind.Hand, "No slope empties this part."));
        return order;
    }

    private static List<Part> Walk(List<Part> parts, Point3? from)
    {
        if (parts.Count <= 1) return parts;
        double Way(IReadOnlyList<Part> order)
        {
            double sum = from is { } start ? start.DistanceM(order[0].Box.Centre()) : 0;
            for (int i = 1; i < order.Count; i++) sum += order[i - 1].Box.Centre().DistanceM(order[i].Box.Centre());
            return sum;
        }
        if (parts.Count <= MostWalked) return Orders(parts).MinBy(Way)!;
        // The nearest next.
        var (walked, at) = (new List<Part>(), from ?? parts[0].Box.Centre());
        while (parts.Count > 0)
        {
            var next = parts.MinBy(p => p.Box.Centre().DistanceM(at))!;
            parts.Remove(next);
            walked.Add(next);
            at = next.Box.Centre();
        }
        return walked;
    }

    private static IEnumerable<List<Part>> Orders(List<Part> parts)
    {
        if (parts.Count <= 1)
        {
            yield return parts;
            yield break;
        }
        for (int i = 0; i < parts.Count; i++)
            foreach (var rest in Orders([.. parts.Where((_, k) => k != i)])) yield return [parts[i], .. rest];
    }

    // Twice the volume over the flow at the start: exact for a tank with upright walls that empties to its opening.
    private static (double? Shortest, double? Longest) Times(Question question, Stage before, Stage after, Part drain, double comesL)
    {
        var port = drain.Ports[0];
        double bore = port.BoreM ?? Catalogue.Part(drain.Stock)!.Ports[0].BoreM;
        double outlet = question.Conditions.Parked.HeightM(drain.Box.At + port.Offset), top = outlet, way = 0;
        var left = after.Drained.Runs.ToDictionary(r => r.RunId);
        foreach (var run in before.Drained.Runs)
        {
            if (run.StaysL - left[run.RunId].StaysL < LeastL) continue;
            way = Math.Max(way, run.LengthM);
            foreach (var station in run.Stations) top = Math.Max(top, station.HeightM);
        }
        foreach (var part in before.Drained.Parts)
            if (part.RetainedL + part.ByHandL - after.Drained.Parts.First(p => p.PartId == part.PartId).RetainedL > 0.1
                && question.Index.Part(part.PartId) is var tank)
                top = Math.Max(top, question.Conditions.Parked.HeightM(tank.Box.Centre())
                    + (tank.Box.Size.ZM * ((part.RetainedL / Math.Max(part.FullL, 1e-9)) - 0.5)));
        double head = Math.Max(0.02, top - outlet);
        double volume = comesL / 1000, area = Math.PI * bore * bore / 4;
        double free = Discharge * area * Math.Sqrt(2 * TradeConstants.GravityMPerS2 * head);
        // The greatest flow whose loss in the opening and along the way is no more than the head.
        double loss(double flow) => Friction.PipeLossM(flow, way, bore, SmoothM, 1 / (Discharge * Discharge), Water.DensityKgPerM3(CoolC),
            Water.ViscosityPaS(CoolC));
        var (low, slowed) = (0.0, free);
        for (int i = 0; i < 40; i++)
        {
            double middle = (low + slowed) / 2;
            if (loss(middle) > head) slowed = middle;
            else low = middle;
        }
        return (2 * volume / free, 2 * volume / slowed);
    }

    private static Forgotten Forgets(Question question, string partId, DrainStepKind kind, Stage all)
    {
        var hands = question.Rig.ByHand.Select(h => h.Id);
        var part = question.Index.Part(partId);
        var opened = question.Rig.Parts.Where(p => Stage.Opens(p) && p.Id != partId && question.Scenario.PositionOf(p)?.Passes == true).Select(p => p.Id)
            .ToHashSet();
        if (kind == DrainStepKind.Hand) opened.Add(partId);
        var without = new Stage(question, opened, hands.Where(h => kind != DrainStepKind.Hand || h != partId).ToHashSet());
        double more = without.StaysL() - all.StaysL();
        var pool = without.Drained.Pools.Where(p => all.Drained.Pools.All(o => o.Id != p.Id || o.RetainedL < p.RetainedL - LeastL)).MaxBy(p => p.RetainedL);
        var held = without.Drained.Airlocks.Where(h => !h.Gulps && all.Drained.Airlocks.All(o => o.Words != h.Words)).MaxBy(h => h.Litres);
        string? where = held is not null && held.Litres > (pool?.RetainedL ?? 0) ? held.Words : pool?.Words ?? (kind == DrainStepKind.Hand ? part.Name : null);
        return new Forgotten(partId, kind == DrainStepKind.Hand ? $"{part.Name}: {Task(question, partId)}, not done" : $"{part.Name} left shut", more,
            more >= LeastL ? where : null);
    }

    private static Sentence WordsOf(Question question, string id, DrainStepKind kind) => kind switch
    {
        DrainStepKind.Taps => "Open every tap, hot and cold",
        DrainStepKind.Hand => $"{question.Index.Part(id).Name}: {Task(question, id)}",
        _ => $"Open {question.Index.Part(id).Name}",
    };

    /// <summary>What is done to a part by hand, as it stands in the middle of a sentence.</summary>
    internal static string Task(Question question, string partId) =>
        question.Rig.ByHand.Find(partId)!.Task is { Length: > 1 } task && char.IsUpper(task[0]) && char.IsLower(task[1])
            ? char.ToLowerInvariant(task[0]) + task[1..] : question.Rig.ByHand.Find(partId)!.Task;

    internal static string? ReachOf(Rig rig, Part part, Point3 at)
    {
        if (part.Reach is { } own) return own.Words();
        if (rig.Shell.Access.Count == 0) return null;
        return rig.Shell.AccessTo(at)?.Name ?? "no access leads to it";
    }
}
