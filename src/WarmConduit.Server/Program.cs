using WarmConduit.Server.Hosting;
using WarmConduit.Server.Sharing;

var app = ServerHost.Build(args);
await ServerHost.Prepare(app);
await app.StartAsync();
// The launcher and the tests wait for this line.
Console.WriteLine($"Warm Conduit answers at {app.Urls.First()}");
if (ShareEndpoints.AddressOf(app, app.Services.GetRequiredService<ShareDoor>()) is { } shared)
    Console.WriteLine($"Shared on the local network, unencrypted, at {shared}: “Share with a phone” under Rigs shows the code.");
await app.WaitForShutdownAsync();

/// <summary>Entry point; named so that tests can start the application.</summary>
public partial class Program;
