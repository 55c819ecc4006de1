using WarmConduit.Core.Levels;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.DrainOrder;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Left;

namespace WarmConduit.Core.Studies.LayUp;

/// <summary>One school against frost, for this rig. Estimates.</summary>
/// <param name="School">Which.</param>
/// <param name="Name">Its name.</param>
/// <param name="GoodFor">What it is good for.</param>
/// <param name="ShortestS">Work to lay up, s; 0 where there is none.</param>
/// <param name="LongestS">At most, s.</param>
/// <param name="FluidL">Antifreeze that it takes, L.</param>
/// <param name="StaysL">Water left in it, L; as heat has it, all of it.</param>
/// <param name="Breaks">How many pieces ice breaks on the coldest night of the brief.</param>
/// <param name="First">What breaks first; null: nothing does.</param>
/// <param name="FirstS">When, seconds from the start of that night.</param>
public sealed record SchoolLaidUp(
    FreezeSchool School, string Name, string GoodFor, double ShortestS, double LongestS, double FluidL, double StaysL, int Breaks, string? First,
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
        var swept = BlowOutStudy.Ask(dry, new BlowOutInput()).Runs.Where(r => r.Carries <= AirCarries.Plugs).Select(r => r.RunId).ToHashSet();
        var drained = dry.Ask(FreezeLadderStudy.Ask).Rungs;
        // What air has swept holds a film at the most: ice there breaks nothing.
        var blown = drained.Where(r => r.RunId is null || !swept.Contains(r.RunId));
        var filled = question.On(rig with { Left = Filled(dry) }, question.Cancel).With(night with { Water = WaterState.AsLeft });
        var warm = question.With(night with { HeatOn = true, Water = WaterState.Wet });
        return new SchoolsAnswer(night.OutdoorC,
        [
            Of(FreezeSchool.Drain, "Drain", "No fluid, no tools, done in minutes: where every line falls.", Made(dry, ProcedureKind.DrainLayUp), drained),
            Of(FreezeSchool.Air, "Drain and air", "Lines that sag or lie flat; wants a compressor.", Made(dry, ProcedureKind.AirLayUp), blown),
            Of(FreezeSchool.Antifreeze, "Antifreeze", "What can't be drained or blown out; wants fluid, and a flush in spring.", Made(dry,
                ProcedureKind.AntifreezeLayUp),
                filled.Ask(FreezeLadderStudy.Ask).Rungs),
            Of(FreezeSchool.Heat, "Heat", "Living in it: water all winter, as long as fuel and battery last.", null, warm.Ask(FreezeLadderStudy.Ask).Rungs,
                question.Ask(DrainOrderStudy.Ask).FullL),
        ]);
    }

    // Drained as the order has it, then fluid where it gets to.
    private static List<LeftAct> Filled(Question dry)
    {
        var at = DateTimeOffset.UnixEpoch;
        var acts = new List<LeftAct> { new("filled", LeftActKind.Filled, at) };
        acts.AddRange(LeftActs.Wanted(dry).Select((p, i) => new LeftAct($"done-{i}", LeftActKind.Done, at.AddSeconds(1 + i), $"parts/{p.Id}")));
        acts.AddRange(AntifreezeStudy.Ask(dry, new AntifreezeInput()).Stands
            .Select((s, i) => new LeftAct($"fluid-{i}", LeftActKind.Antifreeze, at.AddSeconds(5000 + i), s.Thing, Glycol: s.Glycol)));
        return acts;
    }

    private static ProcedureAnswer Made(Question question, ProcedureKind kind) => ProcedureStudy.Ask(question, new ProcedureInput(kind));

    private static SchoolLaidUp Of(FreezeSchool school, string name, string goodFor, ProcedureAnswer? made, IEnumerable<Rung> rungs, double fullL = 0)
    {
        var breaks = rungs.Where(r => r.Breaks).OrderBy(r => r.BreaksS ?? r.AtS).ToList();
        return new SchoolLaidUp(school, name, goodFor, made?.ShortestS ?? 0, made?.LongestS ?? 0, made?.FluidL ?? 0, made?.StaysL ?? fullL, breaks.Count,
            breaks.FirstOrDefault()?.Name, breaks.FirstOrDefault()?.BreaksS);
    }
}
