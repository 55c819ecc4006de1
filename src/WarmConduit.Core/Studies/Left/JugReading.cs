namespace WarmConduit.Core.Studies.Left;

/// <summary>Volume measured under an opening, beside what was expected.</summary>
/// <param name="PartId">The opening.</param>
/// <param name="ExpectedL">What should have come, L.</param>
/// <param name="MeasuredL">What came out, L.</param>
/// <param name="FinestL">The smallest difference a jug can show, L. Estimate.</param>
public sealed record JugReading(string PartId, double ExpectedL, double MeasuredL, double FinestL)
{
    // A jug is read to so much, and film stays on its way: less is no news. Estimate.
    private const double JugL = 0.03, JugShare = 0.1;

    /// <summary>Less came out than expected: it is still in the rig, or came out elsewhere.</summary>
    public bool IsShort => ExpectedL - MeasuredL > FinestL;

    /// <summary>The reading agrees with what was expected.</summary>
    public bool Agrees => Math.Abs(MeasuredL - ExpectedL) <= FinestL;

    /// <summary>A reading of <paramref name="measuredL"/> where <paramref name="expectedL"/> should have come.</summary>
    public static JugReading Of(string partId, double expectedL, double measuredL) => new(partId, expectedL, measuredL, JugL + (JugShare * expectedL));
}
