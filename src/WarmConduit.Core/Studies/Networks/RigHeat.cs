using WarmConduit.Core.Flow;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Heat;
using WarmConduit.Core.Heat.Night;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.Networks;

/// <summary>What a reach of a circuit is in the rig.</summary>
/// <param name="RunId">The run that it is a length of; null: a part.</param>
/// <param name="PartId">The part; null: a run.</param>
/// <param name="FromM">Where on its run the fluid enters it, m from the run's start.</param>
/// <param name="ToM">Where the fluid leaves it.</param>
/// <param name="Traced">The body that it warms as a trace; null: none.</param>
internal readonly record struct HeatPiece(string? RunId, string? PartId, double FromM, double ToM, string? Traced);

/// <summary>
/// The heating circuits of a rig: what flows where with its valves and pumps as they stand, and every length and part that gives or takes heat on the way. The
/// flow is worked out once, of fluid at <see cref="FluidC"/>; colder fluid is thicker and flows less, which is told beside it.
/// </summary>
internal sealed class RigHeat
{
    /// <summary>Fluid for which flows are worked out, °C.</summary>
    public const double FluidC = 60;

    // Longer than this the fluid along a trace is told anew; less flow than this share of the most is none.
    private const double TraceLengthM = 1, AtRest = 1e-6, LeastKgPerS = 1e-5;

    private readonly Question _question;
    private readonly RigFlow _net;
    private readonly double _kgPerM3;
    private readonly Scenario _mode;
    private readonly LineLosses _losses;
    private readonly Dictionary<string, int> _number;

    private RigHeat(Question question)
    {
        _question = question;
        Glycol = question.Rig.Brief.Chosen().CoolantGlycol ?? BriefChoices.UsualCoolantGlycol;
        _number = question.Rig.Runs.Select((r, i) => (r.Id, i)).ToDictionary(r => r.Id, r => r.i);
        var fluid = Fluid(Glycol, FluidC);
        (_kgPerM3, JPerKgK) = (fluid.DensityKgPerM3, fluid.HeatCapacityJPerKgK);
        _losses = new LineLosses(question, FluidC);
        _mode = question.Conditions.Heating(question.Rig);
        _net = new RigFlow(question, new FlowScene(_mode.PositionOf, false, _ => 1, FluidC, FluidC, FluidC, Coolant: fluid));
        if (_net.Drives.Count > 0) Flow = FlowSolver.Solve(_net.Network);
    }

    /// <summary>Volume fraction of glycol in the fluid.</summary>
    public double Glycol { get; }

    /// <summary>Heat capacity of the fluid, J/kgK.</summary>
    public double JPerKgK { get; }

    /// <summary>Flows; null: no pump is in a circuit.</summary>
    public FlowAnswer? Flow { get; }

    /// <summary>The network, and what its elements are.</summary>
    public RigFlow Net => _net;

    /// <summary>The rig's circuits, once for a question.</summary>
    public static RigHeat Of(Question question) => question.Ask(q => new RigHeat(q));

    /// <summary>Glycol and water of a volume fraction at a temperature.</summary>
    public static FluidState Fluid(double glycol, double celsius)
    {
        double x = GlycolWater.MassFraction(glycol);
        return new FluidState(GlycolWater.DensityKgPerM3(x, celsius), GlycolWater.ViscosityPaS(x, celsius), GlycolWater.HeatCapacityJPerKgK(x, celsius));
    }

    /// <summary>Watts per kelvin and metre between a trace and its line.</summary>
    public static double ContactWPerMK(TraceKind kind) => kind switch
    {
        TraceKind.AluminiumTape => TraceContact.AluminiumTapeWPerMK,
        TraceKind.SpreadingPlate => TraceContact.SpreadingPlateWPerMK,
        _ => TraceContact.PlainPlasticWPerMK,
    };

    /// <summary>
    /// The circuits as the night has them, over <paramref name="bodies"/> (by id) and rooms named by <paramref name="zone"/> (null: outdoors); empty where
    /// nothing flows. <paramref name="lines"/>: taped lengths with water, by run; <paramref name="burns"/>: heaters
    /// have what they run on. <paramref name="lost"/> and <paramref name="got"/> are factors
    /// on what is lost on the way and on what arrives; <paramref name="holdC"/>: what rooms are held at for now, at the most.
    /// </summary>
    public (IReadOnlyList<NightCircuit> Circuits, IReadOnlyList<HeatPiece> Pieces) Circuits(
        IReadOnlySet<string> bodies, ILookup<string, TracedLine> lines, Func<string?, string> zone, bool burns, double? holdC,
        double lost, double got)
    {
        if (Flow is null) return ([], []);
        var (reaches, pieces) = (new List<NightReach>(), new List<HeatPiece>());
        double most = Flow.FlowM3PerS.Max(Math.Abs);
        if (most * _kgPerM3 < LeastKgPerS) return ([], []);
        for (int e = 0; e < _net.Network.Edges.Count; e++)
        {
            double q = Flow.FlowM3PerS[e];
            if (Math.Abs(q) < AtRest * most) continue;
            var edge = _net.Network.Edges[e];
            var (from, to) = q > 0 ? (edge.From, edge.To) : (edge.To, edge.From);
            double kg = Math.Abs(q) * _kgPerM3;
            // What a part does with heat lies between what comes to it and what leaves it.
            string into = Acts(to) ? Before(to) : to;
            if (_net.Pieces[e].RunId is { } run) AddRun(run, q < 0, from, into, kg);
            else Add(new NightReach(edge.Id, from, into, kg), new HeatPiece(null, _net.Pieces[e].PartId, 0, 0, null));
        }
        foreach (var part in Acting)
        {
            double kg = reaches.Where(r => r.To == Before(part.Id)).Sum(r => r.KgPerS);
            if (kg > 0) Add(Act(part, kg), new HeatPiece(null, part.Id, 0, 0, null));
        }
        return ([new NightCircuit("circuit", JPerKgK, reaches, [NightWindow.Always])], pieces);

        void Add(NightReach reach, HeatPiece piece)
        {
            reaches.Add(reach);
            pieces.Add(piece);
        }

        NightReach Act(Part part, double kg)
        {
            var heat = part.Heats();
            var reach = new NightReach(part.Id, Before(part.Id), part.Id, kg);
            var room = _question.Index.ZoneAt(part.Box.Centre());
            if (heat.StopsC is { } limit)
                return reach with { Heater = new NightFluidHeater(heat.PowerW ?? 0, limit, burns && IsOn(part) ? [NightWindow.Always] : []) };
            if (heat.CoilWPerK is { } coil)
                return Around(part) is { } vessel && bodies.Contains(vessel)
                    ? reach with { Target = vessel, ConductanceWPerK = coil * got, SetpointC = heat.HoldC } : reach;
            // Outdoors nothing is to be warmed, and it is all lost.
            if (room is null) return reach with { Target = zone(null), ConductanceWPerK = (heat.RatedW ?? 0) / (heat.RatedK ?? 50) };
            return reach with
            {
                Target = zone(room.Id),
                Emission = new NightEmission((heat.RatedW ?? 0) * got, heat.RatedK ?? 50, heat.FanFromC is null ? 1 : heat.StillShare ?? 1,
                    heat.FanFromC ?? -1000),
                SetpointC = heat.HoldC is { } set && holdC is { } less ? Math.Min(set, less) : heat.HoldC ?? holdC,
            };
        }

        void AddRun(string id, bool backwards, string from, string to, double kg)
        {
            var lengths = Lengths(id, lines).ToList();
            if (backwards) lengths.Reverse();
            string at = from;
            int number = 0, all = lengths.Sum(l => l.Contact > 0 ? 2 : 1);
            foreach (var length in lengths)
            {
                var (a, b) = backwards ? (length.ToM, length.FromM) : (length.FromM, length.ToM);
                if (length.Contact > 0)
                    Next(new NightReach($"{id}#{number}", at, "", kg, length.Body, length.Contact * got), new HeatPiece(id, null, a, b, length.Body));
                Next(new NightReach($"{id}#{number}", at, "", kg, zone(length.Zone?.Id), length.LossWPerK * lost), new HeatPiece(id, null, a, b, null));
            }

            void Next(NightReach reach, HeatPiece piece)
            {
                number++;
                string end = number == all ? to : $"{id}~{number}";
                Add(reach with { To = end }, piece);
                at = end;
            }
        }
    }

    /// <summary>Parts of the circuits that give or take heat, and that fluid can pass.</summary>
    public IEnumerable<Part> Acting => _question.Rig.Parts.Where(p => _question.Index.HoldsCoolant(p) && Acts(p.Id));

    /// <summary>Flow along a run from its start to its end, m³/s; 0: it rests.</summary>
    public double AlongM3PerS(Run run)
    {
        if (Flow is null) return 0;
        double most = Flow.FlowM3PerS.Max(Math.Abs), q = Flow.FlowM3PerS[_net.EdgeOfRun(run.Id)];
        return most * _kgPerM3 < LeastKgPerS || Math.Abs(q) < AtRest * most ? 0 : q;
    }

    /// <summary>Flow through a part of the circuits, m³/s.</summary>
    public double ThroughM3PerS(Part part) => Flow is null ? 0 : Enumerable.Range(0, _net.Network.Edges.Count)
        .Where(e => (Flow.FlowM3PerS[e] > 0 ? _net.Network.Edges[e].To : _net.Network.Edges[e].From) == part.Id).Sum(e => Math.Abs(Flow.FlowM3PerS[e]));

    /// <summary>Whether a heater is switched on.</summary>
    public bool IsOn(Part part) => _mode.PositionOf(part)?.Passes != false;

    /// <summary>The vessel that a coil lies in; null: none.</summary>
    public string? Around(Part coil) => _question.Rig.Parts.FirstOrDefault(p => p.Id != coil.Id && Catalogue.Part(p.Stock)!.Passage == Passage.Vessel
        && !_question.Index.HoldsCoolant(p) && p.Box.OutsideM(coil.Box.Centre()) == 0)?.Id;

    /// <summary>Litres of fluid in all circuits: lines and parts.</summary>
    public double Litres() => _question.Rig.Runs.Where(r => r.Service == Service.Coolant)
        .Sum(r => Catalogue.Pipe(r.Pipe)!.BoreM2() * _question.Index.PipeLengthM(r) * 1000)
        + _question.Rig.Parts.Where(_question.Index.HoldsCoolant).Sum(PartWater.HoldsL);

    private static string Before(string node) => node + "<";

    private bool Acts(string node) => _acts.TryGetValue(node, out bool known) ? known
        : _acts[node] = _question.Rig.Parts.Find(node) is { } part && _question.Index.HoldsCoolant(part)
            && part.Heats() is { } heat && (heat.StopsC ?? heat.CoilWPerK ?? heat.RatedW) is not null;

    private readonly Dictionary<string, bool> _acts = [];

    private readonly record struct Length(double FromM, double ToM, Zone? Zone, double LossWPerK, string? Body, double Contact);

    // A run in lengths of one room, one sleeve and one traced line, from its start to its end.
    private IEnumerable<Length> Lengths(string id, ILookup<string, TracedLine> lines)
    {
        var run = _question.Index.Run(id);
        var course = _question.Index.CourseOf(run);
        double startM = 0;
        int segment = 0;
        bool any = false;
        foreach (var (cut, metres, perM) in _losses.Of(_number[id]))
        {
            any = true;
            while (segment < cut.Segment)
            {
                startM += course[segment].DistanceM(course[segment + 1]);
                segment++;
            }
            Point3 a = course[segment], b = course[segment + 1];
            double segmentM = a.DistanceM(b);
            int bits = run.Traces is null ? 1 : Math.Max(1, (int)Math.Ceiling((cut.To - cut.From) * segmentM / TapedRuns.BitM));
            Length? open = null;
            for (int i = 0; i < bits; i++)
            {
                double from = cut.From + ((cut.To - cut.From) * i / bits), to = cut.From + ((cut.To - cut.From) * (i + 1) / bits);
                var (body, contact) = Traced(run, a.Towards(b, (from + to) / 2), lines);
                var bit = new Length(startM + (from * segmentM), startM + (to * segmentM), cut.Zone, perM * metres / bits, body,
                    contact * metres / bits);
                if (open is { } before && before.Body == body && bit.ToM - before.FromM <= TraceLengthM)
                    open = before with { ToM = bit.ToM, LossWPerK = before.LossWPerK + bit.LossWPerK, Contact = before.Contact + bit.Contact };
                else
                {
                    if (open is { } done) yield return done;
                    open = bit;
                }
            }
            if (open is { } last) yield return last;
        }
        if (!any) yield return new Length(0, 0, null, 0, null, 0);
    }

    // The taped length of a line that a place of a trace lies against, and W/mK to it.
    private (string? Body, double Contact) Traced(Run trace, Point3 at, ILookup<string, TracedLine> lines)
    {
        foreach (var taped in trace.Traces ?? [])
            if (_question.Taped.AlongM(_question.Index.Run(taped.Id), trace, at) is { } along
                && lines[taped.Id].FirstOrDefault(l => along >= l.FromM - 1e-6 && along <= l.ToM + 1e-6).Body is { } body)
                return (body, ContactWPerMK(taped.Kind));
        return (null, 0);
    }
}

/// <summary>A length of a run that holds water and is taped to a trace, m from its start, and its body in the night.</summary>
internal readonly record struct TracedLine(string Body, double FromM, double ToM);
