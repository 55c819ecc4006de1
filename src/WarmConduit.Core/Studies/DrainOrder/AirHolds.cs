using WarmConduit.Core.Levels;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.DrainOrder;

/// <summary>Water that hangs because no air gets in behind it.</summary>
/// <param name="RunIds">Runs that keep it.</param>
/// <param name="Words">The runs, in words.</param>
/// <param name="Litres">How much, L. Estimate, on the side of water that stays.</param>
/// <param name="OpenAt">Where an opening would let it go: its highest place.</param>
/// <param name="Gulps">Its bore is wide enough to let air up past the water, so that it empties in gulps.</param>
public sealed record AirHold(IReadOnlyList<string> RunIds, string Words, double Litres, Place OpenAt, bool Gulps);

/// <summary>Where no air gets in, no water gets out.</summary>
internal static class AirHolds
{
    /// <summary>From this bore on a riser shut above gulps; narrower ones keep their water. Estimate.</summary>
    public const double GulpBoreM = 0.020;

    private const double LeastL = 0.002;

    /// <summary>What hangs in a rig as it is asked about. O(points).</summary>
    public static IEnumerable<AirHold> Of(Question question, LevelGraph graph)
    {
        var rig = question.Rig;
        // A pump that is run dry by hand blows through what is joined to it.
        bool Pumped(RunEnd end) => end.Part is { } id && rig.ByHand.Find(id) is not null && Catalogue.Part(question.Index.Part(id).Stock)!.Passage == Passage.Pump;
        foreach (var basin in AirBasins.Find(graph, [], question.Conditions.Parked))
        {
            var runs = basin.Edges.Where(e => e < rig.Runs.Count && rig.Runs[e].Service is not (Service.Coolant or Service.Vent)).Select(e => rig.Runs[e]).Where(r => !Pumped(r.From) && !Pumped(r.To)).ToList();
            if (runs.Count == 0 || basin.VolumeM3 * 1000 < LeastL) continue;
            bool gulps = basin.Edges.All(e => graph.SegBoreM[graph.EdgeFirst[e]] is 0 or >= GulpBoreM);
            yield return new AirHold([.. runs.Select(r => r.Id)], runs.Count == 1 ? runs[0].Name : $"{runs[0].Name} and {runs.Count - 1} more", basin.VolumeM3 * 1000, question.Levels.PlaceAt(basin.OpenAt), gulps);
        }
    }
}
