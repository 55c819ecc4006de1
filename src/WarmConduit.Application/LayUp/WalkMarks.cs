using System.Text.Json;
using System.Text.Json.Nodes;
using WarmConduit.Core.Logbook;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies.LayUp;

namespace WarmConduit.Application.LayUp;

/// <summary>What a rig remembers of the steps of a walk-through, as edits of its document.</summary>
internal static class WalkMarks
{
    /// <summary>The edits that follow from an act; none where the rig remembers it already, or what it was done to is gone.</summary>
    public static IReadOnlyList<Edit> Edits(Walk walk, WalkAct act, Rig rig)
    {
        int at = walk.Procedure.Steps.ToList().FindIndex(s => s.Id == act.StepId);
        var step = walk.Procedure.Steps[at];
        var left = rig.Left ?? [];
        var mine = Enumerable.Range(0, step.Marks.Count).Select(m => IdOf(walk, at, m)).ToHashSet();
        var here = left.Where(a => mine.Contains(a.Id)).ToList();
        switch (act.Kind)
        {
            case WalkActKind.Reopened:
                return [.. here.Select(a => new RemoveThing($"left/{a.Id}"))];
            case WalkActKind.Measured:
                // What was handled stands there once it is done; until then the reading waits.
                return [.. here.Where(a => a.Kind == LeftActKind.Done && IsRead(step) && a.OutL != act.Litres)
                    .Select(a => new ChangeThing($"left/{a.Id}", new JsonObject { ["outL"] = act.Litres }))];
            default:
                double? litres = IsRead(step) ? walk.Acts.LastOrDefault(a => a.Kind == WalkActKind.Measured && a.StepId == act.StepId)?.Litres : null;
                var edits = new List<Edit>();
                for (int m = 0; m < step.Marks.Count; m++)
                {
                    var mark = step.Marks[m];
                    var added = new LeftAct(IdOf(walk, at, m), mark.Kind, act.At, mark.Thing, mark.Kind == LeftActKind.Done ? litres : null, mark.Glycol,
                        mark.Film);
                    if (here.Any(a => a.Id == added.Id) || !added.IsIn(rig)) continue;
                    if (mark.Kind == LeftActKind.Filled) edits.AddRange(left.Select(a => new RemoveThing($"left/{a.Id}")));
                    edits.Add(new AddThing("left", (JsonObject)JsonSerializer.SerializeToNode(added, RigFile.Compact)!));
                }
                return edits;
        }
    }

    // A jug stands under one opening.
    private static bool IsRead(ProcedureStep step) => step.Marks.Count(m => m.Kind == LeftActKind.Done) == 1;

    private static string IdOf(Walk walk, int step, int mark) => $"{walk.Id}-{step}-{mark}";
}
