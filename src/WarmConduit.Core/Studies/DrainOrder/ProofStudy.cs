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

/// <summary>A possible cause of a measured volume that is too low or too high: it explains it within the error of the jug.</summary>
/// <param name="PartId">The part to look at.</param>
/// <param name="Words">The cause.</param>
/// <param name="WouldBeL">What would come out at this step then, L.</param>
/// <param name="StaysMoreL">What stays more in the rig then, L.</param>
/// <param name="Try">What to try.</param>
public sealed record Suspect(string PartId, Sentence Words, double WouldBeL, double StaysMoreL, Sentence Try);

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
    /// Valves, taps and drains shut or skipped, tasks not done, a lean, a sag of what the step empties: each is tried in turn, and told where what would come
    /// then
    /// agrees with the jug. What comes short may still be running. Pure. O(parts · drain-down). What is no step has no expectation and no suspects.
    /// </summary>
    public static ProofAnswer Ask(Question question, ProofInput input)
    {
        var (step, measured) = input;
        List<OrderedStep> order = [.. DrainOrderStudy.Order(question, new Stage(question, new HashSet<string>(), new HashSet<string>()))
            .Select(s => new OrderedStep(s.Id, s.Parts, s.Kind))];
        var whole = order;
        int at = order.FindIndex(s => s.Id == step);
        // Where it is known what was done before it, by that.
        if (new LeftActs(question).Before(step) is { } before)
        {
            order = [.. before.Append(step).Select(p => new OrderedStep(p, [p], question.Rig.ByHand.Find(p) is null ? DrainStepKind.Drain
                : DrainStepKind.Hand))];
            at = before.Count;
        }
        if (at < 0) return new ProofAnswer(step, 0, 0, "Type what came out at one of the steps.", []);
        var asDrawn = new ProofCause(step, "", "", question);
        double expected = asDrawn.Out(order, at);
        var reading = JugReading.Of(step, expected, measured);
        if (reading.Agrees)
            return new ProofAnswer(step, expected, measured,
                Sentence.Of($"As expected: {Measure.Volume(expected)}. A jug is accurate to {Measure.Volume(reading.FinestL)}."), []);
        double stays = asDrawn.After(whole, whole.Count).Stays.TotalL;
        var explains = new List<(ProofCause Cause, double WouldBeL)>();
        foreach (var cause in ProofCauses.Of(question, order, at))
        {
            question.Cancel.ThrowIfCancellationRequested();
            double wouldBe = cause.Out(order, at);
            if (Math.Abs(wouldBe - expected) > reading.FinestL && Math.Abs(wouldBe - measured) <= reading.FinestL) explains.Add((cause, wouldBe));
        }
        List<Suspect> suspects = [.. explains.OrderBy(e => Math.Abs(e.WouldBeL - measured)).Take(Most).Select(e => new Suspect(e.Cause.PartId, e.Cause.Words,
            e.WouldBeL, e.Cause.After(whole, whole.Count).Stays.TotalL - stays, e.Cause.Try))];
        // Whatever came short may not have come yet.
        if (measured < expected && order[at].Kind != DrainStepKind.Hand)
        {
            string name = order[at].Parts is [var only] ? question.Index.Part(only).Name : "a tap";
            suspects.Add(new Suspect(order[at].Parts[0], $"It still runs: {name} is half open, or clogged", measured, expected - measured,
                $"Open {name} fully and wait until it drips no more; poke it clear where it only drips"));
        }
        var verdict = measured < expected
            ? Sentence.Of($"{Measure.Volume(expected - measured)} is missing of {Measure.Volume(expected)}: it is still in the rig, or came out elsewhere.")
            : Sentence.Of($"{Measure.Volume(measured - expected)} more came than the {Measure.Volume(expected)} expected: an earlier step let out less, or a " +
                $"tank was fuller than assumed.");
        return new ProofAnswer(step, expected, measured, verdict, suspects);
    }
}
