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
        Tank(PartGroup.Store, "tank", "water tank", 500, 600, 200, 4, 1,
            At("outlet", 500, 300, 0, Facing.Forward, Half, PortRole.Outlet), At("fill", 0, 550, 160, Facing.Rear, Wide, PortRole.Fill),
            At("vent", 0, 50, 190, Facing.Rear, Vent, PortRole.Vent)),
        Tank(PartGroup.Waste, "grey-tank", "grey tank", 450, 450, 160, 3.5, 0.5,
            At("inlet", 225, 450, 130, Facing.FarSide, Waste, PortRole.Waste), At("drain", 0, 225, 0, Facing.Rear, Wide, PortRole.Drain),
            At("vent", 450, 225, 150, Facing.Forward, Vent, PortRole.Vent)),
        Of(PartGroup.Move, "pump", "diaphragm pump", 0.12, 0.25, Passage.Pump, IceBreaks.Yes, 4, (120, 140, 110), 1.9, InOut(120, 70, 30),
        keeps: "Run it dry for half a minute after the tank is empty", positions: Motor, landmark: true, look: PartLook.Cylinder),
        Of(PartGroup.Clean, "strainer", "strainer", 0.05, 0.08, Passage.Through, IceBreaks.Yes, 7, (80, 80, 100), 0.15, InOut(80, 40, 70),
        keeps: "Unscrew its bowl and tip it out", look: PartLook.Cylinder),
        Of(PartGroup.Move, "accumulator", "accumulator 0.75 L", 0.5, 0.35, Passage.DeadEnd, IceBreaks.Yes, 8, (130, 130, 180), 0.8,
        [At("port", 65, 65, 0, Facing.Down, Half, PortRole.Inlet)], look: PartLook.Cylinder),
        Of(PartGroup.Clean, "filter", "cartridge filter, 10 in", 0.9, 0.5, Passage.Through, IceBreaks.Yes, 8, (140, 140, 310), 1.2, InOut(140, 70, 260),
        keeps: "Unscrew its bowl and take the cartridge home", landmark: true, look: PartLook.Cylinder),
        Of(PartGroup.Clean, "ultraviolet", "ultraviolet unit", 0.4, 0.35, Passage.Through, IceBreaks.Yes, 8, (300, 70, 70), 1.1, InOut(300, 35, 30),
        look: PartLook.Cylinder),
        Of(PartGroup.Valves, "ball-valve", "ball valve 15 mm", 0.01, 0.05, Passage.Valve, IceBreaks.Yes, 10, (100, 40, 45), 0.2, Ends(100, 20, 15),
        positions: Ball),
        Of(PartGroup.Valves, "three-way-valve", "three-way valve 15 mm", 0.02, 0.07, Passage.Valve, IceBreaks.Yes, 10, (100, 70, 45), 0.35,
            [At("common", 0, 20, 15, Facing.Rear, Half, PortRole.Inlet), At("left", 50, 70, 15, Facing.FarSide, Half, PortRole.Outlet),
            At("right", 100, 20, 15, Facing.Forward, Half, PortRole.Outlet)],
            positions: [new("right", "to the right", true, [["common", "right"]]), new("left", "to the left", true, [["common", "left"]]),
            new("all", "all three", true), new(Positions.Closed, "closed", false)]),
        Of(PartGroup.Valves, "check-valve", "non-return valve", 0.01, 0.04, Passage.OneWay, IceBreaks.Yes, 10, (100, 40, 40), 0.12, InOut(100, 20, 14),
        look: PartLook.Cylinder),
        Of(PartGroup.Use, "mixer", "lever mixer tap", 0.04, 0.06, Passage.Mixer, IceBreaks.Yes, 10, (100, 80, 280), 1.1,
            [At("cold", 30, 40, 0, Facing.Down, 0.009, PortRole.Cold), At("hot", 70, 40, 0, Facing.Down, 0.009, PortRole.Hot),
            At("spout", 50, 0, 250, Facing.KerbSide, 0.009, PortRole.Spout)], positions: Tap, landmark: true),
        Of(PartGroup.Use, "shower-mixer", "shower mixer", 0.08, 0.12, Passage.Mixer, IceBreaks.Yes, 10, (180, 70, 60), 0.9,
            [At("cold", 15, 70, 25, Facing.FarSide, Half, PortRole.Cold), At("hot", 165, 70, 25, Facing.FarSide, Half, PortRole.Hot),
            At("spout", 90, 35, 0, Facing.Down, Half, PortRole.Spout)], positions: Tap, landmark: true),
        Of(PartGroup.Use, "shower-hose", "shower hose 1.5 m and head", 0.09, 0.15, Passage.Through, IceBreaks.No, 5, (60, 60, 1500), 0.4,
            [At("in", 30, 30, 1480, Facing.Up, Half, PortRole.Inlet), At("out", 30, 30, 0, Facing.Down, Half, PortRole.Outlet)],
            keeps: "Lay it down in the tray, head lowest", look: PartLook.Cylinder),
        Of(PartGroup.Use, "outdoor-shower", "outdoor shower box", 0.08, 0.20, Passage.Mixer, IceBreaks.Yes, 10, (220, 110, 160), 1.3,
            [At("cold", 60, 0, 60, Facing.KerbSide, Half, PortRole.Cold), At("hot", 160, 0, 60, Facing.KerbSide, Half, PortRole.Hot),
            At("spout", 110, 110, 30, Facing.FarSide, Half, PortRole.Spout)], outdoors: 0.5, positions: Tap, landmark: true),
        Of(PartGroup.Use, "toilet-valve", "toilet valve", 0.03, 0.05, Passage.Mixer, IceBreaks.Yes, 8, (60, 60, 60), 0.15,
            [At("cold", 0, 30, 30, Facing.Rear, 0.009, PortRole.Cold), At("spout", 60, 30, 20, Facing.Forward, 0.009, PortRole.Spout)], positions: Tap),
        Of(PartGroup.Heat, "storage-heater", "storage heater 10 L", 10, 0.6, Passage.Vessel, IceBreaks.WhenFull, 6, (280, 260, 300), 7,
            [At("cold", 0, 90, 15, Facing.Rear, Half, PortRole.Cold), At("hot", 0, 170, 270, Facing.Rear, Half, PortRole.Hot),
            At("drain", 140, 0, 0, Facing.KerbSide, Half, PortRole.Drain)]),
        Of(PartGroup.Heat, "gas-heater", "instantaneous gas heater", 0.6, 0.5, Passage.Through, IceBreaks.Yes, 8, (300, 180, 430), 8,
            [At("in", 80, 90, 0, Facing.Down, Half, PortRole.Cold), At("out", 220, 90, 0, Facing.Down, Half, PortRole.Hot)],
            keeps: "Open its two drain screws"),
        Of(PartGroup.Heat, "plate-exchanger", "plate exchanger", 0.15, 0.2, Passage.Through, IceBreaks.Yes, 10, (80, 60, 200), 1.5,
            [At("in", 20, 0, 170, Facing.KerbSide, Half, PortRole.Cold), At("out", 60, 0, 20, Facing.KerbSide, Half, PortRole.Hot)]),
        Of(PartGroup.Heat, "calorifier", "calorifier 20 L", 20, 0.9, Passage.Vessel, IceBreaks.WhenFull, 6, (500, 320, 320), 12,
            [At("cold", 0, 110, 15, Facing.Rear, Half, PortRole.Cold), At("hot", 0, 210, 295, Facing.Rear, Half, PortRole.Hot),
            At("drain", 250, 0, 0, Facing.KerbSide, Half, PortRole.Drain)], look: PartLook.Cylinder),
        Of(PartGroup.Heat, "mixing-valve", "thermostatic mixing valve", 0.03, 0.06, Passage.Through, IceBreaks.Yes, 10, (90, 40, 80), 0.4,
            [At("cold", 0, 20, 30, Facing.Rear, Half, PortRole.Cold), At("hot", 90, 20, 30, Facing.Forward, Half, PortRole.Hot),
            At("mixed", 45, 20, 0, Facing.Down, Half, PortRole.Outlet)]),
        Of(PartGroup.Waste, "trap", "water trap", 0.3, 0.2, Passage.Through, IceBreaks.Yes, null, (160, 60, 140), 0.3,
            [At("in", 20, 30, 140, Facing.Up, Waste, PortRole.Waste), At("out", 160, 30, 70, Facing.Forward, Waste, PortRole.Waste)],
            keeps: "Pour in about a litre of propylene glycol antifreeze for drinking-water systems", protects: true),
        Of(PartGroup.Waste, "waterless-trap", "waterless trap", 0.02, 0.1, Passage.OneWay, IceBreaks.No, null, (40, 40, 140), 0.2,
            [At("in", 20, 20, 140, Facing.Up, Waste, PortRole.Waste), At("out", 20, 20, 0, Facing.Down, Waste, PortRole.Waste)]),
        Of(PartGroup.Drain, "frost-valve", "frost valve", 0.02, 0.05, Passage.Drain, IceBreaks.No, 6, (60, 60, 90), 0.3,
        [At("in", 0, 30, 60, Facing.Rear, Half, PortRole.Inlet)], look: PartLook.Drain, positions: Tap),
        Of(PartGroup.Drain, "drain-cock", "drain cock", 0.01, 0.05, Passage.Drain, IceBreaks.Yes, 10, (40, 40, 40), 0.15,
        [At("in", 0, 20, 10, Facing.Rear, Half, PortRole.Inlet)], look: PartLook.Drain, positions: Tap, landmark: true),
        Of(PartGroup.Joints, "tee", "tee", 0.005, 0.02, Passage.Through, IceBreaks.Yes, 10, (80, 40, 40), 0.05,
            [At("a", 0, 20, 14, Facing.Rear, Half, PortRole.Inlet), At("b", 80, 20, 14, Facing.Forward, Half, PortRole.Outlet),
            At("c", 40, 40, 14, Facing.FarSide, Half, PortRole.Outlet)], look: PartLook.Joint),
        Of(PartGroup.Vent, "open-end", "open end", 0, 0, Passage.OpenEnd, IceBreaks.No, null, (40, 40, 40), 0,
        [At("end", 20, 20, 20, Facing.Down, Half, PortRole.Outlet)], look: PartLook.OpenEnd),
        Of(PartGroup.Waste, "basin", "sink or basin", 0, 0, Passage.OpenEnd, IceBreaks.No, null, (360, 340, 140), 2.5,
        [At("waste", 180, 170, 0, Facing.Down, Waste, PortRole.Waste)], look: PartLook.Bowl),
        Of(PartGroup.Drain, "air-port", "blow-out port", 0.005, 0.02, Passage.Drain, IceBreaks.Yes, 10, (40, 40, 40), 0.1,
        [At("in", 0, 20, 14, Facing.Rear, Half, PortRole.Inlet)], look: PartLook.Joint,
        positions: [new(Positions.Open, "cap off", true), new(Positions.Closed, "capped", false)]),

        // Store.
        Tank(PartGroup.Store, "tall-tank", "upright water tank", 350, 350, 700, 4.5, 1,
            At("outlet", 350, 175, 0, Facing.Forward, Half, PortRole.Outlet), At("fill", 0, 300, 640, Facing.Rear, Wide, PortRole.Fill),
            At("vent", 0, 50, 690, Facing.Rear, Vent, PortRole.Vent), At("drain", 175, 0, 0, Facing.KerbSide, Half, PortRole.Drain)),
        Of(PartGroup.Store, "arch-tank", "wheel-arch tank", 62, 0, Passage.Vessel, IceBreaks.WhenFull, null, (1100, 320, 380), 6,
            [At("outlet", 0, 160, 0, Facing.Rear, Half, PortRole.Outlet), At("fill", 1100, 160, 320, Facing.Forward, Wide, PortRole.Fill),
            At("vent", 1100, 60, 360, Facing.Forward, Vent, PortRole.Vent), At("drain", 1100, 260, 0, Facing.Forward, Half, PortRole.Drain)]),
        Of(PartGroup.Store, "l-tank", "L-shaped tank", 70, 0, Passage.Vessel, IceBreaks.WhenFull, null, (700, 600, 300), 6,
            [At("outlet", 700, 300, 0, Facing.Forward, Half, PortRole.Outlet), At("fill", 0, 550, 250, Facing.Rear, Wide, PortRole.Fill),
            At("vent", 0, 50, 290, Facing.Rear, Vent, PortRole.Vent), At("link", 350, 0, 0, Facing.KerbSide, Wide, PortRole.Outlet)]),
        Tank(PartGroup.Store, "twin-tank", "one of twin tanks", 400, 500, 250, 3.5, 1,
            At("link", 400, 250, 0, Facing.Forward, Wide, PortRole.Outlet), At("outlet", 200, 500, 0, Facing.FarSide, Half, PortRole.Outlet),
            At("fill", 0, 450, 200, Facing.Rear, Wide, PortRole.Fill), At("vent", 0, 50, 240, Facing.Rear, Vent, PortRole.Vent)),
        Tank(PartGroup.Store, "can", "water can on its shelf", 240, 160, 400, 1.2, 1, At("outlet", 240, 80, 0, Facing.Forward, Half, PortRole.Outlet),
        At("vent", 120, 80, 390, Facing.Up, Vent, PortRole.Vent)),
        Of(PartGroup.Store, "dip-tube", "dip tube with its cap", 0.03, 0.02, Passage.Through, IceBreaks.No, null, (50, 50, 300), 0.2,
        [At("in", 25, 25, 0, Facing.Down, Half, PortRole.Inlet), At("out", 25, 25, 300, Facing.Up, Half, PortRole.Outlet)], look: PartLook.Cylinder),
        Of(PartGroup.Store, "level-sender", "level sender", 0.005, 0.02, Passage.DeadEnd, IceBreaks.No, null, (50, 50, 250), 0.2,
        [At("in", 25, 25, 0, Facing.Down, Half, PortRole.Inlet)], look: PartLook.Cylinder),
        Of(PartGroup.Store, "hand-hole", "hand hole with its lid", 0, 0.02, Passage.DeadEnd, IceBreaks.No, null, (160, 160, 40), 0.3,
        [At("in", 80, 80, 0, Facing.Down, Wide, PortRole.Inlet)], look: PartLook.Cylinder),

        // Fill.
        Of(PartGroup.Fill, "fill-spout", "fill spout with its cap", 0, 0, Passage.OpenEnd, IceBreaks.No, null, (80, 80, 80), 0.3,
            [At("end", 40, 40, 40, Facing.Down, Wide, PortRole.Fill)], look: PartLook.OpenEnd, landmark: true),
        Of(PartGroup.Fill, "town-inlet", "town water inlet with non-return", 0.03, 0.06, Passage.OneWay, IceBreaks.Yes, 8, (90, 90, 60), 0.4,
        InOut(90, 45, 30), landmark: true),
        Of(PartGroup.Fill, "town-coupling", "plain hose coupling for town water", 0.02, 0.05, Passage.Through, IceBreaks.Yes, 8, (90, 90, 60), 0.3,
        InOut(90, 45, 30)),
        Of(PartGroup.Fill, "pressure-regulator", "pressure regulator", 0.03, 0.05, Passage.Through, IceBreaks.Yes, 12, (90, 50, 90), 0.5, InOut(90, 25, 25)),
        Of(PartGroup.Fill, "fill-filter", "filter on the fill hose", 0.25, 0.15, Passage.Through, IceBreaks.Yes, 6, (250, 60, 60), 0.4, InOut(250, 30, 20),
        keeps: "Take it off the hose and shake it out", look: PartLook.Cylinder),
        Of(PartGroup.Fill, "overflow-end", "visible overflow", 0, 0, Passage.OpenEnd, IceBreaks.No, null, (40, 40, 40), 0.1,
        [At("end", 20, 20, 20, Facing.Up, Vent, PortRole.Outlet)], look: PartLook.OpenEnd),

        // Move.
        Of(PartGroup.Move, "foot-pump", "foot pump", 0.05, 0.08, Passage.OneWay, IceBreaks.Yes, 3, (150, 90, 120), 0.6, InOut(150, 45, 40)),
        Of(PartGroup.Move, "submersible-pump", "submersible pump", 0.05, 0.05, Passage.Pump, IceBreaks.Yes, 2, (45, 45, 150), 0.3,
        [At("in", 22, 22, 0, Facing.Down, Half, PortRole.Inlet), At("out", 22, 22, 150, Facing.Up, Half, PortRole.Outlet)], positions: Motor,
        look: PartLook.Cylinder),
        Of(PartGroup.Move, "return-pump", "return pump of a hot loop", 0.06, 0.1, Passage.Pump, IceBreaks.Yes, 10, (130, 90, 90), 0.9, InOut(130, 45, 30),
        positions: Motor, look: PartLook.Cylinder),
        Of(PartGroup.Move, "expansion-vessel", "expansion vessel 2 L", 1, 0.3, Passage.DeadEnd, IceBreaks.Yes, 8, (150, 150, 230), 1.1,
        [At("port", 75, 75, 0, Facing.Down, Half, PortRole.Inlet)], look: PartLook.Cylinder),

        // Clean.
        Of(PartGroup.Clean, "drinking-filter", "filter for a drinking tap", 0.35, 0.2, Passage.Through, IceBreaks.Yes, 8, (70, 70, 260), 0.6,
            InOut(70, 35, 225), keeps: "Unscrew its cartridge and take it home", look: PartLook.Cylinder),

        // Heat.
        Of(PartGroup.Heat, "relief-valve", "relief valve", 0.01, 0.03, Passage.Drain, IceBreaks.Yes, 10, (50, 40, 60), 0.2,
            [At("in", 0, 20, 20, Facing.Rear, Half, PortRole.Inlet), At("out", 50, 20, 20, Facing.Forward, Half, PortRole.Drain)], look: PartLook.Drain,
            positions: Tap),
        Of(PartGroup.Heat, "coolant-heater", "coolant heater 5 kW", 0.4, 0.4, Passage.Through, IceBreaks.No, 2.5, (220, 110, 180), 3,
            [At("in", 0, 40, 60, Facing.Rear, 0.018, PortRole.Coolant), At("out", 0, 80, 120, Facing.Rear, 0.018, PortRole.Coolant)], landmark: true,
            positions: [Motor[1], Motor[0]]),
        Of(PartGroup.Heat, "pumped-coolant-heater", "coolant heater 5 kW, own pump", 0.45, 0.45, Passage.Through, IceBreaks.No, 2.5, (250, 120, 180),
            3.7, [At("in", 0, 40, 60, Facing.Rear, 0.018, PortRole.Coolant), At("out", 0, 90, 120, Facing.Rear, 0.018, PortRole.Coolant)], landmark: true,
            positions: [Motor[1], Motor[0]]),
        Of(PartGroup.Heat, "engine", "engine, at its coolant ports", 6, 0.4, Passage.Through, IceBreaks.No, 2, (400, 300, 300), 5,
            [At("in", 0, 80, 60, Facing.Rear, 0.018, PortRole.Coolant), At("out", 0, 220, 240, Facing.Rear, 0.018, PortRole.Coolant)], landmark: true,
            positions: [new(Positions.Off, "parked", false), new(Positions.On, "running", true)]),
        Of(PartGroup.Heat, "loop-element", "electric element in the loop", 0.3, 0.3, Passage.Through, IceBreaks.No, 2.5, (200, 70, 70), 1.2,
            InOut(200, 35, 35), look: PartLook.Cylinder, positions: [Motor[1], Motor[0]]),
        Of(PartGroup.Heat, "circulator", "coolant circulator", 0.08, 0.1, Passage.Through, IceBreaks.No, 2.5, (130, 80, 80), 0.6, InOut(130, 40, 30),
        look: PartLook.Cylinder, positions: [Motor[1], Motor[0]]),
        Of(PartGroup.Heat, "radiator", "radiator with fan", 0.6, 0.5, Passage.Through, IceBreaks.No, 2.5, (300, 120, 200), 2.2,
            [At("in", 0, 30, 30, Facing.Rear, 0.018, PortRole.Coolant), At("out", 0, 90, 170, Facing.Rear, 0.018, PortRole.Coolant)]),
        Of(PartGroup.Heat, "panel-radiator", "panel radiator", 0.8, 0.5, Passage.Through, IceBreaks.No, 3, (500, 70, 300), 4,
            [At("in", 0, 35, 30, Facing.Rear, 0.0123, PortRole.Coolant), At("out", 0, 35, 270, Facing.Rear, 0.0123, PortRole.Coolant)]),
        Of(PartGroup.Heat, "towel-ladder", "towel ladder", 0.5, 0.3, Passage.Through, IceBreaks.No, 3, (400, 60, 600), 3,
            [At("in", 0, 30, 20, Facing.Down, 0.0123, PortRole.Coolant), At("out", 400, 30, 20, Facing.Down, 0.0123, PortRole.Coolant)]),
        Of(PartGroup.Heat, "header-tank", "coolant header tank", 1.5, 0.3, Passage.Through, IceBreaks.No, 1.5, (150, 110, 200), 0.5,
            [At("in", 0, 55, 20, Facing.Rear, 0.018, PortRole.Coolant), At("out", 150, 55, 20, Facing.Forward, 0.018, PortRole.Coolant)]),
        Of(PartGroup.Heat, "coil-calorifier", "calorifier 20 L with coil", 20, 0.9, Passage.Vessel, IceBreaks.WhenFull, 6, (500, 320, 320), 13,
            [At("cold", 0, 110, 15, Facing.Rear, Half, PortRole.Cold), At("hot", 0, 210, 295, Facing.Rear, Half, PortRole.Hot),
            At("drain", 250, 0, 0, Facing.KerbSide, Half, PortRole.Drain)], look: PartLook.Cylinder),

        Of(PartGroup.Heat, "coolant-coil", "coolant coil in a tank or calorifier", 0.5, 0.3, Passage.Through, IceBreaks.No, 3, (300, 260, 60), 1.2,
            [At("in", 0, 60, 20, Facing.Rear, 0.018, PortRole.Coolant), At("out", 0, 200, 40, Facing.Rear, 0.018, PortRole.Coolant)]),
        Of(PartGroup.Heat, "exchanger-side", "coolant side of a plate exchanger", 0.15, 0.1, Passage.Through, IceBreaks.No, 3, (60, 40, 180), 0.4,
            [At("in", 0, 20, 165, Facing.Rear, 0.0123, PortRole.Coolant), At("out", 0, 20, 15, Facing.Rear, 0.0123, PortRole.Coolant)]),

        // Use.
        Of(PartGroup.Use, "cold-tap", "cold tap", 0.02, 0.04, Passage.Mixer, IceBreaks.Yes, 10, (60, 80, 220), 0.6,
            [At("cold", 30, 40, 0, Facing.Down, 0.009, PortRole.Cold), At("spout", 30, 0, 200, Facing.KerbSide, 0.009, PortRole.Spout)], positions: Tap),
        Of(PartGroup.Use, "drinking-tap", "drinking tap", 0.02, 0.03, Passage.Mixer, IceBreaks.Yes, 10, (50, 80, 240), 0.5,
        [At("cold", 25, 40, 0, Facing.Down, 0.006, PortRole.Cold), At("spout", 25, 0, 220, Facing.KerbSide, 0.006, PortRole.Spout)], positions: Tap),
        Of(PartGroup.Use, "pet-wash", "pet wash point", 0.06, 0.15, Passage.Mixer, IceBreaks.Yes, 10, (200, 100, 150), 1.1,
            [At("cold", 50, 0, 60, Facing.KerbSide, Half, PortRole.Cold), At("hot", 150, 0, 60, Facing.KerbSide, Half, PortRole.Hot),
            At("spout", 100, 100, 30, Facing.FarSide, Half, PortRole.Spout)], outdoors: 0.5, positions: Tap),
        Of(PartGroup.Use, "toilet", "toilet with its valve", 0.4, 0.15, Passage.Mixer, IceBreaks.Yes, 8, (450, 380, 420), 9,
        [At("cold", 0, 60, 120, Facing.Rear, 0.009, PortRole.Cold), At("spout", 225, 190, 300, Facing.Up, 0.009, PortRole.Spout)],
        keeps: "Leave the valve pressed, and sponge its bowl out", positions: Tap, landmark: true),
        Of(PartGroup.Use, "washing-machine", "washing machine", 1.5, 0.6, Passage.Mixer, IceBreaks.Yes, 10, (500, 450, 700), 35,
            [At("cold", 0, 60, 600, Facing.Rear, Half, PortRole.Cold), At("spout", 250, 225, 80, Facing.Down, Half, PortRole.Spout)],
            keeps: "Run its pump, then empty its filter into a tray", positions: Tap, landmark: true),
        Of(PartGroup.Use, "dishwasher", "dishwasher", 1.0, 0.5, Passage.Mixer, IceBreaks.Yes, 10, (450, 450, 450), 20,
            [At("cold", 0, 60, 100, Facing.Rear, Half, PortRole.Cold), At("spout", 225, 225, 60, Facing.Down, Half, PortRole.Spout)],
            keeps: "Run its pump, then sponge its sump out", positions: Tap, landmark: true),

        // Waste.
        Of(PartGroup.Waste, "shower-tray", "shower tray", 0, 0, Passage.OpenEnd, IceBreaks.No, null, (700, 700, 80), 5,
            [At("waste", 350, 350, 0, Facing.Down, Waste, PortRole.Waste)], look: PartLook.Bowl, landmark: true),
        Tank(PartGroup.Waste, "wheeled-grey-tank", "wheeled grey tank, outside", 600, 350, 250, 4, 0.5,
        At("inlet", 0, 175, 230, Facing.Rear, Waste, PortRole.Waste), At("vent", 600, 175, 240, Facing.Forward, Vent, PortRole.Vent)),
        Tank(PartGroup.Waste, "bucket", "bucket under the waste", 280, 280, 280, 0.7, 0.5, At("inlet", 140, 140, 270, Facing.Up, Waste, PortRole.Waste),
        At("vent", 260, 140, 275, Facing.Up, Vent, PortRole.Vent)),
        Of(PartGroup.Waste, "dump-valve", "grey dump valve", 0.05, 0.05, Passage.Drain, IceBreaks.Yes, null, (80, 80, 90), 0.4,
        [At("in", 0, 40, 30, Facing.Rear, Wide, PortRole.Waste)], look: PartLook.Drain, positions: Tap, landmark: true),

        // Vent.
        Of(PartGroup.Vent, "vent-cap", "vent with insect mesh", 0, 0, Passage.OpenEnd, IceBreaks.No, null, (40, 40, 40), 0.05,
            [At("end", 20, 20, 20, Facing.Down, Vent, PortRole.Vent)], look: PartLook.OpenEnd),
        Of(PartGroup.Vent, "bleed", "bleed screw", 0.005, 0.02, Passage.Drain, IceBreaks.Yes, 6, (30, 30, 40), 0.05,
        [At("in", 15, 15, 0, Facing.Down, Vent, PortRole.Outlet)], look: PartLook.Drain, positions: Tap),

        // Valves.
        Of(PartGroup.Valves, "angle-valve", "angle valve", 0.01, 0.04, Passage.Valve, IceBreaks.Yes, 10, (70, 50, 60), 0.2,
            [At("a", 0, 25, 20, Facing.Rear, Half, PortRole.Inlet), At("b", 35, 25, 60, Facing.Up, Half, PortRole.Outlet)], positions: Ball),
        Of(PartGroup.Valves, "ball-valve-22", "ball valve 22 mm", 0.02, 0.07, Passage.Valve, IceBreaks.Yes, 10, (120, 50, 60), 0.35, Ends(120, 25, 20),
        positions: Ball),
        MotorValve("motor-valve", "motor valve, stays without power", null),
        MotorValve("motor-valve-shuts", "motor valve, shuts without power", Positions.Closed),
        MotorValve("motor-valve-opens", "motor valve, opens without power", Positions.Open),

        // Joints.
        Of(PartGroup.Joints, "manifold-3", "manifold, three ways", 0.03, 0.06, Passage.Through, IceBreaks.Yes, 10, (180, 50, 50), 0.4,
            [At("in", 0, 25, 18, Facing.Rear, Half, PortRole.Inlet), At("out-1", 45, 50, 18, Facing.FarSide, Half, PortRole.Outlet),
            At("out-2", 90, 50, 18, Facing.FarSide, Half, PortRole.Outlet), At("out-3", 135, 50, 18, Facing.FarSide, Half, PortRole.Outlet)]),
        Of(PartGroup.Joints, "manifold-5", "manifold, five ways", 0.05, 0.1, Passage.Through, IceBreaks.Yes, 10, (280, 50, 50), 0.6,
            [At("in", 0, 25, 18, Facing.Rear, Half, PortRole.Inlet), .. Enumerable.Range(1, 5)
            .Select(n => At($"out-{n}", 50 * n - 10, 50, 18, Facing.FarSide, Half, PortRole.Outlet))]),
        Of(PartGroup.Joints, "elbow", "elbow", 0.005, 0.02, Passage.Through, IceBreaks.Yes, 10, (50, 50, 40), 0.04,
        [At("a", 0, 20, 14, Facing.Rear, Half, PortRole.Inlet), At("b", 20, 50, 14, Facing.FarSide, Half, PortRole.Outlet)], look: PartLook.Joint),
        Of(PartGroup.Joints, "coupling", "straight joint", 0.005, 0.02, Passage.Through, IceBreaks.Yes, 10, (60, 40, 40), 0.03, Ends(60, 20, 14),
        look: PartLook.Joint),
        Of(PartGroup.Joints, "reducer", "reducer", 0.005, 0.02, Passage.Through, IceBreaks.Yes, 10, (60, 40, 40), 0.04,
        [At("a", 0, 20, 14, Facing.Rear, 0.0173, PortRole.Inlet), At("b", 60, 20, 14, Facing.Forward, Half, PortRole.Outlet)], look: PartLook.Joint),
        Of(PartGroup.Joints, "hose-tail", "hose tail with clip", 0.005, 0.02, Passage.Through, IceBreaks.Yes, 10, (60, 30, 30), 0.05, Ends(60, 15, 10),
        look: PartLook.Joint),
        Of(PartGroup.Joints, "end-cap", "end cap", 0.002, 0.01, Passage.DeadEnd, IceBreaks.Yes, 10, (30, 30, 30), 0.03,
        [At("in", 0, 15, 8, Facing.Rear, Half, PortRole.Inlet)], look: PartLook.Joint),
    ];

    private static StockPart Tank(PartGroup group, string id, string name, double x, double y, double z, double kg, double usual, params StockPort[] ports) =>
        Of(group, id, name, 0, 0, Passage.Vessel, IceBreaks.WhenFull, null, (x, y, z), kg, ports, usual: usual);

    private static StockPart Of(
        PartGroup group, string id, string name, double holdsL, double lossWPerK, Passage passage, IceBreaks ice, double? bar,
        (double X, double Y, double Z) mm, double kg, IReadOnlyList<StockPort> ports,
        string? keeps = null, bool protects = false, double outdoors = 0, double usual = 1, PartLook look = PartLook.Body, bool landmark = false,
        IReadOnlyList<StockPosition>? positions = null, string? unpowered = null) =>
        new(id, name, group, holdsL, lossWPerK, passage, keeps is not null, keeps, protects, ice, bar, outdoors, usual, look, landmark, Mm(mm.X, mm.Y, mm.Z),
            ports, kg, positions ?? [], Catalogue.Estimate, Cautions.Of(id, group, passage), FlowShelf.Of(id), HeatShelf.Of(id), unpowered);

    private static StockPart MotorValve(string id, string name, string? unpowered) => Of(PartGroup.Valves, id, name, 0.02, 0.07, Passage.Valve, IceBreaks.Yes,
        10, (120, 60, 110), 0.5, Ends(120, 30, 20), positions: Tap, unpowered: unpowered);

    private static StockPort[] InOut(double length, double y, double z) =>
        [At("in", 0, y, z, Facing.Rear, Half, PortRole.Inlet), At("out", length, y, z, Facing.Forward, Half, PortRole.Outlet)];

    private static StockPort[] Ends(double length, double y, double z) =>
        [At("a", 0, y, z, Facing.Rear, Half, PortRole.Inlet), At("b", length, y, z, Facing.Forward, Half, PortRole.Outlet)];

    private static StockPort At(string id, double x, double y, double z, Facing facing, double boreM, PortRole role) =>
        new(id, Mm(x, y, z), facing, boreM, role);

    private static Point3 Mm(double x, double y, double z) => new(x / 1000, y / 1000, z / 1000);
}
