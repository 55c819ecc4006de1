using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Rigs.Edits;

/// <summary>Giving heights.</summary>
internal static partial class EditRules
{
    private static (Rig, Func<Sentence>) Grade(Rig rig, GradeThings e)
    {
        var things = e.Things;
        if (things is [var only] && only.Split('/') is ["runs", var id])
            things = [$"{only}/from", .. RunOf(rig, id).Bends.Select(b => $"{only}/bends/{b.Id}"), $"{only}/to"];
        if (things.Count < 2) throw new EditException("things", "name two things or more, or one run");
        var index = new RigIndex(rig);
        var places = things.Select((thing, i) => PlaceOf(rig, index, thing)
            ?? throw new EditException($"things[{i}]", $"there is nothing at '{thing}' that has a height")).ToList();
        var heights = e.Grading == Grading.Level ? [.. places.Select(_ => places[0].ZM)] : Heights.Between(places);
        var set = new HashSet<string>();
        int moved = things.Count - (e.Grading == Grading.Even ? 1 : 0);
        for (int i = 1; i < moved; i++)
        {
            double up = heights[i] - places[i].ZM;
            if (Math.Abs(up) >= 1e-6 && MoverOf(rig, things[i]) is { } mover && set.Add(mover)) rig = Raised(rig, mover, up);
        }
        string first = EditWords.NameAt(rig, e.Things[0]);
        string what = e.Things.Count == 1 ? first : $"{first} and {e.Things.Count - 1} more";
        return (rig, () => e.Grading == Grading.Even ? $"Even fall of {what}" : $"One height for {what}");
    }

    private static Point3? PlaceOf(Rig rig, RigIndex index, string thing) => thing.Split('/') switch
    {
        ["parts", var id] => rig.Parts.Find(id)?.Box.At,
        ["parts", var id, "ports", var port] => rig.Parts.Find(id)?.PortAt(port),
        ["runs", var id, "bends", var bend] => rig.Runs.Find(id)?.Bends.FirstOrDefault(b => b.Id == bend)?.At,
        ["runs", var id, "from" or "to"] when rig.Runs.Find(id) is { } run => index.CourseOf(run)[thing.EndsWith("/to", StringComparison.Ordinal) ? ^1 : 0],
        _ => null,
    };

    // What has to be moved so that a thing gets another height; null where it is fixed.
    private static string? MoverOf(Rig rig, string thing)
    {
        bool IsVessel(string part) => Catalogue.Part(rig.Parts.Find(part)!.Stock)!.Passage == Passage.Vessel;
        switch (thing.Split('/'))
        {
            case ["parts", var id, "ports", _]:
                return IsVessel(id) ? thing : $"parts/{id}";
            case ["runs", var id, "from" or "to"]:
                var run = rig.Runs.Find(id)!;
                return (thing.EndsWith("/to", StringComparison.Ordinal) ? run.To : run.From).Part switch
                {
                    null => thing,
                    var part => IsVessel(part) ? null : $"parts/{part}",
                };
            default:
                return thing;
        }
    }

    private static Rig Raised(Rig rig, string thing, double up)
    {
        double To(double z) => Math.Round(z + up, 4) + 0.0;
        switch (thing.Split('/'))
        {
            case ["parts", var id]:
                var part = rig.Parts.Find(id)!;
                return rig with { Parts = RigNodes.Put(rig.Parts, part with { Box = part.Box with { At = part.Box.At with { ZM = To(part.Box.At.ZM) } } }) };
            case ["parts", var id, "ports", var port]:
                var tank = rig.Parts.Find(id)!;
                Port Put(Port p) => p with { Offset = p.Offset with { ZM = Math.Clamp(To(p.Offset.ZM), 0, tank.Box.Size.ZM) } };
                return rig with { Parts = RigNodes.Put(rig.Parts, tank with { Ports = [.. tank.Ports.Select(p => p.Id == port ? Put(p) : p)] }) };
            case ["runs", var id, "bends", var bend]:
                var run = rig.Runs.Find(id)!;
                int k = IndexOf(run, bend);
                var at = run.Bends[k].At;
                return rig with { Runs = RigNodes.Put(rig.Runs, run.With(k, run.Bends[k] with { At = at with { ZM = To(at.ZM) } })) };
            case ["runs", var id, var end]:
                var loose = rig.Runs.Find(id)!;
                RunEnd Risen(RunEnd was) => new(At: was.At!.Value with { ZM = To(was.At.Value.ZM) });
                var risen = end == "from" ? loose with { From = Risen(loose.From) } : loose with { To = Risen(loose.To) };
                return rig with { Runs = RigNodes.Put(rig.Runs, risen) };
            default:
                return rig;
        }
    }
}
