using System.Text.Json.Nodes;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Rigs.Words;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Fixes;

/// <summary>Puts parts into lines and onto ports: the edits that do it, under ids that are free.</summary>
internal sealed class Fitter(Question question)
{
    /// <summary>A straight length that takes a valve and the hands around it, m.</summary>
    public const double StraightM = 0.14;

    // A tee takes 40 mm on either side of its middle; it may stand at the very part.
    private const double ShortestM = 0.04;

    private Rig Rig => question.Rig;

    /// <summary>A part by itself and the line that leads to it from a port.</summary>
    public IEnumerable<Edit> OnPort(Part part, string port, string stock, string name, string line, Service service, string pipe, Point3 inlet,
        params Point3[] by)
    {
        var end = Catalogue.Part(stock)!.Ports.First(p => p.Id is "in" or "end");
        string id = Free(name);
        return
        [
            new PlacePart(id, stock, $"{part.Name}, {name}", Turning.Micro(inlet - end.Offset)),
            Line(id, $"{part.Name}, {line}", service, pipe, new RunEnd(part.Id, port), new RunEnd(id, end.Id),
            [.. by.Select((at, n) => new Bend($"b{n + 1}", Turning.Micro(at)))]),
        ];
    }

    /// <summary>A line under an id that is free.</summary>
    public InsertFragment Line(string stem, string name, Service service, string pipe, RunEnd from, RunEnd to, IReadOnlyList<Bend>? bends = null) =>
        new("its line", [], [new Run(Free($"{stem}-line"), name, service, pipe, from, to, bends ?? [])]);

    /// <summary>A tee in the place of point number <paramref name="at"/>, and a part beside it, higher or lower by <paramref name="upM"/>; null: there is no
    /// room for it.</summary>
    public Idea? Branch(Run run, int at, string stock, string name, double upM, Sentence words)
    {
        var edits = new List<Edit>();
        var course = question.Index.CourseOf(run);
        Point3 place;
        string? after;
        if (at > 0 && at < course.Length - 1)
        {
            edits.Add(new RouteRun(run.Id, [.. run.Bends.Where((_, i) => i != at - 1)]));
            (place, after) = (course[at], at >= 2 ? run.Bends[at - 2].Id : null);
        }
        else
        {
            int next = at == 0 ? 1 : course.Length - 2;
            double length = course[at].DistanceM(course[next]);
            if (length < ShortestM) return null;
            (place, after) = (course[at].Towards(course[next], Math.Min(0.06, length / 2) / length), at == 0 ? null : run.Bends.Count > 0
                ? run.Bends[^1].Id : null);
        }
        string stem = Free(name);
        edits.Add(new PutTee(run.Id, after, place, $"{stem}-tee", $"{run.Name}, tee", Free($"{run.Id}-on")));
        Rig teed;
        try
        {
            teed = Editor.Apply(Rig, edits).Rig;
        }
        catch (RigFileException)
        {
            return null;
        }
        var tee = teed.Parts.Find($"{stem}-tee")!;
        var (branch, middle) = (tee.PortAt("c")!.Value, tee.Box.Centre());
        var inlet = branch + (branch - middle with { ZM = branch.ZM }) + new Point3(0, 0, upM);
        edits.Add(new PlacePart(stem, stock, $"{run.Name}, " +
            $"{name}", Turning.Micro(inlet - Catalogue.Part(stock)!.Ports.First(p => p.Id is "in" or "end").Offset)));
        edits.Add(Line(stem, $"{run.Name}, line of the {name}", run.Service, run.Pipe, new RunEnd($"{stem}-tee", "c"), new RunEnd(stem, "in")));
        return new Idea(words, edits);
    }

    /// <summary>An id that no part and no run has, since they share them; or none of those that are <paramref name="taken"/>.</summary>
    public string Free(string stem, IEnumerable<string>? taken = null)
    {
        var used = (taken ?? Rig.Parts.Select(p => p.Id).Concat(Rig.Runs.Select(r => r.Id))).ToHashSet();
        if (stem.Length > 40) stem = stem[..40].TrimEnd('-');
        for (int n = 1; ; n++)
        {
            string id = n == 1 ? stem : $"{stem}-{n}";
            if (!used.Contains(id) && !used.Contains($"{id}-tee")) return id;
        }
    }

    /// <summary>A part in the longest straight length of a run, the rest of the run behind it.</summary>
    public IReadOnlyList<Edit> Inline(Run run, string stock, string stem, string name, string inlet, string outlet)
    {
        var course = question.Index.CourseOf(run);
        int longest = LongestLeg(run).At;
        var (a, b) = (course[longest], course[longest + 1]);
        string id = Free(stem);
        var way = Turning.AlongWay(b - a);
        var placed = Turning.FromStock(Catalogue.Part(stock)!, id, name, default, way);
        var middle = placed.PortAt(inlet)!.Value.Towards(placed.PortAt(outlet)!.Value, 0.5);
        var at = Turning.Micro(a.Towards(b, 0.5) - middle);
        var onward = run with
        {
            Name = Names.Next(Rig, run.Name),
            Id = Free($"{run.Id}-on"),
            From = new RunEnd(id, outlet),
            Bends = [.. run.Bends.Skip(longest)],
            Insulation = run.SleeveOn(longest)
        };
        return
        [
            new PlacePart(id, stock, name, at, way),
            new InsertFragment("its line", [], [onward]),
            new RouteRun(run.Id, [.. run.Bends.Take(longest)]),
            new ChangeThing($"runs/{run.Id}", new JsonObject { ["to"] = new JsonObject { ["part"] = id, ["port"] = inlet } }),
        ];
    }

    /// <summary>The longest straight length of a run: the point that it begins at, and its length, m.</summary>
    public (int At, double LengthM) LongestLeg(Run run)
    {
        var course = question.Index.CourseOf(run);
        int at = Enumerable.Range(0, course.Length - 1).MaxBy(k => course[k].DistanceM(course[k + 1]));
        return (at, course[at].DistanceM(course[at + 1]));
    }
}
