using WarmConduit.Core.Geometry;
using WarmConduit.Core.Levels;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.Parking;

/// <summary>Which of the limits of parking is broken.</summary>
public enum ParkingLimit
{
    /// <summary>None.</summary>
    None,

    /// <summary>Too much stays outside tanks.</summary>
    Outside,

    /// <summary>Too much stays in a part that ice breaks.</summary>
    Breakable,

    /// <summary>Too much stays in a tank.</summary>
    Tank,
}

/// <summary>What stays at many attitudes, judged by the limits of the brief: one rule for the map, the findings and the fixes.</summary>
internal static class ParkingCount
{
    /// <summary>What stays at each pitch and roll; null when nothing is open.</summary>
    public static PatchAnswer? Ask(Question question, IReadOnlyList<double> pitchDeg, IReadOnlyList<double> rollDeg, bool eachTank = false)
    {
        var network = question.Levels;
        if (network.Graph is not { } graph) return null;
        var rig = question.Rig;
        int[] edges = [.. Enumerable.Range(0, rig.Runs.Count).Where(r => rig.Runs[r].Service != Service.Coolant)];
        PatchPart[] parts =
        [
            .. rig.Parts.Where(p => Counts(question, p) && !network.VesselOf.ContainsKey(p.Id) && PartWater.HoldsL(p) > 0)
                .Select(p => new PatchPart([.. network.JoinedPointsOf(p)], PartWater.HoldsL(p) / 1000, PartWater.InnerHeightM(p), network.IceBreaks(p.Id))),
        ];
        return ParkingEnvelope.Patch(graph, question.Elimination!, pitchDeg, rollDeg,
            new PatchQuestion(edges, parts, [.. Tanks(question).Select(t => network.VesselOf[t.Id])], eachTank), question.Cancel);
    }

    // Corners and edges of the brief's slope; asked by two rules, worked out once.
    private sealed record AtCorners(PatchAnswer? Patch, double[] Angles);

    private static AtCorners Corners(Question question)
    {
        double[] angles = question.Rig.Brief.ParkingAllowed().SlopeDeg is > 0 and var slope ? [-slope, 0, slope] : [0];
        return new AtCorners(Ask(question, angles, angles, eachTank: true), angles);
    }

    private static IEnumerable<Part> Tanks(Question question) => question.Rig.Parts.Where(p => Counts(question, p)
        && question.Levels.VesselOf.ContainsKey(p.Id));

    /// <summary>The limit that is broken at one attitude of <paramref name="patch"/>.</summary>
    public static ParkingLimit Broken(PatchAnswer patch, int pitch, int roll, ParkingLimits limits) =>
        patch.OutsideM3[pitch, roll] * 1000 > limits.OutsideL + 1e-9 ? ParkingLimit.Outside
        : patch.BreakableM3[pitch, roll] * 1000 > limits.BreakableL + 1e-9 ? ParkingLimit.Breakable
        : patch.VesselShare[pitch, roll] > limits.TankShare + 1e-9 ? ParkingLimit.Tank
        : ParkingLimit.None;

    /// <summary>The attitude within the brief's slope at which pipes and parts break a limit worst, and what stays there, L; null where they drain on all of
    /// them. LevelL: what stays when level.</summary>
    public static (Attitude At, double OutsideL, double LevelL)? WorstOutside(Question question)
    {
        var limits = question.Rig.Brief.ParkingAllowed() with { TankShare = 1 };
        var (asked, angles) = question.Ask(Corners);
        if (asked is not { } patch) return null;
        int level = angles.Length / 2;
        (Attitude At, double OutsideL, double LevelL)? worst = null;
        double most = -1;
        for (int p = 0; p < angles.Length; p++)
        {
            for (int r = 0; r < angles.Length; r++)
            {
                double weight = (patch.OutsideM3[p, r] + patch.BreakableM3[p, r]) * 1000;
                if (Broken(patch, p, r, limits) == ParkingLimit.None || weight <= most) continue;
                most = weight;
                worst = (new Attitude(angles[p], angles[r]), patch.OutsideM3[p, r] * 1000, patch.OutsideM3[level, level] * 1000);
            }
        }
        return worst;
    }

    /// <summary>Tanks that keep more than the brief allows somewhere within its slope, each with the attitude at which it keeps most, and what stays,
    /// L.</summary>
    public static IEnumerable<(Part Tank, Attitude At, double StaysL)> WorstTanks(Question question)
    {
        var (patch, angles) = question.Ask(Corners);
        if (patch?.OfVessels is not { } shares) yield break;
        double allowed = question.Rig.Brief.ParkingAllowed().TankShare;
        int n = 0;
        foreach (var tank in Tanks(question))
        {
            var (most, at) = (-1.0, default(Attitude));
            for (int p = 0; p < angles.Length; p++)
                for (int r = 0; r < angles.Length; r++)
                    if (shares[p, r, n] > most) (most, at) = (shares[p, r, n], new Attitude(angles[p], angles[r]));
            n++;
            if (most > allowed + 1e-9) yield return (tank, at, most * PartWater.HoldsL(tank));
        }
    }

    // What is emptied by hand, and what keeps its water whatever the slope, is apart.
    private static bool Counts(Question question, Part part) =>
        question.Rig.ByHand.Find(part.Id) is null && !Catalogue.Part(part.Stock)!.KeepsWater && !question.Index.HoldsCoolant(part);

    /// <summary>An attitude as one says it: "nose 0.7° up, kerb side 0.3° down".</summary>
    public static string Words(Attitude at)
    {
        string Part(double deg, string what, bool upWhenPositive) =>
            Math.Abs(deg) < 0.05 ? "" : FormattableString.Invariant($"{what} {Math.Abs(deg):0.0}° {(deg > 0 == upWhenPositive ? "up" : "down")}");
        string[] parts = [Part(at.PitchDeg, "nose", true), Part(at.RollDeg, "kerb side", false)];
        string words = string.Join(", ", parts.Where(p => p.Length > 0));
        return words.Length == 0 ? "level" : words;
    }
}
