using WarmConduit.Core.Flow;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Scenarios;

namespace WarmConduit.Core.Studies.WaterFlow;

/// <summary>Flow and pressure at every outlet, on the pump or on town water, with any others open.</summary>
public static class WaterFlowStudy
{
    private const double HalfInchM = 0.0123, ThreeEighthsM = 0.009;

    // Less than this is no flow to speak of, m³/s.
    private const double LeastM3PerS = 1e-7;
    private const int MostCosts = 8;

    /// <summary>Asks. Pure. Some 10 network solutions, and one for each open outlet and each bore tried.</summary>
    public static WaterFlowAnswer Ask(Question question, WaterFlowInput input)
    {
        var scene = SceneOf(question, input);
        var asked = new Asked(question, scene, input.Compare);
        return asked.Answer();
    }

    /// <summary>The positions, levels and temperatures that <paramref name="input"/> means.</summary>
    internal static FlowScene SceneOf(Question question, WaterFlowInput input)
    {
        var rig = question.Rig;
        var set = new Dictionary<string, string>();
        var own = input.ScenarioId is { } id ? rig.Scenarios.Find(id) : null;
        var kind = own is null ? input.Task : FoundTasks.TaskOf(own.Kind) ?? TaskKind.Own;
        var scenario = own ?? (FoundTasks.ScenarioOf(kind) is { } of ? rig.ScenarioOf(of) : null);
        // Where all that can be set is, nothing has to be found.
        var said = (input.Positions ?? []).Select(s => s.Id).ToHashSet();
        if (kind != TaskKind.Drain && rig.Parts.Any(p => !said.Contains(p.Id) && Catalogue.Part(p.Stock)!.Positions.Count > 0))
        {
            var found = question.Tasks;
            foreach (var setting in found.SettingsOf(own is null ? found.For(kind, question.Cancel) : found.For(own, question.Cancel)))
                set[setting.Id] = setting.Position;
        }
        var kept = kind == TaskKind.Own ? rig.ScenarioOf(ScenarioKind.InUse) : scenario ?? rig.ScenarioOf(ScenarioKind.InUse);
        foreach (var setting in own?.Settings ?? []) set[setting.Id] = setting.Position;
        var gear = kind is TaskKind.Antifreeze or TaskKind.Fill or TaskKind.Own ? question.Tasks.Goals.GearOf(kind, scenario) : [];
        bool town = kind is TaskKind.Town || (kind == TaskKind.Fill && gear.Count == 0)
            || (scenario?.Goal is { } goal && goal.From.Select(rig.Parts.Find).Any(p => p is not null && RigFlow.IsTownInlet(p)));
        foreach (string tap in input.Open ?? []) set[tap] = Positions.Open;
        foreach (var setting in input.Positions ?? []) set[setting.Id] = setting.Position;
        double ShareOf(Part tank) => input.FreshShare is { } share && Catalogue.Part(tank.Stock)!.Group == PartGroup.Store ? share
            : PartWater.AtStartL(tank, question.Conditions) / PartWater.HoldsL(tank);
        // Nothing is heated while antifreeze is drawn.
        double coldC = input.ColdC ?? WaterFlowInput.UsualColdC;
        return new FlowScene(
            part => Catalogue.Part(part.Stock)! is var stock && set.TryGetValue(part.Id, out string? at) ? stock.Positions.FirstOrDefault(p => p.Id == at)
                : stock.Passage == Passage.Mixer && kind != TaskKind.Drain ? stock.Positions.FirstOrDefault(p => !p.Passes) : kept.PositionOf(part),
            town, ShareOf, coldC, input.HotC ?? (kind == TaskKind.Antifreeze ? coldC : WaterFlowInput.UsualHotC), input.WishC ?? WaterFlowInput.UsualWishC,
            input.Fouled, Gear: gear);
    }

    private sealed class Asked(Question question, FlowScene scene, bool compare)
    {
        private readonly RigFlow _flow = new(question, scene);

        public WaterFlowAnswer Answer()
        {
            var state = FlowState.Solve(_flow, scene);
            question.Cancel.ThrowIfCancellationRequested();
            var half = compare ? FlowState.Solve(new RigFlow(question, scene with { BoreM = HalfInchM }), scene) : null;
            var narrow = compare ? FlowState.Solve(new RigFlow(question, scene with { BoreM = ThreeEighthsM }), scene) : null;
            var taps = question.Rig.Parts.Where(p => Catalogue.Part(p.Stock)!.Passage == Passage.Mixer).ToList();
            var open = taps.Where(p => scene.PositionOf(p)?.Passes == true).ToList();
            var reach = FlowReach.Of(question, _flow, scene);
            var outlets = taps.Select(p => OutletOf(p, state, half, narrow, open)).ToList();
            var pumps = _flow.Drives.Select(d => PumpOf(d, state)).ToList();
            double most = state.FlowM3PerS.Select(Math.Abs).DefaultIfEmpty(0).Max();
            var runs = _flow.Runs.Select(r => RunOf(r, state, reach)).ToList();
            return new WaterFlowAnswer(
                [.. question.Rig.Parts.Where(p => Catalogue.Part(p.Stock)!.Positions.Count > 0 && !question.Index.HoldsCoolant(p))
                    .Select(p => new Setting(p.Id, scene.PositionOf(p)?.Id ?? Catalogue.Part(p.Stock)!.Positions[0].Id))],
                outlets, runs, reach.ShutAt, pumps, [.. FlowRemarks.Of(question, _flow, state, scene, open, pumps).OrderBy(r => r.Fault ? 0 : 1)],
                most > LeastM3PerS ? state.MassErrorM3PerS / most : 0, state.Settled);
        }

        private RunFlow RunOf(Run run, FlowState state, FlowReach reach)
        {
            int edge = _flow.EdgeOfRun(run.Id);
            double q = state.FlowM3PerS[edge];
            bool flows = Math.Abs(q) > LeastM3PerS;
            var (from, to) = state.EndsOf(edge);
            return new RunFlow(run.Id, flows ? q * 60e3 : 0, flows ? WaterReach.Flows : reach.Gets(run) ? WaterReach.AtRest : WaterReach.Apart,
                flows ? state.C[q > 0 ? from : to] : null);
        }

        // Where a tap's water leaves: its own spout, or the end of the hose on it.
        private int OutletNumber(FlowState state, Part tap)
        {
            int own = _flow.OutletParts.IndexOf(tap.Id);
            if (own >= 0) return own;
            string? at = tap.Id;
            for (int step = 0; step < 10 && at is not null; step++)
            {
                var run = _flow.Runs.FirstOrDefault(r => (r.From.Part == at && (step > 0 || r.From.Port == "spout"))
                    || (r.To.Part == at && step == 0 && r.To.Port == "spout"));
                at = run is null ? null : run.From.Part == at ? run.To.Part : run.From.Part;
                if (at is not null && _flow.OutletParts.IndexOf(at) is >= 0 and int there) return there;
            }
            return -1;
        }

        private OutletFlow OutletOf(Part tap, FlowState state, FlowState? half, FlowState? narrow, List<Part> open)
        {
            bool isOpen = open.Contains(tap);
            int number = isOpen ? OutletNumber(state, tap) : -1;
            if (number < 0) return new OutletFlow(tap.Id, tap.Name, isOpen, 0, 0, null, null, null, null, null, [], []);
            double q = state.OutletM3PerS[number];
            var outlet = _flow.Network.Outlets[number];
            // Its pressure is that on its inlets: what its own cartridge takes is in its figure.
            int node = tap.Ports.Where(p => p.Id != "spout" && question.Index.IsJoined(tap.Id, p.Id)).Select(p => state.NodeOf(RigFlow.Node(tap.Id, p.Id)))
                .FirstOrDefault(state.NodeOf(outlet.Node));
            double? share = null;
            if (_flow.Splits.Find(s => s.PartId == tap.Id) is { } split && q > LeastM3PerS)
            {
                double hot = Math.Max(0, state.FlowM3PerS[split.HotEdge]), cold = Math.Max(0, state.FlowM3PerS[split.ColdEdge]);
                share = hot / Math.Max(hot + cold, 1e-12);
                // On the side that gives more.
                node = state.EndsOf(hot > cold ? split.HotEdge : split.ColdEdge).From;
            }
            double? alone = null;
            if (compare && open.Count > 1)
            {
                var others = open.Where(p => p != tap).Select(p => p.Id).ToHashSet();
                var quiet = scene with
                {
                    PositionOf = p => others.Contains(p.Id) ? Catalogue.Part(p.Stock)!.Positions.FirstOrDefault(x => !x.Passes) : scene.PositionOf(p)
                };
                var flow = new RigFlow(question, quiet);
                int there = flow.OutletParts.IndexOf(_flow.OutletParts[number]);
                alone = there < 0 ? 0 : FlowState.Solve(flow, quiet).OutletM3PerS[there] * 60e3;
            }
            var (costs, way) = CostsOf(state, node, outlet.HeightM);
            return new OutletFlow(
                tap.Id, tap.Name, true, q * 60e3, Math.Max(0, (state.HeadM[node] - outlet.HeightM) / _flow.HeadPerBar), share,
                q > LeastM3PerS ? state.C[state.NodeOf(outlet.Node)] : null, alone, half?.OutletM3PerS[number] * 60e3,
                narrow?.OutletM3PerS[number] * 60e3, costs, way);
        }

        // From the outlet back along what most of its water came by, to the source.
        private (IReadOnlyList<FlowCost> Costs, IReadOnlyList<string> Way) CostsOf(FlowState state, int node, double heightM)
        {
            var bar = new Dictionary<(CostKind, string?, string?), double>();
            var way = new List<string>();
            var seen = new HashSet<int>();
            var into = Enumerable.Range(0, _flow.Pieces.Count).Where(e => Math.Abs(state.FlowM3PerS[e]) > LeastM3PerS)
                .ToLookup(e => state.FlowM3PerS[e] > 0 ? state.EndsOf(e).To : state.EndsOf(e).From);
            double sourceM = heightM;
            while (seen.Add(node))
            {
                sourceM = state.HeadM[node];
                if (!into[node].Any()) break;
                int edge = into[node].MaxBy(e => Math.Abs(state.FlowM3PerS[e]));
                int from = state.EndsOf(edge) is var (a, b) && a == node ? b : a;
                double lost = (state.HeadM[from] - state.HeadM[node]) / _flow.HeadPerBar;
                if (_flow.Pieces[edge].RunId is { } run)
                {
                    way.Add(run);
                    var pipe = (FlowPipe)_flow.Network.Edges[edge];
                    double friction = Math.Abs(Friction.PipeLossM(state.FlowM3PerS[edge], pipe.LengthM, pipe.InnerDiameterM, pipe.RoughnessM, 0,
                        _flow.Network.DensityKgPerM3, _flow.Network.ViscosityPaS)) / _flow.HeadPerBar;
                    bar[(CostKind.Friction, run, null)] = friction;
                    double perHead = pipe.MinorLoss > 0 ? Math.Max(0, lost - friction) / pipe.MinorLoss : 0, fittings = 0;
                    foreach (var (part, loss) in _flow.FittingsOf(run))
                    {
                        bar[(KindOf(part), null, part)] = bar.GetValueOrDefault((KindOf(part), null, part)) + (loss * perHead);
                        fittings += loss;
                    }
                    bar[(CostKind.Bends, run, null)] = (pipe.MinorLoss - fittings) * perHead;
                }
                else if (_flow.Pieces[edge].PartId is { } through && lost > 0)
                    bar[(KindOf(through), null, through)] = bar.GetValueOrDefault((KindOf(through), null, through)) + lost;
                node = from;
            }
            way.Reverse();
            var costs = bar.Select(b => new FlowCost(b.Key.Item1, b.Key.Item2, b.Key.Item3,
                b.Key.Item2 is { } r ? question.Index.Run(r).Name : question.Index.Part(b.Key.Item3!).Name, b.Value));
            double climb = (heightM - SurfaceM(sourceM)) / _flow.HeadPerBar;
            if (climb > 0) costs = costs.Append(new FlowCost(CostKind.Height, null, null, "height", climb));
            return ([.. costs.Where(c => c.Bar > 1e-4).OrderByDescending(c => c.Bar).Take(MostCosts)], way);
        }

        // The hose gives pressure at its own height; a tank at its surface.
        private double SurfaceM(double sourceM) => scene.Town && question.Rig.Parts.FirstOrDefault(RigFlow.IsTownInlet) is { } inlet
            ? _flow.HeightM(inlet, "in") : sourceM;

        private CostKind KindOf(string partId) => Catalogue.Part(question.Index.Part(partId).Stock)! switch
        {
            { Group: PartGroup.Clean } => CostKind.Filter,
            { Group: PartGroup.Heat, Id: not "mixing-valve" } => CostKind.Heater,
            { Group: PartGroup.Joints or PartGroup.Store } => CostKind.Fitting,
            _ => CostKind.Valve,
        };

        private PumpFlow PumpOf(FlowDrive drive, FlowState state)
        {
            var part = question.Index.Part(drive.PartId);
            var figures = part.Flows();
            double q = Math.Max(0, state.FlowM3PerS[drive.Edge]) * 60e3;
            double bar = (state.HeadM[state.NodeOf(part.Id)] - _flow.HeightM(part, "out")) / _flow.HeadPerBar;
            double suction = _flow.HeightM(part, "in") - state.HeadM[state.EndsOf(drive.Edge).From];
            double stores = Stored(part, figures);
            bool pulses = state.Pulsing.Contains(part.Id);
            double? starts = null;
            if (pulses && q > LeastM3PerS * 60e3)
            {
                // Idle while the store empties, running while it fills again with what is not drawn.
                var (shutoff, free) = figures.AtVolts();
                double gives = free * Math.Sqrt(Math.Max(0, 1 - (figures.CutInBar!.Value + figures.CutOutBar!.Value) / 2 / shutoff));
                starts = gives > q ? 60 / ((stores / q) + (stores / (gives - q))) : null;
            }
            return new PumpFlow(part.Id, pulses, q, Math.Max(0, bar), suction, figures.LiftM ?? 0, starts, stores);
        }

        // Without an accumulator the lines themselves give a little. Estimate.
        private double Stored(Part pump, PartFlow figures)
        {
            const double linesL = 0.02;
            return figures is { CutInBar: { } cutIn, CutOutBar: { } cutOut }
                ? linesL + Accumulators.Behind(question, pump).Sum(a => Accumulators.GivesL(question.Rig, a, cutIn, cutOut)) : 0;
        }
    }
}
