using WarmConduit.Core.Rigs;

namespace WarmConduit.Bench;

/// <summary>Places in the checkout that the benchmarks read.</summary>
internal static class Repository
{
    public static string Root { get; } = Find();

    public static Rig Sparrow() => Demo("sparrow");

    public static Rig Lantern() => Demo("lantern");

    private static Rig Demo(string name) => RigFile.Read(File.ReadAllBytes(Path.Combine(Root, "demo", $"{name}.json")));

    /// <summary>The demo rig over and over, a millimetre apart; 13 times are 416 runs.</summary>
    public static Rig Times(int copies) => SizedRigs.Times(Sparrow(), copies);

    private static string Find()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(folder.FullName, "WarmConduit.slnx")))
            folder = folder.Parent ?? throw new DirectoryNotFoundException("The benchmarks run inside a checkout.");
        return folder.FullName;
    }
}
