namespace WarmConduit.Core.Heat.Night.Steps;

/// <summary>What came in so far, J: from heaters, and from boundaries; and both without their signs.</summary>
internal sealed class HeatLedger
{
    public double HeatersJ { get; private set; }

    public double BoundariesJ { get; private set; }

    public double TurnoverJ { get; private set; }

    public void Heater(double joule)
    {
        HeatersJ += joule;
        TurnoverJ += Math.Abs(joule);
    }

    public void Boundary(double joule)
    {
        BoundariesJ += joule;
        TurnoverJ += Math.Abs(joule);
    }
}
