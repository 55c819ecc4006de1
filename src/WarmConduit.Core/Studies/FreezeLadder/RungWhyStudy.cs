using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Night;

namespace WarmConduit.Core.Studies.FreezeLadder;

/// <summary>The rung in question.</summary>
/// <param name="Id">Its id; one that is not on the ladder has no reason.</param>
public sealed record RungWhyInput(string Id) : IStudyInput
{
    /// <inheritdoc/>
    public IReadOnlyList<RigFault> Check(Rig rig) => [];
}

/// <summary>Why one rung of the ladder is where it is; null when it is not on the ladder.</summary>
/// <param name="Id">The rung.</param>
/// <param name="Why">The reason; null when it is not on the ladder.</param>
public sealed record RungWhyAnswer(string Id, Why? Why);

/// <summary>How the time of first ice of the one thing asked about came about.</summary>
public static class RungWhyStudy
{
    /// <summary>Asks about one rung. Pure.</summary>
    public static RungWhyAnswer Ask(Question question, RungWhyInput input)
    {
        string id = input.Id;
        var night = question.Ask(RigNight.Of);
        for (int n = 0; n < night.Candidates.Count; n++)
            if (night.Candidates[n] is { } candidate && candidate.Id == id) return new RungWhyAnswer(id, candidate.Why(night, candidate.Rung(night, n)));
        return new RungWhyAnswer(id, null);
    }
}
