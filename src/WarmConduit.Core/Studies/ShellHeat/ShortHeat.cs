using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.ShellHeat;

/// <summary>Heat that is on and does not reach.</summary>
/// <param name="ZoneId">The room whose heater is too weak; null: nothing heats at all.</param>
/// <param name="PowerW">What it gives, W.</param>
/// <param name="NeededW">What holding its set point takes in the coldest hour, all other heaters holding theirs, W. Estimate.</param>
/// <param name="Words">In words.</param>
public sealed record ShortHeater(string? ZoneId, double PowerW, double NeededW, Sentence Words);

/// <summary>Heaters that do not reach; empty: all do, or heat is off.</summary>
/// <param name="Heaters">In the order of the shell.</param>
public sealed record HeatShortAnswer(IReadOnlyList<ShortHeater> Heaters);

/// <summary>Whether heat that is on holds what is set.</summary>
public static class ShortHeat
{
    private const double ShortK = 0.5, PlentyW = 1e6;

    // A room that falls below what its heater and its emitters are to hold while they may give all: by the night, an hour after its start.
    private static IEnumerable<ShortHeater> ByTheNight(Question question, IReadOnlyList<Part> emitters)
    {
        var night = question.Ask(RigNight.Of);
        var full = Enumerable.Range(0, night.Morning + 1).Where(r => night.Answer.ReportS[r] >= 3600
            && NightCourse.At(question.Conditions, night.Answer.ReportS[r]) is { Heating.Burns: true, HoldC: null }).ToList();
        foreach (var zone in question.Rig.Shell.Zones)
        {
            var here = emitters.Where(p => question.Index.ZoneAt(p.Box.Centre()) == zone).ToList();
            var heater = zone.Heater is { PowerW: > 0 } own ? own : null;
            if (here.Count == 0 && heater is null) continue;
            double hold = here.Select(p => p.Heats().HoldC!.Value).Append(heater?.SetpointC ?? double.NegativeInfinity).Max(),
                least = full.Select(r => night.AirC(zone, r)).DefaultIfEmpty(double.PositiveInfinity).Min();
            if (!(least < hold - ShortK)) continue;
            double needed = NeededW(question.Rig, question.Conditions.Steady(),
                z => z.Id == zone.Id ? z with { Heater = new ZoneHeater(PlentyW, hold) } : z)[zone.Id];
            yield return new ShortHeater(zone.Id, (heater?.PowerW ?? 0) + here.Sum(p => p.Heats().RatedW!.Value), needed, Sentence.Of(
                $"{zone.Name} falls to {Measure.Temperature(least)}, where its {(here.Count > 0 ? "radiators are" : "heater is")} set to " +
                $"{Measure.Temperature(hold)}: {Measure.Power(needed)} would hold it. Hotter fluid, more flow, a larger radiator or heater, or more " +
                $"insulation brings it up.{(night.Heat.Switched ? " So does a pump that runs longer: its timer or button has it rest." : "")}"));
        }
    }

    private static Dictionary<string, double> NeededW(Rig rig, SteadyNight night, Func<Zone, Zone> plenty) =>
        ZoneBalance.Solve(rig with { Shell = rig.Shell with { Zones = [.. rig.Shell.Zones.Select(plenty)] } }, night)
            .ToDictionary(z => z.ZoneId, z => z.HeaterW);

    /// <summary>Asks the steady balance of the coldest hour, with the heaters there are, and with as much as it takes. Pure. O(zones³).</summary>
    public static HeatShortAnswer Of(Question question)
    {
        var night = question.Conditions.Steady();
        if (!night.HeatOn) return new HeatShortAnswer([]);
        var zones = question.Rig.Shell.Zones;
        var heated = zones.Where(z => z.Heater is { PowerW: > 0 }).ToList();
        // What circuits give is known of the night itself, and so is what they leave to the heaters of rooms.
        var circuits = RigHeat.Of(question);
        var emitters = circuits.Flow is null ? [] : circuits.Acting.Where(p => p.Heats() is { RatedW: > 0, HoldC: not null }).ToList();
        if (emitters.Count > 0) return new HeatShortAnswer([.. ByTheNight(question, emitters)]);
        if (heated.Count == 0)
            return new HeatShortAnswer([new ShortHeater(null, 0, 0, "Heat is on, but no room has a heater with any power: the night is calculated without " +
                "heat. Add a heater to a room, or turn the heat off.")]);
        var held = ZoneBalance.Solve(question.Rig, night).ToDictionary(z => z.ZoneId, z => z.AirC);
        var cold = heated.Where(z => held[z.Id] < z.Heater!.SetpointC - ShortK).ToList();
        if (cold.Count == 0) return new HeatShortAnswer([]);
        Zone Plenty(Zone z) => z.Heater is { PowerW: > 0 } heater ? z with { Heater = heater with { PowerW = PlentyW } } : z;
        var needed = NeededW(question.Rig, night, Plenty);
        return new HeatShortAnswer([.. cold.Select(z => new ShortHeater(
            z.Id, z.Heater!.PowerW, needed[z.Id],
            Sentence.Of($"The heater of {z.Name} gives {Measure.Power(z.Heater.PowerW)}. Holding {Measure.Temperature(z.Heater.SetpointC)} with " +
            $"{Measure.Temperature(night.OutdoorC)} outdoors takes {Measure.Power(needed[z.Id])}; it reaches {Measure.Temperature(held[z.Id])}. Add " +
            $"insulation, seal air leaks, or fit a stronger heater.")))]);
    }
}
