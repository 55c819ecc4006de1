using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.ShellHeat;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>Heat is on, and nothing heats, or a heater cannot hold what is set in the coldest hour of the night.</summary>
internal sealed class HeatShortRule : IRule
{
    public IReadOnlyList<FindingKind> Kinds => [FindingKind.HeatShort];

    private const string Id = "heat";

    public IEnumerable<Finding> Find(Question question) => question.Ask(ShortHeat.Of).Heaters.Select(h => Of(question, h));

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
