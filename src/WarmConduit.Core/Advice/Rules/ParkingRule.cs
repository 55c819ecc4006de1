using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Levels;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Parking;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>A rig that drains when it is level, and not on the slope that the brief allows.</summary>
internal sealed class ParkingRule : IRule
{
    public IReadOnlyList<FindingKind> Kinds => [FindingKind.Parking];

    // A slope on which clearly less stays is better.
    public Harm Harm => Harm.Water with
    {
        Less = (was, now) => was - (now ?? 0),
        Helps = (was, less, _) => less > Math.Min(0.01, 0.5 * was),
        PriceALitre = 500
    };

    public const string Outside = "parking:outside", OfTank = "parking:tank:";

    public IEnumerable<Idea> Fixes(Finding finding, Ideas ideas) => ideas.OfParking(finding.Id);

    public IEnumerable<Finding> Find(Question question)
    {
        var limits = question.Rig.Brief.ParkingAllowed();
        var severity = question.Rig.Brief.School == FreezeSchool.Heat ? Severity.Note : Severity.Warning;
        if (ParkingCount.WorstOutside(question) is { } worst)
        {
            // The pool that holds most there; to name all of them is a question of its own.
            var levels = Draining.Solve(question.Levels.Graph!, worst.At);
            var pool = levels.Pools().FirstOrDefault(p => p.Edges.Any(e => Wet(question, e.Edge)));
            string[] runs = [.. pool?.Edges.Where(e => Wet(question, e.Edge)).OrderByDescending(e => e.VolumeM3)
                .Select(e => question.Rig.Runs[e.Edge].Id) ?? []];
            var reason = Sentence.Of($"Parked {ParkingCount.Words(worst.At)}, {Measure.Volume(worst.OutsideL)} stays outside the tanks, where " +
                $"{Measure.Volume(limits.OutsideL)} is allowed and {Measure.Volume(limits.BreakableL)} in a part that ice breaks.");
            if (pool is not null)
                reason = reason.And(Sentence.Of($" Most of it, {Measure.Volume(pool.VolumeM3 * 1000)}, in {question.Index.Run(runs[0]).Name}"))
                    .And(runs.Length > 1 ? $" and {runs.Length - 1} more." : ".");
            yield return new Finding(
                Outside, FindingKind.Parking, severity, $"Parked {ParkingCount.Words(worst.At)}", "keeps", Measure.Volume(worst.OutsideL), reason,
                pool is null ? null : question.Levels.PlaceAt(pool.LowestPoint), runs,
                new Why("Water left at the edges of the parking slope in the brief, by the same rule as draining. Water emptied by hand is not " +
                    "counted.", [new("when level", Measure.Volume(worst.LevelL), false)]));
        }
        static bool Wet(Question asked, int edge) => edge < asked.Rig.Runs.Count && asked.Rig.Runs[edge].Service != Service.Coolant;
        foreach (var (tank, at, stays) in ParkingCount.WorstTanks(question))
            yield return new Finding(
                OfTank + tank.Id, FindingKind.Parking, severity, tank.Name, "keeps", Measure.Volume(stays),
                Sentence.Of($"Parked {ParkingCount.Words(at)}, {Measure.Volume(stays)} of {Measure.Volume(PartWater.HoldsL(tank))} stays in it, where " +
                $"{Measure.Volume(limits.TankShare * PartWater.HoldsL(tank))} is allowed."),
                Place.OnPart(question.Index, tank), [],
                new Why("Water stands level in the tipped tank, up to the lowest way out.",
                [new("allowed", Measure.Volume(limits.TankShare * PartWater.HoldsL(tank)), false)]));
    }
}
