using WarmConduit.Core.Geometry;

namespace WarmConduit.Core.Rigs;

/// <summary>Rigs of the sizes that matter.</summary>
internal static class SizedRigs
{
    /// <summary>A rig over and over, copied along the vehicle to both sides: the demo rig 12 times has 420 runs, the size to work at.</summary>
    public static Rig Times(Rig one, int copies)
    {
        string Of(string id, int n) => n == 0 ? id : $"{id}-{n}";
        // 0, 1, -1, 2, -2 ...
        Point3 Moved(Point3 p, int n) => p with { XM = p.XM + 3.6 * ((n + 1) / 2) * (n % 2 == 0 ? -1 : 1) };
        RunEnd End(RunEnd e, int n) => new(Of(e.Part!, n), e.Port);
        return (one with
        {
            Id = $"{one.Id}-times-{copies}",
            Name = $"{one.Name} times {copies}",
            Parts = [.. Enumerable.Range(0, copies).SelectMany(n => one.Parts.Select(p =>
            p with { Id = Of(p.Id, n), Box = p.Box with { At = Moved(p.Box.At, n) } }))],
            Runs = [.. Enumerable.Range(0, copies).SelectMany(n => one.Runs.Select(r =>
            r with { Id = Of(r.Id, n), From = End(r.From, n), To = End(r.To, n), Bends = [.. r.Bends.Select(b => b with { At = Moved(b.At, n) })] }))],
            Scenarios = [.. one.Scenarios.Select(s => s with { Settings =
            [.. Enumerable.Range(0, copies).SelectMany(n => s.Settings.Select(o => o with { Id = Of(o.Id, n) }))] })],
            ByHand = [.. Enumerable.Range(0, copies).SelectMany(n => one.ByHand.Select(h => h with { Id = Of(h.Id, n) }))],
        }).InOrder();
    }

    /// <summary>As large as one may be, in the shell of another: 1,000 runs with 20 bends each in one long line, up and down, over 1,000 parts.</summary>
    public static Rig Largest(Rig one)
    {
        var parts = new List<Part>();
        var runs = new List<Run>();
        for (int i = 0; i < RigCheck.MaxParts; i++)
        {
            double x = -20 + 0.04 * i;
            Port[] ports = [new("a", default), new("b", new Point3(0.005, 0, 0))];
            parts.Add(new Part($"part-{i:0000}", $"joint {i}", i == RigCheck.MaxParts - 1 ? "drain-cock" : i % 5 == 0 ? "filter" : "tee",
                new Box(new Point3(x, 1, 0.5), new(0.01, 0.01, 0.01)), ports));
        }
        for (int i = 0; i + 1 < RigCheck.MaxParts; i++)
        {
            var from = parts[i].PortAt("b")!.Value;
            runs.Add(new Run($"run-{i:0000}", $"length {i}", Service.Cold, "pex-1/2", new RunEnd(parts[i].Id, "b"), new RunEnd(parts[i + 1].Id, "a"),
                [.. Enumerable.Range(0, 20).Select(k => new Bend($"b{k:00}", from + new Point3(0.0015 * (k + 1), 0, k % 2 == 0 ? -0.03 : 0.02)))]));
        }
        return (one with
        {
            Id = "largest",
            Name = "Largest",
            Parts = parts,
            Runs = runs,
            ByHand = [],
            Scenarios = [.. one.Scenarios.Select(s => s with { Settings = [] })]
        }).InOrder();
    }
}
