using System.Text.Json.Nodes;
using WarmConduit.Core.Heat;
using WarmConduit.Core.Levels;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>Runs whose clips stand so far apart that the pipe hangs through and pools between them.</summary>
internal sealed class SagRule : IRule
{
    private const double Step = 0.01, LeastSpacingM = 0.05;

    public IEnumerable<Finding> Find(Question question)
    {
        var drained = question.Ask(DrainDownStudy.Ask);
        for (int r = 0; r < question.Rig.Runs.Count; r++)
        {
            var run = question.Rig.Runs[r];
            if (run.ClipSpacingM is not { } clips || run.Service is not (Service.Cold or Service.Hot or Service.Waste) || Catalogue.Pipe(run.Pipe) is not { } pipe) continue;
            var clipped = ClippedPipe.Of(pipe, run.Service == Service.Hot);
            var stations = drained.Runs[r].Stations;
            (int At, double Slope, double Fall)? worst = null;
            for (int k = 0; k + 1 < stations.Count; k++)
            {
                double length = stations[k + 1].DistanceM - stations[k].DistanceM;
                // What stands up does not sag, and what climbs is told otherwise.
                if (length < LeastSpacingM || stations[k].Fall is not (>= 0 and < 0.5) || stations[k].Fall is not { } fall) continue;
                double slope = clipped.EndSlope(length / Math.Max(1, Math.Ceiling(length / clips - 1e-9)));
                if (slope > fall && (worst is null || slope - fall > worst.Value.Slope - worst.Value.Fall)) worst = (k, slope, fall);
            }
            if (worst is not { } at) continue;
            double least = Math.Floor(clipped.SpacingForFallM(at.Fall) / Step) * Step;
            yield return new Finding(
                $"sag:{run.Id}", FindingKind.Sag, School.OfRetainedWater(question.Rig) == Severity.Fault ? Severity.Warning : Severity.Note, run.Name, "sags", Measure.Length(clipped.SagM(clips)),
                least >= LeastSpacingM
                    ? Sentence.Of($"With clips every {Measure.Length(clips)} it hangs through steeper than it falls ({Measure.Fall(at.Fall)}), and water stays between them. Every {Measure.Length(least)} it runs dry.")
                    : Sentence.Of($"With clips every {Measure.Length(clips)} it hangs through, and it is so flat there ({Measure.Fall(at.Fall)}) that no spacing helps: give it more fall, or lay it on a board."),
                Place.OnRun(question.Index, run, at.At, stations[at.At].At), [run.Id],
                new Why("Slope at a clip = weight × spacing³ ÷ (24 × stiffness), simply supported; a span pools where that is more than the fall.", [new("slope at the clip", Measure.Fall(at.Slope), true)]),
                least >= LeastSpacingM ? [new Mend("Clip it closer", [new ChangeThing($"runs/{run.Id}", new JsonObject { ["clipSpacingM"] = Math.Round(least, 3) })])] : null);
        }
    }
}
