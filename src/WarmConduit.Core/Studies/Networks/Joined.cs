using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.Networks;

/// <summary>What is joined to what, whichever way water may pass.</summary>
internal sealed class Joined
{
    private readonly Dictionary<string, List<(string Port, string Other, string OtherPort, Run Run)>> _at = [];

    private readonly RigIndex _index;

    public Joined(RigIndex index)
    {
        _index = index;
        var rig = index.Rig;
        foreach (var run in rig.Runs)
        {
            if (run.From.Part is not { } from || run.To.Part is not { } to) continue;
            At(from).Add((run.From.Port!, to, run.To.Port!, run));
            At(to).Add((run.To.Port!, from, run.From.Port!, run));
        }
    }

    public IReadOnlyList<(string Port, string Other, string OtherPort, Run Run)> Of(string partId) => _at.GetValueOrDefault(partId) ?? [];

    /// <summary>Worked out once for a question.</summary>
    public static Joined Of(Question question) => new(question.Index);

    /// <summary>How many runs each part is away from the nearest of <paramref name="sources"/>; one that is not reached is not in it. O(runs).</summary>
    public Dictionary<string, int> From(IEnumerable<string> sources, Func<Run, bool> along)
    {
        var far = new Dictionary<string, int>();
        var queue = new Queue<string>();
        foreach (string source in sources)
            if (far.TryAdd(source, 0)) queue.Enqueue(source);
        while (queue.TryDequeue(out string? at))
            foreach (var (_, other, _, run) in Of(at))
                if (along(run) && far.TryAdd(other, far[at] + 1)) queue.Enqueue(other);
        return far;
    }

    /// <summary>Every part that is reached from <paramref name="from"/> on through parts that <paramref name="passes"/>; those it ends at are not among them.
    /// O(runs).</summary>
    public IEnumerable<Part> Reach(IEnumerable<string> from, Func<Part, bool> passes, Func<Run, bool>? along = null)
    {
        var seen = new HashSet<string>();
        var queue = new Queue<string>(from);
        while (queue.TryDequeue(out string? at))
        {
            if (!seen.Add(at) || _index.Part(at) is not { } part || !passes(part)) continue;
            yield return part;
            foreach (var (_, other, _, run) in Of(at))
                if (along?.Invoke(run) ?? true) queue.Enqueue(other);
        }
    }

    private List<(string Port, string Other, string OtherPort, Run Run)> At(string part)
    {
        if (!_at.TryGetValue(part, out var list)) _at[part] = list = [];
        return list;
    }
}
