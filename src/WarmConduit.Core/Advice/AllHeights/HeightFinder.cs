using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Levels;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Studies.Parking;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.AllHeights;

/// <summary>Finds heights for all bends and joints, so that every line falls to the drain it leads to with the greatest margin.</summary>
public static partial class HeightFinder
{
    // What is given stays a hand's breadth from where it was drawn, over the floor and over what is in the way.
    private const double ReachM = 0.4, OverSolidM = 0.01, UnderRoofM = 0.05, LeastMoveM = 0.001, MostShiftM = 0.05;
    private const int MostChains = 40, MostRounds = 5000, MostHeld = 60;

    // Less than this is not worth moving a clip for, L and a share of the slopes; so much fall beyond the slope is left to a height that a fix has as well.
    private const double LeastWonL = 0.0005, LeastWonShare = 0.005, LeastBeyond = 0.002;

    /// <summary>
    /// Asks of a rig in its drain scenario: water keeps the way that it has now. Pure. Heights are those of <see cref="AutoFall"/>: the greatest margin, to a
    /// tenth of a millimetre.
    /// </summary>
    public static AutoFallAnswer Ask(Question question, AutoFallInput input)
    {
        var limits = new HeightLimits(input);
        var layout = new Layout(question, limits);
        double slope = limits.SlopeDeg ?? question.Rig.Brief.ParkingAllowed().SlopeDeg, before = question.Ask(DrainDownStudy.Ask).Stays.TotalL;
        double share = ParkingStudy.ShareOf(question);
        var (needed, spare) = Drains(question);
        if (layout.Lengths.Count == 0)
            return new AutoFallAnswer(slope, null, null, false, "No line has a way out yet: open a drain, or put one in.", [], [], null, before, before, share,
                share, null, [], needed, spare);

        // A chain that nothing can mend is told, and the rest is given its fall without it.
        var forbids = new List<FallAnswer>();
        var lengths = layout.Lengths.ToList();
        FallAnswer solved;
        while (!(solved = Solve(question, layout, lengths, slope)).Feasible && solved.Binding is { } blocked && forbids.Count < MostChains)
        {
            question.GoOn(forbids.Count, 2 * MostChains);
            forbids.Add(solved);
            int had = lengths.Count;
            lengths.RemoveAll(l => Enumerable.Range(0, blocked.Points.Count - 1).Any(i => blocked.Points[i] == l.From && blocked.Points[i + 1] == l.To));
            if (lengths.Count == had || lengths.Count == 0) break;
        }
        double now = layout.Margin(slope, lengths, layout.Drawn());
        bool won = lengths.Count > 0 && solved.Margin > now + 1e-5;
        // As much as the brief asks for, and no bend farther than that takes.
        double wanted = Math.Min(0.8 * solved.Margin, question.Rig.Brief.LeastFall);
        var heights = (won && wanted > now + 1e-5) || layout.Outside() ? layout.Fewest(lengths, slope, wanted) ?? solved.HeightM : null;
        var (edits, changes) = heights is null ? ([], []) : layout.Made(heights);
        var trial = edits.Count > 0 ? Trial.Of(question, edits, out _) : null;
        double after = trial?.After.Ask(DrainDownStudy.Ask).Stays.TotalL ?? before, shareThen = trial is null ? share : ParkingStudy.ShareOf(trial.After);
        // What leaves as much, on as many slopes, is not worth a clip; a rig that drains already may gain fall.
        bool helps = after < before - LeastWonL || shareThen > share + LeastWonShare || (share >= 1 && shareThen >= 1) || layout.Outside();
        if (trial is null || after > before + 0.001 || !helps) (edits, changes, trial, after, shareThen) = ([], [], null, before, share);
        // As the rig then lies: what would move by less than a millimetre is left.
        var then = trial is null ? layout : new Layout(trial.After, limits);
        double reached = then.Margin(slope, lengths, then.Drawn());
        return new AutoFallAnswer(
            slope, now, reached, forbids.Count == 0, Verdict(slope, forbids.Count, reached, edits.Count > 0), changes, edits, trial?.Edited.Effect, before,
            after, share, shareThen,
            (forbids.Count > 0 ? forbids[0].Binding : solved.Binding) is { } chain ? layout.Words(chain) : null,
            [.. forbids.SelectMany(f => f.Changes.Take(1)).Take(5).Select(layout.Words)], needed, spare);
    }

    private static FallAnswer Solve(Question question, Layout layout, List<FallLength> lengths, double slope) =>
        AutoFall.Solve(new FallQuestion(layout.Points, lengths, slope, slope, 0, MostChanges: 1), question.Cancel);

    private static Sentence Verdict(double slope, int forbidden, double reached, bool won)
    {
        var (at, most) = (new Measure(slope, Quantity.Angle), Measure.Fall(Math.Max(0, reached)));
        var rest = won
            ? Sentence.Of($"with these heights {(forbidden > 0 ? "all other lines fall" : "every line falls")} on a slope of {at}, either way, and by " +
                $"{most} more.")
            : Sentence.Of($"{(forbidden > 0 ? "the other lines have" : "every line has")} the fall already that the brief asks for, on a slope of {at}, or " +
                $"as much as the whole allows.");
        return forbidden == 0
            ? new Sentence(char.ToUpperInvariant(rest.Text[0]) + rest.Text[1..], rest.Values)
            : Sentence.Of($"In {forbidden} {(forbidden == 1 ? "place" : "places")} heights alone cannot help, since what is fixed forbids it; ").And(rest);
    }

    // As they lie: which of the open drains would do.
    private static (IReadOnlyList<string> Needed, IReadOnlyList<string> Spare) Drains(Question question)
    {
        if (question.Levels.Graph is not { } graph) return ([], []);
        // Relief valves, bleeds and blow-out ports are there for something else.
        var cocks = question.Rig.Parts.Where(p => Catalogue.Part(p.Stock) is
        {
            Passage: Passage.Drain, Look: PartLook.Drain,
            Group: PartGroup.Drain or PartGroup.Waste
        } && question.Scenario.PositionOf(p)?.Passes == true).ToList();
        if (cocks.Count is 0 or > DrainSet.MostExact) return ([], []);
        string[] nodes = [.. cocks.Select(c => $"{c.Id}.{c.Ports[0].Id}")];
        var others = graph.Network.Drains.Except(nodes).ToList();
        var found = DrainSet.Find(graph.Network with { Drains = others }, nodes, 0, Attitude.Level);
        return ([.. cocks.Where((_, i) => found.Nodes.Contains(nodes[i])).Select(c => c.Name)],
            [.. cocks.Where((_, i) => !found.Nodes.Contains(nodes[i])).Select(c => c.Name)]);
    }
}
