using WarmConduit.Core.Geometry;
using WarmConduit.Core.Levels;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Studies.Left;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Night;

namespace WarmConduit.Core.Studies.FreezeLadder;

/// <summary>What freezes first, and when, on a night that starts with a vehicle as it was left.</summary>
public static class FreezeLadderStudy
{
    private const int MostRungs = 3000;

    /// <summary>
    /// Every piece of run and every part with water in it, by when ice breaks it, and when it has its first ice. Wet: drinking-water lines and all parts are
    /// full, tanks as full as they start, while waste, vent and fill lines hold what stays in them. Drained: all hold what stays after draining, with what is
    /// done by hand done. Dead water, no supercooling: on the safe side for lines in use. The hours are those of <see cref="RigNight"/>; what freezes neither
    /// by morning nor within twelve hours has no time. Pure.
    /// </summary>
    public static FreezeLadderAnswer Ask(Question question)
    {
        var night = question.Ask(RigNight.Of);
        var rungs = night.Candidates.Select((f, n) => f.Rung(night, n))
            .OrderByDescending(r => r.Breaks).ThenBy(r => r.AtS ?? double.PositiveInfinity).ThenBy(r => r.AirC)
                .ThenBy(r => r.Id, StringComparer.Ordinal).ToList();
        var verdict = rungs.Any(r => r.Breaks) ? Verdict.Fails : rungs.Any(r => r.State != IceState.Safe) ? Verdict.PassesButForIce : Verdict.Passes;
        return new FreezeLadderAnswer(verdict, rungs.Count > MostRungs ? rungs[..MostRungs] : rungs, rungs.Count, night.Zones(), night.MorningS,
            night.Answer.ReportS[^1]);
    }

    /// <summary>All that could freeze, not yet asked when.</summary>
    internal static IReadOnlyList<FreezeCandidate> Candidates(Question question)
    {
        var found = Alone(question).ToList();
        // Lines that lie side by side.
        var lines = found.OfType<PipeCandidate>().ToList();
        foreach (var (a, b, along) in ParallelPipes.Of([.. lines.Select(l => l.Laid)])) PipeCandidate.Join(lines[a], lines[b], along);
        return found;
    }

    private static IEnumerable<FreezeCandidate> Alone(Question question)
    {
        var left = question.Ask(LeftWater.Of);
        for (int r = 0; r < question.Rig.Runs.Count; r++)
        {
            question.Cancel.ThrowIfCancellationRequested();
            foreach (var piece in PiecesOf(question, left, r)) yield return piece;
        }
        foreach (var (part, litres, _) in left.Parts)
            if (litres > TradeConstants.DryShare * part.FullL)
                yield return new PartCandidate(question, question.Index.Part(part.PartId), litres, part.FullL, left.Glycol($"parts/{part.PartId}"));
    }

    // A run in pieces, one for each zone it passes, for each sleeve, for what is taped to a trace and, drained, for each wet length.
    private static IEnumerable<FreezeCandidate> PiecesOf(Question question, LeftWater left, int r)
    {
        var (run, drain, full) = (question.Rig.Runs[r], left.Runs[r], left.Full(r));
        var pipe = Catalogue.Pipe(run.Pipe)!;
        var pieces = new List<Piece>();
        var course = new List<Point3>();
        Zone? zone = null;
        Sleeve? sleeve = null;
        double start = 0, length = 0, litres = 0, skin = 0;
        TapedLength beside = default;
        var leans = new List<(Zone? To, double M)>();
        void Close()
        {
            if (length > 1e-6) pieces.Add(new Piece(zone, sleeve, [.. course], start, length, litres, skin, Leans(leans, length), beside));
            course.Clear();
            leans.Clear();
            (length, litres, skin) = (0, 0, 0);
        }
        var (cuts, taped) = question.Taped.Of(r);
        var faces = question.SurfaceContacts.Of(cuts, k => drain.Stations[k].At);
        for (int i = 0; i < cuts.Length; i++)
        {
            var cut = cuts[i];
            var station = drain.Stations[cut.Segment];
            var next = drain.Stations[cut.Segment + 1];
            // What is airlocked fills its bore; a gap between it and the pool below is told as full too.
            var (wetFrom, wetTo) = station.AirlockedTo <= station.AirlockedFrom ? (station.WetFrom, station.WetTo)
                : station.WetTo <= station.WetFrom ? (station.AirlockedFrom, station.AirlockedTo)
                : (Math.Min(station.WetFrom, station.AirlockedFrom), Math.Max(station.WetTo, station.AirlockedTo));
            bool airlocked = station.AirlockedTo > station.AirlockedFrom;
            double from = full ? cut.From : Math.Max(cut.From, wetFrom), to = full ? cut.To : Math.Min(cut.To, wetTo);
            if (to <= from)
            {
                Close();
                continue;
            }
            // Two dips that meet at a crest are two: each has its own water.
            bool crest = !full && !airlocked && from == 0 && station.StandsAtM <= station.HeightM + 1e-6;
            var around = run.SleeveOn(cut.Segment);
            var against = taped?[i] ?? default;
            if (from > cut.From || course.Count == 0 || cut.Zone != zone || around != sleeve || against != beside || crest) Close();
            double segment = next.DistanceM - station.DistanceM;
            if (course.Count == 0)
            {
                course.Add(station.At.Towards(next.At, from));
                start = station.DistanceM + from * segment;
            }
            (zone, sleeve, beside) = (cut.Zone, around, against);
            course.Add(station.At.Towards(next.At, to));
            length += (to - from) * segment;
            if (faces[i] is { } behind)
            {
                bool bare = around is null && behind.IsBareSkin;
                if (bare) skin += (to - from) * segment;
                leans.Add((behind.Beyond, (bare ? 1 : behind.SurfaceShare) * (to - from) * segment));
            }
            litres += full || airlocked || station.StandsAtM is not { } stands
                ? pipe.BoreM2() * (to - from) * segment * 1000
                : 1000 * BoreSegment.VolumeM3(pipe.InnerDiameterM, (to - from) * segment, stands - Between(station, next, from),
                    stands - Between(station, next, to));
            if (to < cut.To) Close();
        }
        Close();
        var inZone = new Dictionary<string, int>();
        for (int i = 0; i < pieces.Count; i++)
        {
            string where = pieces[i].Zone?.Id ?? "";
            int number = inZone[where] = inZone.GetValueOrDefault(where) + 1;
            if (pieces[i].Litres < 1e-4) continue;
            string name = pieces.Count > 1 && (i == 0 || pieces[i - 1].Zone != pieces[i].Zone) ? $"{run.Name}, {pieces[i].Zone?.Name ?? "outdoors"}" : run.Name;
            yield return new PipeCandidate(question.Films, run, pipe, pieces[i], left.Glycol($"runs/{run.Id}"), $"{run.Id}#{where}.{number}", name, full,
                pipe.StandsFreezing == StandsFreezing.No || (!full && drain.Threatens));
        }
    }

    // In hundredths, so that what is alike stays alike.
    private static IReadOnlyList<(Zone? To, double Share)> Leans(List<(Zone? To, double M)> leans, double lengthM) => leans.Count == 0 ? [] :
        [.. leans.GroupBy(l => l.To).Select(g => (g.Key, Math.Round(SurfaceContacts.FacesShare * g.Sum(l => l.M) / lengthM, 2))).Where(l => l.Item2 > 0)];

    private static double Between(Station a, Station b, double t) => a.HeightM + (b.HeightM - a.HeightM) * t;
}

/// <summary>
/// A piece of a run in one zone and one sleeve, how far from the start of the run it begins, with the water in it, how much of it lies against a bare skin, and
/// which share of what it loses goes to what is behind the faces that it lies against, and the trace that lies along it.
/// </summary>
internal sealed record Piece(
    Zone? Zone, Sleeve? Sleeve, IReadOnlyList<Point3> Course, double StartM, double LengthM, double Litres, double SkinM,
    IReadOnlyList<(Zone? To, double Share)> Leans, TapedLength Beside);
