using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Heating;
using WarmConduit.Core.Studies.HotLoops;
using WarmConduit.Core.Studies.HotWait;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Tests.Rigs;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>A recirculating hot loop, metre by metre beside.</summary>
public class HotLoopTests
{
    private static Question Asked(Rig rig) => new(rig, Conditions.Of(rig.Brief));

    // Along the loop, by a bit every centimetre in the coldest air of its room: what comes back, what is lost, and the bits.
    private static (double ReturnC, double LostW, List<(double WPerK, double JPerK, double AirC)> Bits) Walked(Question question, HotLoop loop)
    {
        var night = question.Ask(RigNight.Of);
        double perL = Water.DensityKgPerM3(loop.HotC) * Water.HeatCapacityJPerKgK(loop.HotC), c = loop.HotC, lost = 0;
        var bits = new List<(double, double, double)>();
        foreach (string id in loop.RunIds)
        {
            var (run, pipe) = (question.Index.Run(id), Catalogue.Pipe(question.Index.Run(id).Pipe)!);
            var course = question.Index.CourseOf(run);
            for (int k = 0; k + 1 < course.Length; k++)
            {
                double length = course[k].DistanceM(course[k + 1]);
                int parts = Math.Max(1, (int)(length / 0.01));
                for (int i = 0; i < parts; i++)
                {
                    var zone = question.Index.ZoneAt(course[k].Towards(course[k + 1], (i + 0.5) / parts));
                    double air = Enumerable.Range(0, night.Morning + 1).Min(r => night.AirC(zone, r)), metres = length / parts;
                    bool windy = Core.Studies.Networks.PipeFilms.InWind(zone);
                    double perK = metres / question.Films.ResistanceMKPerW(pipe, run.SleeveOn(k), windy, loop.HotC, 5,
                        windy ? question.Conditions.Steady().WindMPerS : 0), w = (c - air) * perK;
                    c -= w / (loop.LPerMin / 60e3 * perL);
                    lost += w;
                    bits.Add((perK, ((pipe.BoreM2() * perL) + pipe.WallJPerMK()) * metres, air));
                }
            }
        }
        return (c, lost, bits);
    }

    [Fact]
    public void What_a_loop_loses_is_what_plain_short_steps_lose()
    {
        var question = Asked(DemoRigs.Of("lantern"));
        var loop = Assert.Single(HotLoopStudy.Ask(question).Loops);
        Assert.InRange(loop.LPerMin, 0.3, 6);
        Assert.Contains("return-1", loop.RunIds);
        var (c, lost, bits) = Walked(question, loop);
        Assert.Equal(c, loop.ReturnC, 0.05);
        Assert.Equal(lost, loop.LostW, 0.02 * lost);
        // Switched by the pipe: hot all along, it stands and cools second by second until the first bit is at 38 °C, and is filled hot again.
        double restS = 0, holds = bits.Sum(b => b.JPerK);
        double[] at = [.. bits.Select(_ => loop.HotC)];
        for (; at.Min() > 38; restS++)
            for (int b = 0; b < at.Length; b++) at[b] -= bits[b].WPerK * (at[b] - bits[b].AirC) / bits[b].JPerK;
        double fillS = holds / (loop.LPerMin / 60e3 * Water.DensityKgPerM3(loop.HotC) * Water.HeatCapacityJPerKgK(loop.HotC)),
            cooledJ = bits.Select((b, n) => b.JPerK * (loop.HotC - at[n])).Sum();
        Assert.Equal(fillS / (fillS + restS), loop.RunShare, 0.02);
        Assert.Equal((cooledJ + (lost * fillS)) / (fillS + restS), loop.MeanW, 0.02 * loop.MeanW);
        // What stands in the loop's pipes on the way to each tap, with what warms their walls, is neither drawn off nor waited for.
        var taps = question.Ask(HotWaitStudy.Ask).Outlets;
        double Stands(HotWaitAt tap) => tap.RunIds.Where(loop.RunIds.Contains).Select(question.Index.Run)
            .Sum(r => 1000 * question.Index.PipeLengthM(r) * (Catalogue.Pipe(r.Pipe)!.BoreM2()
                + (Catalogue.Pipe(r.Pipe)!.WallJPerMK() / (Water.DensityKgPerM3(38) * Water.HeatCapacityJPerKgK(38)))));
        Assert.True(taps.Count > 1 && taps.Max(Stands) > 0.1);
        Assert.Equal(taps.Sum(t => t.DrawsADay * Stands(t)), loop.SavedLADay, 1e-6);
        Assert.Equal(taps.Max(t => Stands(t) / t.LPerMin * 60), loop.SavedS, 1e-6);
        Assert.Contains("Legionella", loop.Caution, StringComparison.Ordinal);
    }

    [Fact]
    public void A_pump_whose_line_leads_nowhere_is_told_and_a_colder_store_stands_less()
    {
        var rig = DemoRigs.Of("lantern");
        var cut = rig with { Runs = [.. rig.Runs.Where(r => r.Id != "return-2")] };
        var answer = HotLoopStudy.Ask(Asked(cut));
        Assert.Empty(answer.Loops);
        Assert.Single(answer.Notes);
        // Bare pipe in a thin flow gives out earlier than insulated in a strong one.
        HotLoop With(double k) => Assert.Single(HotLoopStudy.Ask(Asked(rig with
        {
            Parts = [.. rig.Parts.Select(p => p.Id == "return-pump" ? p with { Flow = new PartFlow(FreeLPerMin: 6 * k, ShutoffBar: 0.15) } : p)],
        })).Loops);
        var (weak, strong) = (With(0.1), With(1));
        // From a store that is hardly warm, its end is warm enough on the night that it stands, and not on one that is five degrees colder.
        var thin = Asking.With(rig, "return-pump", p => p with { Flow = new PartFlow(FreeLPerMin: 0.12, ShutoffBar: 0.15) });
        thin = Asking.With(thin, "coil", p => p with { Heat = new PartHeat(HoldC: 10) });
        foreach (double outdoorC in (double[])[10, -10, -50])
        {
            var asked = Asked(thin) is var q ? q.With(q.Conditions with { OutdoorC = outdoorC, HeatOn = false, Hours = 48, InsideC = 0 }) : null!;
            double Ends(double c) => Walked(asked.With(asked.Conditions.Constant(c)), Assert.Single(HotLoopStudy.Ask(asked).Loops)).ReturnC;
            double stands = Assert.Single(HotLoopStudy.Ask(asked).Loops).StandsC!.Value;
            Assert.True(Ends(stands) > 4.95 || stands >= 5, $"{stands}: {Ends(stands)}");
            Assert.True(Ends(stands - 5) < 5.05, $"{stands}: {Ends(stands - 5)}");
        }
        Assert.True(weak.ReturnC < strong.ReturnC && weak.LostW < strong.LostW);
        Assert.True((weak.StandsC ?? -60) >= (strong.StandsC ?? -60));
    }

    [Fact]
    public void The_loop_and_the_store_tell_one_temperature_and_slack_loses_more()
    {
        var rig = DemoRigs.Of("lantern");
        foreach (double? hold in (double?[])[55, 70, null, 90])
        {
            var set = rig with { Parts = [.. rig.Parts.Select(p => p.Id == "coil" ? p with { Heat = hold is null ? null : new PartHeat(HoldC: hold) } : p)] };
            var question = Asked(set);
            double store = Assert.Single(HeatingStudy.Ask(question).HotWater).HotC;
            Assert.Equal(store, Assert.Single(HotLoopStudy.Ask(question).Loops).HotC);
            // No hotter than the fluid, which its heater stops at 80 °C.
            Assert.Equal(hold is { } c ? Math.Min(c, 80) : 75, store);
        }
        var slack = rig with { Runs = [.. rig.Runs.Select(r => r.Id == "return-1" ? r with { SlackM = 1 } : r)] };
        HotLoop Loop(Rig of) => Assert.Single(HotLoopStudy.Ask(Asked(of)).Loops);
        Assert.True(Loop(slack).LostW > Loop(rig).LostW + 1);
    }

    [Fact]
    public void Losses_of_a_run_are_those_of_its_metres_and_add_up_to_its_length()
    {
        var question = Asked(DemoRigs.Of("lantern"));
        var losses = new Core.Studies.Networks.LineLosses(question, 60);
        double wind = question.Conditions.Steady().WindMPerS;
        for (int n = 0; n < question.Rig.Runs.Count; n++)
        {
            var run = question.Rig.Runs[n];
            var lengths = losses.Of(n).ToList();
            if (lengths.Count == 0) continue;
            Assert.Equal(question.Index.PipeLengthM(run), lengths.Sum(l => l.Metres), 1e-6);
            foreach (var l in lengths)
            {
                bool windy = Core.Studies.Networks.PipeFilms.InWind(l.Cut.Zone);
                double resistance = question.Films.ResistanceMKPerW(Catalogue.Pipe(run.Pipe)!, run.SleeveOn(l.Cut.Segment), windy, 60, 5, windy ? wind : 0);
                Assert.Equal(1 / resistance, l.WPerMK, 1e-9);
            }
        }
    }
}
