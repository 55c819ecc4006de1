using System.Text.RegularExpressions;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Rigs.Edits;

/// <summary>A rig after edits.</summary>
public sealed class Edited
{
    private readonly IReadOnlyList<Func<Sentence>> _words;

    internal Edited(Rig before, Rig rig, IReadOnlyList<Func<Sentence>> words) => (Before, Rig, _words) = (before, rig, words);

    /// <summary>The document before them.</summary>
    public Rig Before { get; }

    /// <summary>The new document.</summary>
    public Rig Rig { get; }

    /// <summary>Each edit in words, for the history; like the effect made when asked for.</summary>
    public IReadOnlyList<Sentence> Words => field ??= [.. _words.Select(w => w())];

    /// <summary>What changed; worked out when it is asked for, since a drag asks only for the document.</summary>
    public Effect Effect => field ??= RigDiff.Between(Before, Rig);

    /// <summary>The edits that lead back.</summary>
    public IReadOnlyList<Edit> Inverse => field ??= [new Restore(Editor.Summary(Words), Effect.Inverse())];
}

/// <summary>Applies edits to rigs.</summary>
public static partial class Editor
{
    /// <summary>Most edits in one list.</summary>
    public const int MaxEdits = 1000;

    /// <summary>
    /// Applies <paramref name="edits"/> in their order, all or none. Pure. Throws <see cref="RigFileException"/> at <c>edits[2].partId</c> and the like for
    /// what cannot be done, and at the thing for a document that <see cref="RigCheck"/> would refuse; faults that the rig had before do not count.
    /// </summary>
    public static Edited Apply(Rig rig, IReadOnlyList<Edit> edits)
    {
        if (edits.Count is 0 or > MaxEdits) throw new RigFileException([new RigFault("edits", $"{edits.Count} edits, where 1 to {MaxEdits} are allowed")]);
        var words = new List<Func<Sentence>>(edits.Count);
        var at = rig;
        for (int i = 0; i < edits.Count; i++)
        {
            try
            {
                (at, var said) = EditRules.Apply(at, edits[i]);
                words.Add(said);
            }
            catch (EditException e)
            {
                string entry = $"edits[{i}]";
                throw new RigFileException([new RigFault(e.Field.Length == 0 ? entry : $"{entry}.{e.Field}", e.Message)],
                    e.Misread is { } misread ? misread with { At = entry } : null);
            }
        }
        at = Removing.Unplanned(rig, at);
        Demand(rig, at);
        return new Edited(rig, at, words);
    }

    /// <summary>A list of edits in one sentence.</summary>
    public static Sentence Summary(IReadOnlyList<Sentence> words) => words.Count switch
    {
        1 => words[0],
        _ => words[0].And($", and {words.Count - 1} more"),
    };

    private static void Demand(Rig before, Rig after)
    {
        if (RigCheck.Check(after, before).Count == 0) return;
        var faults = RigCheck.Check(after);
        var old = RigCheck.Check(before).Select(f => Named(before, f)).ToHashSet();
        var made = faults.Select(f => Named(after, f)).Where(f => !old.Contains(f)).ToList();
        if (made.Count > 0) throw new RigFileException(made);
    }

    // Numbers of entries change as things come and go; ids do not.
    private static RigFault Named(Rig rig, RigFault fault)
    {
        string path = EntryPattern().Replace(fault.Path, m =>
        {
            int i = int.Parse(m.Groups[2].Value, System.Globalization.CultureInfo.InvariantCulture);
            string? id = m.Groups[1].Value switch
            {
                "parts" => rig.Parts.ElementAtOrDefault(i)?.Id,
                "runs" => rig.Runs.ElementAtOrDefault(i)?.Id,
                "scenarios" => rig.Scenarios.ElementAtOrDefault(i)?.Id,
                "plans" => rig.Plans?.ElementAtOrDefault(i)?.Id,
                "left" => rig.Left?.ElementAtOrDefault(i)?.Id,
                "ownSteps" => rig.OwnSteps?.ElementAtOrDefault(i)?.Id,
                "shell.zones" => rig.Shell.Zones.ElementAtOrDefault(i)?.Id,
                _ => null,
            };
            return id is null ? m.Value : $"{m.Groups[1].Value}/{id}";
        });
        return fault with { Path = path };
    }

    [GeneratedRegex(@"\A(parts|runs|scenarios|plans|left|ownSteps|shell\.zones)\[(\d+)\]")]
    private static partial Regex EntryPattern();
}
