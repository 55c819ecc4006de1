using System.Text.Json.Nodes;
using CsCheck;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Rigs.Starting;

namespace WarmConduit.Core.Tests.Rigs.Edits;

/// <summary>Random edits on whatever rig there is; most can be done, some cannot.</summary>
internal static class EditGen
{
    private static readonly Gen<Point3> Place = Gen.Select(Gen.Double[-3, 3], Gen.Double[-1, 2], Gen.Double[-0.5, 2], (x, y, z) =>
        new Point3(Math.Round(x, 4) + 0.0, Math.Round(y, 4) + 0.0, Math.Round(z, 4) + 0.0));
    private static readonly Gen<string> NewId = Gen.Int[0, 1_000_000].Select(n => $"n{n}");

    /// <summary>One edit on <paramref name="rig"/>.</summary>
    public static Gen<Edit> On(Rig rig)
    {
        var part = Gen.Int[0, Math.Max(0, rig.Parts.Count - 1)].Select(i => rig.Parts.Count == 0 ? "none" : rig.Parts[i].Id);
        var run = Gen.Int[0, Math.Max(0, rig.Runs.Count - 1)].Select(i => rig.Runs.Count == 0 ? null : rig.Runs[i]);
        var zone = Gen.Int[0, Math.Max(0, rig.Shell.Zones.Count - 1)].Select(i => rig.Shell.Zones.Count == 0 ? "none" : rig.Shell.Zones[i].Id);
        var scenario = Gen.Int[0, rig.Scenarios.Count - 1].Select(i => rig.Scenarios[i].Id);
        var bend = Gen.Select(run, Gen.Int[0, 5], (r, i) => (Run: r?.Id ?? "none", Bend: r is { Bends.Count: > 0 } ? r.Bends[i % r.Bends.Count].Id : null));
        var stock = Gen.OneOfConst([.. Catalogue.Parts.Select(p => p.Id)]);
        var end = Gen.Select(part, Gen.Int[0, 9], Place, (p, k, at) => rig.Parts.Find(p) is { } q && k > 1 ? new RunEnd(p, q.Ports[k % q.Ports.Count].Id)
            : new RunEnd(At: at));
        return Gen.OneOf<Edit>(
            Gen.Select(NewId, stock, Place, Gen.Int[0, 3], Gen.Bool, (id, s, at, q, m) => (Edit)new PlacePart(id, s, $"new {id}", at, new Orientation(q, m))),
            Gen.Select(NewId, Gen.OneOfConst([.. PartSets.All.Select(s => s.Id)]), Place, (id, set, at) => (Edit)new PlaceSet(set, id, at)),
            Gen.Select(part, bend, Place, Gen.Int[0, 2], (p, b, by, k) =>
            (Edit)new MoveThings(k == 0 || b.Bend is null ? [$"parts/{p}"] : k == 1 ? [$"runs/{b.Run}/bends/{b.Bend}"]
            : [$"parts/{p}", $"runs/{b.Run}/bends/{b.Bend}"], new Point3(by.XM / 10, by.YM / 10, by.ZM / 10))),
            Gen.Select(part, Gen.Int[-3, 5], (p, q) => (Edit)new TurnPart(p, q)),
            Gen.Select(part, Gen.Enum<Axis>(), (p, a) => (Edit)new MirrorPart(p, a)),
            Gen.Select(part, Place, (p, s) => (Edit)new ResizePart(p, new Point3(Math.Abs(s.XM) / 3, Math.Abs(s.YM) / 2, Math.Abs(s.ZM) / 2))),
            Gen.Select(part, NewId, Place, (p, id, by) => (Edit)new CopyPart(p, id, $"copy {id}", new Point3(by.XM / 10, 0, 0))),
            Gen.Select(part, Gen.Double[0, 30], Gen.Int[0, 4], (p, x, k) => (Edit)new ChangeThing($"parts/{p}", k switch
            {
                0 => new JsonObject { ["name"] = $"name {x:F2}" },
                1 => new JsonObject { ["holdsL"] = Math.Round(x, 3) },
                2 => new JsonObject { ["holdsL"] = null },
                3 => new JsonObject { ["lossWPerK"] = Math.Round(x, 3), ["massKg"] = 2 },
                _ => new JsonObject { ["stock"] = "tee" },
            })),
            Gen.Select(run, Gen.OneOfConst("pex-1/2", "copper-15", "epdm-5/8"), end, Gen.Int[0, 3], (r, p, e, k) =>
            (Edit)new ChangeThing($"runs/{r?.Id ?? "none"}", k switch
            {
                0 => new JsonObject { ["pipe"] = p },
                1 => new JsonObject { ["insulation"] = new JsonObject { ["material"] = "xps", ["thicknessM"] = 0.013 } },
                2 => new JsonObject { ["insulation"] = null, ["service"] = "coolant" },
                _ => new JsonObject { ["to"] = RigDiff.Node(e) },
            })),
            Gen.Select(run, run, run, Gen.Int[0, 2], (r, a, b, n) => (Edit)new ChangeThing($"runs/{r?.Id ?? "none"}", new JsonObject
            {
                ["service"] = "coolant",
                ["traces"] = n == 0 ? null : RigDiff.Node(new[] { a, b }.OfType<Run>().Take(n).Select(t => new Trace(t.Id, (TraceKind)n))),
            })),
            Gen.Select(zone, Gen.Double[0, 5], (z, n) => (Edit)new ChangeThing($"shell/zones/{z}",
            new JsonObject { ["airChangesPerHour"] = Math.Round(n, 2) })),
            Gen.Int[1, 9].Select(n => (Edit)new ChangeThing("brief", new JsonObject { ["people"] = n })),
            part.Select(p => (Edit)new RemoveThing($"parts/{p}")),
            run.Select(r => (Edit)new RemoveThing($"runs/{r?.Id ?? "none"}")),
            zone.Select(z => (Edit)new RemoveThing($"shell/zones/{z}")),
            zone.Select(z => (Edit)new DrawFaces(z.Length % 2 == 0 ? [] : [z])),
            bend.Select(b => (Edit)new RemoveThing($"runs/{b.Run}/bends/{b.Bend ?? "none"}")),
            Gen.Select(NewId, end, end, (id, from, to) => (Edit)new AddThing("runs",
            (JsonObject)RigDiff.Node(new Run(id, $"run {id}", Service.Cold, "pex-1/2", from, to, []))!)),
            Gen.Select(NewId, Place, (id, at) => (Edit)new AddThing("shell/keepOuts",
            (JsonObject)RigDiff.Node(new KeepOut(id, id, KeepOutKind.Electrics, new Box(at, new Point3(0.2, 0.2, 0.2))))!)),
            Gen.Select(zone, zone, NewId, (a, b, id) => (Edit)new AddThing($"shell/zones/{a}/openings",
            (JsonObject)RigDiff.Node(new Opening(id, b, 0.01, 0.2))!)),
            Gen.Select(bend, NewId, Place, Gen.Bool, (b, id, at, first) => (Edit)new InsertBend(b.Run, new Bend(id, at), first ? null : b.Bend)),
            Gen.Select(bend, NewId, Place, (b, id, at) => (Edit)new PutTee(b.Run, b.Bend, at, id, $"tee {id}", $"{id}-on")),
            Gen.Select(run, NewId, Place, (r, id, at) => (Edit)new RouteRun(r?.Id ?? "none", [new Bend(id, at), new Bend($"{id}-b", at)])),
            Gen.Select(bend, part, Gen.Enum<Grading>(), Gen.Bool, (b, p, how, alone) => (Edit)new GradeThings(
            alone ? [$"runs/{b.Run}"] : [$"runs/{b.Run}/from", $"runs/{b.Run}/bends/{b.Bend ?? "none"}", $"parts/{p}"], how)),
            Gen.Select(scenario, part, Gen.OneOfConst("open", "closed", "half-open", "on", null), (s, p, o) => (Edit)new SetPosition(s, p, o)),
            Gen.Select(NewId, Place, (id, at) => (Edit)new InsertFragment("pair",
            [new Part($"{id}-a", "a", "tee", new Box(at, new(0.1, 0.1, 0.1)), [new Port("x", default)]),
            new Part($"{id}-b", "b", "tee", new Box(at, new(0.1, 0.1, 0.1)), [new Port("x", default)])],
            [new Run($"{id}-r", "r", Service.Hot, "pex-1/2", new RunEnd($"{id}-a", "x"), new RunEnd($"{id}-b", "x"), [])])));
    }
}
