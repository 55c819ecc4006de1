using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>Zones that no wall keeps from the weather, since none is described.</summary>
internal sealed class BareZoneRule : IRule
{
    public IReadOnlyList<FindingKind> Kinds => [FindingKind.BareZone];

    public IEnumerable<Finding> Find(Question question)
    {
        foreach (var zone in Bare(question.Rig.Shell))
            yield return new Finding(
                $"bare:{zone.Id}", FindingKind.BareZone, Severity.Warning, zone.Name, "no walls", null,
                "It has no walls yet, so it counts as cold as outdoors. Add its walls, floor and roof.",
                new Place(zone.Box.Centre(), zone.Name, null, null, null, zone.Id), [], null);
    }

    /// <summary>Rooms of which no wall is described. Under the floor, in the wind, there are none.</summary>
    public static IEnumerable<Zone> Bare(Shell shell) => shell.Zones.Where(zone => zone.Kind != ZoneKind.OpenUnderfloor && zone.Faces.Count == 0
        && !shell.Zones.Any(z => z.Faces.Any(f => f.Towards == zone.Id)));
}
