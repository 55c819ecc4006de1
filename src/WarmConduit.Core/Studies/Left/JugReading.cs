namespace WarmConduit.Core.Studies.Left;

/// <summary>What a jug took under an opening, beside what should have come.</summary>
/// <param name="PartId">The opening.</param>
/// <param name="ExpectedL">What should have come, L.</param>
/// <param name="MeasuredL">What did, L.</param>
/// <param name="FinestL">How much finer than that a jug cannot tell, L. Estimate.</param>
public sealed record JugReading(string PartId, double ExpectedL, double MeasuredL, double FinestL)
{
    // A jug is read to so much, and film stays on its way: less is no news. Estimate.
    private const double JugL = 0.03, JugShare = 0.1;

    /// <summary>Less came than should have: it is still in the rig, or came out elsewhere.</summary>
    public bool IsShort => ExpectedL - MeasuredL > FinestL;

    /// <summary>The reading agrees with what should have come.</summary>
    public bool Agrees => Math.Abs(MeasuredL - ExpectedL) <= FinestL;

    /// <summary>A reading of <paramref name="measuredL"/> where <paramref name="expectedL"/> should have come.</summary>
    public static JugReading Of(string partId, double expectedL, double measuredL) => new(partId, expectedL, measuredL, JugL + (JugShare * expectedL));
}
