using System.Text.Json;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs.Edits;

namespace WarmConduit.Core.Rigs.Starting;

/// <summary>A water system to begin with.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">In words.</param>
/// <param name="Words">What it has, and what it is good for.</param>
/// <param name="Living">The use of the vehicle that it is for.</param>
/// <param name="School">Its freeze school.</param>
/// <param name="Bodies">Bodies it fits.</param>
public sealed record Starter(string Id, string Name, string Words, WayOfLiving Living, FreezeSchool School, IReadOnlyList<string> Bodies);

/// <summary>What a new rig starts from.</summary>
/// <param name="Name">Its name, 1 to 80 characters.</param>
/// <param name="LengthM">Inside length, m.</param>
/// <param name="WidthM">Inside width, m.</param>
/// <param name="HeightM">Inside height, m.</param>
/// <param name="Living">Way of living.</param>
/// <param name="School">Freeze school.</param>
/// <param name="Body">Id of a body; left out: nothing but the box, from one's own tape.</param>
/// <param name="Starter">Id of a starter; left out: no plumbing yet.</param>
public sealed record NewRig(
    string Name, double LengthM, double WidthM, double HeightM, WayOfLiving Living, FreezeSchool School, string? Body = null, string? Starter = null);

/// <summary>Makes new rigs.</summary>
public static class Start
{
    private static readonly BodyMeasure AnyLength = new(3, 0.5, 20), AnyAcross = new(1.8, 0.5, 4);

    // The vehicle that the starters' plumbing was drawn in: its kitchen, and its width.
    private const double DrawnKitchenX = 2, DrawnWidth = 1.7, LeastKitchenX = 1.64;

    private static readonly string[] Plumbed = ["short-van", "long-van", "box-body", "coach", "trailer"];
    private static readonly Lazy<Plumbing> Drawn =
        new(() => JsonSerializer.Deserialize<Plumbing>(typeof(Start).Assembly.GetManifestResourceStream("plumbing.json")!, RigFile.Json)!);

    /// <summary>Water systems to begin with.</summary>
    public static IReadOnlyList<Starter> Starters { get; } =
    [
        new("weekend-drain", "Weekends, drains itself",
        "Tank and pump at the rear, storage heater and sink in the kitchen, every line falling to two drains; a grey tank under the floor.",
        WayOfLiving.Weekends, FreezeSchool.Drain, Plumbed),
        new("lived-in", "Lived in, kept warm", "The same lines with the heat on all winter: what matters is how long they last if it fails.",
        WayOfLiving.LivedIn, FreezeSchool.Heat, Plumbed),
        new("laid-up", "Laid up, blown out", "The same lines with a capped air port behind the pump, to be blown out once in autumn.", WayOfLiving.LaidUp,
        FreezeSchool.Air, Plumbed),
    ];

    /// <summary>The rig that <paramref name="ask"/> describes. Throws <see cref="RigFileException"/> at its fields.</summary>
    public static Rig Make(NewRig ask)
    {
        var faults = new List<RigFault>();
        void Refuse(string field, string reason) => faults.Add(new RigFault(field, reason));
        var kind = ask.Body is null ? null : Bodies.All.FirstOrDefault(b => b.Id == ask.Body);
        var starter = ask.Starter is null ? null : Starters.FirstOrDefault(s => s.Id == ask.Starter);
        if (string.IsNullOrWhiteSpace(ask.Name) || ask.Name.Length > 80) Refuse("name", "a name has 1 to 80 characters");
        if (ask.Body is not null && kind is null) Refuse("body", $"there is no body '{ask.Body}'; there are {string.Join(", ", Bodies.All.Select(b => b.Id))}");
        if (ask.Starter is not null && starter is null)
            Refuse("starter", $"there is no starter '{ask.Starter}'; there are {string.Join(", ", Starters.Select(s => s.Id))}");
        else if (starter is not null && (kind is null || !starter.Bodies.Contains(kind.Id))) Refuse("starter", "it does not fit this body");
        void Range(string field, double value, BodyMeasure m)
        {
            if (!(value >= m.Least && value <= m.Most)) Refuse(field, FormattableString.Invariant($"it must lie between {m.Least} and {m.Most} m"));
        }
        if (starter is not null && kind is not null && starter.Bodies.Contains(kind.Id)
            && !Fits(Bodies.KitchenOf(kind, ask.LengthM, ask.WidthM, ask.HeightM), ask.LengthM))
            Refuse("starter", "this body is too short for it: its kitchen and its pump set would meet");
        Range("lengthM", ask.LengthM, kind?.Length ?? AnyLength);
        Range("widthM", ask.WidthM, kind?.Width ?? AnyAcross);
        Range("heightM", ask.HeightM, kind?.Height ?? AnyAcross);
        if (faults.Count > 0) throw new RigFileException(faults);

        var shell = kind is null
            ? new Shell(new Box(default, new Point3(ask.LengthM, ask.WidthM, ask.HeightM)), [], [], [], [])
            : Bodies.Make(kind, ask.LengthM, ask.WidthM, ask.HeightM, heated: ask.Living != WayOfLiving.LaidUp);
        var rig = new Rig(Rig.CurrentFormat, RigCheck.IdFrom(ask.Name, "rig"), ask.Name.Trim(), "", BriefOf(ask.Living, ask.School), shell, [], [],
            Scenarios.Standard, [], []);
        if (starter is not null) rig = Plumb(rig, kind!, starter);
        rig = rig.InOrder();
        RigCheck.Demand(rig);
        return rig;
    }

    private static bool Fits(Box kitchen, double length) => kitchen.At.XM >= LeastKitchenX && kitchen.Far().XM <= length + 0.1;

    private static Brief BriefOf(WayOfLiving living, FreezeSchool school) =>
        new(2, 3, 9, -9, 4, living switch { WayOfLiving.LivedIn => 8, WayOfLiving.Weekends => 104, _ => 24 * 120 }, living, school, 0.02);

    // The plumbing is stretched from the vehicle that it was drawn in: what stands at the rear stays there, the kitchen goes where this body's kitchen is, and
    // lines between get longer; the kitchen end rises with their length, so that they keep their fall.
    private static Rig Plumb(Rig rig, BodyKind kind, Starter starter)
    {
        var body = rig.Shell.Body.Size;
        var kitchen = Bodies.KitchenOf(kind, body.XM, body.YM, body.ZM);
        double dx = kitchen.At.XM - DrawnKitchenX, dy = body.YM - DrawnWidth, dz = 0.025 * Math.Max(0, dx);
        // The hot leg of the outdoor shower falls the other way, so that its rear end rises the more.
        Point3 Stretched(Point3 p, bool fallsForward)
        {
            double along = Math.Clamp((p.XM - 0.95) / 0.95, 0, 1), across = Math.Clamp((p.YM - 0.55) / 0.45, 0, 1);
            return new Point3(p.XM + dx * along, p.YM + dy * across, p.ZM + (p.ZM > 0 ? dz * (fallsForward ? 2 - along : along) : 0));
        }
        Box Moved(Part part) => part.Box with { At = part.Box.At + (Stretched(part.Box.Centre(), part.Id == "shower") - part.Box.Centre()) };
        var drawn = Drawn.Value;
        rig = rig with
        {
            Parts = [.. drawn.Parts.Select(p => p with { Box = Moved(p) })],
            Runs = [.. drawn.Runs.Select(r => r with { Bends = [.. r.Bends.Select(b => b with { At = Stretched(b.At, r.Id == "shower-hot") })] })],
            Scenarios = drawn.Scenarios,
            ByHand = drawn.ByHand,
        };
        if (starter.School != FreezeSchool.Air) return rig;
        var tee = new RigIndex(rig).CourseOf(rig.Runs.First(r => r.Id == "to-filter"));
        var at = tee[0].Towards(tee[1], 0.5);
        return Editor.Apply(rig,
        [
            new PutTee("to-filter", null, at, "tee-air", "air port tee", "from-air-tee"),
            new PlacePart("air-port", "air-port", "blow-out port", at + new Point3(0.03, 0.1, 0.04)),
            new InsertFragment("Air port", [], [new Run("air-leg", "air port " +
            "leg", Service.Cold, "pex-1/2", new RunEnd("tee-air", "c"), new RunEnd("air-port", "in"), [])]),
        ]).Rig;
    }

    private sealed record Plumbing(IReadOnlyList<Part> Parts, IReadOnlyList<Run> Runs, IReadOnlyList<Scenario> Scenarios, IReadOnlyList<HandTask> ByHand);
}
