namespace WarmConduit.Core.Rigs;

/// <summary>Rigs as a first version's file knew them.</summary>
internal static class Upgraded
{
    /// <summary>Without what has come since and may be left out.</summary>
    public static Rig Bare(Rig rig) => rig with
    {
        Plans = null,
        Shell = rig.Shell with { Zones = [.. rig.Shell.Zones.Select(z => z with { Faces = [.. z.Faces.Select(f => f with { Rearward = null })] })] },
    };
}
