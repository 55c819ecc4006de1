using WarmConduit.Server.Hosting;

var app = ServerHost.Build(args);
await ServerHost.Prepare(app);
await app.StartAsync();
// The launcher and the tests wait for this line.
Console.WriteLine($"Warm Conduit answers at {app.Urls.First()}");
await app.WaitForShutdownAsync();

/// <summary>Entry point; named so that tests can start the application.</summary>
public partial class Program;
