using WarmConduit.Core.Flow;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Tanks;
using WarmConduit.Core.Studies.WaterFlow;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.Filling;

/// <summary>Filling a tank, and the air that has to leave it. All are estimates.</summary>
/// <param name="PartId">The tank.</param>
/// <param name="HoseLPerMin">What a garden hose of 10 m gives, L/min.</param>
/// <param name="HoseS">How long it fills by hose, s.</param>
/// <param name="Cans">Trips with the can.</param>
/// <param name="CanFillS">How long it fills by can, s.</param>
/// <param name="VentLPerMin">The most that its vent lets out before a flat wall bulges, L/min; null: it is not vented.</param>
/// <param name="BlockedPa">Suction in it when its vent is blocked and the pump draws on, Pa; null: no pump draws from it.</param>
/// <param name="Words">What that means.</param>
/// <param name="Lacking">The vent is too small, or missing.</param>
/// <param name="Caution">A caution; null: none.</param>
public sealed record FillOf(
    string PartId, double HoseLPerMin, double HoseS, int Cans, double CanFillS, double? VentLPerMin, double? BlockedPa,
    Sentence Words, bool Lacking, string? Caution);

/// <summary>Filling every fresh tank.</summary>
/// <param name="Tanks">In order of id.</param>
public sealed record FillAnswer(IReadOnlyList<FillOf> Tanks);

/// <summary>Time to fill by hose and by can, and what the vent lets out meanwhile.</summary>
public static class FillStudy
{
    // A garden hose of 12.7 mm and 10 m with its coupling; a can is poured at 8 L/min and fetched in two minutes. Estimates.
    private const double HoseM = 10, HoseBoreM = 0.0127, HoseRoughnessM = 1e-5, CouplingLoss = 4, PourLPerMin = 8, FetchS = 120;

    /// <summary>Asks every fresh tank. Pure. O(tanks).</summary>
    public static FillAnswer Ask(Question question)
    {
        var brief = question.Rig.Brief;
        double hose = HoseLPerMinAt(brief.TownOrUsual().AtInletBar()), can = brief.Chosen().CanL;
        var ports = question.Ask(TankStudy.Ask).Tanks.ToDictionary(t => t.PartId);
        double lift = question.Rig.Parts.Where(p => Catalogue.Part(p.Stock)!.Passage == Passage.Pump).Select(p => p.Flows().LiftM ?? 0).DefaultIfEmpty(0).Max();
        return new FillAnswer([.. question.Rig.Parts.Where(p => TankStudy.IsTank(p) && Catalogue.Part(p.Stock)!.Group == PartGroup.Store)
            .Select(p => Of(p, ports[p.Id], hose, can, lift))]);
    }

    /// <summary>What comes out of the end of a garden hose, L/min: friction and coupling against the pressure.</summary>
    private static double HoseLPerMinAt(double bar)
    {
        double density = Water.DensityKgPerM3(WaterFlowInput.UsualColdC), head = bar * 1e5 / (density * Friction.Gravity);
        return 60e3 * FlowSolver.Solve(new FlowNetwork(density, Water.ViscosityPaS(WaterFlowInput.UsualColdC), [new("tap", head), new("end", 0)],
            [new FlowPipe("hose", "tap", "end", HoseM, HoseBoreM, HoseRoughnessM, CouplingLoss + 1)], [])).FlowM3PerS[0];
    }

    private static FillOf Of(Part tank, TankPorts ports, double hose, double canL, double liftM)
    {
        int cans = (int)Math.Ceiling(ports.FullL / canL - 1e-9);
        double canFillS = (ports.FullL / PourLPerMin * 60) + (cans * FetchS);
        // Its loss is stated at one flow and goes about with the square.
        double? vent = ports.VentPa is > 0 and var pa ? ports.VentLPerMin * Math.Sqrt(TankStudy.MostVentPa / pa) : null;
        double? blocked = liftM > 0 && ports.NeverPumpedL is not null ? liftM * 1000 * Friction.Gravity : null;
        Sentence words = vent is null ? "It has no vent: filled by hose its walls bulge, and drawn from they are sucked in."
            : vent < hose ? Sentence.Of($"A hose brings {Measure.Flow(hose)}; its vent lets out {Measure.Flow(vent)} before a flat wall bulges: " +
                $"open its fill cap, or fill slower.")
            : Sentence.Of($"Its vent lets out {Measure.Flow(vent)}, more than the {Measure.Flow(hose)} of a hose.");
        return new FillOf(tank.Id, hose, ports.FullL / hose * 60, cans, canFillS, vent, blocked, words, vent is null || vent < hose,
            blocked is null ? null
                : "A vent that is blocked or iced over lets the pump suck the walls in: they bear about a hundredth of a bar. Keep it clear.");
    }
}
