using System.Net;
using Microsoft.AspNetCore.StaticFiles;
using Microsoft.Extensions.FileProviders;
using WarmConduit.Application.Answers;
using WarmConduit.Application.Backups;
using WarmConduit.Application.LayUp;
using WarmConduit.Core.Rigs;
using WarmConduit.Server.Answers;
using WarmConduit.Server.Backups;
using WarmConduit.Server.Catalogues;
using WarmConduit.Server.Changes;
using WarmConduit.Server.Jobs;
using WarmConduit.Server.LayUp;
using WarmConduit.Server.Pictures;
using WarmConduit.Server.Rigs;
using WarmConduit.Server.Sharing;
using WarmConduit.Server.Units;
using WarmConduit.Store;

namespace WarmConduit.Server.Hosting;

/// <summary>
/// Puts the application together. Settings, on the command line or in the environment: <c>port</c> (0: any free one), <c>data</c> (folder of the database),
/// <c>web</c> (folder of the built front end), <c>demo</c> (folder of rigs laid on an empty shelf), <c>share</c> (one address of the local network that it
/// answers on too; left out: none).
/// </summary>
public static class ServerHost
{
    /// <summary>Builds the application; <see cref="Prepare"/> then brings the database up to date and lays the demo rigs on a shelf that is new.</summary>
    public static WebApplication Build(string[] args)
    {
        var builder = WebApplication.CreateBuilder(new WebApplicationOptions { Args = args, ContentRootPath = AppContext.BaseDirectory });
        var settings = builder.Configuration;
        string? demo = settings["demo"];
        if (demo is not null && !Directory.Exists(demo)) throw new DirectoryNotFoundException($"There is no folder of demo rigs at {Path.GetFullPath(demo)}.");
        var data = new DataSettings(Path.GetFullPath(settings["data"] ?? "data"), demo);

        var share = ShareAddress(settings["share"]);

        builder.WebHost.ConfigureKestrel(kestrel =>
        {
            kestrel.Listen(IPAddress.Loopback, settings.GetValue("port", 5210));
            if (share is not null) kestrel.Listen(share, settings.GetValue("port", 5210));
            kestrel.Limits.MaxRequestBodySize = Guard.MaxBody;
            kestrel.AddServerHeader = false;
        });
        var services = builder.Services;
        services.AddSingleton(data);
        services.AddSingleton(_ => new Connections(data.Database));
        services.AddScoped(s => s.GetRequiredService<Connections>().Borrow());
        services.AddScoped(s => s.GetRequiredService<Connections.Loan>().Context());
        services.AddSingleton<RigCache>().AddSingleton<WriterLock>().AddSingleton<ChangeFeed>().AddSingleton<QuestionCache>().AddSingleton<ShelfReady>();
        services.AddHostedService(s => s.GetRequiredService<ShelfReady>());
        services.AddHostedService<AnswersAhead>();
        services.AddScoped<Shelf>().AddScoped<Attachments>().AddScoped<Collector>().AddScoped<Walks>().AddScoped<RigLog>();
        services.AddScoped<AnswerDesk>().AddScoped<WalkDesk>().AddScoped<LogDesk>();
        services.AddSingleton(new DataPlace(data.Folder, data.Database)).AddSingleton<BackupDesk>();
        services.AddSingleton(s => new ShareDoor(share, s.GetRequiredService<TimeProvider>()));
        services.AddSingleton<Lanes>().AddSingleton<JobBoard>();
        services.AddSingleton(TimeProvider.System);
        services.AddProblemDetails();
        services.AddExceptionHandler<ProblemAnswers>();
        services.AddRateLimiter(Limits.Configure);
        services.Configure<RouteHandlerOptions>(options => options.ThrowOnBadRequest = true);
        services.ConfigureHttpJsonOptions(options => RigFile.ReadStrictly(options.SerializerOptions));
        services.AddOpenApi(OpenApiWords.Configure);

        var app = builder.Build();
        app.UseExceptionHandler();
        app.UseStatusCodePages();
        app.UseGuard();
        app.UseRouting();
        app.UseGuests();
        app.UseWholeBodies();
        app.UseRateLimiter();
        // Before anything that an endpoint asks for is made: a connection wants a database.
        app.Use(async (context, next) =>
        {
            if (context.GetEndpoint()?.Metadata.GetMetadata<NeedsShelf>() is not null)
                await context.RequestServices.GetRequiredService<ShelfReady>().Prepare(context.RequestAborted);
            await next(context);
        });
        app.MapOpenApi("/openapi/{documentName}.json");
        var api = app.MapGroup("/api").ProducesValidationProblem();
        UnitEndpoints.Map(api);
        CatalogueEndpoints.Map(api);
        ChangeEndpoints.Map(api);
        var stored = api.MapGroup("").WithMetadata(new NeedsShelf());
        RigEndpoints.Map(stored);
        StartEndpoints.Map(stored);
        TableEndpoints.Map(stored);
        PictureEndpoints.Map(stored);
        BackupEndpoints.Map(stored);
        AnswerEndpoints.Map(stored);
        JobEndpoints.Map(stored);
        WalkEndpoints.Map(stored);
        LogEndpoints.Map(stored);
        WeatherEndpoints.Map(api);
        ShareEndpoints.Map(app, api);
        ServeFrontEnd(app, settings["web"]);
        return app;
    }

    /// <summary>Prepares the data folder. Trouble is told, and does not keep the program from answering: each request says what is wrong until it is
    /// cured.</summary>
    public static async Task Prepare(WebApplication app)
    {
        try
        {
            await app.Services.GetRequiredService<ShelfReady>().Prepare(app.Lifetime.ApplicationStopping);
        }
        catch (TroubleException)
        {
            // Logged where it was met.
        }
    }

    private static IPAddress? ShareAddress(string? asked) => asked is null ? null
        : IPAddress.TryParse(asked, out var address) && !address.Equals(IPAddress.Any) && !address.Equals(IPAddress.IPv6Any)
            && !address.Equals(IPAddress.Loopback)
            ? address : throw new ArgumentException($"--share wants one address of this machine on the local network, such as 192.168.1.20, not '{asked}'.");

    private static void ServeFrontEnd(WebApplication app, string? folder)
    {
        if (folder is null || !Directory.Exists(folder)) return;
        var files = new PhysicalFileProvider(Path.GetFullPath(folder));
        app.UseDefaultFiles(new DefaultFilesOptions { FileProvider = files });
        app.UseStaticFiles(new StaticFileOptions
        {
            FileProvider = files,
            OnPrepareResponse = SetCaching,
        });
        // Any other address is a place of the front end, but an unknown one of the API is unknown.
        app.MapFallbackToFile("{*path:nonfile:regex(^(?!api/|openapi/).*$)}", "index.html",
            new StaticFileOptions { FileProvider = files, OnPrepareResponse = SetCaching });
    }

    // Names under assets carry a hash of their content; all else may be another file after the next build.
    private static void SetCaching(StaticFileResponseContext context) => context.Context.Response.Headers.CacheControl =
        context.Context.Request.Path.StartsWithSegments("/assets") && context.File.Name != "index.html" ? "public, max-age=31536000, immutable" : "no-store";

}
