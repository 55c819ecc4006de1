using WarmConduit.Core.Flow;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Levels;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.WaterFlow;
using WarmConduit.Core.Tests.Reference;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>The reference cases drawn as rigs.</summary>
[Trait("Category", "Reference")]
public class WaterReferenceTests
{
    private static string PipeOf(double boreM) => Catalogue.Pipes.First(p => p.InnerDiameterM == boreM && p.Id.StartsWith("pex", StringComparison.Ordinal)).Id;

    /// <summary>Lengths, bores, heights, pump and taps are as they are drawn; what fittings take, and the water, are the case's.</summary>
    [Fact]
    public void Flows_and_heads_of_a_drawn_rig() => Cases.Each("flow", (c, expected, check) =>
    {
        var edges = c.Rows("edges").ToDictionary(e => e.Text("id"));
        if (!edges.ContainsKey("sink")) return;
        double head = c.Rows("nodes").First(n => n.Text("id") == "tank").Num("head_m"), density = c.Num("density_kg_m3");
        double perBar = 1e5 / (Water.DensityKgPerM3(WaterFlowInput.UsualColdC) * Friction.Gravity);
        var (taps, pump) = (c.Rows("outlets").ToDictionary(o => o.Text("node").Replace("tap", "tap-", StringComparison.Ordinal).ToLowerInvariant()),
            edges["pump"]);
        // Each run as long as it shall be, up to the height of what it leads to.
        Point3 On(string edge, Point3 from, double z) => new(from.XM + Math.Sqrt(Math.Pow(edges[edge].Num("length_m"), 2) - Math.Pow(z - from.ZM, 2)), 0, z);
        var outlet = new Point3(0.5, 0, 0);
        var inlet = On("suction", outlet, 0);
        var tee = On("trunk", inlet, 0.5);
        var (a, b) = (On("sink", tee, taps["tap-a"].Num("height_m")), On("shower", tee, taps["tap-b"].Num("height_m")));
        (string, double, double, double) At(string port, Point3 p) => (port, p.XM, p.YM, p.ZM);
        var builder = new RigBuilder().Tank("tank", new Box(new(0, 0, head - 1), new(0.5, 0.5, 2)), At("outlet", outlet))
            .Part("pump", "pump", At("in", inlet), At("out", inlet)).Part("tee", "tee", At("a", tee), At("b", tee), At("c", tee))
            .Part("tap-a", "cold-tap", At("cold", a), At("spout", a)).Part("tap-b", "cold-tap", At("cold", b), At("spout", b));
        foreach (var (id, from, to) in ((string, string, string)[])[("suction", "tank.outlet", "pump.in"), ("trunk", "pump.out", "tee.a"),
            ("sink", "tee.b", "tap-a.cold"), ("shower", "tee.c", "tap-b.cold")])
            builder.Run(id, Service.Cold, PipeOf(edges[id].Num("innerDiameter_m")), from, to);
        var rig = builder.Build();
        rig = rig with
        {
            Parts = [.. rig.Parts.Select(p => p.Id == "pump" ? p with
            {
                Flow = new PartFlow(ShutoffBar: pump.Num("shutoffHead_m") / perBar,
                    FreeLPerMin: 60e3 * Math.Sqrt(pump.Num("shutoffHead_m") / pump.Num("curve_s2_m5")), CutInBar: 20, CutOutBar: 30),
            } : taps.TryGetValue(p.Id, out var tap) ? p with
            {
                Flow = new PartFlow(OutletLPerMin: 60e3 * Math.Sqrt(1e5) * tap.Num("coefficient_m3_s_Pa05")),
            } : p)],
        };
        var question = new Question(rig, Conditions.Of(rig.Brief) with { Parked = Attitude.Level });
        var scene = WaterFlowStudy.SceneOf(question, new WaterFlowInput(Open: ["tap-a", "tap-b"], FreshShare: 0.5));
        var flow = new RigFlow(question, scene);
        var answer = FlowSolver.Solve(flow.Network with
        {
            DensityKgPerM3 = density,
            ViscosityPaS = c.Num("viscosity_Pa_s"),
            Edges = [.. flow.Network.Edges.Select(e => e switch
            {
                FlowPipe pipe => pipe with { MinorLoss = edges[pipe.Id].Num("minorLoss") },
                FlowValve valve => valve with { OpenLoss = 1e-6 },
                _ => e,
            })],
        });
        double largest = expected.GetProperty("flows_L_min").EnumerateObject().Max(f => Math.Abs(f.Value.GetDouble()));
        foreach (string id in (string[])["suction", "trunk", "sink", "shower"])
            check.Near(id, expected.GetProperty("flows_L_min").Num(id), answer.FlowM3PerS[flow.EdgeOfRun(id)] * 60_000, 0, 0.005 * largest);
        double HeadAt(string node) => answer.HeadM[flow.Network.Nodes.ToList().FindIndex(n => n.Id == flow.At(node))];
        double datum = HeadAt("tank") - head;
        check.Near("out", expected.GetProperty("heads_m").Num("out"), HeadAt("pump.out") - datum, 0.005);
        check.Near("tee", expected.GetProperty("heads_m").Num("tee"), HeadAt("tee.a") - datum, 0.005);
    });

    [Fact]
    public void Accumulators_of_a_drawn_rig() => Cases.Each("accumulator", (c, expected, check) =>
    {
        var rig = new RigBuilder().Tank("tank", new Box(new(0, 0, 0), new(0.5, 0.5, 0.3)), ("outlet", 0.5, 0, 0))
            .Part("pump", "pump", ("in", 1, 0, 0), ("out", 1.2, 0, 0)).Part("tee", "tee", ("a", 1.5, 0, 0), ("b", 1.6, 0, 0), ("c", 1.5, 0.1, 0))
            .Part("store", "accumulator", ("port", 1.5, 0.3, 0)).Part("tap", "cold-tap", ("cold", 3, 0, 1), ("spout", 3, 0, 1))
            .Run("r1", "tank.outlet", "pump.in").Run("r2", "pump.out", "tee.a").Run("r3", "tee.b", "tap.cold").Run("r4", "tee.c", "store.port").Build();
        Rig With(double precharge) => rig with
        {
            Parts = [.. rig.Parts.Select(p => p.Id == "pump" ? p with
            {
                Flow = new PartFlow(ShutoffBar: 6, FreeLPerMin: 12, CutInBar: c.Num("cutIn_bar"), CutOutBar: c.Num("cutOut_bar")),
            } : p.Id == "store" ? p with { HoldsL = c.Num("volume_L") / 1.5, Flow = new PartFlow(PrechargeBar: precharge) } : p)],
        };
        WaterFlowAnswer Of(Rig of) => WaterFlowStudy.Ask(new Question(of, Conditions.Of(of.Brief)), new WaterFlowInput(Open: ["tap"]));
        double typed = Of(With(c.Num("precharge_bar"))).Pumps.Single().StoresL, none = Of(With(c.Num("cutOut_bar") + 0.1)).Pumps.Single().StoresL;
        // What the lines themselves give is on top of both.
        check.Near("drawdown", expected.Num("drawdown_L"), typed - none, 0.001);
        check.Same("useless", true, Of(With(c.Num("cutOut_bar") + 0.1)).Remarks.Any(r => r.Id == "precharge:store"));
        check.Same("useful", false, Of(With(c.Num("precharge_bar"))).Remarks.Any(r => r.Id == "precharge:store"));
    });
}
