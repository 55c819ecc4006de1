using System.Net;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.FileProviders;
using WarmConduit.Core.Rigs;
using WarmConduit.Server.Rigs;
using WarmConduit.Server.Studies;
using WarmConduit.Server.Units;
using WarmConduit.Store;

namespace WarmConduit.Server.Hosting;

/// <summary>
/// Puts the application together. Settings, on the command line or in the environment: <c>port</c> (0: any free one), <c>data</c> (folder of the database),
/// <c>web</c> (folder of the built front end), <c>demo</c> (folder of rigs laid on an empty shelf).
/// </summary>
public static class Application
{
    /// <summary>Builds the application, brings the database up to date and lays the demo rigs on a shelf that is new.</summary>
    public static WebApplication Build(string[] args)
    {
        var builder = WebApplication.CreateBuilder(new WebApplicationOptions { Args = args, ContentRootPath = AppContext.BaseDirectory });
        var settings = builder.Configuration;
        string data = Path.GetFullPath(settings["data"] ?? "data");
        Directory.CreateDirectory(data);
        string? demo = settings["demo"];
        if (demo is not null && !Directory.Exists(demo)) throw new DirectoryNotFoundException($"There is no folder of demo rigs at {Path.GetFullPath(demo)}.");

        builder.WebHost.ConfigureKestrel(kestrel =>
        {
            kestrel.Listen(IPAddress.Loopback, settings.GetValue("port", 5210));
            kestrel.Limits.MaxRequestBodySize = RigFile.MaxBytes + 100_000;
            kestrel.AddServerHeader = false;
        });
        builder.Services.AddDbContext<ShelfContext>(options => ShelfContext.Configure(options, Path.Combine(data, "warm-conduit.db")));
        builder.Services.AddScoped<Shelf>();
        builder.Services.AddSingleton(TimeProvider.System);
        builder.Services.AddProblemDetails();
        builder.Services.AddExceptionHandler<ProblemAnswers>();
        builder.Services.Configure<RouteHandlerOptions>(options => options.ThrowOnBadRequest = true);
        builder.Services.ConfigureHttpJsonOptions(options => RigFile.ReadStrictly(options.SerializerOptions));
        builder.Services.AddOpenApi(OpenApiNames.Configure);

        var app = builder.Build();
        app.UseExceptionHandler();
        app.UseStatusCodePages();
        app.UseLoopbackOnly();
        app.MapOpenApi("/openapi/{documentName}.json");
        var api = app.MapGroup("/api").AddEndpointFilter<CheckedBodies>().ProducesValidationProblem();
        RigEndpoints.Map(api);
        StudyEndpoints.Map(api);
        UnitEndpoints.Map(api);
        ServeFrontEnd(app, settings["web"]);

        using var scope = app.Services.CreateScope();
        var db = scope.ServiceProvider.GetRequiredService<ShelfContext>();
        bool isNew = !db.Database.GetAppliedMigrations().Any();
        db.Database.Migrate();
        if (isNew && demo is not null) LayOutDemo(scope.ServiceProvider.GetRequiredService<Shelf>(), demo);
        return app;
    }

    private static void LayOutDemo(Shelf shelf, string folder)
    {
        foreach (string file in Directory.GetFiles(folder, "*.json").Order())
            shelf.Add(RigFile.Read(File.ReadAllBytes(file)), "Demo rig", CancellationToken.None).GetAwaiter().GetResult();
    }

    private static void ServeFrontEnd(WebApplication app, string? folder)
    {
        if (folder is null || !Directory.Exists(folder)) return;
        var files = new PhysicalFileProvider(Path.GetFullPath(folder));
        app.UseDefaultFiles(new DefaultFilesOptions { FileProvider = files });
        app.UseStaticFiles(new StaticFileOptions
        {
            FileProvider = files,
            // Names under assets carry a hash of their content.
            OnPrepareResponse = context => context.Context.Response.Headers.CacheControl =
                context.Context.Request.Path.StartsWithSegments("/assets") ? "public, max-age=31536000, immutable" : "no-cache",
        });
        // Any other address is a place of the front end, but an unknown one of the API is unknown.
        app.MapFallbackToFile("{*path:nonfile:regex(^(?!api/|openapi/).*$)}", "index.html", new StaticFileOptions { FileProvider = files });
    }
}
