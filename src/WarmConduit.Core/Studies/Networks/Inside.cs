using WarmConduit.Core.Levels;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.Networks;

/// <summary>What joins what inside a part, by how it is set and which way it lets through. Whatever follows water, air or ice through a rig asks
/// here.</summary>
internal static class Inside
{
    /// <summary>
    /// The ways between ports of <paramref name="part"/>, each once, when it is set to <paramref name="position"/>; those that are shut are among them. A tank
    /// has none: its inside is a place of its own.
    /// </summary>
    public static IEnumerable<(string From, string To, Passes Passes)> Ways(Part part, StockPosition? position)
    {
        bool passes = position?.Passes == true;
        return Catalogue.Part(part.Stock)!.Passage switch
        {
            Passage.Through => Pairs((_, _) => true),
            Passage.Valve => Pairs((a, b) => passes && (position!.Joins is null || position.Joins.Any(group => group.Contains(a) && group.Contains(b)))),
            Passage.Mixer => Pairs((_, _) => passes),
            Passage.OneWay => [("in", "out", Passes.Forward)],
            Passage.Pump => [("in", "out", passes ? Passes.Forward : Passes.None)],
            _ => [],
        };

        // Every pair, so that water between two ports need not climb over a third.
        IEnumerable<(string, string, Passes)> Pairs(Func<string, string, bool> joined)
        {
            for (int j = 0; j < part.Ports.Count; j++)
                for (int k = j + 1; k < part.Ports.Count; k++)
                    yield return (part.Ports[j].Id, part.Ports[k].Id, joined(part.Ports[j].Id, part.Ports[k].Id) ? Passes.Both : Passes.None);
        }
    }

    /// <summary>Ports that are joined both ways, and so meet in one place; groups of two or more, in the order of the part's ports.</summary>
    public static IEnumerable<IReadOnlyList<string>> Meeting(Part part, StockPosition? position)
    {
        var both = Ways(part, position).Where(w => w.Passes == Passes.Both).ToList();
        var left = part.Ports.Select(p => p.Id).ToList();
        while (left.Count > 0)
        {
            var group = new List<string> { left[0] };
            for (int i = 0; i < group.Count; i++)
                group.AddRange(both.Where(w => w.From == group[i] || w.To == group[i]).Select(w => w.From == group[i] ? w.To : w.From)
                    .Where(p => !group.Contains(p)).ToList());
            left.RemoveAll(group.Contains);
            if (group.Count > 1) yield return group;
        }
    }

    /// <summary>Whether it lets through from <paramref name="from"/> to <paramref name="to"/>, a tank through its inside.</summary>
    public static bool Leads(Part part, StockPosition? position, string from, string to) =>
        Catalogue.Part(part.Stock)!.Passage == Passage.Vessel
        || Ways(part, position).Any(w => w.Passes != Passes.None && ((w.From == from && w.To == to)
            || (w.Passes == Passes.Both && w.From == to && w.To == from)));
}
