using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>Taps that a heater reaches without a mixing valve between.</summary>
internal sealed class ScaldRule : IRule
{
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
            var taps = joined.Reach(behind, p => p.Id != heater.Id && p.Stock != "mixing-valve", r => r.Service == Service.Hot)
                .Where(p => Catalogue.Part(p.Stock) is { Passage: Passage.Mixer }).Select(p => p.Name).ToList();
            if (taps.Count == 0) continue;
            yield return new Finding(
                $"scald:{heater.Id}", FindingKind.Scald, Severity.Warning, heater.Name, "can reach", Measure.Temperature(TradeConstants.HottestOutletC),
                Sentence.Of($"No thermostatic mixing valve between it and {string.Join(", ", taps.Take(3))}. Water above " +
                $"{Measure.Temperature(TradeConstants.HottestOutletC)} scalds."),
                Place.OnPart(question.Index, heater), [], null, null, heater.Stock switch
                {
                    "gas-heater" => "Scalding: a gas heater runs hotter at low flow. Let a licensed gas fitter set it and the mixing valve, and check flue, " +
                        "air supply and carbon monoxide alarm.",
                    "storage-heater" => "Scalding: stored water is kept at 60 °C (140 °F) or more against Legionella. Let a licensed electrician connect it, " +
                    "the mixing valve by local rules.",
                    _ => "Scalding: water heated by coolant scalds in seconds. Let a licensed fitter set the mixing valve.",
                });
        }
    }
}
