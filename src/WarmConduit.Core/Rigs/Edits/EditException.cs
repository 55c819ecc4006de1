namespace WarmConduit.Core.Rigs.Edits;

/// <summary>An edit that cannot be done: at which field of it, and why.</summary>
/// <param name="field">The field.</param>
/// <param name="reason">Why.</param>
/// <param name="misread">What the reader of JSON was given, where it was that which refused.</param>
public sealed class EditException(string field, string reason, Misread? misread = null) : FormatException(reason)
{
    /// <summary>The field.</summary>
    public string Field { get; } = field;

    /// <summary>What the reader of JSON was given, or null.</summary>
    public Misread? Misread { get; } = misread;
}
