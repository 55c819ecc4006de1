using WarmConduit.Core.Rigs;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.Night;

/// <summary>The effect of one guess.</summary>
/// <param name="Name">The guess.</param>
/// <param name="Range">The range it may be off by, in words.</param>
/// <param name="AtLowS">First ice with it at the low end, s; null: none in the time calculated.</param>
/// <param name="AtHighS">First ice with it at the high end.</param>
/// <param name="SwingS">The difference, s; the end of the calculation counts as none.</param>
/// <param name="Measure">How to find it out.</param>
public sealed record Guess(string Name, Sentence Range, double? AtLowS, double? AtHighS, double SwingS, string Measure);

/// <summary>The biggest uncertainties.</summary>
/// <param name="Name">What freezes first; null: nothing does.</param>
/// <param name="FirstIceS">When, as things are typed, s.</param>
/// <param name="Guesses">The largest effect first.</param>
/// <param name="EndS">The end of the calculation, s.</param>
public sealed record GuessAnswer(string? Name, double? FirstIceS, IReadOnlyList<Guess> Guesses, double EndS);

/// <summary>Each unknown swung over its range by itself: the one that moves the first ice most is the one to measure.</summary>
public static class GuessStudy
{
    /// <summary>First ice of all that ice breaks, or of anything where it breaks nothing. Pure. O(16 nights).</summary>
    public static GuessAnswer Ask(Question question)
    {
        var night = question.Conditions;
        var (base_, name) = First(question.Ask(RigNight.Of));
        double endS = question.Ask(RigNight.Of).Answer.ReportS[^1], insideC = night.KeptC(question.Rig);

        int swung = 0;
        Guess Swung(string what, Sentence range, string measure, Func<double, RigNight> at, double low, double high)
        {
            question.GoOn(swung++, 9);
            double a = First(at(low)).AtS, b = First(at(high)).AtS;
            return new Guess(what, range, Finite(a), Finite(b), Math.Abs(Math.Min(a, endS) - Math.Min(b, endS)), measure);
        }
        RigNight With(Conditions conditions) => RigNight.Of(question.With(conditions));
        RigNight Drawn(Func<Zone, Zone> zone) => RigNight.Of(question.On(question.Rig with
        {
            Shell =
            question.Rig.Shell with { Zones = [.. question.Rig.Shell.Zones.Select(zone)] }
        }, question.Cancel));
        var guesses = new List<Guess>
        {
            Swung("heat loss of walls", "four fifths to six fifths", "Two thermometers and a heater of known watts, over a cold night", k =>
                RigNight.Of(question, Uncertainty.None with { Walls = k }), 0.8, 1.2),
            Swung("draughts", "half to twice", "Feel around doors and hatches on a windy night; a candle shows small leaks", k =>
            Drawn(z => z.Measured is not null ? z : z with { AirChangesPerHour = Math.Min(1000, z.AirChangesPerHour * k) }), 0.5, 2),
            Swung("heat capacity of rooms", "two thirds to one and a half", "How fast the air cools in the first two hours after the heat is off", k =>
            RigNight.Of(question, Uncertainty.None with { Capacity = k }), 0.67, 1.5),
            Swung("heat loss of pipes and parts", "four fifths to six fifths", "A thermometer on the part itself", k =>
            RigNight.Of(question, Uncertainty.None with { Parts = k }), 0.8, 1.2),
            Swung("how warm it was kept inside", Sentence.Of($"{Measure.Temperature(insideC - 2)} to {Measure.Temperature(insideC + 2)}"),
            "A thermometer where you sit", k => With(night with { InsideC = insideC + k }), -2, 2),
            Swung("water at the start", Sentence.Of($"{Measure.Temperature(Math.Max(0, night.StartWaterC - 3))} to " +
            $"{Measure.Temperature(night.StartWaterC + 3)}"), "A thermometer in the tank", k =>
            With(night with { StartWaterC = Math.Max(0, night.StartWaterC + k) }), -3, 3),
        };
        if (night.Weather is null)
        {
            guesses.Add(Swung("outdoors", Sentence.Of($"{Measure.Temperature(night.OutdoorC - 2)} to {Measure.Temperature(night.OutdoorC + 2)}"),
                "The forecast of the evening", k => With(night with { OutdoorC = night.OutdoorC + k }), -2, 2));
            guesses.Add(Swung("wind", Sentence.Of($"{new Measure(night.WindMPerS / 2, Quantity.Speed)} to " +
                $"{new Measure(Math.Min(60, Math.Max(1, night.WindMPerS * 2)), Quantity.Speed)}"), "The forecast, and whether you are sheltered", k =>
                With(night with { WindMPerS = Math.Min(60, k < 1 ? night.WindMPerS / 2 : Math.Max(1, night.WindMPerS * 2)) }), 0.5, 2));
            guesses.Add(Swung("the sky", "clear to covered", "Look up", k => With(night with { Cloud = k }), 0, 1));
        }
        return new GuessAnswer(name, Finite(base_), [.. guesses.OrderByDescending(g => g.SwingS)], endS);
    }

    private static (double AtS, string? Name) First(RigNight night) => night.FirstBreak() is (_, not null) breaks ? breaks : night.FirstIce();

    private static double? Finite(double value) => double.IsFinite(value) ? value : null;
}
