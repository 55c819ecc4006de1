using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>Runs flatter than the least fall that the brief asks for.</summary>
internal sealed class FlatRunRule : IRule
{
    public IReadOnlyList<FindingKind> Kinds => [FindingKind.FlatRun];

    public Harm Harm => Harm.Water;

    public IEnumerable<Idea> Fixes(Finding finding, Ideas ideas) => finding.RunIds.SelectMany(id => ideas.OfSlope(id).Concat(ideas.OfEnds(id)));

    public IEnumerable<Finding> Find(Question question)
    {
        var drained = question.Ask(DrainDownStudy.Ask);

        foreach (var run in drained.Runs)
            if (question.Index.Run(run.RunId).Service != Service.Coolant
                && Flattest(run, question.Rig.Brief.LeastFall, run.PoolL >= TradeConstants.LeastPoolL) is { } at)
                yield return Of(question, run, at);
    }

    // Index of the flattest length below the least fall; a length that climbs is told by the pool it makes.
    private static int? Flattest(RunDrain run, double leastFall, bool pooled)
    {
        int? flattest = null;
        for (int k = 0; k + 1 < run.Stations.Count; k++)
        {
            if (run.Stations[k].Fall is not { } fall || fall >= leastFall - 1e-6 || (pooled && fall < 0)) continue;
            if (flattest is null || fall < run.Stations[flattest.Value].Fall) flattest = k;
        }
        return flattest;
    }

    private static Finding Of(Question question, RunDrain drain, int station)
    {
        var rig = question.Rig;
        var run = question.Index.Run(drain.RunId);
        var at = drain.Stations[station];
        double length = drain.Stations[station + 1].DistanceM - at.DistanceM, fall = at.Fall!.Value;
        bool drinking = run.Service is Service.Cold or Service.Hot or Service.Waste;
        var severity = drinking && fall < TradeConstants.ToleratedFall && School.OfRetainedWater(rig) == Severity.Fault ? Severity.Warning : Severity.Note;
        var (size, least) = (Measure.Fall(Math.Abs(fall)), Measure.Fall(rig.Brief.LeastFall));
        return new Finding(
            $"flat:{run.Id}", FindingKind.FlatRun, severity, run.Name, "falls", Measure.Fall(fall),
            fall < 0
                ? Sentence.Of($"{Measure.Length(length)} of it rises towards its drain by {size}; it should fall by {least}.")
                : Sentence.Of($"{Measure.Length(length)} of it falls by only {size}, less than {least}: a film of water stays."),
            Place.OnRun(question.Index, run, station, at.At), [run.Id],
            new Why(
                "Fall = drop of the invert ÷ length, as parked, in the sense in which the water leaves.",
                [new("length", Measure.Length(length), false), new("residual water", Measure.Volume(drain.FilmL - drain.SagL), true)]),
            RunRegrading.ItsFall(question.Index, run, question.Conditions.Parked, rig.Brief.LeastFall));
    }
}
