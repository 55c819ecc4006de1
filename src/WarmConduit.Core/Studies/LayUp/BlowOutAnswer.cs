using WarmConduit.Core.Levels;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.LayUp;

/// <summary>Where compressed air comes from.</summary>
public enum AirSource
{
    /// <summary>A small compressor with its tank.</summary>
    SmallCompressor,

    /// <summary>A workshop compressor with its tank.</summary>
    WorkshopCompressor,

    /// <summary>A foot pump.</summary>
    FootPump,

    /// <summary>A filled bottle of air.</summary>
    Bottle,
}

/// <summary>What a source of air has.</summary>
/// <param name="Source">Which.</param>
/// <param name="Name">Its name.</param>
/// <param name="FreeLPerMin">What it gives without end, L/min of air at the pressure outside; 0 for a bottle.</param>
/// <param name="TankL">Its tank, L.</param>
/// <param name="TankBar">The pressure that its tank is filled to, bar.</param>
public sealed record AirSupply(AirSource Source, string Name, double FreeLPerMin, double TankL, double TankBar);

/// <summary>One outlet, opened while the air is on. Seconds and litres are estimates.</summary>
/// <param name="Id">Its id: part and inlet.</param>
/// <param name="PartId">The tap or appliance.</param>
/// <param name="Port">Its inlet.</param>
/// <param name="Name">Its name.</param>
/// <param name="RunIds">Runs that the air sweeps, nearest first; empty: it does not get there.</param>
/// <param name="PathL">Bore of those runs, and what the parts on their way hold, L.</param>
/// <param name="WidestM">Bore of the widest line that it has to lift water in, m; 0: none.</param>
/// <param name="NeedsLPerMin">Free air that carries all there, L/min.</param>
/// <param name="FreeLPerMin">Free air that it gets, L/min.</param>
/// <param name="Number">Wallis's gas number there.</param>
/// <param name="Carries">What that does.</param>
/// <param name="ShortestS">How long it is kept open each round, s.</param>
/// <param name="LongestS">At most, s.</param>
/// <param name="LastsS">How long the tank gives so much, s; null: without end.</param>
/// <param name="RecoversS">How long the source fills its tank again after it, s; null: it need not, or can't.</param>
public sealed record BlowStep(
    string Id, string PartId, string Port, string Name, IReadOnlyList<string> RunIds, double PathL, double WidestM, double NeedsLPerMin, double FreeLPerMin,
    double Number, AirCarries Carries, double ShortestS, double LongestS, double? LastsS, double? RecoversS);

/// <summary>What a usual source of air does in this rig, each outlet opened once.</summary>
/// <param name="Source">Which.</param>
/// <param name="Name">Its name.</param>
/// <param name="Outlets">Outlets whose lines it blows clear.</param>
/// <param name="Of">Outlets that air gets to.</param>
/// <param name="Worst">What it does at the worst outlet.</param>
public sealed record SourceDoes(AirSource Source, string Name, int Outlets, int Of, AirCarries Worst);

/// <summary>A run before and after.</summary>
/// <param name="RunId">The run.</param>
/// <param name="FullL">Its bore, L.</param>
/// <param name="BeforeL">Water in it before, L.</param>
/// <param name="AfterL">Water in it after each round, L. Estimates.</param>
/// <param name="Carries">What the best outlet's air does in it; none: a dead leg.</param>
/// <param name="StepIds">Outlets whose air sweeps it.</param>
public sealed record RunAir(string RunId, double FullL, double BeforeL, IReadOnlyList<double> AfterL, AirCarries Carries, IReadOnlyList<string> StepIds);

/// <summary>Blowing out with air. All are estimates.</summary>
/// <param name="Gear">Where the air is joined.</param>
/// <param name="Can">The valves let air to every outlet and to nothing else.</param>
/// <param name="LimitBar">Pressure never to be exceeded, bar.</param>
/// <param name="LimitBy">What sets that limit: a part, or the school.</param>
/// <param name="LineBar">Pressure in the lines that is counted on, bar.</param>
/// <param name="Supply">The source.</param>
/// <param name="Sources">All usual sources.</param>
/// <param name="Does">What each of them does here.</param>
/// <param name="Steps">Outlets in order.</param>
/// <param name="Runs">Every run of drinking water.</param>
/// <param name="BeforeL">Water in runs before, L.</param>
/// <param name="AfterL">After each round, L.</param>
/// <param name="DeadL">Of that, in dead legs, L.</param>
/// <param name="PartsL">What parts keep whatever the air does, L.</param>
/// <param name="ShortestS">How long all rounds take, s.</param>
/// <param name="LongestS">At most, with the waits for the tank, s.</param>
/// <param name="AirL">Free air in all, L.</param>
public sealed record BlowOutAnswer(
    IReadOnlyList<ScenarioGear> Gear, bool Can, double LimitBar, Sentence LimitBy, double LineBar, AirSupply Supply, IReadOnlyList<AirSupply> Sources,
    IReadOnlyList<SourceDoes> Does, IReadOnlyList<BlowStep> Steps, IReadOnlyList<RunAir> Runs, double BeforeL, IReadOnlyList<double> AfterL, double DeadL,
        double PartsL, double ShortestS,
    double LongestS, double AirL);
