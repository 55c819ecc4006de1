using System.Collections.Concurrent;
using System.Runtime.CompilerServices;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Heat;
using WarmConduit.Core.Heat.Night;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.Networks;

/// <summary>A face of a room that something lies against.</summary>
/// <param name="Out">The way out of the room through it.</param>
/// <param name="Beyond">The zone behind it; null: outdoors.</param>
/// <param name="IsBareSkin">Outdoors behind hardly anything: the air at it is the skin's, not the room's.</param>
/// <param name="SurfaceShare">How far its surface is from the room's air towards what is behind, 0..1; in a wind, where there is one: at the most.</param>
/// <param name="ResistanceM2KPerW">From its surface to what is behind, m²K/W; without the film there where that is in the wind.</param>
/// <param name="Windy">What is behind is in the wind.</param>
internal sealed record FaceBehind(Point3 Out, Zone? Beyond, bool IsBareSkin, double SurfaceShare, double ResistanceM2KPerW, bool Windy);

/// <summary>What lies against a face of its room: the surface there is colder than the room, by as much as what is behind takes from it.</summary>
/// <remarks>Safe to share between threads, and between rigs of one shell.</remarks>
internal sealed class SurfaceContacts(Shell shell)
{
    /// <summary>Nearer than a hand is thick there is no room air between, m. Estimate.</summary>
    public const double NearM = 0.025;

    /// <summary>The share of a line's surface that looks at what it lies against. Estimate.</summary>
    public const double FacesShare = 0.5;

    // Less resistance than a finger of foam is none. Estimate.
    private const double BareM2KPerW = 0.15, LeastM2KPerW = 1e-3, BehindM = 0.02;

    private static readonly SteadyNight Windy = new(0, 4, false);

    private static readonly (Facing Facing, Facing Back, Point3 Out)[] Ways =
    [
        (Facing.Rear, Facing.Forward, new(-1, 0, 0)), (Facing.Forward, Facing.Rear, new(1, 0, 0)), (Facing.KerbSide, Facing.FarSide, new(0, -1, 0)),
        (Facing.FarSide, Facing.KerbSide, new(0, 1, 0)), (Facing.Down, Facing.Up, new(0, 0, -1)), (Facing.Up, Facing.Down, new(0, 0, 1)),
    ];

    private readonly ConcurrentDictionary<(string Zone, Facing Facing, string? Beyond), FaceBehind?> _known = [];
    private readonly ConditionalWeakTable<CutLength[], FaceBehind?[]> _ofCuts = [];
    private readonly ZonesBySize _zones = new(shell.Zones);

    /// <summary>For each length of a run, the face that it lies against; <paramref name="pointAt"/> has the points of its course, and is asked once for lengths
    /// that stay the same.</summary>
    public FaceBehind?[] Of(CutLength[] lengths, Func<int, Point3> pointAt)
    {
        if (_ofCuts.TryGetValue(lengths, out var known)) return known;
        var made = new FaceBehind?[lengths.Length];
        for (int i = 0; i < made.Length; i++)
        {
            var (a, b) = (pointAt(lengths[i].Segment), pointAt(lengths[i].Segment + 1));
            if (lengths[i].Zone is { } zone) made[i] = Of(zone, a.Towards(b, lengths[i].From), a.Towards(b, lengths[i].To));
        }
        _ofCuts.AddOrUpdate(lengths, made);
        return made;
    }

    // Of the faces that a straight length lies against, a bare skin before others; null: none, or none of which anything is known.
    private FaceBehind? Of(Zone zone, Point3 a, Point3 b)
    {
        FaceBehind? found = null;
        foreach (var (facing, _, outward) in Ways)
        {
            if (Math.Max(FromSide(zone.Box, a, outward), FromSide(zone.Box, b, outward)) > NearM
                || Behind(zone, facing, a.Towards(b, 0.5)) is not { } face) continue;
            if (face.IsBareSkin) return face;
            found ??= face;
        }
        return found;
    }

    /// <summary>The face that the side of a box that looks <paramref name="facing"/> stands against; null: none.</summary>
    public FaceBehind? Of(Zone zone, Box box, Facing facing)
    {
        var outward = Ways.First(w => w.Facing == facing).Out;
        var middle = box.Centre() + outward * (0.5 * Math.Abs(box.Size.XM * outward.XM + box.Size.YM * outward.YM + box.Size.ZM * outward.ZM));
        return FromSide(zone.Box, middle, outward) is <= NearM and >= -NearM ? Behind(zone, facing, middle) : null;
    }

    /// <summary>How far a place is from the side of a box that looks <paramref name="outward"/>, m.</summary>
    public static double FromSide(Box box, Point3 p, Point3 outward)
    {
        var (low, high) = (box.At, box.Far());
        return outward switch
        {
            { XM: < 0 } => p.XM - low.XM,
            { XM: > 0 } => high.XM - p.XM,
            { YM: < 0 } => p.YM - low.YM,
            { YM: > 0 } => high.YM - p.YM,
            { ZM: < 0 } => p.ZM - low.ZM,
            _ => high.ZM - p.ZM,
        };
    }

    private FaceBehind? Behind(Zone zone, Facing facing, Point3 at)
    {
        var (_, back, outward) = Ways.First(w => w.Facing == facing);
        var beyond = _zones.At(at + outward * (FromSide(zone.Box, at, outward) + BehindM));
        if (beyond == zone) return null;
        var key = (zone.Id, facing, beyond?.Id);
        if (!_known.TryGetValue(key, out var known)) _known[key] = known = Made(zone, facing, back, beyond, outward);
        return known;
    }

    // A partition stands in the list of either room.
    private static FaceBehind? Made(Zone zone, Facing facing, Facing back, Zone? beyond, Point3 outward)
    {
        if ((Listed(zone, facing, beyond?.Id) ?? (beyond is null ? null : Listed(beyond, back, zone.Id))) is not { } face) return null;
        // A wind of four metres a second stands for any where films of both sides are taken off again; what the wall holds without them hardly hangs on it.
        bool here = ZoneBalance.InWind(zone), there = beyond is null || ZoneBalance.InWind(beyond);
        double film = 1 / SurfaceCoefficient.OuterWallWPerM2K(Windy.WindMPerS, WallFilm.Emissivity, Windy.OutdoorC),
            still = ZoneBalance.InnerSurfaceM2KPerW(face);
        double whole = 1 / ZoneBalance.Transmittance(face, Windy, here || there);
        double near = here ? film : still, far = there ? here ? still : film : 0;
        bool bare = beyond is null && Layered.Of(face.Layers).Sum(l => l.Resistance()) < BareM2KPerW;
        return new FaceBehind(outward, beyond, bare, Math.Clamp(near / (whole - far), 0, 1), Math.Max(LeastM2KPerW, whole - near - far), there);
    }

    private static Face? Listed(Zone zone, Facing facing, string? towards) =>
        (zone.Faces.Find(Skin.FaceId(Skin.Words(facing), towards)) ?? zone.Faces.FirstOrDefault(f => f.Towards == towards
            && f.Side == Skin.SideOf(facing))) is { Layers.Count: > 0 } face ? face : null;
}
