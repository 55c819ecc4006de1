using WarmConduit.Core.Materials;

namespace WarmConduit.Core.Rigs;

/// <summary>What a run from a port usually carries, and in what.</summary>
/// <param name="Role">What the port is for.</param>
/// <param name="Service">What the run carries.</param>
/// <param name="Pipe">Id of its pipe.</param>
public sealed record UsualRun(PortRole Role, Service Service, string Pipe);

/// <summary>What runs usually carry, by the port they start from. A builder may change all of it.</summary>
public static class UsualRuns
{
    /// <summary>For every role, those first that say more than "water": of the two ends of a run the one that stands here sooner leads.</summary>
    public static IReadOnlyList<UsualRun> All { get; } =
    [
        new(PortRole.Waste, Service.Waste, "waste-28"),
        new(PortRole.Vent, Service.Vent, "vent-hose-10"),
        new(PortRole.Fill, Service.Fill, "fill-hose-40"),
        new(PortRole.Coolant, Service.Coolant, "epdm-5/8"),
        new(PortRole.Hot, Service.Hot, "pex-1/2"),
        new(PortRole.Cold, Service.Cold, "pex-1/2"),
        new(PortRole.Inlet, Service.Cold, "pex-1/2"),
        new(PortRole.Outlet, Service.Cold, "pex-1/2"),
        new(PortRole.Drain, Service.Cold, "pex-1/2"),
        new(PortRole.Spout, Service.Cold, "pex-1/2"),
    ];
}
