using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
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
                var (body, contact, wrapped) = Traced(run, cut.Segment, a.Towards(b, (from + to) / 2), cut.Zone, lines);
                var bit = new Length(startM + (from * segmentM), startM + (to * segmentM), cut.Zone, (wrapped ?? perM) * metres / bits, body,
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

    // The taped length of a line that a place of a trace lies against, W/mK to it, and what the trace loses under the sleeve of both, W/mK.
    private (string? Body, double Contact, double? LossWPerMK) Traced(Run trace, int segment, Point3 at, Zone? room, ILookup<string, TracedLine> lines)
    {
        foreach (var taped in trace.Traces ?? [])
        {
            var water = _question.Index.Run(taped.Id);
            if (_question.Taped.Against(water, trace, at) is not { } along
                || lines[taped.Id].FirstOrDefault(l => along.M >= l.FromM - 1e-6 && along.M <= l.ToM + 1e-6).Body is not { } body) continue;
            var (pipe, sleeve) = (Catalogue.Pipe(trace.Pipe)!, water.SleeveOn(along.Segment));
            if (sleeve is not null && _question.Taped.BundleAt(water, along.At, trace) is { } bundle)
                return (body, ContactWPerMK(taped.Kind), _losses.PerMK(pipe, sleeve, room, bundle));
            // Sleeves of their own lie between them, and face each other with a part of their surface only.
            double between = PipeFilms.SleeveMKPerW(pipe.OuterDiameterM, trace.SleeveOn(segment))
                + PipeFilms.SleeveMKPerW(Catalogue.Pipe(water.Pipe)!.OuterDiameterM, sleeve);
            return (body, 1 / ((1 / ContactWPerMK(taped.Kind)) + (between / ParallelPipes.FacesShare)), null);
        }
        return (null, 0, null);
    }
}
