using WarmConduit.Application.Answers;
using WarmConduit.Core.Studies;
using WarmConduit.Store;

namespace WarmConduit.Server.Answers;

/// <summary>Prepares for the next question while the hand rests: a drag is saved between two nudges, and the second asks about a new revision.</summary>
internal sealed class AnswersAhead(ChangeFeed feed, RigCache rigs, QuestionCache questions) : BackgroundService
{
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        try
        {
            await foreach (var change in feed.Listen(stoppingToken))
                if (change is ShelfChange { Kind: ChangeKind.Saved } saved && rigs.TryGet(saved.RigId, saved.Revision, out var rig, out _) && rig is not null)
                    Prepare(saved, rig);
        }
        catch (OperationCanceledException)
        {
            // The program ends.
        }
    }

    private void Prepare(ShelfChange saved, Core.Rigs.Rig rig)
    {
        try
        {
            questions.Ahead(saved.RigId, saved.Revision, rig);
        }
        catch (TooLargeException)
        {
            // Told to whoever asks.
        }
    }
}
