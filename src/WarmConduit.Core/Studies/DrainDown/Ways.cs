using WarmConduit.Core.Levels;

namespace WarmConduit.Core.Studies.DrainDown;

/// <summary>Which way the water of each run leaves, the run it passes next, and where its way ends. Each run is followed once.</summary>
internal sealed class Ways
{
    private readonly Question _question;
    private readonly bool[] _reversed;
    private readonly int[] _leadsTo;
    private readonly Place?[] _end;

    public Ways(Question question, LevelAnswer levels)
    {
        _question = question;
        int count = question.Rig.Runs.Count;
        (_reversed, _leadsTo, _end) = (new bool[count], new int[count], new Place?[count]);
        var stops = new int[count];
        for (int r = 0; r < count; r++)
        {
            var points = question.Levels.PointsOfRun(r);
            _reversed[r] = levels.Next[points[0]] != points[1] && levels.Next[points[^1]] == points[^2];
            (_leadsTo[r], stops[r]) = Follow(question, levels, _reversed[r] ? points[0] : points[^1], r);
        }
        var open = levels.Graph.DrainPoints.ToHashSet();
        // From the run that ends the way, backwards, so that no way is walked twice.
        var known = new bool[count];
        var walked = new Stack<int>();
        for (int r = 0; r < count; r++)
        {
            int at = r;
            while (!known[at] && _leadsTo[at] >= 0 && walked.Count <= count)
            {
                walked.Push(at);
                at = _leadsTo[at];
            }
            if (!known[at])
            {
                known[at] = true;
                _end[at] = !open.Contains(stops[at]) ? null : question.Levels.PlaceAt(stops[at]);
            }
            var end = _end[at];
            while (walked.TryPop(out int back)) (known[back], _end[back]) = (true, end);
        }
    }

    public bool Reversed(int run) => _reversed[run];

    public string? LeadsTo(int run) => _leadsTo[run] < 0 ? null : _question.Rig.Runs[_leadsTo[run]].Id;

    public Place? EndOf(int run) => _end[run];

    // Through the parts behind a run's end, to the next run or to where the water stops.
    private static (int Run, int Stop) Follow(Question question, LevelAnswer levels, int at, int self)
    {
        for (int guard = 0; guard < levels.Next.Length && levels.Next[at] >= 0; guard++)
        {
            int next = levels.Next[at];
            if (question.Levels.RunFrom(at, next) is { } step) return (step.Run == self ? -1 : step.Run, at);
            at = next;
        }
        return (-1, at);
    }
}
