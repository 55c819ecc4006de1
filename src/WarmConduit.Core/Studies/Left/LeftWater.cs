using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.DrainDown;

namespace WarmConduit.Core.Studies.Left;

/// <summary>A part, the water in it that ice can do something to, and with what is safe in antifreeze all of it, L.</summary>
internal readonly record struct LeftInPart(PartDrain Drain, double Litres, double AllL);

/// <summary>What every run and part holds at the start of a night: full, drained as the drain scenario has it, or as it was left.</summary>
internal sealed class LeftWater
{
    private readonly Question _question;
    private readonly IReadOnlyDictionary<string, double> _glycol;
    private readonly bool _inUse;

    private LeftWater(Question question, bool inUse, IReadOnlyList<RunDrain> runs, IReadOnlyList<LeftInPart> parts, IReadOnlyList<JugReading> readings,
        IReadOnlyDictionary<string, double> glycol) =>
        (_question, _inUse, Runs, Parts, Readings, _glycol) = (question, inUse, runs, parts, readings, glycol);

    /// <summary>Every run with the water in it, in order of id.</summary>
    public IReadOnlyList<RunDrain> Runs { get; }

    /// <summary>Every part that holds water when full.</summary>
    public IReadOnlyList<LeftInPart> Parts { get; }

    /// <summary>What jugs took, where they were held under.</summary>
    public IReadOnlyList<JugReading> Readings { get; }

    /// <summary>Whether run number <paramref name="run"/> is a drinking-water line that is full from end to end.</summary>
    public bool Full(int run) => _question.Rig.Runs[run].Service is Service.Cold or Service.Hot && (_inUse || ShutIn(Runs[run]));

    // Nothing that was opened lets its water out: it is as full as in use.
    private static bool ShutIn(RunDrain run) => run.RouteEnd is null && run.PoolL > 0 && run.PoolL >= run.FullL * (1 - 1e-9);

    /// <summary>Litres in run number <paramref name="run"/>.</summary>
    public double LitresIn(int run) => Full(run) ? Runs[run].FullL : Runs[run].StaysL;

    /// <summary>Propylene glycol in the water of <c>runs/main</c> or <c>parts/pump</c>, share of the volume.</summary>
    public double Glycol(string thing) => _glycol.GetValueOrDefault(thing);

    /// <summary>
    /// Of the question's <see cref="WaterState"/>. As it was left: with nothing opened it is full; with all opened that the scenario opens, drained. In between
    /// it stands as after those steps, and where a jug took less than it should, what that step empties holds what it held before it. Pure. O(drain-down), and
    /// two more for each jug.
    /// </summary>
    public static LeftWater Of(Question question)
    {
        var none = new Dictionary<string, double>();
        if (question.Conditions.Water == WaterState.Wet) return InUse(question, none);
        if (question.Conditions.Water == WaterState.Drained) return Stays(question, question.Ask(DrainDownStudy.Ask), [], none);
        var acts = new LeftActs(question);
        var glycol = acts.Glycol();
        var films = acts.Films();
        if (acts.Nothing && films.Count == 0) return InUse(question, glycol);
        var readings = acts.Readings().ToList();
        var drained = acts.Everything ? question.Ask(DrainDownStudy.Ask) : acts.All().Drained;
        foreach (var reading in readings.Where(r => r.IsShort))
        {
            var (before, after) = acts.Around(reading.PartId);
            drained = Worse(drained, before.Drained, after.Drained);
        }
        return Stays(question, Blown(drained, films), readings, glycol);
    }

    // A run that air went through holds a film, and no more than it held before.
    private static DrainDownAnswer Blown(DrainDownAnswer drained, Dictionary<string, double> films) => films.Count == 0 ? drained : drained with
    {
        Runs = [.. drained.Runs.Select(r => films.TryGetValue(r.RunId, out double film) && film * r.FullL < r.StaysL ? r.Swept(film * r.FullL) : r)],
    };

    private static LeftWater InUse(Question question, IReadOnlyDictionary<string, double> glycol)
    {
        var drained = question.Ask(DrainDownStudy.Ask);
        LeftInPart Full(PartDrain part)
        {
            double litres = PartWater.AtStartL(question.Index.Part(part.PartId), question.Conditions);
            return new LeftInPart(part, litres, litres);
        }
        return new LeftWater(question, true, drained.Runs, [.. drained.Parts.Select(Full)], [], glycol);
    }

    private static LeftWater Stays(Question question, DrainDownAnswer drained, IReadOnlyList<JugReading> readings,
        IReadOnlyDictionary<string, double> glycol) =>
        new(question, false, drained.Runs, [.. drained.Parts.Select(p => new LeftInPart(p, p.FreezesL, p.RetainedL))], readings, glycol);

    // What a step did not empty for certain is as it was before it.
    private static DrainDownAnswer Worse(DrainDownAnswer now, DrainDownAnswer before, DrainDownAnswer after) => now with
    {
        Runs = [.. now.Runs.Select((r, i) => before.Runs[i].StaysL > Math.Max(r.StaysL, after.Runs[i].StaysL + TradeConstants.DryRunL) ? before.Runs[i] : r)],
        Parts = [.. now.Parts.Select((p, i) => before.Parts[i].FreezesL > Math.Max(p.FreezesL, after.Parts[i].FreezesL + TradeConstants.DryRunL)
        ? before.Parts[i] : p)],
    };
}
