using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Starting;
using WarmConduit.Core.Rigs.Words;

namespace WarmConduit.Server.Catalogues;

/// <summary>Pipes, solids and parts from stock, the standard scenarios, and the numbers of the trade that screens use.</summary>
/// <param name="Pipes">Pipes and hoses.</param>
/// <param name="Solids">Insulating and structural materials.</param>
/// <param name="Parts">Parts.</param>
/// <param name="Sets">Parts placed together.</param>
/// <param name="Scenarios">The standard scenarios.</param>
/// <param name="Schools">The schools that a brief chooses from.</param>
/// <param name="UsualRuns">What runs usually carry, by the port they start from.</param>
/// <param name="StepWords">Words for the next point of a run.</param>
/// <param name="Numbers">Numbers that screens use.</param>
/// <param name="UsualPad">A heating pad as it is first put on a part.</param>
/// <param name="UsualElement">An electric element as it is first put into what heats water.</param>
/// <param name="UsualTimer">A timer as a loop's pump is first put on one.</param>
/// <param name="UsualButton">A button as a loop's pump is first put on one.</param>
/// <param name="UsualFloor">A floor loop as a line is first laid into the floor.</param>
/// <param name="Limits">The limits of the figures of documents and questions, by the thing that has the field and the field's name.</param>
public sealed record CatalogueAnswer(
    IReadOnlyList<PipeStock> Pipes, IReadOnlyList<SolidStock> Solids, IReadOnlyList<StockPart> Parts, IReadOnlyList<PartSet> Sets,
    IReadOnlyList<Scenario> Scenarios, IReadOnlyList<SchoolOf> Schools, IReadOnlyList<UsualRun> UsualRuns, IReadOnlyList<StepWord> StepWords,
    TradeNumbers Numbers,
    Pad UsualPad,
    Pad UsualElement,
    PumpSwitch UsualTimer,
    PumpSwitch UsualButton,
    FloorLoop UsualFloor,
    IReadOnlyDictionary<string, FieldLimit> Limits);

/// <summary>Numbers that screens judge by, kept once in the core.</summary>
/// <param name="NearFreezingC">Colder water is close to its first ice, °C.</param>
/// <param name="WarmC">Warm water begins here, °C.</param>
/// <param name="HotC">Hot water begins here, °C.</param>
/// <param name="HoldC">Water is kept at or above this to be safe from frost, °C.</param>
/// <param name="HottestOutletC">Hottest water at an outlet without a scald risk, °C.</param>
/// <param name="DryRunL">A run that keeps less than this counts as dry, litres.</param>
/// <param name="FarthestM">Farthest from the origin, and longest edge, m.</param>
public sealed record TradeNumbers(double NearFreezingC, double WarmC, double HotC, double HoldC, double HottestOutletC, double DryRunL, double FarthestM);

/// <summary>The catalogue.</summary>
internal static class CatalogueEndpoints
{
    private static readonly CatalogueAnswer Answer = new(
        Catalogue.Pipes,
        Catalogue.Solids,
        Catalogue.Parts,
        PartSets.All,
        Scenarios.Standard,
        Schools.All,
        UsualRuns.All,
        Core.Rigs.Words.StepWords.All,
        new TradeNumbers(TradeConstants.NearFreezingC, TradeConstants.WarmC, TradeConstants.HotC, TradeConstants.HoldC, TradeConstants.HottestOutletC,
        TradeConstants.DryRunL, RigCheck.FarthestM),
        Pad.Usual,
        Pad.UsualElement,
        PumpSwitch.UsualTimer,
        PumpSwitch.UsualButton,
        FloorLoop.Usual,
        FieldLimits.All);

    public static void Map(IEndpointRouteBuilder api) =>
        api.MapGet("/catalogue", () => TypedResults.Ok(Answer)).WithName("getCatalogue").WithTags("Catalogue")
            .WithSummary("Pipes, solids, stock parts, standard scenarios and numbers of the trade, each with its source.");
}
