using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Studies.DrainOrder;
using WarmConduit.Core.Studies.Scenarios;
using WarmConduit.Core.Studies.Tanks;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.LayUp;

/// <summary>What procedures are made of, for one rig.</summary>
internal sealed partial class ProcedureKit(Question question, ProcedureInput input)
{
    private const double HandS = 20, PumpDryS = 30;

    // A cup in a dip is worth a step; who has more of them mends the drawing first. Estimates.
    private const double LeastDipL = 0.02;
    private const int MostDips = 6;

    private readonly List<ProcedureStep> _steps = [];
    private readonly List<string> _tools = [];
    private readonly List<Sentence> _supplies = [];
    private readonly Dictionary<string, string> _ends = [];
    private double _in, _out, _stays, _fluid;

    private Rig Rig => question.Rig;

    private IEnumerable<Part> Heaters => Rig.Parts.Where(PartWater.HeatsWater);

    private IEnumerable<Part> Pumps => Rig.Parts.Where(p => Stock(p) is { Passage: Passage.Pump } && !question.Index.HoldsCoolant(p));

    private IEnumerable<Part> Taps => Rig.Parts.Where(p => Stock(p).Passage == Passage.Mixer);

    private IEnumerable<Part> Fresh => Rig.Parts.Where(p => TankStudy.IsTank(p) && Stock(p).Group == PartGroup.Store);

    private IEnumerable<Part> Filters => Rig.Parts.Where(PartWater.HasCartridge);

    /// <summary>Heat first: nothing else is opened on a hot heater.</summary>
    public void HeatersOff()
    {
        foreach (var heater in Heaters)
            Add($"off:{heater.Id}", $"Turn {heater.Name} off, and leave it off until it is full again", [heater], wrong:
                "Switched on while it is empty, its element or burner is ruined.",
                caution: heater.Stock == "gas-heater" ? "Gas off at its valve. Anything beyond that is for a licensed gas fitter."
                    : "Mains and gas are for licensed people.");
        if (Heaters.Any(h => Stock(h).Passage == Passage.Vessel))
            Add("cool", "Let it cool until you can hold a hand on its outlet, then open a hot tap to let its pressure out",
                [.. Heaters.Where(h => Stock(h).Passage == Passage.Vessel)], shortest: 1800, longest: 7200, waits: true, caution:
                "Heater water scalds. Its plug or drain is opened cool and without pressure only.");
    }

    /// <summary>In the order of the drain place, with its litres.</summary>
    public void Drain()
    {
        Tool("measuring jug", "bucket or hose for what runs out", "torch");
        foreach (var pump in Pumps) Add($"pump-off:{pump.Id}", $"Turn {pump.Name} off", [pump], [new Setting(pump.Id, Positions.Off)]);
        foreach (var inlet in Rig.Parts.Where(Networks.RigFlow.IsTownInlet))
            Add($"hose-off:{inlet.Id}", $"Take the hose off {inlet.Name}, and drain the hose too", [inlet], wrong:
                "A hose that is left on freezes, and keeps pressure on the lines.");
        var order = question.Ask(DrainOrderStudy.WalkOf);
        foreach (var step in order.Steps.Where(s => s.Needed))
        {
            var part = question.Index.Part(step.PartIds[0]);
            double? fluid = PartWater.IsTrap(part) ? TrapL : null;
            _steps.Add(new ProcedureStep(step.Id, step.Words, step.PartIds, [.. step.PartIds.Select(EndOf).OfType<Setting>()], step.OutL, fluid,
                step.ShortestS, step.LongestS, false, step.Reach, step.Kind == DrainStepKind.Drain
                    ? Sentence.Of($"{Measure.Volume(step.OutL)} should come. Less: a tap is closed, the vehicle leans, a pipe sags, or the drain is clogged.")
                    : null, PartWater.HeatsWater(part) ? "Cool and without pressure only." : null,
                [.. step.PartIds.Select(id => new StepMark(LeftActKind.Done, $"parts/{id}"))]));
        }
        // What the builder does by hand is a step already.
        var dry = Pumps.Where(p => Rig.ByHand.Find(p.Id) is null).ToList();
        if (dry.Count > 0)
            Add("pump-dry", $"Run {Names(dry)} for half a minute to clear it, then leave it off", dry, shortest: PumpDryS, longest: PumpDryS,
                waits: true,
                wrong: "Run dry for longer, a pump wears.");
        foreach (var part in Rig.Parts.Where(p => Stock(p).Positions.Count > 0 && !question.Index.HoldsCoolant(p)))
            if (question.Scenario.PositionOf(part) is { } at) _ends[part.Id] = at.Id;
        (_in, _out, _stays) = (order.Full.StaysL(), order.Steps.Sum(s => s.OutL), order.Last.StaysL());
    }

    /// <summary>Air on each outlet in turn.</summary>
    public void BlowOut()
    {
        var air = BlowOutStudy.Ask(question, input.Air ?? new BlowOutInput());
        var task = question.Tasks.For(TaskKind.BlowOut, question.Cancel);
        Tool($"{air.Supply.Name} with a regulator and a gauge", "eye protection", "adapter for the air hose");
        Turn("air-valves", task);
        foreach (var gear in air.Gear)
            Add($"air:{gear.PartId}", $"Join the air hose to {question.Index.Part(gear.PartId).Name}, with the regulator at nothing",
                [question.Index.Part(gear.PartId)], caution: "Compressed air: eye protection on, and nobody before an outlet.");
        Add("regulator", Sentence.Of($"Open one tap, then set the regulator to {Measure.Pressure(air.LineBar * 1e5)}. Never above ")
            .And(Sentence.Of($"{Measure.Pressure(air.LimitBar * 1e5)}: {air.LimitBy.Text}.")), [], wrong:
            "With every outlet closed the lines take the pressure of the compressor if the regulator drifts.",
            caution: "A tap is open before the air is on.");
        int rounds = (input.Air ?? new BlowOutInput()).Rounds;
        for (int round = 1; round <= rounds; round++)
            foreach (var step in air.Steps.Where(s => s.RunIds.Count > 0))
                Add($"blow:{step.Id}:{round}", $"{(round == 1 ? "Open" : "Once more: open")} {step.Name} until only mist comes, then close it",
                    [question.Index.Part(step.PartId)], shortest: step.ShortestS, longest: step.LongestS, waits: true, wrong: step.RecoversS is { } s
                        ? Sentence.Of($"The tank of the compressor runs down: let it fill for {Measure.Duration(s)} first.")
                        : step.Carries == Levels.AirCarries.All ? null : Sentence.Of(
                            $"This air does not lift all of the water here: more air, or antifreeze after it."),
                    marks: Swept(air, step, round));
        Add("air-off", "Shut the air off at the compressor, open a tap until nothing hisses, then take the hose off", []);
        _out += air.BeforeL - air.AfterL[^1];
        _stays = Math.Max(0, _stays - (air.BeforeL - air.AfterL[^1]));
    }

    // A run has its film once the last outlet that sweeps it has been open: who skips one leaves what was there.
    private static StepMark[] Swept(BlowOutAnswer air, BlowStep step, int round) =>
        [.. air.Runs.Where(r => r.Carries <= Levels.AirCarries.Plugs && air.Steps.Last(s => r.StepIds.Contains(s.Id)).Id == step.Id)
            .Select(r => new StepMark(LeftActKind.Blown, $"runs/{r.RunId}", Film: r.FullL <= 0 ? 0 : Math.Min(1, r.AfterL[round - 1] / r.FullL)))];

    /// <summary>What must get no fluid, before it comes.</summary>
    public void NoFluid()
    {
        foreach (var filter in Filters)
            Add($"filter-out:{filter.Id}", $"Take the cartridge of {filter.Name} out, empty its bowl, and put it back empty", [filter],
                wrong: "Fluid spoils a cartridge, and it can't be rinsed out of it.");
        foreach (var heater in Heaters.Where(_ => !question.Tasks.Goals.Has(TaskKind.BypassHeater)))
            Add($"no-fluid:{heater.Id}", Sentence.Of($"No valves take fluid past {heater.Name}: it takes {Measure.Volume(PartWater.HoldsL(heater))} more, "
                ).And("or its lines are taken off and joined"), [heater], wrong: "Some makers allow no antifreeze in a heater: its manual comes first.");
    }

    /// <summary>Fluid to each outlet in turn.</summary>
    public void DrawAntifreeze()
    {
        var fluid = AntifreezeStudy.Ask(question, Fluid);
        var task = question.Tasks.For(TaskKind.Antifreeze, question.Cancel);
        Tool("hose for the bottle");
        _supplies.Add(Sentence.Of($"{Measure.Volume(fluid.TotalL)} of propylene glycol antifreeze for drinking-water systems"));
        foreach (var drain in Rig.Parts.Where(p => Stock(p).Passage == Passage.Drain && !question.Index.HoldsCoolant(p) && !IsWaste(p)))
        {
            _ends[drain.Id] = Positions.Closed;
        }
        Add("drains-shut", "Close every drain and every tap", [.. Taps], wrong: "Fluid runs out of a drain that is left open.");
        Turn("fluid-valves", task);
        foreach (var gear in fluid.Gear)
            Add($"bottle:{gear.PartId}", $"Put the hose of the bottle on {question.Index.Part(gear.PartId).Name}", [question.Index.Part(gear.PartId)], caution:
                "Only propylene glycol that is meant for drinking-water systems. Never engine coolant.");
        var drawn = fluid.Steps.Where(s => s.RunIds.Count > 0).ToList();
        foreach (var step in drawn)
            Add($"fluid:{step.Id}", $"Pump on, and open {step.Name} until its colour comes; then close it", [question.Index.Part(step.PartId)],
                inL: step.DrawnL,
                wrong: Sentence.Of($"Thinned to {(int)Math.Round(100 * step.Glycol)} % it freezes at {Measure.Temperature(step.FreezesC)}; its burst " +
                    $"rating is another number."),
                marks: [.. fluid.Stands.Where(f => LastFor(f.Thing) == step).Select(f => new StepMark(LeftActKind.Antifreeze, f.Thing, f.Glycol))]);
        // A line is as strong as the last outlet that draws through it leaves it; parts once all have drawn.
        AntifreezeStep LastFor(string thing) => drawn.LastOrDefault(s => s.RunIds.Any(r => thing == $"runs/{r}")) ?? drawn[^1];
        foreach (var pump in Pumps) Add($"pump-off-2:{pump.Id}", $"Turn {pump.Name} off", [pump], [new Setting(pump.Id, Positions.Off)]);
        _fluid += fluid.Steps.Sum(s => s.DrawnL);
        foreach (var tap in Taps) _ends[tap.Id] = Stock(tap).Positions.First(p => !p.Passes).Id;
    }

    /// <summary>A litre for what holds water by design.</summary>
    public void Traps()
    {
        var traps = Rig.Parts.Where(PartWater.IsTrap).ToList();
        foreach (var trap in traps.Where(t => _steps.All(s => s.Id != t.Id)))
            Add($"trap:{trap.Id}", $"Pour antifreeze into {trap.Name}", [trap], inL: TrapL, marks: [new StepMark(LeftActKind.Antifreeze,
                $"parts/{trap.Id}", GlycolWater.Diluted(Fluid.Glycol, TrapL + PartWater.HoldsL(trap), PartWater.HoldsL(trap)))],
                wrong: "The trap under a shower tray is the one that is forgotten.");
        if (traps.Count == 0) return;
        _supplies.Add(Sentence.Of($"{Measure.Volume(TrapL * traps.Count)} of antifreeze for the traps"));
        _fluid += TrapL * traps.Count;
    }

    /// <summary>What is in the drawing and easily left out.</summary>
    public void Forgotten()
    {
        foreach (var part in Rig.Parts)
        {
            switch (part.Stock)
            {
                case "toilet" or "cassette-toilet":
                    Add($"toilet:{part.Id}", $"Flush {part.Name} until nothing comes, empty its tank, and wet its seal with the fluid its maker names", [part]);
                    break;
                case "washing-machine" or "dishwasher":
                    Add($"appliance:{part.Id}", $"Run a programme of {part.Name} for a minute, then its drain: its inlet opens during a programme " +
                        $"only", [part], wrong:
                        "Its own pump keeps some water: the steps of its maker come first.");
                    break;
                case "outdoor-shower" or "pet-wash":
                    Add($"outdoors:{part.Id}", $"Open {part.Name} hot and cold, lay its hose down, and leave it open", [part]);
                    break;
                // A cap on a line of its own: where an appliance would be.
                case "end-cap" when Rig.Runs.Any(r => (r.From.Part == part.Id || r.To.Part == part.Id) && r.Service is Service.Cold or Service.Hot):
                    Add($"hook-up:{part.Id}", $"Disconnect {part.Name}, let its line run out over a towel, and leave it off", [part], wrong:
                        "A bare hook-up is full behind its cap, and nothing else empties it.");
                    break;
                default:
                    break;
            }
        }
    }

    /// <summary>Dips that no drain empties.</summary>
    public void LowDips()
    {
        foreach (var pool in question.Ask(DrainDownStudy.Ask).Pools.Where(p => p.RetainedL >= LeastDipL && p.Shares.Count > 0).Take(MostDips))
            Add($"dip:{pool.Id}", Sentence.Of($"{pool.Words} keeps {Measure.Volume(pool.RetainedL)} in a dip without a drain: loosen its lowest joint over ")
                .And("a towel, or clear it with air or antifreeze"), [.. pool.Parts.Select(p => question.Index.Part(p.PartId)).Take(1)],
                wrong: "What stays in a dip is the first to break a line. A drain there saves this step: the bench shows where.");
    }

    /// <summary>What has run together since.</summary>
    public void AgainAfterMoving() =>
        Add("again", "Drive a few corners, park, and open every drain once more", [], outL: null, wrong: "Water that clung runs to the low points as the " +
            "vehicle moves.");

    /// <summary>What is not left in the cold.</summary>
    public void GoesHome()
    {
        foreach (var filter in Filters.Where(f => Rig.ByHand.Find(f.Id) is null && _steps.All(s => s.Id != $"filter-out:{f.Id}")))
            Add($"filter-out:{filter.Id}", $"Take the cartridge of {filter.Name} home, and put its bowl back empty", [filter]);
        Add("caps", "Put caps and plugs back on loosely, against animals", []);
        Add("home", "Take bottles, tins and food home, and the battery if it can't be charged here: once a month, never below 0 °C for lithium", []);
    }

    /// <summary>The procedure.</summary>
    public ProcedureAnswer Made()
    {
        OwnSteps();
        double hands = _steps.Sum(s => HandS + (s.PartIds.Count > 0 ? question.Index.Part(s.PartIds[0]).Reach?.HandS() ?? 0 : 0));
        return new ProcedureAnswer(
            input.Kind, ProcedureStudy.NameOf(input.Kind), [.. _tools.Distinct()], _supplies, _steps,
            [.. _ends.Select(e => new EndPosition(e.Key, e.Value, InUse(e.Key) is { } use && use != e.Value ? use : null))
                .OrderBy(s => s.Id, StringComparer.Ordinal)],
            hands + _steps.Where(s => !s.Waits || s.ShortestS < 300).Sum(s => s.ShortestS ?? 0), (2 * hands) + _steps.Sum(s => s.LongestS ?? 0), _in,
                _out, _stays,
            _fluid, [.. Enum.GetValues<ProcedureKind>().Select(k => new ProcedureName(k, ProcedureStudy.NameOf(k)))]);
    }

    // As the rig stands with water from its tank: drains and taps closed, pumps on.
    private string? InUse(string partId)
    {
        var part = question.Index.Part(partId);
        return Stock(part).Passage switch
        {
            Passage.Pump => Positions.On,
            Passage.Drain => Positions.Closed,
            Passage.Mixer => Stock(part).Positions.FirstOrDefault(p => !p.Passes)?.Id,
            _ => question.Tasks.SettingsOf(question.Tasks.For(TaskKind.Tank, question.Cancel)).FirstOrDefault(s => s.Id == partId)?.Position,
        };
    }

    private AntifreezeInput Fluid => input.Fluid ?? new AntifreezeInput();

    private double TrapL => Fluid.TrapFluidL();

    private static StockPart Stock(Part part) => Catalogue.Part(part.Stock)!;

    private static string Names(IEnumerable<Part> parts) => string.Join(" and ", parts.Select(p => p.Name));

    private bool IsWaste(Part part) => Rig.Runs.Any(r => (r.From.Part == part.Id || r.To.Part == part.Id) && r.Service == Service.Waste);

    private Setting? EndOf(string partId) => question.Scenario.PositionOf(question.Index.Part(partId)) is { } at ? new Setting(partId, at.Id) : null;

    private void Tool(params string[] tools) => _tools.AddRange(tools);

    private void Turn(string id, FoundTask task)
    {
        if (task.Turned.Count == 0) return;
        var graph = question.Tasks.Graph;
        Setting[] turns = [.. task.Turned.Where(p => Stock(graph.Parts[p]).Passage == Passage.Valve)
            .Select(p => new Setting(graph.Parts[p].Id, graph.PositionsOf(p)[task.Set[p]].Id))];
        if (turns.Length == 0) return;
        Add(id, $"Set {FoundTasks.Words(question.Index, turns)}", [.. turns.Select(t => question.Index.Part(t.Id))], turns);
        foreach (var turn in turns) _ends[turn.Id] = turn.Position;
    }

    private void Add(
        string id, Sentence words, List<Part> parts, IReadOnlyList<Setting>? settings = null, double? outL = null, double? inL = null,
        double? shortest = null, double? longest = null, bool waits = false, Sentence? wrong = null, string? caution = null,
        IReadOnlyList<StepMark>? marks = null)
    {
        string? reach = parts.Count == 0 ? null : DrainOrderStudy.ReachOf(Rig, parts[0], parts[0].Box.Centre());
        _steps.Add(new ProcedureStep(id, words, [.. parts.Select(p => p.Id)], settings ?? [], outL, inL, shortest, longest, waits, reach, wrong, caution,
            marks ?? []));
        foreach (var setting in settings ?? []) _ends[setting.Id] = setting.Position;
    }
}
