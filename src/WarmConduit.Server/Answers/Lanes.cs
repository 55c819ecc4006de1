using System.Threading.RateLimiting;
using WarmConduit.Application.Answers;

namespace WarmConduit.Server.Answers;

/// <summary>Too many questions wait already.</summary>
internal sealed class LaneFullException() : Exception("Too many questions at once.");

/// <summary>
/// Who works when: small questions, large ones and jobs each have a lane of their own, so that what a drag asks never stands behind what takes long. In a lane
/// it is first come, first served. A turn is taken once the question has been read and checked, and given back when its answer is there.
/// </summary>
internal sealed class Lanes : IDisposable
{
    // As much is answered in a few hundredths of a second.
    private const double Small = 600;
    private const int InLine = 64;

    // One core is left for saves and for the shelf, however many ask.
    private static readonly int Cores = Math.Max(1, Environment.ProcessorCount - 1);

    private readonly ConcurrencyLimiter _small = Lane(Cores), _large = Lane(Cores), _jobs = Lane(Math.Max(2, Cores));

    /// <summary>Waits for a turn. Throws <see cref="LaneFullException"/> where too many wait already.</summary>
    public async Task<IDisposable> Enter(CheckedQuestion question, CancellationToken cancel)
    {
        var lane = question.Studies.Any(s => s.Lane == Core.Studies.Lane.Job) ? _jobs : question.Size <= Small ? _small : _large;
        var turn = await lane.AcquireAsync(1, cancel);
        return turn.IsAcquired ? turn : throw new LaneFullException();
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        foreach (var lane in (ConcurrencyLimiter[])[_small, _large, _jobs]) lane.Dispose();
    }

    private static ConcurrencyLimiter Lane(int atOnce) => new(new ConcurrencyLimiterOptions
    {
        PermitLimit = atOnce,
        QueueLimit = InLine,
        QueueProcessingOrder = QueueProcessingOrder.OldestFirst
    });
}
