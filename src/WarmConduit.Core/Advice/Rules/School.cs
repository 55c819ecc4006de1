using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>What the freeze school of a rig makes of findings.</summary>
internal static class School
{
    /// <summary>How severe water is that draining should have let out.</summary>
    public static Severity OfRetainedWater(Rig rig) => rig.Brief.School == FreezeSchool.Drain ? Severity.Fault : Severity.Warning;
}
