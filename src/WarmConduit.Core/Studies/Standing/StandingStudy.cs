using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Night;

namespace WarmConduit.Core.Studies.Standing;

/// <summary>A rig's verdict in one line.</summary>
/// <param name="RetainedL">Water retained after draining, litres, parked as on the night.</param>
/// <param name="PoolCount">In how many pools.</param>
/// <param name="ByHandL">What is taken out by hand besides, litres.</param>
/// <param name="ByHand">Names of the parts that is done to.</param>
/// <param name="Night">The night asked about.</param>
/// <param name="Verdict">Whether the rig stands it.</param>
/// <param name="ColdestC">Lowest outdoor temperature at which nothing breaks on such a night, to 0.25 K; null when even just below zero is too cold, and when nothing breaks as far as was tried.</param>
/// <param name="TriedC">The coldest that was tried.</param>
/// <param name="StandsAllTried">Nothing breaks even at <paramref name="TriedC"/>; how much colder it may get is not known.</param>
/// <param name="FirstName">What freezes first on that night; null when nothing does.</param>
/// <param name="FirstIceS">When, seconds from the start.</param>
public sealed record StandingAnswer(
    double RetainedL,
    int PoolCount,
    double ByHandL,
    IReadOnlyList<string> ByHand,
    Conditions Night,
    Verdict Verdict,
    double? ColdestC,
    double TriedC,
    bool StandsAllTried,
    string? FirstName,
    double? FirstIceS);

/// <summary>How cold a night a rig stands.</summary>
public static class StandingStudy
{
    private const double LowestTriedC = -40, HighestTriedC = -0.5, WithinK = 0.25;

    /// <summary>
    /// Verdict on the night asked about, with the coldest night of its kind found by bisection between -0.5 and -40 °C (colder air never freezes anything
    /// later). It is the ladder's verdict, whoever asks. Pure.
    /// </summary>
    public static StandingAnswer Ask(Question question)
    {
        var night = question.Conditions;
        var drained = question.Ask(DrainDownStudy.Ask);
        var ladder = question.Ask(FreezeLadderStudy.Ask);
        var first = ladder.Rungs.FirstOrDefault(r => r.State != IceState.Safe);
        var (coldest, all) = Coldest(question);
        return new StandingAnswer(
            drained.RetainedL, drained.PoolCount, drained.ByHandL, [.. drained.Parts.Where(p => p.ByHandL > 0).Select(p => question.Index.Part(p.PartId).Name)],
            night, ladder.Verdict, coldest, LowestTriedC, all, first?.Name, first?.FirstIceS);
    }

    /// <summary>The coldest constant night that it stands, left and as long as the one asked about, °C: to a tenth, and never colder than what was tried. Null: none below zero, or all that were tried.</summary>
    internal static (double? ColdestC, bool StandsAll) Coldest(Question question)
    {
        var night = question.Conditions;
        bool Stands(double outdoorC)
        {
            question.Cancel.ThrowIfCancellationRequested();
            return question.With(night with { OutdoorC = outdoorC, Weather = null }).Ask(RigNight.Of).Stands();
        }
        if (Stands(LowestTriedC)) return (null, true);
        if (!Stands(HighestTriedC)) return (null, false);
        double stands = HighestTriedC, fails = LowestTriedC;
        while (stands - fails > WithinK)
        {
            double mid = (stands + fails) / 2;
            if (Stands(mid)) stands = mid;
            else fails = mid;
        }
        return (Math.Ceiling((stands * 10) - 1e-9) / 10, false);
    }
}
