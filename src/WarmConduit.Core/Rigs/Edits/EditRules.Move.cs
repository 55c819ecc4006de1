using WarmConduit.Core.Geometry;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Rigs.Edits;

/// <summary>Moving things.</summary>
internal static partial class EditRules
{
    private static (Rig, Func<Sentence>) Move(Rig rig, MoveThings e)
    {
        if (e.Things.Count == 0) throw new EditException("things", "name what is moved");
        var by = e.By;
        Point3 Moved(Point3 p) => Turning.Micro(p + by);
        Box MovedBox(Box b) => b with { At = Moved(b.At) };
        var names = new List<string>();
        for (int i = 0; i < e.Things.Count; i++)
        {
            string thing = e.Things[i];
            var steps = thing.Split('/');
            EditException Nowhere() => new($"things[{i}]", $"there is nothing at '{thing}' that can be moved");
            switch (steps)
            {
                case ["parts", var id]:
                    rig = rig with
                    {
                        Parts = RigNodes.Put(rig.Parts, (rig.Parts.Find(id) ?? throw Nowhere()) is var p
                        ? p with { Box = MovedBox(p.Box) } : null!)
                    };
                    names.Add(rig.Parts.Find(id)!.Name);
                    break;
                case ["runs", var id, "bends", var bend]:
                    var run = rig.Runs.Find(id) ?? throw Nowhere();
                    int k = IndexOf(run, bend);
                    if (k < 0) throw Nowhere();
                    rig = rig with
                    {
                        Runs = RigNodes.Put(rig.Runs, run.With(k, run.Bends[k] with { At = Moved(run.Bends[k].At) }))
                    };
                    names.Add($"{run.Name}, bend {k + 1}");
                    break;
                case ["runs", var id, "from" or "to"]:
                    var loose = rig.Runs.Find(id) ?? throw Nowhere();
                    bool from = steps[2] == "from";
                    if ((from ? loose.From : loose.To).At is not { } place)
                        throw new EditException($"things[{i}]", "this end is joined to a part: move the part");
                    var end = new RunEnd(At: Moved(place));
                    rig = rig with { Runs = RigNodes.Put(rig.Runs, from ? loose with { From = end } : loose with { To = end }) };
                    names.Add($"{loose.Name}, loose end");
                    break;
                case ["shell", var list and ("zones" or "obstacles" or "keepOuts" or "access"), var id]:
                    var shell = rig.Shell;
                    rig = rig with
                    {
                        Shell = list switch
                        {
                            "zones" => shell with
                            {
                                Zones = RigNodes.Put(shell.Zones, (shell.Zones.Find(id) ?? throw Nowhere()) is var z
                                ? z with { Box = MovedBox(z.Box) } : null!)
                            },
                            "obstacles" => shell with
                            {
                                Obstacles = RigNodes.Put(shell.Obstacles, (shell.Obstacles.Find(id) ?? throw Nowhere()) is var o
                            ? o with { Box = MovedBox(o.Box) } : null!)
                            },
                            "keepOuts" => shell with
                            {
                                KeepOuts = RigNodes.Put(shell.KeepOuts, (shell.KeepOuts.Find(id) ?? throw Nowhere()) is var q
                            ? q with { Box = MovedBox(q.Box) } : null!)
                            },
                            _ => shell with
                            {
                                Access = RigNodes.Put(shell.Access, (shell.Access.Find(id) ?? throw Nowhere()) is var a
                            ? a with { Box = MovedBox(a.Box) } : null!)
                            },
                        },
                    };
                    names.Add(id);
                    break;
                default:
                    throw Nowhere();
            }
        }
        string what = names.Count == 1 ? names[0] : $"{names[0]} and {names.Count - 1} more";
        return (rig, () => EditWords.Moved(what, by));
    }
}
