using WarmConduit.Core.Advice;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Tanks;
using WarmConduit.Core.Tests.Rigs;
using WarmConduit.Core.Tests.Studies;
using Night = WarmConduit.Core.Studies.Conditions;

namespace WarmConduit.Core.Tests.Advice;

/// <summary>Tanks that pipes join: level above the crest of the lowest way between them, and found where that is a hump.</summary>
public class LevellingTests
{
    private static RigBuilder Tanks() => new RigBuilder()
        .Tank("first", new Box(new(0, 0, 0.2), new(0.5, 0.4, 0.3)), ("outlet", 0.5, 0.2, 0.2), ("vent", 0.2, 0.2, 0.5))
        .Tank("second", new Box(new(2, 0, 0.2), new(0.5, 0.4, 0.3)), ("outlet", 2, 0.2, 0.2), ("vent", 2.2, 0.2, 0.5));

    private static Finding[] Found(Rig rig) => [.. Adviser.Ask(new Question(rig, Night.Of(rig.Brief))).Findings.Where(f => f.Kind == FindingKind.Levelling)];

    [Fact]
    public void Two_tanks_over_a_hump_level_only_above_its_crest_and_the_hump_is_lowered()
    {
        // The crest is 100 mm over both floors: 0.5 m x 0.4 m x 0.1 m = 20 L stay in each.
        var rig = Tanks().Run("line", "first.outlet", "second.outlet", new Point3(1, 0.2, 0.3)).Build();
        var finding = Assert.Single(Found(rig));
        Assert.Equal(("level:first:second", "line"), (finding.Id, finding.RunIds[0]));
        Assert.Equal([0.3, 20, 20, 0.1], finding.Reason.Values.Select(v => Math.Round(v.Value!.Value, 6)));
        Assert.Empty(Found(Editor.Apply(rig, finding.Mends![0].Edits).Rig));
        // Straight, or hanging through, they level; by a line from lid to lid they never do.
        Assert.Empty(Found(Tanks().Run("line", "first.outlet", "second.outlet").Build()));
        Assert.Empty(Found(Tanks().Run("line", "first.outlet", "second.outlet", new Point3(1, 0.2, 0.1)).Build()));
        var over = Tanks().Run("line", "first.outlet", "second.outlet", new Point3(1, 0.2, 0.7)).Build();
        Assert.Contains("neither runs into the other", Assert.Single(Found(over)).Reason.Text, StringComparison.Ordinal);
        // Into a port in the side, 200 mm over the floor, it levels above that: said, and no fault of the line.
        var side = new RigBuilder().Tank("first", new Box(new(0, 0, 0.2), new(0.5, 0.4, 0.3)), ("outlet", 0.5, 0.2, 0.2))
            .Tank("second", new Box(new(2, 0, 0.2), new(0.5, 0.4, 0.3)), ("outlet", 2, 0.2, 0.4)).Run("line", "first.outlet", "second.outlet").Build();
        var port = Assert.Single(Found(side));
        Assert.Equal((Severity.Note, null, 0.4, 40.0), (port.Severity, port.Mends, Math.Round(port.Reason.Values[0].Value!.Value, 6),
            Math.Round(port.Number!.Value!.Value, 6)));
    }

    [Fact]
    public void A_second_line_without_a_hump_a_pump_between_and_a_shut_valve_are_not_told()
    {
        var bend = new Point3(1, 0.2, 0.3);
        RigBuilder Beside(string stock, params (string, double, double, double)[] ports) =>
            Tanks().Part("between", stock, ports).Run("a", "first.outlet", $"between.{ports[0].Item1}", bend)
            .Run("b", $"between.{ports[1].Item1}", "second.outlet");
        Assert.Empty(Found(Tanks().Tank("low", new Box(new(4, 0, 0.2), new(0.5, 0.4, 0.3)), ("outlet", 4, 0.2, 0.2), ("side", 4, 0.3, 0.2))
            .Run("over", "first.outlet", "low.outlet", bend).Run("straight", "first.outlet", "low.side").Build()));
        Assert.Single(Found(Beside("ball-valve", ("a", 1.2, 0.2, 0.2), ("b", 1.3, 0.2, 0.2)).Build()));
        Assert.Empty(Found(Editor.Apply(Beside("ball-valve", ("a", 1.2, 0.2, 0.2), ("b", 1.3, 0.2, 0.2)).Build(),
            [new SetPosition("in-use", "between", "closed")]).Rig));
        Assert.Empty(Found(Beside("pump", ("in", 1.2, 0.2, 0.2), ("out", 1.3, 0.2, 0.2)).Build()));
        foreach (string name in (string[])["sparrow", "tern", "lantern"]) Assert.Empty(Found(DemoRigs.Of(name)));
    }

    [Fact]
    public void The_crest_is_where_a_flood_that_rises_first_joins_them()
    {
        for (int seed = 0; seed < 200; seed++)
        {
            // Tees between the tanks, joined at random over bends of any height.
            var random = new Random(seed);
            double Any() => Math.Round(0.1 + (0.5 * random.NextDouble()), 3);
            var builder = Tanks();
            string[] tees = [.. Enumerable.Range(0, 5).Select(n => $"tee-{n}")];
            foreach (string tee in tees)
            {
                double z = Any();
                builder.Part(tee, "tee", ("a", 1, 0.2, z), ("b", 1.05, 0.2, z), ("c", 1.02, 0.25, z));
            }
            var free = tees.SelectMany(t => (string[])[$"{t}.a", $"{t}.b", $"{t}.c"]).OrderBy(_ => random.Next()).ToList();
            // Two lines from each tank, so that the first to be met need not be the lowest.
            for (int n = 0; n < 4; n++)
                builder.Run($"r{n}", n < 2 ? "first.outlet" : free[n], n < 2 ? free[n] : "second.outlet", new Point3(n < 2 ? 0.7 : 1.7, 0.2, Any()));
            for (int n = 4; n + 1 < free.Count; n += 2) builder.Run($"r{n}", free[n], free[n + 1], new Point3(1, 0.3, Any()));
            var rig = builder.Build();
            var index = new RigIndex(rig);
            // The flood: the lowest of all heights at which runs that lie under it join the two.
            double[] heights = [.. rig.Runs.Select(r => index.CourseOf(r).Max(p => p.ZM)).Order()];
            bool Joins(double level)
            {
                var under = rig.Runs.Where(r => index.CourseOf(r).All(p => p.ZM <= level)).ToList();
                var wet = new HashSet<string> { "first" };
                while (under.FirstOrDefault(r => wet.Contains(r.From.Part!) != wet.Contains(r.To.Part!)) is { } run)
                    wet.UnionWith([run.From.Part!, run.To.Part!]);
                return wet.Contains("second");
            }
            var pair = new Question(rig, Night.Of(rig.Brief)).Ask(Levelling.Of).Pairs.SingleOrDefault();
            double? crest = heights.Where(Joins).Select(h => (double?)h).FirstOrDefault();
            Assert.Equal(crest, pair?.CrestM is { } found ? Math.Round(found, 6) : null);
        }
    }
}
