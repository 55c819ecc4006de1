using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies;

/// <summary>One weather that lasts: what is worked out for it knows of no hours. Made from <see cref="Conditions"/>, which never take its place.</summary>
/// <param name="OutdoorC">Outdoors, °C.</param>
/// <param name="WindMPerS">Wind, m/s.</param>
/// <param name="HeatOn">Whether the zone heaters run.</param>
public sealed record SteadyNight(double OutdoorC, double WindMPerS, bool HeatOn)
{
    /// <summary>The brief's lowest temperature in its wind, heat on.</summary>
    public static SteadyNight Of(Brief brief) => new(brief.LowestC, brief.WindMPerS, true);
}
