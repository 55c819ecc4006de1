using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Levels;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.AllHeights;

/// <summary>The heights as variables.</summary>
public static partial class HeightFinder
{
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
            _joints = [.. question.Rig.Parts.Where(p => Catalogue.Part(p.Stock)!.Look == PartLook.Joint
                && p.Ports.Max(o => o.Offset.ZM) - p.Ports.Min(o => o.Offset.ZM) < 1e-6).Select(p => p.Id)];
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
                        bool free = !limits.Holds(id, run.Id, zone) && (station.Id is not (RunPoint.From or RunPoint.To)
                            || (id.StartsWith("parts/", StringComparison.Ordinal) && !id.Contains('.', StringComparison.Ordinal)));
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
                Lengths = [.. Lengths.Select(l => l with { ToleranceDeg = slopes.ContainsKey(l.From) || slopes.ContainsKey(l.To)
                    ? Math.Max(slopes.GetValueOrDefault(l.From), slopes.GetValueOrDefault(l.To)) : null })];
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

        /// <summary>
        /// Heights near those drawn, as few of them moved as it takes: each that moves little is held where it is, if the others can do without. A bend that
        /// alone moves in its run goes where a fix of that run would set it. Null where there are none.
        /// </summary>
        public double[]? Fewest(List<FallLength> lengths, double slopeDeg, double margin)
        {
            double[] drawn = Drawn();
            int tried = 0;
            var held = new HashSet<int>();
            if (Near(lengths, slopeDeg, margin, held) is not { } best) return null;
            foreach (int i in Enumerable.Range(0, drawn.Length).Where(i => Math.Abs(best[i] - drawn[i]) >= 1e-6).OrderBy(i => Math.Abs(best[i] - drawn[i]))
                .Take(MostHeld).ToList())
            {
                _question.GoOn(0.5 + (0.5 * tried++ / MostHeld), 1);
                if (drawn[i] < Points[i].LowestM || drawn[i] > Points[i].HighestM) continue;
                held.Add(i);
                if (Near(lengths, slopeDeg, margin, held) is { } without) best = without;
                else held.Remove(i);
            }
            var number = Points.Select((p, i) => (p.Id, i)).ToDictionary(p => p.Id, p => p.i);
            foreach (var run in _question.Rig.Runs)
            {
                var moved = run.Bends.Where(b => number.TryGetValue(IdOf(run, b.Id), out int i) && Math.Abs(best[i] - drawn[i]) >= LeastMoveM).ToList();
                if (moved.Count != 1) continue;
                int at = number[IdOf(run, moved[0].Id)];
                var slopes = new Slopes(run, _question.Ask(DrainDownStudy.Ask).Runs.First(r => r.RunId == run.Id));
                foreach (var fix in ((double[])[_question.Rig.Brief.LeastFall, TradeConstants.ToleratedFall])
                    .SelectMany(f => new[] { slopes.Lifted(f), slopes.Lowered(f) }))
                {
                    if (fix is not { Moved: 1 } one || one.Edit.Bends.First(b => b.Id == moved[0].Id).At.ZM is var z
                        && (z < Points[at].LowestM || z > Points[at].HighestM)) continue;
                    double[] so = [.. best];
                    so[at] = z;
                    if (Margin(slopeDeg, lengths, so) < Math.Min(LeastBeyond, Margin(slopeDeg, lengths, best))) continue;
                    best = so;
                    break;
                }
            }
            return best;
        }

        // Each length that does not fall by the margin beyond the slope is given half from either end, round after round; null where that does not settle.
        private double[]? Near(List<FallLength> lengths, double slopeDeg, double margin, HashSet<int> held)
        {
            var number = Points.Select((p, i) => (p.Id, i)).ToDictionary(p => p.Id, p => p.i);
            double[] drawn = Drawn();
            // What was drawn outside of its band comes in first.
            double[] z = [.. drawn.Select((m, i) => Math.Clamp(m, Points[i].LowestM, Points[i].HighestM))];
            double Lowest(int i) => held.Contains(i) ? drawn[i] : Points[i].LowestM;
            double Highest(int i) => held.Contains(i) ? drawn[i] : Points[i].HighestM;
            var needs = lengths.Select(l => (From: number[l.From], To: number[l.To],
                Drop: (margin * l.LengthM) + l.ForToleranceM(slopeDeg, slopeDeg) + 2e-5)).ToArray();
            for (int round = 0; round < MostRounds; round++)
            {
                _question.Cancel.ThrowIfCancellationRequested();
                double worst = 0;
                foreach (var (from, to, drop) in needs)
                {
                    double lacks = drop - (z[from] - z[to]);
                    if (lacks <= 0) continue;
                    worst = Math.Max(worst, lacks);
                    double up = Math.Min(lacks / 2, Highest(from) - z[from]), down = Math.Min(lacks - up, z[to] - Lowest(to));
                    up = Math.Min(lacks - down, Highest(from) - z[from]);
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
                if (to.TryGetValue($"parts/{joint}", out double z) && Math.Abs(z - _at[$"parts/{joint}"].ZM) >= LeastMoveM)
                    edits.Add(new MoveThings([$"parts/{joint}"], new Point3(0, 0, Math.Round(z - _at[$"parts/{joint}"].ZM, 4))));
            return (edits, [.. changes.OrderByDescending(c => Math.Abs(c.ToM - c.FromM))]);
        }

        public HeightChain Words(FallChain chain) =>
            new([.. chain.Points.Select(p => _place[p].Words)], [.. chain.Points.Select(p => _place[p])], chain.AvailableM, chain.LengthM, chain.ForToleranceM);

        public Sentence Words(FallChange change) =>
            change.Chain.Points is [var first, .., var last] && first != last
                ? change.ByM <= MostShiftM && !OnVessel(first) && !OnVessel(last)
                    ? Sentence.Of($"Set {_place[first].Words} {Measure.Length(change.ByM)} higher, or {_place[last].Words} as much lower.")
                    : Sentence.Of($"From {_place[first].Words} to {_place[last].Words} {Measure.Length(change.ByM)} of height are missing: put a drain where " +
                        $"it is lowest, or take a shorter way.")
                : Sentence.Of($"The lines go in a ring at {_place[change.Chain.Points[0]].Words}: no heights make a ring fall all the way round.");

        // A tank stands where there is room for it.
        private bool OnVessel(string point) =>
            point.StartsWith("parts/", StringComparison.Ordinal) && _question.Rig.Parts.Find(point["parts/".Length..].Split('.')[0]) is { } part
                && Catalogue.Part(part.Stock)!.Passage == Passage.Vessel;

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
