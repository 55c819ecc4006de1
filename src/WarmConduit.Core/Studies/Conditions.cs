using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies;

/// <summary>Whether the system is full or has been drained.</summary>
public enum WaterState
{
    /// <summary>Full, as in use.</summary>
    Wet,

    /// <summary>Drained: only what stays.</summary>
    Drained,
}

/// <summary>The night a study is asked about.</summary>
/// <param name="OutdoorC">Outdoor temperature, °C, all night.</param>
/// <param name="WindMPerS">Wind, m/s.</param>
/// <param name="HeatOn">Whether the zone heaters run.</param>
/// <param name="StartWaterC">Water temperature at the start, °C.</param>
/// <param name="Water">Full or drained.</param>
/// <param name="StartHour">Hour of the day at which the night starts, 0..24.</param>
/// <param name="Hours">Length of the night until morning, h.</param>
/// <param name="Parked">How the vehicle stands.</param>
public sealed record Conditions(
    double OutdoorC, double WindMPerS, bool HeatOn, double StartWaterC, WaterState Water, double StartHour, double Hours, Attitude Parked)
{
    /// <summary>A night as the brief fears it: from ten in the evening to six, parked level, the lowest temperature, heat as the way of living has it.</summary>
    public static Conditions Of(Brief brief) => new(
        brief.LowestC,
        brief.WindMPerS,
        brief.Living == WayOfLiving.LivedIn,
        12,
        brief.Living == WayOfLiving.LivedIn ? WaterState.Wet : WaterState.Drained,
        22,
        8,
        Attitude.Level);

    /// <summary>What is out of range, by field; empty when all is well.</summary>
    public IReadOnlyList<RigFault> Check()
    {
        var faults = new List<RigFault>();
        void Range(string field, double value, double low, double high, string unit)
        {
            if (!(value >= low && value <= high)) faults.Add(new RigFault($"conditions.{field}", FormattableString.Invariant($"it must lie between {low} and {high} {unit}")));
        }
        Range("outdoorC", OutdoorC, -60, 50, "°C");
        Range("windMPerS", WindMPerS, 0, 60, "m/s");
        Range("startWaterC", StartWaterC, 0, 95, "°C");
        Range("startHour", StartHour, 0, 24, "h");
        Range("hours", Hours, 0.5, 240, "h");
        Range("parked.pitchDeg", Parked.PitchDeg, -15, 15, "°");
        Range("parked.rollDeg", Parked.RollDeg, -15, 15, "°");
        return faults;
    }
}
