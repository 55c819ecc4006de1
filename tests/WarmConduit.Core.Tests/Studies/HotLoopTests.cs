using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
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
}
