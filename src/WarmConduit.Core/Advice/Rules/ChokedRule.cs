using System.Text.Json.Nodes;
using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Tanks;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>Vents and fills with a dip, which fills and shuts them; waste lines narrower than what is above them.</summary>
internal sealed class ChokedRule : IRule
{
    public IReadOnlyList<FindingKind> Kinds => [FindingKind.Choked];

    public Harm Harm => Harm.Water;

    public IEnumerable<Idea> Fixes(Finding finding, Ideas ideas) => finding.RunIds.SelectMany(id => ideas.OfDip(id, finding.Place));

    public IEnumerable<Finding> Find(Question question)
    {
        var rig = question.Rig;
        foreach (var run in rig.Runs)
        {
            if (run.Service is Service.Vent or Service.Fill or Service.Overflow && Dip(question, run) is { } dip) yield return dip;
            if (run.Service == Service.Waste && Narrow(question, run) is { } narrow) yield return narrow;
        }
    }

    private static Finding? Dip(Question question, Run run)
    {
        if (LineDip.Of(question, run) is not var (lowest, deepest)) return null;
        var course = question.Index.CourseOf(run);
        string harm = run.Service switch
        {
            Service.Vent => "Water sits in it and the tank can't breathe: the pump pulls a vacuum, and filling spits back.",
            Service.Fill => "Water sits in it, freezes and spits back.",
            _ => "Water sits in it.",
        };
        return new Finding(
            $"dip:{run.Id}", FindingKind.Choked, Severity.Warning, run.Name, "dips", Measure.Length(deepest),
            Sentence.Of($"It dips by {Measure.Length(deepest)} at bend {lowest}.").And($" {harm}"),
            Place.OnRun(question.Index, run, lowest, course[lowest]), [run.Id], null,
            [new Mend("Set even fall", [RunRegrading.Even(run, course)])]);
    }

    private static Finding? Narrow(Question question, Run run)
    {
        if (run.From.Part is not { } id || Catalogue.Pipe(run.Pipe) is not { } pipe) return null;
        var part = question.Index.Part(id);
        var stock = Catalogue.Part(part.Stock)!;
        if (stock.Passage == Passage.Vessel) return null;
        double? own = part.Ports.FirstOrDefault(p => p.Id == run.From.Port)?.BoreM ?? stock.Ports.FirstOrDefault(p => p.Id == run.From.Port)?.BoreM;
        if (own is not { } bore || pipe.InnerDiameterM > 0.9 * bore) return null;
        var wider = Catalogue.Pipes.Where(p => p.InnerDiameterM > 0.9 * bore && p.RatedBar <= 2).OrderBy(p => p.InnerDiameterM).FirstOrDefault();
        return new Finding(
            $"narrow:{run.Id}", FindingKind.Choked, Severity.Warning, run.Name, "narrow", Measure.Length(pipe.InnerDiameterM),
            Sentence.Of($"Its bore of {Measure.Length(pipe.InnerDiameterM)} is smaller than the outlet of {Measure.Length(bore)} above it: it backs up, and " +
            $"what comes down sticks."),
            Place.OnRun(question.Index, run, 0, question.Index.PlaceOf(run.From)), [run.Id], null,
            wider is null ? null : [new Mend($"Change to {wider.Name}", [new ChangeThing($"runs/{run.Id}", new JsonObject { ["pipe"] = wider.Id })])]);
    }
}
