using System.Collections.Concurrent;
using WarmConduit.Core.Geometry;

namespace WarmConduit.Core.Rigs;

/// <summary>A rig (checked before) laid out for looking things up by id. Build it once for each document; safe to share between threads.</summary>
public sealed class RigIndex
{
    private readonly Dictionary<string, Part> _parts;
    private readonly Dictionary<string, Run> _runs;
    private readonly ZonesBySize _zones;
    private readonly HashSet<string> _coolant;
    private readonly ConcurrentDictionary<Run, Point3[]> _courses;
    private readonly Func<Run, Point3[]> _laid;
    private readonly Lazy<HashSet<(string? Part, string? Port)>> _joined;

    /// <summary>Lays <paramref name="rig"/> out. O(parts + runs + zones).</summary>
    public RigIndex(Rig rig)
    {
        Rig = rig;
        _parts = rig.Parts.ToDictionary(p => p.Id);
        _runs = rig.Runs.ToDictionary(r => r.Id);
        static IEnumerable<string> Ends(Run r) => new[] { r.From.Part, r.To.Part }.OfType<string>();
        _coolant = [.. rig.Runs.Where(r => r.Service == Service.Coolant).SelectMany(Ends)];
        if (_coolant.Count > 0) _coolant.ExceptWith(rig.Runs.Where(r => r.Service != Service.Coolant).SelectMany(Ends));
        _joined = new(() => [.. rig.Runs.SelectMany(r => (RunEnd[])[r.From, r.To]).Select(e => (e.Part, e.Port))]);
        _zones = new ZonesBySize(rig.Shell.Zones);
        _courses = new(1, rig.Runs.Count, ReferenceEqualityComparer.Instance);
        _laid = run => [PlaceOf(run.From), .. run.Bends.Select(b => b.At), PlaceOf(run.To)];
    }

    /// <summary>The document.</summary>
    public Rig Rig { get; }

    /// <summary>The part with this id; throws when there is none.</summary>
    public Part Part(string id) => _parts[id];

    /// <summary>The run with this id; throws when there is none.</summary>
    public Run Run(string id) => _runs[id];

    /// <summary>Whether a run ends on this port.</summary>
    public bool IsJoined(string part, string port) => _joined.Value.Contains((part, port));

    /// <summary>Where an end of a run is: its port, or the place of a loose end.</summary>
    public Point3 PlaceOf(RunEnd end) => end.At ?? _parts[end.Part!].PortAt(end.Port!)!.Value;

    /// <summary>The whole course of <paramref name="run"/>: its ends and the bends between, in its own sense. At least two points; worked out once, and not to
    /// be written to.</summary>
    public Point3[] CourseOf(Run run) => _courses.GetOrAdd(run, _laid);

    /// <summary>Length of pipe in <paramref name="run"/>, m: its course and its slack.</summary>
    public double PipeLengthM(Run run)
    {
        var course = CourseOf(run);
        double sum = run.SlackM ?? 0;
        for (int i = 1; i < course.Length; i++) sum += course[i].DistanceM(course[i - 1]);
        return sum;
    }

    /// <summary>
    /// Whether a part holds heating fluid: all that is joined to it carries that. The fluid stays in its circuit and does not freeze, so it is no water that a
    /// rig is emptied of.
    /// </summary>
    public bool HoldsCoolant(Part part) => _coolant.Contains(part.Id);

    /// <summary>The zone that holds <paramref name="place"/> (the smallest one), or null for outdoors.</summary>
    public Zone? ZoneAt(Point3 place) => _zones.At(place);
}
