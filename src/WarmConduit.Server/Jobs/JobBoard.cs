using System.Collections.Concurrent;
using WarmConduit.Application.Answers;
using WarmConduit.Server.Answers;
using WarmConduit.Store;

namespace WarmConduit.Server.Jobs;

/// <summary>How far a job has come.</summary>
/// <param name="JobId">The job.</param>
/// <param name="Share">The share that is done, 0 to 1, where the work knows it.</param>
/// <param name="Done">Its answer, or its error, can be fetched.</param>
public sealed record JobProgress(string JobId, double Share, bool Done) : IChange;

/// <summary>A job and its progress.</summary>
/// <param name="Progress">How far it has come.</param>
/// <param name="Answers">What was asked for, once it is done.</param>
public sealed record JobState(JobProgress Progress, AnswersAnswer? Answers);

/// <summary>
/// Work that takes long: started, told on the change stream as it goes on, stopped, and fetched once. A job that nobody has asked after for a while is stopped:
/// its asker has gone.
/// </summary>
internal sealed class JobBoard(Lanes lanes, ChangeFeed feed, TimeProvider time) : IDisposable
{
    private static readonly TimeSpan Abandoned = TimeSpan.FromSeconds(20), Between = TimeSpan.FromMilliseconds(100);

    private readonly ChangeFeed _feed = feed;
    private readonly TimeProvider _time = time;
    private readonly ConcurrentDictionary<string, Job> _jobs = new();

    /// <summary>Starts a job.</summary>
    public JobProgress Start(CheckedQuestion question)
    {
        var job = new Job(Guid.NewGuid().ToString("N"), this);
        job.Work = Task.Run(() => Run(job, question));
        _jobs[job.Id] = job;
        return job.Progress;
    }

    /// <summary>A job as it stands; null: there is none of that id (any more). What is done is handed out once; what failed throws why.</summary>
    public async Task<JobState?> Fetch(string id)
    {
        if (!_jobs.TryGetValue(id, out var job)) return null;
        if (!job.Work.IsCompleted)
        {
            job.Asked(Abandoned);
            return new JobState(job.Progress, null);
        }
        if (!_jobs.TryRemove(id, out _)) return null;
        using (job) return new JobState(job.Progress, await job.Work);
    }

    /// <summary>Stops a job, and forgets it; false: there is none of that id.</summary>
    public bool Stop(string id)
    {
        if (!_jobs.TryRemove(id, out var job)) return false;
        job.End();
        return true;
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        foreach (string id in _jobs.Keys) Stop(id);
    }

    private async Task<AnswersAnswer> Run(Job job, CheckedQuestion question)
    {
        try
        {
            using var turn = await lanes.Enter(question, job.Stopped);
            return question.Answer(job.Stopped, job);
        }
        finally
        {
            _feed.Tell(job.Progress = job.Progress with { Share = 1, Done = true });
        }
    }

    private sealed class Job : IProgress<double>, IDisposable
    {
        private readonly JobBoard _board;
        private readonly CancellationTokenSource _stop = new();
        private readonly ITimer _left;
        private long _told;

        public Job(string id, JobBoard board)
        {
            (Id, _board, Stopped) = (id, board, _stop.Token);
            Progress = new JobProgress(id, 0, false);
            _left = board._time.CreateTimer(_ => board.Stop(id), null, Abandoned, Timeout.InfiniteTimeSpan);
        }

        public string Id { get; }

        public CancellationToken Stopped { get; }

        public JobProgress Progress { get; set; }

        public Task<AnswersAnswer> Work { get; set; } = null!;

        public void Asked(TimeSpan again) => _left.Change(again, Timeout.InfiniteTimeSpan);

        public void Report(double value)
        {
            // Told from several threads, and never backwards.
            lock (_stop)
            {
                if (Progress.Done || value <= Progress.Share) return;
                Progress = Progress with { Share = value };
                if (_board._time.GetElapsedTime(_told) < Between) return;
                _told = _board._time.GetTimestamp();
            }
            _board._feed.Tell(Progress);
        }

        /// <summary>Stops the work; what it holds is let go once it has stopped.</summary>
        public void End()
        {
            _stop.Cancel();
            _ = Work.ContinueWith(ended => { _ = ended.Exception; Dispose(); }, TaskScheduler.Default);
        }

        public void Dispose()
        {
            _left.Dispose();
            _stop.Dispose();
        }
    }
}
