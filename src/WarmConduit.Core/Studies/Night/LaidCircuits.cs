using WarmConduit.Core.Heat.Night;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Networks;

namespace WarmConduit.Core.Studies.Night;

/// <summary>The circuits of a rig while the same pumps run: reaches, with the windows in which they do, what each of them is, and their flow.</summary>
internal sealed record LaidCircuit(NightCircuit Circuit, IReadOnlyList<HeatPiece> Pieces, RigHeat Heat);

/// <summary>A pump of the circuits, and when it runs.</summary>
internal sealed record LaidPump(string PartId, IReadOnlyList<NightWindow> Runs);

/// <summary>Fluid that is warmed up again after a rest, by a source, in a segment of a night.</summary>
/// <param name="During">When.</param>
/// <param name="PartId">The source.</param>
/// <param name="Wh">What that takes of it.</param>
/// <param name="Starts">It begins here, and not in the segment before.</param>
internal readonly record struct WarmUp(NightWindow During, string PartId, double Wh, bool Starts);

/// <summary>
/// The circuits of a rig in a segment of a night, one for each set of pumps that run together. The engine's fluid holds no heat; where it stood still and has
/// to be hot again, that is counted here, on the late side: lines cool towards outdoors meanwhile, parts are as cold as that at once, and all of it is
/// warmed by its sources at full before anything else is.
/// </summary>
internal sealed class LaidCircuits
{
    public static readonly LaidCircuits None = new([], [], [], _ => default);

    /// <summary>Rooms are warmed by the half day before, s.</summary>
    public const double BeforeS = 12 * 3600;

    // Metal takes 0.4 to 0.9 kJ/kgK, plastic up to 1.9. Estimate.
    private const double PartJPerKgK = 1000;

    private readonly Func<RigHeat, (IReadOnlyList<NightReach> Reaches, IReadOnlyList<HeatPiece> Pieces)> _lay;

    private LaidCircuits(IReadOnlyList<LaidCircuit> all, IReadOnlyList<LaidPump> pumps, IReadOnlyList<WarmUp> warmUps,
        Func<RigHeat, (IReadOnlyList<NightReach>, IReadOnlyList<HeatPiece>)> lay) => (All, Pumps, WarmUps, _lay) = (all, pumps, warmUps, lay);

    /// <summary>Those with flow.</summary>
    public IReadOnlyList<LaidCircuit> All { get; }

    /// <summary>Pumps that run at some time.</summary>
    public IReadOnlyList<LaidPump> Pumps { get; }

    /// <summary>Warming up after rests.</summary>
    public IReadOnlyList<WarmUp> WarmUps { get; }

    /// <summary>Whether a pump is switched on and off.</summary>
    public bool Switched => All.Any(c => c.Circuit.PumpOn is not [var window] || window != NightWindow.Always);

    /// <summary>Lays the circuits of a segment over what holds water; none where their pumps rest.</summary>
    public static LaidCircuits Of(Question question, IReadOnlyList<FreezeCandidate> candidates, NightSegment segment, Uncertainty doubt)
    {
        var pumps = segment.Heating.Pumps ? PumpsOf(question, segment) : [];
        var lines = candidates.Where(f => f.Taped).ToLookup(f => f.Thing, f => new TracedLine(f.Id, f.AlongM, f.AlongM + f.LengthM));
        var bodies = candidates.Select(f => f.Id).ToHashSet();
        (IReadOnlyList<NightReach>, IReadOnlyList<HeatPiece>) Lay(RigHeat heat) => heat.Reaches(
            bodies, lines, z => z is null ? "outdoor" : RigNetwork.IdOf(z), segment.Feeds, segment.HoldC, doubt.Parts, 1 / doubt.Parts);

        // By the pumps that rest.
        var states = new Dictionary<string, (LaidCircuit? Circuit, List<NightWindow> Windows)>();
        var warmUps = new List<WarmUp>();
        double lastS = double.NegativeInfinity;
        foreach (var (window, rests) in Stretches(pumps))
        {
            string key = string.Join(' ', rests.Order(StringComparer.Ordinal));
            if (!states.TryGetValue(key, out var state)) states[key] = state = (Laid(RigHeat.During(question, segment, rests.Contains), [], Lay), []);
            if (state.Circuit is not { } circuit) continue;
            double warmS = window.FromS > lastS ? WarmsUp(question, segment, circuit, window, window.FromS - lastS, warmUps) : 0;
            lastS = window.ToS;
            if (window.ToS - warmS > window.FromS) state.Windows.Add(window with { FromS = window.FromS + warmS });
        }
        return new LaidCircuits([.. states.Values.Where(s => s.Windows.Count > 0).Select(s => s.Circuit! with
        {
            Circuit = s.Circuit.Circuit with { PumpOn = s.Windows },
        })], pumps, warmUps, Lay);
    }

    /// <summary>The same with fluid of about <paramref name="celsius"/>; null: its flow is near enough to this.</summary>
    public LaidCircuits? At(double celsius)
    {
        var then = All.Select(c => c.Heat.At(celsius)).ToList();
        return then.All(h => h is null) ? null : new LaidCircuits(
            [.. All.Select((c, i) => then[i] is { } heat ? Laid(heat, c.Circuit.PumpOn, _lay) : c).OfType<LaidCircuit>()], Pumps, WarmUps, _lay);
    }

    /// <summary>The circuits as they were in the half day before the night, which starts then.</summary>
    public IEnumerable<NightCircuit> Before() => All.Select(c => c.Circuit with
    {
        PumpOn = [.. c.Circuit.PumpOn.Select(w => new NightWindow(w.FromS + BeforeS, w.ToS + BeforeS))],
    });

    /// <summary>The fluid on average in a night's answer, °C; NaN: nothing flows.</summary>
    public static double MeanC(NightAnswer answer) =>
        answer.Circuits.SelectMany(c => c.Rows).SelectMany(r => r.InC).Where(c => !double.IsNaN(c)).DefaultIfEmpty(double.NaN).Average();

    private static LaidCircuit? Laid(RigHeat heat, IReadOnlyList<NightWindow> windows,
        Func<RigHeat, (IReadOnlyList<NightReach>, IReadOnlyList<HeatPiece>)> lay) => lay(heat) is var (reaches, pieces) && reaches.Count > 0
        ? new LaidCircuit(new NightCircuit("circuit", heat.JPerKgK, reaches, windows), pieces, heat) : null;

    private static IReadOnlyList<LaidPump> PumpsOf(Question question, NightSegment segment) =>
        [.. RigHeat.Of(question).Net.Drives.Select(d => question.Index.Part(d.PartId)).Where(p => !segment.Failed.Contains(p.Id))
            .Select(p => new LaidPump(p.Id, PumpHours.Of(p, question.Conditions, segment.FromS - BeforeS, segment.ToS)))];

    // Between the times at which a pump starts or stops, what rests.
    private static IEnumerable<(NightWindow Window, IReadOnlySet<string> Rests)> Stretches(IReadOnlyList<LaidPump> pumps)
    {
        double[] edges = [.. pumps.SelectMany(p => p.Runs).SelectMany(w => (double[])[w.FromS, w.ToS])
            .Append(double.NegativeInfinity).Append(double.PositiveInfinity).Distinct().Order()];
        var next = new int[pumps.Count];
        for (int e = 1; e < edges.Length; e++)
        {
            var rests = new HashSet<string>();
            for (int p = 0; p < pumps.Count; p++)
            {
                var runs = pumps[p].Runs;
                while (next[p] < runs.Count && runs[next[p]].ToS <= edges[e - 1]) next[p]++;
                if (next[p] == runs.Count || runs[next[p]].FromS > edges[e - 1]) rests.Add(pumps[p].PartId);
            }
            yield return (new NightWindow(edges[e - 1], edges[e]), rests);
        }
    }

    // How long it takes at full after a rest, and what of each source.
    private static double WarmsUp(Question question, NightSegment segment, LaidCircuit laid, NightWindow window, double restS, List<WarmUp> warmUps)
    {
        var sources = laid.Heat.Sources().Where(s => s.Heats().IsEngine || segment.Feeds(s)).ToList();
        double power = sources.Sum(s => s.Heats().PowerW ?? 0);
        if (power <= 0 || double.IsInfinity(window.FromS) || laid.Heat.SupplyC() is not { } supply) return 0;
        double joule = CooledJPerK(question, laid, restS) * Math.Max(0, supply - question.Conditions.Steady().OutdoorC);
        double lasts = Math.Min(joule / power, window.ToS - window.FromS);
        // Of a start in an earlier segment, what is left of it.
        var here = new NightWindow(Math.Max(window.FromS, segment.FromS), Math.Min(window.FromS + lasts, segment.ToS));
        foreach (var source in sources.Where(s => !s.Heats().IsEngine && here.ToS > here.FromS))
            warmUps.Add(new WarmUp(here, source.Id, source.Heats().PowerW!.Value * (here.ToS - here.FromS) / 3600, window.FromS >= segment.FromS));
        return lasts;
    }

    /// <summary>What a circuit has lost in a rest, for each kelvin that it is hotter than outdoors, J/K: of a length C (1 - e^(-G t / C)), of its fluid and
    /// wall; of a part all, of its fluid and its mass.</summary>
    internal static double CooledJPerK(Question question, LaidCircuit laid, double restS)
    {
        double perM3 = laid.Heat.KgPerM3 * laid.Heat.JPerKgK, sum = 0;
        var lost = Enumerable.Range(0, laid.Pieces.Count).Where(n => laid.Pieces[n].RunId is not null)
            .GroupBy(n => (laid.Pieces[n].RunId, laid.Pieces[n].FromM, laid.Pieces[n].ToM), n => laid.Circuit.Reaches[n].ConductanceWPerK);
        foreach (var length in lost)
        {
            var run = question.Index.Run(length.Key.RunId!);
            var (pipe, course) = (Catalogue.Pipe(run.Pipe)!, question.Index.CourseOf(run));
            double drawn = Enumerable.Range(1, course.Length - 1).Sum(i => course[i].DistanceM(course[i - 1])),
                metres = Math.Abs(length.Key.ToM - length.Key.FromM) * (drawn > 0 ? question.Index.PipeLengthM(run) / drawn : 1),
                holds = ((pipe.BoreM2() * perM3) + pipe.WallJPerMK()) * metres;
            if (holds > 0 && length.Sum() is > 0 and var loses) sum += holds * (1 - Math.Exp(-loses * restS / holds));
        }
        foreach (string id in laid.Pieces.Select(p => p.PartId).OfType<string>().Distinct())
            if (question.Index.Part(id) is var part && !part.Heats().IsEngine)
                sum += (PartWater.HoldsL(part) / 1000 * perM3) + ((part.MassKg ?? Catalogue.Part(part.Stock)!.MassKg) * PartJPerKgK);
        return sum;
    }
}
