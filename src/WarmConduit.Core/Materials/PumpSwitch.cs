namespace WarmConduit.Core.Materials;

/// <summary>What switches the pump of a loop.</summary>
public enum PumpSwitchKind
{
    /// <summary>The clock, at the same times of every day.</summary>
    Timer,

    /// <summary>A hand on a button: each press runs it for a while.</summary>
    Button,
}

/// <summary>A time of every day.</summary>
/// <param name="FromHour">Hour of the day at which it starts, 0 to 24.</param>
/// <param name="UntilHour">Hour at which it ends, 0 to 24: of the next day where that is no later; the same hour: all day.</param>
public sealed record DailyTime(double FromHour, double UntilHour)
{
    /// <summary>How long it is, h.</summary>
    internal double Hours => UntilHour > FromHour ? UntilHour - FromHour : UntilHour - FromHour + 24;
}

/// <summary>What switches the pump of a loop, which rests in between.</summary>
/// <param name="Kind">A timer or a button.</param>
/// <param name="Times">When a timer lets the pump run, 1 to 6 times of the day; left out: all day.</param>
/// <param name="ForS">How long it runs at a time, s, 30 to 86,400: after a press, or from the start of each <paramref name="EveryS"/> of a timer's
/// times; left out: through them.</param>
/// <param name="EveryS">How often it runs in a timer's times, s, 60 to 86,400, and longer than <paramref name="ForS"/>; left out: through them.</param>
public sealed record PumpSwitch(PumpSwitchKind Kind, IReadOnlyList<DailyTime>? Times = null, double? ForS = null, double? EveryS = null)
{
    /// <summary>Times of the day at the most.</summary>
    public const int MostTimes = 6;

    /// <summary>A timer as it is put on: twenty minutes of every hour, day and night. Estimate.</summary>
    public static readonly PumpSwitch UsualTimer = new(PumpSwitchKind.Timer, ForS: 1200, EveryS: 3600);

    /// <summary>A button as it is put on: a quarter of an hour for each press. Estimate.</summary>
    public static readonly PumpSwitch UsualButton = new(PumpSwitchKind.Button, ForS: 900);
}
