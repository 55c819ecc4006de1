using WarmConduit.Application.Tables;
using WarmConduit.Core.Weather;

namespace WarmConduit.Server.Answers;

/// <summary>Weather as text, to be read.</summary>
/// <param name="Text">A weather file in EPW format, or a table with headings.</param>
public sealed record WeatherText(string Text);

/// <summary>Readings of thermometers as text, to be read.</summary>
/// <param name="Text">A table with headings: hour, outdoors, heater, and a column for each room by its name or id.</param>
/// <param name="Rooms">The rooms that the rig has.</param>
public sealed record ThermometerText(string Text, IReadOnlyList<Room> Rooms);

/// <summary>Weather files over HTTP. Nothing is kept: the hours come back, and go with the night that is asked about.</summary>
internal static class WeatherEndpoints
{
    public static void Map(IEndpointRouteBuilder api)
    {
        var weather = api.MapGroup("/weather").WithTags("Weather");
        weather.MapPost("/", (WeatherText sent) => TypedResults.Ok(WeatherFiles.Read(sent.Text)))
            .RequireRateLimiting(Hosting.Limits.Work).WithName("readWeather")
                .WithSummary("Reads hourly weather from an EPW file or a table; what cannot be read is named by line and column.");
        api.MapPost("/thermometers", (ThermometerText sent) => TypedResults.Ok(ThermometerFiles.Read(sent.Text, sent.Rooms)))
            .RequireRateLimiting(Hosting.Limits.Work).WithTags("Weather").WithName("readThermometers")
                .WithSummary("Reads a table of thermometers; what cannot be read is named by line and column.");
        weather.MapGet("/{place}/{winter:int}.csv", (string place, int winter) => winter is >= 1 and <= WeatherChoice.MostWinters
            && WeatherModel.Named(place) is { } named
                ? Results.Text(WeatherFiles.Write(WeatherModel.Winter(named, winter)), "text/csv; charset=utf-8")
                : Results.NotFound())
            .Produces(200, contentType: "text/csv").WithName("getWinter").WithSummary("A winter of an invented place as a table, hour by hour from 1 October.")
                .ProducesProblem(404);
    }
}
