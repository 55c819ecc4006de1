using WarmConduit.Core.Geometry;
using WarmConduit.Core.Heat;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.FreezeLadder;

/// <summary>What freezes first, and when, on a steady night.</summary>
public static class FreezeLadderStudy
{
    private static readonly FreezingConstants Constants = FreezingConstants.Default;

    /// <summary>
    /// Every piece of run and every part with water in it, by time to first ice, blocked and solid. Wet: drinking-water lines and all parts are full, while
    /// waste, vent and fill lines hold what stays in them. Drained: all hold what <paramref name="drained"/> says stays. Dead water, air at the zone's steady
    /// temperature, no supercooling: on the safe side for lines in use. Pure.
    /// </summary>
    public static FreezeLadderAnswer Ask(Rig rig, Conditions night, DrainDownAnswer drained)
    {
        var air = ZoneTemperatures.Ask(rig, night);
        var airOf = air.ToDictionary(a => a.ZoneId, a => a.AirC);
        var rungs = new List<Rung>();
        var pressing = drained.Pools.Where(p => p.Threatens.Count > 0).SelectMany(p => p.Shares).Select(s => s.RunId).ToHashSet();
        for (int r = 0; r < rig.Runs.Count; r++)
            AddRun(rungs, rig, rig.Runs[r], drained.Runs[r], night, airOf, pressing.Contains(rig.Runs[r].Id));
        foreach (var part in drained.Parts)
        {
            double litres = night.Water == WaterState.Wet ? part.FullL : part.HeldL;
            // A film on the floor of a tank harms nothing.
            if (litres > 0.01 * part.FullL) rungs.Add(PartRung(rig, rig.PartOf(part.PartId), litres, part.FullL, night, airOf));
        }
        return new FreezeLadderAnswer(
            [.. rungs.OrderBy(r => r.FirstIceS ?? double.PositiveInfinity).ThenBy(r => r.AirC).ThenBy(r => r.Id, StringComparer.Ordinal)], air, night.Hours * 3600);
    }

    private static void AddRun(
        List<Rung> rungs, Rig rig, Run run, RunDrain drain, Conditions night, Dictionary<string, double> airOf, bool pressesOnParts)
    {
        bool full = night.Water == WaterState.Wet && run.Service is (Service.Cold or Service.Hot);
        var pipe = Catalogue.Pipe(run.Pipe)!;
        var pieces = Pieces(rig, drain.Stations, full);
        for (int i = 0; i < pieces.Count; i++)
        {
            var piece = pieces[i];
            double litres = full ? pipe.BoreM2() * piece.LengthM * 1000 : drain.HeldL * piece.LengthM / pieces.Sum(p => p.LengthM);
            if (litres < 1e-4) continue;
            double airC = piece.Zone is null ? night.OutdoorC : airOf[piece.Zone.Id];
            double wind = piece.Zone is null || piece.Zone.Kind == ZoneKind.OpenUnderfloor ? night.WindMPerS : 0;
            var section = new PipeSection(
                pipe.InnerDiameterM,
                pipe.OuterDiameterM,
                pipe.ConductivityWPerMK,
                run.Insulation?.ThicknessM ?? 0,
                run.Insulation is { } sleeve ? Catalogue.Solid(sleeve.Material)!.ConductivityWPerMK : 0.036);
            double worstWind = Film.WorstWindMPerS(section.SurfaceDiameterM(), wind);
            double resistance = 1 / PipeHeat.Steady(section, Math.Max(night.StartWaterC / 2, 0), airC, worstWind).ConductanceWPerMK;
            double kgPerM = Math.Min(litres / piece.LengthM, pipe.BoreM2() * 1000) * Constants.WaterKgPerM3 / 1000;
            var times = Freezing.PartlyFilled(kgPerM, resistance, pipe.WallJPerMK(), night.StartWaterC, airC, Constants);
            double annulus = 4 * Math.PI * Constants.IceWPerMK;
            var why = new Why(
                "Time to cool to 0 °C = (water + pipe wall) × resistance × ln((start − air) / (0 − air)); ice then grows inwards and insulates (Plank).",
                [
                    new("length of this piece", new Measure(piece.LengthM, Quantity.Length), false),
                    new("water in it", new Measure(litres, Quantity.Volume), !full),
                    new("loss of this piece", new Measure(piece.LengthM / resistance, Quantity.Conductance), true),
                    new("air around it", new Measure(airC, Quantity.Temperature), true),
                    new(worstWind < wind ? "worst wind up to the night's" : "wind on it", new Measure(worstWind, Quantity.Speed), false),
                    new("water at the start", new Measure(night.StartWaterC, Quantity.Temperature), false),
                    new("insulation", new Measure(run.Insulation?.ThicknessM ?? 0, Quantity.Length), false),
                ]);
            double IceTime(double f) =>
                times.FirstIceS + kgPerM * Constants.LatentJPerKg / -airC * (resistance * f + (f + (f < 1 ? (1 - f) * Math.Log(1 - f) : 0)) / annulus);
            double coolingS = (kgPerM * Constants.WaterJPerKgK + pipe.WallJPerMK()) * resistance;
            string name = pieces.Count > 1 && (i == 0 || pieces[i - 1].Zone != piece.Zone) ? $"{run.Name}, {piece.Zone?.Name ?? "outdoors"}" : run.Name;
            rungs.Add(MakeRung(
                $"{run.Id}#{i}", name, run.Id, null, piece.Zone?.Id, piece.Course, litres, airC, times, night, coolingS, IceTime,
                pipe.StandsFreezing == StandsFreezing.No || (!full && pressesOnParts), why));
        }
    }

    private static Rung PartRung(Rig rig, Part part, double litres, double fullL, Conditions night, Dictionary<string, double> airOf)
    {
        var stock = Catalogue.Part(part.Stock)!;
        var zone = rig.ZoneAt(part.Box.Centre());
        double airC = zone is null ? night.OutdoorC : airOf[zone.Id];
        airC += stock.OutdoorShare * (night.OutdoorC - airC);
        double kg = litres * Constants.WaterKgPerM3 / 1000, loss = PartWater.LossWPerK(part);
        if (stock.Passage == Passage.Vessel && litres < fullL)
        {
            // A puddle in a tank loses through the floor and its own surface: half of the faces, at the least.
            loss *= 0.5 + 0.5 * litres / fullL;
        }
        double dry = PartWater.DryJPerK(kg);
        var times = Freezing.Lump(kg, dry, loss, night.StartWaterC, airC, Constants);
        var why = new Why(
            "Time to cool to 0 °C = (water + body) ÷ loss × ln((start − air) / (0 − air)); the latent heat of the water then leaves at the loss times the cold.",
            [
                new("water in it", new Measure(litres, Quantity.Volume), part.HoldsL is null),
                new("loss", new Measure(loss, Quantity.Conductance), part.LossWPerK is null),
                new("air around it", new Measure(airC, Quantity.Temperature), true),
                new("water at the start", new Measure(night.StartWaterC, Quantity.Temperature), false),
            ]);
        double coolingS = (kg * Constants.WaterJPerKgK + dry) / loss;
        double IceTime(double f) => times.FirstIceS + f * (times.SolidS - times.FirstIceS);
        bool breaks = stock.IceBreaks == IceBreaks.Yes || (stock.IceBreaks == IceBreaks.WhenFull && litres > 0.9 * fullL);
        return MakeRung(part.Id, part.Name, null, part.Id, zone?.Id, [part.Box.Centre()], litres, airC, times, night, coolingS, IceTime, breaks, why);
    }

    private static Rung MakeRung(
        string id, string name, string? runId, string? partId, string? zoneId, IReadOnlyList<Point3> course, double litres, double airC,
        FreezingTimes times, Conditions night, double coolingS, Func<double, double> iceTime, bool breaksByIce, Why why)
    {
        double morning = night.Hours * 3600;
        double ice = times.FirstIceS >= morning ? 0 : times.SolidS <= morning ? 1 : InverseIce(iceTime, morning);
        double celsius = ice >= 1 ? airC : ice > 0 ? 0 : airC + (night.StartWaterC - airC) * Math.Exp(-morning / coolingS);
        var state = times.FirstIceS >= morning ? IceState.Safe
            : times.SolidS <= morning ? IceState.Solid
            : times.TenthS <= morning ? IceState.Blocked
            : IceState.FirstIce;
        return new Rung(
            id, name, runId, partId, zoneId, course, litres, airC, Finite(times.FirstIceS), Finite(times.TenthS), Finite(times.SolidS), celsius, ice, state,
            breaksByIce && state != IceState.Safe, why);
    }

    private static double InverseIce(Func<double, double> iceTime, double at)
    {
        double low = 0, high = 1;
        for (int i = 0; i < 40; i++)
        {
            double mid = (low + high) / 2;
            if (iceTime(mid) < at) low = mid;
            else high = mid;
        }
        return low;
    }

    private static double? Finite(double value) => double.IsFinite(value) ? value : null;

    private sealed record Piece(Zone? Zone, IReadOnlyList<Point3> Course, double LengthM);

    // Cuts a run where it passes from zone to zone; drained, only its wet lengths count.
    private static List<Piece> Pieces(Rig rig, IReadOnlyList<Station> stations, bool full)
    {
        var pieces = new List<Piece>();
        var course = new List<Point3>();
        Zone? zone = null;
        double length = 0;
        void Close()
        {
            if (length > 1e-6) pieces.Add(new Piece(zone, [.. course], length));
            course.Clear();
            length = 0;
        }
        for (int k = 0; k + 1 < stations.Count; k++)
        {
            var a = stations[k].At;
            var b = stations[k + 1].At;
            double from = full ? 0 : stations[k].WetFrom, to = full ? 1 : stations[k].WetTo;
            if (to <= from)
            {
                Close();
                continue;
            }
            if (from > 0) Close();
            var cuts = Cuts(rig, a, b, from, to);
            for (int c = 0; c + 1 < cuts.Count; c++)
            {
                var here = rig.ZoneAt(a.Towards(b, (cuts[c] + cuts[c + 1]) / 2));
                if (course.Count == 0 || here != zone) Close();
                if (course.Count == 0) course.Add(a.Towards(b, cuts[c]));
                zone = here;
                course.Add(a.Towards(b, cuts[c + 1]));
                length += (cuts[c + 1] - cuts[c]) * a.DistanceM(b);
            }
            if (to < 1) Close();
        }
        Close();
        return pieces;
    }

    private static List<double> Cuts(Rig rig, Point3 a, Point3 b, double from, double to)
    {
        var cuts = new List<double> { from, to };
        foreach (var zone in rig.Shell.Zones)
        {
            var (low, high) = (zone.Box.At, zone.Box.Far());
            foreach (var (p, q, x) in (ReadOnlySpan<(double, double, double)>)[
                (a.XM, b.XM, low.XM), (a.XM, b.XM, high.XM), (a.YM, b.YM, low.YM), (a.YM, b.YM, high.YM), (a.ZM, b.ZM, low.ZM), (a.ZM, b.ZM, high.ZM)])
            {
                if (p == q) continue;
                double t = (x - p) / (q - p);
                if (t > from + 1e-6 && t < to - 1e-6) cuts.Add(t);
            }
        }
        cuts.Sort();
        return cuts;
    }
}
