using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>Zones that no wall keeps from the weather, since none is described.</summary>
internal sealed class BareZoneRule : IRule
{
    public IReadOnlyList<FindingKind> Kinds => [FindingKind.BareZone];

    public IEnumerable<Finding> Find(Question question)
    {
        var zones = question.Rig.Shell.Zones;
        foreach (var zone in zones)
        {
            // Under the floor, in the wind, there are none.
            if (zone.Kind == ZoneKind.OpenUnderfloor || zone.Faces.Count > 0 || zones.Any(z => z.Faces.Any(f => f.Towards == zone.Id))) continue;
            yield return new Finding(
                $"bare:{zone.Id}", FindingKind.BareZone, Severity.Warning, zone.Name, "no walls", null,
                "It has no walls yet, so it counts as cold as outdoors. Add its walls, floor and roof.",
                new Place(zone.Box.Centre(), zone.Name, null, null, null, zone.Id), [], null);
        }
    }
}
