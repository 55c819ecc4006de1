using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Units;

namespace WarmConduit.Store;

/// <summary>A rig as it stands on the shelf.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Revision">Number of the current revision; a save carries it back.</param>
/// <param name="Rig">The document; null when it cannot be read.</param>
/// <param name="Unreadable">Why it cannot be read; null when it can.</param>
/// <param name="What">What was done last.</param>
/// <param name="SavedAt">When.</param>
public sealed record ShelvedRig(string Id, int Revision, Rig? Rig, string? Unreadable, Sentence What, DateTimeOffset SavedAt);

/// <summary>A deleted rig that can still be restored.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">Its name.</param>
/// <param name="RemovedAt">When it was taken off.</param>
public sealed record RemovedRig(string Id, string Name, DateTimeOffset RemovedAt);

/// <summary>A line of a rig's history.</summary>
/// <param name="Number">Number of the revision.</param>
/// <param name="Parent">The revision it was made from; null for the first.</param>
/// <param name="Aside">Kept apart: edits that clashed.</param>
/// <param name="Current">It is the current one.</param>
/// <param name="What">What was done.</param>
/// <param name="SavedAt">When.</param>
public sealed record RevisionLine(int Number, int? Parent, bool Aside, bool Current, Sentence What, DateTimeOffset SavedAt);

/// <summary>Edits that were saved.</summary>
/// <param name="Revision">The new revision.</param>
/// <param name="Onto">The revision they were put on; another than their own base when others had saved meanwhile.</param>
/// <param name="Effect">Differences between their base and the new revision: their own effect, and that of what was saved meanwhile.</param>
/// <param name="What">The edits in a sentence.</param>
/// <param name="Inverse">The edits that undo these, sent with <paramref name="Revision"/> as their base.</param>
public sealed record SavedEdits(int Revision, int Onto, Effect Effect, Sentence What, IReadOnlyList<Edit> Inverse);

/// <summary>Edits that touch what others have changed meanwhile. They are kept as <see cref="KeptAs"/>, beside the line.</summary>
public sealed class StaleSaveException(int current, int? keptAs, IReadOnlyList<string> clash) : Exception($"The rig has moved on to revision {current}.")
{
    /// <summary>The revision that is current.</summary>
    public int Current { get; } = current;

    /// <summary>The revision under which the refused edits were kept; null where there was nothing to keep.</summary>
    public int? KeptAs { get; } = keptAs;

    /// <summary>What both sides touch, by path.</summary>
    public IReadOnlyList<string> Clash { get; } = clash;
}

/// <summary>The key of a save was used for another: what came first under it stands.</summary>
/// <param name="current">The current revision.</param>
/// <param name="revision">The revision that the first one made.</param>
/// <param name="edits">How many edits that was.</param>
public sealed class KeyUsedException(int current, int revision, int edits) : Exception("This save has the name of another.")
{
    /// <summary>The current revision.</summary>
    public int Current { get; } = current;

    /// <summary>The revision that the first one made.</summary>
    public int Revision { get; } = revision;

    /// <summary>How many edits that was.</summary>
    public int Edits { get; } = edits;
}
