namespace WarmConduit.Core.Rigs.Edits;

/// <summary>What a change touches, by path: what it writes, what it reads whole, what it refers to, what it takes away.</summary>
internal sealed class Touch
{
    public HashSet<string> Written { get; } = [];
    public HashSet<string> Read { get; } = [];
    public HashSet<string> RefersTo { get; } = [];
    public HashSet<string> Gone { get; } = [];

    public Touch(Effect effect, Rig after)
    {
        foreach (var set in effect.Set) Written.Add(set.Path);
        foreach (var come in effect.Added) Written.Add(come.Path());
        foreach (var gone in effect.Removed)
        {
            Written.Add(gone.Path());
            Gone.Add(gone.Path());
        }
        // References of every thing that was written.
        foreach (string path in Written.ToList()) AddReferences(path, after);
    }

    /// <summary>What <paramref name="edits"/> touched on their way to <paramref name="done"/>.</summary>
    public static Touch Of(Edited done, IReadOnlyList<Edit> edits)
    {
        var touch = new Touch(done.Effect, done.Rig);
        foreach (var edit in edits)
        {
            switch (edit)
            {
                case CopyPart copy:
                    touch.Read.Add($"parts/{copy.PartId}");
                    break;
                case PutTee tee:
                    touch.Read.Add($"runs/{tee.RunId}");
                    touch.ReadEnds(done.Rig, tee.RunId, tee.NewRunId);
                    break;
                case TurnPart turn:
                    touch.ReadShape(turn.PartId);
                    break;
                case MirrorPart mirror:
                    touch.ReadShape(mirror.PartId);
                    break;
                case ResizePart resize:
                    touch.ReadShape(resize.PartId);
                    break;
                case InsertBend bend:
                    touch.Read.Add($"runs/{bend.RunId}/bends/{Effect.Order}");
                    if (bend.After is not null) touch.RefersTo.Add($"runs/{bend.RunId}/bends/{bend.After}");
                    break;
                case ChangeThing change:
                    // Also what is set to the value that it has.
                    foreach (var (field, _) in change.Values) touch.Written.Add(change.Thing == "rig" ? field : $"{change.Thing}/{field}");
                    break;
                case RouteRun route:
                    touch.Read.Add($"runs/{route.RunId}/bends");
                    break;
                case MoveThings move:
                    // Raised by some millimetres from where it was seen: where it was counts.
                    foreach (string thing in move.Things) touch.ReadPlace(thing);
                    break;
                case GradeThings grade:
                    foreach (string thing in grade.Things) touch.ReadHeight(done.Rig, thing);
                    break;
                case SetPosition set:
                    touch.RefersTo.Add($"parts/{set.PartId}");
                    touch.Read.Add($"parts/{set.PartId}/stock");
                    touch.Read.Add($"scenarios/{set.ScenarioId}/settings/{set.PartId}");
                    break;
                case DrawFaces:
                    // Every box counts.
                    touch.Read.Add("shell/zones");
                    break;
                case RemoveThing remove:
                    touch.Read.Add(remove.Thing);
                    break;
                default:
                    break;
            }
        }
        return touch;
    }

    private void ReadShape(string partId)
    {
        foreach (string field in (ReadOnlySpan<string>)["box", "ports", "orientation"]) Read.Add($"parts/{partId}/{field}");
    }

    private void ReadPlace(string thing) => Read.Add(thing.StartsWith("parts/", StringComparison.Ordinal)
        || thing.StartsWith("shell/", StringComparison.Ordinal) ? $"{thing}/box/at" : $"{thing}/at");

    // The height of an end or a port is its part's.
    private void ReadHeight(Rig rig, string thing)
    {
        switch (thing.Split('/'))
        {
            case ["parts", var id, ..]:
                ReadShape(id);
                break;
            case ["runs", var id]:
                Read.Add($"runs/{id}");
                ReadEnds(rig, id, id);
                break;
            case ["runs", var id, "from" or "to"]:
                ReadEnds(rig, id, id);
                break;
            default:
                ReadPlace(thing);
                break;
        }
    }

    // Where a tee goes in, which way it lies, and an even fall depend on where the ends are.
    private void ReadEnds(Rig rig, string first, string second)
    {
        foreach (string? part in (ReadOnlySpan<string?>)[rig.Runs.Find(first)?.From.Part, rig.Runs.Find(second)?.To.Part])
            if (part is not null) ReadShape(part);
    }

    private void AddReferences(string path, Rig rig)
    {
        var steps = path.Split('/');
        switch (steps)
        {
            case ["parts", var id, ..] when rig.Parts.Find(id)?.Pad?.Sensor?.PartId is { } sensed && (steps.Length < 3 || steps[2] == "pad"):
                RefersTo.Add($"parts/{sensed}");
                break;
            case ["runs", var id, ..] when rig.Runs.Find(id) is { } run:
                AddEnd(run.From);
                AddEnd(run.To);
                foreach (var trace in run.Traces ?? [])
                    if (steps.Length < 3 || steps[2] == "traces") RefersTo.Add($"runs/{trace.Id}");
                break;
            case ["scenarios", var id, ..] when rig.Scenarios.Find(id) is { } scenario:
                // Only the settings that were written.
                foreach (var setting in scenario.Settings)
                    if (steps.Length < 4 || steps[3] == setting.Id) RefersTo.Add($"parts/{setting.Id}");
                if (steps.Length < 3 || steps[2] is "goal" or "gear")
                    foreach (string part in scenario.Goal?.PartIds() ?? []) RefersTo.Add($"parts/{part}");
                if (scenario.Gear is { } gear && (steps.Length < 3 || steps[2] == "gear")) RefersTo.Add($"parts/{gear.PartId}");
                break;
            case ["byHand", var id, ..]:
                RefersTo.Add($"parts/{id}");
                break;
            case ["shell", "zones", var id, ..] when rig.Shell.Zones.Find(id) is { } zone:
                foreach (string towards in zone.Faces.Select(f => f.Towards).OfType<string>().Concat(zone.Openings.Select(o => o.Towards)))
                    RefersTo.Add($"shell/zones/{towards}");
                break;
            case ["left", var id, ..] when rig.Left?.Find(id)?.Thing is { } done:
                RefersTo.Add(done);
                break;
            case ["ownSteps", var id, ..] when rig.OwnSteps?.Find(id)?.Thing is { } about:
                RefersTo.Add(about);
                break;
            case ["plans", var id, ..] when rig.Plans?.Find(id) is { } plan:
                foreach (string zone in plan.Events.SelectMany(e => (string?[])[e.ZoneId, e.Towards]).OfType<string>()) RefersTo.Add($"shell/zones/{zone}");
                foreach (string part in plan.Events.Select(e => e.PartId).OfType<string>()) RefersTo.Add($"parts/{part}");
                foreach (string run in plan.Events.Select(e => e.RunId).OfType<string>()) RefersTo.Add($"runs/{run}");
                break;
            default:
                break;
        }
    }

    private void AddEnd(RunEnd end)
    {
        if (end.Part is not null) RefersTo.Add($"parts/{end.Part}/ports/{end.Port}");
    }
}
