namespace WarmConduit.Core.Rigs;

/// <summary>What a price is for.</summary>
public enum PriceUnit
{
    /// <summary>A piece: parts.</summary>
    Each,

    /// <summary>A metre: pipes, and solids as sleeves.</summary>
    Metre,

    /// <summary>A square metre of 20 mm: solids as boards; other thicknesses in proportion.</summary>
    SquareMetre,

    /// <summary>A litre: antifreeze.</summary>
    Litre,
}

/// <summary>What a thing of the catalogue costs the builder, in whatever money they count.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Of">Catalogue id of a part, pipe or solid, or one of <see cref="Others"/>.</param>
/// <param name="Amount">0 to a million.</param>
/// <param name="Unit">What it is for; left out: a piece of a part, a metre of a pipe or solid.</param>
public sealed record Price(string Id, string Of, double Amount, PriceUnit? Unit = null) : IIdentified
{
    /// <summary>Thickness of a board that is priced by the square metre, m.</summary>
    public const double BoardM = 0.02;

    /// <summary>A heating pad, an electric frost heater, and a louvre in a partition.</summary>
    public const string Pad = "heating-pad", FrostHeater = "frost-heater", Louvre = "louvre";

    /// <summary>Aluminium tape over a trace, and antifreeze for drinking-water systems.</summary>
    public const string Tape = "aluminium-tape", Antifreeze = "propylene-glycol";

    /// <summary>What is priced and stands in no catalogue, and by what.</summary>
    public static IReadOnlyDictionary<string, PriceUnit> Others { get; } = new Dictionary<string, PriceUnit>
    {
        [Pad] = PriceUnit.Each,
        [FrostHeater] = PriceUnit.Each,
        [Louvre] = PriceUnit.Each,
        [Tape] = PriceUnit.Metre,
        [Antifreeze] = PriceUnit.Litre,
    };
}

/// <summary>Prices as they are asked for.</summary>
public static class Prices
{
    /// <summary>What a part costs; null: no price is known.</summary>
    public static double? OfPart(this IReadOnlyList<Price> prices, string stock) => prices.FirstOrDefault(p => p.Of == stock)?.Amount;

    /// <summary>What a metre of a pipe or sleeve costs; null likewise.</summary>
    public static double? OfMetre(this IReadOnlyList<Price> prices, string of) =>
        prices.FirstOrDefault(p => p.Of == of && p.Unit is not PriceUnit.SquareMetre)?.Amount;

    /// <summary>What a litre costs; null likewise.</summary>
    public static double? OfLitre(this IReadOnlyList<Price> prices, string of) => prices.FirstOrDefault(p => p.Of == of && p.Unit is PriceUnit.Litre)?.Amount;

    /// <summary>What a square metre of a board of <paramref name="thicknessM"/> costs; null likewise.</summary>
    public static double? OfBoard(this IReadOnlyList<Price> prices, string solid, double thicknessM) =>
        prices.FirstOrDefault(p => p.Of == solid && p.Unit is PriceUnit.SquareMetre)?.Amount * thicknessM / Price.BoardM;
}

/// <summary>
/// A whole water system: the one document that is edited, saved as a revision and written to a file. Immutable. An unfinished drawing is one too:
/// loose ends, ports without pipe and an empty vehicle are valid.
/// </summary>
/// <param name="FormatVersion">Version of the document format; this code writes <see cref="CurrentFormat"/> and reads every version up to it.</param>
/// <param name="Id">Stable id: lower-case letters, digits and hyphens.</param>
/// <param name="Name">Its name.</param>
/// <param name="Note">What to know about it.</param>
/// <param name="Brief">Requirements.</param>
/// <param name="Shell">The body and its zones.</param>
/// <param name="Parts">Tanks, pumps, taps and all else that runs join.</param>
/// <param name="Runs">Pipes and hoses.</param>
/// <param name="Scenarios">The positions of valves, taps and pumps for each thing the system does.</param>
/// <param name="ByHand">What is done by hand on leaving; every study assumes it done.</param>
/// <param name="Prices">Prices that the builder has typed; empty until then.</param>
/// <param name="Plans">Planned nights and weeks, at most 50; left out: none.</param>
/// <param name="Left">What was done to its water system since it was last full; left out: nothing is known.</param>
/// <param name="OwnSteps">The builder's own steps, and what goes home; left out: none.</param>
public sealed record Rig(
    int FormatVersion,
    string Id,
    string Name,
    string Note,
    Brief Brief,
    Shell Shell,
    IReadOnlyList<Part> Parts,
    IReadOnlyList<Run> Runs,
    IReadOnlyList<Scenario> Scenarios,
    IReadOnlyList<HandTask> ByHand,
    IReadOnlyList<Price> Prices,
    IReadOnlyList<NightPlan>? Plans = null,
    IReadOnlyList<LeftAct>? Left = null,
    IReadOnlyList<OwnStep>? OwnSteps = null)
{
    /// <summary>The format version that is written.</summary>
    public const int CurrentFormat = 2;

    /// <summary>The scenario of this kind that comes first; an empty one where the rig has none.</summary>
    public Scenario ScenarioOf(ScenarioKind kind) =>
        Scenarios.FirstOrDefault(s => s.Kind == kind) ?? Rigs.Scenarios.Standard.First(s => s.Kind == kind);

    /// <summary>The same rig with every list in order of id, as it is always kept. Bends keep the order of flow.</summary>
    public Rig InOrder() => this with
    {
        Parts = [.. Parts.Select(p => p with { Ports = p.Ports.InOrder() }).InOrder()],
        Runs = [.. Runs.Select(r => r.InOrder()).InOrder()],
        Scenarios = [.. Scenarios.Select(s => s with { Settings = s.Settings.InOrder() }).InOrder()],
        ByHand = ByHand.InOrder(),
        Prices = Prices.InOrder(),
        Plans = Plans is { Count: > 0 } ? [.. Plans.Select(p => p with { Events = p.Events.InOrder() }).InOrder()] : null,
        Left = Left is { Count: > 0 } ? Left.InOrder() : null,
        OwnSteps = OwnSteps is { Count: > 0 } ? OwnSteps.InOrder() : null,
        Shell = Shell with
        {
            Obstacles = Shell.Obstacles.InOrder(),
            Zones = [.. Shell.Zones.Select(z => z with { Faces = z.Faces.InOrder(), Openings = z.Openings.InOrder() }).InOrder()],
            KeepOuts = Shell.KeepOuts.InOrder(),
            Access = Shell.Access.InOrder(),
            Photos = Shell.Photos is { Count: > 0 } photos ? photos.InOrder() : null,
        },
    };
}

/// <summary>Lists of things by id.</summary>
public static class ById
{
    /// <summary>In ordinal order of id.</summary>
    public static IReadOnlyList<T> InOrder<T>(this IEnumerable<T> things)
        where T : IIdentified => [.. things.OrderBy(t => t.Id, StringComparer.Ordinal)];

    /// <summary>The thing with this id, or null. O(log n) in a list in order, O(n) in any other.</summary>
    public static T? Find<T>(this IReadOnlyList<T> things, string id)
        where T : class, IIdentified
    {
        int low = 0, high = things.Count - 1;
        while (low <= high)
        {
            int mid = (low + high) / 2, order = string.CompareOrdinal(things[mid].Id, id);
            if (order == 0) return things[mid];
            if (order < 0) low = mid + 1;
            else high = mid - 1;
        }
        // A document that is being read, or a test's, may not be in order yet.
        foreach (var thing in things)
            if (thing.Id == id)
                return thing;
        return null;
    }

    /// <summary>How large it is: points of runs, and parts.</summary>
    public static int PointCount(this Rig rig) => rig.Parts.Count + rig.Runs.Sum(r => r.Bends.Count + 2);

    /// <summary>Whether there is a thing at <paramref name="path"/>: <c>runs/main</c>, <c>runs/main/bends/b2</c>, <c>runs/main/to</c>, <c>parts/tee</c>,
    /// <c>parts/tee.a</c>, <c>zones/bay</c>.</summary>
    public static bool Has(this Rig rig, string path) => path.Split('/') switch
    {
        ["zones", var id] => rig.Shell.Zones.Find(id) is not null,
        ["runs", var id] => rig.Runs.Find(id) is not null,
        ["runs", var id, "from" or "to"] => rig.Runs.Find(id) is not null,
        ["runs", var id, "bends", var bend] => rig.Runs.Find(id)?.Bends.Any(b => b.Id == bend) == true,
        ["parts", var id] => rig.Parts.Find(id) is not null || (id.Split('.') is [var part, var port] && rig.Parts.Find(part)?.PortAt(port) is not null),
        _ => false,
    };
}
