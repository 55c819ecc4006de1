using System.Text.Json.Nodes;
using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Tanks;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>Tanks that do not breathe, or not enough; tanks that light gets at.</summary>
internal sealed class TankRule : IRule
{
    public IReadOnlyList<FindingKind> Kinds => [FindingKind.NoAir, FindingKind.Light];

    public IEnumerable<Idea> Fixes(Finding finding, Ideas ideas) => finding is { Kind: FindingKind.NoAir, Place.PartId: { } tank }
        ? ideas.Tanks.Vented(tank) : [];

    public IEnumerable<Finding> Find(Question question)
    {
        var joined = question.Ask(Joined.Of);
        foreach (var tank in question.Ask(TankStudy.Ask).Tanks)
        {
            var part = question.Index.Part(tank.PartId);
            var place = Place.OnPart(question.Index, part);
            bool fresh = Catalogue.Part(part.Stock)!.Group == PartGroup.Store, twin = tank.Twins.Count > 0;
            // A can is open at its top; what nothing is joined to is not in use yet.
            bool piped = joined.Of(part.Id).Any(j => j.Run.Service is Service.Cold or Service.Fill or Service.Waste)
                && part.Ports.Any(p => part.RoleOf(p) == PortRole.Vent) && !PartWater.OpenTop(part);
            if (piped && tank.VentPa is null)
                yield return new Finding(
                    $"breath:{part.Id}", FindingKind.NoAir, Severity.Warning, part.Name, "can't breathe", null,
                    twin ? "No vent to the open air. Two tanks level only when both can breathe: the water stays in the one that can't."
                        : fresh ? "No vent to the open air: the pump pulls a vacuum that can crush it, and filling spits back."
                        : "No vent to the open air: waste pushes air back up through the traps.",
                    place, [], null);
            // A dip within one of its runs is told of that run.
            else if (piped && tank is { VentDipM: { } dip, VentRuns: { Count: > 1 } runs }
                && runs.All(id => LineDip.Of(question, question.Index.Run(id)) is null))
                yield return new Finding(
                    $"dip:{part.Id}", FindingKind.Choked, Severity.Warning, part.Name, "vent dips", Measure.Length(dip),
                    Sentence.Of($"Its vent dips by {Measure.Length(dip)} where its runs join. Water sits in it and the tank can't breathe: the pump pulls " +
                    $"a vacuum, and filling spits back."), place, [.. runs], null);
            else if (piped && tank.VentPa > TankStudy.MostVentPa)
                yield return new Finding(
                    $"vent:{part.Id}", FindingKind.NoAir, Severity.Warning, part.Name, "vent too small",
                    new Measure(tank.VentPa.Value / 1e5, Quantity.Pressure),
                    Sentence.Of($"Its air only passes at {new Measure(tank.VentPa.Value / 1e5, Quantity.Pressure)}; a flat wall bulges at " +
                    $"{new Measure(TankStudy.MostVentPa / 1e5, Quantity.Pressure)}. Make the vent wider or shorter. Estimate."),
                    place, [], null);
            if (fresh && part.Covered != true && question.Index.ZoneAt(part.Box.Centre())?.Kind is null or ZoneKind.Living or ZoneKind.OpenUnderfloor)
                yield return new Finding(
                    $"light:{part.Id}", FindingKind.Light, Severity.Note, part.Name, "in the light", null,
                    "Light grows algae. Box it in, wrap it or use a black tank, then mark it as covered.", place, [], null,
                    [new Mend("Mark as covered", [new ChangeThing($"parts/{part.Id}", new JsonObject { ["covered"] = true })])]);
        }
    }
}
