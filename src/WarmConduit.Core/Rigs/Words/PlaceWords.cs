using System.Text.Json.Nodes;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Rigs.Words;

/// <summary>A part typed in words: how it was understood, the edits that place and join it, and what can be typed next.</summary>
/// <param name="Understood">In words; null while it is incomplete.</param>
/// <param name="Edits">Empty until then.</param>
/// <param name="Next">Whole texts that complete what was typed; at most 8.</param>
public sealed record PlaceRead(Sentence? Understood, IReadOnlyList<Edit> Edits, IReadOnlyList<string> Next);

/// <summary>
/// Reads a part with its place and what it joins, in plain words: <c>place ball valve at 1.2 m, 30 cm, 20 cm joining fresh tank outlet</c>. The place is that
/// of its lowest corner at the rear on the kerb side: from the rear, from the kerb, above the floor.
/// </summary>
public static class PlaceWords
{
    private const string At = " at ", Joining = " joining ";
    private const int MostNext = 8;

    /// <summary>Reads <paramref name="text"/> for <paramref name="rig"/>. Throws <see cref="QuantityFormatException"/> at the character that is not
    /// understood.</summary>
    /// <param name="rig">The rig, checked before.</param>
    /// <param name="text">What was typed; at most 200 characters.</param>
    /// <param name="system">The system in which a bare number is meant.</param>
    /// <param name="partId">Id of the new part.</param>
    /// <param name="runId">Id of the run that joins it.</param>
    public static PlaceRead Read(Rig rig, string text, UnitSystem system, string partId, string runId)
    {
        int begin = text.StartsWith("place ", StringComparison.OrdinalIgnoreCase) ? 6 : 0;
        int at = text.IndexOf(At, StringComparison.OrdinalIgnoreCase);
        if (at >= 0 && at < begin) throw new QuantityFormatException(begin, "say what is placed, before at");
        if (at < 0) return new PlaceRead(null, [], [.. StockLike(text[begin..]).Select(s => $"place {s.Name}{At}")]);
        var stock = StockLike(text[begin..at]) switch
        {
            [var only] => only,
            [] => throw new QuantityFormatException(begin, "there is nothing of that name in stock"),
            var several => several.FirstOrDefault(s => s.Name.Equals(text[begin..at].Trim(), StringComparison.OrdinalIgnoreCase))
            ?? throw new QuantityFormatException(begin, $"that could be {string.Join(", ", several.Take(4).Select(s => s.Name))}"),
        };
        int tail = at + At.Length, joining = text.IndexOf(Joining, tail, StringComparison.OrdinalIgnoreCase);
        string figured = tail > text.Length ? "" : text[tail..(joining < 0 ? text.Length : joining)];
        if (PointText.Figures(figured) is not { } figures)
            return joining < 0 && figured.Count(c => c is ',' or ';') < 3 ? new PlaceRead(null, [], [])
                : throw new QuantityFormatException(tail, "after at come three lengths: from the rear, from the kerb, above the floor");
        var place = PointText.Read(figures, tail, system);
        var part = Turning.FromStock(stock, partId, stock.Name, place, null);
        var placed = new PlacePart(partId, stock.Id, stock.Name, part.Box.At);
        var understood = Sentence.Of($"{stock.Name}: {Measure.Length(place.XM)} from the rear, {Measure.Length(place.YM)} from the kerb, " +
            $"{Measure.Length(place.ZM)} above the floor");
        if (joining < 0) return new PlaceRead(understood, [placed], [text.TrimEnd() + Joining]);

        string typed = text[(joining + Joining.Length)..].Trim();
        var open = OpenPorts(rig).Where(p => p.Words.StartsWith(typed, StringComparison.OrdinalIgnoreCase)).ToList();
        var end = open.FirstOrDefault(p => p.Words.Equals(typed, StringComparison.OrdinalIgnoreCase));
        if (end.Part is null && open.Count == 1) end = open[0];
        if (end.Part is null)
        {
            if (open.Count == 0) throw new QuantityFormatException(joining + Joining.Length, "no part has a free port of that name");
            return new PlaceRead(null, [], [.. open.Take(MostNext).Select(p => text[..(joining + Joining.Length)] + p.Words)]);
        }
        var there = end.Part.PortAt(end.Port.Id)!.Value;
        // By the port of the new part that lies nearest; a spout is where water leaves it.
        var mine = part.Ports.OrderBy(p => p.Role == PortRole.Spout).ThenBy(p => part.PortAt(p.Id)!.Value.DistanceM(there)).First();
        var roles = new[] { end.Part.RoleOf(end.Port), part.RoleOf(mine) };
        var usual = UsualRuns.All.FirstOrDefault(u => roles.Contains(u.Role)) ?? UsualRuns.All[^1];
        string name = $"{end.Part.Name} to {stock.Name}";
        var run = new Run(runId, Names.Cut(name, Names.Longest), usual.Service, usual.Pipe, new RunEnd(end.Part.Id, end.Port.Id),
            new RunEnd(partId, mine.Id), []);
        return new PlaceRead(understood.And($"; {Catalogue.Pipe(usual.Pipe)!.Name} from {end.Words} to its {mine.Id}"),
            [placed, new AddThing("runs", (JsonObject)RigDiff.Node(run)!)], []);
    }

    private static List<StockPart> StockLike(string typed)
    {
        string name = typed.Trim();
        var starting = Catalogue.Parts.Where(s => s.Name.StartsWith(name, StringComparison.OrdinalIgnoreCase)).Take(MostNext).ToList();
        return starting.Count > 0 ? starting : [.. Catalogue.Parts.Where(s => s.Name.Contains(name, StringComparison.OrdinalIgnoreCase)).Take(MostNext)];
    }

    private static IEnumerable<(Part Part, Port Port, string Words)> OpenPorts(Rig rig)
    {
        var index = new RigIndex(rig);
        return rig.Parts.SelectMany(p => p.Ports.Where(q => !index.IsJoined(p.Id, q.Id)).Select(q => (p, q, $"{p.Name} {q.Called()}")));
    }
}
