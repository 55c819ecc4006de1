using WarmConduit.Core.Advice;
using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Rigs.Starting;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Studies.Parking;
using WarmConduit.Core.Tests.Rigs;
using WarmConduit.Core.Tests.Studies;

namespace WarmConduit.Core.Tests.Advice;

/// <summary>Fixes do what they say: tried on the whole rig, and judged by a draining that shares no code with the engine.</summary>
public class FixTests
{
    private static readonly string[] Ways = ["weekend-drain", "lived-in", "laid-up"];

    /// <summary>How many random rigs; the long campaign takes more.</summary>
    private static int Rigs => int.TryParse(Environment.GetEnvironmentVariable("WARM_CONDUIT_FIX_RIGS"), out int n) ? n : 8;

    // A plausible vehicle that somebody laid by eye: a starter of a school in a body, with bends, joints and ports a hand too high or too low.
    private static Rig Laid(int seed)
    {
        var random = new Random(seed);
        string starter = Ways[random.Next(Ways.Length)];
        var kind = Start.Starters.First(s => s.Id == starter);
        var rig = Start.Make(new NewRig("Random", 3.4 + (1.5 * random.NextDouble()), 1.72 + (0.2 * random.NextDouble()), 1.9, kind.Living, kind.School,
            random.Next(2) == 0 ? "long-van" : "box-body", starter));
        double Off() => random.Next(4) == 0 ? Math.Round((random.NextDouble() - 0.5) * 0.24, 3) : 0;
        var runs = rig.Runs.Select(r => r with { Bends = [.. r.Bends.Select(b => b with { At = b.At with { ZM = b.At.ZM + Off() } })] }).ToList();
        var parts = rig.Parts.Select(p => Catalogue.Part(p.Stock)!.Look == PartLook.Joint
            ? p with { Box = p.Box with { At = p.Box.At with { ZM = p.Box.At.ZM + (Off() / 3) } } } : p).ToList();
        return rig with { Runs = runs, Parts = parts };
    }

    private static Question Ask(Rig rig) => new(rig, Conditions.Of(rig.Brief), TestContext.Current.CancellationToken);

    [Fact]
    public void What_a_rig_keeps_is_what_a_plain_draining_says()
    {
        for (int seed = 0; seed < Rigs; seed++)
        {
            var rig = Laid(seed);
            Assert.Equal(PlainDraining.RetainedL(rig), Ask(rig).Ask(DrainDownStudy.Ask).BelowCrestsL(), 0.001);
        }
    }

    [Fact]
    public void Every_fix_that_is_offered_wins_what_it_says()
    {
        int fixes = 0;
        for (int seed = 0; seed < Rigs; seed++)
        {
            var rig = Laid(seed);
            var before = Ask(rig).Ask(DrainDownStudy.Ask);
            var known = Adviser.Ask(Ask(rig)).Findings.Select(f => f.Id).ToHashSet();
            foreach (var finding in Adviser.Ask(Ask(rig)).Findings)
            {
                var answer = Fixer.Ask(Ask(rig), new(finding.Id));
                Assert.True(answer.Fixes.Count > 0 || answer.Refused is { Length: > 0 });
                foreach (var fix in answer.Fixes)
                {
                    fixes++;
                    var edited = Editor.Apply(rig, fix.Edits);
                    var then = Ask(edited.Rig).Ask(DrainDownStudy.Ask);
                    Assert.Equal(before.Stays.TotalL - then.Stays.TotalL, fix.Wins.Litres, 1e-9);
                    Assert.Equal(PlainDraining.RetainedL(edited.Rig), then.BelowCrestsL(), 0.001);
                    var after = Adviser.Ask(Ask(edited.Rig)).Findings;
                    // Water may only shrink, and ice only come an hour later; all else goes.
                    if (finding.Kind == FindingKind.FirstIce && after.FirstOrDefault(f => f.Id == finding.Id) is { } later)
                        Assert.True(later.Number!.Value >= finding.Number!.Value + 3600);
                    else if (finding.Kind is not (FindingKind.Pool or FindingKind.Airlock or FindingKind.Parking))
                        Assert.DoesNotContain(after, f => f.Id == finding.Id);
                    // No fault comes but what is left of the water that was there, and nothing holds more unsaid.
                    Assert.Empty(after.Where(f => f.Severity == Severity.Fault
                        && f.Kind is not (FindingKind.Pool or FindingKind.Airlock or FindingKind.FirstIce or FindingKind.Sag) && !known.Contains(f.Id)
                        && f.RunIds.All(r => rig.Runs.Find(r) is not null)).Select(f => $"{f.Id} by {fix.Words.Text}"));
                    foreach (var part in then.Parts.Where(p => p.RetainedL > (before.Parts.FirstOrDefault(o => o.PartId == p.PartId)?.RetainedL ?? 0) + 0.004))
                        Assert.Contains(fix.Wins.Worse, w => w.Words == edited.Rig.Parts.Find(part.PartId)!.Name);
                    foreach (var run in then.Runs.Where(r => before.Runs.FirstOrDefault(o => o.RunId == r.RunId) is { } was && r.StaysL > was.StaysL + 0.004))
                        Assert.Contains(fix.Wins.Worse, w => w.Words == edited.Rig.Runs.Find(run.RunId)!.Name);
                }
            }
        }
        Assert.True(fixes > 3 * Rigs, $"{fixes} fixes");
    }

    [Fact]
    public void The_first_set_is_as_good_as_the_best_of_all_sets_of_three()
    {
        for (int seed = 100; seed < 100 + Math.Max(4, Rigs / 8); seed++)
        {
            var rig = Laid(seed);
            var pool = Adviser.Ask(Ask(rig)).Findings.Where(f => f.Severity != Severity.Note).SelectMany(f => Fixer.Ask(Ask(rig), new(f.Id)).Fixes.Take(3))
                .Take(9).ToList();
            double best = Ask(rig).Ask(DrainDownStudy.Ask).Stays.TotalL;
            foreach (var set in Sets(pool, 3))
            {
                try
                {
                    best = Math.Min(best, Ask(Editor.Apply(rig, [.. set.SelectMany(f => f.Edits)]).Rig).Ask(DrainDownStudy.Ask).Stays.TotalL);
                }
                catch (RigFileException)
                {
                    // Two that cannot be done together.
                }
            }
            var mended = FixAll.Ask(Ask(rig), new());
            Assert.True(mended.AfterL <= Math.Max(1.1 * best, best + 0.005), $"rig {seed}: {mended.AfterL} L where {best} L is possible");
            if (mended.Fixes.Count > 0)
                Assert.Equal(mended.AfterL, Ask(Editor.Apply(rig, [.. mended.Fixes.SelectMany(f => f.Edits)]).Rig).Ask(DrainDownStudy.Ask).Stays.TotalL, 1e-9);
        }

        static IEnumerable<Fix[]> Sets(List<Fix> pool, int most)
        {
            for (int mask = 1; mask < 1 << pool.Count; mask++)
                if (System.Numerics.BitOperations.PopCount((uint)mask) <= most) yield return [.. pool.Where((_, i) => (mask & (1 << i)) != 0)];
        }
    }

    [Fact]
    public void A_bend_is_told_how_high_it_must_be_and_the_band_holds()
    {
        var rig = DemoRigs.Of("sparrow");
        var fix = Fixer.Ask(Ask(rig), new("pool:kitchen-cold")).Fixes.First(f => f.Band is { LowestM: not null, HighestM: not null });
        var run = rig.Runs.First(r => r.Id == fix.Band!.RunId);
        double Stays(double z) => Ask(Editor.Apply(rig, [new RouteRun(run.Id,
            [.. run.Bends.Select(b => b.Id == fix.Band!.PointId ? b with { At = b.At with { ZM = z } } : b)])]).Rig)
            .Ask(DrainDownStudy.Ask).Runs.First(r => r.RunId == run.Id).PoolL;
        Assert.Equal(0, Stays(fix.Band!.LowestM!.Value + 0.0005), 1e-6);
        Assert.Equal(0, Stays(fix.Band.HighestM!.Value - 0.0005), 1e-6);
        Assert.True(Stays(fix.Band.LowestM.Value - 0.03) > 0.001);
    }

    [Fact]
    public void Terns_best_fixes_in_order_make_it_drain_anywhere_within_a_degree()
    {
        var rig = DemoRigs.Of("tern");
        var mended = FixAll.Ask(Ask(rig), new());
        var after = Editor.Apply(rig, [.. mended.Fixes.SelectMany(f => f.Edits)]).Rig;
        Assert.Empty(mended.Left);
        Assert.Equal(1, ParkingStudy.Ask(Ask(after)).Share);
        Assert.True(ParkingStudy.Ask(Ask(rig)).Share < 1);
        // Without a purse: bends, places and hands alone.
        Assert.All(FixAll.Ask(Ask(rig), new(MostParts: 0)).Fixes, f => Assert.Equal(0, f.Costs.Parts));
        // With a purse: what is bought is known and within it, and more of it mends no less.
        var priced = rig with { Prices = [new("cock", "drain-cock", 12), new("pex", "pex-1/2", 2), new("tee", "tee", 3)] };
        var poor = FixAll.Ask(Ask(priced), new(MostMoney: 5));
        Assert.True(poor.Fixes.Sum(f => f.Costs.Money ?? 0) <= 5 && poor.Fixes.All(f => f.Costs.Parts == 0 || f.Costs.Money is not null));
        Assert.True(FixAll.Ask(Ask(priced), new(MostMoney: 500)).AfterL <= poor.AfterL + 1e-6);
    }

    [Fact]
    public void A_fix_in_the_way_of_something_solid_is_not_offered()
    {
        var rig = DemoRigs.Of("sparrow");
        var drained = Fixer.Ask(Ask(rig), new("pool:kitchen-cold")).Fixes.First(f => f.Costs.Parts == 2);
        var at = Editor.Apply(rig, drained.Edits).Rig.Parts.First(p => p.Stock == "drain-cock" && rig.Parts.All(o => o.Id != p.Id)).Box;
        var blocked = rig with
        {
            Shell = rig.Shell with
            {
                Obstacles = [.. rig.Shell.Obstacles,
            new Obstacle("chest", "chest", ObstacleKind.Other, new Box(at.At, at.Size))]
            }
        };
        Assert.DoesNotContain(Fixer.Ask(Ask(blocked), new("pool:kitchen-cold")).Fixes, f => f.Costs.Parts == 2);
    }

    [Fact]
    public void Prices_of_the_builder_are_counted_and_none_is_made_up()
    {
        var rig = DemoRigs.Of("sparrow");
        Assert.Null(Fixer.Ask(Ask(rig), new("pool:kitchen-cold")).Fixes.First(f => f.Costs.Parts == 2).Costs.Money);
        var priced = rig with { Prices = [new Price("a", "drain-cock", 6), new Price("b", "tee", 3.5)] };
        Assert.Equal(9.5, Fixer.Ask(Ask(priced), new("pool:kitchen-cold")).Fixes.First(f => f.Costs.Parts == 2).Costs.Money);
    }

    [Fact]
    public void Air_caught_at_a_hump_is_told_with_a_bleed_or_the_hump_brought_down()
    {
        // A coolant line that climbs over something on its way from the heater to the header tank, and a suction line that does.
        Rig Coolant(double hump)
        {
            var bare = Start.Make(new NewRig("Coolant", 3.7, 1.75, 1.9, WayOfLiving.LivedIn, FreezeSchool.Heat, "long-van"));
            var line = new Run("feed", "feed", Service.Coolant, "epdm-5/8", new("heater", "out"), new("header", "in"),
                [new Bend("b1", new(1.2, 0.3, hump)), new Bend("b2", new(2, 0.3, 0.35))]);
            return Editor.Apply(bare, [new PlacePart("heater", "coolant-heater", "heater", new(0.3, 0.3, 0.2)),
                new PlacePart("header", "header-tank", "header", new(2.5, 0.3, 0.4)), new InsertFragment("line", [], [line])]).Rig;
        }
        Assert.DoesNotContain(Adviser.Ask(Ask(Coolant(0.33))).Findings, f => f.Kind == FindingKind.CatchesAir);
        var humped = Coolant(0.9);
        var finding = Adviser.Ask(Ask(humped)).Findings.Single(f => f.Kind == FindingKind.CatchesAir);
        Assert.Equal(("hump:feed", "b1"), (finding.Id, finding.Place!.PointId));
        Assert.NotNull(finding.Caution);
        var fixes = Fixer.Ask(Ask(humped), new(finding.Id)).Fixes;
        Assert.Contains(fixes, f => f.Costs.Parts == 0);
        Assert.Contains(fixes, f => f.Costs.Parts == 2 && Editor.Apply(humped, f.Edits).Rig.Parts.Any(p => p.Stock == "bleed"));

        Rig Drawn(double hump) => new RigBuilder().Tank("tank", new Box(new(0, 0, 0.2), new(0.5, 0.4, 0.2)), ("outlet", 0.5, 0.2, 0.2), ("vent", 0, 0, 0.39))
            .Part("pump", "pump", "off", ("in", 1.5, 0.2, 0.3), ("out", 1.6, 0.2, 0.3))
            .Run("suction", "tank.outlet", "pump.in", new Point3(1, 0.2, hump)).Build();
        Assert.DoesNotContain(Adviser.Ask(Ask(Drawn(0.25))).Findings, f => f.Kind == FindingKind.CatchesAir);
        Assert.Contains(Adviser.Ask(Ask(Drawn(0.6))).Findings, f => f.Id == "hump:suction");
    }
}
