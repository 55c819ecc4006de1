using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Studies.Night;

namespace WarmConduit.Core.Advice.Fixes;

/// <summary>A rig with edits done to it, and what the studies and rules then say. Nothing is saved.</summary>
internal sealed class Trial
{
    private readonly Question _before;
    private readonly Question _after;

    private readonly IReadOnlyList<Edit> _edits;

    private Trial(Question before, IReadOnlyList<Edit> edits, Edited edited) =>
        (_before, _edits, Edited, _after) = (before, edits, edited, before.On(edited.Rig, before.Cancel));

    public Edited Edited { get; }

    public Question After => _after;

    /// <summary>Tries <paramref name="edits"/>; null where they cannot be done, with the reason.</summary>
    public static Trial? Of(Question question, IReadOnlyList<Edit> edits, out string? refused)
    {
        refused = null;
        try
        {
            return new Trial(question, edits, Editor.Apply(question.Rig, edits));
        }
        catch (RigFileException e)
        {
            refused = e.Faults[0].Reason;
            return null;
        }
    }

    /// <summary>A new or moved part in the place of another, or of something solid; null: all have room.</summary>
    public string? NoRoom()
    {
        var rig = Edited.Rig;
        foreach (var part in Changed())
        {
            if (Catalogue.Part(part.Stock)!.Look == PartLook.Joint) continue;
            var solid = rig.Shell.Obstacles.FirstOrDefault(o => o.Box.Overlaps(part.Box, 0.004));
            if (solid is not null) return $"“{solid.Name}” is in the way";
            var other = rig.Parts.FirstOrDefault(p => p.Id != part.Id && Catalogue.Part(p.Stock)!.Look != PartLook.Joint && p.Box.Overlaps(part.Box, 0.004)
                && !WereOver(p.Id, part.Id));
            if (other is not null) return $"{other.Name} is in the way";
        }
        return null;
    }

    public double Litres() => _before.Ask(DrainDownStudy.Ask).Stays.TotalL - _after.Ask(DrainDownStudy.Ask).Stays.TotalL;

    /// <summary>The rig before and after, place by place.</summary>
    public Comparison Compared => field ??= new Comparison(_before, _after, _edits);

    public FixGain Gain()
    {
        var (gone, made) = Compared.Changes();
        return new FixGain(Litres(), [.. gone.Select(f => f.Title).Distinct()], [.. made.Select(f => f.Title).Distinct()], Compared.Worse,
            Math.Round(HoursWon(), 2));
    }

    /// <summary>A fault that was not there: what it is about; null: none.</summary>
    public string? NewFault() => Compared.Changes().Made.FirstOrDefault(f => f.Severity == Severity.Fault)?.Title;

    /// <summary>How much later ice first breaks something, h, counted to the end of what the night looks at.</summary>
    public double HoursWon()
    {
        return (At(_after) - At(_before)) / 3600;

        static double At(Question question)
        {
            var night = question.Ask(RigNight.Of);
            return Math.Min(night.FirstBreak().AtS, night.Answer.ReportS[^1]);
        }
    }

    public FixCost Cost()
    {
        var (was, rig) = (_before.Rig, Edited.Rig);
        var fresh = rig.Parts.Where(p => was.Parts.Find(p.Id) is null).ToList();
        static double Pipe(RigIndex index) => index.Rig.Runs.Sum(index.PipeLengthM);
        double pipe = Pipe(_after.Index) - Pipe(_before.Index);
        var moved = Moves().ToList();
        var living = fresh.Where(p => Catalogue.Part(p.Stock)!.Look != PartLook.Joint && _after.Index.ZoneAt(p.Box.Centre())?.Kind == ZoneKind.Living);
        return new FixCost(
            fresh.Count, Math.Round(pipe, 3), moved.Count, moved.Count == 0 ? 0 : moved.Max(), living.Sum(p => p.Box.VolumeM3()) * 1000, Money(fresh, pipe),
            rig.Shell.Access.Count == 0 ? 0 : fresh.Count(p => rig.Shell.AccessTo(p.Box.Centre()) is null));
    }

    private double? Money(List<Part> fresh, double pipe)
    {
        var prices = Edited.Rig.Prices;
        if (prices.Count == 0) return null;
        double sum = 0;
        foreach (var part in fresh)
        {
            if (prices.OfPart(part.Stock) is not { } piece) return null;
            sum += piece;
        }
        var run = Edited.Rig.Runs.FirstOrDefault(r => _before.Rig.Runs.Find(r.Id) is null);
        if (pipe > 0.05 && run is not null)
        {
            if (prices.OfMetre(run.Pipe) is not { } metre) return null;
            sum += metre * pipe;
        }
        return sum;
    }

    // How far each part and bend goes that was there before.
    private IEnumerable<double> Moves()
    {
        foreach (var part in Edited.Rig.Parts)
            if (_before.Rig.Parts.Find(part.Id) is { } was && was.Box.At.DistanceM(part.Box.At) is > 1e-6 and var far) yield return far;
        foreach (var run in Edited.Rig.Runs)
            foreach (var bend in run.Bends)
                if (_before.Rig.Runs.Find(run.Id)?.Bends.FirstOrDefault(b => b.Id == bend.Id) is { } was && was.At.DistanceM(bend.At) is > 1e-6 and var far)
                    yield return far;
    }

    private IEnumerable<Part> Changed() => Edited.Rig.Parts.Where(p => _before.Rig.Parts.Find(p.Id) is not { } was || was.Box != p.Box);

    private bool WereOver(string one, string other) =>
        _before.Rig.Parts.Find(one) is { } a && _before.Rig.Parts.Find(other) is { } b && a.Box.Overlaps(b.Box, 0.004);
}
