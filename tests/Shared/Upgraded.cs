namespace WarmConduit.Core.Rigs;

/// <summary>Rigs as a first version's file knew them.</summary>
internal static class Upgraded
{
    // The relief valve of its heater.
    private static readonly string[] Since = ["heater-tee", "relief", "relief-drip", "relief-end", "relief-leg", "tee-relief"];

    /// <summary>Without what has come since and may be left out.</summary>
    public static Rig Bare(Rig rig) => rig with
    {
        Plans = null,
        Parts = [.. rig.Parts.Where(p => !Since.Contains(p.Id))],
        Runs = [.. rig.Runs.Where(r => !Since.Contains(r.Id)).Select(r => r.From.Part == "tee-relief" ? r with { From = new RunEnd("heater", "hot") } : r)],
        Scenarios = [.. rig.Scenarios.Select(s => s with { Settings = [.. s.Settings.Where(o => !Since.Contains(o.Id))] })],
        Shell = rig.Shell with
        {
            Front = null,
            Zones = [.. rig.Shell.Zones.Select(z => z with { Faces = [.. z.Faces.Select(f => f with { Rearward = null })] })],
        },
    };
}
