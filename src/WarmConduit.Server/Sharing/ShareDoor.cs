using System.Globalization;
using System.Net;
using System.Security.Cryptography;
using System.Text;

namespace WarmConduit.Server.Sharing;

/// <summary>Why a code was not taken.</summary>
internal enum Refused
{
    /// <summary>It was.</summary>
    No,

    /// <summary>It is another one.</summary>
    Wrong,

    /// <summary>No code is valid now.</summary>
    NoCode,
}

/// <summary>
/// Sharing on one address of the local network: off unless asked for at the start. A code of six digits is shown on this machine, is valid once and for ten
/// minutes, and for five tries; who enters it is a guest until sharing ends. All of it is in memory alone.
/// </summary>
internal sealed class ShareDoor(IPAddress? address, TimeProvider time) : IDisposable
{
    /// <summary>How long a code is valid.</summary>
    public static readonly TimeSpan Valid = TimeSpan.FromMinutes(10);

    private const int MostTries = 5, MostGuests = 8;

    private readonly Lock _lock = new();
    private readonly List<string> _guests = [];
    private CancellationTokenSource _ends = new();
    private string? _code;
    private DateTimeOffset _until;
    private int _tries;

    /// <summary>The address that it is shared on; null: it is not.</summary>
    public IPAddress? Address => address;

    /// <summary>How many guests there are.</summary>
    public int Guests
    {
        get
        {
            lock (_lock) return _guests.Count;
        }
    }

    /// <summary>Ends when the guests are sent away.</summary>
    public CancellationToken Ends
    {
        get
        {
            lock (_lock) return _ends.Token;
        }
    }

    /// <summary>Whether a request came in over the shared address.</summary>
    public bool IsShared(ConnectionInfo connection) => address is not null && Equals(Plain(connection.LocalIpAddress), address);

    /// <summary>A new code; the one before it is valid no more.</summary>
    public (string Code, DateTimeOffset Until) NewCode()
    {
        lock (_lock)
        {
            _code = RandomNumberGenerator.GetInt32(1_000_000).ToString("D6", CultureInfo.InvariantCulture);
            (_until, _tries) = (time.GetUtcNow() + Valid, MostTries);
            return (_code, _until);
        }
    }

    /// <summary>A guest's token for a code; null with the reason and the tries that are left.</summary>
    public (string? Token, Refused Why, int TriesLeft) Enter(string code)
    {
        lock (_lock)
        {
            if (_code is null || time.GetUtcNow() >= _until) return (null, Refused.NoCode, 0);
            if (!CryptographicOperations.FixedTimeEquals(Encoding.UTF8.GetBytes(code), Encoding.UTF8.GetBytes(_code)))
            {
                if (--_tries == 0) _code = null;
                return (null, Refused.Wrong, _tries);
            }
            _code = null;
            // Who came first goes first.
            if (_guests.Count >= MostGuests) _guests.RemoveAt(0);
            string token = Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(32));
            _guests.Add(Sum(token));
            return (token, Refused.No, 0);
        }
    }

    /// <summary>Whether a token is a guest's.</summary>
    public bool Knows(string? token)
    {
        if (token is null) return false;
        lock (_lock) return _guests.Contains(Sum(token));
    }

    /// <summary>Sends all guests away, and takes back the code.</summary>
    public void End()
    {
        CancellationTokenSource ended;
        lock (_lock)
        {
            _guests.Clear();
            _code = null;
            (ended, _ends) = (_ends, new CancellationTokenSource());
        }
        ended.Cancel();
        ended.Dispose();
    }

    /// <inheritdoc/>
    public void Dispose() => _ends.Dispose();

    private static string Sum(string token) => Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes(token)));

    private static IPAddress? Plain(IPAddress? at) => at is { IsIPv4MappedToIPv6: true } ? at.MapToIPv4() : at;
}
