using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;

namespace WarmConduit.Core.Advice.Fixes;

/// <summary>Edits to try before they are done.</summary>
/// <param name="Edits">The edits, at most 1000.</param>
public sealed record TrialInput(IReadOnlyList<Edit> Edits) : IStudyInput
{
    /// <inheritdoc/>
    public IReadOnlyList<RigFault> Check(Rig rig)
    {
        var c = new FieldChecker();
        c.Count("edits", Edits.Count, 1, Editor.MaxEdits);
        return c.Faults;
    }
}

/// <summary>What edits would change.</summary>
/// <param name="Wins">What becomes better, and what worse; null: they can't be done.</param>
/// <param name="Refused">Why they can't be done; null: they can.</param>
public sealed record TrialAnswer(FixGain? Wins, string? Refused);

/// <summary>Tries edits on the whole rig, as fixes are tried.</summary>
public static class TrialStudy
{
    /// <summary>Asks. Pure; nothing is saved. O(all studies).</summary>
    public static TrialAnswer Ask(Question question, TrialInput input) =>
        Trial.Of(question, input.Edits, out string? refused) is not { } trial ? new TrialAnswer(null, refused)
            : trial.NoRoom() is { } full ? new TrialAnswer(null, full) : new TrialAnswer(trial.Gain(), null);
}
