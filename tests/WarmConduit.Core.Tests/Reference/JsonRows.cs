using System.Text.Json;

namespace WarmConduit.Core.Tests.Reference;

/// <summary>Short ways into the rows of reference cases.</summary>
internal static class JsonRows
{
    public static double Num(this JsonElement e, string name) => e.GetProperty(name).GetDouble();

    public static double Num(this JsonElement e, string name, double missing) => e.TryGetProperty(name, out var v) ? v.GetDouble() : missing;

    public static string Text(this JsonElement e, string name) => e.GetProperty(name).GetString()!;

    public static IEnumerable<JsonElement> Rows(this JsonElement e, string name) =>
        e.TryGetProperty(name, out var v) ? v.EnumerateArray() : [];
}
