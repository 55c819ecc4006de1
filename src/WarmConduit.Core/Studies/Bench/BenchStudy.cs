using WarmConduit.Core.Advice;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Studies.FreezeLadder;

namespace WarmConduit.Core.Studies.Bench;

/// <summary>All that the bench shows of a rig on a night.</summary>
public sealed record BenchAnswer(DrainDownAnswer Drain, FreezeLadderAnswer Ladder, IReadOnlyList<Finding> Findings);

/// <summary>The studies that answer a drag, asked together so that the draining is solved once.</summary>
public static class BenchStudy
{
    /// <summary>Asks all of them of <paramref name="rig"/> (checked before). Pure.</summary>
    public static BenchAnswer Ask(Rig rig, Conditions night)
    {
        var drain = DrainDownStudy.Ask(rig, night.Parked);
        var ladder = FreezeLadderStudy.Ask(rig, night, drain);
        return new BenchAnswer(drain, ladder, Adviser.Ask(rig, night, drain, ladder));
    }
}
