using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Heating;
using WarmConduit.Core.Studies.HotLoops;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Tests.Rigs;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>A recirculating hot loop, metre by metre beside.</summary>
public class HotLoopTests
{
    private static Question Asked(Rig rig) => new(rig, Conditions.Of(rig.Brief));

    [Fact]
    public void What_a_loop_loses_is_what_plain_short_steps_lose()
    {
        var question = Asked(DemoRigs.Of("lantern"));
        var loop = Assert.Single(HotLoopStudy.Ask(question).Loops);
        Assert.InRange(loop.LPerMin, 0.3, 6);
        Assert.Contains("return-1", loop.RunIds);
        var night = question.Ask(RigNight.Of);
        double kgPerS = loop.LPerMin / 60e3 * Water.DensityKgPerM3(loop.HotC), c = loop.HotC, lost = 0;
        foreach (string id in loop.RunIds)
        {
            var run = question.Index.Run(id);
            double metres = question.Index.PipeLengthM(run);
            var course = question.Index.CourseOf(run);
            // Rooms that a run passes, by a point every centimetre.
            for (int k = 0; k + 1 < course.Length; k++)
            {
                double length = course[k].DistanceM(course[k + 1]);
                int bits = Math.Max(1, (int)(length / 0.01));
                for (int i = 0; i < bits; i++)
                {
                    var zone = question.Index.ZoneAt(course[k].Towards(course[k + 1], (i + 0.5) / bits));
                    double air = Enumerable.Range(0, night.Morning + 1).Min(r => night.AirC(zone, r));
                    bool windy = Core.Studies.Networks.PipeFilms.InWind(zone);
                    double w = (c - air) * length / bits / question.Films.ResistanceMKPerW(Catalogue.Pipe(run.Pipe)!, run.SleeveOn(k), windy, loop.HotC, 5,
                        windy ? question.Conditions.Steady().WindMPerS : 0);
                    c -= w / (kgPerS * Water.HeatCapacityJPerKgK(loop.HotC));
                    lost += w;
                }
            }
            Assert.True(metres > 0);
        }
        Assert.Equal(c, loop.ReturnC, 0.05);
        Assert.Equal(lost, loop.LostW, 0.02 * lost);
        Assert.InRange(loop.MeanW, 0, loop.LostW);
        Assert.InRange(loop.RunShare, 0, 1);
        Assert.True(loop.SavedLADay > 0 && loop.SavedS > 0);
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
