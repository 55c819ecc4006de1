using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Levels;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>Humps of coolant and suction lines that catch air: the levels of water, upside down.</summary>
internal sealed class HumpRule : IRule
{
    public IReadOnlyList<FindingKind> Kinds => [FindingKind.CatchesAir];

    private const double LeastAirL = 0.003;

    public IEnumerable<Idea> Fixes(Finding finding, Ideas ideas) => finding.RunIds.SelectMany(id => ideas.OfHump(id, finding.Place));

    public IEnumerable<Finding> Find(Question question)
    {
        var rig = question.Rig;
        var coolant = rig.Runs.Where(r => r.Service == Service.Coolant).ToList();
        // Air leaves a circuit at its header tank, at its bleeds, and at a radiator, which has one of its own.
        foreach (var finding in Caught(question, coolant, p => p.Stock is "header-tank" or "bleed" or "radiator", Coolant)) yield return finding;
        foreach (var finding in Caught(question, Suction(question), p =>
            Catalogue.Part(p.Stock) is { Group: PartGroup.Store, Passage: Passage.Vessel } or { Passage: Passage.Pump }, Drawn)) yield return finding;
    }

    private static readonly (string Why, string Caution) Coolant =
        ("Air stays there when you fill the circuit: it gurgles and blocks the flow.",
        "Bleed a coolant circuit cold: it is hot and under pressure when it runs.");
    private static readonly (string Why, string Caution) Drawn =
        ("The pump has to pull that air out each time the line was empty, and hammers until then.", "");

    // The shortest way from a pump back to a tank.
    private static List<Run> Suction(Question question)
    {
        var joined = question.Ask(Joined.Of);
        var far = joined.From(question.Rig.Parts.Where(p => Catalogue.Part(p.Stock) is { Group: PartGroup.Store, Passage: Passage.Vessel }).Select(p => p.Id),
            r => r.Service == Service.Cold);
        var found = new List<Run>();
        foreach (var pump in question.Rig.Parts.Where(p => Catalogue.Part(p.Stock)!.Passage == Passage.Pump))
        {
            string at = pump.Id;
            for (int guard = 0; guard < question.Rig.Runs.Count; guard++)
            {
                var ways = joined.Of(at).Where(j => (at != pump.Id || j.Port == "in") && j.Run.Service == Service.Cold && far.ContainsKey(j.Other)).ToList();
                if (ways.Count == 0) break;
                var next = ways.MinBy(j => far[j.Other]);
                if (found.Contains(next.Run) || (at != pump.Id && far[next.Other] >= far[at])) break;
                found.Add(next.Run);
                at = next.Other;
                if (far[at] == 0) break;
            }
        }
        return found;
    }

    private static IEnumerable<Finding> Caught(Question question, List<Run> runs, Func<Part, bool> opens, (string Why, string Caution) words)
    {
        var parts = runs.SelectMany(r => new[] { r.From.Part, r.To.Part }).OfType<string>().Distinct().Select(question.Index.Part).ToList();
        var open = parts.Where(opens).SelectMany(p => p.Ports.Select(o => $"{p.Id}.{o.Id}")).ToList();
        if (runs.Count == 0 || open.Count == 0) yield break;
        var nodes = parts.SelectMany(p => p.Ports.Select(o => new LevelNode($"{p.Id}.{o.Id}", p.Box.At + o.Offset))).ToList();
        var edges = new List<LevelEdge>();
        foreach (var run in runs)
        {
            edges.Add(new LevelEdge(run.Id, End(run, run.From, RunPoint.From), End(run, run.To, RunPoint.To), Catalogue.Pipe(run.Pipe)!.InnerDiameterM,
                Passes.Both, [.. run.Bends.Select(b => b.At)]));
        }
        var scenario = question.Rig.ScenarioOf(ScenarioKind.InUse);
        foreach (var part in parts.Where(p => Catalogue.Part(p.Stock)!.Passage is Passage.Through or Passage.Valve))
            foreach (var (from, to, passes) in Inside.Ways(part, scenario.PositionOf(part)).Where(w => w.Passes != Passes.None))
                edges.Add(new LevelEdge($"{part.Id}:{from}>{to}", $"{part.Id}.{from}", $"{part.Id}.{to}", 0, passes, []));
        var caught = AirLocks.Solve(new LevelNetwork(nodes, edges, [], open), question.Conditions.Parked);
        foreach (var pool in caught.Pools().Where(p => p.VolumeM3 * 1000 >= LeastAirL && !double.IsInfinity(p.LevelM)))
        {
            var run = runs[pool.Edges.Where(e => e.Edge < runs.Count).MaxBy(e => e.VolumeM3).Edge];
            int[] points = caught.Graph.PointsOfEdge(runs.IndexOf(run));
            int top = Enumerable.Range(0, points.Length).MaxBy(k => -caught.HeightM[points[k]]);
            var place = Place.OnRun(question.Index, run, top, question.Index.CourseOf(run)[top]);
            yield return new Finding(
                $"hump:{run.Id}", FindingKind.CatchesAir, Severity.Warning, run.Name, "traps air", Measure.Volume(pool.VolumeM3 * 1000),
                Sentence.Of($"It has a high point at {place.Words} where air can't escape.").And($" {words.Why}"), place, [run.Id], null, null,
                words.Caution.Length > 0 ? words.Caution : null);
        }

        string End(Run run, RunEnd end, string name)
        {
            if (end.At is not { } at) return $"{end.Part}.{end.Port}";
            nodes.Add(new LevelNode($"~{run.Id}.{name}", at));
            return $"~{run.Id}.{name}";
        }
    }
}
