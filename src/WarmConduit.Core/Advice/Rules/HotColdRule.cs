using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Scenarios;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>Taps whose hot and cold lines are exchanged, and lines that join hot and cold past the heater, with every valve as it stands in use.</summary>
internal sealed class HotColdRule : IRule
{
    public IReadOnlyList<FindingKind> Kinds => [FindingKind.HotCold];

    private const string Scald = "Hot water where cold is expected scalds, children and guests first.";

    public IEnumerable<Idea> Fixes(Finding finding, Ideas ideas) => finding.Id.StartsWith("past:", StringComparison.Ordinal)
        ? finding.RunIds.SelectMany(ideas.Heaters.Parted) : [];

    public IEnumerable<Finding> Find(Question question) => UsedIn(question.Rig).Select(s => AsFound(question, s))
        .SelectMany(s => Find(question, s)).Concat(Crossing(question)).DistinctBy(f => f.Id);

    // A mixing tap that is open while something behind it is shut joins both lines.
    private static IEnumerable<Finding> Crossing(Question question)
    {
        var joined = question.Ask(Joined.Of);
        Passage? Behind(Part tap, string port) => joined.Of(tap.Id).Where(j => j.Port == port)
            .Select(j => (Passage?)Catalogue.Part(question.Index.Part(j.Other).Stock)!.Passage).FirstOrDefault();
        foreach (var tap in question.Rig.Parts.Where(p => Catalogue.Part(p.Stock)!.Passage == Passage.Mixer))
        {
            if (Behind(tap, "hot") is null || Behind(tap, "cold") is null or Passage.OneWay) continue;
            if (joined.Of(tap.Id).Where(j => j.Port == "spout").Select(j => question.Index.Part(j.Other))
                .FirstOrDefault(p => Catalogue.Part(p.Stock)!.Passage is Passage.Valve or Passage.Mixer) is not { } shut) continue;
            yield return new Finding(
                $"crosses:{tap.Id}", FindingKind.HotCold, Severity.Note, tap.Name, "lets hot into cold", null,
                $"With it open and “{shut.Name}” behind it closed, hot water passes into the cold line. A check valve at its cold inlet stops that.",
                Place.OnPart(question.Index, tap), [], null, null, Scald);
        }
    }

    // Where there is an inlet for town water, it is used from that as well.
    private static IEnumerable<Scenario> UsedIn(Rig rig) =>
        rig.Scenarios.Where(s => s.Kind == ScenarioKind.InUse || (s.Kind == ScenarioKind.TownWater
            && rig.Parts.Any(RigFlow.IsTownInlet)));

    // With what nobody has set as it is found for the task.
    private static Scenario AsFound(Question question, Scenario scenario)
    {
        var task = question.Tasks.For(FoundTasks.TaskOf(scenario.Kind)!.Value, question.Cancel);
        return scenario with { Settings = [.. question.Tasks.SettingsOf(task).Where(s => scenario.Settings.Find(s.Id) is null), .. scenario.Settings] };
    }

    private static IEnumerable<Finding> Find(Question question, Scenario scenario)
    {
        var rig = question.Rig;
        var hot = Reach(question, scenario, rig.Parts.Where(PartWater.HeatsWater)
            .SelectMany(h => h.Ports.Where(p => PartWater.LeavesHot(p.Id)).Select(p => (h.Id, p.Id))), pumped: false);
        if (hot.Count == 0) yield break;
        var sources = rig.Parts.Where(p => Catalogue.Part(p.Stock) is { Group: PartGroup.Store, Passage: Passage.Vessel } or
        {
            Group: PartGroup.Fill,
            Passage: Passage.OneWay or Passage.Through
        });
        var cold = Reach(question, scenario, sources.SelectMany(s => s.Ports.Select(p => (s.Id, p.Id))), pumped: true);
        var joined = question.Ask(Joined.Of);
        foreach (var tap in rig.Parts.Where(p => p.PortAt("hot") is not null && p.PortAt("cold") is not null && !PartWater.HeatsWater(p)))
        {
            bool Only(string port, Dictionary<(string, string), Way> one, Dictionary<(string, string), Way> other) => one.ContainsKey((tap.Id, port))
                && !other.ContainsKey((tap.Id, port));
            if (!Only("cold", hot, cold) || !Only("hot", cold, hot)) continue;
            yield return new Finding(
                $"exchanged:{tap.Id}", FindingKind.HotCold, Severity.Fault, tap.Name, "hot and cold swapped", null,
                "Its cold side is fed by the heater, and its hot side by the cold line.",
                Place.OnPart(question.Index, tap), [.. joined.Of(tap.Id).Where(j => j.Port is "hot" or "cold").Select(j => j.Run.Id)], null,
                [new Mend("Swap its two lines", BackwardsRule.Swapped(joined, tap.Id, "cold", "hot"))], Scald);
        }
        // Where they meet, all lines from there to the heater and to the tank are reached from both sides: what joins a hot line to a cold one is the place,
        // else the middle.
        var meet = hot.Where(h => h.Value.Run is not null && cold.ContainsKey(h.Key) && IsJoint(question.Index.Part(h.Key.Part)))
            .OrderBy(h => joined.Of(h.Key.Part).Select(j => j.Run.Service).Where(s => s is Service.Cold or Service.Hot).Distinct().Count() > 1 ? 0 : 1)
            .ThenBy(h => Math.Abs(h.Value.Runs - cold[h.Key].Runs)).Select(h => ((string Part, string Run)?)(h.Key.Part, h.Value.Run!)).FirstOrDefault();
        if (meet is not var (joint, line)) yield break;
        var place = question.Index.Part(joint);
        IReadOnlyList<Mend>? shut = Catalogue.Part(place.Stock)!.Passage == Passage.Valve
            ? [new Mend($"Leave {place.Name} closed in use", [.. UsedIn(rig).Select(s => new SetPosition(s.Id, place.Id, Positions.Closed))])] : null;
        yield return new Finding(
            $"past:{line}", FindingKind.HotCold, Severity.Fault, place.Name, "joins hot and cold", null,
            $"In use, “{question.Index.Run(line).Name}” joins hot and cold lines here, after the heater, with nothing closed between them: they mix, and no " +
            $"tap is properly hot or cold.",
            Place.OnPart(question.Index, place), [line], null, shut, Scald);
    }

    // By which run water comes, and over how many.
    private readonly record struct Way(string? Run, int Runs);

    private static bool IsJoint(Part part) => Catalogue.Part(part.Stock) is { Group: PartGroup.Joints } or { Passage: Passage.Valve };

    // Every port that water comes to from these, and the run by which it came; not through taps and heaters, nor through what mixes hot with cold on purpose.
    // Breadth first, so that the first is the nearest.
    private static Dictionary<(string Part, string Port), Way> Reach(Question question, Scenario scenario,
        IEnumerable<(string Part, string Port)> from, bool pumped)
    {
        var joined = question.Ask(Joined.Of);
        var found = new Dictionary<(string, string), Way>();
        var queue = new Queue<(string Part, string Port)>();
        void Come((string, string) at, Way by)
        {
            if (found.TryAdd(at, by)) queue.Enqueue(at);
        }
        foreach (var at in from) Come(at, default);
        while (queue.TryDequeue(out var at))
        {
            foreach (var (port, other, otherPort, run) in joined.Of(at.Part))
            {
                if (port != at.Port || run.Service is not (Service.Cold or Service.Hot)) continue;
                var way = new Way(run.Id, found[at].Runs + 1);
                Come((other, otherPort), way);
                var part = question.Index.Part(other);
                var stock = Catalogue.Part(part.Stock)!;
                if (PartWater.HeatsWater(part) || stock.Passage is Passage.Mixer or Passage.Vessel || part.PortAt("mixed") is not null
                    || (stock.Passage == Passage.Pump && !pumped)) continue;
                var position = scenario.PositionOf(part);
                foreach (var next in part.Ports)
                    if (next.Id != otherPort && Inside.Leads(part, position, otherPort, next.Id)) Come((other, next.Id), way);
            }
        }
        return found;
    }
}
