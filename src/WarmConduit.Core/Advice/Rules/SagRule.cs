using System.Text.Json.Nodes;
using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Levels;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>Runs whose clips stand so far apart that the pipe hangs through and pools between them, and hoses that hang slack.</summary>
internal sealed class SagRule : IRule
{
    public IReadOnlyList<FindingKind> Kinds => [FindingKind.Sag];

    public Harm Harm => Harm.Water with { Follows = true };

    private const double Step = 0.01, LeastSpacingM = 0.05;

    public IEnumerable<Idea> Fixes(Finding finding, Ideas ideas) => finding.Place is { RunId: { } hanging, PointId: { } first }
        ? ideas.Routes.Clipped(hanging, first) : [];

    public IEnumerable<Finding> Find(Question question)
    {
        var drained = question.Ask(DrainDownStudy.Ask);
        var severity = School.OfRetainedWater(question.Rig) == Severity.Fault ? Severity.Warning : Severity.Note;
        for (int r = 0; r < question.Rig.Runs.Count; r++)
        {
            var run = question.Rig.Runs[r];
            if (run.Service is not (Service.Cold or Service.Hot or Service.Waste) || Catalogue.Pipe(run.Pipe) is not { } pipe) continue;
            if (Hangs(question, run, drained.Runs[r].Stations, severity) is { } slack) yield return slack;
            if (Sag(question, run, ClippedPipe.Of(pipe, run.Service == Service.Hot), drained.Runs[r].Stations, severity) is { } sag) yield return sag;
        }
    }

    private static Finding? Sag(Question question, Run run, ClippedPipe clipped, IReadOnlyList<Station> stations, Severity severity)
    {
        (int At, double Slope, double Fall, double SpanM)? worst = null;
        for (int k = 0; k + 1 < stations.Count; k++)
        {
            double length = stations[k + 1].DistanceM - stations[k].DistanceM;
            // What stands up does not sag, and what climbs is told otherwise.
            if (length < LeastSpacingM || stations[k].Fall is not (>= 0 and < 0.5) || stations[k].Fall is not { } fall
                || run.Spans(length) is not { } spans) continue;
            double slope = clipped.EndSlope(length / spans);
            if (slope > fall && (worst is null || slope - fall > worst.Value.Slope - worst.Value.Fall)) worst = (k, slope, fall, length / spans);
        }
        if (worst is not { } at) return null;
        double least = Math.Floor(clipped.SpacingForFallM(at.Fall) / Step) * Step;
        var how = run.ClipSpacingM is { } every ? Sentence.Of($"With clips every {Measure.Length(every)}")
            : Sentence.Of($"Over {Measure.Length(at.SpanM)} from clip to clip");
        return new Finding(
            $"sag:{run.Id}", FindingKind.Sag, severity, run.Name, "sags", Measure.Length(clipped.SagM(at.SpanM)),
            least >= LeastSpacingM
                ? how.And(Sentence.Of($" it sags more than it falls ({Measure.Fall(at.Fall)}), and water stays between them. Every " +
                    $"{Measure.Length(least)} it runs dry."))
                : how.And(Sentence.Of($" it sags, and it is so flat there ({Measure.Fall(at.Fall)}) that no spacing helps: give it more fall, or " +
                    $"support it on a board.")),
            Place.OnRun(question.Index, run, at.At, stations[at.At].At), [run.Id],
            new Why("Slope at a clip = weight × spacing³ ÷ (24 × stiffness), simply supported; a span pools where that is more than the fall.",
            [new("slope at the clip", Measure.Fall(at.Slope), true)]),
            least >= LeastSpacingM
                ? [new Mend("Add clips", [new ChangeThing($"runs/{run.Id}", new JsonObject { ["clipSpacingM"] = Math.Round(least, 3) })])]
                : null);
    }

    // A belly of depth f over a span L leaves its clip with a slope of 4f/L beside the fall of the span.
    private static Finding? Hangs(Question question, Run run, IReadOnlyList<Station> stations, Severity severity)
    {
        if (Slack.Of(question.Index, run) is not { } slack || stations[slack.Leg].Fall is not { } fall) return null;
        double span = stations[slack.Leg + 1].DistanceM - stations[slack.Leg].DistanceM;
        double slope = 4 * slack.BellyM * (run.Spans(span) ?? 1) / span;
        if (slope <= fall) return null;
        return new Finding(
            $"slack:{run.Id}", FindingKind.Sag, severity, run.Name, "sags", Measure.Length(slack.BellyM),
            Sentence.Of($"It is {Measure.Length(run.SlackM!.Value)} too long, so it sags by about {Measure.Length(slack.BellyM)} " +
            $"and keeps water there. Cut it to length, or support it on a board."),
            Place.OnRun(question.Index, run, slack.Leg, stations[slack.Leg].At), [run.Id],
            new Why("Depth of a flat belly = √(3/8 × span × slack); it pools where its slope at the clip, 4 × depth ÷ span, is more than the fall.",
            [new("slope at the clip", Measure.Fall(slope), true)]),
            [new Mend("Remove extra length", [new ChangeThing($"runs/{run.Id}", new JsonObject { ["slackM"] = null })])]);
    }
}
