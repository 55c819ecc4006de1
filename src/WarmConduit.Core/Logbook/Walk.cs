using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.LayUp;

namespace WarmConduit.Core.Logbook;

/// <summary>What happens on a walk-through.</summary>
public enum WalkActKind
{
    /// <summary>A step was done.</summary>
    Done,

    /// <summary>A step was skipped, with a reason.</summary>
    Skipped,

    /// <summary>A step was not done after all.</summary>
    Reopened,

    /// <summary>The timer of a step was started.</summary>
    Timer,

    /// <summary>A jug was read under a step.</summary>
    Measured,

    /// <summary>The walk-through is over.</summary>
    Ended,
}

/// <summary>One thing that happened on a walk-through. Never changed once written.</summary>
/// <param name="Id">Its id, made by the device: sent again, it is the same act.</param>
/// <param name="Kind">What happened.</param>
/// <param name="At">When.</param>
/// <param name="StepId">The step; left out for the end.</param>
/// <param name="Who">Who did it, up to 60 characters; left out: not said.</param>
/// <param name="Litres">What the jug took, L, 0 to 10,000; for a reading only.</param>
/// <param name="Reason">Why it was skipped, 1 to 300 characters; for that only.</param>
public sealed record WalkAct(
    string Id, WalkActKind Kind, DateTimeOffset At, string? StepId = null, string? Who = null, double? Litres = null, string? Reason = null)
{
    /// <summary>Acts of one walk-through at the most.</summary>
    public const int Most = 5000;

    /// <summary>What is out of range or missing, by field.</summary>
    public IReadOnlyList<RigFault> Check(ProcedureAnswer procedure) => FieldChecker.Of(c =>
    {
        c.Id("id", Id);
        if (!Enum.IsDefined(Kind)) c.Add("kind", "this is not known");
        if (Kind == WalkActKind.Ended ? StepId is not null : procedure.Steps.All(s => s.Id != StepId)) c.Add("stepId", $"there is no step '{StepId}'");
        if (Who?.Length > LogEntry.MostWho) c.Add("who", $"it is longer than {LogEntry.MostWho} characters");
        if (Kind == WalkActKind.Measured && Litres is null) c.Add("litres", "a volume belongs here");
        if (Kind != WalkActKind.Measured && Litres is not null) c.Add("litres", "only a reading has it");
        if (Litres is { } litres) c.Range("litres", litres, "left.outL");
        if (Kind == WalkActKind.Skipped && (string.IsNullOrWhiteSpace(Reason) || Reason.Length > 300)) c.Add("reason", "write 1 to 300 characters");
        if (Kind != WalkActKind.Skipped && Reason is not null) c.Add("reason", "only a skipped step has it");
    });
}

/// <summary>How a step stands.</summary>
public enum StepStand
{
    /// <summary>It is still to do.</summary>
    Open,

    /// <summary>It was done.</summary>
    Done,

    /// <summary>It was skipped.</summary>
    Skipped,
}

/// <summary>How a step of a walk-through stands.</summary>
/// <param name="StepId">The step.</param>
/// <param name="Stand">How it stands.</param>
/// <param name="At">Since when; null: it is open.</param>
/// <param name="Who">Who said so; null: not said.</param>
/// <param name="Reason">Why it was skipped; null: it was not.</param>
/// <param name="Litres">What the jug took, L; null: not measured.</param>
/// <param name="TimerAt">When its timer was started; null: it was not.</param>
public sealed record WalkStep(string StepId, StepStand Stand, DateTimeOffset? At, string? Who, string? Reason, double? Litres, DateTimeOffset? TimerAt);

/// <summary>A procedure as it is walked through: it goes on as it was begun, whatever is drawn meanwhile.</summary>
/// <param name="Id">Its id.</param>
/// <param name="RigId">The rig.</param>
/// <param name="Revision">The revision of the rig that it was made from.</param>
/// <param name="StartedAt">When it was begun.</param>
/// <param name="Who">Who began it; null: not said.</param>
/// <param name="OutdoorC">Temperature outdoors then, °C; null: not known.</param>
/// <param name="Conditions">The night and the parking that it was made for.</param>
/// <param name="Procedure">The procedure.</param>
/// <param name="Acts">What happened, in the order in which it counted.</param>
public sealed record Walk(
    string Id, string RigId, int Revision, DateTimeOffset StartedAt, string? Who, double? OutdoorC, Conditions Conditions, ProcedureAnswer Procedure,
    IReadOnlyList<WalkAct> Acts)
{
    /// <summary>The longest id, so that what a rig remembers of its steps has one too.</summary>
    public const int MostId = 40;

    /// <summary>What is out of range of one that is to begin, by field.</summary>
    public static IReadOnlyList<RigFault> Check(string id, string? who, double? outdoorC) => FieldChecker.Of(c =>
    {
        c.Id("id", id);
        if (id.Length > MostId) c.Add("id", $"at most {MostId} characters");
        if (who?.Length > LogEntry.MostWho) c.Add("who", $"it is longer than {LogEntry.MostWho} characters");
        if (outdoorC is { } outdoors) c.Range("outdoorC", outdoors, "log.outdoorC");
    });

    /// <summary>When it was ended; null: it goes on.</summary>
    public DateTimeOffset? EndedAt => Acts.FirstOrDefault(a => a.Kind == WalkActKind.Ended)?.At;

    /// <summary>
    /// The earlier act that makes <paramref name="act"/> count for nothing: of two devices that say one thing of a step, the first wins. Null: it counts.
    /// </summary>
    public WalkAct? Before(WalkAct act)
    {
        if (Acts.FirstOrDefault(a => a.Kind == WalkActKind.Ended) is { } ended) return ended;
        var of = Acts.Where(a => a.StepId == act.StepId).ToList();
        var last = of.LastOrDefault(a => a.Kind is WalkActKind.Done or WalkActKind.Skipped or WalkActKind.Reopened);
        bool closed = last is { Kind: not WalkActKind.Reopened };
        return act.Kind switch
        {
            WalkActKind.Done or WalkActKind.Skipped => closed ? last : null,
            WalkActKind.Reopened => closed ? null : last ?? act,
            WalkActKind.Timer => of.LastOrDefault(a => a.Kind is WalkActKind.Timer or WalkActKind.Reopened) is { Kind: WalkActKind.Timer } running ? running
                : null,
            _ => null,
        };
    }

    /// <summary>How every step stands. O(acts).</summary>
    public IReadOnlyList<WalkStep> Steps()
    {
        var stands = Procedure.Steps.ToDictionary(s => s.Id, s => new WalkStep(s.Id, StepStand.Open, null, null, null, null, null));
        foreach (var act in Acts)
        {
            if (act.StepId is null || !stands.TryGetValue(act.StepId, out var was)) continue;
            stands[act.StepId] = act.Kind switch
            {
                WalkActKind.Done => was with { Stand = StepStand.Done, At = act.At, Who = act.Who, Reason = null },
                WalkActKind.Skipped => was with { Stand = StepStand.Skipped, At = act.At, Who = act.Who, Reason = act.Reason },
                WalkActKind.Reopened => was with { Stand = StepStand.Open, At = null, Who = null, Reason = null, TimerAt = null },
                WalkActKind.Timer => was with { TimerAt = act.At },
                WalkActKind.Measured => was with { Litres = act.Litres },
                _ => was,
            };
        }
        return [.. Procedure.Steps.Select(s => stands[s.Id])];
    }
}
