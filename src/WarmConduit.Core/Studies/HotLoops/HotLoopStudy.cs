using WarmConduit.Core.Flow;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Heating;
using WarmConduit.Core.Studies.HotWait;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Studies.WaterFlow;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.HotLoops;

/// <summary>A loop of hot water, with its pump at work on the coldest hour of the night. All figures are estimates.</summary>
/// <param name="PumpId">Its return pump.</param>
/// <param name="RunIds">The runs that its water goes round, from the heater on.</param>
/// <param name="LPerMin">Flow, L/min.</param>
/// <param name="HotC">Water that leaves the heater, °C.</param>
/// <param name="ReturnC">Water that comes back, °C.</param>
/// <param name="LostW">Heat that it loses while it runs, W.</param>
/// <param name="SavedS">The longest wait at an outlet that it saves, s.</param>
/// <param name="SavedLADay">Water that need not run away cold, L a day.</param>
/// <param name="RunShare">Share of the time that its pump runs where the pipe switches it on below 38 °C.</param>
/// <param name="MeanW">Heat that it loses on average then, W.</param>
/// <param name="StandsC">It keeps its water warm enough down to this outdoors, °C, as long as the heater is hot; null: as cold as was tried.</param>
/// <param name="Words">What it does as comfort, as protection, and what it costs.</param>
/// <param name="Caution">Where it is tepid.</param>
public sealed record HotLoop(
    string PumpId, IReadOnlyList<string> RunIds, double LPerMin, double HotC, double ReturnC, double LostW, double SavedS, double SavedLADay,
    double RunShare, double MeanW, double? StandsC, IReadOnlyList<Sentence> Words, string Caution);

/// <summary>The hot loops of a rig.</summary>
/// <param name="Loops">One for each return pump whose water comes round.</param>
/// <param name="Notes">Return pumps whose water does not.</param>
public sealed record HotLoopAnswer(IReadOnlyList<HotLoop> Loops, IReadOnlyList<Sentence> Notes);

/// <summary>A recirculating hot loop, as comfort and against frost: what it saves, what it costs, and how cold a night it stands.</summary>
public static class HotLoopStudy
{
    private const double LeastLPerMin = 0.05, ColdestC = -60, StepC = 5, HourS = 3600;
    private const string Tepid = "Legionella grows in water between 20 and 50 °C (70 and 120 °F): keep the store at 60 °C, let no loop stand tepid for days, " +
        "and flush it hot before you shower. Local health rules have the last word.";

    /// <summary>Asks. Pure. A flow for each pump, and some nights for how cold it may get.</summary>
    public static HotLoopAnswer Ask(Question question)
    {
        var (loops, notes) = (new List<HotLoop>(), new List<Sentence>());
        foreach (var pump in question.Rig.Parts.Where(p => p.Stock == "return-pump"))
        {
            if (Round(question, pump) is { } way) loops.Add(Told(question, pump, way));
            else notes.Add($"{pump.Name} moves nothing: its line does not lead from the heater round and back.");
        }
        return new HotLoopAnswer(loops, notes);
    }

    // The runs with flow, each from where the water comes, from the heater on; all taps closed.
    private static (IReadOnlyList<Run> Runs, double M3PerS, Part? Heater)? Round(Question question, Part pump)
    {
        var use = question.Rig.ScenarioOf(ScenarioKind.InUse);
        var on = Catalogue.Part(pump.Stock)!.Positions.First(p => p.Passes);
        var net = new RigFlow(question, new FlowScene(p => p.Id == pump.Id ? on : use.PositionOf(p), false, p => Catalogue.Part(p.Stock)!.UsualShare,
            WaterFlowInput.UsualHotC, WaterFlowInput.UsualHotC, WaterFlowInput.UsualWishC));
        if (net.Drives.All(d => d.PartId != pump.Id)) return null;
        var flow = FlowSolver.Solve(net.Network);
        double q = Math.Abs(flow.FlowM3PerS[net.Drives.First(d => d.PartId == pump.Id).Edge]);
        if (q * 60e3 < LeastLPerMin) return null;
        // One way round: what carries most of it.
        var runs = net.Runs.Where(r => Math.Abs(flow.FlowM3PerS[net.EdgeOfRun(r.Id)]) > q / 2)
            .ToDictionary(r => r.Id, r => flow.FlowM3PerS[net.EdgeOfRun(r.Id)] > 0 ? (r.From, r.To) : (r.To, r.From));
        var heater = question.Rig.Parts.FirstOrDefault(p => PartWater.HeatsWater(p) && runs.Values.Any(r => r.Item1.Part == p.Id));
        var order = new List<Run>();
        for (string? at = heater?.Id ?? pump.Id; order.Count < runs.Count;)
        {
            if (runs.FirstOrDefault(r => r.Value.Item1.Part == at && order.All(o => o.Id != r.Key)) is not { Key: { } id } next) break;
            order.Add(question.Index.Run(id));
            at = next.Value.Item2.Part;
        }
        return order.Count == 0 ? null : (order, q, heater);
    }

    private static HotLoop Told(Question question, Part pump, (IReadOnlyList<Run> Runs, double M3PerS, Part? Heater) way)
    {
        double hot = HotStores.KeptC(question, way.Heater) ?? WaterFlowInput.UsualHotC;
        double perK = way.M3PerS * Water.DensityKgPerM3(hot) * Water.HeatCapacityJPerKgK(hot);
        var lengths = Lengths(question, way.Runs, hot);
        double back = Back(lengths, question.Ask(RigNight.Of), hot, perK), lost = perK * (hot - back), hold = TradeConstants.HoldC;
        double litres = lengths.Sum(l => l.HeatJPerK) / (Water.DensityKgPerM3(hot) * Water.HeatCapacityJPerKgK(hot)) * 1000;
        double fillS = litres / (way.M3PerS * 1000);
        // Switched by the pipe: filled hot, and left until its first metre is as cold as that.
        (double Share, double MeanW) Switched(double onC)
        {
            var night = question.Ask(RigNight.Of);
            double restS = lengths.Min(l => Rests(l, night, hot, onC));
            double Cooled(Length l) => l.HeatJPerK * (hot - AirC(l.Zone, night)) * (1 - Math.Exp(-restS * l.WPerK / l.HeatJPerK));
            return double.IsInfinity(restS) ? (0, 0) : (fillS / (fillS + restS), (lengths.Sum(Cooled) + (lost * fillS)) / (fillS + restS));
        }
        var (share, mean) = Switched(WaterFlowInput.UsualWishC);
        var (frostShare, frostW) = Switched(hold);
        var ids = way.Runs.Select(r => r.Id).ToHashSet();
        var waits = question.Ask(HotWaitStudy.Ask).Outlets.Select(o => (o.DrawsADay, o.LPerMin, Saved: o.RunIds.Where(ids.Contains).Select(question.Index.Run)
            .Sum(r => HotWaitStudy.LPerM(Catalogue.Pipe(r.Pipe)!) * question.Index.PipeLengthM(r)))).ToList();
        double savedL = waits.Sum(w => w.DrawsADay * w.Saved), savedS = waits.Select(w => w.LPerMin > 0 ? w.Saved / w.LPerMin * 60 : 0).DefaultIfEmpty(0).Max();
        double? stands = Stands(question, lengths, hot, perK, hold);
        double store = way.Heater is null ? 0 : PartWater.HoldsL(way.Heater) / 1000 * Water.DensityKgPerM3(hot) * Water.HeatCapacityJPerKgK(hot) * (hot - hold);
        double pumpW = pump.Heats().DrawW ?? 0, anHour = lost + pumpW;
        string wait = FormattableString.Invariant($"{savedS:0} s");
        Sentence[] words =
        [
            Sentence.Of($"{pump.Name} sends {new Measure(way.M3PerS * 60e3, Quantity.Flow)} round " +
                $"{Measure.Length(way.Runs.Sum(question.Index.PipeLengthM))} of line: it leaves the heater at " +
                $"{Measure.Temperature(hot)}, comes back at {Measure.Temperature(back)}, and loses {Measure.Power(lost)}."),
            Sentence.Of($"As comfort it saves up to {wait} of waiting and {Measure.Volume(savedL)} of water a day. ").And(ByHand(pump, anHour)).And(Sentence.Of(
                $" Switched by the pipe at {Measure.Temperature(WaterFlowInput.UsualWishC)} it takes " +
                $"{Measure.Energy(24 * (mean + (share * pumpW)))} a day, with the pump on for {Measure.Duration(share * 24 * HourS)} of it.")),
            frostShare > 0 ? Sentence.Of($"Switched by the pipe at {Measure.Temperature(hold)}, against frost alone, it takes " +
                $"{Measure.Energy(24 * (frostW + (frostShare * pumpW)))} a day as cold as this.")
                : Sentence.Of($"Switched by the pipe at {Measure.Temperature(hold)}, against frost alone, it has nothing to do on this night."),
            Sentence.Of($"Against frost, always on, it keeps {Measure.Temperature(hold)} to its end down to " +
                $"{Measure.Temperature(stands ?? ColdestC)} outdoors{(stands is null ? "; colder was not tried" : "")}, as long as the heater is hot."),
            Sentence.Of($"With the heater off, what is in store lasts about {Measure.Duration(lost > 0 ? store / lost : 0)}."),
            "The night is told with this pump at rest.",
        ];
        return new HotLoop(pump.Id, [.. way.Runs.Select(r => r.Id)], way.M3PerS * 60e3, hot, back, lost, savedS, savedL, share, mean, stands, words, Tepid);
    }

    // By its own timer or button; without, what an hour of one would take.
    private static Sentence ByHand(Part pump, double anHourWh) => pump.Heats().Switch switch
    {
        { Kind: PumpSwitchKind.Timer } timer => Sentence.Of($"Its timer lets it run {Measure.Duration(PumpHours.ADayS(timer))} a day, which takes " +
            $"{Measure.Energy(anHourWh * PumpHours.ADayS(timer) / HourS)}."),
        { ForS: { } forS } => Sentence.Of($"Each press of its button runs it {Measure.Duration(forS)}, which takes {Measure.Energy(anHourWh * forS / HourS)}."),
        _ => Sentence.Of($"Each hour that a timer lets it run takes {Measure.Energy(anHourWh)}."),
    };

    private readonly record struct Length(Zone? Zone, double WPerK, double HeatJPerK);

    // In the direction of flow, by room.
    private static List<Length> Lengths(Question question, IReadOnlyList<Run> runs, double hotC)
    {
        double perL = Water.DensityKgPerM3(hotC) * Water.HeatCapacityJPerKgK(hotC);
        var losses = new LineLosses(question, hotC);
        var numbers = question.Rig.Runs.Select((r, i) => (r.Id, i)).ToDictionary(r => r.Id, r => r.i);
        return [.. runs.SelectMany(run => losses.Of(numbers[run.Id]).Select(l => new Length(
            l.Cut.Zone, l.WPerMK * l.Metres, ((Catalogue.Pipe(run.Pipe)!.BoreM2() * perL) + Catalogue.Pipe(run.Pipe)!.WallJPerMK()) * l.Metres)))];
    }

    private static double AirC(Zone? zone, RigNight night) => Enumerable.Range(0, night.Morning + 1).Min(r => night.AirC(zone, r));

    /// <summary>What comes back of water that goes round: each length takes it nearer to the coldest air around it.</summary>
    private static double Back(IEnumerable<Length> lengths, RigNight night, double hotC, double perK)
    {
        double c = hotC;
        foreach (var length in lengths)
        {
            double air = AirC(length.Zone, night);
            c = air + ((c - air) * Math.Exp(-length.WPerK / perK));
        }
        return c;
    }

    // Until a length that stands has cooled to the hold point, s.
    private static double Rests(Length length, RigNight night, double hotC, double holdC) =>
        AirC(length.Zone, night) is var air && air < holdC && length.WPerK > 0
            ? length.HeatJPerK / length.WPerK * Math.Log((hotC - air) / (holdC - air)) : double.PositiveInfinity;

    // The coldest of nights, five degrees apart, at which what comes back is warm enough; null: the coldest that is tried is none too cold.
    private static double? Stands(Question question, List<Length> lengths, double hotC, double perK, double holdC)
    {
        double stands = question.Conditions.Steady().OutdoorC;
        if (!Holds(stands))
        {
            do stands += StepC;
            while (stands < holdC && !Holds(stands));
            return stands;
        }
        for (; stands - StepC >= ColdestC; stands -= StepC)
            if (!Holds(stands - StepC)) return stands;
        return null;

        bool Holds(double outdoorC)
        {
            question.Cancel.ThrowIfCancellationRequested();
            return Back(lengths, question.With(question.Conditions.Constant(outdoorC)).Ask(RigNight.Of), hotC, perK) >= holdC;
        }
    }
}
