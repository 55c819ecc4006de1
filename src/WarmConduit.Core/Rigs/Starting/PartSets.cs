using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs.Edits;

namespace WarmConduit.Core.Rigs.Starting;

/// <summary>Parts and runs placed together; ordinary parts afterwards.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">In words.</param>
/// <param name="Words">What is in it, and what it is for.</param>
/// <param name="Group">Its group in the catalogue.</param>
/// <param name="Size">The room it takes, m.</param>
public sealed record PartSet(string Id, string Name, string Words, PartGroup Group, Point3 Size)
{
    internal IReadOnlyList<SetPart> Parts { get; init; } = [];

    internal IReadOnlyList<SetRun> Runs { get; init; } = [];
}

internal sealed record SetPart(string Id, string Stock, string Name, Point3 At, int QuarterTurns = 0);

internal sealed record SetRun(string From, string To, Service Service = Service.Cold, string Pipe = "pex-1/2");

/// <summary>Sets of parts that go together.</summary>
public static class PartSets
{
    /// <summary>All of them.</summary>
    public static IReadOnlyList<PartSet> All { get; } =
    [
        Of("pump-set", "pump set", "Isolating valve, strainer, pump, accumulator on its tee, isolating valve: in flow order.",
        PartGroup.Move, (980, 260, 260),
            [
                new("valve-in", "ball-valve", "pump valve, tank side", Mm(0, 50, 35)),
                new("strainer", "strainer", "strainer", Mm(150, 30, -14)),
                new("pump", "pump", "pump", Mm(280, 0, 30)),
                new("tee", "tee", "accumulator tee", Mm(480, 50, 50)),
                new("accumulator", "accumulator", "accumulator", Mm(460, 130, 80)),
                new("valve-out", "ball-valve", "pump valve, lines' side", Mm(640, 50, 54)),
            ],
            [
                new("valve-in.b", "strainer.in"),
                new("strainer.out", "pump.in", Pipe: "pvc-hose-1/2"),
                new("pump.out", "tee.a", Pipe: "pvc-hose-1/2"),
                new("tee.c", "accumulator.port"),
                new("tee.b", "valve-out.a"),
            ]),
        Of("filter-bypass", "filter with three-valve bypass",
        "Two tees and three valves, so that the filter comes out for the winter and water goes around it.", PartGroup.Clean, (860, 180, 330),
            [
                new("tee-in", "tee", "bypass tee, in", Mm(0, 120, 255)),
                new("valve-in", "ball-valve", "filter valve, in", Mm(120, 120, 258)),
                new("filter", "filter", "filter", Mm(270, 60, 20)),
                new("valve-out", "ball-valve", "filter valve, out", Mm(460, 120, 265)),
                new("tee-out", "tee", "bypass tee, out", Mm(620, 120, 270)),
                new("valve-bypass", "ball-valve", "bypass valve", Mm(300, 210, 262)),
            ],
            [
                new("tee-in.b", "valve-in.a"),
                new("valve-in.b", "filter.in"),
                new("filter.out", "valve-out.a"),
                new("valve-out.b", "tee-out.a"),
                new("tee-in.c", "valve-bypass.a"),
                new("valve-bypass.b", "tee-out.c"),
            ]),
        Of("heater-bypass", "heater bypass", "Two tees and three valves between cold and hot, so that antifreeze bypasses the heater.", PartGroup.Heat,
        (420, 300, 60),
            [
                new("tee-cold", "tee", "bypass tee, cold", Mm(0, 40, 0)),
                new("valve-cold", "ball-valve", "heater valve, cold", Mm(130, 40, 3)),
                new("tee-hot", "tee", "bypass tee, hot", Mm(0, 240, 9)),
                new("valve-hot", "ball-valve", "heater valve, hot", Mm(130, 240, 12)),
                new("valve-bypass", "ball-valve", "heater bypass valve", Mm(20, 140, 5), 1),
            ],
            [
                new("tee-cold.b", "valve-cold.a"),
                new("valve-hot.a", "tee-hot.b", Service.Hot),
                new("tee-cold.c", "valve-bypass.a"),
                new("valve-bypass.b", "tee-hot.c", Service.Hot),
            ]),
        Of("hot-set", "hot set with mixing valve", "Non-return valve, storage heater with its relief valve and drain, thermostatic mixing valve: no tap " +
        "above 49 °C (120 °F).", PartGroup.Heat, (900, 420, 420),
            [
                new("check", "check-valve", "heater non-return valve", Mm(0, 70, 52)),
                new("tee-relief", "tee", "relief tee", Mm(130, 70, 55)),
                new("relief", "relief-valve", "relief valve", Mm(180, 150, 60)),
                new("heater", "storage-heater", "storage heater", Mm(270, 0, 60)),
                new("tee-mix", "tee", "mixing tee", Mm(60, 270, 52)),
                new("mix", "mixing-valve", "mixing valve", Mm(130, 330, 340)),
                new("drain", "drain-cock", "heater drain", Mm(400, -100, 20)),
            ],
            [
                new("check.out", "tee-relief.a"),
                new("tee-relief.c", "relief.in"),
                new("tee-relief.b", "heater.cold"),
                new("heater.hot", "mix.hot", Service.Hot),
                new("tee-mix.b", "mix.cold"),
                new("heater.drain", "drain.in", Service.Hot),
            ]),
        Of("sink-set", "kitchen sink with tap and trap", "Basin, lever mixer and waterless trap, to be joined to cold, hot and grey.", PartGroup.Use,
        (420, 420, 700),
            [
                new("sink", "basin", "sink", Mm(0, 0, 560)),
                new("mixer", "mixer", "kitchen mixer", Mm(120, 350, 700)),
                new("trap", "waterless-trap", "waterless trap", Mm(160, 150, 380)),
            ],
            [new("sink.waste", "trap.in", Service.Waste, "waste-28")]),
        Of("grey-set", "grey tank with dump valve and vent", "Grey tank, dump valve at its lowest end, vent to the outside.", PartGroup.Waste, (700, 500, 500),
            [
                new("tank", "grey-tank", "grey tank", Mm(150, 0, 60)),
                new("dump", "dump-valve", "grey dump valve", Mm(20, 185, 10), 2),
                new("vent", "vent-cap", "grey vent", Mm(640, 205, 480)),
            ],
            [
                new("tank.drain", "dump.in", Service.Waste, "waste-28"),
                new("tank.vent", "vent.end", Service.Vent, "vent-hose-10"),
            ]),
        Of("tank-set", "fresh tank with vent and fill", "Water tank, vent that rises all the way, fill spout above it.", PartGroup.Store, (700, 600, 500),
            [
                new("tank", "tank", "fresh tank", Mm(120, 0, 0)),
                new("vent", "vent-cap", "tank vent", Mm(20, 20, 440)),
                new("spout", "fill-spout", "fill spout", Mm(0, 500, 400)),
            ],
            [
                new("tank.vent", "vent.end", Service.Vent, "vent-hose-10"),
                new("spout.end", "tank.fill", Service.Fill, "fill-hose-40"),
            ]),
    ];

    /// <summary>The parts and runs of a set at a place; ids begin with <paramref name="stem"/>.</summary>
    internal static (IReadOnlyList<Part> Parts, IReadOnlyList<Run> Runs) At(PartSet set, string stem, Point3 at)
    {
        string Of(string id) => $"{stem}-{id}";
        RunEnd End(string port) => port.Split('.') is var p ? new RunEnd(Of(p[0]), p[1]) : null!;
        var names = set.Parts.ToDictionary(p => p.Id, p => p.Name);
        return (
            [.. set.Parts.Select(p => Turning.FromStock(Catalogue.Part(p.Stock)!, Of(p.Id), p.Name, Turning.Micro(at + p.At), p.QuarterTurns == 0 ? null
            : new Orientation(p.QuarterTurns)))],
            [.. set.Runs.Select((r, i) => new Run(Of($"run-{i + 1}"), $"{names[r.From.Split('.')[0]]} to " +
            $"{names[r.To.Split('.')[0]]}", r.Service, r.Pipe, End(r.From), End(r.To), []))]);
    }

    private static PartSet Of(string id, string name, string words, PartGroup group, (double X, double Y, double Z) mm, IReadOnlyList<SetPart> parts,
        IReadOnlyList<SetRun> runs) =>
        new(id, name, words, group, Mm(mm.X, mm.Y, mm.Z)) { Parts = parts, Runs = runs };

    private static Point3 Mm(double x, double y, double z) => new(x / 1000, y / 1000, z / 1000);
}
