using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Levels;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Studies.Parking;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.AllHeights;

/// <summary>Finds heights for all bends and joints, so that every line falls to the drain it leads to with the greatest margin.</summary>
public static class HeightFinder
{
    // What is given stays a hand's breadth from where it was drawn, over the floor and over what is in the way.
    private const double ReachM = 0.4, OverSolidM = 0.01, UnderRoofM = 0.05, LeastMoveM = 0.001;
    private const int MostChains = 40, MostRounds = 5000;

    /// <summary>
    /// Asks of a rig in its drain scenario: water keeps the way that it has now. The question may be about what is asked of them, as <see cref="HeightLimits"/> reads it:
    /// <c>runs/main,zones/bay=0.05..0.4,slope=2</c>. Pure. Heights are those of <see cref="AutoFall"/>: the greatest margin, to a tenth of a millimetre.
    /// </summary>
    public static AutoFallAnswer Ask(Question question)
    {
        var limits = HeightLimits.Of(question.About);
        var layout = new Layout(question, limits);
        double slope = limits.SlopeDeg ?? question.Rig.Brief.ParkingAllowed().SlopeDeg, before = question.Ask(DrainDownStudy.Ask).RetainedL;
        double share = ParkingStudy.ShareOf(question);
        var (needed, spare) = Drains(question);
        if (layout.Lengths.Count == 0)
            return new AutoFallAnswer(slope, null, null, false, "No line has a way out yet: open a drain, or put one in.", [], [], null, before, before, share, share, null, [], needed, spare);

        // A chain that nothing can mend is told, and the rest is given its fall without it.
        var forbids = new List<FallAnswer>();
        var lengths = layout.Lengths.ToList();
        FallAnswer solved;
        while (!(solved = Solve(layout, lengths, slope)).Feasible && solved.Binding is { } blocked && forbids.Count < MostChains)
        {
            forbids.Add(solved);
            int had = lengths.Count;
            lengths.RemoveAll(l => Enumerable.Range(0, blocked.Points.Count - 1).Any(i => blocked.Points[i] == l.From && blocked.Points[i + 1] == l.To));
            if (lengths.Count == had || lengths.Count == 0) break;
        }
        double now = layout.Margin(slope, lengths, layout.Drawn());
        bool won = lengths.Count > 0 && solved.Margin > now + 1e-5;
        // As much as the brief asks for, and no bend farther than that takes.
        double wanted = Math.Min(0.8 * solved.Margin, question.Rig.Brief.LeastFall);
        var heights = (won && wanted > now + 1e-5) || layout.Outside() ? layout.Near(lengths, slope, wanted) ?? solved.HeightM : null;
        var (edits, changes) = heights is null ? ([], []) : layout.Made(heights);
        var trial = edits.Count > 0 ? Trial.Of(question, edits, out _) : null;
        double after = trial?.After.Ask(DrainDownStudy.Ask).RetainedL ?? before;
        if (trial is null || after > before + 0.001) (edits, changes, trial, after) = ([], [], null, before);
        // As the rig then lies: what would move by less than a millimetre is left.
        var then = trial is null ? layout : new Layout(trial.After, limits);
        double reached = then.Margin(slope, lengths, then.Drawn());
        return new AutoFallAnswer(
            slope, now, reached, forbids.Count == 0, Verdict(slope, forbids.Count, solved, edits.Count > 0), changes, edits, trial?.Edited.Effect, before,
            after, share, trial is null ? share : ParkingStudy.ShareOf(trial.After),
            (forbids.Count > 0 ? forbids[0].Binding : solved.Binding) is { } chain ? layout.Words(chain) : null,
            [.. forbids.SelectMany(f => f.Changes.Take(1)).Take(5).Select(layout.Words)], needed, spare);
    }

    private static FallAnswer Solve(Layout layout, List<FallLength> lengths, double slope) => AutoFall.Solve(new FallQuestion(layout.Points, lengths, slope, slope, 0));

    private static Sentence Verdict(double slope, int forbidden, FallAnswer solved, bool won)
    {
        var (at, most) = (new Measure(slope, Quantity.Angle), Measure.Fall(solved.Margin));
        var rest = won
            ? Sentence.Of($"with these heights {(forbidden > 0 ? "all other lines fall" : "every line falls")} on a slope of {at}, either way, and by up to {most} more.")
            : Sentence.Of($"{(forbidden > 0 ? "the other lines have" : "every line has")} the fall already that the brief asks for, on a slope of {at}, or as much as the whole allows.");
        return forbidden == 0
            ? new Sentence(char.ToUpperInvariant(rest.Text[0]) + rest.Text[1..], rest.Values)
            : Sentence.Of($"In {forbidden} {(forbidden == 1 ? "place" : "places")} heights alone cannot help, since what is fixed forbids it; ").And(rest);
    }

    // As they lie: which of the open drains would do.
    private static (IReadOnlyList<string> Needed, IReadOnlyList<string> Spare) Drains(Question question)
    {
        if (question.Levels.Graph is not { } graph) return ([], []);
        var cocks = question.Rig.Parts.Where(p => Catalogue.Part(p.Stock)!.Passage == Passage.Drain && question.Scenario.PositionOf(p)?.Passes == true).ToList();
        if (cocks.Count is 0 or > DrainSet.MostExact) return ([], []);
        string[] nodes = [.. cocks.Select(c => $"{c.Id}.{c.Ports[0].Id}")];
        var others = graph.Network.Drains.Except(nodes).ToList();
        var found = DrainSet.Find(graph.Network with { Drains = others }, nodes, 0, Attitude.Level);
        return ([.. cocks.Where((_, i) => found.Nodes.Contains(nodes[i])).Select(c => c.Name)], [.. cocks.Where((_, i) => !found.Nodes.Contains(nodes[i])).Select(c => c.Name)]);
    }

    // The rig as points that may go up and down, and lengths that water runs along.
    private sealed class Layout
    {
        private readonly Question _question;
        private readonly Dictionary<string, Point3> _at = [];
        private readonly Dictionary<string, Place> _place = [];
        private readonly HashSet<string> _joints;

        public Layout(Question question, HeightLimits limits)
        {
            _question = question;
            // A joint goes up and down as a whole, where its ports are at one height.
            _joints = [.. question.Rig.Parts.Where(p => Catalogue.Part(p.Stock)!.Look == PartLook.Joint && p.Ports.Max(o => o.Offset.ZM) - p.Ports.Min(o => o.Offset.ZM) < 1e-6).Select(p => p.Id)];
            var points = new Dictionary<string, FallPoint>();
            var slopes = new Dictionary<string, double>();
            foreach (var drain in question.Ask(DrainDownStudy.Ask).Runs)
            {
                var run = question.Index.Run(drain.RunId);
                if (run.Service == Service.Coolant) continue;
                for (int k = 0; k < drain.Stations.Count; k++)
                {
                    var station = drain.Stations[k];
                    string id = IdOf(run, station.Id);
                    if (!points.ContainsKey(id))
                    {
                        string? zone = question.Index.ZoneAt(station.At)?.Id;
                        bool free = !limits.Holds(id, run.Id, zone) && (station.Id is not (RunPoint.From or RunPoint.To) || (id.StartsWith("parts/", StringComparison.Ordinal) && !id.Contains('.', StringComparison.Ordinal)));
                        points[id] = free ? limits.Within(Band(id, station.At), zone) : new FallPoint(id, station.At.ZM, station.At.ZM);
                        (_at[id], _place[id]) = (station.At, Place.OnRun(question.Index, run, k, station.At));
                        if (limits.SlopeAt(id, zone) is { } own) slopes[id] = own;
                    }
                    if (k + 1 >= drain.Stations.Count || station.Direction == 0) continue;
                    var next = drain.Stations[k + 1];
                    double length = station.At.DistanceM(next.At);
                    if (length < 1e-4) continue;
                    var (from, to) = station.Direction > 0 ? (id, IdOf(run, next.Id)) : (IdOf(run, next.Id), id);
                    if (from != to) Lengths.Add(new FallLength(from, to, length, station.At.XM - next.At.XM, station.At.YM - next.At.YM));
                }
            }
            Points = [.. points.Values];
            // What an end is asked by itself stands in place of what the rig is asked; of two such ends, the steeper.
            if (slopes.Count > 0)
                Lengths = [.. Lengths.Select(l => l with { ToleranceDeg = slopes.ContainsKey(l.From) || slopes.ContainsKey(l.To) ? Math.Max(slopes.GetValueOrDefault(l.From), slopes.GetValueOrDefault(l.To)) : null })];
        }

        public List<FallPoint> Points { get; }

        public List<FallLength> Lengths { get; } = [];

        /// <summary>Heights as drawn, m, by point.</summary>
        public double[] Drawn() => [.. Points.Select(p => _at[p.Id].ZM)];

        /// <summary>Whether something is drawn outside of the band that it is given.</summary>
        public bool Outside() => Drawn().Zip(Points).Any(p => p.First < p.Second.LowestM - LeastMoveM || p.First > p.Second.HighestM + LeastMoveM);

        /// <summary>Least fall of <paramref name="lengths"/> beyond the slope with these heights, m/m.</summary>
        public double Margin(double slopeDeg, List<FallLength> lengths, double[] heights)
        {
            var z = Points.Select((p, i) => (p.Id, Z: heights[i])).ToDictionary(p => p.Id, p => p.Z);
            return lengths.Count == 0 ? 0 : lengths.Min(l => (z[l.From] - z[l.To] - l.ForToleranceM(slopeDeg, slopeDeg)) / l.LengthM);
        }

        /// <summary>Heights near those drawn that fall by <paramref name="margin"/> beyond the slope: each length that does not is given half from either end, round after round; null where that does not settle.</summary>
        public double[]? Near(List<FallLength> lengths, double slopeDeg, double margin)
        {
            var number = Points.Select((p, i) => (p.Id, i)).ToDictionary(p => p.Id, p => p.i);
            // What was drawn outside of its band comes in first.
            double[] z = [.. Drawn().Select((m, i) => Math.Clamp(m, Points[i].LowestM, Points[i].HighestM))];
            var needs = lengths.Select(l => (From: number[l.From], To: number[l.To], Drop: (margin * l.LengthM) + l.ForToleranceM(slopeDeg, slopeDeg) + 2e-5)).ToArray();
            for (int round = 0; round < MostRounds; round++)
            {
                double worst = 0;
                foreach (var (from, to, drop) in needs)
                {
                    double lacks = drop - (z[from] - z[to]);
                    if (lacks <= 0) continue;
                    worst = Math.Max(worst, lacks);
                    double up = Math.Min(lacks / 2, Points[from].HighestM - z[from]), down = Math.Min(lacks - up, z[to] - Points[to].LowestM);
                    up = Math.Min(lacks - down, Points[from].HighestM - z[from]);
                    (z[from], z[to]) = (z[from] + up, z[to] - down);
                }
                if (worst < 1e-5) return z;
            }
            return null;
        }

        public (List<Edit> Edits, List<HeightChange> Changes) Made(IReadOnlyList<double> heights)
        {
            var (edits, changes) = (new List<Edit>(), new List<HeightChange>());
            var to = Points.Select((p, i) => (p.Id, Z: Math.Round(heights[i], 4))).ToDictionary(p => p.Id, p => p.Z);
            foreach (var (id, z) in to)
                if (Math.Abs(z - _at[id].ZM) >= LeastMoveM) changes.Add(new HeightChange(id, _place[id].Words, _at[id].ZM, z));
            foreach (var run in _question.Rig.Runs)
            {
                if (run.Bends.All(b => Math.Abs(to.GetValueOrDefault(IdOf(run, b.Id), b.At.ZM) - b.At.ZM) < LeastMoveM)) continue;
                edits.Add(new RouteRun(run.Id, [.. run.Bends.Select(b => b with { At = b.At with { ZM = to.GetValueOrDefault(IdOf(run, b.Id), b.At.ZM) } })]));
            }
            foreach (string joint in _joints)
                if (to.TryGetValue($"parts/{joint}", out double z) && Math.Abs(z - _at[$"parts/{joint}"].ZM) >= LeastMoveM) edits.Add(new MoveThings([$"parts/{joint}"], new Point3(0, 0, Math.Round(z - _at[$"parts/{joint}"].ZM, 4))));
            return (edits, [.. changes.OrderByDescending(c => Math.Abs(c.ToM - c.FromM))]);
        }

        public HeightChain Words(FallChain chain) =>
            new([.. chain.Points.Select(p => _place[p].Words)], [.. chain.Points.Select(p => _place[p])], chain.AvailableM, chain.LengthM, chain.ForToleranceM);

        public Sentence Words(FallChange change) =>
            change.Chain.Points is [var first, .., var last] && first != last
                ? Sentence.Of($"Let {_place[first].Words} stand {Measure.Length(change.ByM)} higher, or {_place[last].Words} as much lower.")
                : Sentence.Of($"The lines go in a ring at {_place[change.Chain.Points[0]].Words}: no heights make a ring fall all the way round.");

        // A joint is one point wherever runs meet it; a port of anything else is its own.
        private string IdOf(Run run, string point)
        {
            var end = point == RunPoint.From ? run.From : point == RunPoint.To ? run.To : null;
            if (end is null) return $"runs/{run.Id}/bends/{point}";
            if (end.Part is not { } part) return $"runs/{run.Id}/{point}";
            return _joints.Contains(part) ? $"parts/{part}" : $"parts/{part}.{end.Port}";
        }

        private FallPoint Band(string id, Point3 at)
        {
            var shell = _question.Rig.Shell;
            double lowest = at.ZM - ReachM, highest = at.ZM + ReachM;
            // What lies on the floor stays over it, what hangs under it stays under it.
            if (at.ZM >= 0 && shell.Body.At.ZM <= 0.01) lowest = Math.Max(lowest, Math.Min(at.ZM, OverSolidM));
            else if (at.ZM < 0) highest = Math.Min(highest, Math.Max(at.ZM, -OverSolidM));
            highest = Math.Min(highest, Math.Max(at.ZM, shell.Body.Far().ZM - UnderRoofM));
            foreach (var solid in shell.Obstacles)
            {
                var (low, far) = (solid.Box.At, solid.Box.Far());
                if (at.XM < low.XM || at.XM > far.XM || at.YM < low.YM || at.YM > far.YM) continue;
                if (at.ZM >= far.ZM - 0.005) lowest = Math.Max(lowest, Math.Min(at.ZM, far.ZM + OverSolidM));
                else if (at.ZM <= low.ZM + 0.005) highest = Math.Min(highest, Math.Max(at.ZM, low.ZM - OverSolidM));
            }
            return new FallPoint(id, lowest, highest);
        }
    }
}
