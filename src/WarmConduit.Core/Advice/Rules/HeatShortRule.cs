using System.Text.Json.Nodes;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Studies.ShellHeat;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>Heat is on, and nothing heats, a heater cannot hold what is set in the coldest hour of the night, or a pad rests beside cold water because of
/// where its sensor sits.</summary>
internal sealed class HeatShortRule : IRule
{
    public IReadOnlyList<FindingKind> Kinds => [FindingKind.HeatShort];

    private const string Id = "heat";

    // Less is within what a sensor reads wrong, K; a pad that gives so much of its power works at full.
    private const double MattersK = 1, AtFull = 0.9, HourS = 3600;

    public IEnumerable<Finding> Find(Question question) => question.Ask(ShortHeat.Of).Heaters.Select(h => Of(question, h))
        .Concat(question.Rig.Parts.Where(p => p.Pad?.Sensor is not null).Select(p => Misled(question, p)).OfType<Finding>());

    // It has what it runs on for an hour in which its water is too cold, and gives less than it could.
    private static Finding? Misled(Question question, Part part)
    {
        var (pad, night) = (part.Pad!, question.Ask(RigNight.Of));
        int n = night.Candidates.ToList().FindIndex(f => f.Thing == part.Id);
        if (n < 0) return null;
        var given = night.Heat.PadWh.GetValueOrDefault(part.Id) ?? new double[night.Heat.Hours];
        int[] hours = [.. night.HourReports()];
        double Warmest(int hour) => Math.Max(night.WaterC(hours[hour], n), night.WaterC(hours[hour + 1], n));
        bool Fed(int hour) => NightCourse.At(question.Conditions, (hour + 0.5) * HourS) is var then && then.Heating.Has(pad.Supply)
            && !then.Failed.Contains(part.Id);
        var rests = Enumerable.Range(0, Math.Min(given.Length, hours.Length - 1))
            .Where(h => Warmest(h) < pad.OnC - MattersK && given[h] < AtFull * pad.PowerW && Fed(h)).ToList();
        if (rests.Count == 0) return null;
        double falls = rests.Min(h => Math.Min(night.WaterC(hours[h], n), night.WaterC(hours[h + 1], n)));
        string where = pad.Sensor! switch
        {
            { Kind: PadSensorKind.InPad } => "lies in the pad itself, which gets warm before the water does",
            { Kind: PadSensorKind.Part, PartId: { } id } => $"sits on {question.Index.Part(id).Name}, which stays warmer",
            _ => "hangs in the air of the room, which stays warmer",
        };
        return new Finding(
            $"sensor:{part.Id}", FindingKind.HeatShort, Severity.Warning, part.Name, "its pad rests while it falls to", Measure.Temperature(falls),
            Sentence.Of($"The sensor of its pad {where}: on this night the water falls to {Measure.Temperature(falls)}, and for " +
                $"{Measure.Duration(rests.Count * HourS)} the pad gives less than it could."), Place.OnPart(question.Index, part), [], null,
            [new Mend("Put the sensor on the part, clear of the pad", [new ChangeThing($"parts/{part.Id}", new JsonObject
            {
                ["pad"] = RigDiff.Node(pad with { Sensor = null }),
            })])]);
    }

    private static Finding Of(Question question, ShortHeater heater)
    {
        if (heater.ZoneId is not { } zoneId)
            return new Finding(Id, FindingKind.HeatShort, Severity.Warning, "Heat", "on, but no heater", null, heater.Words, null, [], null);
        var (zone, night) = (question.Rig.Shell.Zones.First(z => z.Id == zoneId), question.Conditions.Steady());
        return new Finding(
            $"{Id}:{zoneId}", FindingKind.HeatShort, Severity.Warning, zone.Name, "heater too weak, short by", Measure.Power(heater.NeededW - heater.PowerW),
            heater.Words,
            new Place(zone.Box.Centre(), zone.Name, null, null, null, zoneId), [],
            new Why("Heat balance of all rooms in the coldest hour of the night: walls, air leakage and openings against the heaters.",
            [
                new("outdoors, coldest hour", Measure.Temperature(night.OutdoorC), false), new("wind", new Measure(night.WindMPerS, Quantity.Speed), false),
                .. zone.Heater is { } own ? [new("thermostat", Measure.Temperature(own.SetpointC), false)] : (WhyInput[])[],
                new("heater", Measure.Power(heater.PowerW), true), new("needed", Measure.Power(heater.NeededW), true),
            ]));
    }
}
