namespace WarmConduit.Core.Heat.Night.Steps;

/// <summary>
/// What bodies touch, °C, at the two ends of the step at hand and straight between: the air of zones (the end is what is solved for), outdoors and sources; and
/// the wind. Targets are numbered as in <see cref="NightLayout.ContactTo"/>.
/// </summary>
internal sealed class StepAir
{
    private readonly NightLayout _layout;
    private readonly int[] _knot;
    private readonly double[] _boundaryStartC, _boundaryEndC;
    private readonly double[] _zoneBeforeC;
    private int _windKnot, _skyKnot;

    public readonly double[] ZoneStartC, ZoneEndC;

    public StepAir(NightLayout layout)
    {
        _layout = layout;
        int boundaries = layout.BoundaryKnots.Length;
        (_knot, _boundaryStartC, _boundaryEndC) = (new int[boundaries], new double[boundaries], new double[boundaries]);
        ZoneStartC = [.. layout.Network.Zones.Select(z => z.StartC)];
        ZoneEndC = new double[layout.ZoneCount];
        _zoneBeforeC = (double[])ZoneStartC.Clone();
    }

    /// <summary>In the middle of the step, m/s.</summary>
    public double WindMPerS { get; private set; }

    /// <summary>The sky in the middle of the step, °C.</summary>
    public double SkyC { get; private set; }

    /// <summary>In the middle of the step, so far as the last step foretells it (see <see cref="NightStep.Ahead"/>).</summary>
    public double AheadC(int target, double ahead) => target >= 0 ? ZoneStartC[target] + (ZoneStartC[target] - _zoneBeforeC[target]) * ahead : MeanC(target);

    public double StartC(int target) => target >= 0 ? ZoneStartC[target] : _boundaryStartC[-1 - target];

    public double EndC(int target) => target >= 0 ? ZoneEndC[target] : BoundaryEndC(target);

    public double BoundaryEndC(int target) => _boundaryEndC[-1 - target];

    public double MeanC(int target) => (StartC(target) + EndC(target)) / 2;

    /// <summary>At a share of the step.</summary>
    public double AtC(int target, double share) => StartC(target) * (1 - share) + EndC(target) * share;

    /// <summary>Outdoors or a source at a time.</summary>
    public double NowC(int target, double atS) => At(_layout.BoundaryKnots[-1 - target], atS, ref _knot[-1 - target]);

    /// <summary>Takes outdoors, sources and wind for a step.</summary>
    public void Prepare(in NightStep step)
    {
        for (int k = 0; k < _knot.Length; k++)
        {
            _boundaryStartC[k] = At(_layout.BoundaryKnots[k], step.AtS, ref _knot[k]);
            _boundaryEndC[k] = At(_layout.BoundaryKnots[k], step.AtS + step.LengthS, ref _knot[k]);
        }
        double middle = step.AtS + step.LengthS / 2;
        WindMPerS = At(_layout.Wind, middle, ref _windKnot);
        SkyC = _layout.Sky is { } sky ? At(sky, middle, ref _skyKnot) : MeanC(NightLayout.Outdoors);
    }

    /// <summary>The end of the step is where the next one starts.</summary>
    public void Advance()
    {
        Array.Copy(ZoneStartC, _zoneBeforeC, ZoneStartC.Length);
        Array.Copy(ZoneEndC, ZoneStartC, ZoneStartC.Length);
    }

    private static double At((double[] TimeS, double[] Value) series, double t, ref int knot)
    {
        var (times, values) = series;
        if (times.Length == 1 || t <= times[0]) return values[0];
        if (t >= times[^1]) return values[^1];
        while (times[knot + 1] < t) knot++;
        while (times[knot] > t) knot--;
        double f = (t - times[knot]) / (times[knot + 1] - times[knot]);
        return values[knot] + f * (values[knot + 1] - values[knot]);
    }
}
