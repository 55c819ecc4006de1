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
        var states = new Dictionary<string, (LaidCircuit? Circuit, List<NightWindow> Windows, Lazy<Cooling> Cooling)>();
        var warmUps = new List<WarmUp>();
        double lastS = double.NegativeInfinity;
        foreach (var (window, rests) in Stretches(pumps))
        {
            string key = string.Join(' ', rests.Order(StringComparer.Ordinal));
            if (!states.TryGetValue(key, out var state))
            {
                var laid = Laid(RigHeat.During(question, segment, rests.Contains), [], Lay);
                states[key] = state = (laid, [], new(() => new Cooling(question, segment, laid!)));
            }
            if (state.Circuit is null) continue;
            double warmS = window.FromS > lastS && double.IsFinite(window.FromS)
                ? state.Cooling.Value.WarmsUp(segment, window, window.FromS - lastS, warmUps) : 0;
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

    /// <summary>What a circuit loses in a rest, and what warms it up again; read once for all its starts.</summary>
    private sealed class Cooling
    {
        private readonly List<(double JPerK, double WPerK)> _lines = [];
        private readonly Part[] _sources;
        private readonly double _partsJPerK, _hotterK;

        public Cooling(Question question, NightSegment segment, LaidCircuit laid)
        {
            _sources = [.. laid.Heat.Sources().Where(s => s.Heats().IsEngine || segment.Feeds(s))];
            _hotterK = Math.Max(0, (laid.Heat.SupplyC() ?? double.NegativeInfinity) - question.Conditions.Steady().OutdoorC);
            double perM3 = laid.Heat.KgPerM3 * laid.Heat.JPerKgK;
            foreach (var length in Enumerable.Range(0, laid.Pieces.Count).Where(n => laid.Pieces[n].RunId is not null)
                .GroupBy(n => (laid.Pieces[n].RunId, laid.Pieces[n].FromM, laid.Pieces[n].ToM), n => laid.Circuit.Reaches[n].ConductanceWPerK))
            {
                var run = question.Index.Run(length.Key.RunId!);
                var (pipe, course) = (Catalogue.Pipe(run.Pipe)!, question.Index.CourseOf(run));
                double drawn = Enumerable.Range(1, course.Length - 1).Sum(i => course[i].DistanceM(course[i - 1])),
                    metres = Math.Abs(length.Key.ToM - length.Key.FromM) * (drawn > 0 ? question.Index.PipeLengthM(run) / drawn : 1);
                _lines.Add((((pipe.BoreM2() * perM3) + pipe.WallJPerMK()) * metres, length.Sum()));
            }
            _partsJPerK = laid.Pieces.Select(p => p.PartId).OfType<string>().Distinct().Select(question.Index.Part).Where(p => !p.Heats().IsEngine)
                .Sum(p => (PartWater.HoldsL(p) / 1000 * perM3) + ((p.MassKg ?? Catalogue.Part(p.Stock)!.MassKg) * PartJPerKgK));
        }

        /// <summary>How long it takes at full after a rest; adds what it takes of each source here. O(lengths).</summary>
        public double WarmsUp(NightSegment segment, NightWindow window, double restS, List<WarmUp> warmUps)
        {
            double power = _sources.Sum(s => s.Heats().PowerW ?? 0);
            if (power <= 0) return 0;
            double lasts = Math.Min(CooledJPerK(restS) * _hotterK / power, window.ToS - window.FromS);
            // Of a start in an earlier segment, what is left of it.
            var here = new NightWindow(Math.Max(window.FromS, segment.FromS), Math.Min(window.FromS + lasts, segment.ToS));
            foreach (var source in _sources.Where(s => !s.Heats().IsEngine && here.ToS > here.FromS))
                warmUps.Add(new WarmUp(here, source.Id, source.Heats().PowerW!.Value * (here.ToS - here.FromS) / 3600, window.FromS >= segment.FromS));
            return lasts;
        }

        // For each kelvin that it is hotter than outdoors: of a line C (1 - e^(-G t / C)), of its fluid and wall; of a part all, of its fluid and mass.
        private double CooledJPerK(double restS)
        {
            double sum = _partsJPerK;
            foreach (var (holds, loses) in _lines)
                if (holds > 0 && loses > 0) sum += holds * (1 - Math.Exp(-loses * restS / holds));
            return sum;
        }
    }
}
