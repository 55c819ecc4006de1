using WarmConduit.Core.Geometry;

namespace WarmConduit.Core.Rigs;

/// <summary>Collects what is wrong with the fields of a document, each by its path and with what is allowed.</summary>
internal sealed class FieldChecker
{
    private const int MaxFaults = 50;

    public List<RigFault> Faults { get; } = [];

    /// <summary>What <paramref name="check"/> finds; empty when all is well.</summary>
    public static IReadOnlyList<RigFault> Of(Action<FieldChecker> check)
    {
        var checker = new FieldChecker();
        check(checker);
        return checker.Faults;
    }

    public void Add(string path, string reason, bool essential = true)
    {
        if (Faults.Count < MaxFaults) Faults.Add(new RigFault(path, reason, essential));
    }

    public void Id(string path, string id)
    {
        if (!RigCheck.IsId(id)) Add(path, "an id is 1 to 60 lower-case letters, digits and hyphens");
    }

    public void Name(string path, string name)
    {
        if (string.IsNullOrWhiteSpace(name) || name.Length > 80) Add(path, "a name has 1 to 80 characters");
    }

    /// <summary>By the limit of that name; left out: that of the path. What is not said is within it.</summary>
    public void Range(string path, double? said, string? limit = null)
    {
        if (said is not { } value) return;
        var (least, most, unit) = FieldLimits.All[limit ?? path];
        Range(path, value, least, most, unit);
    }

    public void Range(string path, double value, double low, double high, string unit)
    {
        if (double.IsFinite(value) && value >= low && value <= high) return;
        string range = FormattableString.Invariant($"it must lie between {low} and {high} {unit}").TrimEnd();
        Add(path, double.IsFinite(value) ? range : "it is not a finite number; " + range);
    }

    public void Count(string path, int count, int low, int high)
    {
        if (count < low || count > high) Add(path, $"{count} entries, where {low} to {high} are allowed");
    }

    public void Place(string path, Point3 p)
    {
        Range($"{path}.xM", p.XM, "place.m");
        Range($"{path}.yM", p.YM, "place.m");
        Range($"{path}.zM", p.ZM, "place.m");
    }

    public void Box(string path, Box box)
    {
        Place($"{path}.at", box.At);
        Range($"{path}.size.xM", box.Size.XM, "edge.m");
        Range($"{path}.size.yM", box.Size.YM, "edge.m");
        Range($"{path}.size.zM", box.Size.ZM, "edge.m");
    }

    public void Known(string path, bool known, string value, string what)
    {
        if (!known) Add(path, $"there is no {what} '{value}' in the catalogue");
    }

    public void Towards(string path, string zone, string towards, HashSet<string> ids)
    {
        if (towards == zone) Add(path, "a zone cannot face itself");
        else if (!ids.Contains(towards)) Add(path, $"there is no zone '{towards}'");
    }

    public HashSet<string> Unique<T>(string path, IReadOnlyList<T> things)
        where T : IIdentified
    {
        var seen = new HashSet<string>();
        for (int i = 0; i < things.Count; i++)
        {
            string id = things[i].Id;
            if (!RigCheck.IsId(id)) Id($"{path}[{i}].id", id);
            if (!seen.Add(id)) Add($"{path}[{i}].id", $"the id '{id}' is used twice");
        }
        return seen;
    }
}
