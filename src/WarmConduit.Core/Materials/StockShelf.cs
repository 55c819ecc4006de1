using WarmConduit.Core.Geometry;

namespace WarmConduit.Core.Materials;

/// <summary>The stock parts, each complete as it is placed: size, ports, mass, positions. All figures are estimates.</summary>
internal static class StockShelf
{
    private const double Half = 0.0123, Vent = 0.010, Waste = 0.024, Wide = 0.038;

    private static readonly StockPosition[] Ball =
    [
        new(Positions.Open, "open", true),
        new(Positions.HalfOpen, "half open", true),
        new(Positions.Closed, "closed", false),
    ];

    private static readonly StockPosition[] Tap = [new(Positions.Open, "open", true), new(Positions.Closed, "closed", false)];
    private static readonly StockPosition[] Motor = [new(Positions.Off, "off", false), new(Positions.On, "on", true)];

    public static IReadOnlyList<StockPart> Parts { get; } =
    [
        Tank("tank", "water tank", 500, 600, 200, 4, 1,
            At("outlet", 500, 300, 0, Facing.Forward, Half, PortRole.Outlet), At("fill", 0, 550, 160, Facing.Rear, Wide, PortRole.Fill), At("vent", 0, 50, 190, Facing.Rear, Vent, PortRole.Vent)),
        Tank("grey-tank", "grey tank", 450, 450, 160, 3.5, 0.5,
            At("inlet", 225, 450, 130, Facing.FarSide, Waste, PortRole.Waste), At("drain", 0, 225, 0, Facing.Rear, Wide, PortRole.Drain), At("vent", 450, 225, 150, Facing.Forward, Vent, PortRole.Vent)),
        Of("pump", "diaphragm pump", 0.12, 0.25, Passage.Pump, IceBreaks.Yes, 4, (120, 140, 110), 1.9, InOut(120, 70, 30), keeps: "Run it dry for half a minute after the tank is empty", positions: Motor, landmark: true, look: PartLook.Cylinder),
        Of("strainer", "strainer", 0.05, 0.08, Passage.Through, IceBreaks.Yes, 7, (80, 80, 100), 0.15, InOut(80, 40, 70), keeps: "Unscrew its bowl and tip it out", look: PartLook.Cylinder),
        Of("accumulator", "accumulator 0.75 L", 0.5, 0.35, Passage.DeadEnd, IceBreaks.Yes, 8, (130, 130, 180), 0.8, [At("port", 65, 65, 0, Facing.Down, Half, PortRole.Inlet)], look: PartLook.Cylinder),
        Of("filter", "cartridge filter, 10 in", 0.9, 0.5, Passage.Through, IceBreaks.Yes, 8, (140, 140, 310), 1.2, InOut(140, 70, 260), keeps: "Unscrew its bowl and take the cartridge home", landmark: true, look: PartLook.Cylinder),
        Of("ultraviolet", "ultraviolet unit", 0.4, 0.35, Passage.Through, IceBreaks.Yes, 8, (300, 70, 70), 1.1, InOut(300, 35, 30), look: PartLook.Cylinder),
        Of("ball-valve", "ball valve 15 mm", 0.01, 0.05, Passage.Valve, IceBreaks.Yes, 10, (100, 40, 45), 0.2, Ends(100, 20, 15), positions: Ball),
        Of("three-way-valve", "three-way valve 15 mm", 0.02, 0.07, Passage.Valve, IceBreaks.Yes, 10, (100, 70, 45), 0.35,
            [At("common", 0, 20, 15, Facing.Rear, Half, PortRole.Inlet), At("left", 50, 70, 15, Facing.FarSide, Half, PortRole.Outlet), At("right", 100, 20, 15, Facing.Forward, Half, PortRole.Outlet)],
            positions: [new("right", "to the right", true, [["common", "right"]]), new("left", "to the left", true, [["common", "left"]]), new("all", "all three", true), new(Positions.Closed, "closed", false)]),
        Of("check-valve", "non-return valve", 0.01, 0.04, Passage.OneWay, IceBreaks.Yes, 10, (100, 40, 40), 0.12, InOut(100, 20, 14), look: PartLook.Cylinder),
        Of("mixer", "lever mixer tap", 0.04, 0.06, Passage.Mixer, IceBreaks.Yes, 10, (100, 80, 280), 1.1,
            [At("cold", 30, 40, 0, Facing.Down, 0.009, PortRole.Cold), At("hot", 70, 40, 0, Facing.Down, 0.009, PortRole.Hot), At("spout", 50, 0, 250, Facing.KerbSide, 0.009, PortRole.Spout)], positions: Tap, landmark: true),
        Of("shower-mixer", "shower mixer", 0.08, 0.12, Passage.Mixer, IceBreaks.Yes, 10, (180, 70, 60), 0.9,
            [At("cold", 15, 70, 25, Facing.FarSide, Half, PortRole.Cold), At("hot", 165, 70, 25, Facing.FarSide, Half, PortRole.Hot), At("spout", 90, 35, 0, Facing.Down, Half, PortRole.Spout)], positions: Tap, landmark: true),
        Of("shower-hose", "shower hose 1.5 m and head", 0.09, 0.15, Passage.Through, IceBreaks.No, 5, (60, 60, 1500), 0.4,
            [At("in", 30, 30, 1480, Facing.Up, Half, PortRole.Inlet), At("out", 30, 30, 0, Facing.Down, Half, PortRole.Outlet)], keeps: "Lay it down in the tray, head lowest", look: PartLook.Cylinder),
        Of("outdoor-shower", "outdoor shower box", 0.08, 0.20, Passage.Mixer, IceBreaks.Yes, 10, (220, 110, 160), 1.3,
            [At("cold", 60, 0, 60, Facing.KerbSide, Half, PortRole.Cold), At("hot", 160, 0, 60, Facing.KerbSide, Half, PortRole.Hot), At("spout", 110, 110, 30, Facing.FarSide, Half, PortRole.Spout)], outdoors: 0.5, positions: Tap, landmark: true),
        Of("toilet-valve", "toilet valve", 0.03, 0.05, Passage.Mixer, IceBreaks.Yes, 8, (60, 60, 60), 0.15,
            [At("cold", 0, 30, 30, Facing.Rear, 0.009, PortRole.Cold), At("spout", 60, 30, 20, Facing.Forward, 0.009, PortRole.Spout)], positions: Tap),
        Of("storage-heater", "storage heater 10 L", 10, 0.6, Passage.Vessel, IceBreaks.WhenFull, 6, (280, 260, 300), 7,
            [At("cold", 0, 90, 15, Facing.Rear, Half, PortRole.Cold), At("hot", 0, 170, 270, Facing.Rear, Half, PortRole.Hot), At("drain", 140, 0, 0, Facing.KerbSide, Half, PortRole.Drain)]),
        Of("gas-heater", "instantaneous gas heater", 0.6, 0.5, Passage.Through, IceBreaks.Yes, 8, (300, 180, 430), 8,
            [At("in", 80, 90, 0, Facing.Down, Half, PortRole.Cold), At("out", 220, 90, 0, Facing.Down, Half, PortRole.Hot)], keeps: "Open its two drain screws"),
        Of("plate-exchanger", "plate exchanger", 0.15, 0.2, Passage.Through, IceBreaks.Yes, 10, (80, 60, 200), 1.5,
            [At("in", 20, 0, 170, Facing.KerbSide, Half, PortRole.Cold), At("out", 60, 0, 20, Facing.KerbSide, Half, PortRole.Hot)]),
        Of("calorifier", "calorifier 20 L", 20, 0.9, Passage.Vessel, IceBreaks.WhenFull, 6, (500, 320, 320), 12,
            [At("cold", 0, 110, 15, Facing.Rear, Half, PortRole.Cold), At("hot", 0, 210, 295, Facing.Rear, Half, PortRole.Hot), At("drain", 250, 0, 0, Facing.KerbSide, Half, PortRole.Drain)], look: PartLook.Cylinder),
        Of("mixing-valve", "thermostatic mixing valve", 0.03, 0.06, Passage.Through, IceBreaks.Yes, 10, (90, 40, 80), 0.4,
            [At("cold", 0, 20, 30, Facing.Rear, Half, PortRole.Cold), At("hot", 90, 20, 30, Facing.Forward, Half, PortRole.Hot), At("mixed", 45, 20, 0, Facing.Down, Half, PortRole.Outlet)]),
        Of("trap", "water trap", 0.3, 0.2, Passage.Through, IceBreaks.Yes, null, (160, 60, 140), 0.3,
            [At("in", 20, 30, 140, Facing.Up, Waste, PortRole.Waste), At("out", 160, 30, 70, Facing.Forward, Waste, PortRole.Waste)], keeps: "Pour in about a litre of propylene glycol antifreeze for drinking-water systems"),
        Of("waterless-trap", "waterless trap", 0.02, 0.1, Passage.OneWay, IceBreaks.No, null, (40, 40, 140), 0.2,
            [At("in", 20, 20, 140, Facing.Up, Waste, PortRole.Waste), At("out", 20, 20, 0, Facing.Down, Waste, PortRole.Waste)]),
        Of("frost-valve", "frost valve", 0.02, 0.05, Passage.Drain, IceBreaks.No, 6, (60, 60, 90), 0.3, [At("in", 0, 30, 60, Facing.Rear, Half, PortRole.Inlet)], look: PartLook.Drain, positions: Tap),
        Of("drain-cock", "drain cock", 0.01, 0.05, Passage.Drain, IceBreaks.Yes, 10, (40, 40, 40), 0.15, [At("in", 0, 20, 10, Facing.Rear, Half, PortRole.Inlet)], look: PartLook.Drain, positions: Tap, landmark: true),
        Of("tee", "tee", 0.005, 0.02, Passage.Through, IceBreaks.Yes, 10, (80, 40, 40), 0.05,
            [At("a", 0, 20, 14, Facing.Rear, Half, PortRole.Inlet), At("b", 80, 20, 14, Facing.Forward, Half, PortRole.Outlet), At("c", 40, 40, 14, Facing.FarSide, Half, PortRole.Outlet)], look: PartLook.Joint),
        Of("open-end", "open end", 0, 0, Passage.OpenEnd, IceBreaks.No, null, (40, 40, 40), 0, [At("end", 20, 20, 20, Facing.Down, Half, PortRole.Outlet)], look: PartLook.OpenEnd),
        Of("basin", "sink or basin", 0, 0, Passage.OpenEnd, IceBreaks.No, null, (360, 340, 140), 2.5, [At("waste", 180, 170, 0, Facing.Down, Waste, PortRole.Waste)], look: PartLook.Bowl),
        Of("air-port", "blow-out port, capped", 0.005, 0.02, Passage.DeadEnd, IceBreaks.Yes, 10, (40, 40, 40), 0.1, [At("in", 0, 20, 14, Facing.Rear, Half, PortRole.Inlet)], look: PartLook.Joint),
    ];

    private static StockPart Tank(string id, string name, double x, double y, double z, double kg, double usual, params StockPort[] ports) =>
        Of(id, name, 0, 0, Passage.Vessel, IceBreaks.WhenFull, null, (x, y, z), kg, ports, usual: usual);

    private static StockPart Of(
        string id, string name, double holdsL, double lossWPerK, Passage passage, IceBreaks ice, double? bar, (double X, double Y, double Z) mm, double kg, IReadOnlyList<StockPort> ports,
        string? keeps = null, double outdoors = 0, double usual = 1, PartLook look = PartLook.Body, bool landmark = false, IReadOnlyList<StockPosition>? positions = null) =>
        new(id, name, holdsL, lossWPerK, passage, keeps is not null, keeps, ice, bar, outdoors, usual, look, landmark, Mm(mm.X, mm.Y, mm.Z), ports, kg, positions ?? [], Catalogue.Estimate);

    private static StockPort[] InOut(double length, double y, double z) =>
        [At("in", 0, y, z, Facing.Rear, Half, PortRole.Inlet), At("out", length, y, z, Facing.Forward, Half, PortRole.Outlet)];

    private static StockPort[] Ends(double length, double y, double z) =>
        [At("a", 0, y, z, Facing.Rear, Half, PortRole.Inlet), At("b", length, y, z, Facing.Forward, Half, PortRole.Outlet)];

    private static StockPort At(string id, double x, double y, double z, Facing facing, double boreM, PortRole role) => new(id, Mm(x, y, z), facing, boreM, role);

    private static Point3 Mm(double x, double y, double z) => new(x / 1000, y / 1000, z / 1000);
}
