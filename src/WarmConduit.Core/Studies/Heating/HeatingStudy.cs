using WarmConduit.Core.Flow;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.Heating;

/// <summary>Where the heat of circuits and pads goes on a night, what it costs, and what it does not reach.</summary>
public static class HeatingStudy
{
    private const double HourS = 3600, HottestC = 90, ColdC = 0, ManyStarts = 3, FloorC = 45, EngineWh = 50;

    /// <summary>Asks the night of <see cref="RigNight"/> what its circuits did. Pure. O(the night).</summary>
    public static HeatingAnswer Ask(Question question)
    {
        var night = question.Ask(RigNight.Of);
        var heat = RigHeat.Of(question);
        var moments = night.HeatMoments();
        var lines = Lines(night, moments, heat).ToList();
        var parts = Parts(question, night, heat, moments).ToList();
        bool any = question.Rig.Runs.Any(r => r.Service == Service.Coolant);
        double litres = any ? heat.Litres() : 0;
        double swells = RigHeat.Fluid(heat.Glycol, 20).DensityKgPerM3 / RigHeat.Fluid(heat.Glycol, HottestC).DensityKgPerM3;
        var meter = new EnergyMeter(question);
        var heaters = parts.Where(p => p.Kind == HeatRole.Source).Select(p => Duty(question, night, p, meter.FluidJPerK)).ToList();
        return new HeatingAnswer(
            lines, parts, [.. Got(question, night)], heaters, [.. TracedLines.Of(question, night)], litres, litres * heat.Glycol, heat.Glycol,
            any ? GlycolWater.FreezingC(heat.Glycol) : null,
            2 * litres * (swells - 1), night.HeatWh(), heat.Flow is null || night.Heat.FluidC.Count == 0 ? null : FlowWords(heat, night.Heat.FluidC),
            [.. Uses(question, night, meter)], [.. HotStores.Of(question, heat)], [.. Exchangers.Of(question, heat)],
            [.. Notes(question, night, heat, lines)]);
    }

    private static Sentence FlowWords(RigHeat heat, IReadOnlyList<double> fluidC)
    {
        var from = Measure.Temperature(fluidC.Min());
        var of = fluidC.Max() > fluidC.Min() ? Sentence.Of($"{from} to {Measure.Temperature(fluidC.Max())}") : Sentence.Of($"{from}");
        return Sentence.Of($"Flow is that of fluid at ").And(of).And(Sentence.Of($", within {new Measure(RigHeat.FlowTolerance, Quantity.Share)}. At " +
            $"{Measure.Temperature(ColdC)} it is thicker, and {new Measure(ColdShare(heat), Quantity.Share)} of that at " +
            $"{Measure.Temperature(RigHeat.UsualC)} is left."));
    }

    private static double ColdShare(RigHeat heat)
    {
        var cold = RigHeat.Fluid(heat.Glycol, ColdC);
        var then = FlowSolver.Solve(heat.Net.Network with { DensityKgPerM3 = cold.DensityKgPerM3, ViscosityPaS = cold.ViscosityPaS }, heat.Flow);
        double most = heat.Flow!.FlowM3PerS.Max(Math.Abs);
        return most > 0 ? then.FlowM3PerS.Max(Math.Abs) / most : 0;
    }

    private static double? Told(double c) => double.IsNaN(c) ? null : Math.Round(c, 2);

    // Pieces are the same from hour to hour where the rig is; one that is not there at an hour rests.
    private static IEnumerable<(HeatPiece Piece, HeatMoment?[] At, int[] Index)> Pieces(RigNight night, IReadOnlyList<HeatMoment?> moments)
    {
        var known = new Dictionary<HeatPiece, (HeatMoment?[] At, int[] Index)>();
        var order = new List<HeatPiece>();
        for (int h = 0; h < moments.Count; h++)
        {
            if (moments[h] is not { } moment) continue;
            for (int p = 0; p < moment.Pieces.Count; p++)
            {
                var piece = moment.Pieces[p];
                if (!known.TryGetValue(piece, out var row))
                {
                    known[piece] = row = (new HeatMoment?[moments.Count], new int[moments.Count]);
                    order.Add(piece);
                }
                (row.At[h], row.Index[h]) = (moment, p);
            }
        }
        // A pump that runs between the hours alone is seen at none.
        foreach (var piece in night.Heat.LineWh.Keys.Concat(night.Heat.PartWh.Keys.Select(p => new HeatPiece(null, p, 0, 0, null))))
            if (known.TryAdd(piece, (new HeatMoment?[moments.Count], new int[moments.Count]))) order.Add(piece);
        return order.Select(p => (p, known[p].At, known[p].Index));
    }

    private static IReadOnlyList<double?> Row(HeatMoment?[] at, int[] index, Func<HeatMoment, double[]> of) =>
        [.. at.Select((m, h) => m is null ? null : Told(of(m)[index[h]]))];

    // A pump that runs for minutes says little at a full hour: there it is the average.
    private static IReadOnlyList<double> Watts(RigNight night, HeatMoment?[] at, int[] index, int sign, double[] wh) => night.Heat.Switched
        ? [.. at.Select((_, h) => Math.Round(sign * wh[Math.Min(h, wh.Length - 1)], 2))]
        : [.. at.Select((m, h) => m is null ? 0 : Math.Round(sign * m.Row.HeatW[index[h]], 2))];

    private static IEnumerable<HeatLine> Lines(RigNight night, IReadOnlyList<HeatMoment?> moments, RigHeat heat) =>
        Pieces(night, moments).Where(p => p.Piece.RunId is not null).Select(p => new HeatLine(
            p.Piece.RunId!, Math.Round(p.Piece.FromM, 4), Math.Round(p.Piece.ToM, 4), LPerMin(heat, p.At, p.Index), p.Piece.Traced,
            Row(p.At, p.Index, m => m.Row.InC), Row(p.At, p.Index, m => m.Row.OutC),
            Watts(night, p.At, p.Index, 1, night.Heat.LineWh[p.Piece])));

    private static IReadOnlyList<double> LPerMin(RigHeat heat, HeatMoment?[] at, int[] index) =>
        [.. at.Select((m, h) => m is null ? 0 : Math.Round(m.Reaches[index[h]].KgPerS / heat.KgPerM3 * 60e3, 3))];

    private static IEnumerable<HeatPart> Parts(Question question, RigNight night, RigHeat heat, IReadOnlyList<HeatMoment?> moments)
    {
        double Morning(IReadOnlyList<double> wh) => Math.Round(night.UntilMorning(wh), 1);
        var rows = Pieces(night, moments).Where(p => p.Piece.PartId is not null).ToLookup(p => p.Piece.PartId!);
        foreach (var part in heat.Acting)
        {
            var (_, at, index) = rows[part.Id].LastOrDefault();
            if (at is null || !night.Heat.PartWh.TryGetValue(part.Id, out var wh)) continue;
            var kind = EnergyMeter.RoleOf(part);
            int sign = kind is HeatRole.Source or HeatRole.Engine ? -1 : 1;
            double[] given = [.. wh.Select(w => Math.Round(sign * w, 1))];
            yield return new HeatPart(part.Id, kind, kind switch
            {
                HeatRole.Coil => heat.Around(part),
                HeatRole.Emitter => question.Index.ZoneAt(part.Box.Centre())?.Id,
                _ => null,
            }, LPerMin(heat, at, index), Row(at, index, m => m.Row.InC),
                Row(at, index, m => m.Row.OutC), Watts(night, at, index, sign, wh), given, Morning(given));
        }
        foreach (var part in question.Rig.Parts.Where(p => p.Pad is not null))
        {
            double[] given = [.. (night.Heat.PadWh.GetValueOrDefault(part.Id) ?? new double[night.Heat.Hours]).Select(w => Math.Round(w, 1))];
            yield return new HeatPart(part.Id, HeatRole.Pad, part.Id, [], [], [], [.. given, .. given.TakeLast(1)], given, Morning(given));
        }
    }

    // Of all lengths of a line one sum, and what a pad gives with what a coil does.
    private static IEnumerable<HeatGot> Got(Question question, RigNight night)
    {
        var places = question.Rig.Shell.Zones.ToDictionary(z => RigNetwork.IdOf(z.Id), z => (HeatPlace.Zone, (string?)z.Id));
        foreach (var f in night.Candidates) places[f.Id] = (f.LengthM > 0 ? HeatPlace.Run : HeatPlace.Part, f.Thing);
        foreach (var engine in question.Rig.Parts.Where(p => p.Heats().IsEngine)) places[RigHeat.EngineZone(engine)] = (HeatPlace.Part, engine.Id);
        return night.Heat.GotWh.Concat(night.Heat.PadWh).GroupBy(g => places.GetValueOrDefault(g.Key, (HeatPlace.Outdoors, null))).Select(g =>
        {
            double[] sum = new double[night.Heat.Hours];
            foreach (var (_, wh) in g)
                for (int h = 0; h < wh.Length; h++) sum[h] += wh[h];
            return new HeatGot(g.Key.Item1, g.Key.Item2, [.. sum.Select(w => Math.Round(w, 1))], Math.Round(night.UntilMorning(sum), 1));
        }).OrderByDescending(g => g.UntilMorningWh);
    }

    private static HeaterDuty Duty(Question question, RigNight night, HeatPart source, double fluidJPerK)
    {
        var part = question.Index.Part(source.PartId);
        var figures = part.Heats();
        double mean = source.UntilMorningWh / (night.MorningS / HourS), most = source.WhByHour.DefaultIfEmpty(0).Max(), full = figures.PowerW ?? 0;
        // While its pump runs.
        double runs = night.Heat.FlowS.TryGetValue(part.Id, out var s) ? night.UntilMorning(s) / night.MorningS : 1;
        var cycle = runs > 0 ? HeaterCycle.Of(figures, mean / runs, fluidJPerK) : default;
        var words = most >= 0.98 * full && full > 0
            ? Sentence.Of($"{part.Name} works at full, {Measure.Power(full)}, in its hardest hour; {Measure.Power(mean)} on average.")
            : cycle.StartsPerHour > ManyStarts
            ? Sentence.Of($"{part.Name} gives {Measure.Power(mean)} on average, less than its lowest stage of {Measure.Power(figures.LeastW)}: it starts " +
                $"about {(int)Math.Round(cycle.StartsPerHour)} times an hour, which soots and wears it. More fluid in the circuit, or a smaller heater, " +
                $"starts less often.")
            : Sentence.Of($"{part.Name} gives {Measure.Power(mean)} on average and {Measure.Power(most)} in its hardest hour, of {Measure.Power(full)}.");
        return new HeaterDuty(part.Id, full, mean, most, cycle.StartsPerHour, words);
    }

    private static IEnumerable<EnergyUse> Uses(Question question, RigNight night, EnergyMeter meter) => meter.Of(night)
        .Kinds(question.Rig.Brief.Chosen()).Select(k => Use(k.Kind, k.ByHour, k.Has, night, k.Measure, k.Name));

    private static EnergyUse Use(EnergyKind kind, double[] byHour, double? has, RigNight night, Func<double?, Measure> measure, string name)
    {
        double used = night.UntilMorning(byHour);
        double? emptyS = EnergyMeter.EmptyS(byHour, has);
        double? nights = has is > 0 && used > 0 ? has / used : null;
        string lasts = nights is { } n ? $" Enough for {Nights(n)}." : "";
        var words = has is not > 0 ? Sentence.Of($"{measure(used)} of {name} until morning.")
            : emptyS < night.MorningS ? Sentence.Of($"{measure(used)} of {name} until morning, where the brief gives {measure(has)}: it is used up after " +
                $"{Measure.Duration(emptyS)}.{lasts}")
            : Sentence.Of($"{measure(used)} of {name} until morning, of {measure(has)} in the brief.{lasts}");
        return new EnergyUse(kind, [.. byHour.Select(v => Math.Round(v, 4))], used, has is > 0 ? has : null, emptyS, nights, words);
    }

    private static Sentence Switched(Question question, RigNight night, Part pump, PumpSwitch by)
    {
        double runs = night.Heat.PumpS.TryGetValue(pump.Id, out var s) ? night.UntilMorning(s) : 0;
        var share = Sentence.Of($"{Measure.Duration(runs)} until morning. Heat is the average of each hour, temperatures those at the end of a run; the time " +
            $"to warm the fluid up again at each start is taken off.");
        if (by.Kind == PumpSwitchKind.Timer) return Sentence.Of($"{pump.Name} runs by its timer: ").And(share);
        return (question.Conditions.Events ?? []).Any(e => PumpHours.Presses(e, pump.Id)) ? Sentence.Of($"{pump.Name} runs by its button: ").And(share)
            : Sentence.Of($"{pump.Name} runs when its button is pressed, and nobody presses it on this night: plan when.");
    }

    // Rounded down: it errs early.
    private static string Nights(double nights) => nights >= 10 ? $"{Math.Floor(nights):0} such nights" : nights >= 2
        ? FormattableString.Invariant($"{Math.Floor(10 * nights) / 10:0.#} such nights")
        : nights >= 1 ? "one such night" : FormattableString.Invariant($"{Math.Floor(100 * nights):0} % of such a night");

    private static IEnumerable<Sentence> Notes(Question question, RigNight night, RigHeat heat, IReadOnlyList<HeatLine> lines)
    {
        var rig = question.Rig;
        foreach (var part in rig.Parts.Where(p => p.Pad is not null && night.Candidates.All(f => f.Thing != p.Id)))
            yield return part.TakesElement() ? Sentence.Of($"{part.Name} is empty on this night: switch its element off, or it burns out.")
                : Sentence.Of($"{part.Name} is empty on this night: switch its pad off, or it melts what it lies on.");
        if (!rig.Runs.Any(r => r.Service == Service.Coolant)) yield break;
        bool still = night.Heat.LineWh.Count == 0;
        foreach (var pump in heat.Net.Drives.Select(d => question.Index.Part(d.PartId)))
            if (pump.Heats().Switch is { } by) yield return Switched(question, night, pump, by);
        foreach (string id in (question.Conditions.Events ?? []).Where(e => e.Kind == PlanEventKind.AirLocks).Select(e => e.RunId).OfType<string>().Distinct())
            if (rig.Runs.Find(id) is { } run)
                yield return Sentence.Of($"Air stops the flow in {run.Name}, as planned. Bleed it at its highest point, cold: hot coolant is under " +
                    $"pressure.");
        if (still && heat.Net.Drives.Count == 0)
            yield return "No pump is joined into the circuit and set to run, so nothing flows and nothing is heated.";
        else if (still && !night.Heat.PumpS.Values.Any(s => s.Sum() > 0) && question.Conditions.HeatOn)
            yield return "No pump runs on this night: nothing flows.";
        else if (still) yield return question.Conditions.HeatOn
            ? "The pump runs, but its line leads nowhere round: nothing flows."
            : "The heat is off on this night: the pump rests, and the circuit gives nothing.";
        if (!rig.Parts.Any(p => question.Index.HoldsCoolant(p) && (p.Heats().HeatsFluid || p.Heats().IsEngine)))
            yield return "Nothing heats the fluid: join a coolant heater, an electric element or the engine into the loop.";
        foreach (var part in rig.Parts.Where(p => p.Heats().CoilWPerK is not null && question.Index.HoldsCoolant(p) && heat.Around(p) is null))
            yield return Sentence.Of($"{part.Name} lies in nothing that holds water: place it inside the tank or exchanger that it is to warm.");
        double floorC = question.Rig.Runs.Where(r => r.Floor is not null).SelectMany(r => lines.Where(l => l.RunId == r.Id)).SelectMany(l => l.InC)
            .Max() ?? 0;
        if (floorC > FloorC)
            yield return Sentence.Of($"Fluid comes to the floor at up to {Measure.Temperature(floorC)}. Bare feet and most floors want no more than " +
                $"{Measure.Temperature(FloorC)} of fluid: mix it down before the floor loop.");
        foreach (var engine in rig.Parts.Where(p => p.Heats().IsEngine && question.Index.HoldsCoolant(p)))
        {
            yield return (question.Conditions.Events ?? []).Any(e => e.Kind == PlanEventKind.Drive)
                ? Sentence.Of($"{engine.Name} heats the fluid while it drives, and for some hours after. It starts the night cold.")
                : Sentence.Of($"{engine.Name} stands cold on this night. Plan a drive to see what it brings.");
            double takenWh = night.Heat.PartWh.TryGetValue(engine.Id, out var wh) ? night.UntilMorning([.. wh.Select(w => Math.Max(0, w))]) : 0;
            if (takenWh > EngineWh)
                yield return Sentence.Of($"Colder than the fluid, {engine.Name} takes {Measure.Energy(takenWh)} until morning: shut the way to it, or " +
                    $"rest the circulator, unless it is to be warmed.");
        }
    }
}
