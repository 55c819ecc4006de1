using WarmConduit.Core.Heat.Night;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Networks;

namespace WarmConduit.Core.Studies.Night;

/// <summary>
/// Ice shut between two ends. Water that freezes grows by a tenth and pushes what is still water ahead of it: along its lines to a tank with air in it, the
/// accumulator or an open end, as long as nothing on the way is blocked by ice, shut, or passes only the other way. A full plastic line that goes on freezing
/// once its last way is blocked bursts at its fittings.
/// </summary>
internal sealed class ShutIce
{
    private const double Always = double.PositiveInfinity;

    private readonly Question _question;
    private readonly Scenario _scenario;
    private readonly IReadOnlyDictionary<string, double> _closesS;

    // Until when water at a port can still push on into its part and to somewhere with air; ports that are not in it never can.
    private readonly Dictionary<(string Part, string Port), double> _openUntil = [];

    // By id, when the first of a run's pieces is blocked, or a part; what is not in it never is.
    private ShutIce(Question question, IReadOnlyDictionary<string, double> closesS) =>
        (_question, _scenario, _closesS) = (question, question.Rig.ScenarioOf(ScenarioKind.InUse), closesS);

    /// <summary>
    /// When each of <paramref name="candidates"/> breaks, s: what any ice breaks at its first, a full plastic line once it freezes shut in; infinite: not.
    /// O(ports log ports + pieces).
    /// </summary>
    public static double[] Breaks(Question question, IReadOnlyList<FreezeCandidate> candidates, Func<int, BodyMilestones> marks)
    {
        double[] breaks = [.. candidates.Select((f, n) => f.BreaksByIce ? marks(n).FirstIceS : Always)];
        if (!candidates.Select((f, n) => f.BreaksShut && double.IsFinite(marks(n).FirstIceS)).Any(b => b)) return breaks;
        var byThing = Enumerable.Range(0, candidates.Count).ToLookup(n => candidates[n].Thing);
        // A vessel goes on taking water in until it is solid.
        var vessels = question.Rig.Parts.Where(p => Catalogue.Part(p.Stock)!.Passage == Passage.Vessel).Select(p => p.Id).ToHashSet();
        var shut = new ShutIce(question, byThing.ToDictionary(t => t.Key, t => t.Min(n => vessels.Contains(t.Key) ? marks(n).SolidS : marks(n).BlockedS)));
        shut.Open();
        foreach (var run in question.Rig.Runs)
        {
            if (!byThing[run.Id].Any(n => candidates[n].BreaksShut && double.IsFinite(marks(n).FirstIceS))) continue;
            // In the order of the run: what came back with a fill stands behind what had stayed.
            var pieces = byThing[run.Id].OrderBy(n => candidates[n].AlongM).ToList();
            double before = shut.At(run.From), to = shut.At(run.To);
            for (int k = 0; k < pieces.Count; k++)
            {
                int n = pieces[k];
                var own = marks(n);
                double open = Math.Max(before, pieces.Skip(k + 1).Select(p => marks(p).BlockedS).Append(to).Min());
                before = Math.Min(before, own.BlockedS);
                if (!candidates[n].BreaksShut || breaks[n] < Always) continue;
                if (open < own.SolidS && double.IsFinite(own.FirstIceS) && double.IsFinite(open)) breaks[n] = Math.Max(open, own.FirstIceS);
            }
        }
        return breaks;
    }

    private double At(RunEnd end) => end.Part is { } part ? _openUntil.GetValueOrDefault((part, end.Port!)) : 0;

    // From what has air, outwards: the way that stays open longest (Dijkstra, widest path).
    private void Open()
    {
        var rig = _question.Rig;
        var runsAt = rig.Runs.SelectMany(r => (RunEnd[])[r.From, r.To], (run, end) => (Run: run, End: end)).Where(r => r.End.Part is not null)
            .ToLookup(r => (r.End.Part!, r.End.Port!));
        var parts = rig.Parts.ToDictionary(p => p.Id);
        double Blocked(string id) => _closesS.GetValueOrDefault(id, Always);
        var queue = new PriorityQueue<(string Part, string Port), double>();
        void Reach((string Part, string Port) at, double until)
        {
            if (until <= _openUntil.GetValueOrDefault(at)) return;
            _openUntil[at] = until;
            queue.Enqueue(at, -until);
        }
        foreach (var part in rig.Parts)
            if (HasAir(part))
                foreach (var port in part.Ports) Reach((part.Id, port.Id), Blocked(part.Id));
        while (queue.TryDequeue(out var at, out double minus))
        {
            double until = -minus;
            if (until < _openUntil[at]) continue;
            // Whoever stands at the other end of a run here, and at any port of its part that leads there.
            foreach (var (run, end) in runsAt[at])
            {
                var other = ReferenceEquals(end, run.From) ? run.To : run.From;
                if (other.Part is not { } next) continue;
                double through = Math.Min(Math.Min(until, Blocked(run.Id)), Blocked(next));
                var part = parts[next];
                foreach (var port in part.Ports)
                    if (port.Id != other.Port && Inside.Leads(part, AtRest(part), port.Id, other.Port!)) Reach((next, port.Id), through);
            }
        }
    }

    private bool HasAir(Part part)
    {
        var stock = Catalogue.Part(part.Stock)!;
        return stock.Passage switch
        {
            Passage.Vessel => PartWater.AtStartL(part, _question.Conditions) < TradeConstants.FullShare * PartWater.HoldsL(part)
                || part.Ports.Any(p => part.RoleOf(p) == PortRole.Vent),
            Passage.OpenEnd => true,
            Passage.Mixer or Passage.Drain => _scenario.PositionOf(part)?.Passes == true,
            _ => PartWater.Pushes(part),
        };
    }

    // A pump that runs while it is drained rests at night.
    private StockPosition? AtRest(Part part) => Catalogue.Part(part.Stock)!.Passage == Passage.Pump ? null : _scenario.PositionOf(part);
}
