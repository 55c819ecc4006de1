namespace WarmConduit.Core.Heat;

/// <summary>
/// A coolant line along still water, both losing to air. Per metre: <paramref name="TraceWPerMK"/> between them, <paramref name="WaterToAirWPerMK"/> and
/// <paramref name="CoolantToAirWPerMK"/> to air.
/// </summary>
public readonly record struct TraceContact(double TraceWPerMK, double WaterToAirWPerMK, double CoolantToAirWPerMK)
{
    /// <summary>Taped side by side, plain plastic, W/mK. Estimate, to be calibrated.</summary>
    public const double PlainPlasticWPerMK = 0.7;

    /// <summary>Under aluminium tape over the full length, W/mK. Estimate.</summary>
    public const double AluminiumTapeWPerMK = 1.5;

    /// <summary>Clipped into a heat-spreading plate, W/mK. Estimate.</summary>
    public const double SpreadingPlateWPerMK = 2.5;

    /// <summary>What a kelvin between coolant and air costs a metre: Gc + Gt Gw/(Gt + Gw), W/mK.</summary>
    public double LossWPerMK() => CoolantToAirWPerMK + (TraceWPerMK + WaterToAirWPerMK > 0
        ? TraceWPerMK * WaterToAirWPerMK / (TraceWPerMK + WaterToAirWPerMK) : 0);
}

/// <summary>A traced line. Temperatures in °C, heat in W, reach in m (0 where the water is nowhere held, infinite where it always is).</summary>
public readonly record struct TraceAnswer(double OutletC, double WaterAtInletC, double WaterAtOutletC, double HeatW, double ReachM);

/// <summary>Heat along a trace line.</summary>
public static class TraceLine
{
    /// <summary>
    /// Steady and exact: the coolant falls towards the air as an exponential, the water beside it stands between the two. <paramref name="flowKgPerS"/>
    /// and heat capacity must be above 0, the rest finite, conductances and length not below 0, or it throws <see cref="ArgumentOutOfRangeException"/>. O(1).
    /// </summary>
    public static TraceAnswer Solve(TraceContact contact, double flowKgPerS, double heatCapacityJPerKgK, double airC, double inletC, double lengthM,
        double holdC)
    {
        if (!(flowKgPerS > 0)) throw new ArgumentOutOfRangeException(nameof(flowKgPerS), "without flow no heat is carried along the line");
        if (!(heatCapacityJPerKgK > 0) || !double.IsFinite(heatCapacityJPerKgK)) throw new ArgumentOutOfRangeException(nameof(heatCapacityJPerKgK));
        if (!(lengthM >= 0) || !double.IsFinite(lengthM)) throw new ArgumentOutOfRangeException(nameof(lengthM));
        if (!double.IsFinite(airC + inletC + holdC)) throw new ArgumentOutOfRangeException(nameof(airC), "temperatures must be finite");
        if (!(contact.TraceWPerMK >= 0 && contact.WaterToAirWPerMK >= 0 && contact.CoolantToAirWPerMK >= 0) || !double.IsFinite(contact.LossWPerMK()))
            throw new ArgumentOutOfRangeException(nameof(contact));
        double carried = flowKgPerS * heatCapacityJPerKgK, decay = contact.LossWPerMK() / carried;
        double outlet = airC + (inletC - airC) * Math.Exp(-decay * lengthM);
        double share = contact.TraceWPerMK == 0 ? 0 : contact.TraceWPerMK / (contact.TraceWPerMK + contact.WaterToAirWPerMK);
        double Water(double coolantC) => airC + share * (coolantC - airC);
        double atInlet = Water(inletC);
        double reach = holdC <= airC ? double.PositiveInfinity
            : atInlet < holdC ? 0
            : decay == 0 ? double.PositiveInfinity
            : Math.Log((atInlet - airC) / (holdC - airC)) / decay;
        return new TraceAnswer(outlet, atInlet, Water(outlet), carried * (inletC - outlet), reach);
    }
}
