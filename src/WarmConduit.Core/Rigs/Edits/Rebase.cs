namespace WarmConduit.Core.Rigs.Edits;

/// <summary>Edits that cannot be carried over, since what they touch has changed meanwhile.</summary>
public sealed class ClashException(IReadOnlyList<string> paths) : Exception($"changed meanwhile: {string.Join(", ", paths)}")
{
    /// <summary>What both sides touch, by path; never empty.</summary>
    public IReadOnlyList<string> Paths { get; } = paths;
}

/// <summary>Carries edits made on an older state of a rig over to its newest.</summary>
public static class Rebase
{
    /// <summary>
    /// <paramref name="edits"/>, made on <paramref name="then"/>, applied to <paramref name="now"/>. What an edit reads counts as touched, and what it refers
    /// to must still be there. Throws <see cref="ClashException"/> when the two sides touch one thing, and <see cref="RigFileException"/> as <see
    /// cref="Editor.Apply"/> does.
    /// </summary>
    public static Edited Over(Rig then, IReadOnlyList<Edit> edits, Rig now)
    {
        if (ReferenceEquals(then, now)) return Editor.Apply(now, edits);
        var theirs = RigDiff.Between(then, now);
        if (theirs.IsNothing()) return Editor.Apply(now, edits);
        var mine = Editor.Apply(then, edits);
        var clash = Clashes(Touch.Of(mine, edits), new Touch(theirs, now));
        if (clash.Count > 0) throw new ClashException(clash);
        return Editor.Apply(now, edits);
    }

    /// <summary>Whether two lists of edits, both made on <paramref name="rig"/>, touch different things.</summary>
    public static bool Apart(Rig rig, IReadOnlyList<Edit> a, IReadOnlyList<Edit> b) =>
        Clashes(Touch.Of(Editor.Apply(rig, a), a), Touch.Of(Editor.Apply(rig, b), b)).Count == 0;

    private static List<string> Clashes(Touch a, Touch b)
    {
        var found = new SortedSet<string>(StringComparer.Ordinal);
        foreach (string path in a.Written)
            if (b.Written.Any(p => Meet(p, path)) || b.Read.Any(p => Meet(p, path)))
                found.Add(path);
        foreach (string path in a.Read)
            if (b.Written.Any(p => Meet(p, path)))
                found.Add(path);
        // A thing that one side refers to and the other takes away.
        foreach (string path in a.RefersTo)
            if (b.Gone.Any(p => Within(path, p)))
                found.Add(path);
        foreach (string path in b.RefersTo)
            if (a.Gone.Any(p => Within(path, p)))
                found.Add(path);
        return [.. found];
    }

    private static bool Meet(string a, string b) => Within(a, b) || Within(b, a);

    private static bool Within(string path, string holder) =>
        path.StartsWith(holder, StringComparison.Ordinal) && (path.Length == holder.Length || path[holder.Length] == '/');
}
