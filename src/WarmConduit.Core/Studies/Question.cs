using WarmConduit.Core.Levels;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Scenarios;

namespace WarmConduit.Core.Studies;

/// <summary>A question that is too large to answer: what there is too much of, and the limit.</summary>
public sealed class TooLargeException(string reason) : Exception(reason);

/// <summary>
/// What studies are asked: a rig (checked before), the conditions, and whether the answer is still wanted. What several studies need is worked out when the
/// first of them asks for it, and once. For one thread at a time.
/// </summary>
public sealed class Question
{
    private readonly Dictionary<Type, object> _answers = [];
    private RigIndex? _index;
    private RigLevels? _levels;
    private Elimination? _elimination;
    private CutRuns? _cuts, _cutsBefore;
    private SurfaceContacts? _against;
    private PipeFilms? _films;
    private TapedRuns? _taped;
    private Rig? _sound;
    private FoundTasks? _tasks, _tasksBefore;
    private (bool Known, LevelAnswer? Answer) _draining;
    private IProgress<double>? _progress;
    private (object Of, IReadOnlyList<HandTask> ByHand, HashSet<int> Runs)? _driven;

    /// <summary>Asks about <paramref name="rig"/> under <paramref name="conditions"/>.</summary>
    /// <param name="rig">The document, checked before.</param>
    /// <param name="conditions">The night, the parking, the scenario.</param>
    /// <param name="cancel">Studies stop with <see cref="OperationCanceledException"/> when nobody waits any more.</param>
    public Question(Rig rig, Conditions conditions, CancellationToken cancel = default)
    {
        (Rig, Conditions, Cancel) = (rig, conditions.In(rig), cancel);
        Scenario = conditions.ScenarioId is { } id ? rig.Scenarios.Find(id) ?? rig.ScenarioOf(ScenarioKind.Drain) : rig.ScenarioOf(ScenarioKind.Drain);
    }

    /// <summary>The document.</summary>
    public Rig Rig { get; }

    /// <summary>The conditions, with the events of their plan.</summary>
    public Conditions Conditions { get; }

    /// <summary>How valves, taps and pumps stand once the rig is drained: the scenario of the conditions.</summary>
    public Scenario Scenario { get; }

    /// <summary>Stops the work.</summary>
    public CancellationToken Cancel { get; }

    /// <summary>The document by id.</summary>
    public RigIndex Index => _index ??= new RigIndex(Rig);

    /// <summary>The rig as the Levels engine sees it in this scenario.</summary>
    internal RigLevels Levels => _levels ??= new RigLevels(Index, Scenario);

    /// <summary>The steps that find the levels of <see cref="Levels"/> at any attitude; null when nothing is open. An edit that only moves things keeps those
    /// of the rig before it.</summary>
    internal Elimination? Elimination =>
        Levels.Graph is not { } graph ? null : _elimination?.Fits(graph) == true ? _elimination : _elimination = new Elimination(graph);

    /// <summary>Runs through which pumps that are run dry drive air (<see cref="AirHolds.Driven"/>); kept as <see cref="Elimination"/> is. Only where something
    /// is open.</summary>
    internal IReadOnlySet<int> DrivenRuns
    {
        get
        {
            // By the elimination where there is one, since that outlives a move; one that is asked once about one attitude has none, and it costs the most.
            object of = _elimination?.Fits(Levels.Graph!) == true ? _elimination : Levels.Graph!;
            if (_driven is { } known && ReferenceEquals(known.Of, of) && known.ByHand.SequenceEqual(Rig.ByHand)) return known.Runs;
            var runs = AirHolds.Driven(this, Levels.Graph!);
            _driven = (of, Rig.ByHand, runs);
            return runs;
        }
    }

    /// <summary>Runs cut where they pass from zone to zone.</summary>
    internal CutRuns Cuts => _cuts ??= new CutRuns(Index, _cutsBefore, Cancel);

    /// <summary>Runs cut besides where a trace lies against them.</summary>
    internal TapedRuns Taped => _taped ??= new TapedRuns(Index, Cuts);

    /// <summary>What lies against a face of its room.</summary>
    internal SurfaceContacts SurfaceContacts => _against ??= new SurfaceContacts(Rig.Shell);

    /// <summary>What metres of pipe lose.</summary>
    internal PipeFilms Films => _films ??= new PipeFilms();

    /// <summary>How valves are set for each task. An edit that joins nothing otherwise keeps those of the rig before it.</summary>
    internal FoundTasks Tasks => _tasks ??= _tasksBefore?.Fits(Rig) == true ? _tasksBefore.On(this) : FoundTasks.Of(this);

    /// <summary>The rig that this one was made from, where nothing in it would be refused today; null: not known.</summary>
    internal Rig? Sound => _sound;

    /// <summary>Where water stands once all that can leave has left; null when nothing is open anywhere.</summary>
    internal LevelAnswer? Draining
    {
        get
        {
            if (!_draining.Known) _draining = (true, Levels.Graph is null ? null : Core.Levels.Draining.Solve(Levels.Graph, Conditions.Parked, Surfaces()));
            return _draining.Answer;
        }
    }

    // How high each vessel is filled to begin with.
    private double[] Surfaces() => [.. Levels.VesselOf.OrderBy(v => v.Value).Select(v => Index.Part(v.Key))
        .Select(p => PartWater.AtStartL(p, Conditions) / PartWater.HoldsL(p) is < 1 and var share ? VesselSlice.SurfaceM(p.Box, share, Conditions.Parked)
        : double.PositiveInfinity)];

    /// <summary>This question, which tells <paramref name="progress"/> the share that is done, 0 to 1, where its study takes long; what that asks in turn tells
    /// nothing.</summary>
    public Question Telling(IProgress<double>? progress)
    {
        _progress = progress;
        return this;
    }

    /// <summary>Stops when nobody waits any more, and says how much is done.</summary>
    public void GoOn(double done, double of)
    {
        Cancel.ThrowIfCancellationRequested();
        _progress?.Report(of > 0 ? Math.Clamp(done / of, 0, 1) : 0);
    }

    /// <summary>The answer of <paramref name="study"/>, asked once.</summary>
    public TAnswer Ask<TAnswer>(Func<Question, TAnswer> study)
        where TAnswer : class
    {
        if (_answers.TryGetValue(typeof(TAnswer), out object? known)) return (TAnswer)known;
        Cancel.ThrowIfCancellationRequested();
        var answer = study(this);
        _answers[typeof(TAnswer)] = answer;
        return answer;
    }

    /// <summary>The same rig under other conditions; what does not depend on them is shared.</summary>
    public Question With(Conditions conditions)
    {
        var other = new Question(Rig, conditions, Cancel)
        {
            _index = _index,
            _cuts = _cuts,
            _elimination = _elimination,
            _driven = _driven,
            _against = _against,
            _films = _films,
            _taped = _taped,
            _tasks = _tasks,
            _tasksBefore = _tasksBefore,
        };
        if (other.Scenario.Id != Scenario.Id) return other;
        other._levels = _levels;
        if (conditions.Parked != Conditions.Parked) return other;
        if (!conditions.SameTanks(Conditions)) return other;
        other._draining = _draining;
        if (_answers.TryGetValue(typeof(DrainDownAnswer), out object? drained)) other._answers[typeof(DrainDownAnswer)] = drained;
        return other;
    }

    /// <summary>
    /// The same conditions for an edited <paramref name="rig"/>; what lies against its faces is shared where the shell is the same object. The original may be
    /// shared between threads once <see cref="Warm"/> has been called.
    /// </summary>
    public Question On(Rig rig, CancellationToken cancel)
    {
        var other = new Question(rig, Conditions, cancel)
        {
            _elimination = _elimination,
            _driven = _driven,
            _sound = _sound,
            _films = _films,
            _tasksBefore = _tasks ?? _tasksBefore,
        };
        if (ReferenceEquals(rig.Shell, Rig.Shell)) (other._against, other._cutsBefore) = (_against, _cuts);
        if (!SameThings(rig)) return other;
        (other._index, other._levels, other._cuts, other._draining) = (_index, _levels, _cuts, _draining);
        if (_answers.TryGetValue(typeof(DrainDownAnswer), out object? drained)) other._answers[typeof(DrainDownAnswer)] = drained;
        return other;
    }

    // But for plans and what was done to it, they are the same.
    private bool SameThings(Rig rig) =>
        ReferenceEquals(rig.Parts, Rig.Parts) && ReferenceEquals(rig.Runs, Rig.Runs) && ReferenceEquals(rig.Shell, Rig.Shell)
            && ReferenceEquals(rig.Scenarios, Rig.Scenarios) && ReferenceEquals(rig.ByHand, Rig.ByHand)
        && ReferenceEquals(rig.Brief, Rig.Brief);

    /// <summary>Works out what edited copies can share.</summary>
    public Question Warm()
    {
        _ = Elimination;
        if (Levels.Graph is not null) _ = DrivenRuns;
        _ = SurfaceContacts;
        _ = Films;
        // What every nudge asks for.
        _ = Tasks.For(TaskKind.Tank, Cancel);
        _ = Tasks.For(TaskKind.Town, Cancel);
        _sound = RigCheck.Check(Rig).Count == 0 ? Rig : null;
        try
        {
            _ = Cuts;
        }
        catch (TooLargeException)
        {
            // Told by the studies that need it; others answer.
        }
        return this;
    }
}
