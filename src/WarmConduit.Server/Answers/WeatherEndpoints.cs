using WarmConduit.Core.Weather;

namespace WarmConduit.Server.Answers;

/// <summary>Weather as text, to be read.</summary>
/// <param name="Text">A weather file of the EPW kind, or a table with headings.</param>
public sealed record WeatherText(string Text);

/// <summary>Weather files over HTTP. Nothing is kept: the hours come back, and go with the night that is asked about.</summary>
internal static class WeatherEndpoints
{
    public static void Map(IEndpointRouteBuilder api)
    {
        var weather = api.MapGroup("/weather").WithTags("Weather");
        weather.MapPost("/", (WeatherText sent) => TypedResults.Ok(WeatherFiles.Read(sent.Text)))
            .RequireRateLimiting(Hosting.Limits.Work).WithName("readWeather").WithSummary("Reads hourly weather from an EPW file or a table; what cannot be read is named by line and column.");
        weather.MapGet("/{place}/{winter:int}.csv", (string place, int winter) => winter is >= 1 and <= WeatherChoice.MostWinters && WeatherModel.Named(place) is { } named
                ? Results.Text(WeatherFiles.Write(WeatherModel.Winter(named, winter)), "text/csv; charset=utf-8")
                : Results.NotFound())
            .Produces(200, contentType: "text/csv").WithName("getWinter").WithSummary("A winter of an invented place as a table, hour by hour from 1 October.").ProducesProblem(404);
    }
}
