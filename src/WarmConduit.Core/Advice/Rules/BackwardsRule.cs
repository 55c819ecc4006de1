using System.Text.Json.Nodes;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Networks;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>Pumps, filters, non-return valves, traps and heaters that are joined the wrong way round: what water reaches first should be their inlet.</summary>
internal sealed class BackwardsRule : IRule
{
    public IReadOnlyList<FindingKind> Kinds => [FindingKind.Backwards];

    public IEnumerable<Finding> Find(Question question)
    {
        var rig = question.Rig;
        var joined = question.Ask(Joined.Of);
        var tanks = Ids(rig, s => s is { Passage: Passage.Vessel, Group: PartGroup.Store });
        var basins = Ids(rig, s => s is { Passage: Passage.OpenEnd, Group: PartGroup.Waste });
        var fresh = joined.From(tanks, r => r.Service is Service.Cold or Service.Hot);
        var used = joined.From(basins, r => r.Service == Service.Waste);
        foreach (var part in rig.Parts)
        {
            var stock = Catalogue.Part(part.Stock)!;
            bool waste = stock.Group == PartGroup.Waste;
            // Town water comes from the other side; in a hot loop both sides of what sends the water back are reached first.
            bool loop = stock.Passage is Passage.OneWay or Passage.Pump && joined.Of(part.Id) is var lines && lines.Count > 1
                && lines.All(j => j.Run.Service == Service.Hot);
            if (stock.Group == PartGroup.Fill || loop || Ends(part, stock) is not var (first, second) || (waste ? basins : tanks).Count == 0) continue;
            // What lies behind a port is nearer to the source than the part itself when water comes in by it.
            int Behind(string port) => joined.Of(part.Id).Where(j => j.Port == port)
                .Select(j => (waste ? used : fresh).GetValueOrDefault(j.Other, int.MaxValue)).DefaultIfEmpty(int.MaxValue).Min();
            if (Behind(second) < Behind(first)) yield return Backwards(question, joined, part, first, second, waste);
        }
    }

    // The port that water should reach first, and the one that it should leave by.
    private static (string, string)? Ends(Part part, StockPart stock)
    {
        if (stock.Passage is Passage.OneWay or Passage.Pump || part.PortAt("in") is not null && part.PortAt("out") is not null
            && stock.Group is PartGroup.Clean) return ("in", "out");
        if (stock.Group == PartGroup.Heat && part.PortAt("cold") is not null && part.PortAt("hot") is not null && stock.Passage == Passage.Vessel)
            return ("cold", "hot");
        return stock.Id == "gas-heater" ? ("in", "out") : null;
    }

    private static List<string> Ids(Rig rig, Func<StockPart, bool> which) => [.. rig.Parts.Where(p => which(Catalogue.Part(p.Stock)!)).Select(p => p.Id)];

    private static Finding Backwards(Question question, Joined joined, Part part, string first, string second, bool waste)
    {
        string Called(string port) => part.Ports.First(p => p.Id == port).Called();
        return new Finding(
            $"backwards:{part.Id}", FindingKind.Backwards, Severity.Fault, part.Name, "backwards", null,
            $"From the {(waste ? "basin" : "tank")} water reaches its “{Called(second)}” first. Check its arrow: water has to enter by “{Called(first)}”.",
            Place.OnPart(question.Index, part), [.. joined.Of(part.Id).Select(j => j.Run.Id).Distinct()], null,
            [new Mend("Swap its two lines", Swapped(joined, part.Id, first, second))]);
    }

    /// <summary>The lines at two ports of a part, each led to the other port.</summary>
    internal static IReadOnlyList<Edit> Swapped(Joined joined, string partId, string first, string second) =>
    [
        .. joined.Of(partId).Where(j => j.Port == first || j.Port == second).Select(j => new ChangeThing(
            $"runs/{j.Run.Id}", new JsonObject { [j.Run.From.Part == partId && j.Run.From.Port == j.Port ? "from" : "to"] =
            new JsonObject { ["part"] = partId, ["port"] = j.Port == first ? second : first } })),
    ];
}
