using WarmConduit.Core.Heat.Night;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Weather;

namespace WarmConduit.Core.Studies.Night;

/// <summary>All that could freeze in the course of a night, the number of the body that each is part of, and what the night does.</summary>
internal sealed record NightCourseAnswer(IReadOnlyList<FreezeCandidate> Candidates, int[] BodyOf, NightAnswer Answer,
    HeatCourse Heat);

/// <summary>
/// Runs a night segment after segment: each goes on from where the one before left rooms and water. What is drained away is gone, what has ice in it by then
/// stays where it is, and what comes back with a fill is as warm as water at the start.
/// </summary>
internal sealed class NightSegments(Question question, IReadOnlyList<WeatherHour> weather, double[] reports, double endS, Uncertainty doubt)
{
    private const double StepS = 1800, HourS = 3600;

    private readonly List<FreezeCandidate> _all = [];
    private readonly Dictionary<string, int> _number = [];
    private readonly List<(double C, double Ice)?> _state = [];
    private readonly List<BodyMilestones> _marks = [];
    private readonly HeatCourse _heat = new(question.Rig, reports.Length, endS);

    /// <summary>Runs it. A night in which nothing happens is one run of the engine, with bodies alike as one.</summary>
    public NightCourseAnswer Run()
    {
        var course = NightCourse.Of(question.Conditions, endS);
        if (course is [var only])
        {
            var asked = For(only);
            var candidates = FreezeLadderStudy.Candidates(asked).ToList();
            var bodies = RigNetwork.Bodies(asked, candidates, doubt);
            var (_, answer, laid, bodyOf) = Solved(asked, candidates, bodies, only, reports, n => n);
            _heat.Take(answer, laid, r => r, only);
            return new NightCourseAnswer(candidates, bodyOf, answer, _heat);
        }
        return Join(course);
    }

    private Question For(NightSegment segment) => segment.Water == question.Conditions.Water ? question
        : question.With(question.Conditions with { Water = segment.Water });

    // Once more where its fluid lets through much more or less than it was taken for.
    private (NightNetwork Network, NightAnswer Answer, LaidCircuits Laid, int[] BodyOf) Solved(Question asked, IReadOnlyList<FreezeCandidate> candidates,
        IEnumerable<NightBody> bodies, NightSegment segment, double[] at, Func<NightNetwork, NightNetwork> started)
    {
        var laid = LaidCircuits.Of(asked, candidates, segment, doubt);
        var made = Run(laid);
        return LaidCircuits.MeanC(made.Answer) is var c && double.IsFinite(c) && laid.At(c) is { } other ? Run(other) : made;

        (NightNetwork, NightAnswer Answer, LaidCircuits, int[]) Run(LaidCircuits circuits)
        {
            var network = started(RigNetwork.Of(asked, bodies, weather, segment, doubt, circuits, out int[] bodyOf));
            return (network, NightEngine.Run(network, new NightOptions(StepS, 60, at), question.Cancel), circuits, bodyOf);
        }
    }

    private NightCourseAnswer Join(IReadOnlyList<NightSegment> course)
    {
        int zones = Math.Max(1, question.Rig.Shell.Zones.Count);
        var zoneC = new double[reports.Length, zones];
        var rows = new List<(double C, double Ice)?>[reports.Length];
        var energy = new Dictionary<string, double[]>();
        double[]? airC = null;
        var handedOn = new double[zones];
        var balance = default(HeatBalance);
        int steps = 0;
        foreach (var segment in course)
        {
            var asked = For(segment);
            var found = Here(asked, segment);
            int[] here = [.. found.Select(f => f.Number)];
            var bodies = RigNetwork.Bodies(asked, found.Select(f => f.FreezeCandidate), doubt)
                .Select((b, i) => _state[here[i]] is { } was ? b with { StartC = was.C, StartIce = was.C == 0 ? was.Ice : 0 } : b).ToList();
            // What is reported at a segment's very start was reported at the end of the one before.
            int[] mine = [.. Enumerable.Range(0, reports.Length).Where(r => reports[r] <= segment.ToS
                && (reports[r] > segment.FromS || (segment.FromS == 0 && reports[r] == 0)))];
            var (network, answer, laid, bodyOf) = Solved(asked, [.. found.Select(f => f.FreezeCandidate)], bodies, segment,
                [.. mine.Select(r => reports[r]).Append(segment.ToS)], n => airC is null ? n
                : n with { Zones = [.. n.Zones.Select((z, i) => z with { StartC = airC[i], HandedOnJ = handedOn[i] })] });
            int all = network.Zones.Count;
            _heat.Take(answer, laid, i => i < mine.Length ? mine[i] : null, segment);
            for (int i = 0; i <= mine.Length; i++)
            {
                var row = new List<(double, double)?>(new (double, double)?[_all.Count]);
                for (int f = 0; f < here.Length; f++) row[here[f]] = (answer.BodyC[i, bodyOf[f]], answer.IceFraction[i, bodyOf[f]]);
                if (i < mine.Length)
                {
                    rows[mine[i]] = row;
                    for (int z = 0; z < zones; z++) zoneC[mine[i], z] = answer.ZoneC[i, z];
                    continue;
                }
                airC = [.. Enumerable.Range(0, all).Select(z => answer.ZoneC[i, z])];
                for (int n = 0; n < _all.Count; n++) _state[n] = row[n];
            }
            for (int f = 0; f < here.Length; f++) _marks[here[f]] = Both(_marks[here[f]], answer.Milestones[bodyOf[f]]);
            foreach (var heater in answer.Energy)
            {
                if (!energy.TryGetValue(heater.Owner, out var sum)) energy[heater.Owner] = sum = new double[(int)Math.Ceiling(endS / HourS)];
                for (int h = 0; h < heater.WhByHour.Count; h++) sum[h] += heater.WhByHour[h];
            }
            handedOn = [.. answer.HandedOnJ];
            balance = new HeatBalance(balance.HeatersJ + answer.Balance.HeatersJ, balance.BoundariesJ + answer.Balance.BoundariesJ,
                balance.StoredJ + answer.Balance.StoredJ, balance.TurnoverJ + answer.Balance.TurnoverJ);
            steps += answer.Steps;
        }
        var (bodyC, ice) = (new double[reports.Length, _all.Count], new double[reports.Length, _all.Count]);
        var zoneOf = question.Rig.Shell.Zones.Select((z, i) => (z.Id, i)).ToDictionary(z => z.Id, z => z.i);
        for (int r = 0; r < reports.Length; r++)
            for (int n = 0; n < _all.Count; n++)
                // Where there is no water it is as warm as the air.
                (bodyC[r, n], ice[r, n]) = n < rows[r].Count && rows[r][n] is { } at ? at
                    : (_all[n].Zone is { } zone ? zoneC[r, zoneOf[zone.Id]] : weather.TemperatureAt(reports[r]), 0);
        return new NightCourseAnswer(_all, [.. Enumerable.Range(0, _all.Count)], new NightAnswer
        {
            ReportS = reports,
            ZoneC = zoneC,
            BodyC = bodyC,
            IceFraction = ice,
            Milestones = [.. _marks],
            Energy = [.. energy.Select(e => new HeaterEnergy(e.Key, 0, e.Value))],
            Balance = balance,
            HandedOnJ = handedOn,
            Steps = steps,
        }, _heat);
    }

    // What holds water in a segment, with its number; what is new is added.
    private List<(int Number, FreezeCandidate FreezeCandidate)> Here(Question asked, NightSegment segment)
    {
        var found = FreezeLadderStudy.Candidates(asked).ToDictionary(f => f.Id);
        if (segment.FromS > 0)
        {
            for (int n = 0; n < _all.Count; n++)
                if (_state[n] is { Ice: > 0 }) found[_all[n].Id] = _all[n];
        }
        var here = new List<(int, FreezeCandidate)>();
        foreach (var (id, candidate) in found)
        {
            if (!_number.TryGetValue(id, out int n))
            {
                n = _number[id] = _all.Count;
                _all.Add(candidate);
                _state.Add(null);
                _marks.Add(new BodyMilestones(double.PositiveInfinity, double.PositiveInfinity, double.PositiveInfinity, double.PositiveInfinity, 0,
                    double.PositiveInfinity));
            }
            // It is told as it was when it first had ice.
            if (double.IsInfinity(_marks[n].FirstIceS)) _all[n] = candidate;
            here.Add((n, candidate));
        }
        return here;
    }

    private static BodyMilestones Both(BodyMilestones before, BodyMilestones then) => new(
        Math.Min(before.FirstIceS, then.FirstIceS), Math.Min(before.BlockedS, then.BlockedS), Math.Min(before.SolidS, then.SolidS),
        double.IsFinite(then.FirstIceS) ? then.ThawedS : before.ThawedS, Math.Max(before.MostIce, then.MostIce), Math.Min(before.LowestC, then.LowestC));
}
