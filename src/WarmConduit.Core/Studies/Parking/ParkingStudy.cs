using WarmConduit.Core.Geometry;
using WarmConduit.Core.Levels;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.Parking;

/// <summary>Where the drained slopes end on one side, and what limits them.</summary>
/// <param name="Side">In words: "nose up".</param>
/// <param name="FarDeg">The last slope from level at which it still drains within the limits that way, degrees; below 0: the other way. Null: beyond
/// the map.</param>
/// <param name="Words">The pool that limits it.</param>
public sealed record PatchSide(string Side, double? FarDeg, string Words);

/// <summary>What to put under a wheel.</summary>
/// <param name="Wheel">In words: "front wheel, kerb side".</param>
/// <param name="BlockM">Height of the block, m.</param>
public sealed record WheelBlock(string Wheel, double BlockM);

/// <summary>The parking envelope: how the rig may stand and still drain to its limits.</summary>
/// <param name="Limits">The limits it is judged by.</param>
/// <param name="MostDeg">The map reaches from minus to plus this, degrees.</param>
/// <param name="Rows">A row for each pitch, lowest first; a letter for each roll, lowest first: o drains within the limits; p too much in pipes and
/// parts, b too much in a part that ice breaks, t too much in a tank.</param>
/// <param name="OutsideL">What stays outside tanks as it is parked now, L; null: nothing is open.</param>
/// <param name="Now">The limit that is broken as it is parked now.</param>
/// <param name="NowWords">How it is parked now, in words.</param>
/// <param name="Share">Share of the attitudes within the brief's slope at which it drains, 0..1.</param>
/// <param name="Best">The attitude to aim for; null where there is none.</param>
/// <param name="BestWords">How to park it that way.</param>
/// <param name="MarginDeg">How far that is from the edge of the patch, degrees.</param>
/// <param name="Blocks">What to put under the wheels for that attitude; empty where wheelbase and track are not known, and where nothing is needed.</param>
/// <param name="Sides">What limits the slope on each side of the best attitude.</param>
public sealed record ParkingAnswer(
    ParkingLimits Limits,
    double MostDeg,
    IReadOnlyList<string> Rows,
    double? OutsideL,
    ParkingLimit Now,
    string NowWords,
    double Share,
    Attitude? Best,
    Sentence BestWords,
    double MarginDeg,
    IReadOnlyList<WheelBlock> Blocks,
    IReadOnlyList<PatchSide> Sides);

/// <summary>Where a rig may be parked.</summary>
public static class ParkingStudy
{
    /// <summary>Angles each way.</summary>
    public const int Count = 81;

    private const double MostDeg = 4, StepDeg = 2 * MostDeg / (Count - 1), EnoughDeg = 1, LeastBlockM = 0.004;

    // What a spirit level in a telephone tells: less to spare, or less of a turn, is no advice.
    private const double ToldDeg = 0.3;

    /// <summary>Asks of a rig in its drain scenario. Pure. O(81² · segments).</summary>
    public static ParkingAnswer Ask(Question question)
    {
        var limits = question.Rig.Brief.ParkingAllowed();
        var parked = question.Conditions.Parked;
        double[] angles = ParkingEnvelope.Angles(MostDeg, Count);
        string words = ParkingCount.Words(parked);
        if (ParkingCount.Ask(question, angles, angles) is not { } patch)
            return new ParkingAnswer(limits, MostDeg, [], null, ParkingLimit.Outside, words, 0, null,
                "Nothing is open, so nothing drains on any slope.", 0, [], []);
        var broken = new ParkingLimit[Count, Count];
        for (int p = 0; p < Count; p++)
            for (int r = 0; r < Count; r++) broken[p, r] = ParkingCount.Broken(patch, p, r, limits);
        var now = ParkingCount.Ask(question, [parked.PitchDeg], [parked.RollDeg])!;
        var best = Best(broken, parked);
        var at = best is { } b ? new Attitude(Short(angles[b.Pitch]), Short(angles[b.Roll])) : (Attitude?)null;
        var blocks = at is { } aim && question.Rig.Shell.Axles is { } axles ? Blocks(axles, parked, aim) : [];
        return new ParkingAnswer(
            limits, MostDeg, [.. Enumerable.Range(0, Count).Select(p => string.Concat(Enumerable.Range(0, Count).Select(r => Letter(broken[p, r]))))],
            now.OutsideM3[0, 0] * 1000, ParkingCount.Broken(now, 0, 0, limits), words, ShareOf(question), at,
            Advice(question, parked, at, blocks), best is { } m ? Short(m.MarginDeg) : 0, blocks, best is { } c
            ? Sides(question, broken, angles, (c.Pitch, c.Roll)) : []);
    }

    /// <summary>The share alone, of the same attitudes as on the map: for those who ask for no more.</summary>
    internal static double ShareOf(Question question)
    {
        var limits = question.Rig.Brief.ParkingAllowed();
        double[] angles = [.. ParkingEnvelope.Angles(MostDeg, Count).Where(a => Math.Abs(a) <= limits.SlopeDeg + 1e-9)];
        if (ParkingCount.Ask(question, angles, angles) is not { } patch) return 0;
        int good = Enumerable.Range(0, angles.Length).Sum(p => Enumerable.Range(0, angles.Length)
            .Count(r => ParkingCount.Broken(patch, p, r, limits) == ParkingLimit.None));
        return (double)good / (angles.Length * angles.Length);
    }

    private static char Letter(ParkingLimit limit) => limit switch
    {
        ParkingLimit.None => 'o',
        ParkingLimit.Outside => 'p',
        ParkingLimit.Breakable =>
        'b',
        _ => 't'
    };

    // As far from the edge as is worth while, then as near as may be to how it stands.
    private static (int Pitch, int Roll, double MarginDeg)? Best(ParkingLimit[,] broken, Attitude parked)
    {
        double now(double deg) => (deg + MostDeg) / StepDeg;
        // Distances to the nearest attitude outside, by rows and then by columns: exact.
        var down = new double[Count, Count];
        for (int r = 0; r < Count; r++)
        {
            double gap = 0;
            for (int p = 0; p < Count; p++) down[p, r] = gap = broken[p, r] == ParkingLimit.None ? gap + 1 : 0;
            gap = 0;
            for (int p = Count - 1; p >= 0; p--)
            {
                gap = broken[p, r] == ParkingLimit.None ? gap + 1 : 0;
                down[p, r] = Math.Min(down[p, r], gap);
            }
        }
        (int Pitch, int Roll, double MarginDeg)? best = null;
        var lead = (Margin: 0.0, Near: 0.0);
        for (int p = 0; p < Count; p++)
        {
            for (int r = 0; r < Count; r++)
            {
                if (broken[p, r] != ParkingLimit.None) continue;
                double square = Math.Pow(Math.Min(r, Count - 1 - r) + 1, 2);
                for (int s = 0; s < Count; s++) square = Math.Min(square, (s - r) * (s - r) + down[p, s] * down[p, s]);
                // Counted from the last attitude inside, not from the first outside.
                double margin = (Math.Sqrt(square) - 1) * StepDeg;
                if (margin < ToldDeg) continue;
                var worth = (Math.Min(margin, EnoughDeg), -(Math.Pow(p - now(parked.PitchDeg), 2) + Math.Pow(r - now(parked.RollDeg), 2)));
                if (best is null || worth.CompareTo(lead) > 0) (best, lead) = ((p, r, margin), worth);
            }
        }
        return best;
    }

    // Wheels stand on the plane of the yard; the plane wanted is turned against it.
    private static List<WheelBlock> Blocks(Axles axles, Attitude parked, Attitude aim)
    {
        double pitch = aim.TanPitch() - parked.TanPitch(), roll = aim.TanRoll() - parked.TanRoll();
        (string Name, double X, double Y)[] wheels =
        [
            ("front wheel, kerb side", axles.FrontXM, 0), ("front wheel, far side", axles.FrontXM, axles.TrackM),
            ("rear wheel, kerb side", axles.FrontXM - axles.WheelbaseM, 0), ("rear wheel, far side", axles.FrontXM - axles.WheelbaseM, axles.TrackM),
        ];
        double Height((string Name, double X, double Y) w) => w.X * pitch + w.Y * roll;
        double lowest = wheels.Min(Height);
        return [.. wheels.Select(w => new WheelBlock(w.Name, Math.Round(Height(w) - lowest, 4))).Where(w => w.BlockM >= LeastBlockM)];
    }

    private static Sentence Advice(Question question, Attitude parked, Attitude? at, List<WheelBlock> blocks)
    {
        if (at is not { } aim) return "On no slope here does it drain to the limits with a third of a degree to spare. Fix its dips first.";
        if (aim == parked || (Math.Abs(aim.PitchDeg - parked.PitchDeg) < ToldDeg && Math.Abs(aim.RollDeg - parked.RollDeg) < ToldDeg))
            return $"Good as it is: {ParkingCount.Words(parked)}.";
        var stand = Sentence.Of($"Park it {ParkingCount.Words(aim)}: ");
        if (blocks.Count == 0)
            return stand.And(question.Rig.Shell.Axles is null ? "enter wheelbase and track under Weights to see the blocks." : "no block needed.");
        // Alike under both wheels of an axle or a side: said once.
        foreach (var (first, second, words) in ((string, string, string)[])[("front wheel, kerb side", "front wheel, far side", "each front wheel"),
            ("rear wheel, kerb side", "rear wheel, far side", "each rear wheel"),
            ("front wheel, kerb side", "rear wheel, kerb side", "each wheel on the kerb side"),
            ("front wheel, far side", "rear wheel, far side", "each wheel on the far side")])
            if (blocks.Count == 2 && blocks[0].Wheel == first && blocks[1].Wheel == second && Math.Abs(blocks[0].BlockM - blocks[1].BlockM) < 0.002)
                return stand.And(Sentence.Of($"a block of {Measure.Length(blocks[0].BlockM)} under {words}."));
        var list = Sentence.Of($"a block of {Measure.Length(blocks[0].BlockM)} under the {blocks[0].Wheel}");
        foreach (var block in blocks.Skip(1)) list = list.And(Sentence.Of($", {Measure.Length(block.BlockM)} under the {block.Wheel}"));
        return stand.And(list).And(".");
    }

    private static List<PatchSide> Sides(Question question, ParkingLimit[,] broken, double[] angles, (int Pitch, int Roll) best)
    {
        var sides = new List<PatchSide>();
        foreach (var (name, dp, dr) in ((string, int, int)[])[("nose up", 1, 0), ("nose down", -1, 0), ("kerb side up", 0, -1), ("kerb side down", 0, 1)])
        {
            int p = best.Pitch, r = best.Roll;
            while (p >= 0 && r >= 0 && p < Count && r < Count && broken[p, r] == ParkingLimit.None) (p, r) = (p + dp, r + dr);
            if (p < 0 || r < 0 || p >= Count || r >= Count)
            {
                sides.Add(new PatchSide(name, null, "it drains as far as the map goes"));
                continue;
            }
            var there = question.With(question.Conditions with { Parked = new Attitude(angles[p], angles[r]) }).Ask(DrainDownStudy.Ask);
            // What breaks the limit there: a tank, or what stays in pipes and parts.
            bool tank = broken[p, r] == ParkingLimit.Tank;
            var pool = there.Pools.FirstOrDefault(o => tank ? o.Shares.Count == 0 && question.Rig.ByHand.Find(o.Parts[0].PartId) is null : o.Shares.Count > 0);
            var most = there.Runs.MaxBy(o => o.PoolL);
            // Back to the last one inside, in the sense of this side.
            double last = (dp * angles[p - dp]) + (dr * angles[r - dr]);
            sides.Add(new PatchSide(name, Short(last), pool?.Words ?? (most is { PoolL: > 0 } ? question.Index.Run(most.RunId).Name : "several parts")));
        }
        return sides;
    }

    private static double Short(double value) => Math.Round(value, 3) + 0.0;
}
