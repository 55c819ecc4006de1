using WarmConduit.Core.Heat.Night;
using WarmConduit.Core.Studies.Networks;

namespace WarmConduit.Core.Studies.Night;

/// <summary>The circuits at a report: what each reach is, and its row.</summary>
/// <param name="Pieces">What each reach is.</param>
/// <param name="Reaches">The reaches.</param>
/// <param name="Row">Their temperatures and heat.</param>
internal sealed record HeatMoment(IReadOnlyList<HeatPiece> Pieces, IReadOnlyList<NightReach> Reaches, NightCircuitRow Row);

/// <summary>What circuits and pads did in a night, over all its segments.</summary>
internal sealed class HeatCourse(int reports, double endS)
{
    private const double HourS = 3600;

    /// <summary>By report; null: no pump runs.</summary>
    public HeatMoment?[] Moments { get; } = new HeatMoment?[reports];

    /// <summary>Heat that each part of a circuit gave off, Wh by hour; of a heater, below 0.</summary>
    public Dictionary<string, double[]> PartWh { get; } = [];

    /// <summary>What each pad gave, by part, Wh by hour.</summary>
    public Dictionary<string, double[]> PadWh { get; } = [];

    /// <summary>Fluid for which flows were worked out, °C; each once.</summary>
    public List<double> FluidC { get; } = [];

    /// <summary>Seconds in each hour in which the circuits' pumps run.</summary>
    public double[] PumpS { get; } = new double[(int)Math.Ceiling(endS / HourS)];

    /// <summary>Takes a segment; <paramref name="report"/> says which report of the night each of its own is.</summary>
    public void Take(NightNetwork network, NightAnswer answer, LaidCircuits laid, Func<int, int?> report, NightSegment segment)
    {
        foreach (var energy in answer.Energy.Where(e => network.Bodies.Any(b => b.Id == e.Owner)))
            Add(PadWh, energy.Owner, energy.WhByHour);
        if (answer.Circuits is not [var circuit]) return;
        var pieces = laid.Pieces;
        if (laid.Heat is { } heat && !FluidC.Contains(heat.FluidC)) FluidC.Add(heat.FluidC);
        for (int r = 0; r < circuit.Rows.Count; r++)
            if (report(r) is { } of) Moments[of] = new HeatMoment(pieces, network.Circuits[0].Reaches, circuit.Rows[r]);
        for (int p = 0; p < pieces.Count; p++)
            if (pieces[p].PartId is { } part) Add(PartWh, part, circuit.HeatWhByHour[p]);
        // An engine's own pump takes nothing from the battery.
        if (!segment.Heating.Pumps) return;
        for (int h = 0; h < PumpS.Length; h++) PumpS[h] += Math.Max(0, Math.Min(segment.ToS, (h + 1) * HourS) - Math.Max(segment.FromS, h * HourS));
    }

    private void Add(Dictionary<string, double[]> into, string id, IReadOnlyList<double> wh)
    {
        if (!into.TryGetValue(id, out var sum)) into[id] = sum = new double[PumpS.Length];
        for (int h = 0; h < wh.Count; h++) sum[h] += wh[h];
    }
}
