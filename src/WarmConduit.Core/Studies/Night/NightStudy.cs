using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.ShellHeat;
using WarmConduit.Core.Units;
using WarmConduit.Core.Weather;

namespace WarmConduit.Core.Studies.Night;

/// <summary>A room through the night.</summary>
/// <param name="ZoneId">The zone.</param>
/// <param name="C">Its air at each hour from the start, °C.</param>
/// <param name="Exposure">How long and how far it lies below zero until morning.</param>
/// <param name="HeaterWh">What its heater gives in each hour, Wh; empty: none.</param>
/// <param name="UntilMorningWh">What its heater gives until morning, Wh.</param>
public sealed record ZoneHours(string ZoneId, IReadOnlyList<double> C, Exposure Exposure, IReadOnlyList<double> HeaterWh, double UntilMorningWh);

/// <summary>A rung of the ladder through the night.</summary>
/// <param name="Rung">As the ladder has it.</param>
/// <param name="EarliestS">The earliest time of <see cref="Rung.AtS"/>, with every guess on its cold side, s; null: not then either.</param>
/// <param name="LatestS">The same on the warm side, s; null: not then.</param>
/// <param name="C">Its water at each hour, °C.</param>
/// <param name="Ice">Its ice fraction at each hour, 0..1.</param>
/// <param name="Exposure">How long and how far the air around it lies below zero until morning.</param>
/// <param name="Money">What the part costs that breaks, at the builder's prices; null: it does not, or no price is known.</param>
public sealed record RungHours(Rung Rung, double? EarliestS, double? LatestS, IReadOnlyList<double> C, IReadOnlyList<double> Ice, Exposure Exposure,
    double? Money);

/// <summary>A night hour by hour.</summary>
/// <param name="Verdict">Whether the rig survives it.</param>
/// <param name="StartHour">Hour of the day at which it starts.</param>
/// <param name="MorningS">Seconds from the start until morning.</param>
/// <param name="Weather">The weather at each hour from the start.</param>
/// <param name="Outdoors">How long and how far outdoors lies below zero until morning.</param>
/// <param name="Zones">Rooms, in the order of the shell.</param>
/// <param name="Rungs">All that holds water, the first to freeze leading; at most 400.</param>
/// <param name="Count">How many there are in all.</param>
/// <param name="HeatStopsS">Seconds from the start until all heating stops; null: it does not, or is off.</param>
/// <param name="HeatShort">Heating that is on but too weak, in words; empty: it is enough, or off.</param>
/// <param name="KeptC">The living space's temperature until the start, °C: as given, or its heater's set point.</param>
public sealed record NightHoursAnswer(
    Verdict Verdict,
    double StartHour,
    double MorningS,
    IReadOnlyList<WeatherHour> Weather,
    Exposure Outdoors,
    IReadOnlyList<ZoneHours> Zones,
    IReadOnlyList<RungHours> Rungs,
    int Count,
    double? HeatStopsS,
    IReadOnlyList<Sentence> HeatShort,
    double KeptC);

/// <summary>The night hour by hour: weather, rooms, and what freezes when, with how far to trust it.</summary>
public static class NightStudy
{
    private const int MostRungs = 400;
    private const double Never = double.PositiveInfinity;

    /// <summary>
    /// The night of <see cref="RigNight"/> and two more, with losses and heat capacities that are guessed all on the cold side and all on the warm side. Pure.
    /// O(three nights).
    /// </summary>
    public static NightHoursAnswer Ask(Question question)
    {
        var night = question.Ask(RigNight.Of);
        var ladder = question.Ask(FreezeLadderStudy.Ask);
        var (cold, warm) = (RigNight.Of(question, Uncertainty.Pessimistic), RigNight.Of(question, Uncertainty.Optimistic));
        int[] hours = [.. night.HourReports()];
        Exposure Until(Func<int, double> celsius) => Exposure.Of(Enumerable.Range(0, night.Morning + 1).Select(r => (night.Answer.ReportS[r], celsius(r))));
        var number = night.Numbers();
        var zones = question.Rig.Shell.Zones.Select(z => new ZoneHours(
            z.Id, [.. hours.Select(h => Math.Round(night.AirC(z, h), 2))], Until(r => night.AirC(z, r)), [.. night.HeaterWh(z).Select(w => Math.Round(w, 1))],
            Math.Round(night.UntilMorningWh(z), 1))).ToList();
        var rungs = ladder.Rungs.Take(MostRungs).Select(r =>
        {
            int n = number[r.Id];
            // What shuts a line in may come sooner or later than its ice: the side that is worse for it is the earlier one.
            double At(RigNight side, int of) => r.Breaks ? side.BreaksS(of) : side.Marks(of).FirstIceS;
            return new RungHours(
                r, Finite(Math.Min(At(cold, n), r.AtS ?? Never)), Finite(Math.Max(At(warm, n), r.AtS ?? 0)),
                [.. hours.Select(h => Math.Round(night.WaterC(h, n), 2))], [.. hours.Select(h => Math.Round(night.Ice(h, n), 3))],
                Until(r => night.AirC(night.Candidates[n].Zone, r)), r is { Breaks: true, PartId: { } part }
                ? question.Rig.Prices.OfPart(question.Index.Part(part).Stock) : null);
        }).ToList();
        double? stops = NightCourse.HeatStopsS(question.Rig, question.Conditions, night.Answer.ReportS[^1]);
        return new NightHoursAnswer(
            ladder.Verdict, question.Conditions.StartHour, night.MorningS, [.. hours.Select(night.WeatherAt)], Until(r => night.AirC(null, r)), zones, rungs,
            ladder.Count, stops, [.. question.Ask(ShortHeat.Of).Heaters.Select(h => h.Words)], question.Conditions.KeptC(question.Rig));
    }

    private static double? Finite(double value) => double.IsFinite(value) ? value : null;
}
