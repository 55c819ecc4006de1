using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Bench;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Server.Hosting;

namespace WarmConduit.Server.Studies;

/// <summary>A rig and the night it is asked about.</summary>
public sealed record StudyRequest(Rig Rig, Conditions Conditions) : IChecked
{
    IEnumerable<RigFault> IChecked.Check() => Conditions.Check().Concat(CheckedBodies.Of(Rig));
}

/// <summary>A rig and how it stands.</summary>
public sealed record DrainRequest(Rig Rig, Attitude Parked) : IChecked
{
    IEnumerable<RigFault> IChecked.Check() => (Conditions.Of(Rig.Brief) with { Parked = Parked }).Check()
        .Where(f => f.Path.StartsWith("conditions.parked", StringComparison.Ordinal))
        .Select(f => f with { Path = f.Path["conditions.".Length..] })
        .Concat(CheckedBodies.Of(Rig));
}

/// <summary>Pipes, solids and parts from stock.</summary>
public sealed record CatalogueAnswer(IReadOnlyList<PipeStock> Pipes, IReadOnlyList<SolidStock> Solids, IReadOnlyList<StockPart> Parts);

/// <summary>Studies asked statelessly: a rig in, answers out, nothing kept.</summary>
internal static class StudyEndpoints
{
    public static void Map(IEndpointRouteBuilder api)
    {
        var studies = api.MapGroup("/studies").WithTags("Studies");
        studies.MapPost("/drain-down", (DrainRequest ask) => TypedResults.Ok(DrainDownStudy.Ask(ask.Rig, ask.Parked)));
        studies.MapPost("/freeze-ladder", (StudyRequest ask) =>
            TypedResults.Ok(FreezeLadderStudy.Ask(ask.Rig, ask.Conditions, DrainDownStudy.Ask(ask.Rig, ask.Conditions.Parked))));
        studies.MapPost("/bench", (StudyRequest ask) => TypedResults.Ok(BenchStudy.Ask(ask.Rig, ask.Conditions)));
        api.MapGet("/catalogue", () => TypedResults.Ok(new CatalogueAnswer(Catalogue.Pipes, Catalogue.Solids, Catalogue.Parts))).WithTags("Studies");
    }
}
