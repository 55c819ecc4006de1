using WarmConduit.Core.Levels;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Studies.Scenarios;
using WarmConduit.Core.Studies.Tanks;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.LayUp;

/// <summary>With what, and how, a rig is blown out.</summary>
/// <param name="Source">The source of air.</param>
/// <param name="FreeLPerMin">What it gives, L/min, 0 to 2000; left out: what such a source usually does.</param>
/// <param name="TankL">Its tank, L, 0 to 500; left out likewise.</param>
/// <param name="TankBar">Pressure in its tank, bar, 0 to 300; left out likewise.</param>
/// <param name="Rounds">How often each outlet is opened, 1 to 4.</param>
/// <param name="Drained">Drained first; else full.</param>
/// <param name="Skip">Ids of outlets that stay closed; left out: none.</param>
public sealed record BlowOutInput(
    AirSource Source = AirSource.SmallCompressor, double? FreeLPerMin = null, double? TankL = null, double? TankBar = null, int Rounds = 2, bool Drained = true,
    IReadOnlyList<string>? Skip = null) : IStudyInput
{
    /// <inheritdoc/>
    public IReadOnlyList<RigFault> Check(Rig rig)
    {
        var c = new FieldChecker();
        if (!Enum.IsDefined(Source)) c.Add("source", "this source is not known");
        if (FreeLPerMin is { } free) c.Range("freeLPerMin", free, "layUp.freeLPerMin");
        if (TankL is { } tank) c.Range("tankL", tank, "layUp.tankL");
        if (TankBar is { } bar) c.Range("tankBar", bar, "layUp.tankBar");
        c.Range("rounds", Rounds, "layUp.rounds");
        c.Count("skip", Skip?.Count ?? 0, 0, 1000);
        return c.Faults;
    }
}

/// <summary>Blows a rig out: what the air of each outlet sweeps, how well, and what is left.</summary>
public static class BlowOutStudy
{
    // Of the limit; a regulator drifts, and a gauge is read to so much. Cold air, cold water.
    private const double AirC = 5, LimitShare = 0.9;

    // What stays in a swept line after a round, as a share of its bore. Estimates.
    private const double CarriedFilm = 0.01, CarriedLeast = 0.003, PushedFilm = 0.08, PushedLeast = 0.04;

    // Hands between two outlets; a bottle's regulator lets no more through; nobody sees mist sooner. Estimates.
    private const double HandS = 10, BottleLPerMin = 200, LeastRiseM = 0.005, LeastS = 10, Over = 1.02;

    /// <summary>Sources as they usually are. Estimates.</summary>
    public static IReadOnlyList<AirSupply> Usual { get; } =
    [
        new(AirSource.SmallCompressor, "small compressor", 25, 6, 8),
        new(AirSource.WorkshopCompressor, "workshop compressor", 180, 24, 8),
        new(AirSource.FootPump, "foot pump", 12, 0, 0),
        new(AirSource.Bottle, "bottle of air", 0, 10, 200),
    ];

    /// <summary>Asks. Pure. A search of ways for each outlet.</summary>
    public static BlowOutAnswer Ask(Question question, BlowOutInput input)
    {
        var task = question.Tasks.For(TaskKind.BlowOut, question.Cancel);
        var graph = new SweepGraph(question, task);
        var usual = Usual.First(s => s.Source == input.Source);
        var supply = usual with
        {
            FreeLPerMin = input.FreeLPerMin ?? usual.FreeLPerMin,
            TankL = input.TankL ?? usual.TankL,
            TankBar = input.TankBar
            ?? usual.TankBar
        };
        var (limit, by) = Limit(question, task);
        double line = LimitShare * limit;
        var skip = (input.Skip ?? []).ToHashSet();
        var ways = Ordered(question, graph).Where(w => !skip.Contains(w.Opening.Id)).ToList();
        var down = question.Ask(DrainDownStudy.Ask);
        var before = down.Runs.ToDictionary(r => r.RunId, r => input.Drained ? Math.Min(r.StaysL, r.FullL) : r.FullL);
        var steps = new List<BlowStep>();
        var best = new Dictionary<string, AirCarries>();
        var sweeps = graph.Runs.ToDictionary(r => r.Id, _ => new List<string>());
        foreach (var (opening, way) in ways)
        {
            question.Cancel.ThrowIfCancellationRequested();
            var step = StepOf(question, opening, way, supply, line, out var carried);
            steps.Add(step);
            foreach (var (run, carries) in carried)
            {
                sweeps[run].Add(step.Id);
                if (!best.TryGetValue(run, out var known) || carries < known) best[run] = carries;
            }
        }
        RunAir[] runs = [.. graph.Runs.Select(r =>
        {
            double full = FullL(question, r), was = before.GetValueOrDefault(r.Id, full);
            var carries = best.TryGetValue(r.Id, out var c) ? c : AirCarries.None;
            return new RunAir(r.Id, full, was, [.. Enumerable.Range(1, input.Rounds).Select(n => Left(carries, n, full, was))], carries, sweeps[r.Id]);
        })];
        double PartKeeps(PartDrain p) => input.Drained ? p.RetainedL : p.FullL;
        var wet = question.Tasks.Graph.Parts.Where(p => !TankStudy.IsTank(p)).Select(p => p.Id).ToHashSet();
        double shortest = input.Rounds * steps.Sum(s => s.ShortestS + HandS), wait = steps.Sum(s => s.RecoversS ?? 0);
        return new BlowOutAnswer(
            question.Tasks.Goals.GearOf(TaskKind.BlowOut, task.Scenario), task.Fault is null, limit, by, line, supply, Usual,
            [.. Usual.Select(s => Does(question, ways, s, line))], steps, runs,
            runs.Sum(r => r.BeforeL), [.. Enumerable.Range(0, input.Rounds).Select(n => runs.Sum(r => r.AfterL[n]))],
            runs.Where(r => r.Carries == AirCarries.None).Sum(r => r.BeforeL), down.Parts.Where(p => wet.Contains(p.PartId)).Sum(PartKeeps), shortest,
            input.Rounds * (steps.Sum(s => s.LongestS + HandS) + wait), input.Rounds * steps.Sum(s => s.FreeLPerMin * s.ShortestS / 60));
    }

    private static SourceDoes Does(Question question, List<(Opening Opening, SweptWay Way)> ways, AirSupply supply, double lineBar)
    {
        var carried = ways.Where(w => w.Way.Runs.Count > 0).Select(w => StepOf(question, w.Opening, w.Way, supply, lineBar, out _).Carries).ToList();
        return new SourceDoes(supply.Source, supply.Name, carried.Count(c => c == AirCarries.All), carried.Count,
            carried.DefaultIfEmpty(AirCarries.None).Max());
    }

    /// <summary>Openings with what is passed on their ways: hot before cold, the farthest first.</summary>
    internal static IEnumerable<(Opening Opening, SweptWay Way)> Ordered(Question question, SweepGraph graph) =>
        graph.Openings.Select(o => (Opening: o, Way: graph.WayTo(o)))
            .OrderBy(w => w.Opening.Port == "hot" ? 0 : 1).ThenByDescending(w => w.Way.Runs.Sum(r => question.Index.PipeLengthM(r)))
            .ThenBy(w => w.Opening.Id, StringComparer.Ordinal);

    /// <summary>Bore of a run, L.</summary>
    internal static double FullL(Question question, Run run) => 1000 * Catalogue.Pipe(run.Pipe)!.BoreM2() * question.Index.PipeLengthM(run);

    /// <summary>What is left in a run of <paramref name="fullL"/> that held <paramref name="wasL"/>, after <paramref name="round"/> rounds, L.</summary>
    internal static double Left(AirCarries carries, int round, double fullL, double wasL) => carries switch
    {
        AirCarries.All => Math.Min(wasL, fullL * Math.Max(CarriedLeast, CarriedFilm / Math.Pow(3, round - 1))),
        AirCarries.Plugs => Math.Min(wasL, fullL * Math.Max(PushedLeast, PushedFilm / Math.Pow(2, round - 1))),
        _ => wasL,
    };

    /// <summary>Parts and runs that the air presses on while every outlet is shut. O(ways).</summary>
    internal static (IReadOnlyList<Part> Parts, IReadOnlyList<Run> Runs) UnderPressure(Question question, FoundTask task)
    {
        var graph = question.Tasks.Graph;
        var gear = question.Tasks.Goals.GearOf(task.Kind, task.Scenario);
        var came = graph.Reach(gear.Select(g => graph.At(g.PartId, g.Port)), task.Set);
        bool Gets(RunEnd end) => came[graph.At(end.Part!, end.Port!)] is not null;
        return ([.. graph.Parts.Where(p => !TankStudy.IsTank(p) && p.Ports.Any(o => came[graph.At(p.Id, o.Id)] is not null))],
            [.. graph.Runs.Where(r => Gets(r.From) && Gets(r.To))]);
    }

    // The weakest of all that stands under the air's pressure, and the school.
    private static (double Bar, Sentence By) Limit(Question question, FoundTask task)
    {
        bool low = question.Rig.Brief.Chosen().Air == AirSchool.Psi25;
        double school = (low ? 25 : 30) * UnitTable.PsiPa / 1e5;
        var (parts, runs) = UnderPressure(question, task);
        var pressed = parts.Select(p => (p.Name, Bar: Catalogue.Part(p.Stock)!.RatedBar));
        var pipes = runs.Select(r => (r.Name, Bar: (double?)Catalogue.Pipe(r.Pipe)!.RatedBar));
        var weakest = pressed.Concat(pipes).Where(p => p.Bar is not null).OrderBy(p => p.Bar).FirstOrDefault();
        return weakest.Bar is { } bar && bar < school ? (bar, $"the rating of {weakest.Name}") : (school, $"the school of {(low ? 25 : 30)} psi");
    }

    private static BlowStep StepOf(Question question, Opening opening, SweptWay way, AirSupply supply, double lineBar, out List<(string Run,
        AirCarries)> carried)
    {
        double water = Water.DensityKgPerM3(AirC);
        // Each run has to lift its own water and let pass what comes from before it.
        double[] bores = [.. way.Runs.Select(r => Catalogue.Pipe(r.Pipe)!.InnerDiameterM)];
        bool[] rises = [.. way.Runs.Select((r, i) => Rises(question, r, way.Forward[i]))];
        double[] share = [.. way.Runs.Select(r => way.Only.Contains(r.Id) ? 1.0 : 0.5)];
        double path = way.Runs.Sum(r => FullL(question, r)) + way.Parts.Sum(PartWater.HoldsL);
        double Need(int i) => AirLift.NeedsLPerMin(bores[i], lineBar, AirC, water) / share[i];
        int worst = Enumerable.Range(0, bores.Length).Where(i => rises[i]).OrderByDescending(Need).FirstOrDefault(-1);
        double needs = worst < 0 ? 0 : Need(worst), dense = (SmallSums.AtmosphereBar + lineBar) / SmallSums.AtmosphereBar;
        double endless = supply.FreeLPerMin, stored = Math.Max(0, supply.TankL * (supply.TankBar - lineBar) / SmallSums.AtmosphereBar), given = endless;
        double? lasts = null, recovers = null;
        double Seconds(double free) => free <= 0 || path <= 0 ? 0 : Math.Max(LeastS, 2 * 60 * path * dense / free);
        // The tank gives more for a while: as long as this outlet takes, or it is no help.
        double wish = supply.Source == AirSource.Bottle ? BottleLPerMin : Math.Max(Over * needs, endless);
        if (stored > 0 && wish > endless)
        {
            double s = 60 * stored / (wish - endless);
            if (s >= Seconds(wish))
            {
                (given, lasts) = (wish, s);
                recovers = endless > 0 ? 60 * (wish - endless) * Seconds(wish) / 60 / endless : null;
            }
        }
        double Number(int i) => AirLift.Number(bores[i], share[i] * given, lineBar, AirC, water);
        carried = [];
        var after = AirCarries.All;
        for (int i = way.Runs.Count - 1; i >= 0; i--)
        {
            if (rises[i] && AirLift.Carries(Number(i)) is var own && own > after) after = own;
            carried.Add((way.Runs[i].Id, after));
        }
        double shortest = Seconds(given);
        return new BlowStep(
            opening.Id, opening.Tap.Id, opening.Port, opening.Name, [.. way.Runs.Select(r => r.Id)], path, worst < 0 ? 0 : bores[worst], needs, given,
            worst < 0 ? 0 : Number(worst), after, shortest, 2 * shortest, lasts, recovers);
    }

    // Water in it has to be lifted on the way that the air takes; what is level counts as well, since nothing else moves it.
    private static bool Rises(Question question, Run run, bool forward)
    {
        var parked = question.Conditions.Parked;
        double[] heights = [.. question.Index.CourseOf(run).Select(parked.HeightM)];
        if (!forward) Array.Reverse(heights);
        double lowest = double.MaxValue;
        bool falls = true;
        foreach (double h in heights)
        {
            if (h > lowest + LeastRiseM) return true;
            if (h >= lowest - LeastRiseM && lowest < double.MaxValue) falls = false;
            lowest = Math.Min(lowest, h);
        }
        return !falls;
    }
}
