using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.LayUp;

/// <summary>Which procedure, and with what.</summary>
/// <param name="Kind">Which.</param>
/// <param name="Air">The source of air; left out: a small compressor.</param>
/// <param name="Fluid">The antifreeze; left out: as usual.</param>
/// <param name="Dose">The dose that sanitises; left out: as usual.</param>
public sealed record ProcedureInput(
    ProcedureKind Kind = ProcedureKind.WeekendDrain, BlowOutInput? Air = null, AntifreezeInput? Fluid = null, DoseInput? Dose = null) : IStudyInput
{
    /// <inheritdoc/>
    public IReadOnlyList<RigFault> Check(Rig rig)
    {
        var c = new FieldChecker();
        if (!Enum.IsDefined(Kind)) c.Add("kind", "this procedure is not known");
        return [.. c.Faults, .. (Air?.Check(rig) ?? []).Select(f => f with { Path = $"air.{f.Path}" }),
            .. (Fluid?.Check(rig) ?? []).Select(f => f with { Path = $"fluid.{f.Path}" }),
            .. (Dose?.Check() ?? []).Select(f => f with { Path = $"dose.{f.Path}" })];
    }
}

/// <summary>Makes procedures from a rig: what it has is in, what it lacks is not.</summary>
public static class ProcedureStudy
{
    /// <summary>Asks. Pure. O(drain-down for each step).</summary>
    public static ProcedureAnswer Ask(Question question, ProcedureInput input)
    {
        var kit = new ProcedureKit(question, input);
        switch (input.Kind)
        {
            case ProcedureKind.WeekendDrain:
                kit.HeatersOff();
                kit.Drain();
                kit.Traps();
                break;
            case ProcedureKind.DrainLayUp:
                kit.HeatersOff();
                kit.Drain();
                kit.LowDips();
                kit.Forgotten();
                kit.Traps();
                kit.AgainAfterMoving();
                kit.GoesHome();
                break;
            case ProcedureKind.AirLayUp:
                kit.HeatersOff();
                kit.Drain();
                kit.BlowOut();
                kit.Forgotten();
                kit.Traps();
                kit.GoesHome();
                break;
            case ProcedureKind.AntifreezeLayUp:
                kit.HeatersOff();
                kit.Drain();
                kit.NoFluid();
                kit.DrawAntifreeze();
                kit.Forgotten();
                kit.Traps();
                kit.GoesHome();
                break;
            case ProcedureKind.AntifreezeBetween:
                kit.HeatersOff();
                kit.Drain();
                kit.NoFluid();
                kit.DrawAntifreeze();
                kit.Traps();
                break;
            case ProcedureKind.ColdTrip:
                kit.ColdTrip();
                break;
            case ProcedureKind.Reopen:
                kit.CloseAll();
                kit.Flush();
                kit.Sanitise();
                kit.FiltersIn();
                kit.LeakLook();
                kit.HeatersOn();
                break;
            case ProcedureKind.TankClean:
                kit.CleanTanks();
                kit.Sanitise();
                break;
            case ProcedureKind.FilterChange:
                kit.ChangeFilters();
                kit.LeakLook();
                break;
            case ProcedureKind.FirstFill:
                kit.FirstFill();
                kit.HeatersOn();
                break;
            case ProcedureKind.WinterUse:
                kit.OutdoorsOff();
                kit.Battery();
                break;
            case ProcedureKind.FrostFill:
                kit.FillInFrost();
                break;
            case ProcedureKind.HeatFailed:
                kit.FirstToFreeze();
                kit.HeatersOff();
                kit.Drain();
                break;
            case ProcedureKind.Thaw:
                kit.Thaw();
                break;
            default:
                kit.TryHeat();
                break;
        }
        return kit.Made();
    }

    /// <summary>The name of a procedure.</summary>
    public static string NameOf(ProcedureKind kind) => kind switch
    {
        ProcedureKind.WeekendDrain => "Drain between trips",
        ProcedureKind.DrainLayUp => "Lay up: drain",
        ProcedureKind.AirLayUp => "Lay up: drain and air",
        ProcedureKind.AntifreezeLayUp => "Lay up: antifreeze",
        ProcedureKind.Reopen => "Reopen in spring",
        ProcedureKind.TankClean => "Clean the tank",
        ProcedureKind.FilterChange => "Change the filter",
        ProcedureKind.FirstFill => "Fill for the first time",
        ProcedureKind.WinterUse => "Winter use: outdoors shut off",
        ProcedureKind.FrostFill => "Fill in frost",
        ProcedureKind.HeatFailed => "Emergency: the heat has failed",
        ProcedureKind.Thaw => "Thaw",
        ProcedureKind.AntifreezeBetween => "Antifreeze between trips",
        ProcedureKind.ColdTrip => "A cold trip while laid up",
        _ => "Autumn trial of the heat",
    };
}
