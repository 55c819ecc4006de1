namespace WarmConduit.Core.Heat.Night.Steps;

/// <summary>Rows of the answer at the times asked for.</summary>
internal sealed class NightReports(IReadOnlyList<double> timeS, NightLayout layout, StepAir air, BodyState state,
    Circuits circuits)
{
    private int _next;

    public IReadOnlyList<double> TimeS => timeS;

    public double[,] ZoneC { get; } = new double[timeS.Count, layout.ZoneCount];

    public double[,] BodyC { get; } = new double[timeS.Count, layout.BodyCount];

    public double[,] Ice { get; } = new double[timeS.Count, layout.BodyCount];

    /// <summary>By circuit.</summary>
    public List<NightCircuitRow>[] Circuits { get; } = [.. layout.Circuits.Select(_ => new List<NightCircuitRow>())];

    /// <summary>Takes those up to now.</summary>
    public void TakeUntil(double nowS)
    {
        for (; _next < timeS.Count && timeS[_next] <= nowS + 1e-6; _next++)
        {
            for (int z = 0; z < layout.ZoneCount; z++) ZoneC[_next, z] = air.ZoneStartC[z];
            for (int c = 0; c < Circuits.Length; c++) Circuits[c].Add(circuits.Row(c, timeS[_next]));
            for (int b = 0; b < layout.BodyCount; b++) (BodyC[_next, b], Ice[_next, b]) = (state.C[b], state.Ice(b));
        }
    }
}
