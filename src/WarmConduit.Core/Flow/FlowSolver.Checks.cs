

namespace WarmConduit.Core.Flow;

/// <summary>What a network is checked for before, and its answer after.</summary>
public static partial class FlowSolver
{
    private sealed partial class Run
    {
        private double Imbalance()
        {
            var sum = new double[_n];
            for (int e = 0; e < _ends.Length; e++)
            {
                sum[_ends[e].From] -= _flow[e];
                if (_ends[e].To >= 0) sum[_ends[e].To] += _flow[e];
            }
            double worst = 0;
            for (int i = 0; i < _n; i++)
                if (!_fixed[i]) worst = Math.Max(worst, Math.Abs(sum[i]));
            return worst;
        }

        private void Note()
        {
            for (int e = 0; e < _m; e++)
            {
                var edge = _net.Edges[e];
                if (edge is FlowPump && _flow[e] < -1e-9) _notes.Add(new FlowNote(FlowNoteKind.PumpDrivenBack, edge.Id));
                if (edge is FlowPump pump && pump.CurveS2PerM5 * _flow[e] * Math.Abs(_flow[e]) > pump.ShutoffHeadM * (1 + 1e-6) + 1e-9)
                    _notes.Add(new FlowNote(FlowNoteKind.PumpPastItsEnd, edge.Id));
                if (edge is FlowValve { OneWay: true, Opening: >= FlowValve.LeastOpening } && _flow[e] == 0 && Drop(e) < -1e-9)
                    _notes.Add(new FlowNote(FlowNoteKind.OneWayShut, edge.Id));
            }
            for (int o = _m; o < _ends.Length; o++)
                if (_flow[o] <= 1e-12) _notes.Add(new FlowNote(FlowNoteKind.OutletDry, _net.Outlets[o - _m].Node));
        }

        private Dictionary<string, int> Check()
        {
            if (!(_net.DensityKgPerM3 is >= 1e-3 and <= 1e5 && _net.ViscosityPaS is >= 1e-9 and <= 1e6))
                throw new FlowNetworkException("fluid", "its density must lie between 1e-3 and 1e5 kg/m³, its viscosity between 1e-9 and 1e6 Pa·s");
            var index = new Dictionary<string, int>();
            foreach (var node in _net.Nodes)
            {
                if (!index.TryAdd(node.Id, index.Count)) throw new FlowNetworkException(node.Id, "this node id is used twice");
                if (node.HeadM is { } h && !(Math.Abs(h) <= MostM)) throw new FlowNetworkException(node.Id, $"its head must lie within {MostM:0e0} m");
            }
            var ids = new HashSet<string>();
            foreach (var edge in _net.Edges)
            {
                if (!ids.Add(edge.Id)) throw new FlowNetworkException(edge.Id, "this edge id is used twice");
                if (!index.ContainsKey(edge.From) || !index.ContainsKey(edge.To)) throw new FlowNetworkException(edge.Id, "an end of it is not a known node");
                if (edge.From == edge.To) throw new FlowNetworkException(edge.Id, "its two ends must be different");
                if (WrongWith(edge) is { } reason) throw new FlowNetworkException(edge.Id, reason);
            }
            foreach (var outlet in _net.Outlets)
            {
                if (!index.ContainsKey(outlet.Node)) throw new FlowNetworkException(outlet.Node, "the outlet is at an unknown node");
                if (!(Math.Abs(outlet.HeightM) <= MostM)) throw new FlowNetworkException(outlet.Node, $"the outlet's height must lie within {MostM:0e0} m");
                if (!(outlet.CoefficientM3PerSPerSqrtPa is 0 or (>= 1e-15 and <= 1e3)))
                    throw new FlowNetworkException(outlet.Node, "the outlet's coefficient must be 0, or lie between 1e-15 and 1e3 m³/s per √Pa");
            }
            return index;
        }

        private static string? WrongWith(FlowEdge edge)
        {
            const string bore = "its bore must lie between 1e-5 and 100 m", loss = "its loss must lie between 0 and 1e12 velocity heads";
            return edge switch
            {
                FlowPipe { InnerDiameterM: not (>= 1e-5 and <= 100) } or FlowValve { InnerDiameterM: not (>= 1e-5 and <= 100) } => bore,
                FlowPipe { MinorLoss: not (>= 0 and <= 1e12) } or FlowValve { OpenLoss: not (>= 0 and <= 1e12) } => loss,
                FlowPipe { LengthM: not (> 0 and <= MostM) } => $"its length must be above 0 and within {MostM:0e0} m",
                FlowPipe { RoughnessM: not (>= 0 and <= 100) } => "its roughness must lie between 0 and 100 m",
                FlowPump { ShutoffHeadM: not (>= 0 and <= MostM) } => $"its shut-off head must lie between 0 and {MostM:0e0} m",
                FlowPump { CurveS2PerM5: not (>= 1e-6 and <= 1e30) } => "its curve must lie between 1e-6 and 1e30 s²/m⁵",
                FlowValve { Opening: not (>= 0 and <= 1) } => "its opening must lie between 0 and 1",
                FlowValve { OpensM: not (>= 0 and <= MostM) } => $"the head that opens it must lie between 0 and {MostM:0e0} m",
                FlowPipe or FlowPump or FlowValve or FlowGiven => null,
                _ => "this kind of element is unknown",
            };
        }
    }
}
