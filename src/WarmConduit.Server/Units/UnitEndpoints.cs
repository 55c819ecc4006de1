using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Words;
using WarmConduit.Core.Units;
using WarmConduit.Server.Hosting;
using WarmConduit.Server.Sharing;

namespace WarmConduit.Server.Units;

/// <summary>Text to read as a quantity.</summary>
/// <param name="Text">What was typed, such as "1 1/2 in".</param>
/// <param name="Quantity">What kind of quantity it is.</param>
/// <param name="System">The system in which a bare number is meant.</param>
/// <param name="Beside">The text beside it, such as "300 mm": a bare number takes its unit. Left out: that of the system.</param>
public sealed record ParseRequest(string Text, Quantity Quantity, UnitSystem System, string? Beside = null);

/// <summary>The value in the quantity's base unit, and how it is printed.</summary>
/// <param name="Value">In the quantity's base unit.</param>
/// <param name="Printed">As it is printed in the reader's system.</param>
public sealed record ParseAnswer(double Value, string Printed);

/// <summary>Words for the next point of a run.</summary>
/// <param name="Text">What was typed.</param>
/// <param name="From">The last point, m.</param>
/// <param name="Towards">Where the hand points, m.</param>
/// <param name="Obstacles">Solids that may lie under it.</param>
/// <param name="Ports">Ports that it may end on.</param>
/// <param name="System">The system in which a bare number is meant.</param>
public sealed record StepRequest(string Text, Point3 From, Point3 Towards, IReadOnlyList<Obstacle> Obstacles, IReadOnlyList<PortName> Ports, UnitSystem System);

/// <summary>Reading of quantities, and the rules by which they are printed.</summary>
internal static class UnitEndpoints
{
    public static void Map(IEndpointRouteBuilder api)
    {
        var units = api.MapGroup("/units").WithMetadata(new GuestsToo()).WithTags("Units");
        units.MapGet("/", () => TypedResults.Ok(UnitTable.PrintRules)).WithName("getPrintRules").WithSummary("How quantities are printed, in both systems.");
        units.MapPost("/step", IResult (StepRequest ask) =>
        {
            if (ask.Text.Length > 100) return ProblemAnswers.Refused([new RigFault("text", "it is longer than 100 characters")]);
            try
            {
                return TypedResults.Ok(StepWords.Read(ask.Text, ask.From, ask.Towards, new Shell(new Box(default, default), ask.Obstacles, [], [], []),
                    ask.System, ask.Ports));
            }
            catch (QuantityFormatException e)
            {
                return ProblemAnswers.Refused([new RigFault("text", $"{e.Message} (at character {e.Position + 1})")]);
            }
        }).Produces<StepRead>().WithName("readStep").WithSummary("Reads the next point of a run in plain words, such as: rear 1.2 m, fall 2 %.");
        units.MapPost("/parse", IResult (ParseRequest ask) =>
        {
            if (ask.Text.Length > 100 || ask.Beside?.Length > 100) return ProblemAnswers.Refused([new RigFault("text", "it is longer than 100 characters")]);
            try
            {
                double value = QuantityText.Parse(ask.Text, ask.Quantity, ask.System, ask.Beside);
                return TypedResults.Ok(new ParseAnswer(value, QuantityText.Print(value, ask.Quantity, ask.System)));
            }
            catch (QuantityFormatException e)
            {
                return ProblemAnswers.Refused([new RigFault("text", $"{e.Message} (at character {e.Position + 1})")]);
            }
        }).Produces<ParseAnswer>().WithName("parseQuantity").WithSummary("Reads a quantity as people write it, in either system.");
    }
}
