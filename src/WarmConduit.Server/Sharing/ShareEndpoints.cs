using Microsoft.AspNetCore.Http.HttpResults;
using QRCoder;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Server.Sharing;

/// <summary>How the program is shared.</summary>
/// <param name="Address">The address on the local network; null: it is not shared.</param>
/// <param name="IsGuest">Whoever asks is on that address.</param>
/// <param name="Entered">They have entered the code, or are on this machine.</param>
/// <param name="Guests">How many guests there are.</param>
public sealed record ShareState(string? Address, bool IsGuest, bool Entered, int Guests);

/// <summary>A code to let one guest in.</summary>
/// <param name="Code">Six digits.</param>
/// <param name="Until">When it is valid no more.</param>
/// <param name="Address">The address to open on the phone.</param>
/// <param name="Squares">The address as a QR code: rows of 1 (dark) and 0.</param>
public sealed record ShareCode(string Code, DateTimeOffset Until, string Address, IReadOnlyList<string> Squares);

/// <summary>A code that was typed.</summary>
/// <param name="Code">Six digits.</param>
public sealed record EnterCode(string Code);

/// <summary>Sharing on the local network over HTTP.</summary>
internal static class ShareEndpoints
{
    public static void Map(WebApplication app, IEndpointRouteBuilder api)
    {
        var share = api.MapGroup("/share").WithTags("Sharing");
        share.MapGet("/", (HttpContext context, ShareDoor door) => TypedResults.Ok(new ShareState(
                AddressOf(app, door), door.IsShared(context.Connection),
                !door.IsShared(context.Connection) || door.Knows(context.Request.Cookies[Guests.Cookie]), door.Guests)))
            .WithMetadata(new BeforeCode()).WithName("getSharing").WithSummary("Whether and where the program is shared on the local network.");
        share.MapPost("/code", Results<Ok<ShareCode>, NotFound> (ShareDoor door) =>
            {
                if (AddressOf(app, door) is not { } address) return TypedResults.NotFound();
                var (code, until) = door.NewCode();
                return TypedResults.Ok(new ShareCode(code, until, address, Squares(address)));
            })
            .WithMetadata(new HereOnly()).Accepts<object>("application/json").WithName("makeCode")
            .WithSummary("A new code of six digits, valid once, for ten minutes and five tries.").ProducesProblem(404);
        share.MapPost("/enter", NoContent (EnterCode ask, ShareDoor door, HttpResponse response) =>
            {
                var (token, why, left) = door.Enter(ask.Code);
                if (token is null)
                {
                    throw new RigFileException([new RigFault("code", why == Refused.NoCode ? "no code is valid now: show a new one on the first machine"
                        : left == 0 ? "that was the last try: show a new code on the first machine" : $"that is not the code; {left} tries left")]);
                }
                response.Cookies.Append(Guests.Cookie, token, new CookieOptions { HttpOnly = true, SameSite = SameSiteMode.Strict, Path = "/" });
                return TypedResults.NoContent();
            })
            .WithMetadata(new BeforeCode()).WithName("enterCode").WithSummary("Lets a guest in for the code.");
        share.MapPost("/end", NoContent (ShareDoor door) =>
            {
                door.End();
                return TypedResults.NoContent();
            })
            .WithMetadata(new HereOnly()).Accepts<object>("application/json").WithName("endSharing").WithSummary("Sends all guests away.");
    }

    /// <summary>The shared address as it is opened; null: it is not shared.</summary>
    internal static string? AddressOf(WebApplication app, ShareDoor door) =>
        door.Address is null ? null : app.Urls.FirstOrDefault(u => Uri.TryCreate(u, UriKind.Absolute, out var at) && at.Host == HostOf(door));

    /// <summary>The address as hosts are written.</summary>
    internal static string HostOf(ShareDoor door) => new UriBuilder("http", door.Address!.ToString()).Uri.Host;

    private static IReadOnlyList<string> Squares(string address)
    {
        using var made = QRCodeGenerator.GenerateQrCode(address, QRCodeGenerator.ECCLevel.M);
        return [.. made.ModuleMatrix.Select(row => string.Concat(row.Cast<bool>().Select(dark => dark ? '1' : '0')))];
    }
}
