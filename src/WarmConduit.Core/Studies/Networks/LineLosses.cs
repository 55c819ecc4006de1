using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.Networks;

/// <summary>A length of a run within one room.</summary>
/// <param name="Cut">Which.</param>
/// <param name="Metres">How long it is, with its share of the run's slack, m.</param>
/// <param name="WPerMK">What a metre of it loses, W/mK.</param>
internal readonly record struct LosingLength(CutLength Cut, double Metres, double WPerMK);

/// <summary>What runs with warm fluid lose, room by room: in the wind of the night where it blows, to air of 5 °C.</summary>
internal sealed class LineLosses(Question question, double fluidC)
{
    private const double AirC = 5;

    private readonly double _windMPerS = question.Conditions.Steady().WindMPerS;
    private readonly Dictionary<(string Pipe, Sleeve? Sleeve, bool Windy, Bundle? Bundle), double> _known = [];

    /// <summary>Lengths of run number <paramref name="number"/>, from its start to its end. O(lengths).</summary>
    public IEnumerable<LosingLength> Of(int number)
    {
        var run = question.Rig.Runs[number];
        var pipe = Catalogue.Pipe(run.Pipe)!;
        var course = question.Index.CourseOf(run);
        // Slack lies along the whole of it.
        double all = Math.Max(1e-3, question.Index.PipeLengthM(run)), drawn = Math.Max(1e-9, all - (run.SlackM ?? 0));
        foreach (var cut in question.Cuts.Of(number))
        {
            yield return new LosingLength(cut, (cut.To - cut.From) * course[cut.Segment].DistanceM(course[cut.Segment + 1]) * all / drawn,
                PerMK(pipe, run.SleeveOn(cut.Segment), cut.Zone));
        }
    }

    /// <summary>What a metre of a pipe in a room loses in its own sleeve, or in that of a bundle, W/mK.</summary>
    public double PerMK(PipeStock pipe, Sleeve? sleeve, Zone? room, Bundle? bundle = null)
    {
        bool windy = PipeFilms.InWind(room);
        var kind = (pipe.Id, sleeve, windy, bundle);
        if (!_known.TryGetValue(kind, out double perM))
            _known[kind] = perM = 1 / question.Films.ResistanceMKPerW(pipe, sleeve, windy, fluidC, AirC, windy ? _windMPerS : 0, bundle);
        return perM;
    }
}
