using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.Networks;

/// <content>What runs give off, length by length.</content>
internal sealed partial class RigHeat
{
    // Of a floor loop, Below is the room under it, and BelowWPerK what goes there.
    private readonly record struct Length(
        double FromM, double ToM, Zone? Zone, double LossWPerK, string? Body, double Contact, Zone? Below = null, double BelowWPerK = 0);

    // A run in lengths of one room, one sleeve and one traced line, from its start to its end.
    private IEnumerable<Length> Lengths(string id, ILookup<string, TracedLine> lines)
    {
        var run = _question.Index.Run(id);
        var course = _question.Index.CourseOf(run);
        double startM = 0;
        int segment = 0;
        bool any = false;
        foreach (var (cut, metres, perM) in _losses.Of(_number[id]))
        {
            any = true;
            while (segment < cut.Segment)
            {
                startM += course[segment].DistanceM(course[segment + 1]);
                segment++;
            }
            Point3 a = course[segment], b = course[segment + 1];
            double segmentM = a.DistanceM(b);
            if (run.Floor is { } floor)
            {
                var (middle, from) = (a.Towards(b, (cut.From + cut.To) / 2), startM + (cut.From * segmentM));
                yield return new Length(from, startM + (cut.To * segmentM), _question.Index.ZoneAt(middle + new Point3(0, 0, OverM)) ?? cut.Zone,
                    floor.UpWPerMK() * metres, null, 0, _question.Index.ZoneAt(middle - new Point3(0, 0, OverM)), floor.DownWPerMK() * metres);
                continue;
            }
            int bits = run.Traces is null ? 1 : Math.Max(1, (int)Math.Ceiling((cut.To - cut.From) * segmentM / TapedRuns.BitM));
            Length? open = null;
            for (int i = 0; i < bits; i++)
            {
                double from = cut.From + ((cut.To - cut.From) * i / bits), to = cut.From + ((cut.To - cut.From) * (i + 1) / bits);
                var (body, contact) = Traced(run, a.Towards(b, (from + to) / 2), lines);
                var bit = new Length(startM + (from * segmentM), startM + (to * segmentM), cut.Zone, perM * metres / bits, body,
                    contact * metres / bits);
                if (open is { } before && before.Body == body && bit.ToM - before.FromM <= TraceLengthM)
                    open = before with { ToM = bit.ToM, LossWPerK = before.LossWPerK + bit.LossWPerK, Contact = before.Contact + bit.Contact };
                else
                {
                    if (open is { } done) yield return done;
                    open = bit;
                }
            }
            if (open is { } last) yield return last;
        }
        if (!any) yield return new Length(0, 0, null, 0, null, 0);
    }

    // The taped length of a line that a place of a trace lies against, and W/mK to it.
    private (string? Body, double Contact) Traced(Run trace, Point3 at, ILookup<string, TracedLine> lines)
    {
        foreach (var taped in trace.Traces ?? [])
            if (_question.Taped.AlongM(_question.Index.Run(taped.Id), trace, at) is { } along
                && lines[taped.Id].FirstOrDefault(l => along >= l.FromM - 1e-6 && along <= l.ToM + 1e-6).Body is { } body)
                return (body, ContactWPerMK(taped.Kind));
        return (null, 0);
    }
}
