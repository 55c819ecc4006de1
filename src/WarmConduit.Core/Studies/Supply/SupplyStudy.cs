using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Heating;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.Supply;

/// <summary>A consequence of the brief.</summary>
/// <param name="Id">Stable id.</param>
/// <param name="Field">The field of the brief that it is shown at.</param>
/// <param name="Words">In words.</param>
/// <param name="Lacking">The rig as drawn does not meet it.</param>
/// <param name="Caution">A caution where it can hurt someone; null: none.</param>
public sealed record Consequence(string Id, string Field, Sentence Words, bool Lacking, string? Caution = null);

/// <summary>Consequences of the brief, beside the rig as drawn.</summary>
/// <param name="Choices">The choices in force.</param>
/// <param name="Town">The hose outside: as typed, else as it usually is.</param>
/// <param name="WantedL">Fresh water wanted, L.</param>
/// <param name="FreshL">Fresh water that the tanks of the rig hold, L.</param>
/// <param name="GreyL">Grey water that its tanks hold, L.</param>
/// <param name="Consequences">The consequences, in the order of the brief. All are estimates.</param>
public sealed record SupplyAnswer(
    BriefChoices Choices, TownWater Town, double WantedL, double FreshL, double GreyL, IReadOnlyList<Consequence> Consequences);

/// <summary>Sums of supply: how long a fill lasts, what it weighs, what holding a night costs.</summary>
public static class SupplyStudy
{
    // The accumulator that usually stands behind a pump. Estimate.
    private const double AccumulatorL = 0.75;

    /// <summary>Works out what follows. Pure. O(parts + the balance of zones).</summary>
    public static SupplyAnswer Ask(Question question)
    {
        var (rig, brief) = (question.Rig, question.Rig.Brief);
        var chosen = brief.Chosen();
        double daily = brief.People * brief.LitresPerPersonDay, wanted = daily * brief.DaysBetweenFills;
        double Held(PartGroup group) => rig.Parts.Where(p => Catalogue.Part(p.Stock) is { Passage: Passage.Vessel } s && s.Group == group)
            .Sum(PartWater.HoldsL);
        double fresh = Held(PartGroup.Store), grey = Held(PartGroup.Waste);
        int cans = (int)Math.Ceiling(wanted / chosen.CanL - 1e-9);
        double waterKgPerL = Water.DensityKgPerM3(10) / 1000;
        var made = new List<Consequence>
        {
            new("wanted", "people", Sentence.Of($"{Measure.Volume(daily)} a day, so {Measure.Volume(wanted)} between fills: " +
                $"{Measure.Mass(wanted * waterKgPerL)} of water."), false),
            fresh > 0
                ? new("lasts", "daysBetweenFills", Sentence.Of($"The tanks drawn hold {Measure.Volume(fresh)}, which lasts " +
                    $"{Measure.Duration(fresh / daily * 86_400)}."), fresh < wanted - 0.05)
                : new("lasts", "daysBetweenFills", "No fresh tank is drawn yet.", true),
            new("cans", "choices/canL", Sentence.Of($"A fill from a can is {cans} {(cans == 1 ? "trip" : "trips")} of " +
            $"{Measure.Mass(Math.Min(chosen.CanL, wanted) * waterKgPerL)}."), false),
            chosen.Grey != GreySchool.Fixed
                ? new("grey", "choices/grey", Sentence.Of($"{Measure.Volume(daily)} a day is carried or rolled out."), false,
                    "Discharge only where it is permitted.")
                : new("grey", "choices/grey", grey > 0 ? Sentence.Of($"Grey tanks hold {Measure.Volume(grey)}, fresh ones {Measure.Volume(fresh)}.")
                    : "No grey tank is drawn yet.", grey < 0.9 * fresh || grey <= 0, "Discharge only where it is permitted."),
        };
        // Of the night that the brief fears, heated, whichever is looked at: by the night itself, as the bench tells it.
        var feared = question.With(Conditions.Of(brief) with { HeatOn = true });
        if (rig.Shell.Zones.Any(z => z.Heater is not null) || rig.Parts.Any(p => p.Heats().StopsC is not null))
        {
            var heat = feared.Ask(HeatingStudy.Ask);
            double hours = feared.Conditions.Hours;
            made.Add(new("night", "lowestC",
                Sentence.Of($"Holding the heat at {Measure.Temperature(brief.LowestC)} takes {Measure.Power(heat.HeatWh / hours)}: " +
                $"{Measure.Energy(heat.HeatWh)} in a night of {Measure.Duration(hours * 3600)}."), false));
            foreach (var heater in heat.Heaters) made.Add(new($"night:{heater.PartId}", "lowestC", heater.Words, false));
            foreach (var use in heat.Energy) made.Add(Of(use, brief, feared.Conditions));
        }
        else
            made.Add(new("night", "lowestC", "No zone has a heater, so nothing is held against the cold.", brief.School == FreezeSchool.Heat));
        made.Add(Wind(question, feared.Conditions));
        made.Add(WithoutHeat(question));
        made.Add(BetweenStarts(question));
        double most = (chosen.Air == AirSchool.Psi25 ? 25 : 30) * UnitTable.PsiPa;
        var weakest = rig.Parts.Select(p => (p.Name, Bar: Catalogue.Part(p.Stock)!.RatedBar)).Where(p => p.Bar is not null).OrderBy(p => p.Bar)
            .FirstOrDefault();
        made.Add(new("air", "choices/air",
            weakest.Name is null ? Sentence.Of($"Never more than {Measure.Pressure(most)} at the port.")
                : Sentence.Of($"Never more than {Measure.Pressure(Math.Min(most, weakest.Bar!.Value * 1e5))} at the port; the weakest part drawn, " +
                    $"{weakest.Name}, is rated {Measure.Pressure(weakest.Bar.Value * 1e5)}."),
            false, "Regulator, eye protection, and an outlet open before the air is on."));
        // Both ends of every run under pressure, where there is something to be joined to.
        int ends = rig.Runs.Where(r => r.Service is Service.Cold or Service.Hot).Sum(r => (r.From.IsLoose() ? 0 : 1) + (r.To.IsLoose() ? 0 : 1));
        made.Add(new("joints", "choices/joints", chosen.Joints switch
        {
            JointSchool.PushFit => Sentence.Of($"{ends} pipe ends to cut square and push home."),
            JointSchool.Crimp => Sentence.Of($"{ends} rings to crimp and to gauge, and some to spare: the job stops for one."),
            _ => Sentence.Of($"{ends} clips, to be tightened again once the hose has settled."),
        }, false));
        made.Add(new("threads", "choices/threads", chosen.Threads == ThreadSchool.Tape ? "Wound the way the thread turns, and never turned back."
            : "Only paste that is fit for drinking water, on the outer thread.", false));
        made.Add(new("fall", "leastFall", Sentence.Of($"A line of {Measure.Length(3)} drops {Measure.Length(3 * brief.LeastFall)}."), false));
        return new SupplyAnswer(chosen, brief.TownOrUsual(), wanted, fresh, grey, made);
    }

    // Of the pump and the accumulators that are drawn; as they usually are until then.
    private static Consequence BetweenStarts(Question question)
    {
        var pump = question.Rig.Parts.FirstOrDefault(p => p.Flows() is { CutInBar: not null, CutOutBar: not null });
        double cutIn = pump?.Flows().CutInBar ?? TradeConstants.PumpCutInBar, cutOut = pump?.Flows().CutOutBar ?? TradeConstants.PumpCutOutBar;
        List<Part> drawn = pump is null ? [] : [.. Accumulators.Behind(question, pump)];
        double air = Accumulators.AirBar(question.Rig, drawn.FirstOrDefault(), cutIn);
        double volume = drawn.Count > 0 ? drawn.Sum(PartWater.VesselL) : AccumulatorL;
        double given = drawn.Count > 0 ? drawn.Sum(a => Accumulators.GivesL(question.Rig, a, cutIn, cutOut))
            : SmallSums.AccumulatorL(volume, air, cutIn, cutOut);
        return new("accumulator", "choices/accumulator",
            Sentence.Of($"With {Measure.Pressure(air * 1e5)} of air, {Measure.Volume(volume)} gives {Measure.Volume(given)} between two starts of a " +
            $"pump that cuts in at {Measure.Pressure(cutIn * 1e5)} and out at {Measure.Pressure(cutOut * 1e5)}."), given <= 0);
    }

    private static Consequence Wind(Question question, Conditions feared)
    {
        double W(Conditions night) => question.With(night).Ask(HeatingStudy.Ask).HeatWh / night.Hours;
        double windy = W(feared), still = W(feared with { WindMPerS = 0 });
        return new("wind", "windMPerS", windy - still < 0.5 ? "It changes no heater's work in this rig."
            : Sentence.Of($"It takes {Measure.Power(windy - still)} more than still air."), false);
    }

    private static Consequence Of(EnergyUse use, Brief brief, Conditions feared)
    {
        bool fuel = use.Kind == EnergyKind.Fuel;
        // Nothing to spend is spent at once.
        double has = fuel ? brief.Chosen().FuelL : brief.Chosen().BatteryWh;
        bool runsOut = use.Kind != EnergyKind.Mains && use.UntilMorning > 0 && (has <= 0 || use.EmptyS < feared.Hours * 3600);
        return new(use.Kind.ToString().ToLowerInvariant(), fuel ? "choices/fuelL" : "choices/batteryWh", use.Words,
            brief.School == FreezeSchool.Heat && runsOut,
            fuel ? "A burning heater wants its flue, air, a carbon monoxide alarm, and a licensed fitter." : null);
    }

    private static Consequence WithoutHeat(Question question)
    {
        var cold = question.With(Conditions.WithoutHeat(question.Rig.Brief));
        var ladder = cold.Ask(FreezeLadderStudy.Ask);
        string left = cold.Conditions.Water == WaterState.Wet ? "left full" : "left drained";
        int frozen = ladder.Rungs.Count(r => r.State != IceState.Safe);
        return frozen == 0
            ? new("cold", "hoursWithoutHeat", $"Without heat, {left}, nothing freezes in that time.", false)
            : new("cold", "hoursWithoutHeat", Sentence.Of($"Without heat, {left}, {ladder.Rungs[0].Name} has its first ice after " +
                $"{Measure.Duration(ladder.Rungs[0].FirstIceS)}, and {frozen} {(frozen == 1 ? "piece" : "pieces")} in all have ice in that time."),
                ladder.Verdict == Verdict.Fails);
    }
}
