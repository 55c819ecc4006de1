using WarmConduit.Core.Studies.Night;

namespace WarmConduit.Core.Studies.Standing;

/// <summary>How cold a night a rig survives, for nights of constant temperature.</summary>
/// <param name="ColdestC">The coldest at which nothing breaks, nor at any warmer one, °C: to a tenth, never colder than tested; null: none below
/// zero, or all that were tested.</param>
/// <param name="StandsAllTried">Nothing breaks at any temperature tested; the limit is not known.</param>
/// <param name="FailsC">The warmest at which ice breaks something, °C; null: none of those tested.</param>
/// <param name="KinderC">
/// A colder one at which nothing breaks either, °C; null: none was found. Lines that freeze through at once are not trapped between ice plugs: no
/// night to wait for.
/// </param>
/// <param name="TriedC">The coldest that was tried, °C.</param>
/// <param name="StepK">The step between temperatures tried, K.</param>
public sealed record ColdLimit(double? ColdestC, bool StandsAllTried, double? FailsC, double? KinderC, double TriedC, double StepK)
{
    private const double LowestTriedC = -40, HighestTriedC = -0.5, WithinK = 0.25, ScanK = 0.5, KinderK = 2;

    /// <summary>
    /// Of nights left, and as long, as the one asked about. What any ice breaks is found by halving, since it never freezes later in a colder night. Lines that
    /// burst shut in are not so: it hangs on which of two freezes sooner. So all nights are tried, half a kelvin apart, from the warmest in which such a line
    /// has ice. Pure. O(80 nights).
    /// </summary>
    public static ColdLimit Of(Question question)
    {
        RigNight At(double outdoorC)
        {
            question.Cancel.ThrowIfCancellationRequested();
            return question.With(question.Conditions.Constant(outdoorC)).Ask(RigNight.Of);
        }
        bool Plainly(RigNight night) => Any(night, n => night.Candidates[n].BreaksByIce);
        bool MayBurst(RigNight night) => Any(night, n => night.Candidates[n].BreaksShut);

        // The warmest night in which it is so, and the coldest warmer one that was tried; null: not even in the coldest.
        (double FailsC, double StandsC)? Warmest(Func<RigNight, bool> fails)
        {
            if (!fails(At(LowestTriedC))) return null;
            if (fails(At(HighestTriedC))) return (HighestTriedC, double.NaN);
            return Between(LowestTriedC, HighestTriedC, fails);
        }
        (double FailsC, double StandsC) Between(double failsC, double standsC, Func<RigNight, bool> fails)
        {
            while (standsC - failsC > WithinK)
            {
                double mid = (standsC + failsC) / 2;
                if (fails(At(mid))) failsC = mid;
                else standsC = mid;
            }
            return (failsC, standsC);
        }

        var ice = Warmest(Plainly);
        var limit = ice;
        if (Warmest(MayBurst) is { } burst)
        {
            // Up to where something breaks at any rate.
            double before = Math.Min(HighestTriedC, burst.FailsC + ScanK);
            for (double c = burst.FailsC; c > (ice?.FailsC ?? LowestTriedC - ScanK); before = c, c = c > LowestTriedC
                ? Math.Max(LowestTriedC, c - ScanK) : c - ScanK)
            {
                if (At(c).Stands()) continue;
                limit = c >= HighestTriedC ? (HighestTriedC, double.NaN) : Between(c, before, n => !n.Stands());
                break;
            }
        }
        if (limit is not { } found) return new ColdLimit(null, true, null, null, LowestTriedC, ScanK);
        double? kinder = null;
        if (ice is null)
            for (double c = found.FailsC - KinderK; c >= LowestTriedC && kinder is null; c -= KinderK)
                if (At(c).Stands()) kinder = c;
        return new ColdLimit(double.IsNaN(found.StandsC) ? null : Math.Ceiling((found.StandsC * 10) - 1e-9) / 10, false, Math.Round(found.FailsC, 2), kinder,
            LowestTriedC, ScanK);
    }

    private static bool Any(RigNight night, Func<int, bool> of) => Enumerable.Range(0, night.Candidates.Count)
        .Any(n => of(n) && night.Marks(n).FirstIceS < night.MorningS);
}
