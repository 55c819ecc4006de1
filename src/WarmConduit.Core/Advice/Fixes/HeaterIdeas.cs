using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Fixes;

/// <summary>Ideas about what a heater wants beside it.</summary>
internal sealed class HeaterIdeas(Question question, Fitter fit)
{
    /// <summary>A relief valve on the hot side, or a check valve in the cold feed.</summary>
    public IEnumerable<Idea> Guarded(string heaterId, string findingId)
    {
        var lines = question.Ask(Joined.Of).Of(heaterId);
        if (findingId.StartsWith("relief:", StringComparison.Ordinal))
        {
            foreach (var (port, _, _, run) in lines.Where(j => j.Port is "hot" or "cold").OrderByDescending(j => j.Port == "hot"))
                if (fit.Branch(run, run.From.Part == heaterId ? 0 : run.Bends.Count + 1, "relief-valve", "relief", 0.05,
                    $"A relief valve on the {port} side of {question.Index.Part(heaterId).Name}; lead its outlet outside") is { } relief) yield return relief;
            yield break;
        }
        foreach (var (_, _, _, run) in lines.Where(j => j.Port == "cold"))
            if (fit.LongestLeg(run).LengthM >= Fitter.StraightM)
                yield return new Idea($"A check valve in {run.Name}", run.From.Part == heaterId
                    ? fit.Inline(run, "check-valve", "heater-check", "heater check valve", "out", "in")
                    : fit.Inline(run, "check-valve", "heater-check", "heater check valve", "in", "out"));
    }

    /// <summary>A ball valve in a line that joins hot and cold, shut in use and open when draining; or the line taken away.</summary>
    public IEnumerable<Idea> Parted(string runId)
    {
        var run = question.Index.Run(runId);
        if (fit.LongestLeg(run).LengthM >= Fitter.StraightM)
        {
            var valve = fit.Inline(run, "ball-valve", "parting-valve", "valve between hot and cold", "a", "b");
            string id = ((PlacePart)valve[0]).PartId;
            yield return new Idea(
                $"A ball valve in {run.Name}, shut in use and open when draining",
                [.. valve, .. question.Rig.Scenarios.Select(s => new SetPosition(s.Id, id,
                s.Kind is ScenarioKind.Drain or ScenarioKind.BlowOut or ScenarioKind.Antifreeze ? Positions.Open : Positions.Closed))]);
        }
        yield return new Idea($"Remove {run.Name}", [new RemoveThing($"runs/{runId}")]);
    }

    /// <summary>A thermostatic mixing valve in the line that leaves the heater, with cold water from a tee in the line that feeds it.</summary>
    public IEnumerable<Idea> Tempered(string heaterId)
    {
        var feeds = question.Ask(Joined.Of).Of(heaterId).Where(j => j.Port is "cold" or "in").Select(j => j.Run).ToList();
        foreach (var hot in Leaving(heaterId).Where(r => fit.LongestLeg(r).LengthM >= Fitter.StraightM).Take(3))
        {
            var inline = fit.Inline(hot, "mixing-valve", "mixing-valve", "thermostatic mixing valve", "hot", "mixed");
            string valve = ((PlacePart)inline[0]).PartId;
            foreach (var feed in feeds)
            {
                var course = question.Index.CourseOf(feed);
                var (leg, length) = fit.LongestLeg(feed);
                if (length < Fitter.StraightM) continue;
                string tee = fit.Free("tempering-tee");
                yield return new Idea(
                    Sentence.Of($"A thermostatic mixing valve in {hot.Name}, with cold water from {feed.Name}"),
                    [
                        .. inline,
                        new PutTee(feed.Id, leg == 0 ? null : feed.Bends[leg - 1].Id, course[leg].Towards(course[leg + 1], 0.5), tee, "tempering tee",
                        fit.Free($"{feed.Id}-on")),
                        fit.Line("tempering", "cold to the mixing valve", Service.Cold, feed.Pipe, new RunEnd(tee, "c"), new RunEnd(valve, "cold")),
                    ]);
            }
        }
    }

    // Runs that lead away from a heater's hot port, and on through joints, the nearest first.
    private IEnumerable<Run> Leaving(string heaterId)
    {
        var joined = question.Ask(Joined.Of);
        var seen = new HashSet<string> { heaterId };
        var queue = new Queue<string>([heaterId]);
        while (queue.TryDequeue(out string? at))
            foreach (var (port, other, _, run) in joined.Of(at))
            {
                if (run.From.Part != at || run.Service != Service.Hot || (at == heaterId && !PartWater.LeavesHot(port))) continue;
                yield return run;
                if (seen.Add(other) && Catalogue.Part(question.Index.Part(other).Stock)!.Group == PartGroup.Joints) queue.Enqueue(other);
            }
    }
}
