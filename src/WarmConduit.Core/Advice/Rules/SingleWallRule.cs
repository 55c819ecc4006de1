using System.Text.Json.Nodes;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>A coil or exchanger of one wall in drinking water: where it corrodes or freezes, heating fluid comes out of the tap.</summary>
internal sealed class SingleWallRule : IRule
{
    public IReadOnlyList<FindingKind> Kinds => [FindingKind.SingleWall];

    public IEnumerable<Finding> Find(Question question)
    {
        var coils = question.Rig.Parts.Where(p => p.Heats() is { CoilWPerK: not null, DoubleWall: not true } && question.Index.HoldsCoolant(p)).ToList();
        if (coils.Count == 0) yield break;
        var heat = RigHeat.Of(question);
        // Fluid of an engine is poison, whatever the brief says of the loop's.
        var engines = question.Ask(Joined.Of).From(question.Rig.Parts.Where(p => p.Heats().IsEngine).Select(p => p.Id), r => r.Service == Service.Coolant);
        foreach (var coil in coils)
        {
            if (heat.Around(coil) is not { } id || question.Index.Part(id) is not { } vessel || IsWaste(vessel)) continue;
            bool poison = engines.ContainsKey(coil.Id);
            yield return new Finding($"wall:{coil.Id}", FindingKind.SingleWall, poison ? Severity.Fault : Severity.Warning, coil.Name,
                "one wall to drinking water", null,
                Sentence.Of($"A leak of {coil.Name} lets {(poison ? "engine coolant" : "heating fluid")} into the drinking water of {vessel.Name}. Many " +
                    $"codes ask for a double wall with a gap that shows a leak{(poison ? "" : ", or for fluid that is safe to drink")}."),
                Place.OnPart(question.Index, coil), [], null,
                [new Mend("Fit one with a double wall", [new ChangeThing($"parts/{coil.Id}", new JsonObject
                {
                    ["heat"] = RigDiff.Node((coil.Heat ?? PartHeat.None) with { DoubleWall = true }),
                })])],
                "Engine coolant is poison, and sweet. Never fill a loop with it that has a coil in drinking water; local codes have the last word.");
        }
    }

    private static bool IsWaste(Part part) => Catalogue.Part(part.Stock)!.Group == PartGroup.Waste;
}
