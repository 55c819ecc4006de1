using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.LayUp;

/// <content>Steps of the builder's own.</content>
internal sealed partial class ProcedureKit
{
    // What the builder adds, and what a part's maker says in the place of ours: the water that comes out is the same.
    private void OwnSteps()
    {
        var own = (Rig.OwnSteps ?? []).Where(s => s.IsOn(input.Kind)).ToList();
        foreach (var maker in own.Where(s => s.Kind == OwnStepKind.Maker))
        {
            var part = question.Index.Part(maker.PartId()!);
            var ours = _steps.Where(s => s.PartIds is [var only] && only == part.Id).ToList();
            if (ours.Count == 0) continue;
            int at = _steps.IndexOf(ours[0]);
            var of = ours.FirstOrDefault(s => s.OutL is not null) ?? ours[0];
            _steps.RemoveAll(ours.Contains);
            _steps.Insert(at, of with
            {
                Id = $"maker:{maker.Id}",
                Words = $"{part.Name}, by its maker: {maker.Words}",
                Wrong = null,
                Caution = ours.Select(s => s.Caution).FirstOrDefault(c => c is not null),
                Marks = [.. ours.SelectMany(s => s.Marks)],
                Settings = [.. ours.SelectMany(s => s.Settings).DistinctBy(s => s.Id)],
            });
        }
        foreach (var step in own.Where(s => s.Kind == OwnStepKind.Step))
        {
            List<Part> parts = step.PartId() is { } id ? [question.Index.Part(id)] : [];
            Add($"own:{step.Id}", step.Words, parts);
            if (!step.First) continue;
            _steps.Insert(own.TakeWhile(s => s != step).Count(s => s is { Kind: OwnStepKind.Step, First: true }), _steps[^1]);
            _steps.RemoveAt(_steps.Count - 1);
        }
        var home = (Rig.OwnSteps ?? []).Where(s => s.Kind == OwnStepKind.Home).Select(s => s.Words).ToList();
        if (home.Count == 0) return;
        if (OwnStep.IsLayUp(input.Kind)) Add("goes-home", $"Take home: {string.Join(", ", home)}", []);
        else if (input.Kind == ProcedureKind.Reopen) Add("comes-back", $"Bring back: {string.Join(", ", home)}", []);
    }
}
