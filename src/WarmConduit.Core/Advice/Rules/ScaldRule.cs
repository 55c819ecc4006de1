using System.Text.Json.Nodes;
using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>Taps that a heater reaches without a mixing valve between, or through one that is set too hot.</summary>
internal sealed class ScaldRule : IRule
{
    private const string Mixer = "mixing-valve";

    public IReadOnlyList<FindingKind> Kinds => [FindingKind.Scald];

    public IEnumerable<Idea> Fixes(Finding finding, Ideas ideas) => finding.Place?.PartId is { } heater ? ideas.Heaters.Tempered(heater) : [];

    public IEnumerable<Finding> Find(Question question)
    {
        var rig = question.Rig;
        var joined = question.Ask(Joined.Of);
        foreach (var heater in rig.Parts)
        {
            if (!PartWater.HeatsWater(heater)) continue;
            var behind = joined.Of(heater.Id).Where(j => PartWater.LeavesHot(j.Port)).Select(j => j.Other);
            // Behind a mixing valve it is tempered.
            var reached = joined.Reach(behind, p => p.Id != heater.Id && !Tempers(p), r => r.Service == Service.Hot).ToList();
            var taps = reached.Where(p => Catalogue.Part(p.Stock) is { Passage: Passage.Mixer }).Select(p => p.Name).ToList();
            if (taps.Count == 0) continue;
            var valve = reached.FirstOrDefault(p => p.Stock == Mixer);
            yield return new Finding(
                $"scald:{heater.Id}", FindingKind.Scald, Severity.Warning, heater.Name, "can reach", Measure.Temperature(TradeConstants.HottestOutletC),
                (valve is null ? Sentence.Of($"No thermostatic mixing valve between it and {string.Join(", ", taps.Take(3))}. ")
                    : Sentence.Of($"{valve.Name} lets {Measure.Temperature(valve.Flows().MixesToC)} through to {string.Join(", ", taps.Take(3))}. "))
                .And(Sentence.Of($"Water above {Measure.Temperature(TradeConstants.HottestOutletC)} scalds.")),
                Place.OnPart(question.Index, heater), [], null, valve is null ? null : [Cooler(valve)], heater.Stock switch
                {
                    "gas-heater" => "Scalding: a gas heater runs hotter at low flow. Let a licensed gas fitter set it and the mixing valve, and check flue, " +
                        "air supply and carbon monoxide alarm.",
                    "storage-heater" => "Scalding: stored water is kept at 60 °C (140 °F) or more against Legionella. Let a licensed electrician connect it, " +
                    "the mixing valve by local rules.",
                    _ => "Scalding: water heated by coolant scalds in seconds. Let a licensed fitter set the mixing valve.",
                });
        }
    }

    private static bool Tempers(Part part) => part.Stock == Mixer && !(part.Flows().MixesToC > TradeConstants.HottestOutletC);

    private static Mend Cooler(Part valve) => new("Set the mixing valve lower", [new ChangeThing($"parts/{valve.Id}", new JsonObject
    {
        ["flow"] = RigDiff.Node((valve.Flow ?? PartFlow.None) with { MixesToC = Catalogue.Part(Mixer)!.Flow!.MixesToC }),
    })]);
}
