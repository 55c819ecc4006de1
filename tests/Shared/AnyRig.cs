using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs.Edits;

namespace WarmConduit.Core.Rigs;

/// <summary>
/// Whole vehicles by chance, laid by nobody's plan: rooms in rooms, heaters of any set point, a trunk with taps, heater and drains where they fell, bends high
/// and low, lines drawn from either end, waste, fills and vents with dips. A number gives the same rig every time.
/// </summary>
internal sealed class AnyRig
{
    private readonly Random _random;
    private readonly List<Edit> _edits = [];
    private readonly List<Run> _runs = [];
    private readonly Rig _bare;
    private readonly double _length, _width, _floor;

    private AnyRig(int seed)
    {
        _random = new Random(seed);
        (_length, _width, _floor) = (Even(3, 5.5), Even(1.6, 2.1), Even(0.4, 0.7));
        var living = OneOf(WayOfLiving.Weekends, WayOfLiving.LivedIn, WayOfLiving.LaidUp);
        var body = new Box(new(Even(-0.5, 0.5), 0, _floor), new(_length, _width, 1.9));
        var brief = new Brief(2, 4, 12, Even(-25, -3), Even(0, 8), 10, living,
            OneOf(FreezeSchool.Drain, FreezeSchool.Drain, FreezeSchool.Air, FreezeSchool.Heat), 0.02);
        _bare = new Rig(Rig.CurrentFormat, $"any-{seed}", $"Any {seed}", "", brief, new Shell(body, [], Rooms(body), [], []), [], [],
            Scenarios.Standard, [], []);
        _bare = Editor.Apply(_bare, [new DrawFaces([])]).Rig;
        _bare = _bare with { Shell = _bare.Shell with { Zones = [.. _bare.Shell.Zones.Select(z => z with { Faces = [.. z.Faces.Select(Thicker)] })] } };
    }

    /// <summary>The rig of a number.</summary>
    public static Rig Of(int seed) => new AnyRig(seed).Plumbed();

    private double Even(double low, double high) => low + ((high - low) * _random.NextDouble());

    private bool OneIn(int n) => _random.Next(n) == 0;

    private T OneOf<T>(params T[] all) => all[_random.Next(all.Length)];

    private List<Zone> Rooms(Box body)
    {
        var (at, far) = (body.At, body.Far());
        var zones = new List<Zone>();
        void Room(string id, ZoneKind kind, Point3 low, Point3 size, double changes, ZoneHeater? heater = null) =>
            zones.Add(new Zone(id, id, kind, new Box(low, size), changes, [], [], heater, OneIn(4) ? Even(20_000, 400_000) : null));
        ZoneHeater? Heater(double low, double high, int one) => OneIn(one) ? new ZoneHeater(Even(100, 3000), Even(low, high), OneIn(2) ? true : null) : null;
        Room("living", ZoneKind.Living, at, body.Size, Even(0.3, 2), OneIn(3) ? null : new ZoneHeater(Even(500, 4000), Even(5, 21)));
        double garage = Even(0.7, 1.2);
        Room("garage", ZoneKind.Garage, at, new(garage, _width, Even(0.5, 0.9)), Even(0.5, 4), Heater(2, 9, 3));
        Room("cupboard", ZoneKind.Cupboard, new(at.XM + garage + Even(0.2, 0.6), far.YM - 0.5, at.ZM), new(Even(0.6, 1), 0.5, Even(0.5, 0.9)), Even(0.1, 1),
            Heater(2, 8, 5));
        if (OneIn(2)) Room("underfloor", ZoneKind.OpenUnderfloor, at - new Point3(0, 0, 0.36), new(_length, _width, 0.36), 60);
        else Room("underfloor", ZoneKind.EnclosedUnderfloor, at - new Point3(0, 0, 0.36), new(_length, _width, 0.36), Even(2, 10), Heater(2, 7, 3));
        if (OneIn(2))
            Room("duct", ZoneKind.EnclosedUnderfloor, new(at.XM + garage, at.YM + 0.1, at.ZM - 0.14), new(Even(1, 1.8), 0.3, 0.13), Even(0.2, 3),
            Heater(3, 8, 3));
        if (OneIn(2)) Room("hatch", ZoneKind.Hatch, new(at.XM + 0.05, far.YM - 0.14, at.ZM + 0.25), new(0.32, 0.14, 0.3), 4);
        var living = zones[0];
        for (int z = 1; z < zones.Count; z++)
        {
            if (!OneIn(3) || zones[z].Kind is ZoneKind.OpenUnderfloor or ZoneKind.Hatch) continue;
            var side = zones[z].Kind == ZoneKind.EnclosedUnderfloor ? FaceSide.Roof : (FaceSide?)null;
            var opening = new Opening("louvre", "living", Even(0.005, 0.08), Even(0.05, 0.6), side);
            zones[z] = zones[z] with { Openings = [opening with { HeightM = Math.Min(opening.HeightM, opening.MostHeightM(zones[z], living)) }] };
        }
        return [.. zones.OrderBy(z => z.Id, StringComparer.Ordinal)];
    }

    private Face Thicker(Face face) => face with
    {
        Layers = [.. face.Layers.Select(l => l with { ThicknessM = Catalogue.Solid(l.Material)!.ConductivityWPerMK < 0.1 ? l.ThicknessM * Even(0.3, 1.6)
            : l.ThicknessM })],
        BridgeFraction = OneIn(3) ? Even(0, 0.1) : face.BridgeFraction,
    };

    private static Point3 Micro(Point3 p) => new(Math.Round(p.XM, 6), Math.Round(p.YM, 6), Math.Round(p.ZM, 6));

    private string Put(string id, string stock, Point3 at, Orientation? way = null)
    {
        _edits.Add(new PlacePart(id, stock, id.Replace('-', ' '), Micro(at), way));
        return id;
    }

    // From either end, with bends that are a hand too high or too low as often as not.
    private void Lay(Rig so, string id, Service service, string pipe, (string Part, string Port) from, (string Part, string Port) to)
    {
        Point3 Of((string Part, string Port) end) => so.Parts.Find(end.Part)!.PortAt(end.Port)!.Value;
        var (a, b) = (Of(from), Of(to));
        var bends = new List<Bend>();
        int count = _random.Next(0, 4);
        for (int k = 0; k < count; k++)
        {
            var on = a.Towards(b, (k + 1.0) / (count + 1));
            double off = OneIn(2) ? Even(-0.12, 0.12) : Even(-0.02, 0.02);
            bends.Add(new Bend($"b{k + 1}", Micro(on with { ZM = Math.Max(0.05, on.ZM + off), YM = Math.Clamp(on.YM + Even(-0.15, 0.15), -0.2, 2.4) })));
        }
        Sleeve? sleeve = OneIn(3) ? new Sleeve("elastomer", Even(0.006, 0.025), OneIn(3) ? Even(0.02, 0.2) : 0) : null;
        var run = new Run(id, id.Replace('-', ' '), service, pipe, new(from.Part, from.Port), new(to.Part, to.Port), bends, sleeve);
        if (OneIn(2))
            run = run with { From = run.To, To = run.From, Bends = [.. bends.AsEnumerable().Reverse().Select((bend, k) => bend with { Id = $"b{k + 1}" })] };
        _runs.Add(run);
    }

    private Rig Plumbed()
    {
        var body = _bare.Shell.Body;
        Point3 In(double x, double y, double up) => body.At + new Point3(x, y, up);
        bool under = OneIn(4);
        Put("fresh", "tank", In(0.1, 0.5, under ? -0.28 : Even(0.02, 0.25)));
        Put("spout", "fill-spout", In(0.02, _width - 0.1, Even(0.5, 0.8)));
        Put("air", "vent-cap", In(0.02, 0.02, Even(0.5, 0.8)));
        Put("pump", "pump", In(0.7, 0.3, Even(0.02, 0.3)));
        bool emptied = !OneIn(4);
        if (emptied)
        {
            Put("tank-tee", "tee", In(0.62, 0.55, under ? -0.3 : Even(0.01, 0.1)));
            Put("tank-drain", "drain-cock", In(0.66, 0.7, under ? -0.34 : OneIn(2) ? -0.1 : Even(0.01, 0.05)));
        }
        int taps = _random.Next(1, 5), drains = _random.Next(0, 3);
        bool heater = OneIn(2), check = OneIn(2);
        if (check) Put("check", "check-valve", In(0.9, 0.35, Even(0.05, 0.3)));
        if (heater) Put("heater", OneOf("storage-heater", "gas-heater"), In(Even(1, _length - 0.6), 0.1, Even(0.05, 0.5)));
        var trunk = new List<string>();
        for (int n = 0; n < taps + drains + (heater ? 1 : 0); n++)
            trunk.Add(Put($"tee-{n + 1}", "tee", In(1.1 + ((_length - 1.6) * (n + 0.5) / (taps + drains + 1)), Even(0.2, _width - 0.3), Even(0.03, 0.4))));
        var used = new List<(string Tee, string Part, string Port, Service Service)>();
        int next = 0;
        for (int d = 0; d < drains; d++)
        {
            string cock = Put($"drain-{d + 1}", OneIn(6) ? "frost-valve" : "drain-cock",
                In(1.1 + ((_length - 1.6) * Even(0.1, 0.9)), Even(0.2, _width - 0.2), OneIn(2) ? -0.15 : Even(0.01, 0.1)));
            used.Add((trunk[next++], cock, "in", Service.Cold));
        }
        string[] outlets = [.. Enumerable.Range(1, taps).Select(t => Put($"tap-{t}",
            OneOf("mixer", "cold-tap", "shower-mixer", "outdoor-shower", "toilet-valve"),
            In(0.6 + ((_length - 1.2) * t / (taps + 1)), Even(0.2, _width - 0.4), Even(0.5, 0.9))))];
        foreach (string tap in outlets) used.Add((trunk[next++], tap, "cold", Service.Cold));
        if (heater) used.Add((trunk[next], "heater", "", Service.Cold));
        bool waste = OneIn(2);
        if (waste)
        {
            Put("basin", "basin", In(_length / 2, 0.3, 0.6));
            Put("trap", OneOf("trap", "waterless-trap"), In((_length / 2) + 0.1, 0.4, 0.35));
            Put("grey", "grey-tank", In((_length / 2) + 0.3, 0.6, -0.3));
            Put("dump", "dump-valve", In((_length / 2) + 0.1, 0.7, -0.33));
            Put("grey-air", "vent-cap", In((_length / 2) + 0.9, 0.1, 0.4));
        }
        var so = Editor.Apply(_bare, _edits).Rig;
        if (emptied)
        {
            Lay(so, "outlet", Service.Cold, "pvc-hose-1/2", ("fresh", "outlet"), ("tank-tee", "a"));
            Lay(so, "suction", Service.Cold, "pvc-hose-1/2", ("tank-tee", "b"), ("pump", "in"));
            Lay(so, "tank-drain-line", Service.Cold, "pex-1/2", ("tank-tee", "c"), ("tank-drain", "in"));
        }
        else Lay(so, "suction", Service.Cold, "pvc-hose-1/2", ("fresh", "outlet"), ("pump", "in"));
        string pressed = check ? "check" : "pump";
        if (check) Lay(so, "to-check", Service.Cold, "pex-1/2", ("pump", "out"), ("check", "in"));
        for (int n = 0; n < trunk.Count; n++)
            Lay(so, $"trunk-{n + 1}", Service.Cold, OneOf("pex-1/2", "pex-1/2", "pe-15", "copper-15"), n == 0 ? (pressed, "out") : (trunk[n - 1], "b"),
            (trunk[n], "a"));
        string? cold = heater ? so.Parts.Find("heater")!.Ports.First(p => p.Id is "cold" or "in").Id : null;
        foreach (var (tee, part, port, service) in used)
            Lay(so, $"{part}-{(part == "heater" ? "feed" : "cold")}", service, "pex-1/2", (tee, "c"), (part, port.Length > 0 ? port : cold!));
        if (heater && outlets.FirstOrDefault(t => so.Parts.Find(t)!.Ports.Any(p => p.Id == "hot")) is { } mixed)
            Lay(so, $"{mixed}-hot", Service.Hot, "pex-1/2", ("heater", so.Parts.Find("heater")!.Ports.First(p => p.Id is "hot" or "out").Id), (mixed, "hot"));
        if (!OneIn(4)) Lay(so, "vent", Service.Vent, "vent-hose-10", ("fresh", "vent"), ("air", "end"));
        if (!OneIn(4)) Lay(so, "fill", Service.Fill, "fill-hose-40", ("spout", "end"), ("fresh", "fill"));
        if (waste)
        {
            Lay(so, "basin-waste", Service.Waste, "waste-28", ("basin", "waste"), ("trap", "in"));
            Lay(so, "trap-waste", Service.Waste, "waste-28", ("trap", "out"), ("grey", "inlet"));
            Lay(so, "grey-out", Service.Waste, "waste-28", ("grey", "drain"), ("dump", "in"));
            if (!OneIn(3)) Lay(so, "grey-vent", Service.Vent, "vent-hose-10", ("grey", "vent"), ("grey-air", "end"));
        }
        var byHand = so.Parts.Where(p => Catalogue.Part(p.Stock)!.KeepsWater && OneIn(2)).Select(p => new HandTask(p.Id, "Empty it"));
        var settings = so.Parts.Where(p => Catalogue.Part(p.Stock)!.Passage is Passage.Mixer or Passage.Drain && !OneIn(8))
            .Select(p => new Setting(p.Id, Positions.Open));
        var rig = (so with
        {
            Runs = _runs,
            ByHand = [.. byHand],
            Scenarios = [.. so.Scenarios.Select(s => s.Kind == ScenarioKind.Drain ? s with { Settings = [.. s.Settings, .. settings] } : s)],
        }).InOrder();
        RigCheck.Demand(rig);
        return rig;
    }
}
