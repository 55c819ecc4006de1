using WarmConduit.Core.Heat.Night;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Heating;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.Night;

/// <summary>What heat takes of one thing in the winters drawn.</summary>
/// <param name="Kind">Of what.</param>
/// <param name="ADayByWeek">A day, by week, averaged: Wh of battery and mains, L of fuel.</param>
/// <param name="AWinter">In a whole winter, averaged.</param>
/// <param name="Has">What the brief gives; null: nothing is said.</param>
/// <param name="LeastDays">How long that lasts at the worst time of the worst winter, days; null: all winter, or nothing is said.</param>
/// <param name="Words">In words.</param>
public sealed record SeasonEnergy(
    EnergyKind Kind, IReadOnlyList<double> ADayByWeek, double AWinter, double? Has, double? LeastDays, Sentence Words);

/// <summary>Tells what a winter's heat takes.</summary>
internal static class SeasonMeter
{
    private const int HoursADay = 24, DaysAWeek = 7;

    /// <summary>A winter by the hour. Pure; on any thread. O(parts · hours).</summary>
    public static MeteredHours Of(EnergyMeter meter, Rig rig, NightAnswer answer, LaidCircuits laid, NightSegment winter)
    {
        int reports = answer.ReportS.Count;
        var heat = new HeatCourse(rig, reports, winter.ToS);
        heat.Take(answer, laid, r => r, winter);
        return meter.Sum(heat, h => heat.Moments[Math.Min(h * reports / heat.Hours, reports - 1)],
            z => answer.Energy.FirstOrDefault(e => e.Owner == RigNetwork.IdOf(z.Id))?.WhByHour ?? []);
    }

    /// <summary>The winters together.</summary>
    public static IEnumerable<SeasonEnergy> Told(Rig rig, IReadOnlyList<MeteredHours> winters)
    {
        foreach (var kind in Enum.GetValues<EnergyKind>())
        {
            var told = winters.Select(w => w.Kinds(rig.Brief.Chosen()).FirstOrDefault(k => k.Kind == kind)).Where(k => k.ByHour is not null).ToList();
            if (told.Count == 0 || told.All(k => k.ByHour.All(v => v <= 0))) continue;
            var days = told.Select(k => k.ByHour.Chunk(HoursADay).Select(d => d.Sum()).ToArray()).ToList();
            double[] weeks = [.. Enumerable.Range(0, days[0].Length / DaysAWeek)
                .Select(w => days.Sum(d => d.Skip(w * DaysAWeek).Take(DaysAWeek).Average()) / winters.Count)];
            double winter = days.Sum(d => d.Sum()) / winters.Count;
            var (measure, name, has) = (told[0].Measure, told[0].Name, told[0].Has is > 0 and var given ? given : (double?)null);
            double? least = has is null ? null : days.Min(d => LeastDays(d, has.Value)) is var n && double.IsFinite(n) ? n : null;
            var words = Sentence.Of($"{measure(winter)} of {name} a winter, and {measure(weeks.Max())} a day in the week that takes most.");
            if (has is not null)
                words = words.And(least is { } lasts
                    ? Sentence.Of($" The {measure(has)} of the brief last {Measure.Duration(lasts * 86_400)} at the worst time.")
                    : Sentence.Of($" The {measure(has)} of the brief last all winter."));
            yield return new SeasonEnergy(kind, weeks, winter, has, least, words);
        }
    }

    /// <summary>From whatever day on, the soonest that so much is used up, in days and parts of one; infinite: never.</summary>
    internal static double LeastDays(IReadOnlyList<double> days, double has)
    {
        double least = double.PositiveInfinity, sum = 0;
        int from = 0;
        // The shortest stretch that takes so much, by its two ends.
        for (int to = 0; to < days.Count; to++)
        {
            sum += days[to];
            while (sum - days[from] >= has && from < to) sum -= days[from++];
            // Used up in the course of this day, and not before.
            if (sum >= has && sum - days[to] < has) least = Math.Min(least, to - from + 1 - ((sum - has) / days[to]));
        }
        return least;
    }
}
