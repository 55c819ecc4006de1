using WarmConduit.Core.Materials;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Networks;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>Pumps that no valve shuts off from their tank.</summary>
internal sealed class NoIsolatorRule : IRule
{
    public IEnumerable<Finding> Find(Question question)
    {
        var joined = question.Ask(Joined.Of);
        foreach (var pump in question.Rig.Parts.Where(p => Catalogue.Part(p.Stock)!.Passage == Passage.Pump))
        {
            var behind = joined.Of(pump.Id).Where(j => j.Port == "in").Select(j => j.Other);
            bool bare = joined.Reach(behind, p => p.Id != pump.Id && Catalogue.Part(p.Stock)!.Passage != Passage.Valve).Any(p => Catalogue.Part(p.Stock) is { Passage: Passage.Vessel, Group: PartGroup.Store });
            if (bare)
                yield return new Finding(
                    $"isolator:{pump.Id}", FindingKind.NoIsolator, Severity.Warning, pump.Name, "no valve", null,
                    "Nothing shuts it off from the tank: to clean its strainer or change it, the tank has to be emptied first. Put a ball valve between.", Place.OnPart(question.Index, pump), [], null);
        }
    }
}
