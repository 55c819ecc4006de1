using System.Text.Json.Nodes;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Networks;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>What the schools of the brief ask for and the rig does not have. A drawing that is just begun is left in peace.</summary>
internal sealed class SchoolRule : IRule
{
    public IReadOnlyList<FindingKind> Kinds => [FindingKind.SchoolLacks];

    public IEnumerable<Finding> Find(Question question)
    {
        var rig = question.Rig;
        var chosen = rig.Brief.Chosen();
        bool Has(params string[] stock) => rig.Parts.Any(p => stock.Contains(p.Stock));
        bool taps = rig.Parts.Any(p => Catalogue.Part(p.Stock)!.Passage == Passage.Mixer),
            pump = rig.Parts.Any(p => Catalogue.Part(p.Stock)!.Passage == Passage.Pump);
        var joined = question.Ask(Joined.Of);
        if (!taps || !pump) yield break;

        if (rig.Brief.School == FreezeSchool.Air && !Has("air-port"))
            yield return Lacks("air-port", "Blow-out port",
                "To blow lines out you need a port after the pump's check valve that reaches every outlet. Add a tee with a capped port there.",
                "Compressed air: regulate it below the weakest part's rating, wear eye protection, open an outlet first.");
        bool heater = rig.Parts.Any(p => Catalogue.Part(p.Stock) is { Group: PartGroup.Heat, Passage: Passage.Vessel } || p.Stock == "gas-heater");
        if (rig.Brief.School is FreezeSchool.Antifreeze or FreezeSchool.Air && heater && !rig.Parts.Any(p => CrossesToHot(joined, p)))
            yield return Lacks("heater-bypass", "Heater bypass",
                "Without a bypass you fill the whole heater with antifreeze, or blow air into it. Add three valves between cold and hot.",
                "Only propylene glycol for drinking-water systems; automotive coolant is poison.");
        if (rig.Brief.School == FreezeSchool.Heat && !rig.Shell.Zones.Any(z => z.Heater is { PowerW: > 0 })
            && !rig.Parts.Any(p => p.Pad is not null || p.Heats().HeatsFluid))
            yield return Lacks("heat-source", "Heat source",
                "You keep frost out by heat, but nothing drawn gives any. Give a room a heater, join a coolant heater and its loop, or put pads on tanks.",
                "What burns needs a flue clear of openings and a carbon monoxide alarm; a licensed fitter installs it.");
        if (rig.Brief.Choices is null) yield break;
        if (chosen.Filter == FilterSchool.Everything)
        {
            if (!Has("filter", "drinking-filter")) yield return Lacks("filter", "Filter", "You want all water filtered, but there is no filter.");
            foreach (var filter in rig.Parts.Where(p => p.Stock == "filter" && !HasBypass(joined, p)))
                yield return new Finding(
                    $"school:bypass:{filter.Id}", FindingKind.SchoolLacks, Severity.Note, filter.Name, "no bypass", null,
                    "No bypass: without its cartridge there is no water at all. Add three valves and two tees.",
                    Place.OnPart(question.Index, filter), [], null);
        }
        if (chosen.Filter == FilterSchool.DrinkingTap && !Has("drinking-tap"))
            yield return Lacks("drinking-tap", "Drinking tap", "You want a separate drinking tap, but there is none.");
        if (chosen.Piping == PipingSchool.HomeRuns && !rig.Parts.Any(p => p.Stock.StartsWith("manifold", StringComparison.Ordinal)))
            yield return Lacks("manifold", "Manifold", "Home runs start at a manifold, but there is none.");
        if (chosen.Piping == PipingSchool.Loop && !Has("return-pump"))
            yield return Lacks("return-pump", "Return pump", "A hot loop needs a return pump, but there is none.");
        if (chosen.Grey == GreySchool.Fixed && Has("basin", "shower-tray") && !Has("grey-tank"))
            yield return Lacks("grey-tank", "Grey tank", "You want a built-in grey tank, but there is none.");
        if (chosen.Traps == TrapSchool.Waterless)
        {
            foreach (var trap in rig.Parts.Where(p => p.Stock == "trap"))
                yield return new Finding(
                    $"school:trap:{trap.Id}", FindingKind.SchoolLacks, Severity.Note, trap.Name, "holds water", null,
                    "You want waterless traps, but this one holds water by design.", Place.OnPart(question.Index, trap), [], null,
                    [new Mend("Use a waterless trap", [new ChangeThing($"parts/{trap.Id}",
                    new JsonObject { ["stock"] = "waterless-trap", ["holdsL"] = null })])]);
        }
    }

    // A valve with cold on one side and hot on the other leads around the heater between.
    private static bool CrossesToHot(Joined joined, Part part) =>
        Catalogue.Part(part.Stock)!.Passage == Passage.Valve && joined.Of(part.Id).Select(j => j.Run.Service).ToHashSet()
            .IsSupersetOf([Service.Cold, Service.Hot]);

    // From what stands before it to what stands behind it by joints and valves alone.
    private static bool HasBypass(Joined joined, Part filter)
    {
        IEnumerable<string> At(string port) => joined.Of(filter.Id).Where(j => j.Port == port).Select(j => j.Other);
        var around = joined.Reach(At("in"), p => p.Id != filter.Id && Catalogue.Part(p.Stock) is { Group: PartGroup.Joints or PartGroup.Valves })
            .Select(p => p.Id).ToHashSet();
        return At("out").Any(around.Contains);
    }

    private static Finding Lacks(string id, string title, string reason, string? caution = null) =>
        new($"school:{id}", FindingKind.SchoolLacks, Severity.Warning, title, "missing", null, reason, null, [], null, null, caution);
}
