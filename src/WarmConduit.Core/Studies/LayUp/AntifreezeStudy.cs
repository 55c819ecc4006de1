using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Studies.Scenarios;

namespace WarmConduit.Core.Studies.LayUp;

/// <summary>With what antifreeze a rig is laid up.</summary>
/// <param name="Glycol">Propylene glycol in it, share of the volume, 0.1 to 0.6.</param>
/// <param name="TrapL">Fluid for a trap, L, 0 to 5; left out: about a litre.</param>
/// <param name="Drained">Drained first; else full.</param>
public sealed record AntifreezeInput(double Glycol = 0.45, double? TrapL = null, bool Drained = true) : IStudyInput
{
    /// <summary>Fluid for a trap, L. Estimate.</summary>
    public double TrapFluidL() => TrapL ?? 1;

    /// <inheritdoc/>
    public IReadOnlyList<RigFault> Check(Rig rig)
    {
        var c = new FieldChecker();
        c.Range("glycol", Glycol, "layUp.glycol");
        if (TrapL is { } trap) c.Range("trapL", trap, "layUp.trapL");
        return c.Faults;
    }
}

/// <summary>Draws antifreeze through a rig: how much, and how strong it is at each outlet.</summary>
public static class AntifreezeStudy
{
    // What runs off at an outlet until its colour is that of the bottle, L; what is bought over what is needed. Estimates.
    private const double RunsOffL = 0.1, Spare = 1.1;
    private static readonly double[] Sizes = [1, 5, 20];

    /// <summary>Asks. Pure. A search of ways for each outlet.</summary>
    public static AntifreezeAnswer Ask(Question question, AntifreezeInput input)
    {
        var task = question.Tasks.For(TaskKind.Antifreeze, question.Cancel);
        var graph = new SweepGraph(question, task);
        var down = question.Ask(DrainDownStudy.Ask);
        var stays = down.Runs.ToDictionary(r => r.RunId, r => input.Drained ? Math.Min(r.StaysL, r.FullL) : r.FullL);
        var keeps = down.Parts.ToDictionary(p => p.PartId, p => input.Drained ? Math.Min(p.RetainedL, p.FullL) : p.FullL);
        var (filled, steps) = (new HashSet<string>(), new List<AntifreezeStep>());
        var stands = new Dictionary<string, double>();
        double heater = 0;
        foreach (var (opening, way) in BlowOutStudy.Ordered(question, graph))
        {
            question.Cancel.ThrowIfCancellationRequested();
            // Where there are two ways it takes the easier one; what may stay still is counted as plain.
            var runs = way.Runs.Where(r => way.Only.Contains(r.Id)).ToList();
            var parts = way.Parts.Where(p => way.OnlyParts.Contains(p.Id)).ToList();
            double drawn = 0, water = 0, path = 0, pushed = RunsOffL;
            foreach (var run in runs)
            {
                double full = BlowOutStudy.FullL(question, run);
                path += full;
                water += stays.GetValueOrDefault(run.Id, full);
                if (!filled.Add($"runs/{run.Id}")) continue;
                drawn += full;
                pushed += stays.GetValueOrDefault(run.Id, full);
            }
            foreach (var part in parts)
            {
                double full = PartWater.HoldsL(part);
                path += full;
                water += Math.Min(full, keeps.GetValueOrDefault(part.Id));
                if (!filled.Add($"parts/{part.Id}")) continue;
                drawn += full;
                pushed += Math.Min(full, keeps.GetValueOrDefault(part.Id));
                if (PartWater.HeatsWater(part)) heater += full;
            }
            double glycol = runs.Count == 0 ? 0 : GlycolWater.Diluted(input.Glycol, path, water);
            foreach (string thing in runs.Select(r => $"runs/{r.Id}").Concat(parts.Select(p => $"parts/{p.Id}")))
                stands[thing] = Math.Min(glycol, stands.GetValueOrDefault(thing, 1));
            double freezesC = GlycolWater.FreezingC(glycol);
            steps.Add(new AntifreezeStep(
                opening.Id, opening.Tap.Id, opening.Name, [.. runs.Select(r => r.Id)], runs.Count == 0 ? 0 : drawn + pushed, water, glycol,
                freezesC, GlycolWater.BurstProtectionC(glycol), runs.Count == 0 || freezesC > question.Rig.Brief.LowestC));
        }
        TrapFluid[] traps = [.. question.Rig.Parts.Where(PartWater.IsTrap)
            .Select(p => new TrapFluid(p.Id, p.Name, input.TrapFluidL()))];
        double lines = filled.Sum(id => id.StartsWith("runs/", StringComparison.Ordinal) ? BlowOutStudy.FullL(question, question.Index.Run(id[5..]))
            : PartWater.HoldsL(question.Index.Part(id[6..])));
        double total = steps.Sum(s => s.DrawnL) + traps.Sum(t => t.Litres);
        PlainRun[] plain = [.. question.Tasks.Graph.Runs.Where(r => !filled.Contains($"runs/{r.Id}") && r.Service != Service.Fill)
            .Select(r => new PlainRun(r.Id, r.Name, stays.GetValueOrDefault(r.Id))).Where(r => r.Litres > 1e-4).OrderByDescending(r => r.Litres)];
        var reached = steps.Where(s => s.RunIds.Count > 0).ToList();
        return new AntifreezeAnswer(
            question.Tasks.Goals.GearOf(TaskKind.Antifreeze, task.Scenario), task.Fault is null, heater, question.Tasks.Goals.Has(TaskKind.BypassHeater), steps,
            traps, traps.Sum(t => t.Litres), lines, total, [.. Sizes.Select(s => new Bottles(s, (int)Math.Ceiling(Spare * total / s)))], plain,
            reached.Count == 0 ? null : reached.Max(s => s.FreezesC),
            [.. stands.Select(s => new FluidStands(s.Key, s.Value)).OrderBy(s => s.Thing, StringComparer.Ordinal)], question.Rig.Brief.LowestC);
    }
}
