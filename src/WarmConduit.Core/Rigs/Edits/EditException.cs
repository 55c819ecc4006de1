namespace WarmConduit.Core.Rigs.Edits;

/// <summary>An edit that cannot be done: at which field of it, and why.</summary>
public sealed class EditException(string field, string reason) : FormatException(reason)
{
    /// <summary>The field.</summary>
    public string Field { get; } = field;
}
