using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Left;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.LayUp;

/// <summary>A procedure that can be asked for.</summary>
/// <param name="Kind">Which.</param>
/// <param name="Name">Its name.</param>
public sealed record ProcedureName(ProcedureKind Kind, string Name);

/// <summary>Something that the rig remembers of a step: how its water system was left.</summary>
/// <param name="Kind">What was done.</param>
/// <param name="Thing">To what: <c>parts/drain-a</c>, <c>runs/main</c>; null for a filling.</param>
/// <param name="Glycol">Propylene glycol in its water, share of the volume; null: none.</param>
/// <param name="Film">Water that air left in it, share of its bore; null: it was not blown out.</param>
public sealed record StepMark(LeftActKind Kind, string? Thing = null, double? Glycol = null, double? Film = null);

/// <summary>One step of a procedure.</summary>
/// <param name="Id">Its id within the procedure.</param>
/// <param name="Words">What to do.</param>
/// <param name="PartIds">The parts that are handled.</param>
/// <param name="Settings">Positions to leave them in.</param>
/// <param name="OutL">Water that comes out, L; null: none is expected or counted.</param>
/// <param name="InL">Fluid that goes in, L; null: none.</param>
/// <param name="ShortestS">How long it takes, s; null: no time to keep.</param>
/// <param name="LongestS">At most, s.</param>
/// <param name="Waits">The time is a wait: a timer runs.</param>
/// <param name="Reach">How the place is reached; null: no access is drawn.</param>
/// <param name="Wrong">What can go wrong; null: nothing worth a word.</param>
/// <param name="Caution">A caution where it can hurt someone; null: none.</param>
/// <param name="Marks">What the rig remembers once it is done.</param>
public sealed record ProcedureStep(
    string Id, Sentence Words, IReadOnlyList<string> PartIds, IReadOnlyList<Setting> Settings, double? OutL, double? InL, double? ShortestS, double? LongestS,
    bool Waits, string? Reach, Sentence? Wrong, string? Caution, IReadOnlyList<StepMark> Marks)
{
    /// <summary>How much more or less than <see cref="OutL"/> a jug may show and still agree, L; null: nothing is expected.</summary>
    public double? GiveOrTakeL => OutL is { } litres ? JugReading.Of(Id, litres, litres).FinestL : null;
}

/// <summary>How a valve, drain, cap or switch stands at the end.</summary>
/// <param name="Id">The part.</param>
/// <param name="Position">Its position.</param>
/// <param name="InUse">The position that it goes back to before the rig is used again; null: it stays, or nothing is known of it in use.</param>
public sealed record EndPosition(string Id, string Position, string? InUse);

/// <summary>A procedure made from this rig. Litres and times are estimates.</summary>
/// <param name="Kind">Which.</param>
/// <param name="Name">Its name.</param>
/// <param name="Tools">What to have at hand.</param>
/// <param name="Supplies">What is used up.</param>
/// <param name="Steps">Steps in walking order.</param>
/// <param name="Ends">How every valve, drain, cap and switch stands at the end.</param>
/// <param name="ShortestS">How long it takes, without waits, s.</param>
/// <param name="LongestS">At most, s.</param>
/// <param name="InL">Water in the rig before, L.</param>
/// <param name="OutL">What its steps let out, L.</param>
/// <param name="StaysL">What is left, L.</param>
/// <param name="FluidL">Antifreeze that it takes, L.</param>
/// <param name="All">Every procedure there is.</param>
public sealed record ProcedureAnswer(
    ProcedureKind Kind, string Name, IReadOnlyList<string> Tools, IReadOnlyList<Sentence> Supplies, IReadOnlyList<ProcedureStep> Steps,
    IReadOnlyList<EndPosition> Ends, double ShortestS, double LongestS, double InL, double OutL, double StaysL, double FluidL,
    IReadOnlyList<ProcedureName> All)
{
    /// <summary>What the rig remembers once every step of it is done.</summary>
    internal IReadOnlyList<LeftAct> Acts()
    {
        var at = DateTimeOffset.UnixEpoch;
        return [new LeftAct("full", LeftActKind.Filled, at), .. Steps.SelectMany(s => s.Marks)
            .Select((m, i) => new LeftAct($"mark-{i}", m.Kind, at.AddSeconds(1 + i), m.Thing, null, m.Glycol, m.Film))];
    }
}
