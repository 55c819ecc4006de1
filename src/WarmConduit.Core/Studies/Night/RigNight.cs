using WarmConduit.Core.Heat.Night;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Weather;

namespace WarmConduit.Core.Studies.Night;

/// <summary>
/// A rig through its night: rooms and all that holds water, from the evening on, as they were left. Rooms with a heater and living space start as warm as they
/// were kept, the others from that evening's balance (<see cref="ZoneBalance.Kept"/>); water starts as it was left.
/// </summary>
internal sealed class RigNight
{
    private const double HourS = 3600, LeastAfterH = 12;

    private RigNight(Question question, IReadOnlyList<FreezeCandidate> candidates, int[] bodyOf, IReadOnlyList<WeatherHour> weather, NightAnswer answer,
        HeatCourse heat, double morningS) =>
        (Heat, Candidates, _bodyOf, Weather, Answer, MorningS, Rig, Asked, _zones, _breaks, Morning) = (
            heat, candidates, bodyOf, weather, answer, morningS, question.Rig, question.Conditions,
            question.Rig.Shell.Zones.Select((z, i) => (z.Id, i)).ToDictionary(z => z.Id, z => z.i),
            new Lazy<double[]>(() => ShutIce.Breaks(question, candidates, n => answer.Milestones[bodyOf[n]])), answer.ReportS.ToList().IndexOf(morningS));

    private readonly Dictionary<string, int> _zones;
    private readonly int[] _bodyOf;
    private readonly Lazy<double[]> _breaks;

    public Rig Rig { get; }

    /// <summary>The night that was asked about.</summary>
    public Conditions Asked { get; }

    /// <summary>All that could freeze.</summary>
    public IReadOnlyList<FreezeCandidate> Candidates { get; }

    /// <summary>The weather, one value an hour from the start; one value: the same all the time.</summary>
    public IReadOnlyList<WeatherHour> Weather { get; }

    public NightAnswer Answer { get; }

    /// <summary>What circuits and pads did.</summary>
    public HeatCourse Heat { get; }

    public double MorningS { get; }

    /// <summary>Number of the report in the morning.</summary>
    public int Morning { get; }

    /// <summary>When candidate number <paramref name="candidate"/> reaches what.</summary>
    public BodyMilestones Marks(int candidate) => Answer.Milestones[_bodyOf[candidate]];

    /// <summary>Its water at a report, °C.</summary>
    public double WaterC(int report, int candidate) => Answer.BodyC[report, _bodyOf[candidate]];

    /// <summary>Its ice fraction at a report, 0..1.</summary>
    public double Ice(int report, int candidate) => Answer.IceFraction[report, _bodyOf[candidate]];

    /// <summary>Air of a zone (null: outdoors) at a report, °C.</summary>
    public double AirC(Zone? zone, int report) => zone is null ? Weather.TemperatureAt(Answer.ReportS[report]) : Answer.ZoneC[report, _zones[zone.Id]];

    /// <summary>Numbers of the reports at full hours, from the start on.</summary>
    public IEnumerable<int> HourReports() => Enumerable.Range(0, Answer.ReportS.Count).Where(r => Answer.ReportS[r] % HourS == 0);

    /// <summary>The circuits at each full hour; where a pump that is switched rests then, at the end of its run in the hour after; null: it has none.</summary>
    public IReadOnlyList<HeatMoment?> HeatMoments() => [.. HourReports().Select(r => Heat.Moments[r] ?? Enumerable.Range(r, Answer.ReportS.Count - r)
        .TakeWhile(o => Answer.ReportS[o] < Answer.ReportS[r] + HourS).Select(o => Heat.Moments[o]).FirstOrDefault(m => m is not null))];

    /// <summary>Number of each candidate by the id of its rung.</summary>
    public Dictionary<string, int> Numbers() => Candidates.Select((f, n) => (f.Id, n)).ToDictionary(f => f.Id, f => f.n);

    /// <summary>Each zone in the morning, and what its heater gave in the hour before, W.</summary>
    public IReadOnlyList<ZoneAir> Zones()
    {
        int hour = Math.Max(0, (int)Math.Ceiling(MorningS / HourS) - 1);
        double Heater(Zone zone) => Answer.Energy.FirstOrDefault(e => e.Owner == RigNetwork.IdOf(zone.Id)) is { } energy && hour < energy.WhByHour.Count
            ? energy.WhByHour[hour] : 0;
        return [.. Rig.Shell.Zones.Select(z => new ZoneAir(z.Id, AirC(z, Morning), Heater(z)))];
    }

    /// <summary>Whether nothing that ice breaks has any by morning.</summary>
    public bool Stands() => FirstBreak().AtS >= MorningS;

    /// <summary>The weather at a report.</summary>
    public WeatherHour WeatherAt(int report) => Weather[Math.Min((int)(Answer.ReportS[report] / HourS), Weather.Count - 1)];

    /// <summary>What a zone's heater gives hour by hour, Wh; empty where it has none.</summary>
    public IReadOnlyList<double> HeaterWh(Zone zone) => Answer.Energy.FirstOrDefault(e => e.Owner == RigNetwork.IdOf(zone.Id))?.WhByHour ?? [];

    /// <summary>What a zone's heater gives until morning, Wh; of the hour that morning comes in, its share of it.</summary>
    public double UntilMorningWh(Zone zone) => UntilMorning(HeaterWh(zone));

    /// <summary>The sum of what is told hour by hour, until morning; of the hour that morning comes in, its share of it.</summary>
    public double UntilMorning(IReadOnlyList<double> byHour) => byHour.Select((v, hour) => v * Math.Clamp((MorningS / HourS) - hour, 0, 1)).Sum();

    /// <summary>Heat that all of it takes until morning, Wh: heaters of circuits and rooms, and pads.</summary>
    public double HeatWh() => Heat.PartWh.Sum(p => Math.Max(0, -UntilMorning(p.Value))) + Heat.PadWh.Sum(p => UntilMorning(p.Value))
        + Rig.Shell.Zones.Sum(UntilMorningWh);

    /// <summary>When ice first breaks something, s, and what; infinite and null: not by the end.</summary>
    public (double AtS, string? Name) FirstBreak() => First(BreaksS);

    /// <summary>When candidate number <paramref name="candidate"/> breaks, s; infinite: not by the end. What any ice breaks, and what freezes shut
    /// in.</summary>
    public double BreaksS(int candidate) => _breaks.Value[candidate];

    /// <summary>When anything first has ice, s, and what.</summary>
    public (double AtS, string? Name) FirstIce() => First(n => Marks(n).FirstIceS);

    private (double AtS, string? Name) First(Func<int, double> when)
    {
        var (at, name) = (double.PositiveInfinity, (string?)null);
        for (int n = 0; n < Candidates.Count; n++)
            if (when(n) is var then && then < at) (at, name) = (then, Candidates[n].Name);
        return (at, name);
    }

    /// <summary>The night asked about, once for a question. Throws <see cref="TooLargeException"/> as the cutting of runs does.</summary>
    public static RigNight Of(Question question) => Of(question, Uncertainty.None);

    /// <summary>The same with what is guessed on one side.</summary>
    public static RigNight Of(Question question, Uncertainty doubt)
    {
        var night = question.Conditions;
        double morningS = night.Hours * HourS, endS = Math.Max(night.Hours, LeastAfterH) * HourS;
        var weather = night.Weather?.From(night.StartHour, endS / HourS) ?? [new WeatherHour(night.OutdoorC, night.WindMPerS, night.Cloud)];
        double[] reports = [.. NightOptions.Every(HourS, endS).Append(morningS).Append(endS)
            .Concat(PumpHours.Ends(question.Rig, night, endS)).Distinct().Order()];
        var run = new NightSegments(question, weather, reports, endS, doubt).Run();
        return new RigNight(question, run.Candidates, run.BodyOf, weather, run.Answer, run.Heat, morningS);
    }
}
