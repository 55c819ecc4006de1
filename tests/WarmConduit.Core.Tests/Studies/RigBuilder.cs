using WarmConduit.Core.Advice;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Heat.Night;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Standing;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>A rig in three lines, for tests. One heated room around everything unless zones are given.</summary>
internal sealed class RigBuilder
{
    private readonly List<Part> _parts = [];
    private readonly List<Run> _runs = [];
    private readonly List<Zone> _zones = [];
    private readonly List<Setting> _drained = [];
    private readonly List<HandTask> _byHand = [];

    public Brief Brief { get; set; } = new(2, 3, 10, -10, 3, 2, WayOfLiving.Weekends, FreezeSchool.Drain, 0.02);

    /// <summary>What a zone that is alone loses to outdoors, W/K.</summary>
    public static double LossWPerK(Zone zone, Conditions night) => ZoneBalance.OutdoorWPerK(zone, zone.Box.VolumeM3(), night.Steady());

    /// <summary>What a contact lets through from water of 5 °C to air of 0 °C, W/K.</summary>
    public static double At5WPerK(NightContact contact, double windMPerS = 0)
    {
        double share = 0.5;
        return contact.ConductanceWPerK + (contact.Films ?? []).Sum(f => f.Size * f.Film.WPerK(5, 0, windMPerS, ref share));
    }

    public static Box Cube(double x, double y, double z, double size) => new(new(x, y, z), new(size, size, size));

    public RigBuilder Part(string id, string stock, params (string Port, double X, double Y, double Z)[] ports) =>
        Part(id, stock, "open", ports);

    public RigBuilder Part(string id, string stock, string drained, params (string Port, double X, double Y, double Z)[] ports)
    {
        var (_, x, y, z) = ports[0];
        var box = Cube(x, y, z, 0.05);
        _parts.Add(new Part(id, id, stock, box, [.. ports.Select(p => new Port(p.Port, new Point3(p.X, p.Y, p.Z) - box.At))]));
        if (Catalogue.Part(stock)!.Positions.Any(p => p.Id == drained)) _drained.Add(new Setting(id, drained));
        return this;
    }

    public RigBuilder Tank(string id, Box box, params (string Port, double X, double Y, double Z)[] ports)
    {
        _parts.Add(new Part(id, id, "tank", box, [.. ports.Select(p => new Port(p.Port, new Point3(p.X, p.Y, p.Z) - box.At))]));
        return this;
    }

    public RigBuilder Run(string id, string from, string to, params Point3[] via) => Run(id, Service.Cold, "pex-1/2", from, to, via);

    public RigBuilder Run(string id, Service service, string pipe, string from, string to, params Point3[] via)
    {
        static RunEnd End(string text) => new(text.Split('.')[0], text.Split('.')[1]);
        // Drawn anew, it takes the place of the one before.
        _runs.RemoveAll(r => r.Id == id);
        _runs.Add(new Run(id, id, service, pipe, End(from), End(to), [.. via.Select((v, i) => new Bend($"b{i + 1}", v))]));
        return this;
    }

    /// <summary>A run whose second end is loose.</summary>
    public RigBuilder Loose(string id, string from, Point3 to)
    {
        _runs.Add(new Run(id, id, Service.Cold, "pex-1/2", new RunEnd(from.Split('.')[0], from.Split('.')[1]), new RunEnd(At: to), []));
        return this;
    }

    public RigBuilder ByHand(string part)
    {
        _byHand.Add(new HandTask(part, "Empty it"));
        return this;
    }

    public RigBuilder Insulate(string run, double thicknessM, string material = "elastomer")
    {
        int i = _runs.FindIndex(r => r.Id == run);
        _runs[i] = _runs[i] with { Insulation = new Sleeve(material, thicknessM) };
        return this;
    }

    public RigBuilder Zone(string id, ZoneKind kind, Box box, double wallM2 = 10, ZoneHeater? heater = null, string? towards = null, Opening? opening = null)
    {
        Face face = new("walls", "walls", FaceSide.Wall, wallM2, [new("xps", 0.03)], 0, [], towards);
        _zones.Add(new Zone(id, id, kind, box, 0.5, [face], opening is null ? [] : [opening], heater, HeatCapacityJPerK: 1000));
        return this;
    }

    public Rig Build()
    {
        if (_zones.Count == 0) Zone("room", ZoneKind.Living, Cube(-5, -5, -5, 15), heater: new ZoneHeater(2000, 15));
        var rig = new Rig(Rig.CurrentFormat, "test", "Test", "", Brief, new Shell(Cube(0, 0, 0, 4), [], _zones, [], []), _parts, _runs, Scenarios.Standard,
            _byHand, []).With(_drained).InOrder();
        Assert.Empty(RigCheck.Check(rig));
        return rig;
    }

    public static double BoreL(double metres, string pipe = "pex-1/2") => Catalogue.Pipe(pipe)!.BoreM2() * metres * 1000;
}

/// <summary>Questions as tests ask them.</summary>
internal static class Asking
{
    public static Rig With(this Rig rig, IEnumerable<Setting> drained) => rig with
    {
        Scenarios = [.. rig.Scenarios.Select(s => s.Kind == ScenarioKind.Drain
            ? s with { Settings = [.. s.Settings.Where(o => drained.All(n => n.Id != o.Id)), .. drained] } : s)],
    };

    /// <summary>The same with one part changed.</summary>
    public static Rig With(Rig rig, string part, Func<Part, Part> change) =>
        rig with { Parts = [.. rig.Parts.Select(p => p.Id == part ? change(p) : p)] };

    public static Rig Left(this Rig rig, string part, string position) => rig.With([new Setting(part, position)]).InOrder();

    public static DrainDownAnswer Drained(this Rig rig, Attitude? parked = null) =>
        new Question(rig, Conditions.Of(rig.Brief) with { Parked = parked ?? Attitude.Level }).Ask(DrainDownStudy.Ask);

    /// <summary>What gravity leaves below crests and what parts keep by design: without air, shut balls and film.</summary>
    public static double BelowCrestsL(this DrainDownAnswer answer) => answer.Stays.PoolsL
        + answer.Parts.Where(p => p.Cause is StayCause.Crest or StayCause.Design).Sum(p => p.RetainedL);

    public static FreezeLadderAnswer Ladder(this Rig rig, Conditions night) => new Question(rig, night).Ask(FreezeLadderStudy.Ask);

    public static StandingAnswer Standing(this Rig rig) => new Question(rig, Conditions.Of(rig.Brief)).Ask(StandingStudy.Ask);

    public static IReadOnlyList<Finding> Findings(this Rig rig, Conditions night) => new Question(rig, night).Ask(Adviser.Ask).Findings;

    /// <summary>The runs that the water of a run passes on its way out, itself first.</summary>
    public static IEnumerable<string> Route(this DrainDownAnswer answer, string run)
    {
        for (string? at = run; at is not null; at = answer.Runs.Single(r => r.RunId == at).LeadsTo) yield return at;
    }
}
