using WarmConduit.Core.Heat.Night;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.Night;

/// <summary>When the switches of pumps let them run.</summary>
internal static class PumpHours
{
    private const double HourS = 3600, DayS = 86_400;

    /// <summary>
    /// The windows of <paramref name="pump"/> from <paramref name="fromS"/> (may be before the night) to <paramref name="endS"/>, s from the night's start, in
    /// order and apart; without a switch: always. O(windows).
    /// </summary>
    public static IReadOnlyList<NightWindow> Of(Part pump, Conditions night, double fromS, double endS) => pump.Heats().Switch switch
    {
        null => [NightWindow.Always],
        { Kind: PumpSwitchKind.Timer } timer => Joined(Daily(timer, night.StartHour * HourS, fromS, endS), fromS, endS),
        { ForS: var forS } => Joined((night.Events ?? []).Where(e => Presses(e, pump.Id))
            .Select(e => new NightWindow(e.AtH * HourS, (e.AtH * HourS) + (forS ?? 0))), fromS, endS),
    };

    /// <summary>By hour, the last second in it of each run of a pump that is switched, s; between full hours.</summary>
    public static IEnumerable<double> Ends(Rig rig, Conditions night, double endS) =>
        from pump in rig.Parts.Where(p => p.Heats().Switch is not null)
        from window in Of(pump, night, 0, endS)
        from hour in Enumerable.Range((int)(window.FromS / HourS), (int)Math.Ceiling(window.ToS / HourS) - (int)(window.FromS / HourS))
        let at = Math.Min(window.ToS, (hour + 1) * HourS) - 1
        where at > Math.Max(window.FromS, hour * HourS)
        select at;

    /// <summary>How long a timer lets a pump run in a day, s.</summary>
    public static double ADayS(PumpSwitch timer) => Joined(Daily(timer, 0, 0, DayS), 0, DayS).Sum(w => w.ToS - w.FromS);

    /// <summary>Whether an event presses the button of a pump.</summary>
    public static bool Presses(PlanEvent e, string pump) => e.Kind == PlanEventKind.PumpPressed && (e.PartId is null || e.PartId == pump);

    // Day by day, from the day before: its times may go on past midnight.
    private static IEnumerable<NightWindow> Daily(PumpSwitch timer, double startS, double fromS, double endS)
    {
        for (double day = Math.Floor((startS + fromS) / DayS) - 1; day * DayS < startS + endS; day++)
            foreach (var time in timer.Times ?? [new DailyTime(0, 0)])
            {
                double open = (day * DayS) + (time.FromHour * HourS) - startS, shut = open + (time.Hours * HourS);
                if (timer is not { ForS: { } forS, EveryS: { } everyS })
                    yield return new NightWindow(open, shut);
                else
                    for (double at = open; at < shut; at += everyS) yield return new NightWindow(at, Math.Min(shut, at + forS));
            }
    }

    private static List<NightWindow> Joined(IEnumerable<NightWindow> windows, double fromS, double endS)
    {
        var joined = new List<NightWindow>();
        foreach (var window in windows.Where(w => w.ToS > fromS && w.FromS < endS).OrderBy(w => w.FromS))
        {
            var (from, to) = (Math.Max(window.FromS, fromS), Math.Min(window.ToS, endS));
            if (joined.Count > 0 && from <= joined[^1].ToS) joined[^1] = joined[^1] with { ToS = Math.Max(joined[^1].ToS, to) };
            else joined.Add(new NightWindow(from, to));
        }
        return joined;
    }
}
