using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Cold;

/// <summary>
/// The cheapest set of measures that holds all water warm enough: what gains most for its cost first, each tried on the whole rig's night with those before it;
/// then what is not needed is left out, and what is dear changed for what is cheaper.
/// </summary>
public static class HoldFinder
{
    private const int MostNights = 900, QuickNights = 300, MostPieces = 24, MostTold = 6, FewPieces = 14;

    // A measure that gains less than this, K, gains nothing.
    private const double WorthK = 0.01, Hardly = 1e-9;

    /// <summary>Asks. Pure. Some 900 nights at the most, and those that tell the bound.</summary>
    public static HoldAnswer Ask(Question question, HoldInput input) => new Search(question, input).Run();

    private sealed class Search
    {
        private readonly HoldInput _input;
        private readonly Question _question;
        private readonly Question _base;
        private readonly IReadOnlyList<HoldPiece> _pool;
        private readonly Dictionary<string, Held?> _known = [];
        private readonly int _most;
        private HashSet<string> _never = [];

        public Search(Question question, HoldInput input)
        {
            (_question, _input, _most) = (question, input, input.Quick ? QuickNights : MostNights);
            _base = question.With(input.Night(question));
            var pieces = new HoldPieces(_base).For(_base.Ask(RigNight.Of), input.HoldC);
            // Without its price nobody knows whether it is the cheapest.
            _pool = input.By == HoldBy.Money ? [.. pieces.Where(p => p.Money is not null)] : pieces;
        }

        public HoldAnswer Run()
        {
            var now = Try([])!;
            // What all measures together do not hold no set does: the rest is held, and that is told.
            if (now.Deficit > 0) _never = [.. BelowWith(Enumerable.Range(0, _pool.Count))];
            var set = Greedy(now);
            if (Try(set)!.Deficit > 0 && Few(double.PositiveInfinity, s => Try(s) is { Deficit: <= 0 }) is { } found) (_never, set) = ([], found);
            if (Holds(set)) set = Cheaper(Pruned(set));
            if (_input.By != HoldBy.Energy && Holds(set) && Few(Cost(set), Holds) is { } cheaper) set = Pruned(cheaper);
            return Answer(set, now, Try(set)!);
        }

        // What stays below with all of these done: of a place that could have one or another, with its first and with its last.
        private HashSet<string> BelowWith(IEnumerable<int> pieces)
        {
            var places = pieces.GroupBy(p => _pool[p].Place).ToList();
            HashSet<string> below = [.. Try([])!.Below.Keys];
            foreach (int[] set in (int[][])[[.. places.Select(g => g.First())], [.. places.Select(g => g.Last())]])
                if (Try(set) is { } held) below.IntersectWith(held.Below.Keys);
            return below;
        }

        private double Short(Held held) => held.Below.Where(b => !_never.Contains(b.Key)).Sum(b => _input.HoldC - b.Value.C);

        private bool Holds(IReadOnlyList<int> set) => Try(set) is { } held && Short(held) <= 0;

        private double Price(HoldPiece piece) => _input.By == HoldBy.Money ? piece.Money!.Value : piece.EffortH;

        // Of energy the night itself says what a set costs; work decides between those that take as much.
        private double Cost(IReadOnlyList<int> set) => _input.By == HoldBy.Energy ? Try(set)!.HeatWh + (1e-3 * set.Sum(p => _pool[p].EffortH))
            : set.Sum(p => Price(_pool[p]));

        private Held? Try(IReadOnlyList<int> set)
        {
            string key = string.Join(',', set.Order());
            if (_known.TryGetValue(key, out var held)) return held;
            _question.GoOn(Math.Min(_known.Count, _most), _most);
            return _known[key] = After(set) is { } after ? Held.Of(after.Ask(RigNight.Of), _input.HoldC) : null;
        }

        private Question? After(IReadOnlyList<int> set)
        {
            if (set.Count == 0) return _base;
            try
            {
                var rig = _base.Rig;
                foreach (int p in set.Order()) rig = Editor.Apply(rig, _pool[p].EditsOn(rig)).Rig;
                return _base.On(rig, _base.Cancel);
            }
            catch (RigFileException)
            {
                return null;
            }
        }

        private bool Spent => _known.Count >= _most;

        // What gained little before gains little later: only what might be the best is tried again.
        private List<int> Greedy(Held at)
        {
            var set = new List<int>();
            var queue = new PriorityQueue<int, double>();
            for (int p = 0; p < _pool.Count; p++) queue.Enqueue(p, double.NegativeInfinity);
            var fresh = new Dictionary<int, (int Round, double Worth)>();
            while (Short(at) > 0 && set.Count < MostPieces && !Spent && queue.TryDequeue(out int p, out double worth))
            {
                if (set.Any(s => _pool[s].Place == _pool[p].Place)) continue;
                if (fresh.TryGetValue(p, out var told) && told.Round == set.Count)
                {
                    if (told.Worth <= 0) break;
                    set.Add(p);
                    at = Try(set)!;
                    continue;
                }
                if (Try([.. set, p]) is not { } then) continue;
                double gain = Short(at) - Short(then);
                double cost = _input.By == HoldBy.Energy ? Math.Max(1, then.HeatWh - at.HeatWh + (10 * _pool[p].EffortH)) : Math.Max(0.01, Price(_pool[p]));
                double each = gain > WorthK ? gain / cost : 0;
                fresh[p] = (set.Count, each);
                queue.Enqueue(p, -each);
            }
            return set;
        }

        // Measures that are in each other's way, or that help only together, mislead whoever takes the best one by one. Of few, all sets of up to three are
        // tried that cost less than is known, the cheapest first; null: none of them does it.
        private List<int>? Few(double cost, Func<List<int>, bool> does)
        {
            if (_pool.Count > FewPieces) return null;
            var sets = new List<List<int>>();
            void Add(List<int> set)
            {
                for (int p = set.Count > 0 ? set[^1] + 1 : 0; set.Count < 3 && p < _pool.Count; p++)
                {
                    if (set.Any(s => _pool[s].Place == _pool[p].Place)) continue;
                    sets.Add([.. set, p]);
                    Add(sets[^1]);
                }
            }
            Add([]);
            return sets.Select(s => (Set: s, Cost: s.Sum(p => Price(_pool[p])))).Where(s => s.Cost < cost - Hardly).OrderBy(s => s.Cost).Select(s => s.Set)
                .TakeWhile(_ => !Spent).FirstOrDefault(does);
        }

        // The dearest first; until none can be spared.
        private List<int> Pruned(List<int> set)
        {
            for (bool spared = true; spared;)
            {
                spared = false;
                foreach (int p in set.OrderByDescending(p => Price(_pool[p])).ToList())
                {
                    int[] without = [.. set.Where(s => s != p)];
                    if (!Holds(without) || Cost(without) > Cost(set) + Hardly) continue;
                    set = [.. without];
                    spared = true;
                    break;
                }
            }
            return set;
        }

        // One for one, and one for two.
        private List<int> Cheaper(List<int> set)
        {
            for (bool better = true; better && !Spent;)
            {
                better = false;
                foreach (int[] off in set.Select(p => (int[])[p]).Concat(set.SelectMany((a, i) => set.Skip(i + 1).Select(b => (int[])[a, b]))).ToList())
                {
                    var rest = set.Except(off).ToList();
                    double left = off.Sum(p => Price(_pool[p]));
                    foreach (int q in Enumerable.Range(0, _pool.Count).Where(q => !set.Contains(q) && rest.All(s => _pool[s].Place != _pool[q].Place))
                        .Where(q => _input.By == HoldBy.Energy || Price(_pool[q]) < left - Hardly).OrderBy(q => Price(_pool[q])))
                    {
                        if (Spent) return set;
                        List<int> other = [.. rest, q];
                        if (!Holds(other) || Cost(other) >= Cost(set) - Hardly) continue;
                        set = Pruned(other);
                        better = true;
                        break;
                    }
                    if (better) break;
                }
            }
            return set;
        }

        // What nothing else would hold needs one of its own: the cheapest of those at the least. Exact where no measure harms another.
        private double? Bound()
        {
            if (_input.By == HoldBy.Energy) return null;
            double sum = 0, cheapest = double.PositiveInfinity;
            foreach (string thing in Try([])!.Below.Keys.Where(t => !_never.Contains(t)))
            {
                int[] own = [.. Enumerable.Range(0, _pool.Count).Where(p => _pool[p].Thing == thing)];
                cheapest = Math.Min(cheapest, _pool.Select(Price).DefaultIfEmpty(0).Min());
                if (own.Length == 0) continue;
                if (BelowWith(Enumerable.Range(0, _pool.Count).Except(own)).Contains(thing)) sum += own.Min(p => Price(_pool[p]));
            }
            return Math.Max(sum, double.IsFinite(cheapest) ? cheapest : 0);
        }

        private HoldAnswer Answer(List<int> set, Held now, Held then)
        {
            bool holds = then.Deficit <= 0;
            double? bound = Short(then) <= 0 && set.Count > 0 ? Bound() : null;
            var after = After(set)!;
            Edit[] edits = [.. EditsOf(set)];
            double Coldest(Uncertainty doubt) => Held.Of(RigNight.Of(after, doubt), _input.HoldC).ColdestC;
            double[] band = [then.ColdestC, Coldest(Uncertainty.Pessimistic), Coldest(Uncertainty.Optimistic)];
            var hold = Measure.Temperature(_input.HoldC);
            var night = _base.Conditions;
            var at = Sentence.Of($"at {Measure.Temperature(night.OutdoorC)} with {new Measure(night.WindMPerS, Quantity.Speed)} of wind for " +
                $"{Measure.Duration(night.Hours * 3600)}");
            Sentence words = now.Deficit <= 0 ? Sentence.Of($"Nothing is needed: all water stays at {hold} or above, ").And(at).And(".")
                : holds ? Sentence.Of($"All water stays at {hold} or above, ").And(at).And(".")
                : _input.By == HoldBy.Money && _pool.Count == 0 ? "No prices are known. Type some, or spare work instead."
                : Sentence.Of($"No measure that was tried holds {hold} in all water, ").And(at)
                    .And(set.Count > 0 ? ". This holds all but what is named: drain that." : ". Drain what is named.");
            return new HoldAnswer(
                holds, words, [.. set.Select(p => new HeldBy(_pool[p].Words, Why(set, p), _pool[p].EffortH, _pool[p].Money))], Cost(set), bound,
                Sentence.Of($"The coldest is {(then.Coldest == "" ? "nothing" : then.Coldest)}: {Measure.Temperature(then.ColdestC)}. Over what " +
                    $"is guessed it is between {Measure.Temperature(band.Min())} and {Measure.Temperature(band.Max())}."),
                now.HeatWh, then.HeatWh,
                [.. Left(then)],
                edits, edits.Length == 0 ? null : Editor.Apply(_question.Rig, edits).Effect, _known.Count);
        }

        private static IEnumerable<Sentence> Left(Held then)
        {
            foreach (var (c, name) in then.Below.Values.OrderBy(f => f.C).Take(MostTold)) yield return Sentence.Of($"{name}: {Measure.Temperature(c)}");
            if (then.Below.Count > MostTold)
                yield return $"{then.Below.Count - MostTold} more: {string.Join("; ", then.Below.Values.OrderBy(f => f.C).Skip(MostTold).Select(f => f.Name))}";
        }

        private IEnumerable<Edit> EditsOf(List<int> set)
        {
            var rig = _base.Rig;
            foreach (int p in set.Order())
            {
                var edits = _pool[p].EditsOn(rig);
                rig = Editor.Apply(rig, edits).Rig;
                foreach (var edit in edits) yield return edit;
            }
        }

        private Sentence Why(List<int> set, int piece)
        {
            var without = Try([.. set.Where(s => s != piece)]);
            var below = without?.Below.Where(b => !_never.Contains(b.Key)).Select(b => b.Value).ToList() ?? [];
            if (below.Count == 0) return "With it the night takes less heat.";
            var (c, name) = below.MinBy(f => f.C);
            string more = below.Count > 1 ? $" and {below.Count - 1} more fall" : " falls";
            return Sentence.Of($"Without it {name}{more} below {Measure.Temperature(_input.HoldC)}: to {Measure.Temperature(c)}.");
        }
    }
}
