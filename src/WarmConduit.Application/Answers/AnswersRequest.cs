using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;

namespace WarmConduit.Application.Answers;

/// <summary>A question that saves nothing: about a saved rig (<paramref name="Id"/> and <paramref name="Base"/>) or one sent along
/// (<paramref name="Rig"/>), with edits on top of it.</summary>
/// <param name="Wanted">Names of the answers wanted, 1 to 10.</param>
/// <param name="Id">The saved rig.</param>
/// <param name="Base">Its revision.</param>
/// <param name="Rig">A whole rig, instead of a saved one.</param>
/// <param name="Edits">Edits to assume done.</param>
/// <param name="Conditions">The night; left out: that of the brief.</param>
/// <param name="Inputs">Inputs of those answers, by their names.</param>
/// <param name="Since">The revision whose answers, without edits and for the same night, the asker has: answers then come as differences.</param>
/// <param name="Effect">Whether to return what the edits do to the document; left out: yes. A drag does not need it.</param>
public sealed record AnswersRequest(
    IReadOnlyList<string> Wanted,
    string? Id = null,
    int? Base = null,
    Rig? Rig = null,
    IReadOnlyList<Edit>? Edits = null,
    Conditions? Conditions = null,
    StudyInputs? Inputs = null,
    int? Since = null,
    bool? Effect = null);

/// <summary>What was asked for, and only that.</summary>
/// <param name="Conditions">The night that was asked about.</param>
/// <param name="Effect">What the edits do to the document; null without edits, and where it was not asked for.</param>
/// <param name="Answers">Whole answers by name.</param>
/// <param name="Changed">By name, those given as differences from the ones that the asker has.</param>
public sealed record AnswersAnswer(Conditions Conditions, Effect? Effect, WantedAnswers Answers, IReadOnlyDictionary<string, AnswerChange> Changed);

/// <summary>Answers by the name under which they were wanted.</summary>
public sealed class WantedAnswers : Dictionary<string, object>;
