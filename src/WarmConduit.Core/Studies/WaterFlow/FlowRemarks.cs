using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.WaterFlow;

/// <summary>What a flow means for whoever opens a tap.</summary>
internal static class FlowRemarks
{
    // Water warmer than this is no cold water for an appliance. Estimate.
    private const double FedHotC = 35;

    // On its curve at what is drawn it would press so much: a switch that is set above that lets it run on.
    private static Sentence RunsOn(PartFlow figures, double lPerMin)
    {
        const double spareBar = 0.05;
        var (shutoff, free) = figures.AtVolts();
        double needs = (shutoff * (1 - Math.Pow(lPerMin / free, 2))) + spareBar;
        return needs < shutoff ? Sentence.Of($" With a cut-out of {Measure.Pressure(needs * 1e5)} it runs on, if its parts are rated for that.") : "";
    }

    // Water in a heater that nothing lets back swells into what gives way: an accumulator, an expansion vessel, or the relief valve.
    private static IEnumerable<FlowRemark> Swelling(Question question, FlowScene scene)
    {
        var graph = question.Tasks.Graph;
        int[] use = question.Tasks.For(Scenarios.TaskKind.Tank, question.Cancel).Set;
        foreach (var heater in graph.Parts.Where(p => PartWater.HeatsWater(p) && Catalogue.Part(p.Stock)!.Passage == Passage.Vessel))
        {
            var came = graph.Reach([graph.At(heater.Id, heater.Ports[0].Id)], use);
            bool Gets(Part p) => p.Ports.Any(o => came[graph.At(p.Id, o.Id)] is not null);
            if (graph.Parts.Any(p => Gets(p) && (PartWater.Pushes(p) || Scenarios.WayGraph.IsTank(p)))) continue;
            double litres = PartWater.HoldsL(heater) * ((Water.DensityKgPerM3(scene.ColdC) / Water.DensityKgPerM3(scene.HotC)) - 1);
            yield return new FlowRemark($"swells:{heater.Id}", heater.Id, Sentence.Of($"Heated, the water in {heater.Name} swells by " +
                $"{Measure.Volume(litres)} and nothing takes it: its relief valve drips. An expansion vessel on its side of the check valve takes it."), false);
        }
    }

    // With nothing open before it. A switch stops it, or nothing does.
    private static IEnumerable<FlowRemark> Blocked(Question question, FlowScene scene)
    {
        var graph = question.Tasks.Graph;
        int[] set = new int[graph.Parts.Count];
        foreach (int p in graph.Settable) set[p] = graph.PositionOf(p, scene.PositionOf(graph.Parts[p])?.Id);
        return question.Tasks.Goals.AgainstClosed(set).Select(b => new FlowRemark($"blocked:{b.Pump.Id}", b.Pump.Id,
            $"{b.Pump.Name} runs against {b.Closed.Name}, which is closed. " + (b.Pump.Flows().CutOutBar is null
                ? "It has no pressure switch: it heats up and wears." : "Its switch stops it, and nothing comes."), true));
    }

    /// <summary>What to know of a scene. O(parts).</summary>
    public static IEnumerable<FlowRemark> Of(
        Question question, RigFlow flow, FlowState state, FlowScene scene, IReadOnlyList<Part> open, IReadOnlyList<PumpFlow> pumps)
    {
        if (!state.Settled)
            yield return new FlowRemark("unsettled", null, "The flows did not settle: the figures are the nearest that were found.", true);
        foreach (var tap in open)
        {
            bool dry = !flow.OutletParts.Contains(tap.Id) && Catalogue.Part(tap.Stock)!.Passage == Passage.Mixer && tap.PortAt("spout") is null;
            if (dry) yield return new FlowRemark($"no-spout:{tap.Id}", tap.Id, $"{tap.Name} has no spout.", true);
        }
        foreach (var blocked in Blocked(question, scene)) yield return blocked;
        bool flows = state.OutletM3PerS.Any(q => q > 1e-7);
        if (open.Count > 0 && !flows)
            yield return new FlowRemark("nothing", null, pumps.Count == 0 && !scene.Town
                ? "Nothing comes: no pump runs, and no town water is joined." : "Nothing comes: water does not get from its source to what is open.", true);
        foreach (var (tank, port) in flow.Uncovered.Where(u => open.Count > 0 && flow.Drives.Count > 0))
            yield return new FlowRemark($"air:{tank.Id}", tank.Id, $"The water in {tank.Name} is below its {port.Called()} port: the pump draws air.", true);
        foreach (var pump in pumps)
        {
            var part = question.Index.Part(pump.PartId);
            if (pump.LPerMin > 0 && pump.SuctionM > pump.LiftM)
                yield return new FlowRemark($"lift:{part.Id}", part.Id, Sentence.Of($"{part.Name} would have to draw " +
                    $"{Measure.Length(pump.SuctionM)} of water; it draws {Measure.Length(pump.LiftM)}."), true);
            if (pump.StartsPerHour is { } often)
                yield return new FlowRemark($"pulses:{part.Id}", part.Id, Sentence.Of($"{part.Name} stops and starts about {(int)Math.Round(often)} " +
                    $"times an hour: {Measure.Volume(pump.StoresL)} comes between two starts. A larger accumulator makes it calmer.")
                    .And(RunsOn(part.Flows(), pump.LPerMin)), often > 120);
            if (part.Flows() is { CutInBar: { } starts, CutOutBar: { } stops })
                foreach (var (accumulator, air) in Accumulators.Useless(question, part, starts, stops))
                    yield return new FlowRemark($"precharge:{accumulator.Id}", accumulator.Id, Sentence.Of($"{accumulator.Name} stores next to nothing: its " +
                        $"air is at {Measure.Pressure(air * 1e5)}, and {part.Name} runs between {Measure.Pressure(starts * 1e5)} and " +
                        $"{Measure.Pressure(stops * 1e5)}. Set it at the cut-in pressure, or " +
                        $"{Measure.Pressure(TradeConstants.PrechargeBelowBar * 1e5)} below."), true);
            if (part.Flows() is { CutInBar: { } cutIn, CutOutBar: { } cutOut } figures && figures.AtVolts().ShutoffBar <= cutOut)
                yield return new FlowRemark($"never-stops:{part.Id}", part.Id, Sentence.Of($"{part.Name} gets to " +
                    $"{Measure.Pressure(figures.AtVolts().ShutoffBar * 1e5)} at most and stops at {Measure.Pressure(cutOut * 1e5)}: it never stops."), true);
        }
        if (pumps.Count(p => question.Index.Part(p.PartId).Flows().CutInBar is not null) > 1)
            yield return new FlowRemark("pumps", null, "Several pumps with switches feed the same lines: the one that is set higher does the work.", false);
        foreach (var (heater, q) in state.Unlit.Where(u => u.LPerMin > 0.05))
            yield return new FlowRemark($"unlit:{heater.Id}", heater.Id, Sentence.Of($"{heater.Name} lights at " +
                $"{Measure.Flow(heater.Flows().LightsLPerMin)}; {Measure.Flow(q)} flows: the water stays cold."), true);
        foreach (var remark in Swelling(question, scene)) yield return remark;
        foreach (var part in open.Where(p => p.Stock is "washing-machine" or "dishwasher" or "toilet" or "toilet-valve" or "drinking-tap"))
            if (state.Has(RigFlow.Node(part.Id, "cold")) && state.C[state.NodeOf(RigFlow.Node(part.Id, "cold"))] > FedHotC)
                yield return new FlowRemark($"fed-hot:{part.Id}", part.Id, $"{part.Name} is fed hot.", true);
    }
}
