using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>
/// Batteries in a room that frost reaches: most lithium ones must not be charged below 0 °C. Told by the air around them, which is colder sooner than they
/// are.
/// </summary>
internal sealed class ColdBatteryRule : IRule
{
    private const double ChargeC = 0;

    public IReadOnlyList<FindingKind> Kinds => [FindingKind.ColdBattery];

    public IEnumerable<Finding> Find(Question question)
    {
        var boxes = question.Rig.Shell.KeepOuts.Where(k => k.Kind == KeepOutKind.Electrics).ToList();
        if (boxes.Count == 0) yield break;
        var night = question.Ask(RigNight.Of);
        int[] until = [.. night.HourReports().Where(r => r <= night.Morning)];
        foreach (var box in boxes)
        {
            var zone = question.Index.ZoneAt(box.Box.Centre());
            int first = until.FirstOrDefault(r => night.AirC(zone, r) < ChargeC, -1);
            if (first < 0) continue;
            double coldest = until.Min(r => night.AirC(zone, r));
            yield return new Finding($"battery:{box.Id}", FindingKind.ColdBattery, Severity.Note, box.Name, "down to", Measure.Temperature(coldest),
                Sentence.Of($"Around {box.Name} it is below {Measure.Temperature(ChargeC)} after {Measure.Duration(night.Answer.ReportS[first])}. Most " +
                    $"lithium batteries must not be charged then: switch the charger off, or bring heat or a louvre to where they are."),
                new Place(box.Box.Centre(), box.Name, null, null, null, zone?.Id), [], null);
        }
    }
}
