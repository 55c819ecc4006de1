namespace WarmConduit.Core.Heat.Night.Steps;

/// <summary>A step from <paramref name="AtS"/>, of <paramref name="LengthS"/>, after one of <paramref name="PreviousS"/> (0: none yet).</summary>
internal readonly record struct NightStep(double AtS, double LengthS, double PreviousS)
{
    /// <summary>From now to the middle of the step, in steps as the last one was: so far the last step's change foretells this one's.</summary>
    public double Ahead => PreviousS > 0 ? LengthS / (2 * PreviousS) : 0;
}
