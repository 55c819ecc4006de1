using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Weather;

namespace WarmConduit.Core.Studies.Night;

/// <summary>A room through the night.</summary>
/// <param name="ZoneId">The zone.</param>
/// <param name="C">Its air at each hour from the start, °C.</param>
/// <param name="Exposure">How long and how far it lies below zero until morning.</param>
/// <param name="HeaterWh">What its heater gives in each hour, Wh; empty: none.</param>
public sealed record ZoneHours(string ZoneId, IReadOnlyList<double> C, Exposure Exposure, IReadOnlyList<double> HeaterWh);

/// <summary>A rung of the ladder through the night.</summary>
/// <param name="Rung">As the ladder has it.</param>
/// <param name="EarliestS">First ice with all that is guessed on the cold side, s; null: not then either.</param>
/// <param name="LatestS">First ice with all that is guessed on the warm side, s; null: not then.</param>
/// <param name="C">Its water at each hour, °C.</param>
/// <param name="Ice">Its ice fraction at each hour, 0..1.</param>
/// <param name="Exposure">How long and how far the air around it lies below zero until morning.</param>
/// <param name="Money">What the part costs that breaks, at the builder's prices; null: it does not, or no price is known.</param>
public sealed record RungHours(Rung Rung, double? EarliestS, double? LatestS, IReadOnlyList<double> C, IReadOnlyList<double> Ice, Exposure Exposure, double? Money);

/// <summary>A night hour by hour.</summary>
/// <param name="Verdict">Whether the rig stands it.</param>
/// <param name="StartHour">Hour of the day at which it starts.</param>
/// <param name="MorningS">Seconds from the start until morning.</param>
/// <param name="Weather">The weather at each hour from the start.</param>
/// <param name="Outdoors">How long and how far outdoors lies below zero until morning.</param>
/// <param name="Zones">Rooms, in the order of the shell.</param>
/// <param name="Rungs">All that holds water, soonest ice first; at most 400 of them.</param>
/// <param name="Count">How many there are in all.</param>
/// <param name="HeatStopsS">Seconds from the start until all heat stops; null: it does not, or is off.</param>
public sealed record NightHoursAnswer(
    Verdict Verdict,
    double StartHour,
    double MorningS,
    IReadOnlyList<WeatherHour> Weather,
    Exposure Outdoors,
    IReadOnlyList<ZoneHours> Zones,
    IReadOnlyList<RungHours> Rungs,
    int Count,
    double? HeatStopsS);

/// <summary>The night hour by hour: weather, rooms, and what freezes when, with how far to trust it.</summary>
public static class NightStudy
{
    private const int MostRungs = 400;

    /// <summary>
    /// The night of <see cref="RigNight"/> and two more, with losses and heat capacities that are guessed all on the cold side and all on the warm side. Pure. O(three nights).
    /// </summary>
    public static NightHoursAnswer Ask(Question question)
    {
        var night = question.Ask(RigNight.Of);
        var ladder = question.Ask(FreezeLadderStudy.Ask);
        var (cold, warm) = (RigNight.Of(question, Doubt.Cold), RigNight.Of(question, Doubt.Warm));
        int[] hours = [.. night.HourReports()];
        int[] dark = [.. hours.Where(r => night.Answer.ReportS[r] <= night.MorningS)];
        var number = night.Numbers();
        var zones = question.Rig.Shell.Zones.Select(z => new ZoneHours(
            z.Id, [.. hours.Select(h => Math.Round(night.AirC(z, h), 2))], Exposure.Of(dark.Select(h => night.AirC(z, h))), [.. night.HeaterWh(z).Select(w => Math.Round(w, 1))])).ToList();
        var rungs = ladder.Rungs.Take(MostRungs).Select(r =>
        {
            int n = number[r.Id];
            return new RungHours(
                r, Finite(cold.Marks(n).FirstIceS), Finite(warm.Marks(n).FirstIceS),
                [.. hours.Select(h => Math.Round(night.WaterC(h, n), 2))], [.. hours.Select(h => Math.Round(night.Ice(h, n), 3))], Exposure.Of(dark.Select(h => night.AirC(night.Freezers[n].Zone, h))), r is { Breaks: true, PartId: { } part } ? question.Rig.Prices.OfPart(question.Index.Part(part).Stock) : null);
        }).ToList();
        double? stops = NightCourse.HeatStopsS(question.Rig, question.Conditions, night.Answer.ReportS[^1]);
        return new NightHoursAnswer(
            ladder.Verdict, question.Conditions.StartHour, night.MorningS, [.. hours.Select(night.WeatherAt)], Exposure.Of(dark.Select(h => night.AirC(null, h))), zones, rungs, ladder.Count, stops);
    }

    private static double? Finite(double value) => double.IsFinite(value) ? value : null;
}
