using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Studies.FreezeLadder;

namespace WarmConduit.Core.Studies.Standing;

/// <summary>A rig's verdict in one line.</summary>
/// <param name="Stays">What stays after draining, parked as on the night.</param>
/// <param name="ByHand">Names of the parts that is done to.</param>
/// <param name="Night">The night asked about.</param>
/// <param name="Verdict">Whether the rig survives it.</param>
/// <param name="Limit">The coldest night of its kind that it survives.</param>
/// <param name="FirstName">What ice breaks first on that night, or what has ice first where it breaks nothing; null when nothing has.</param>
/// <param name="FirstS">When, seconds from the start.</param>
public sealed record StandingAnswer(
    Stays Stays,
    IReadOnlyList<string> ByHand,
    Conditions Night,
    Verdict Verdict,
    ColdLimit Limit,
    string? FirstName,
    double? FirstS);

/// <summary>How cold a night a rig stands.</summary>
public static class StandingStudy
{
    /// <summary>Verdict on the night asked about, with the coldest night of its kind. It is the ladder's verdict, whoever asks. Pure.</summary>
    public static StandingAnswer Ask(Question question)
    {
        var drained = question.Ask(DrainDownStudy.Ask);
        var ladder = question.Ask(FreezeLadderStudy.Ask);
        // What breaks leads.
        var first = ladder.Rungs.FirstOrDefault(r => r.State != IceState.Safe);
        return new StandingAnswer(
            drained.Stays, [.. drained.Parts.Where(p => p.ByHandL > 0).Select(p => question.Index.Part(p.PartId).Name)],
            question.Conditions, ladder.Verdict, question.Ask(ColdLimit.Of), first?.Name, first?.AtS);
    }
}
