using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;

namespace WarmConduit.Server.Answers;

/// <summary>
/// Keeps, by id and revision, what questions have in common while a drag asks again and again, and whole answers about saved rigs. A revision never changes, so nothing here is ever stale. Safe for many threads.
/// </summary>
internal sealed class QuestionCache
{
    private const int MostQuestions = 8, MostAnswers = 400;
    private readonly Lock _lock = new();
    private readonly LinkedList<((string Id, int Revision, Conditions Conditions) Key, Question Question)> _questions = [];
    private readonly Dictionary<(string Id, int Revision, string Wanted), object> _answers = [];
    private readonly Queue<(string, int, string)> _order = [];

    /// <summary>A question about a saved rig, with what edited copies can share worked out.</summary>
    public Question Base(string id, int revision, Rig rig, Conditions conditions)
    {
        var key = (id, revision, conditions);
        lock (_lock)
        {
            for (var node = _questions.First; node is not null; node = node.Next)
            {
                if (node.Value.Key != key) continue;
                _questions.Remove(node);
                _questions.AddFirst(node);
                return node.Value.Question;
            }
        }
        var question = new Question(rig, conditions).Warm();
        lock (_lock)
        {
            _questions.AddFirst((key, question));
            if (_questions.Count > MostQuestions) _questions.RemoveLast();
        }
        return question;
    }

    /// <summary>The answer about a saved rig on the night of its brief, worked out once.</summary>
    public object Answer(string id, int revision, Study study, Func<object> ask)
    {
        var key = (id, revision, study.Name);
        lock (_lock)
        {
            if (_answers.TryGetValue(key, out object? known)) return known;
        }
        object answer = ask();
        lock (_lock)
        {
            if (_answers.TryAdd(key, answer)) _order.Enqueue(key);
            while (_order.Count > MostAnswers) _answers.Remove(_order.Dequeue());
        }
        return answer;
    }
}
