using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.LayUp;

/// <summary>One outlet, opened until colour comes. Estimates.</summary>
/// <param name="Id">Its id: part and inlet.</param>
/// <param name="PartId">The tap or appliance.</param>
/// <param name="Name">Its name.</param>
/// <param name="RunIds">Runs that it fills, nearest to the bottle first; empty: no fluid gets there.</param>
/// <param name="DrawnL">Fluid that it takes, after the outlets before it, L.</param>
/// <param name="WaterL">Water that was left on its way, L.</param>
/// <param name="Glycol">Share of glycol that stands at it in the end.</param>
/// <param name="FreezesC">Down to which temperature that has no ice, °C.</param>
/// <param name="BurstsC">Down to which temperature its slush bursts no pipe, °C. Never the freezing point.</param>
/// <param name="Weak">It has ice on the coldest night of the brief, or no fluid gets there.</param>
public sealed record AntifreezeStep(
    string Id, string PartId, string Name, IReadOnlyList<string> RunIds, double DrawnL, double WaterL, double Glycol, double FreezesC, double BurstsC,
    bool Weak);

/// <summary>A trap that gets fluid poured in.</summary>
/// <param name="PartId">The trap.</param>
/// <param name="Name">Its name.</param>
/// <param name="Litres">Fluid, L. Estimate.</param>
public sealed record TrapFluid(string PartId, string Name, double Litres);

/// <summary>A run in which plain water stays.</summary>
/// <param name="RunId">The run.</param>
/// <param name="Name">Its name.</param>
/// <param name="Litres">Water in it, L.</param>
public sealed record PlainRun(string RunId, string Name, double Litres);

/// <summary>What stands in a run or part in the end.</summary>
/// <param name="Thing">Its path: <c>runs/main</c>, <c>parts/pump</c>.</param>
/// <param name="Glycol">Share of glycol: the weakest of the outlets that it leads to.</param>
public sealed record FluidStands(string Thing, double Glycol);

/// <summary>Bottles to buy.</summary>
/// <param name="SizeL">Size of a bottle, L.</param>
/// <param name="Count">How many.</param>
public sealed record Bottles(double SizeL, int Count);

/// <summary>Antifreeze drawn through the lines. All are estimates.</summary>
/// <param name="Gear">Where the bottle's hose is joined.</param>
/// <param name="Can">The valves let fluid to every outlet, and none into a tank.</param>
/// <param name="HeaterL">Of what is drawn, in heaters, L: 0 where they are bypassed.</param>
/// <param name="Bypassed">Heaters are bypassed.</param>
/// <param name="Steps">Outlets in order.</param>
/// <param name="Traps">What traps get.</param>
/// <param name="TrapsL">That in all, L.</param>
/// <param name="LinesL">Fluid in lines and parts, L.</param>
/// <param name="TotalL">Fluid in all, with traps and what runs off until colour comes, L.</param>
/// <param name="Bottles">What to buy, by size.</param>
/// <param name="Plain">Runs in which plain water stays, most first.</param>
/// <param name="WorstC">The highest freezing point at an outlet, °C; null: no outlet gets fluid.</param>
/// <param name="Stands">What stands where, of all that fluid gets to.</param>
/// <param name="NightC">The coldest night of the brief, °C.</param>
public sealed record AntifreezeAnswer(
    IReadOnlyList<ScenarioGear> Gear, bool Can, double HeaterL, bool Bypassed, IReadOnlyList<AntifreezeStep> Steps, IReadOnlyList<TrapFluid> Traps,
    double TrapsL, double LinesL, double TotalL, IReadOnlyList<Bottles> Bottles, IReadOnlyList<PlainRun> Plain, double? WorstC,
    IReadOnlyList<FluidStands> Stands, double NightC);
