using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.DrainOrder;
using WarmConduit.Core.Studies.FreezeLadder;

namespace WarmConduit.Core.Studies.LayUp;

/// <summary>One school against frost, for this rig. Estimates.</summary>
/// <param name="School">Which.</param>
/// <param name="Name">Its name.</param>
/// <param name="GoodFor">What it is good for.</param>
/// <param name="ShortestS">Work to lay up, s; 0 where there is none.</param>
/// <param name="LongestS">At most, s.</param>
/// <param name="FluidL">Antifreeze that it takes, L.</param>
/// <param name="Money">What that costs by the price of a litre of antifreeze; null: no price is known, or it takes none.</param>
/// <param name="StaysL">Water left in it, L; as heat has it, all of it.</param>
/// <param name="Breaks">How many pieces ice breaks on the coldest night of the brief.</param>
/// <param name="First">What breaks first; null: nothing does.</param>
/// <param name="FirstS">When, seconds from the start of that night.</param>
public sealed record SchoolLaidUp(
    FreezeSchool School, string Name, string GoodFor, double ShortestS, double LongestS, double FluidL, double? Money, double StaysL, int Breaks,
    string? First,
    double? FirstS);

/// <summary>The schools side by side.</summary>
/// <param name="OutdoorC">The coldest night of the brief, °C.</param>
/// <param name="Schools">Each school.</param>
public sealed record SchoolsAnswer(double OutdoorC, IReadOnlyList<SchoolLaidUp> Schools);

/// <summary>Compares what each school costs in this rig, and what stays at risk.</summary>
public static class SchoolsStudy
{
    /// <summary>Asks. Pure. A night for each school.</summary>
    public static SchoolsAnswer Ask(Question question)
    {
        var rig = question.Rig;
        var night = Conditions.Of(rig.Brief) with { HeatOn = false, Water = WaterState.Drained };
        var dry = question.With(night);
        var warm = question.With(night with { HeatOn = true, Water = WaterState.Wet });
        double? litre = rig.Prices.OfLitre(Price.Antifreeze);
        SchoolLaidUp Walked(FreezeSchool school, string name, string goodFor, ProcedureKind kind)
        {
            var made = ProcedureStudy.Ask(dry, new ProcedureInput(kind));
            var after = question.On(rig with { Left = made.Acts() }, question.Cancel).With(night with { Water = WaterState.AsLeft });
            return Of(school, name, goodFor, made, after.Ask(FreezeLadderStudy.Ask).Rungs, litre);
        }
        return new SchoolsAnswer(night.OutdoorC,
        [
            Walked(FreezeSchool.Drain, "Drain", "No fluid, no tools, done in minutes: where every line falls.", ProcedureKind.DrainLayUp),
            Walked(FreezeSchool.Air, "Drain and air", "Lines that sag or lie flat; wants a compressor.", ProcedureKind.AirLayUp),
            Walked(FreezeSchool.Antifreeze, "Antifreeze", "What can't be drained or blown out; wants fluid, and a flush in spring.",
                ProcedureKind.AntifreezeLayUp),
            Of(FreezeSchool.Heat, "Heat", "Living in it: water all winter, as long as fuel and battery last.", null, warm.Ask(FreezeLadderStudy.Ask).Rungs,
                litre,
                question.Ask(DrainOrderStudy.WalkOf).Full.StaysL()),
        ]);
    }

    private static SchoolLaidUp Of(FreezeSchool school, string name, string goodFor, ProcedureAnswer? made, IEnumerable<Rung> rungs, double? litre,
        double fullL = 0)
    {
        var breaks = rungs.Where(r => r.Breaks).OrderBy(r => r.BreaksS ?? r.AtS).ToList();
        double fluid = made?.FluidL ?? 0;
        return new SchoolLaidUp(school, name, goodFor, made?.ShortestS ?? 0, made?.LongestS ?? 0, fluid, fluid > 0 ? fluid * litre : null,
            made?.StaysL ?? fullL, breaks.Count,
            breaks.FirstOrDefault()?.Name, breaks.FirstOrDefault()?.BreaksS);
    }
}
