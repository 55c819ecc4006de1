using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Networks;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>
/// What cannot be taken out or cleaned without emptying what lies before it: every pump; and filters and heaters as well where people live with the rig all
/// winter, or where town water stands on the line and no switch takes its pressure off.
/// </summary>
internal sealed class NoIsolatorRule : IRule
{
    public IReadOnlyList<FindingKind> Kinds => [FindingKind.NoIsolator];

    public IEnumerable<Idea> Fixes(Finding finding, Ideas ideas) => finding.Place?.PartId is { } shut ? ideas.Routes.Isolated(shut) : [];

    public IEnumerable<Finding> Find(Question question)
    {
        var joined = question.Ask(Joined.Of);
        bool livedIn = question.Rig.Brief.Living == WayOfLiving.LivedIn;
        foreach (var part in question.Rig.Parts)
        {
            var stock = Catalogue.Part(part.Stock)!;
            bool pump = stock.Passage == Passage.Pump;
            if (!pump && !(stock is { Group: PartGroup.Clean or PartGroup.Heat, KeepsWater: true } or
                {
                    Group: PartGroup.Heat,
                    Passage: Passage.Vessel
                })) continue;
            if (question.Index.HoldsCoolant(part)) continue;
            string[] behind = [.. joined.Of(part.Id).Where(j => j.Port is "in" or "cold").Select(j => j.Other)];
            var reached = joined.Reach(behind, p => p.Id != part.Id && Catalogue.Part(p.Stock)!.Passage is not (Passage.Valve or Passage.Vessel)).ToList();
            bool town = reached.Any(RigFlow.IsTownInlet);
            bool tank = behind.Concat(reached.SelectMany(p => joined.Of(p.Id)).Select(j => j.Other))
                .Any(id => Catalogue.Part(question.Index.Part(id).Stock) is { Passage: Passage.Vessel, Group: PartGroup.Store });
            if (!(pump ? tank : town || (livedIn && tank))) continue;
            yield return new Finding(
                $"isolator:{part.Id}", FindingKind.NoIsolator, pump ? Severity.Warning : Severity.Note, part.Name, "no valve", null,
                pump ? "No valve between it and the tank: to clean its strainer you have to empty the tank. Add a ball valve."
                : town ? "No valve before it: to change it you have to take the town hose off. Add a ball valve."
                : "No valve before it: to change it you have to drain the line. Add a ball valve.",
                Place.OnPart(question.Index, part), [], null);
        }
    }
}
