using System.Text.Json.Nodes;
using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Networks;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>What guards others: the non-return of town water, and the way out of a relief valve.</summary>
internal sealed class GuardRule : IRule
{
    public IReadOnlyList<FindingKind> Kinds => [FindingKind.Backflow, FindingKind.ReliefShut, FindingKind.HeaterUnguarded];

    private const string Relief = "A heater whose relief valve cannot open bursts. Never plug, close or bypass it. Have a licensed fitter check it.";

    public IEnumerable<Idea> Fixes(Finding finding, Ideas ideas) => finding is { Kind: FindingKind.HeaterUnguarded, Place.PartId: { } boiler }
        ? ideas.Heaters.Guarded(boiler, finding.Id) : [];

    public IEnumerable<Finding> Find(Question question)
    {
        var joined = question.Ask(Joined.Of);
        foreach (var part in question.Rig.Parts)
        {
            foreach (var finding in OfHeater(question, joined, part)) yield return finding;
            if (part.Stock == "town-coupling" && Unguarded(question, joined, part))
                yield return new Finding(
                    $"backflow:{part.Id}", FindingKind.Backflow, Severity.Fault, part.Name, "no check valve", null,
                    "No check valve (non-return valve) between the hose and this rig: its water can be sucked back into the " +
                    "drinking-water main, and the pump pushes it out of the hose.",
                    Place.OnPart(question.Index, part), [], null, [new Mend("Use an inlet with a check valve",
                    [new ChangeThing($"parts/{part.Id}", new JsonObject { ["stock"] = "town-inlet" })])],
                    "Local codes say which backflow device is required.");
            if (part.Stock != "relief-valve") continue;
            if (Ways(question, part, "in").FirstOrDefault(w => Passes(w.Other) == Passage.Valve) is { Other: { } valve })
                yield return new Finding(
                    $"shut:{part.Id}", FindingKind.ReliefShut, Severity.Fault, part.Name, "can be closed off", null,
                    $"“{valve.Name}” is between it and the heater.", Place.OnPart(question.Index, part), [], null, null, Relief);
            if (Ways(question, part, "out").FirstOrDefault(w => w.Other is not null
                && Passes(w.Other) is Passage.DeadEnd or Passage.Valve or Passage.Drain) is { Other: { } plug } way)
                yield return new Finding(
                    $"plugged:{part.Id}", FindingKind.ReliefShut, Severity.Fault, part.Name, "plugged", null,
                    $"Its way out ends at “{plug.Name}”, which closes it.", Place.OnPart(question.Index, part), [way.Run.Id], null,
                    [new Mend($"Remove {plug.Name} and let it drip free", Opened(question, way.Run, plug))], Relief);
        }
    }

    // Stored water swells as it warms, and boils where a thermostat sticks: whatever the school, it needs a way out that nothing shuts.
    private static IEnumerable<Finding> OfHeater(Question question, Joined joined, Part heater)
    {
        if (Catalogue.Part(heater.Stock) is not { Group: PartGroup.Heat, Passage: Passage.Vessel }
            || joined.Of(heater.Id).All(j => j.Run.Service is not (Service.Cold or Service.Hot))) yield break;
        if (Meets(joined, question, heater, null).All(p => p.Stock != "relief-valve"))
            yield return new Finding(
                $"relief:{heater.Id}", FindingKind.HeaterUnguarded, Severity.Fault, heater.Name, "no relief valve", null,
                "No relief valve is joined to it without a valve between. Water expands by 2 % as it heats, and a stuck " +
                "thermostat boils it: the heater bursts.",
                Place.OnPart(question.Index, heater), [], null, null, Relief);
        if (Meets(joined, question, heater, "cold").ToList() is { Count: > 0 } feed && feed.All(p => Passes(p) != Passage.OneWay))
            yield return new Finding(
                $"check:{heater.Id}", FindingKind.HeaterUnguarded, Severity.Warning, heater.Name, "no check valve on its cold feed", null,
                "No check valve (non-return valve) in its cold feed: hot water expands back into the cold line, and the cold tap runs warm.",
                Place.OnPart(question.Index, heater), [], null);
    }

    // Everything that a part meets first, through joints alone, from one of its ports or from all of them.
    private static IEnumerable<Part> Meets(Joined joined, Question question, Part from, string? port)
    {
        var seen = new HashSet<string> { from.Id };
        var queue = new Queue<string>(joined.Of(from.Id).Where(j => port is null || j.Port == port).Select(j => j.Other));
        while (queue.TryDequeue(out string? id))
        {
            if (!seen.Add(id)) continue;
            var part = question.Index.Part(id);
            yield return part;
            if (Catalogue.Part(part.Stock)!.Group != PartGroup.Joints) continue;
            foreach (var (_, other, _, _) in joined.Of(id)) queue.Enqueue(other);
        }
    }

    private static Passage? Passes(Part? part) => part is null ? null : Catalogue.Part(part.Stock)!.Passage;

    private static IEnumerable<(Run Run, Part? Other)> Ways(Question question, Part part, string port)
    {
        foreach (var run in question.Rig.Runs)
        {
            if (run.From.Part == part.Id && run.From.Port == port) yield return (run, run.To.Part is { } to ? question.Index.Part(to) : null);
            if (run.To.Part == part.Id && run.To.Port == port) yield return (run, run.From.Part is { } from ? question.Index.Part(from) : null);
        }
    }

    // The line keeps its course and ends in the open.
    private static IReadOnlyList<Edit> Opened(Question question, Run run, Part plug)
    {
        string end = run.To.Part == plug.Id ? "to" : "from";
        var at = question.Index.PlaceOf(end == "to" ? run.To : run.From);
        return
        [
            new ChangeThing($"runs/{run.Id}", new JsonObject { [end] = new JsonObject { ["at"] =
            new JsonObject { ["xM"] = at.XM, ["yM"] = at.YM, ["zM"] = at.ZM } } }),
            new RemoveThing($"parts/{plug.Id}"),
        ];
    }

    // To a tap, pump or tank with nothing one-way before it.
    private static bool Unguarded(Question question, Joined joined, Part coupling)
    {
        var behind = joined.Reach(joined.Of(coupling.Id).Select(j => j.Other), p => p.Id != coupling.Id && Passes(p) is not Passage.OneWay, r =>
            r.Service is Service.Cold or Service.Fill or Service.Hot).ToList();
        return behind.Any(p => Passes(p) is Passage.Mixer or Passage.Pump or Passage.Vessel);
    }
}
