using WarmConduit.Core.Studies.Standing;

namespace WarmConduit.Core.Studies.Night;

/// <summary>How long a rig survives one outdoor temperature.</summary>
/// <param name="OutdoorC">Outdoors, all night, °C.</param>
/// <param name="Hours">Hours from the start until ice first breaks something; null: longer than tested.</param>
/// <param name="First">What breaks first; null: nothing within what was tried.</param>
public sealed record Endurance(double OutdoorC, double? Hours, string? First);

/// <summary>What the brief asks a rig to survive without heat, and what it does survive: left full where it is lived in, drained where it is not.</summary>
/// <param name="Drained">It is left drained.</param>
/// <param name="Hours">The brief's hours without heat, h.</param>
/// <param name="ForHours">For how many hours the coldest is given, at most ten days.</param>
/// <param name="LowestC">The brief's lowest temperature, °C.</param>
/// <param name="Stands">Whether it survives that for that many hours.</param>
/// <param name="Limit">The coldest constant night of that many hours that it survives in that state.</param>
/// <param name="AtLowest">How long it survives the brief's lowest temperature; tested for the brief's hours, or three days.</param>
/// <param name="TriedHours">How long was tested, h.</param>
public sealed record BriefLimit(bool Drained, double Hours, double ForHours, double LowestC, bool Stands, ColdLimit Limit, Endurance AtLowest,
    double TriedHours);

/// <summary>How cold and how long.</summary>
/// <param name="Curve">From the warmest to the coldest that was tried.</param>
/// <param name="ForHours">The length of this night, h.</param>
/// <param name="Limit">The coldest constant night of that many hours that it survives.</param>
/// <param name="AtLowest">How long it survives the outdoor temperature asked for.</param>
/// <param name="TriedC">The coldest that was tried.</param>
/// <param name="TriedHours">The longest that was tried.</param>
/// <param name="Brief">What the brief asks for; null where it asks for no hours without heat.</param>
public sealed record LimitAnswer(
    IReadOnlyList<Endurance> Curve, double ForHours, ColdLimit Limit, Endurance AtLowest, double TriedC, double TriedHours, BriefLimit? Brief);

/// <summary>The limit of a rig: survival time against temperature, on constant nights that start as the one asked about does.</summary>
public static class LimitStudy
{
    private const double TriedHours = 72;

    private static readonly double[] TriedC = [-1, -2, -3, -4, -6, -8, -10, -13, -16, -20, -25, -30, -35, -40];

    /// <summary>Runs a long night at each temperature. Pure. O(30 nights).</summary>
    public static LimitAnswer Ask(Question question)
    {
        double outdoorC = question.Conditions.Steady().OutdoorC;
        return new LimitAnswer(
            [.. TriedC.Select((c, n) =>
            {
                question.GoOn(n, TriedC.Length + 4);
                return At(question, c, TriedHours);
            })], question.Conditions.Hours, question.Ask(ColdLimit.Of), At(question, outdoorC, TriedHours), TriedC[^1], TriedHours, OfBrief(question));
    }

    private static Endurance At(Question question, double outdoorC, double hours)
    {
        question.Cancel.ThrowIfCancellationRequested();
        var (seconds, first) = RigNight.Of(question.With(question.Conditions.Constant(outdoorC) with { Hours = hours })).FirstBreak();
        return new Endurance(outdoorC, first is null ? null : seconds / 3600, first);
    }

    private static BriefLimit? OfBrief(Question question)
    {
        var brief = question.Rig.Brief;
        if (brief.HoursWithoutHeat <= 0) return null;
        var left = question.With(Conditions.WithoutHeat(brief));
        double hours = left.Conditions.Hours, tried = Math.Max(hours, TriedHours);
        return new BriefLimit(left.Conditions.Water == WaterState.Drained, brief.HoursWithoutHeat, hours, brief.LowestC, left.Ask(RigNight.Of).Stands(),
            left.Ask(ColdLimit.Of), At(left, brief.LowestC, tried), tried);
    }
}
