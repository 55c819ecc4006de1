namespace WarmConduit.Core.Heat;

/// <summary>A night that cannot be run or balanced. <see cref="Place"/> names the zone, body, source, series or setting at fault.</summary>
public sealed class HeatNetworkException(string place, string reason) : ArgumentException($"{place}: {reason}")
{
    /// <summary>What is wrong, by id.</summary>
    public string Place { get; } = place;
}

/// <summary>Checks of the numbers that heat engines are given.</summary>
internal static class HeatNumbers
{
    internal const double Least = 1e-6, Most = 1e12;
    internal const double HottestC = 1000;

    internal static void Positive(string id, string what, double value)
    {
        if (!(value >= Least && value <= Most)) throw new HeatNetworkException(id, $"its {what} must be a number from {Least:0e0} to {Most:0e0}");
    }

    internal static void NotNegative(string id, string what, double value)
    {
        if (!(value >= 0 && value <= Most)) throw new HeatNetworkException(id, $"its {what} must be a number from 0 to {Most:0e0}");
    }

    internal static void Temperature(string id, double celsius)
    {
        if (!(Math.Abs(celsius) < HottestC)) throw new HeatNetworkException(id, "its temperature must be a number within the limits");
    }
}
