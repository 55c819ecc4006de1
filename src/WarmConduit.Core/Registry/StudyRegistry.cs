using WarmConduit.Core.Advice;
using WarmConduit.Core.Advice.AllHeights;
using WarmConduit.Core.Advice.Cold;
using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Advice.LayUp;
using WarmConduit.Core.Advice.Modes;
using WarmConduit.Core.Advice.Outlook;
using WarmConduit.Core.Advice.Tasks;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Studies.DrainOrder;
using WarmConduit.Core.Studies.Filling;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Heating;
using WarmConduit.Core.Studies.Holds;
using WarmConduit.Core.Studies.HotLoops;
using WarmConduit.Core.Studies.HotWait;
using WarmConduit.Core.Studies.LayUp;
using WarmConduit.Core.Studies.Left;
using WarmConduit.Core.Studies.Measuring;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Studies.Parking;
using WarmConduit.Core.Studies.Scenarios;
using WarmConduit.Core.Studies.ShellHeat;
using WarmConduit.Core.Studies.Standing;
using WarmConduit.Core.Studies.Supply;
using WarmConduit.Core.Studies.Tanks;
using WarmConduit.Core.Studies.WaterFlow;
using WarmConduit.Core.Studies.Weights;

namespace WarmConduit.Core.Registry;

/// <summary>All that can be asked of a rig by name: the studies, and the advice over them. A new one is a folder and a line here.</summary>
public static class StudyRegistry
{
    /// <summary>All studies.</summary>
    public static IReadOnlyList<Study> All { get; } =
    [
        Study.Of("drainDown", DrainDownStudy.Ask),
        Study.Of("drainOrder", DrainOrderStudy.Ask),
        Study.Of<AfterStepInput, AfterStepAnswer>("afterStep", AfterStepStudy.Ask),
        Study.Of("left", LeftStudy.Ask),
        Study.Of("holds", HoldsStudy.Ask),
        Study.Of<ProofInput, ProofAnswer>("proof", ProofStudy.Ask),
        Study.Of("freezeLadder", FreezeLadderStudy.Ask),
        Study.Of<RungWhyInput, RungWhyAnswer>("rungWhy", RungWhyStudy.Ask),
        Study.Of("night", NightStudy.Ask),
        Study.Of("hourly", HourlyStudy.Ask),
        Study.Of("limit", LimitStudy.Ask, Lane.Job),
        Study.Of("guess", GuessStudy.Ask, Lane.Job),
        Study.Of<CalibrationInput, CalibrationAnswer>("calibration", CalibrationStudy.Ask, lane: Lane.Job),
        Study.Of("season", SeasonStudy.Ask, new SeasonInput(), Lane.Job),
        Study.Of("measureNext", MeasureNextStudy.Ask),
        Study.Of("shellHeat", ShellHeatStudy.Ask),
        Study.Of("heating", HeatingStudy.Ask),
        Study.Of("balance", BalanceStudy.Ask, new BalanceInput()),
        Study.Of("modes", ModesStudy.Ask, Lane.Job),
        Study.Of("standing", StandingStudy.Ask),
        Study.Of("supply", SupplyStudy.Ask),
        Study.Of("waterFlow", WaterFlowStudy.Ask, new WaterFlowInput()),
        Study.Of("tasks", TaskStudy.Ask),
        Study.Of<ServiceInput, ServiceAnswer>("service", ServiceStudy.Ask),
        Study.Of("hotWait", HotWaitStudy.Ask),
        Study.Of("hotLoops", HotLoopStudy.Ask),
        Study.Of("filling", FillStudy.Ask),
        Study.Of("blowOut", BlowOutStudy.Ask, new BlowOutInput()),
        Study.Of("compressor", CompressorStudy.Ask, new CompressorInput()),
        Study.Of("antifreeze", AntifreezeStudy.Ask, new AntifreezeInput()),
        Study.Of("walkEnd", WalkEndStudy.Ask),
        Study.Of("schools", SchoolsStudy.Ask, Lane.Job),
        Study.Of("procedure", ProcedureStudy.Ask, new ProcedureInput()),
        Study.Of("parking", ParkingStudy.Ask),
        Study.Of("tanks", TankStudy.Ask),
        Study.Of("weights", WeightStudy.Ask),
        Study.Of("advice", Adviser.Ask),
        Study.Of("outlook", OutlookStudy.Ask),
        Study.Of("airPort", AirPortStudy.Ask, Lane.Job),
        Study.Of<FixesInput, FixesAnswer>("fixes", Fixer.Ask, lane: Lane.Job),
        Study.Of<TrialInput, TrialAnswer>("trial", TrialStudy.Ask, lane: Lane.Job),
        Study.Of("fixAll", FixAll.Ask, new FixAllInput(), Lane.Job),
        Study.Of("autoFall", HeightFinder.Ask, new AutoFallInput(), Lane.Job),
        Study.Of("insulation", InsulationFinder.Ask, Lane.Job),
        Study.Of("hold", HoldFinder.Ask, new HoldInput(), Lane.Job),
        Study.Of("places", PlaceFinder.Ask, new PlacesInput(), Lane.Job),
    ];

    /// <summary>The study of that name; null: there is none.</summary>
    public static Study? Named(string name) => All.FirstOrDefault(s => s.Name == name);
}
