using System.Runtime.CompilerServices;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Tests.Rigs;

/// <summary>The rigs that the program shows.</summary>
internal static class DemoRigs
{
    /// <summary>The folder they lie in.</summary>
    public static string Folder([CallerFilePath] string here = "") => Path.GetFullPath(Path.Combine(Path.GetDirectoryName(here)!, "..", "..", "..", "demo"));

    /// <summary>A rig without its pads.</summary>
    public static Rig Unheated(this Rig rig) => rig with { Parts = [.. rig.Parts.Select(p => p with { Pad = null })] };

    /// <summary>A rig by name.</summary>
    public static Rig Of(string name) => RigFile.Read(File.ReadAllBytes(Path.Combine(Folder(), $"{name}.json")));
}
