using WarmConduit.Core.Heat.Night;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Units;
using WarmConduit.Core.Weather;

namespace WarmConduit.Core.Studies.Night;

/// <summary>What thermometers read in one cold night.</summary>
/// <param name="Readings">Their readings, from a table.</param>
public sealed record CalibrationInput(Thermometers Readings) : IStudyInput
{
    /// <inheritdoc/>
    public IReadOnlyList<RigFault> Check(Rig rig) => [.. Readings.Check(rig.Shell.Zones).Select(f => f with { Path = $"readings.{f.Path}" })];
}

/// <summary>A figure of a room beside what thermometers gave.</summary>
/// <param name="Name">What it is.</param>
/// <param name="Typed">As typed or estimated.</param>
/// <param name="Fitted">By the thermometers.</param>
/// <param name="Deviation">One standard deviation, as a share of it; null: not determined.</param>
/// <param name="Determined">The deviation is at most 10 %; the rest stays as typed.</param>
public sealed record CalibratedFigure(string Name, Measure Typed, Measure Fitted, double? Deviation, bool Determined);

/// <summary>A thermometer's readings, and what the night says with the figures that were found, °C.</summary>
/// <param name="ZoneId">Its room.</param>
/// <param name="Measured">As read.</param>
/// <param name="Fitted">As the night has it.</param>
public sealed record CalibratedSeries(string ZoneId, IReadOnlyList<double> Measured, IReadOnlyList<double> Fitted);

/// <summary>A rig calibrated by thermometers.</summary>
/// <param name="TimeS">Times of the readings, s.</param>
/// <param name="OutdoorC">Outdoors, °C.</param>
/// <param name="Series">By thermometer.</param>
/// <param name="ResidualK">Root mean square of the difference, K.</param>
/// <param name="Figures">The target.</param>
/// <param name="HeaterKnown">A known heater ran, so heat capacities are found too; without one only rates are.</param>
/// <param name="Edits">The edits that use the calibrated values; empty where nothing is determined.</param>
public sealed record CalibrationAnswer(
    IReadOnlyList<double> TimeS,
    IReadOnlyList<double> OutdoorC,
    IReadOnlyList<CalibratedSeries> Series,
    double ResidualK,
    IReadOnlyList<CalibratedFigure> Figures,
    bool HeaterKnown,
    IReadOnlyList<Edit> Edits);

/// <summary>Calibration: thermometers of one cold night set what rooms lose, exchange and hold.</summary>
public static class CalibrationStudy
{
    private enum What
    {
        Loss,
        Exchange,
        Holds,
    }

    private sealed record Sought(What What, int A, int B);

    /// <summary>
    /// The night's engine is fitted to the readings with the water that the question has. What stays undetermined is held as typed, the worst first, and the
    /// rest is fitted again. Pure. O(some hundred nights).
    /// </summary>
    public static CalibrationAnswer Ask(Question question, CalibrationInput input)
    {
        var rig = question.Rig;
        var read = input.Readings;
        var zones = rig.Shell.Zones;
        int[] measured = [.. read.Zones.Select(s => Number(zones, s.ZoneId))];
        // What burns or glows heats the room that has a heater, or that people live in.
        int heated = measured.OrderByDescending(z => zones[z].Heater is { PowerW: > 0 }).ThenByDescending(z => zones[z].Kind == ZoneKind.Living).First();
        var rooms = Rooms(question, read, heated);
        var sought = Unknowns(rooms, zones, measured, read.HeaterW is not null, heated);
        var all = CoolingFit.Solve(Asked(read, rooms, zones, sought), question.Cancel);
        var (kept, fit) = (sought, all);
        while (kept.Count > 0 && fit.Factors.Any(f => !f.Determined()))
        {
            question.GoOn(1 + sought.Count - kept.Count, 1 + sought.Count);
            int worst = Enumerable.Range(0, kept.Count).MaxBy(i => fit.Factors[i].Deviation);
            kept = [.. kept.Where((_, i) => i != worst)];
            if (kept.Count > 0)
                fit = CoolingFit.Solve(Asked(read, rooms, zones, kept) with { Start = [.. fit.Factors.Where((_, i) => i != worst).Select(f => f.Value)] },
                question.Cancel);
        }
        return new CalibrationAnswer(
            read.TimeS, read.OutdoorC,
            [.. read.Zones.Select((s, i) => new CalibratedSeries(s.ZoneId, s.C, [.. all.Fitted[i].Select(c => Math.Round(c, 3))]))], all.ResidualK,
            [.. sought.Select((s, i) => Figure(rooms, zones, s, all.Factors[i], kept.IndexOf(s) is >= 0 and var at ? fit.Factors[at] : null))],
            read.HeaterW is not null, kept.Count == 0 ? [] : Edits(rooms, zones, kept, fit));
    }

    private static int Number(IReadOnlyList<Zone> zones, string id) => Enumerable.Range(0, zones.Count).First(z => zones[z].Id == id);

    // The rig on the night of the readings, with what holds water, and the heater as it was.
    private static NightNetwork Rooms(Question question, Thermometers read, int heated)
    {
        var zones = question.Rig.Shell.Zones;
        var night = question.Conditions.Constant(read.OutdoorC.Average()).Happening(null) with { HeatOn = false, InsideC = read.Zones[0].C[0], Cloud = 1 };
        var asked = question.With(night);
        double endS = read.TimeS[^1];
        var network = RigNetwork.Of(asked, [.. FreezeLadderStudy.Candidates(asked)], [new WeatherHour(night.OutdoorC, night.WindMPerS, 1)],
            NightCourse.Of(night, endS)[0], Uncertainty.None, LaidCircuits.None, out _);
        var heaters = new List<NightHeater>();
        if (read.HeaterW is { } watts)
        {
            // As long as it gives the same it is one window.
            for (int t = 0, from = 0; t + 1 < watts.Count; t++)
            {
                if (t + 2 < watts.Count && watts[t + 1] == watts[from]) continue;
                if (watts[from] > 0) heaters.Add(new NightHeater(500, 1, watts[from], read.TimeS[from], read.TimeS[t + 1]));
                from = t + 1;
            }
        }
        return network with
        {
            OutdoorC = new TimeSeries(read.TimeS, read.OutdoorC),
            Zones = [.. network.Zones.Select((z, i) => z with { Heaters = i == heated ? heaters : [] })],
        };
    }

    // Without a known heater only rates are told: the room that is first keeps what it is typed to hold, and each that is joined to it tells its own against
    // that.
    private static List<Sought> Unknowns(NightNetwork rooms, IReadOnlyList<Zone> zones, int[] measured, bool heater, int heated)
    {
        bool Joined(int a, int b) => rooms.Links.Any(l => Joins(l.A, l.B, zones[a], zones[b]))
            || rooms.Openings.Any(o => o.B is not null && Joins(o.A, o.B, zones[a], zones[b]));
        var sought = measured.Where(z => OutdoorWPerK(rooms, z) > 0).Select(z => new Sought(What.Loss, z, z)).ToList();
        for (int a = 0; a < measured.Length; a++)
            for (int b = a + 1; b < measured.Length; b++)
                if (Joined(measured[a], measured[b])) sought.Add(new Sought(What.Exchange, measured[a], measured[b]));
        // From the room whose capacity is known, or told by the heater, outwards.
        var told = new HashSet<int> { heated };
        for (int round = 0; round < measured.Length; round++)
            foreach (int z in measured)
                if (!told.Contains(z) && told.Any(t => Joined(t, z))) told.Add(z);
        sought.AddRange(measured.Where(z => told.Contains(z) && (heater || z != heated)).Select(z => new Sought(What.Holds, z, z)));
        return sought;
    }

    private static CoolingQuestion Asked(Thermometers read, NightNetwork rooms, IReadOnlyList<Zone> zones, List<Sought> sought) => new(
        read.TimeS, [.. read.Zones.Select(s => s with { ZoneId = RigNetwork.IdOf(s.ZoneId) })], sought.Count, factors =>
        {
            double Of(What what, int z) => sought.FindIndex(s => s.What == what && s.A == z) is >= 0 and var i ? factors[i] : 1;
            double Between(string a, string b) => sought.FindIndex(s => s.What == What.Exchange && Joins(a, b, zones[s.A], zones[s.B])) is >= 0 and var i
                ? factors[i] : 1;
            return rooms with
            {
                Zones = [.. rooms.Zones.Select((z, i) => z with
                {
                    HeatCapacityJPerK = z.HeatCapacityJPerK * Of(What.Holds, i),
                    OutdoorWPerK = z.OutdoorWPerK * Of(What.Loss, i),
                    OutdoorWPerKPerMPerS = z.OutdoorWPerKPerMPerS * Of(What.Loss, i),
                    Outer = z.Outer?.Times(Of(What.Loss, i)),
                })],
                Links = [.. rooms.Links.Select(l => l with { ConductanceWPerK = l.ConductanceWPerK * Between(l.A, l.B),
                Windy = l.Windy?.Times(Between(l.A, l.B)) })],
                Openings = [.. rooms.Openings.Select(o => o with { AreaM2 = o.AreaM2 * (o.B is null ? 1 : Between(o.A, o.B)) })],
            };
        });

    // As in the wind of the readings, which is the same all the time.
    private static double OutdoorWPerK(NightNetwork rooms, int z) =>
        rooms.Zones[z].OutdoorWPerK + (rooms.WindMPerS.Value[0] * rooms.Zones[z].OutdoorWPerKPerMPerS) + AtStart(rooms, rooms.Zones[z].Outer);

    private static double AtStart(NightNetwork rooms, IReadOnlyList<NightFilmed>? films) =>
        films?.AtWPerK(rooms.OutdoorC.Value[0], rooms.WindMPerS.Value[0]) ?? 0;

    private static bool Joins(string a, string b, Zone x, Zone y) => (a, b) == (RigNetwork.IdOf(x.Id), RigNetwork.IdOf(y.Id))
        || (b, a) == (RigNetwork.IdOf(x.Id), RigNetwork.IdOf(y.Id));

    private static CalibratedFigure Figure(NightNetwork rooms, IReadOnlyList<Zone> zones, Sought s, FittedFactor alone, FittedFactor? kept)
    {
        var (a, b) = (zones[s.A].Name, zones[s.B].Name);
        var (name, quantity, typed) = s.What switch
        {
            What.Loss => ($"{a}, to outdoors", Quantity.Conductance, OutdoorWPerK(rooms, s.A)),
            // What goes through openings depends on how warm it is on either side: as for a difference of ten.
            What.Exchange => ($"{a}, to {b}", Quantity.Conductance,
                rooms.Links.Where(l => Joins(l.A, l.B, zones[s.A], zones[s.B])).Sum(l => l.ConductanceWPerK + AtStart(rooms, l.Windy))
                + rooms.Openings.Where(o => o.B is not null && Joins(o.A, o.B, zones[s.A], zones[s.B]))
                    .Sum(o => Heat.AirExchange.OpeningWPerK(o.AreaM2, o.HeightM, 10, 5, o.WindShare * rooms.WindMPerS.Value[0]))),
            _ => ($"{a} holds, kJ/K", Quantity.Number, rooms.Zones[s.A].HeatCapacityJPerK / 1000),
        };
        var factor = kept ?? alone;
        return new CalibratedFigure(name, new Measure(typed, quantity), new Measure(typed * factor.Value, quantity), double.IsFinite(factor.Deviation)
            ? factor.Deviation : null, kept is not null);
    }

    private static List<Edit> Edits(NightNetwork rooms, IReadOnlyList<Zone> zones, List<Sought> kept, CoolingAnswer fit)
    {
        var edits = new List<Edit>();
        FittedFactor? Of(What what, int z) => kept.FindIndex(s => s.What == what && s.A == z) is >= 0 and var i ? fit.Factors[i] : null;
        foreach (int z in kept.SelectMany(s => (int[])[s.A, s.B]).Distinct().Order())
        {
            var zone = zones[z];
            var exchange = (zone.Measured?.Exchange ?? []).ToDictionary(e => e.Id, e => e.Factor);
            for (int i = 0; i < kept.Count; i++)
                if (kept[i] is { What: What.Exchange } with && (with.A == z || with.B == z))
                {
                    var other = zones[with.A == z ? with.B : with.A];
                    exchange[other.Id] = Round(fit.Factors[i].Value * ZoneBalance.Measured(zone, other));
                }
            var loss = Of(What.Loss, z);
            var measure = new ZoneMeasure(
                Round((loss?.Value ?? 1) * (zone.Measured?.LossFactor ?? 1)), Round(loss?.Deviation ?? zone.Measured?.LossDeviation ?? 0.1),
                exchange.Count == 0 ? null : [.. exchange.OrderBy(e => e.Key, StringComparer.Ordinal).Select(e => new ExchangeFactor(e.Key, e.Value))]);
            var values = new System.Text.Json.Nodes.JsonObject { ["measured"] = RigDiff.Node(measure) };
            if (Of(What.Holds, z) is { } holds) values["heatCapacityJPerK"] = Math.Round(Math.Clamp(rooms.Zones[z].HeatCapacityJPerK * holds.Value, 1e3, 1e8));
            edits.Add(new ChangeThing($"shell/zones/{zone.Id}", values));
        }
        return edits;

        static double Round(double value) => Math.Clamp(Math.Round(value, 4), 0.0001, 50);
    }
}
