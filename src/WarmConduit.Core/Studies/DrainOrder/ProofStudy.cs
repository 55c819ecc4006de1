using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Left;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.DrainOrder;

/// <summary>Measured volume.</summary>
/// <param name="StepId">The step it was measured at.</param>
/// <param name="MeasuredL">What came out, L; 0 to 10,000.</param>
public sealed record ProofInput(string StepId, double MeasuredL) : IStudyInput
{
    /// <inheritdoc/>
    public IReadOnlyList<RigFault> Check(Rig rig) => FieldChecker.Of(c => c.Range("measuredL", MeasuredL, "left.outL"));
}

/// <summary>A possible cause of a low measured volume.</summary>
/// <param name="PartId">The part to look at.</param>
/// <param name="Words">Possible causes.</param>
/// <param name="WouldBeL">What would come out at this step then, L.</param>
/// <param name="StaysMoreL">What stays more in the rig then, L.</param>
public sealed record Suspect(string PartId, Sentence Words, double WouldBeL, double StaysMoreL);

/// <summary>A measured volume against what should have come out.</summary>
/// <param name="StepId">The step.</param>
/// <param name="ExpectedL">What should have come out, L.</param>
/// <param name="MeasuredL">What came out, L.</param>
/// <param name="Verdict">The reading in words.</param>
/// <param name="Suspects">Possible causes, the best fit first.</param>
public sealed record ProofAnswer(string StepId, double ExpectedL, double MeasuredL, Sentence Verdict, IReadOnlyList<Suspect> Suspects);

/// <summary>Proof of empty: what a jug tells.</summary>
public static class ProofStudy
{
    private const int Most = 5;

    /// <summary>
    /// Each valve and tap shut and each task not done is tried in turn. Pure. O(parts · steps). What is no step has no expectation and no suspects.
    /// </summary>
    public static ProofAnswer Ask(Question question, ProofInput input)
    {
        var (step, measured) = input;
        var order = DrainOrderStudy.Order(question, new Stage(question, new HashSet<string>(), new HashSet<string>()));
        var whole = order;
        int at = order.FindIndex(s => s.Id == step);
        // Where it is known what was done before it, by that.
        if (new LeftActs(question).Before(step) is { } before)
        {
            order = [.. before.Append(step).Select(p => (p, (string[])[p], question.Rig.ByHand.Find(p) is null ? DrainStepKind.Drain
                : DrainStepKind.Hand, ""))];
            at = before.Count;
        }
        if (at < 0) return new ProofAnswer(step, 0, 0, "Type what came out at one of the steps.", []);
        double expected = Out(question, order, at, null, null);
        var reading = JugReading.Of(step, expected, measured);
        if (reading.Agrees)
            return new ProofAnswer(step, expected, measured,
                Sentence.Of($"As expected: {Measure.Volume(expected)}. A jug is accurate to {Measure.Volume(reading.FinestL)}."), []);
        var suspects = new List<Suspect>();
        double stays = All(question, whole, null, null).StaysL();
        foreach (var part in question.Rig.Parts)
        {
            question.Cancel.ThrowIfCancellationRequested();
            var stock = Catalogue.Part(part.Stock)!;
            // The step's own opening was opened: something ran.
            if (part.Id == step || !stock.Positions.Any(p => p.Id == Positions.Closed) || question.Scenario.PositionOf(part)?.Passes != true) continue;
            Add(part, $"{part.Name} is shut, or stuck", part.Id, null);
        }
        foreach (var hand in question.Rig.ByHand)
            Add(question.Index.Part(hand.Id), $"{question.Index.Part(hand.Id).Name}: {DrainOrderStudy.Task(question, hand.Id)}, not done yet", null, hand.Id);
        var ranked = suspects.Where(s => Math.Abs(s.WouldBeL - expected) > 0.005).OrderBy(s => Math.Abs(s.WouldBeL - measured)).Take(Most).ToList();
        var verdict = measured < expected
            ? Sentence.Of($"{Measure.Volume(expected - measured)} is missing of {Measure.Volume(expected)}: it is still in the rig, or came out elsewhere.")
            : Sentence.Of($"{Measure.Volume(measured - expected)} more came than the {Measure.Volume(expected)} expected: an earlier step let out less, or a " +
                $"tank was fuller than assumed.");
        return new ProofAnswer(step, expected, measured, verdict, ranked);

        void Add(Part part, string words, string? shut, string? undone) =>
            suspects.Add(new Suspect(part.Id, words, Out(question, order, at, shut, undone), All(question, whole, shut, undone).StaysL() - stays));
    }

    private static double Out(Question question, List<(string Id, string[] Parts, DrainStepKind Kind, string Why)> order, int step, string? shut,
        string? undone) =>
        Math.Max(0, After(question, order, step, shut, undone).StaysL() - After(question, order, step + 1, shut, undone).StaysL());

    private static Stage All(Question question, List<(string Id, string[] Parts, DrainStepKind Kind, string Why)> order, string? shut, string? undone) =>
        After(question, order, order.Count, shut, undone);

    private static Stage After(Question question, List<(string Id, string[] Parts, DrainStepKind Kind, string Why)> order, int count, string? shut,
        string? undone)
    {
        var (opened, done) = (new HashSet<string>(), new HashSet<string>());
        foreach (var (id, parts, kind, _) in order.Take(count))
        {
            if (kind == DrainStepKind.Hand) done.Add(id);
            else opened.UnionWith(parts);
        }
        if (undone is not null) done.Remove(undone);
        return new Stage(question, opened, done, shut);
    }
}
