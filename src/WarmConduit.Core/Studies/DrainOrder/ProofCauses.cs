using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Studies.Parking;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.DrainOrder;

/// <summary>One step of an order of draining, as causes are tried on it.</summary>
internal readonly record struct OrderedStep(string Id, string[] Parts, DrainStepKind Kind);

/// <summary>Something that would make another volume come: the rig as it then stands, or what was not done to it.</summary>
/// <param name="PartId">The part to look at.</param>
/// <param name="Words">What it is.</param>
/// <param name="Try">What to try.</param>
/// <param name="Of">The rig, and how it stands.</param>
/// <param name="Shut">A part that is shut, whatever was done; null: none.</param>
/// <param name="Undone">A task that was not done; null: none.</param>
/// <param name="Skipped">A step that was skipped; null: none.</param>
internal sealed record ProofCause(
    string PartId, Sentence Words, Sentence Try, Question Of, string? Shut = null, string? Undone = null, string? Skipped = null)
{
    /// <summary>What stays after the first <paramref name="count"/> steps, L. One drain-down.</summary>
    public DrainDownAnswer After(IReadOnlyList<OrderedStep> order, int count)
    {
        var (opened, done) = (new HashSet<string>(), new HashSet<string>());
        foreach (var step in order.Take(count).Where(s => s.Id != Skipped))
        {
            if (step.Kind == DrainStepKind.Hand) done.Add(step.Id);
            else opened.UnionWith(step.Parts);
        }
        if (Undone is not null) done.Remove(Undone);
        return new Stage(Of, opened, done, Shut).Drained;
    }

    /// <summary>What comes at step number <paramref name="at"/>, L. Two drain-downs.</summary>
    public double Out(IReadOnlyList<OrderedStep> order, int at) => Math.Max(0, After(order, at).Stays.TotalL - After(order, at + 1).Stays.TotalL);
}

/// <summary>What may be behind a jug that is not as full as it should be, each tried by the same levels as everything else.</summary>
internal static class ProofCauses
{
    // A lean that nobody sees, and a dip between two clips that nobody feels. Estimates; so many lines are tried.
    private const double LeanDeg = 2, SagM = 0.03, LeastEmptiedL = 0.02;
    private const int MostSags = 5;

    /// <summary>Valves, taps and drains that are shut or were skipped, tasks not done, a lean either way, and a sag of what this step empties.</summary>
    public static IEnumerable<ProofCause> Of(Question question, IReadOnlyList<OrderedStep> order, int at)
    {
        string step = order[at].Id;
        foreach (var part in question.Rig.Parts)
        {
            var stock = Catalogue.Part(part.Stock)!;
            // The step's own opening was opened: something ran.
            if (part.Id == step || !stock.Positions.Any(p => p.Id == Positions.Closed) || question.Scenario.PositionOf(part)?.Passes != true) continue;
            bool earlier = order.Take(at).Any(s => s.Id == part.Id);
            yield return new ProofCause(part.Id, $"{part.Name} is shut, or stuck{(earlier ? ", or its step was skipped" : "")}",
                $"Open {part.Name} fully, then this once more", question, Shut: part.Id);
        }
        foreach (var skipped in order.Take(at).Where(s => s.Kind != DrainStepKind.Hand && s.Parts.Length > 1))
            yield return new ProofCause(skipped.Parts[0], "The taps were not opened: no air gets in", "Open every tap, hot and cold, and wait", question,
                Skipped: skipped.Id);
        foreach (var hand in question.Rig.ByHand)
        {
            var part = question.Index.Part(hand.Id);
            string task = DrainOrderStudy.Task(question, hand.Id);
            yield return new ProofCause(part.Id, $"{part.Name}: {task}, not done yet", $"{part.Name}: {task}, now", question, Undone: hand.Id);
        }
        var parked = question.Conditions.Parked;
        foreach (var lean in (Attitude[])[new(LeanDeg, 0), new(-LeanDeg, 0), new(0, LeanDeg), new(0, -LeanDeg)])
            yield return new ProofCause(step, $"The vehicle leans more than was told: {ParkingCount.Words(lean)}",
                "Look at a spirit level on the floor, park or jack it level, then open this once more",
                question.With(question.Conditions with { Parked = new Attitude(parked.PitchDeg + lean.PitchDeg, parked.RollDeg + lean.RollDeg) }));
        foreach (var cause in Sags(question, order, at)) yield return cause;
    }

    private static IEnumerable<ProofCause> Sags(Question question, IReadOnlyList<OrderedStep> order, int at)
    {
        var asDrawn = new ProofCause(order[at].Id, "", "", question);
        var (before, after) = (asDrawn.After(order, at), asDrawn.After(order, at + 1));
        foreach (int r in Enumerable.Range(0, question.Rig.Runs.Count).Where(r => before.Runs[r].StaysL - after.Runs[r].StaysL > LeastEmptiedL)
            .OrderByDescending(r => before.Runs[r].StaysL - after.Runs[r].StaysL).Take(MostSags))
        {
            var run = question.Rig.Runs[r];
            if (Sagging(question, run) is { } sagging)
                yield return new ProofCause(order[at].Id, Sentence.Of($"{run.Name} sags by {Measure.Length(SagM)} between its clips"),
                    $"Lift {run.Name} in its middle while this is open, and put a clip there", sagging);
        }
    }

    // In the middle of its longest length.
    private static Question? Sagging(Question question, Run run)
    {
        var course = question.Index.CourseOf(run);
        int longest = Enumerable.Range(0, course.Length - 1).MaxBy(i => course[i].DistanceM(course[i + 1]));
        var middle = course[longest].Towards(course[longest + 1], 0.5);
        string id = "sags";
        while (run.Bends.Any(b => b.Id == id)) id += "-on";
        var sag = new InsertBend(run.Id, new Bend(id, new Point3(middle.XM, middle.YM, middle.ZM - SagM)), longest == 0 ? null : run.Bends[longest - 1].Id);
        try
        {
            return question.On(Editor.Apply(question.Rig, [sag]).Rig, question.Cancel);
        }
        catch (RigFileException)
        {
            // As low as places go.
            return null;
        }
    }
}
