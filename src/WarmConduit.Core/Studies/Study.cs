using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Studies.DrainOrder;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Holds;
using WarmConduit.Core.Studies.Measuring;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Studies.Parking;
using WarmConduit.Core.Studies.ShellHeat;
using WarmConduit.Core.Studies.Standing;
using WarmConduit.Core.Studies.Supply;
using WarmConduit.Core.Studies.Tanks;
using WarmConduit.Core.Studies.Weights;

namespace WarmConduit.Core.Studies;

/// <summary>A question that can be asked of a rig by name.</summary>
/// <param name="Name">The name under which its answer is wanted.</param>
/// <param name="Answer">The type of the answer.</param>
/// <param name="Ask">Asks it.</param>
public sealed record Study(string Name, Type Answer, Func<Question, object> Ask)
{
    /// <summary>All studies. A new one is a folder and a line here.</summary>
    public static IReadOnlyList<Study> All { get; } =
    [
        Of("drainDown", DrainDownStudy.Ask),
        Of("drainOrder", DrainOrderStudy.Ask),
        Of("afterStep", AfterStepStudy.Ask),
        Of("holds", HoldsStudy.Ask),
        Of("proof", ProofStudy.Ask),
        Of("freezeLadder", FreezeLadderStudy.Ask),
        Of("rungWhy", RungWhyStudy.Ask),
        Of("night", NightStudy.Ask),
        Of("hourly", HourlyStudy.Ask),
        Of("limit", LimitStudy.Ask),
        Of("guess", GuessStudy.Ask),
        Of("calibration", CalibrationStudy.Ask),
        Of("season", SeasonStudy.Ask),
        Of("measureNext", MeasureNextStudy.Ask),
        Of("shellHeat", ShellHeatStudy.Ask),
        Of("standing", StandingStudy.Ask),
        Of("supply", SupplyStudy.Ask),
        Of("parking", ParkingStudy.Ask),
        Of("tanks", TankStudy.Ask),
        Of("weights", WeightStudy.Ask),
    ];

    /// <summary>A study under a name.</summary>
    public static Study Of<TAnswer>(string name, Func<Question, TAnswer> ask)
        where TAnswer : class => new(name, typeof(TAnswer), q => q.Ask(ask));
}
