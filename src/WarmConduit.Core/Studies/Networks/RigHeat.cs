using System.Diagnostics.CodeAnalysis;
using WarmConduit.Core.Flow;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Heat;
using WarmConduit.Core.Heat.Night;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Night;

namespace WarmConduit.Core.Studies.Networks;

/// <summary>What a reach of a circuit is in the rig.</summary>
/// <param name="RunId">The run that it is a length of; null: a part.</param>
/// <param name="PartId">The part; null: a run.</param>
/// <param name="FromM">Where on its run the fluid enters it, m from the run's start.</param>
/// <param name="ToM">Where the fluid leaves it.</param>
/// <param name="Traced">The body that it warms as a trace; null: none.</param>
/// <param name="Below">It is what a floor loop loses to below.</param>
internal readonly record struct HeatPiece(string? RunId, string? PartId, double FromM, double ToM, string? Traced, bool Below = false);

/// <summary>
/// The heating circuits of a rig: what flows where with its valves and pumps as they stand, and every length and part that gives or takes heat on the way. The
/// flow is that of fluid at <see cref="FluidC"/>; a night whose fluid is colder asks for it anew (<see cref="At"/>).
/// </summary>
internal sealed partial class RigHeat
{
    /// <summary>Fluid for which flows are worked out until more is known, °C.</summary>
    public const double UsualC = 60;

    /// <summary>Fluid that flows so much more or less than it was taken for has its flow worked out anew: a share.</summary>
    public const double FlowTolerance = 0.05;

    // Longer than this the fluid along a trace is told anew; less flow than this share of the most is none.
    private const double TraceLengthM = 1, AtRest = 1e-6, LeastKgPerS = 1e-5;

    private const double StepC = 5;

    // Well over a floor, and well under it.
    private const double OverM = 0.15;

    // Fluid leaves an engine within a few hundredths as warm as its block.
    private const double EngineWPerK = 2000;

    private readonly Question _question;
    private readonly RigFlow _net;
    private readonly Scenario _mode;
    private readonly IReadOnlyList<string> _airlocked;
    private readonly LineLosses _losses;
    private readonly Dictionary<string, int> _number;

    private RigHeat(Question question, Scenario mode, IReadOnlyList<string> airlocked, double fluidC = UsualC)
    {
        (_question, _airlocked, FluidC) = (question, airlocked, fluidC);
        Glycol = question.Rig.Brief.Chosen().CoolantGlycol ?? BriefChoices.UsualCoolantGlycol;
        _number = question.Rig.Runs.Select((r, i) => (r.Id, i)).ToDictionary(r => r.Id, r => r.i);
        var fluid = Fluid(Glycol, FluidC);
        (KgPerM3, JPerKgK) = (fluid.DensityKgPerM3, fluid.HeatCapacityJPerKgK);
        _losses = new LineLosses(question, FluidC);
        _mode = mode;
        _net = new RigFlow(question, new FlowScene(_mode.PositionOf, false, _ => 1, FluidC, FluidC, FluidC, Coolant: fluid, Airlocked: airlocked));
        if (_net.Drives.Count > 0) Flow = FlowSolver.Solve(_net.Network);
    }

    /// <summary>Fluid for which its flows are worked out, °C.</summary>
    public double FluidC { get; }

    /// <summary>
    /// The same with fluid of about <paramref name="celsius"/>, where so much more or less of it flows that it matters (<see cref="FlowTolerance"/>); null:
    /// it does not.
    /// </summary>
    public RigHeat? At(double celsius)
    {
        // In steps, so that nights that are much alike have one flow.
        double to = Math.Max(Math.Round(celsius / StepC) * StepC, GlycolWater.FreezingC(Glycol) + StepC);
        if (Flow is null || Math.Abs(to - FluidC) < StepC) return null;
        var then = new RigHeat(_question, _mode, _airlocked, to);
        double now = Flow.FlowM3PerS.Max(Math.Abs);
        return Math.Abs(then.Flow!.FlowM3PerS.Max(Math.Abs) - now) > FlowTolerance * now ? then : null;
    }

    /// <summary>Volume fraction of glycol in the fluid.</summary>
    public double Glycol { get; }

    /// <summary>Heat capacity of the fluid, J/kgK.</summary>
    public double JPerKgK { get; }

    /// <summary>Density of the fluid, kg/m³.</summary>
    public double KgPerM3 { get; }

    /// <summary>Flows; null: no pump is in a circuit.</summary>
    public FlowAnswer? Flow { get; }

    /// <summary>Whether anything flows.</summary>
    [MemberNotNullWhen(true, nameof(Flow))]
    public bool Flows => Flow is not null && Flow.FlowM3PerS.Max(Math.Abs) * KgPerM3 >= LeastKgPerS;

    /// <summary>The network, and what its elements are.</summary>
    public RigFlow Net => _net;

    /// <summary>The rig's circuits, parked and with all that they run on, once for a question.</summary>
    public static RigHeat Of(Question question) => question.Ask(q => new RigHeat(q, q.Conditions.Heating(q.Rig), []));

    /// <summary>The rig's circuits while <paramref name="segment"/> of a night lasts: an engine that drives pumps by itself; pumps rest without power, where
    /// they fail, and where their switch has them rest (<paramref name="rests"/>); valves stand where they stick or where they go without power; and nothing
    /// flows through an airlock.</summary>
    public static RigHeat During(Question question, NightSegment segment, Func<string, bool> rests)
    {
        var mode = question.Conditions.Heating(question.Rig);
        var set = new Dictionary<string, string>();
        foreach (var part in question.Rig.Parts.Where(question.Index.HoldsCoolant))
        {
            if (mode.PositionOf(part) is not { } now) continue;
            string? stuck = segment.Stuck.FirstOrDefault(e => e.PartId == part.Id)?.Position;
            string? to = part.Heats().IsEngine ? segment.Heating.Drives ? Positions.On : null
                : part.Flows().ShutoffBar is not null ? Runs(part.Id) ? null : Positions.Off
                : stuck ?? (segment.Heating.Power ? null : Catalogue.Part(part.Stock)!.Unpowered);
            if (to is not null && to != now.Id) set[part.Id] = to;
        }
        return set.Count == 0 && segment.Airlocked.Count == 0 ? Of(question) : new RigHeat(question, mode with
        {
            Settings = [.. set.Select(s => new Setting(s.Key, s.Value)), .. mode.Settings.Where(s => !set.ContainsKey(s.Id))],
        }, segment.Airlocked);

        bool Runs(string pump) => segment.Heating.Pumps && !segment.Failed.Contains(pump) && !rests(pump);
    }

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
    /// The circuits as the night has them, and what each reach is, over <paramref name="bodies"/> (by id) and rooms named by <paramref name="zone"/> (null:
    /// outdoors); empty where nothing flows. <paramref name="lines"/>: taped lengths with water, by run; <paramref name="fed"/>: heaters that
    /// have what they run on. <paramref name="lost"/> and <paramref name="got"/> are factors
    /// on what is lost on the way and on what arrives; <paramref name="holdC"/>: what rooms are held at for now, at the most.
    /// </summary>
    public (IReadOnlyList<NightReach> Reaches, IReadOnlyList<HeatPiece> Pieces) Reaches(
        IReadOnlySet<string> bodies, ILookup<string, TracedLine> lines, Func<string?, string> zone, Func<Part, bool> fed, double? holdC,
        double lost, double got)
    {
        var (reaches, pieces) = (new List<NightReach>(), new List<HeatPiece>());
        if (!Flows) return (reaches, pieces);
        double most = Flow.FlowM3PerS.Max(Math.Abs);
        for (int e = 0; e < _net.Network.Edges.Count; e++)
        {
            double q = Flow.FlowM3PerS[e];
            if (Math.Abs(q) < AtRest * most) continue;
            var edge = _net.Network.Edges[e];
            var (from, to) = q > 0 ? (edge.From, edge.To) : (edge.To, edge.From);
            double kg = Math.Abs(q) * KgPerM3;
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
        return (reaches, pieces);

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
                return reach with { Heater = new NightFluidHeater(heat.PowerW ?? 0, limit, fed(part) && IsOn(part) ? [NightWindow.Always] : []) };
            if (heat.CoilWPerK is { } coil)
                return Around(part) is { } vessel && bodies.Contains(vessel)
                    ? reach with { Target = vessel, ConductanceWPerK = coil * got, SetpointC = heat.HoldC } : reach;
            if (heat.IsEngine) return reach with { Target = EngineZone(part), ConductanceWPerK = EngineWPerK };
            // Outdoors nothing is to be warmed, and it is all lost.
            if (room is null) return reach with { Target = zone(null), ConductanceWPerK = (heat.RatedW ?? 0) / (heat.RatedK ?? 50) };
            return reach with
            {
                Target = zone(room.Id),
                Emission = Emission((heat.RatedW ?? 0) * got, heat),
                SetpointC = heat.HoldC is { } set && holdC is { } less ? Math.Min(set, less) : heat.HoldC ?? holdC,
            };
        }

        static NightEmission Emission(double fullW, PartHeat heat) => (heat.FanBy, heat.RatedK ?? 50, heat.StillShare ?? 1) switch
        {
            (FanControl.PipeTemperature, var k, var still) => new NightEmission(fullW, k, still, heat.FanFromC!.Value),
            (FanControl.Off, var k, var still) => new NightEmission(fullW * still, k),
            (_, var k, _) => new NightEmission(fullW, k),
        };

        void AddRun(string id, bool backwards, string from, string to, double kg)
        {
            var lengths = Lengths(id, lines).ToList();
            if (backwards) lengths.Reverse();
            string at = from;
            int number = 0, all = lengths.Sum(l => l.Contact > 0 || l.BelowWPerK > 0 ? 2 : 1);
            foreach (var length in lengths)
            {
                var (a, b) = backwards ? (length.ToM, length.FromM) : (length.FromM, length.ToM);
                if (length.Contact > 0)
                    Next(new NightReach($"{id}#{number}", at, "", kg, length.Body, length.Contact * got), new HeatPiece(id, null, a, b, length.Body));
                if (length.BelowWPerK > 0)
                    Next(new NightReach($"{id}#{number}", at, "", kg, zone(length.Below?.Id), length.BelowWPerK * lost),
                        new HeatPiece(id, null, a, b, null, true));
                // What a floor gives its room is wanted, what a hose loses is not.
                Next(new NightReach($"{id}#{number}", at, "", kg, zone(length.Zone?.Id), length.LossWPerK * (length.BelowWPerK > 0 ? got : lost)),
                    new HeatPiece(id, null, a, b, null));
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
        if (!Flows) return 0;
        double q = Flow.FlowM3PerS[_net.EdgeOfRun(run.Id)];
        return Math.Abs(q) < AtRest * Flow.FlowM3PerS.Max(Math.Abs) ? 0 : q;
    }

    /// <summary>Flow through a part of the circuits, m³/s.</summary>
    public double ThroughM3PerS(Part part) => Flow is null ? 0 : Enumerable.Range(0, _net.Network.Edges.Count)
        .Where(e => (Flow.FlowM3PerS[e] > 0 ? _net.Network.Edges[e].To : _net.Network.Edges[e].From) == part.Id).Sum(e => Math.Abs(Flow.FlowM3PerS[e]));

    /// <summary>What heats the fluid in this mode, with flow: heaters that are on, an engine that runs.</summary>
    public IReadOnlyList<Part> Sources() =>
        _sources ??= [.. Acting.Where(p => (p.Heats().HeatsFluid || p.Heats().IsEngine) && IsOn(p) && ThroughM3PerS(p) > 0)];

    private IReadOnlyList<Part>? _sources;

    /// <summary>The hottest that its sources make the fluid, °C; null: nothing heats it.</summary>
    public double? SupplyC() => Sources() is { Count: > 0 } sources ? sources.Max(s => s.Heats().StopsC ?? s.Heats().RunsC!.Value) : null;

    /// <summary>Whether a heater is switched on.</summary>
    public bool IsOn(Part part) => _mode.PositionOf(part)?.Passes != false;

    /// <summary>The vessel that a coil lies in, or the plate exchanger of which it is the other side; null: none.</summary>
    public string? Around(Part coil) => _question.Rig.Parts.FirstOrDefault(p => p.Id != coil.Id && TakesCoil(p)
        && !_question.Index.HoldsCoolant(p) && p.Box.OutsideM(coil.Box.Centre()) == 0)?.Id;

    private static bool TakesCoil(Part part) => Catalogue.Part(part.Stock)!.Passage == Passage.Vessel || part.Stock == PartWater.PlateExchanger;

    /// <summary>Litres of fluid in all circuits: lines and parts.</summary>
    public double Litres() => _question.Rig.Runs.Where(r => r.Service == Service.Coolant)
        .Sum(r => Catalogue.Pipe(r.Pipe)!.BoreM2() * _question.Index.PipeLengthM(r) * 1000)
        + _question.Rig.Parts.Where(_question.Index.HoldsCoolant).Sum(PartWater.HoldsL);

    /// <summary>Heat that the fluid of all circuits takes up, J/K.</summary>
    public double FluidJPerK => Litres() / 1000 * KgPerM3 * JPerKgK;

    /// <summary>An engine as a body of heat of its own in the night.</summary>
    public static string EngineZone(Part engine) => $"engine:{engine.Id}";

    private static string Before(string node) => node + "<";

    private bool Acts(string node) => _acts.TryGetValue(node, out bool known) ? known
        : _acts[node] = _question.Rig.Parts.Find(node) is { } part && _question.Index.HoldsCoolant(part)
            && part.Heats() is { } heat && (heat.StopsC ?? heat.CoilWPerK ?? heat.RatedW) is not null;

    private readonly Dictionary<string, bool> _acts = [];
}

/// <summary>A length of a run that holds water and is taped to a trace, m from its start, and its body in the night.</summary>
internal readonly record struct TracedLine(string Body, double FromM, double ToM);
