using WarmConduit.Core.Studies.FreezeLadder;

namespace WarmConduit.Core.Studies.Night;

/// <summary>Air of a room, hour by hour.</summary>
/// <param name="ZoneId">The zone.</param>
/// <param name="C">Its air at each step, °C.</param>
public sealed record HourlyAir(string ZoneId, IReadOnlyList<double> C);

/// <summary>A rung of the ladder, hour by hour.</summary>
/// <param name="Id">Id of the rung.</param>
/// <param name="C">Its water at each step, °C.</param>
/// <param name="Ice">Its ice fraction at each step, 0..1.</param>
public sealed record HourlyWater(string Id, IReadOnlyList<double> C, IReadOnlyList<double> Ice);

/// <summary>Temperatures of everything at each hour of a night, for drawings.</summary>
/// <param name="StepH">Hours from one step to the next; the first is the start of the night.</param>
/// <param name="Steps">How many steps there are.</param>
/// <param name="Zones">Rooms, in the order of the shell.</param>
/// <param name="Rungs">Everything on the ladder, in its order.</param>
public sealed record HourlyAnswer(int StepH, int Steps, IReadOnlyList<HourlyAir> Zones, IReadOnlyList<HourlyWater> Rungs);

/// <summary>How cold everything on the ladder is at any hour of its night.</summary>
public static class HourlyStudy
{
    private const int MostSteps = 49;

    /// <summary>The same night as the ladder's, read at every hour, or every few of a long one: at most 49 times. Pure. O(rungs · steps) beyond the
    /// night.</summary>
    public static HourlyAnswer Ask(Question question)
    {
        var night = question.Ask(RigNight.Of);
        var number = night.Numbers();
        int[] hours = [.. night.HourReports()];
        int step = (hours.Length + MostSteps - 2) / (MostSteps - 1);
        int[] told = [.. hours.Where((_, n) => n % step == 0)];
        return new HourlyAnswer(
            step, told.Length,
            [.. question.Rig.Shell.Zones.Select(z => new HourlyAir(z.Id, [.. told.Select(r => Math.Round(night.AirC(z, r), 1))]))],
            [.. question.Ask(FreezeLadderStudy.Ask).Rungs.Select(r => new HourlyWater(
                r.Id, [.. told.Select(t => Math.Round(night.WaterC(t, number[r.Id]), 1))], [.. told.Select(t => Math.Round(night.Ice(t, number[r.Id]), 3))]))]);
    }
}
