using WarmConduit.Core.Heat.Night;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Networks;

namespace WarmConduit.Core.Studies.Night;

/// <summary>The circuits at a report: what each reach is, and its row.</summary>
/// <param name="Pieces">What each reach is.</param>
/// <param name="Reaches">The reaches.</param>
/// <param name="Row">Their temperatures and heat.</param>
internal sealed record HeatMoment(IReadOnlyList<HeatPiece> Pieces, IReadOnlyList<NightReach> Reaches, NightCircuitRow Row);

/// <summary>What circuits and pads of <paramref name="rig"/> did in a night or a winter, over all its segments.</summary>
internal sealed class HeatCourse(Rig rig, int reports, double endS)
{
    private const double HourS = 3600;

    private readonly Part[] _padded = [.. rig.Parts.Where(p => p.Pad is not null)];

    /// <summary>Hours, the last of them maybe a part of one.</summary>
    public int Hours { get; } = (int)Math.Ceiling(endS / HourS);

    /// <summary>By report; null: no pump runs then.</summary>
    public HeatMoment?[] Moments { get; } = new HeatMoment?[reports];

    /// <summary>Heat that each part of a circuit gave off, Wh by hour; of a heater, below 0, with what warms its fluid up.</summary>
    public Dictionary<string, double[]> PartWh { get; } = [];

    /// <summary>Heat that each length of a line gave off, Wh by hour.</summary>
    public Dictionary<HeatPiece, double[]> LineWh { get; } = [];

    /// <summary>What each pad gave, by part, Wh by hour.</summary>
    public Dictionary<string, double[]> PadWh { get; } = [];

    /// <summary>Heat that rooms, bodies, outdoors and engines get of circuits, by their id in the night, Wh by hour.</summary>
    public Dictionary<string, double[]> GotWh { get; } = [];

    /// <summary>Seconds in each hour in which fluid passes each part of a circuit; while it is warmed up, of a heater alone.</summary>
    public Dictionary<string, double[]> FlowS { get; } = [];

    /// <summary>Seconds in each hour in which each pump runs.</summary>
    public Dictionary<string, double[]> PumpS { get; } = [];

    /// <summary>Starts of each heater in each hour, because its pump starts.</summary>
    public Dictionary<string, double[]> Starts { get; } = [];

    /// <summary>Whether a pump goes on and off by a timer or a button.</summary>
    public bool Switched { get; private set; }

    /// <summary>Fluid for which flows were worked out, °C; each once.</summary>
    public List<double> FluidC { get; } = [];

    /// <summary>Takes a segment; <paramref name="report"/> says which report of the night each of its own is.</summary>
    public void Take(NightAnswer answer, LaidCircuits laid, Func<int, int?> report, NightSegment segment)
    {
        foreach (var energy in answer.Energy.Where(e => _padded.Any(p => p.Id == e.Owner)))
            Add(PadWh, energy.Owner, energy.WhByHour);
        foreach (var pump in laid.Pumps) AddS(PumpS, pump.PartId, pump.Runs, segment);
        Switched |= laid.Switched;
        for (int c = 0; c < laid.All.Count; c++)
        {
            var ((circuit, pieces, heat), done) = (laid.All[c], answer.Circuits[c]);
            if (!FluidC.Contains(heat.FluidC)) FluidC.Add(heat.FluidC);
            for (int r = 0; r < done.Rows.Count; r++)
                if (report(r) is { } of && CircuitLayout.On(circuit.PumpOn, answer.ReportS[r]))
                    Moments[of] = new HeatMoment(pieces, circuit.Reaches, done.Rows[r]);
            for (int p = 0; p < pieces.Count; p++)
            {
                if (pieces[p].PartId is { } part) Add(PartWh, part, done.HeatWhByHour[p]);
                else Add(LineWh, pieces[p], done.HeatWhByHour[p]);
                if (circuit.Reaches[p].Target is { } target) Add(GotWh, target, done.HeatWhByHour[p]);
            }
            foreach (string part in pieces.Select(p => p.PartId).OfType<string>().Distinct()) AddS(FlowS, part, circuit.PumpOn, segment);
        }
        foreach (var warmUp in laid.WarmUps)
        {
            int hour = (int)(warmUp.During.FromS / HourS);
            Row(PartWh, warmUp.PartId)[hour] -= warmUp.Wh;
            Row(FlowS, warmUp.PartId)[hour] += warmUp.During.ToS - warmUp.During.FromS;
            if (warmUp.Starts) Row(Starts, warmUp.PartId)[hour]++;
        }
    }

    private double[] Row<TKey>(Dictionary<TKey, double[]> rows, TKey id)
        where TKey : notnull => rows.TryGetValue(id, out var row) ? row : rows[id] = new double[Hours];

    private void Add<TKey>(Dictionary<TKey, double[]> into, TKey id, IReadOnlyList<double> wh)
        where TKey : notnull
    {
        double[] sum = Row(into, id);
        for (int h = 0; h < wh.Count; h++) sum[h] += wh[h];
    }

    private void AddS(Dictionary<string, double[]> into, string id, IReadOnlyList<NightWindow> windows, NightSegment segment)
    {
        double[] sum = Row(into, id);
        foreach (var window in windows)
        {
            double from = Math.Max(window.FromS, segment.FromS), to = Math.Min(window.ToS, segment.ToS);
            if (to <= from) continue;
            for (int h = (int)(from / HourS); h < Hours && h * HourS < to; h++) sum[h] += Math.Min(to, (h + 1) * HourS) - Math.Max(from, h * HourS);
        }
    }
}
