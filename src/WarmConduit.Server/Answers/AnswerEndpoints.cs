using Microsoft.AspNetCore.Http.HttpResults;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Server.Hosting;
using WarmConduit.Store;

namespace WarmConduit.Server.Answers;

/// <summary>A question that saves nothing: of a saved rig (<paramref name="Id"/> and <paramref name="Base"/>) or of one sent along (<paramref name="Rig"/>), with edits on top of it.</summary>
/// <param name="Id">The saved rig.</param>
/// <param name="Base">The revision of it that is meant.</param>
/// <param name="Rig">A whole rig, instead of a saved one.</param>
/// <param name="Edits">Edits to think of as done.</param>
/// <param name="Conditions">The night; left out: that of the brief.</param>
/// <param name="Wanted">Names of the answers wanted, 1 to 10.</param>
/// <param name="About">The one thing a question for a reason is about.</param>
/// <param name="Since">The revision whose answers, without edits and for the same night, the asker holds: an answer that is told as what differs from those is short.</param>
public sealed record AnswersRequest(
    IReadOnlyList<string> Wanted,
    string? Id = null,
    int? Base = null,
    Rig? Rig = null,
    IReadOnlyList<Edit>? Edits = null,
    Conditions? Conditions = null,
    string? About = null,
    int? Since = null);

/// <summary>What was asked for, and only that.</summary>
/// <param name="Conditions">The night that was asked about.</param>
/// <param name="Effect">What the edits do to the document; null without edits.</param>
/// <param name="Answers">Whole answers by name.</param>
/// <param name="Changed">By name, those that are told as what differs from the ones that the asker holds.</param>
public sealed record AnswersAnswer(Conditions Conditions, Effect? Effect, WantedAnswers Answers, IReadOnlyDictionary<string, AnswerChange> Changed);

/// <summary>Answers without saving.</summary>
internal static class AnswerEndpoints
{
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(10);

    public static void Map(IEndpointRouteBuilder api) => api.MapPost("/answers", Ask)
        .WithName("askAnswers").WithTags("Answers").WithSummary("Answer without saving: what the edits would do, and what the studies say of the rig then.")
        .RequireRateLimiting(Limits.Work)
        .ProducesProblem(404).ProducesProblem(422).Produces<AnswersAnswer>();

    private static async Task<Results<Ok<AnswersAnswer>, NotFound>> Ask(AnswersRequest ask, Shelf shelf, QuestionCache cache, CancellationToken cancel)
    {
        var studies = Studies(ask);
        using var limited = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        limited.CancelAfter(Longest);
        bool saved = ask.Id is not null && ask.Base is not null;
        Rig? rig;
        if (saved)
        {
            rig = await shelf.Revision(ask.Id!, ask.Base!.Value, limited.Token);
            if (rig is null) return TypedResults.NotFound();
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
        var conditions = ask.Conditions ?? Conditions.Of(asked.Brief);
        var wrong = conditions.Check(asked);
        if (wrong.Count > 0) throw new RigFileException(wrong);

        QuestionCache.Key? key = saved ? new(ask.Id!, ask.Base!.Value, conditions) : null;
        var question = key is { } k ? cache.Base(k, rig, conditions).On(asked, ask.About, limited.Token) : new Question(asked, conditions, ask.About, limited.Token);
        var answers = new WantedAnswers();
        var changed = new Dictionary<string, AnswerChange>();
        foreach (var study in studies)
        {
            object answer = key is { } whole && edited is null && ask.About is null ? cache.Answer(whole, study, question) : study.Ask(question);
            object? held = ask.About is null && key is { } now && ask.Since is { } since ? Held(now, since, study) : null;
            if (held is null) answers[study.Name] = answer;
            else changed[study.Name] = AnswerChange.Between(held, answer);
        }
        return TypedResults.Ok(new AnswersAnswer(conditions, edited?.Effect, answers, changed));

        // Of the base itself it is worked out where it is not known: whoever drags asks again.
        object? Held(QuestionCache.Key now, int since, Study study) =>
            since == now.Revision ? cache.Answer(now, study, cache.Base(now, rig, conditions).On(rig, null, limited.Token)) : cache.Answer(now with { Revision = since }, study);
    }

    private static List<Study> Studies(AnswersRequest ask)
    {
        if (ask.Wanted.Count is 0 or > 10) throw Refused("wanted", "name 1 to 10 answers");
        var studies = new List<Study>();
        for (int i = 0; i < ask.Wanted.Count; i++)
            studies.Add(Wanted.Named(ask.Wanted[i]) ?? throw Refused($"wanted[{i}]", $"there is no answer of that name; there are {string.Join(", ", Wanted.All.Select(s => s.Name))}"));
        return studies;
    }

    private static RigFileException Refused(string path, string reason) => new([new RigFault(path, reason)]);
}
