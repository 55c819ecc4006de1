using System.Text.Json.Nodes;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>Pipe beyond its heat or pressure.</summary>
internal sealed class PipeUnfitRule : IRule
{
    public IReadOnlyList<FindingKind> Kinds => [FindingKind.PipeUnfit];

    // A storage heater's hottest water, and an engine's coolant. Estimates.
    private const double HotC = 70, CoolantC = 110;

    public IEnumerable<Finding> Find(Question question)
    {
        foreach (var run in question.Rig.Runs)
        {
            var pipe = Catalogue.Pipe(run.Pipe)!;
            double? hottest = run.Service switch { Service.Hot => HotC, Service.Coolant => CoolantC, _ => null };
            bool pressed = run.Service is Service.Cold or Service.Hot;
            if (hottest is { } c && pipe.MaxC < c)
            {
                yield return new Finding(
                    $"heat:{run.Id}", FindingKind.PipeUnfit, run.Service == Service.Coolant ? Severity.Fault : Severity.Warning, run.Name, "too hot",
                    Measure.Temperature(c),
                    Sentence.Of($"{pipe.Name} is rated {Measure.Temperature(pipe.MaxC)} at most; here it can reach {Measure.Temperature(c)}."),
                    Middle(question, run), [run.Id], null,
                    Better(run, p => p.MaxC >= c && p.RatedBar >= (pressed ? TradeConstants.PumpCutOutBar : 1)
                    && (run.Service == Service.Coolant || p.StandsFreezing == StandsFreezing.PipeOnly), pipe),
                    "Hot coolant is under pressure: a hose that comes off scalds.");
            }
            else if (pressed && pipe.RatedBar <= TradeConstants.PumpCutOutBar)
            {
                yield return new Finding(
                    $"pressure:{run.Id}", FindingKind.PipeUnfit, Severity.Fault, run.Name, "rated", Measure.Pressure(pipe.RatedBar * 1e5),
                    Sentence.Of($"{pipe.Name} is rated {Measure.Pressure(pipe.RatedBar * 1e5)}; a pump cuts out at " +
                    $"{Measure.Pressure(TradeConstants.PumpCutOutBar * 1e5)}, and town water is higher."), Middle(question, run), [run.Id], null,
                    Better(run, p => p.RatedBar > 2 * TradeConstants.PumpCutOutBar && (run.Service != Service.Hot || p.MaxC >= HotC), pipe));
            }
        }
    }

    private static Place Middle(Question question, Run run) => Place.OnRun(question.Index, run, 0, question.Index.PlaceOf(run.From));

    private static IReadOnlyList<Mend>? Better(Run run, Func<PipeStock, bool> fits, PipeStock now) =>
        Catalogue.Pipes.Where(fits).OrderBy(p => Math.Abs(p.InnerDiameterM - now.InnerDiameterM)).FirstOrDefault() is { } better
            ? [new Mend($"Change to {better.Name}", [new ChangeThing($"runs/{run.Id}", new JsonObject { ["pipe"] = better.Id })])]
            : null;
}
