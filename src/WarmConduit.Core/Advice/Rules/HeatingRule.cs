using System.Text.Json.Nodes;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>What heat does wrong: a plastic tank too hot, a pad too strong for plastic, fluid that freezes in its circuit.</summary>
internal sealed class HeatingRule : IRule
{
    // What a polyethylene tank stands. Estimate.
    private const double PlasticC = 60;

    public IReadOnlyList<FindingKind> Kinds => [FindingKind.TooHot, FindingKind.CoolantFreezes];

    public IEnumerable<Finding> Find(Question question)
    {
        foreach (var finding in Frost(question)) yield return finding;
        foreach (var part in question.Rig.Parts)
            if (part.Pad is { } pad && IsPlastic(part) && pad.PowerW > Pad.MostOnPlasticWPerM2 * pad.TouchesM2(part))
                yield return Strong(question, part, pad);
        var night = question.Ask(RigNight.Of);
        if (night.Heat.PartWh.Count == 0 && night.Heat.PadWh.Count == 0) yield break;
        for (int n = 0; n < night.Candidates.Count; n++)
        {
            if (night.Candidates[n].LengthM > 0 || !IsPlastic(question.Index.Part(night.Candidates[n].Thing))) continue;
            double hottest = Enumerable.Range(0, night.Answer.ReportS.Count).Max(r => night.WaterC(r, n));
            if (hottest > PlasticC) yield return Hot(question, question.Index.Part(night.Candidates[n].Thing), hottest);
        }
    }

    private static bool IsPlastic(Part part) =>
        Catalogue.Part(part.Stock) is { Passage: Passage.Vessel, Group: PartGroup.Store or PartGroup.Waste };

    private static IEnumerable<Finding> Frost(Question question)
    {
        if (!question.Rig.Runs.Any(r => r.Service == Service.Coolant)) yield break;
        double glycol = question.Rig.Brief.Chosen().CoolantGlycol ?? BriefChoices.UsualCoolantGlycol, freezes = GlycolWater.FreezingC(glycol),
            coldest = Math.Min(question.Rig.Brief.LowestC, question.Conditions.Steady().OutdoorC);
        if (freezes < coldest) yield break;
        // A kelvin to spare, in steps of five hundredths.
        double enough = Enumerable.Range(1, 12).Select(k => k * 0.05).FirstOrDefault(v => GlycolWater.FreezingC(v) < coldest - 1, 0.6);
        yield return new Finding("coolant", FindingKind.CoolantFreezes, Severity.Fault, "Heating fluid", "freezes at", Measure.Temperature(freezes),
            Sentence.Of($"The circuit freezes at {Measure.Temperature(freezes)}, and the coldest night has {Measure.Temperature(coldest)}: where the pump " +
                $"rests, slush stops it, and ice splits heater and coils."), null, [], null,
            [new Mend(Sentence.Of($"Fill with {(int)Math.Round(100 * enough)} % glycol"), [new ChangeThing("brief", new JsonObject
            {
                ["choices"] = RigDiff.Node(question.Rig.Brief.Chosen() with { CoolantGlycol = enough }),
            })])],
            "Antifreeze for engines is poison: nothing but a sound wall may stand between it and drinking water.");
    }

    private static Finding Strong(Question question, Part part, Pad pad) => new(
        $"pad:{part.Id}", FindingKind.TooHot, Severity.Warning, part.Name, "pad gives", Measure.Power(pad.PowerW),
        Sentence.Of($"Its pad gives {Measure.Power(pad.PowerW)} on {new Measure(pad.TouchesM2(part), Quantity.Area)}; plastic bears 0.15 W on a " +
            $"square centimetre, so {Measure.Power(Pad.MostOnPlasticWPerM2 * pad.TouchesM2(part))} there. Spread it wider, or take a weaker one."),
        Place.OnPart(question.Index, part), [], null, [Gentler(part, pad)],
        "A pad without water over it melts what it lies on: it belongs where the tank keeps its last water.");

    // Wider, or weaker where the side on which it lies has no more room.
    private static Mend Gentler(Part part, Pad pad)
    {
        double needM2 = Math.Ceiling(pad.PowerW / Pad.MostOnPlasticWPerM2 * 1000) / 1000, mostM2 = pad.Side is { } side ? part.SideM2(side) : needM2;
        var (words, next) = needM2 <= mostM2 ? ("Spread the pad wider", pad with { AreaM2 = needM2 })
            : ("Take a weaker pad", pad with { PowerW = Math.Max(1, Math.Floor(Pad.MostOnPlasticWPerM2 * mostM2)), AreaM2 = Math.Max(0.001, mostM2) });
        return new Mend(words, [new ChangeThing($"parts/{part.Id}", new JsonObject { ["pad"] = RigDiff.Node(next) })]);
    }

    private static Finding Hot(Question question, Part part, double hottest)
    {
        var coil = RigHeat.Of(question).Acting.FirstOrDefault(p => RigHeat.Of(question).Around(p) == part.Id);
        return new Finding($"hot:{part.Id}", FindingKind.TooHot, Severity.Fault, part.Name, "water up to", Measure.Temperature(hottest),
            Sentence.Of($"It is heated to {Measure.Temperature(hottest)}; a plastic tank bears {Measure.Temperature(PlasticC)}. ").And(coil is null
                ? part.Pad?.Sensor is null ? "Set the thermostat of its pad lower." : "Put the sensor of its pad onto it: nothing stops the pad there."
                : "A thermostat on the coil's valve holds it just above frost, and leaves the heat to the rest."), Place.OnPart(question.Index, part), [], null,
            coil is null ? null : [new Mend("Hold it at 8 °C by a thermostat", [new ChangeThing($"parts/{coil.Id}", new JsonObject
            {
                ["heat"] = RigDiff.Node((coil.Heat ?? PartHeat.None) with { HoldC = 8 }),
            })])]);
    }
}
