using WarmConduit.Core.Levels;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Scenarios;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.LayUp;

/// <summary>A simulated compressor on the lines of a rig: its regulator, and one outlet that is opened or not.</summary>
/// <param name="Air">The source, as the blow-out has it; left out: a small compressor.</param>
/// <param name="RegulatorBar">What its regulator is set to, bar, 0 to 300; left out: what the blow-out counts on.</param>
/// <param name="OutletId">The outlet that is opened, so far that it takes what the blow-out counts on; left out: none is.</param>
/// <param name="ForS">How long, s, 1 to 600.</param>
public sealed record CompressorInput(BlowOutInput? Air = null, double? RegulatorBar = null, string? OutletId = null, double ForS = 60) : IStudyInput
{
    /// <inheritdoc/>
    public IReadOnlyList<RigFault> Check(Rig rig)
    {
        var c = new FieldChecker();
        if (RegulatorBar is { } bar) c.Range("regulatorBar", bar, "layUp.tankBar");
        c.Range("forS", ForS, "layUp.forS");
        return [.. c.Faults, .. (Air?.Check(rig) ?? []).Select(f => f with { Path = $"air.{f.Path}" })];
    }
}

/// <summary>The gauges at a moment.</summary>
/// <param name="S">Seconds from the start.</param>
/// <param name="TankBar">Pressure in the tank, bar.</param>
/// <param name="LineBar">Pressure in the lines, bar.</param>
/// <param name="FreeLPerMin">What leaves by the outlet, L/min of air at the pressure outside.</param>
/// <param name="Carries">What that does to water in the widest riser on its way.</param>
/// <param name="Runs">Its motor runs.</param>
public sealed record Gauges(double S, double TankBar, double LineBar, double FreeLPerMin, AirCarries Carries, bool Runs);

/// <summary>What the gauges showed. Free litres are at the pressure outside.</summary>
/// <param name="Gauges">One a second.</param>
/// <param name="RegulatorBar">What the regulator was set to, bar.</param>
/// <param name="MadeL">What the motor made, L.</param>
/// <param name="LeftL">What left by the outlet, L.</param>
/// <param name="StoredL">What tank and lines hold more in the end than at the start, L; negative: less.</param>
/// <param name="HighestBar">The highest pressure in the lines, bar.</param>
/// <param name="LimitBar">What they stand, bar.</param>
/// <param name="Words">What happened.</param>
/// <param name="Fault">It was a mistake.</param>
public sealed record CompressorAnswer(
    IReadOnlyList<Gauges> Gauges, double RegulatorBar, double MadeL, double LeftL, double StoredL, double HighestBar, double LimitBar, Sentence Words,
        bool Fault);

/// <summary>A compressor that stands in for a real one: what its mistakes do is seen here, and breaks nothing.</summary>
public static class CompressorStudy
{
    // The motor starts again at this share of its full tank; a hose and its regulator let no more through. Estimates.
    private const double StartShare = 0.75, HoseLPerMin = 600, AirC = 5,
        StepS = 0.02, LeastBar = 1e-4, LeastLinesL = 0.1;

    /// <summary>Asks. Pure. 50 steps a second.</summary>
    public static CompressorAnswer Ask(Question question, CompressorInput input)
    {
        var air = BlowOutStudy.Ask(question, input.Air ?? new BlowOutInput());
        var step = air.Steps.FirstOrDefault(s => s.Id == input.OutletId && s.RunIds.Count > 0);
        double regulator = input.RegulatorBar ?? air.LineBar;
        double linesL = Math.Max(LeastLinesL, BlowOutStudy.UnderPressure(question, question.Tasks.For(TaskKind.BlowOut, question.Cancel)).Runs
            .Sum(r => BlowOutStudy.FullL(question, r)));
        var (tankL, full, free) = (air.Supply.TankL, air.Supply.TankBar, air.Supply.FreeLPerMin);
        double inTank = Free(tankL, full), inLine = Free(linesL, 0), atFirst = inTank + inLine, made = 0, left = 0, highest = 0;
        bool runs = tankL <= 0;
        var gauges = new List<Gauges>();
        int steps = (int)Math.Ceiling(input.ForS / StepS);
        for (int i = 0; i <= steps; i++)
        {
            double tankBar = Bar(inTank, tankL), lineBar = Bar(inLine, linesL), leaves = step is null ? 0 : Outflow(lineBar, step.FreeLPerMin, air.LineBar);
            highest = Math.Max(highest, lineBar);
            if (i % (int)Math.Round(1 / StepS) == 0)
                gauges.Add(new Gauges(i * StepS, tankBar, lineBar, leaves, step is null ? AirCarries.None : step.WidestM <= 0 ? AirCarries.All
                    : AirLift.Carries(AirLift.Number(step.WidestM, leaves, lineBar, AirC, Water.DensityKgPerM3(AirC))), runs));
            if (i == steps) break;
            if (tankL > 0) runs = free > 0 && (runs ? tankBar < full : tankBar < StartShare * full);
            // Without a tank it presses into the lines, as far as its regulator lets it.
            double motor = runs ? free / 60 * StepS : 0, wish = Math.Max(0, Free(linesL, regulator) - inLine);
            if (tankL <= 0) motor = Math.Min(motor, wish);
            double passes = tankL <= 0 ? motor : Math.Min(Math.Min(wish, HoseLPerMin / 60 * StepS), Math.Max(0, Levelled(inTank, tankL, inLine, linesL)));
            double goes = Math.Min(leaves / 60 * StepS, Math.Max(0, inLine + passes - Free(linesL, 0)));
            inTank += (tankL <= 0 ? 0 : motor) - (tankL <= 0 ? 0 : passes);
            inLine += passes - goes;
            (made, left) = (made + motor, left + goes);
        }
        var (words, fault) = Told(air, step, gauges, regulator, highest);
        return new CompressorAnswer(gauges, regulator, made, left, inTank + inLine - atFirst, highest, air.LimitBar, words, fault);
    }

    private static (Sentence Words, bool Fault) Told(BlowOutAnswer air, BlowStep? step, List<Gauges> gauges, double regulator, double highest)
    {
        if (highest > air.LimitBar + 0.01)
            return (Sentence.Of($"The lines stood at {Measure.Pressure(highest * 1e5)}, and their limit is {Measure.Pressure(air.LimitBar * 1e5)}: ")
                .And(Sentence.Of($"{air.LimitBy.Text}. The regulator was open to {Measure.Pressure(regulator * 1e5)}.")), true);
        if (step is null) return ("No outlet is open: the lines stand under the pressure of the regulator, and nothing moves.", true);
        if (regulator < LeastBar) return ("The regulator is shut: nothing moves.", true);
        var first = gauges.FirstOrDefault(g => g.S >= 1);
        var worse = gauges.FirstOrDefault(g => first is not null && g.S > first.S && g.Carries > first.Carries);
        if (worse is not null)
            return (Sentence.Of($"After {(int)Math.Round(worse.S)} seconds the tank has run down to {Measure.Pressure(worse.TankBar * 1e5)}: what water " +
                $"is left " +
                $"stays. ")
                .And("Close the outlet and let the tank fill."), true);
        return gauges[^1].Carries == AirCarries.All ? ("The air lifts the water all the while.", false)
            : ("The air does not lift the water: a wider line than this source is good for.", true);
    }

    // An opening that takes what the blow-out counts on at its pressure: free air by the root of density and pressure, L/min.
    private static double Outflow(double lineBar, double countedLPerMin, double countedBar) => lineBar < LeastBar || countedBar < LeastBar ? 0
        : countedLPerMin * Math.Sqrt(AirLift.DensityKgPerM3(lineBar, AirC) * lineBar / (AirLift.DensityKgPerM3(countedBar, AirC) * countedBar));

    // What would pass until both stand at one pressure.
    private static double Levelled(double inTank, double tankL, double inLine, double linesL) => inTank - ((inTank + inLine) * tankL / (tankL + linesL));

    private static double Free(double litres, double bar) => litres * (SmallSums.AtmosphereBar + bar) / SmallSums.AtmosphereBar;

    private static double Bar(double free, double litres) => litres <= 0 ? 0 : Math.Max(0, (free / litres - 1) * SmallSums.AtmosphereBar);
}
