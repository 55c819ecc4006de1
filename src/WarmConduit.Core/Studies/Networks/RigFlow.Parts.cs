using WarmConduit.Core.Flow;
using WarmConduit.Core.Levels;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Tanks;

namespace WarmConduit.Core.Studies.Networks;

/// <content>What parts are to water that flows through them.</content>
internal sealed partial class RigFlow
{
    // Velocity heads. Estimates; sources in the engine's notes.
    private const double InsertElbow = 3, PushFitElbow = 1, Bend = 0.3, TeeRun = 0.3, TeeBranch = 1.5, Coupling = 0.5, OpenValve = 0.1, HalfOpenValve = 6,
        CheckValve = 2.5, IntoTank = 0.5, OpenCock = 1.5, Nothing = 1e-3;

    // Of the bar at which a mixing tap is stated, what its cartridge takes; and where a hose behind it takes the rest. Estimates.
    private const double CartridgeShare = 0.5, ThroughShare = 0.1;

    // How far below its hose open water lies. Estimate.
    private const double OpenWaterM = 1;

    // A port with less water over it draws air.
    private const double CoveredM = 0.001;

    private void AddPart(Part part)
    {
        var stock = Catalogue.Part(part.Stock)!;
        var position = _scene.PositionOf(part);
        double? town = _scene.Town && IsTownInlet(part) ? _index.Rig.Brief.TownOrUsual().AtInletBar() : null;
        foreach (var port in part.Ports)
        {
            string node = Node(part.Id, port.Id);
            var gear = _scene.Gear?.FirstOrDefault(g => g.Kind != GearKind.AirHose && g.PartId == part.Id && g.Port == port.Id);
            double? head = gear is { Kind: GearKind.Bottle } ? HeightM(part, port.Id)
                : gear is null && town is not null && port.Id == "in" && !_index.IsJoined(part.Id, port.Id)
                ? HeightM(part, port.Id) + town.Value * HeadPerBar : null;
            if (head is not null || gear is not null)
                _boreAt[node] = part.Ports.Select(o => _boreAt.GetValueOrDefault(Node(part.Id, o.Id))).FirstOrDefault(b => b > 0, 0.0123);
            _nodes.Add(new FlowNode(node, head));
            if (gear is { Kind: GearKind.LoosePump }) AddLoosePump(part, port.Id, node);
        }
        if (TankStudy.IsTank(part))
        {
            AddTank(part);
            return;
        }
        if (stock.Passage is Passage.OpenEnd || (stock.Passage == Passage.Drain && position?.Passes == true))
        {
            var at = part.Ports.FirstOrDefault(p => _boreAt.ContainsKey(Node(part.Id, p.Id)));
            if (at is not null) AddOutlet(part, at.Id, Orifice(Bore(part, at)));
            return;
        }
        AddInside(part, stock, position);
    }

    private void AddLoosePump(Part part, string port, string node)
    {
        var (shutoff, free) = FlowShelf.Of("submersible-pump")!.AtVolts();
        _nodes.Add(new FlowNode($"{node}~", HeightM(part, port) - OpenWaterM));
        Add(Curve($"{node}|", $"{node}~", node, shutoff, free), new FlowPiece(null, null));
    }

    private FlowPump Curve(string id, string from, string to, double shutoffBar, double freeLPerMin) =>
        new(id, from, to, shutoffBar * HeadPerBar, Math.Max(1e-6, shutoffBar * HeadPerBar / Math.Pow(Math.Max(0.1, freeLPerMin) / 60e3, 2)));

    // q = area · √(2 p / (ρ · loss)).
    private double Orifice(double boreM) => Math.PI / 4 * boreM * boreM * Math.Sqrt(2 / (_density * OpenCock));

    private void AddOutlet(Part part, string port, double coefficient)
    {
        _outlets.Add(new FlowOutlet(Node(part.Id, port), HeightM(part, port), coefficient));
        OutletParts.Add(part.Id);
    }

    private double Bore(Part part, Port port) => _boreAt.TryGetValue(Node(part.Id, port.Id), out double bore) ? bore
        : port.BoreM ?? Catalogue.Part(part.Stock)!.Ports.FirstOrDefault(p => p.Id == port.Id)?.BoreM ?? 0.0123;

    private void AddTank(Part tank)
    {
        double surface = VesselSlice.SurfaceM(tank.Box, _scene.ShareOf(tank), _parked);
        _nodes.Add(new FlowNode(tank.Id, surface));
        foreach (var port in tank.Ports.Where(p => _boreAt.ContainsKey(Node(tank.Id, p.Id))))
        {
            string node = Node(tank.Id, port.Id);
            var piece = new FlowPiece(null, tank.Id);
            if (surface - HeightM(tank, port.Id) > CoveredM)
            {
                Add(new FlowValve(node + "|", tank.Id, node, Bore(tank, port), IntoTank), piece);
                continue;
            }
            // Above the water it only falls in.
            _nodes.Add(new FlowNode(node + "^", HeightM(tank, port.Id)));
            Add(new FlowValve(node + "|", node, node + "^", Bore(tank, port), 2 * IntoTank, OneWay: true), piece);
            if (tank.RoleOf(port) == PortRole.Outlet) Uncovered.Add((tank, port));
        }
    }

    private void AddInside(Part part, StockPart stock, StockPosition? position)
    {
        var flow = part.Flows();
        if (stock.Passage == Passage.Vessel)
        {
            AddStar(part, [.. part.Ports.Select(p => p.Id)], flow, position);
            return;
        }
        // It lets through at rest too.
        if (_scene.Coolant is not null && flow.ShutoffBar is not null && position?.Passes == true && part.PortAt("in") is not null
            && part.PortAt("out") is not null)
        {
            AddPump(part, "in", "out", flow);
            return;
        }
        foreach (var (from, to, _) in Inside.Ways(part, position).Where(w => w.Passes == Passes.Forward))
        {
            string a = Node(part.Id, from), b = Node(part.Id, to);
            double bore = Bore(part, part.Ports.Find(to)!);
            if (stock.Passage == Passage.Pump) AddPump(part, from, to, flow);
            else
                Add(new FlowValve($"{part.Id}|", a, b, bore, CheckValve, OneWay: true, OpensM: (flow.OpensBar ?? 0) * HeadPerBar),
                    new FlowPiece(null, part.Id));
        }
        foreach (var group in Inside.Meeting(part, position)) AddStar(part, group, flow, position);
    }

    private void AddPump(Part part, string from, string to, PartFlow flow)
    {
        var (shutoff, free) = flow.AtVolts();
        _nodes.Add(new FlowNode(part.Id));
        Drives.Add(new FlowDrive(part.Id, _edges.Count));
        Add(Curve($"{part.Id}|", Node(part.Id, from), part.Id, shutoff, free), new FlowPiece(null, part.Id));
        Add(new FlowValve($"{part.Id}>", part.Id, Node(part.Id, to), Bore(part, part.Ports.Find(to)!), Nothing, OneWay: true), new FlowPiece(null, part.Id));
    }

    private void AddStar(Part part, IReadOnlyList<string> ports, PartFlow flow, StockPosition? position)
    {
        var stock = Catalogue.Part(part.Stock)!;
        string middle = _nodes.Exists(n => n.Id == part.Id) ? $"{part.Id}/{ports[0]}" : part.Id;
        _nodes.Add(new FlowNode(middle));
        var joined = ports.Where(p => _boreAt.ContainsKey(Node(part.Id, p))).ToList();
        if (PartWater.HeatsWater(part)) HeaterAt[middle] = part;
        int cold = -1, hot = -1;
        foreach (string id in joined)
        {
            var port = part.Ports.Find(id)!;
            double bore = Bore(part, port);
            var role = part.RoleOf(port);
            if (role == PortRole.Cold) cold = _edges.Count;
            if (role == PortRole.Hot && stock.Passage != Passage.Vessel) hot = _edges.Count;
            double loss = PortLoss(stock, flow, id, bore, joined.Count, position);
            bool turned = flow.MixesToC is not null || stock.Passage == Passage.Mixer || flow.HoldsBar is not null;
            if (!turned && _runAt.GetValueOrDefault(Node(part.Id, id)) is { } run)
            {
                _at[Node(part.Id, id)] = middle;
                if (!_fittings.TryGetValue(run, out var list)) _fittings[run] = list = [];
                list.Add((part.Id, loss));
                continue;
            }
            Add(new FlowValve($"{part.Id}|{id}", Node(part.Id, id), middle, bore, loss), new FlowPiece(null, part.Id));
            if (id == "out" && flow.HoldsBar is { } holds) Regulators.Add((_edges.Count - 1, holds));
        }
        bool mixes = (stock.Passage == Passage.Mixer || flow.MixesToC is not null) && cold >= 0 && hot >= 0;
        if (mixes) Splits.Add(new FlowSplit(part.Id, cold, hot, flow.MixesToC ?? _scene.WishC));
        // A tap's spout, or the end of its hose, is where water leaves.
        string? end = stock.Passage == Passage.Mixer ? "spout" : flow.OutletLPerMin is not null ? part.Ports.FirstOrDefault(p => p.Id == "out")?.Id : null;
        if (end is null || flow.OutletLPerMin is not { } gives) return;
        bool ends = !_boreAt.ContainsKey(Node(part.Id, end)) && part.Ports.Find(end) is not null;
        double inside = !mixes ? 0 : ends ? CartridgeShare : ThroughShare;
        foreach (int edge in mixes ? (int[])[cold, hot] : [])
        {
            var way = (FlowValve)_edges[edge];
            _edges[edge] = way with { OpenLoss = Heads(inside, gives, way.InnerDiameterM) };
        }
        if (!ends) return;
        Add(new FlowValve($"{part.Id}|{end}", middle, Node(part.Id, end), Bore(part, part.Ports.Find(end)!), Nothing), new FlowPiece(null, part.Id));
        AddOutlet(part, end, gives / 60e3 / Math.Sqrt(1e5 * (1 - inside)));
    }

    // Velocity heads on a bore of what takes so many bar at a flow in L/min.
    private double Heads(double bar, double lPerMin, double boreM)
    {
        double speed = lPerMin / 60e3 / (Math.PI / 4 * boreM * boreM);
        return bar * 1e5 / (_density * speed * speed / 2);
    }

    // In velocity heads on the bore of the line there; what a part takes as a whole is shared by the way in and the way out.
    private double PortLoss(StockPart stock, PartFlow flow, string port, double bore, int ports, StockPosition? position)
    {
        if (stock.Passage == Passage.Mixer) return OpenValve;
        if ((_scene.Fouled ? flow.FouledBar ?? flow.LossBar : flow.LossBar) is { } bar) return Heads(bar, PartFlow.StatedLPerMin, bore) / 2;
        return stock.Group switch
        {
            PartGroup.Joints when ports > 2 => port is "c" || port.StartsWith("out-", StringComparison.Ordinal) ? TeeBranch : TeeRun,
            PartGroup.Joints when stock.Id == "tee" => port == "c" ? TeeBranch : TeeRun,
            PartGroup.Joints when stock.Id == "elbow" => ElbowLoss / 2,
            PartGroup.Valves => (position?.Id == Positions.HalfOpen ? HalfOpenValve : OpenValve) / 2,
            _ => Coupling / 2,
        };
    }
}
