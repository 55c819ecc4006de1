using WarmConduit.Core.Registry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Store;

namespace WarmConduit.Application.Answers;

/// <summary>Takes questions, checks them, and hands out what answers them.</summary>
public sealed class AnswerDesk(Shelf shelf, QuestionCache cache)
{
    private const int MostWanted = 10;

    /// <summary>
    /// A question, checked and ready to be answered; null: there is no such rig or revision. Throws <see cref="RigFileException"/> naming each field that is
    /// wrong, inputs of studies included.
    /// </summary>
    public async Task<CheckedQuestion?> Check(AnswersRequest ask, CancellationToken cancel)
    {
        var studies = Studies(ask);
        bool saved = ask.Id is not null && ask.Base is not null;
        Rig? rig;
        if (saved)
        {
            rig = await shelf.Revision(ask.Id!, ask.Base!.Value, cancel);
            if (rig is null) return null;
        }
        else
        {
            rig = ask.Rig ?? throw Refused("rig", "send a rig, or the id and base of a saved one");
            var faults = RigCheck.Check(rig).Select(f => f with { Path = "rig." + f.Path }).ToList();
            if (faults.Count > 0) throw new RigFileException(faults);
            rig = rig.InOrder();
        }
        var edited = ask.Edits is { Count: > 0 } edits ? Editor.Apply(rig, edits) : null;
        var asked = edited?.Rig ?? rig;
        var conditions = ask.Conditions ?? Conditions.Of(asked);
        var wrong = conditions.Check(asked);
        if (wrong.Count > 0) throw new RigFileException(wrong);
        QuestionCache.Key? key = saved ? new(ask.Id!, ask.Base!.Value, conditions) : null;
        return new CheckedQuestion(cache, key, rig, edited, conditions,
            [.. studies.Select(s => (s, StudyInputs.Read(ask.Inputs, s, asked)))], ask.Since, ask.Effect ?? true);
    }

    private static List<Study> Studies(AnswersRequest ask)
    {
        if (ask.Wanted.Count is 0 or > MostWanted) throw Refused("wanted", $"name 1 to {MostWanted} answers");
        var studies = new List<Study>();
        for (int i = 0; i < ask.Wanted.Count; i++)
            studies.Add(StudyRegistry.Named(ask.Wanted[i]) ?? throw Refused($"wanted[{i}]",
                $"there is no answer of that name; there are {string.Join(", ", StudyRegistry.All.Select(s => s.Name))}"));
        StudyInputs.RefuseUnread(ask.Inputs, studies);
        return [.. studies.Distinct()];
    }

    private static RigFileException Refused(string path, string reason) => new([new RigFault(path, reason)]);
}

/// <summary>A question that was checked.</summary>
public sealed class CheckedQuestion(
    QuestionCache cache, QuestionCache.Key? key, Rig rig, Edited? edited, Conditions conditions,
    IReadOnlyList<(Study Study, IStudyInput? Input)> studies, int? since, bool asksEffect = true)
{
    private readonly Rig _asked = edited?.Rig ?? rig;

    /// <summary>What is asked.</summary>
    public IEnumerable<Study> Studies => studies.Select(s => s.Study);

    /// <summary>About how much work it is: points of runs and parts, for each day of the night that is asked about.</summary>
    public double Size => _asked.PointCount() * Math.Max(1, conditions.Hours / 24);

    /// <summary>Works the answers out. For one thread; stops with <see cref="OperationCanceledException"/>. <paramref name="progress"/> is told the share that
    /// is done, 0 to 1, by studies that know it.</summary>
    public AnswersAnswer Answer(CancellationToken cancel, IProgress<double>? progress = null)
    {
        var question = (key is { } k ? cache.Base(k, rig, conditions).On(_asked, cancel) : new Question(_asked, conditions, cancel)).Telling(progress);
        var answers = new WantedAnswers();
        var changed = new Dictionary<string, AnswerChange>();
        foreach (var (study, input) in studies)
        {
            object answer = key is { } whole && edited is null && input is null ? cache.Answer(whole, study, question) : study.Ask(question, input);
            object? held = input is null && key is { } now && since is { } from ? Held(now, from, study, cancel) : null;
            if (held is null) answers[study.Name] = answer;
            else changed[study.Name] = AnswerChange.Between(held, answer);
        }
        return new AnswersAnswer(conditions, asksEffect ? edited?.Effect : null, answers, changed);
    }

    // Of the base itself it is worked out where it is not known: whoever drags asks again.
    private object? Held(QuestionCache.Key now, int from, Study study, CancellationToken cancel) =>
        from == now.Revision ? cache.Answer(now, study, cache.Base(now, rig, conditions).On(rig, cancel)) : cache.Answer(now with { Revision = from }, study);
}
