using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.LayUp;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Scenarios;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.LayUp;

/// <summary>A place for a blow-out port.</summary>
/// <param name="RunId">The run that it goes into.</param>
/// <param name="Words">What is put where.</param>
/// <param name="Edits">The edits that do it.</param>
/// <param name="Reached">Outlets that its air gets to.</param>
/// <param name="LeftL">Water left in runs after two rounds with a workshop compressor, L. Estimate.</param>
public sealed record AirPortPlace(string RunId, Sentence Words, IReadOnlyList<Edit> Edits, int Reached, double LeftL);

/// <summary>Where air can be joined.</summary>
/// <param name="Has">The rig has a port, or an inlet that an adapter fits, and its air gets to every outlet.</param>
/// <param name="Outlets">Outlets in all.</param>
/// <param name="Places">Places for a port, the best first; none where nothing would be won.</param>
public sealed record AirPortAnswer(bool Has, int Outlets, IReadOnlyList<AirPortPlace> Places);

/// <summary>Proposes a blow-out port: behind the pump and its check valve, in a line of drinking water, from where air gets to most outlets.</summary>
public static class AirPortStudy
{
    private const int MostTried = 12, Most = 3;
    private const double UpM = 0.06;

    /// <summary>Asks. Pure. A look at the whole rig for each of at most 12 places.</summary>
    public static AirPortAnswer Ask(Question question)
    {
        var now = BlowOutStudy.Ask(question, new BlowOutInput(AirSource.WorkshopCompressor));
        int outlets = now.Steps.Count, reached = now.Steps.Count(s => s.RunIds.Count > 0);
        bool has = now.Gear.Count > 0 && now.Can && reached == outlets;
        if (outlets == 0 || (has && now.Gear.Any(g => question.Index.Part(g.PartId).Stock == "air-port"))) return new AirPortAnswer(has, outlets, []);
        var fit = new Fitter(question);
        var made = new List<AirPortPlace>();
        foreach (var (run, at) in Places(question).Take(MostTried))
        {
            question.Cancel.ThrowIfCancellationRequested();
            Sentence words = $"A blow-out port in {run.Name}";
            if (fit.Branch(run, at, "air-port", "port", UpM, words) is not { } idea || Trial.Of(question, idea.Edits, out _) is not { } trial
                || trial.NoRoom() is not null) continue;
            var air = BlowOutStudy.Ask(trial.After, new BlowOutInput(AirSource.WorkshopCompressor));
            int gets = air.Can ? air.Steps.Count(s => s.RunIds.Count > 0) : 0;
            if (gets > 0 && (gets > reached || !has)) made.Add(new AirPortPlace(run.Id, words, idea.Edits, gets, air.AfterL[^1]));
        }
        return new AirPortAnswer(has, outlets, [.. made.OrderByDescending(p => p.Reached).ThenBy(p => Math.Round(p.LeftL, 4)).Take(Most)]);
    }

    // Runs that a pump presses on, the nearest first, and a point of each.
    private static IEnumerable<(Run Run, int At)> Places(Question question)
    {
        var joined = question.Ask(Joined.Of);
        var pumps = question.Rig.Parts.Where(p => Catalogue.Part(p.Stock) is { Passage: Passage.Pump } or { Id: "foot-pump" }).ToList();
        var seen = new HashSet<string>();
        var queue = new Queue<(string Part, string? Port)>(pumps.Select(p => (p.Id, (string?)"out")));
        while (queue.TryDequeue(out var at))
            foreach (var (port, other, _, run) in joined.Of(at.Part))
            {
                if ((at.Port is not null && port != at.Port) || !RigFlow.IsWater(run) || run.Service != Service.Cold || !seen.Add(run.Id)) continue;
                int points = question.Index.CourseOf(run).Length;
                yield return (run, points > 2 ? points / 2 : 0);
                if (Catalogue.Part(question.Index.Part(other).Stock)!.Passage is Passage.Vessel or Passage.Mixer) continue;
                queue.Enqueue((other, null));
            }
    }
}
