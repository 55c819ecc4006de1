using System.Text.Json;
using System.Text.Json.Nodes;

namespace WarmConduit.Core.Rigs.Upgrades;

/// <summary>Brings older documents up to date, JSON to JSON, one small step a version.</summary>
internal static class UpgradeChain
{
    // The step at index v - 1 leads from version v to v + 1.
    private static readonly Action<JsonObject>[] Steps = [From1To2.Upgrade];

    /// <summary>
    /// Upgrades <paramref name="document"/> in place from <paramref name="version"/>. A document that is not of the shape of its version is refused with
    /// <see cref="RigFileException"/>.
    /// </summary>
    public static void Upgrade(JsonObject document, int version)
    {
        try
        {
            for (int v = version; v < Rig.CurrentFormat; v++)
            {
                Steps[v - 1](document);
                document["formatVersion"] = v + 1;
            }
        }
        catch (UpgradeException e)
        {
            throw new RigFileException([new RigFault(e.Path, e.Message)]);
        }
        catch (Exception e) when (e is InvalidOperationException or FormatException or JsonException or ArgumentException)
        {
            throw new RigFileException([new RigFault("file", $"it does not have the shape of a rig of version {version}")]);
        }
    }
}

/// <summary>A place in an older document that is not as its version has it.</summary>
internal sealed class UpgradeException(string path, string reason) : FormatException(reason)
{
    public string Path { get; } = path;
}
