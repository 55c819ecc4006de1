using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Server.Catalogues;

/// <summary>Pipes, solids and parts from stock, the standard scenarios, and the numbers of the trade that screens use.</summary>
/// <param name="Pipes">Pipes and hoses.</param>
/// <param name="Solids">Insulating and structural materials.</param>
/// <param name="Parts">Parts.</param>
/// <param name="Scenarios">The standard scenarios.</param>
/// <param name="Numbers">Numbers of the trade that screens use.</param>
public sealed record CatalogueAnswer(
    IReadOnlyList<PipeStock> Pipes, IReadOnlyList<SolidStock> Solids, IReadOnlyList<StockPart> Parts, IReadOnlyList<Scenario> Scenarios, TradeNumbers Numbers);

/// <summary>Numbers that screens judge by; the core has them once.</summary>
/// <param name="NearFreezingC">Colder water is close to its first ice, °C.</param>
/// <param name="WarmC">Warm water begins here, °C.</param>
/// <param name="HotC">Hot water begins here, °C.</param>
/// <param name="HoldC">Water is kept at or above this to be safe from frost, °C.</param>
/// <param name="HottestOutletC">Hottest water at an outlet that does not scald, °C.</param>
/// <param name="DryRunL">A run that keeps less runs dry, litres.</param>
public sealed record TradeNumbers(double NearFreezingC, double WarmC, double HotC, double HoldC, double HottestOutletC, double DryRunL);

/// <summary>The catalogue.</summary>
internal static class CatalogueEndpoints
{
    private static readonly CatalogueAnswer Answer = new(
        Catalogue.Pipes,
        Catalogue.Solids,
        Catalogue.Parts,
        Scenarios.Standard,
        new TradeNumbers(TradeConstants.NearFreezingC, TradeConstants.WarmC, TradeConstants.HotC, TradeConstants.HoldC, TradeConstants.HottestOutletC, TradeConstants.DryRunL));

    public static void Map(IEndpointRouteBuilder api) =>
        api.MapGet("/catalogue", () => TypedResults.Ok(Answer)).WithName("getCatalogue").WithTags("Catalogue").WithSummary("Pipes, solids, stock parts, standard scenarios and numbers of the trade, each with its source.");
}
