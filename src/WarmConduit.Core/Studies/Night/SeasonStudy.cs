using WarmConduit.Core.Heat.Night;
using WarmConduit.Core.Numerics;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Heating;
using WarmConduit.Core.Weather;

namespace WarmConduit.Core.Studies.Night;

/// <summary>Which winters.</summary>
/// <param name="Place">Their place.</param>
/// <param name="Winters">How many are drawn, 1 to 100.</param>
public sealed record SeasonInput(WeatherPlace Place = WeatherPlace.KettleFell, int Winters = 10) : IStudyInput
{
    /// <inheritdoc/>
    public IReadOnlyList<RigFault> Check(Rig rig) => FieldChecker.Of(c => c.Range("winters", Winters, 1, SeasonStudy.Most, ""));
}

/// <summary>A week of the winter, averaged over all winters drawn.</summary>
/// <param name="Week">From 0 (1 October).</param>
/// <param name="IceNights">Nights in which something has ice, 0..7.</param>
/// <param name="BreakNights">Nights in which ice breaks something.</param>
public sealed record WeekRisk(int Week, double IceNights, double BreakNights);

/// <summary>A thing that freezes.</summary>
/// <param name="Name">In the builder's words.</param>
/// <param name="Nights">Nights a winter in which it has ice, on average.</param>
/// <param name="Breaks">Ice breaks it.</param>
public sealed record SeasonLeader(string Name, double Nights, bool Breaks);

/// <summary>A rig through many winters of a place, left as this night leaves it.</summary>
/// <param name="Place">The place.</param>
/// <param name="Winters">How many were drawn.</param>
/// <param name="Weeks">26 weeks.</param>
/// <param name="WintersThatBreak">In how many of them ice breaks something at all.</param>
/// <param name="Leaders">What has ice most often; at most five.</param>
/// <param name="Energy">What heat takes; empty: heat is off.</param>
public sealed record SeasonAnswer(
    WeatherPlace Place, int Winters, IReadOnlyList<WeekRisk> Weeks, int WintersThatBreak, IReadOnlyList<SeasonLeader> Leaders,
    IReadOnlyList<SeasonEnergy> Energy);

/// <summary>Season risk: seeded winters, hour by hour.</summary>
public static class SeasonStudy
{
    /// <summary>Winters at the most.</summary>
    public const int Most = 100;

    private const int Weeks = 26, ReportsADay = 12;
    private const double Blocked = 0.1;
    private const double DayS = 86_400, StepS = 3600, StartHour = 12;

    /// <summary>
    /// The rig stands from noon of 1 October on as it was left, with its heat on or off.
    /// Pure; on all cores but one. O(winters · hours · bodies).
    /// </summary>
    public static SeasonAnswer Ask(Question question, SeasonInput input)
    {
        var (place, winters) = input;
        var night = question.Conditions.Happening(null) with { Weather = null, StartHour = StartHour };
        var asked = question.With(night);
        var candidates = FreezeLadderStudy.Candidates(asked).ToList();
        const int days = Weeks * 7;
        // Laid once: a question is for one thread at a time.
        var course = Course(asked, days);
        var laid = LaidCircuits.Of(asked, candidates, course, Uncertainty.None);
        var meter = new EnergyMeter(asked);
        var (found, used) = (new Winter[winters], new MeteredHours[winters]);
        int done = 0;
        Parallel.For(0, winters, CoreUse.Some(question.Cancel), w =>
        {
            var answer = Drawn(asked, candidates, laid, new WeatherChoice(place, w + 1), days, out int[] bodyOf);
            used[w] = SeasonMeter.Of(meter, asked.Rig, answer, laid, course);
            found[w] = Nights(asked, answer, candidates, bodyOf, days);
            question.GoOn(Interlocked.Increment(ref done), winters);
        });
        double Mean(Func<Winter, double> of) => found.Average(of);
        return new SeasonAnswer(
            place, winters,
            [.. Enumerable.Range(0, Weeks).Select(week => new WeekRisk(week, Mean(f => f.Ice[week]), Mean(f => f.Breaks[week])))],
            found.Count(f => f.Breaks.Any(n => n > 0)),
            [.. candidates.Select((f, n) => new SeasonLeader(f.Name, Mean(w => w.Nights[n]), found.Any(w => w.Broke[n]))).Where(l => l.Nights > 0)
            .OrderByDescending(l => l.Breaks).ThenByDescending(l => l.Nights).Take(5)], [.. SeasonMeter.Told(question.Rig, used)]);
    }

    /// <summary>So many days of one winter from noon of 1 October on, told twelve times a day; of a question without events.</summary>
    internal static NightAnswer Drawn(Question asked, IReadOnlyList<FreezeCandidate> candidates, LaidCircuits laid, WeatherChoice winter, int days,
        out int[] bodyOf)
    {
        var options = new NightOptions(StepS, 60, [.. Enumerable.Range(1, days * ReportsADay).Select(n => n * DayS / ReportsADay)]);
        return NightEngine.Run(RigNetwork.Of(asked, candidates, winter.From(StartHour, days * 24), Course(asked, days), Uncertainty.None, laid, out bodyOf),
            options, asked.Cancel);
    }

    /// <summary>So many days in which nothing happens but the weather.</summary>
    internal static NightSegment Course(Question asked, int days) => NightCourse.Of(asked.Conditions, days * DayS)[0];

    // By week: nights with ice, and with ice that breaks something; by what freezes: its nights with ice, and whether it broke.
    private sealed record Winter(int[] Ice, int[] Breaks, int[] Nights, bool[] Broke);

    // A night is noon to noon; it counts where there is ice in any of its hours, and breaks what a single night breaks.
    private static Winter Nights(Question asked, NightAnswer answer, List<FreezeCandidate> candidates, int[] bodyOf, int days)
    {
        var winter = new Winter(new int[Weeks], new int[Weeks], new int[candidates.Count], new bool[candidates.Count]);
        for (int day = 0; day < days; day++)
        {
            var marks = Enumerable.Range(0, answer.Milestones.Length).Select(b => OfDay(answer, b, day)).ToArray();
            if (marks.All(m => double.IsInfinity(m.FirstIceS))) continue;
            winter.Ice[day / 7]++;
            double[] breaks = ShutIce.Breaks(asked, candidates, n => marks[bodyOf[n]]);
            if (breaks.Any(double.IsFinite)) winter.Breaks[day / 7]++;
            for (int n = 0; n < candidates.Count; n++)
            {
                if (double.IsFinite(marks[bodyOf[n]].FirstIceS)) winter.Nights[n]++;
                winter.Broke[n] |= double.IsFinite(breaks[n]);
            }
        }
        return winter;
    }

    // Milestones of a body within one day, at the times of the reports.
    private static BodyMilestones OfDay(NightAnswer answer, int body, int day)
    {
        double When(double ice)
        {
            for (int r = day * ReportsADay; r < (day + 1) * ReportsADay; r++)
                if (answer.IceFraction[r, body] >= ice) return answer.ReportS[r];
            return double.PositiveInfinity;
        }
        return new BodyMilestones(When(double.Epsilon), When(Blocked), When(1), double.PositiveInfinity, 0, 0);
    }
}
