namespace WarmConduit.Core.Studies.Night;

/// <summary>How long a rig stands one outdoor temperature.</summary>
/// <param name="OutdoorC">Outdoors, all night, °C.</param>
/// <param name="Hours">Hours from the start until ice first breaks something; null: longer than was tried.</param>
/// <param name="First">What breaks first; null: nothing within what was tried.</param>
public sealed record Endurance(double OutdoorC, double? Hours, string? First);

/// <summary>How cold and how long.</summary>
/// <param name="Curve">From the warmest to the coldest that was tried.</param>
/// <param name="ForHours">The hours that the night asked about lasts.</param>
/// <param name="ColdestC">The coldest constant night of so many hours that it stands, to 0.1 K and never colder than it stood; null: colder than was tried, or none below zero.</param>
/// <param name="StandsAllTried">It stands all that were tried.</param>
/// <param name="AtLowest">How long it stands the outdoor temperature that was asked about.</param>
/// <param name="TriedC">The coldest that was tried.</param>
/// <param name="TriedHours">The longest that was tried.</param>
public sealed record LimitAnswer(IReadOnlyList<Endurance> Curve, double ForHours, double? ColdestC, bool StandsAllTried, Endurance AtLowest, double TriedC, double TriedHours);

/// <summary>The limit of a rig: survival time against temperature, on constant nights that start as the one asked about does.</summary>
public static class LimitStudy
{
    private const double TriedHours = 72;

    private static readonly double[] TriedC = [-1, -2, -3, -4, -6, -8, -10, -13, -16, -20, -25, -30, -35, -40];

    /// <summary>Runs a long night at each temperature. Pure. O(15 nights).</summary>
    public static LimitAnswer Ask(Question question)
    {
        var night = question.Conditions;
        Endurance At(double outdoorC)
        {
            question.Cancel.ThrowIfCancellationRequested();
            var long_ = RigNight.Of(question.With(night with { OutdoorC = outdoorC, Weather = null, Hours = TriedHours }));
            var (seconds, first) = long_.FirstBreak();
            return new Endurance(outdoorC, first is null ? null : seconds / 3600, first);
        }
        var standing = question.Ask(Standing.StandingStudy.Ask);
        return new LimitAnswer([.. TriedC.Select(At)], night.Hours, standing.ColdestC, standing.StandsAllTried, At(night.OutdoorC), TriedC[^1], TriedHours);
    }
}
