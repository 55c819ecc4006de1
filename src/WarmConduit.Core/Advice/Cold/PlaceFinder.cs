using System.Text.Json.Nodes;
using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Cold;

/// <summary>What is set in each place.</summary>
/// <param name="PartId">The part; left out: the largest tank.</param>
public sealed record PlacesInput(string? PartId = null) : IStudyInput
{
    /// <inheritdoc/>
    public IReadOnlyList<RigFault> Check(Rig rig) => PartId is not null && rig.Parts.Find(PartId) is null
        ? [new RigFault("partId", $"there is no part '{PartId}'")] : [];
}

/// <summary>A part in one of its places, on this night.</summary>
/// <param name="Name">Where.</param>
/// <param name="IsNow">Where it is drawn.</param>
/// <param name="Edits">The edits that put it there; empty where it is.</param>
/// <param name="Effect">What they do to the document; null likewise.</param>
/// <param name="FirstIceS">First ice in it, s; null: none in the time calculated.</param>
/// <param name="EarliestS">With every guess on its cold side; null likewise.</param>
/// <param name="LatestS">With every guess on its warm side; null likewise.</param>
/// <param name="ColdestC">The lowest air temperature around it until morning, °C.</param>
/// <param name="HoldW">Heat that keeps it at the safe temperature (<see cref="TradeConstants.HoldC"/>) in that, W.</param>
/// <param name="StorageL">Inside space that it takes, L.</param>
/// <param name="FullKg">Its mass full, kg.</param>
/// <param name="CentreM">Height of its middle above the floor, m.</param>
/// <param name="JointsOutside">Joints of its lines outdoors.</param>
/// <param name="Wins">What it improves and worsens on this night, and once the rig is drained; null where it is.</param>
/// <param name="Caution">The case for the other school; null: none.</param>
public sealed record ComparedPlace(
    string Name,
    bool IsNow,
    IReadOnlyList<Edit> Edits,
    Effect? Effect,
    double? FirstIceS,
    double? EarliestS,
    double? LatestS,
    double ColdestC,
    double HoldW,
    double StorageL,
    double FullKg,
    double CentreM,
    int JointsOutside,
    FixGain? Wins,
    Sentence? Caution);

/// <summary>A part that can be compared in several places.</summary>
/// <param name="Id">The part.</param>
/// <param name="Name">Its name.</param>
public sealed record PlaceablePart(string Id, string Name);

/// <summary>A part in up to four places on one night.</summary>
/// <param name="PartId">The part.</param>
/// <param name="PartName">Its name.</param>
/// <param name="Places">Where it is, and where it might be.</param>
/// <param name="EndS">The end of the calculation, s.</param>
/// <param name="Refused">Places that have no room for it, in words.</param>
/// <param name="Offered">Parts that can be compared: those with ports, larger than a fitting.</param>
public sealed record PlacesAnswer(string PartId, string PartName, IReadOnlyList<ComparedPlace> Places, double EndS, IReadOnlyList<string> Refused,
    IReadOnlyList<PlaceablePart> Offered);

/// <summary>The oldest quarrel of the trade, settled for one rig: inside, in a bay, under the floor, or boxed in there.</summary>
public static class PlaceFinder
{
    /// <summary>Board of a box under the floor, m.</summary>
    internal const double BoxM = 0.03;

    private const double LeastSizeL = 0.8, StepM = 0.05, RoundM = 0.02, LookH = 48;

    private static readonly ZoneKind[] Inside = [ZoneKind.Living, ZoneKind.Cupboard], Bay = [ZoneKind.Garage], Under = [ZoneKind.OpenUnderfloor];

    /// <summary>
    /// Each place is tried on the whole rig, its lines drawn along as they are. Looks two days ahead at the least. Pure. O(places · three nights).
    /// </summary>
    public static PlacesAnswer Ask(Question question, PlacesInput input)
    {
        var tank = question.Rig.Parts.Find(input.PartId ?? "") ?? question.Rig.Parts.Where(p => Catalogue.Part(p.Stock)!.Passage == Passage.Vessel)
            .MaxBy(PartWater.HoldsL);
        PlaceablePart[] offered = [.. question.Rig.Parts.Where(p => p.Ports.Count > 0 && p.Box.VolumeM3() * 1000 > LeastSizeL)
            .Select(p => new PlaceablePart(p.Id, p.Name))];
        if (tank is null) return new PlacesAnswer("", "", [], 0, [], offered);
        // Full, whatever the night says: what is compared has water in it.
        var asked = question.With(question.Conditions with { Water = WaterState.Wet, Hours = Math.Max(LookH, question.Conditions.Hours) });
        var (places, refused) = (new List<ComparedPlace> { Of(asked, tank, question.Index.ZoneAt(tank.Box.Centre())?.Name ?? "outdoors", [], null, null) },
            new List<string>());
        var here = question.Index.ZoneAt(tank.Box.Centre())?.Kind;
        void Try(string name, ZoneKind[] kinds, bool boxed = false)
        {
            question.GoOn(places.Count + refused.Count, 5);
            if (places.Count == 4 || (!boxed && here is { } kind && kinds.Contains(kind))) return;
            if (Set(question, tank, kinds, boxed) is { } set && Trial.Of(asked, set.Edits, out _) is { } there)
                places.Add(Of(there.After, there.After.Index.Part(tank.Id), boxed ? name : set.Zone.Name, set.Edits, there.Edited.Effect,
                    Trial.Of(question, set.Edits, out _)?.Gain()));
            else refused.Add(name);
        }
        Try("inside", Inside);
        Try("in the bay", Bay);
        Try("under the floor", Under);
        Try("boxed in under the floor", Under, boxed: true);
        return new PlacesAnswer(tank.Id, tank.Name, places, asked.Ask(RigNight.Of).Answer.ReportS[^1], refused, offered);
    }

    /// <summary>A free spot inside for a part, and the edits that set it there; null: there is none.</summary>
    internal static (Zone Zone, List<Edit> Edits)? Indoors(Question question, Part part) => Set(question, part, Inside, boxed: false);

    /// <summary>A free spot under the floor with room for a box around it, likewise.</summary>
    internal static (Zone Zone, List<Edit> Edits)? BoxedIn(Question question, Part part) => Set(question, part, Under, boxed: true);

    private static (Zone Zone, List<Edit> Edits)? Set(Question question, Part part, ZoneKind[] kinds, bool boxed)
    {
        foreach (var zone in question.Rig.Shell.Zones.Where(z => kinds.Contains(z.Kind)))
        {
            if (Spot(question, part, zone, boxed ? BoxM + RoundM : 0) is not { } at) continue;
            var by = at - part.Box.At;
            return (zone, [.. by.DistanceM(default) > 1e-6 ? [new MoveThings([$"parts/{part.Id}"], by)] : (Edit[])[], .. boxed
                ? Boxed(question.Rig, part.Box with { At = at }) : []]);
        }
        return null;
    }

    private static ComparedPlace Of(Question asked, Part part, string name, List<Edit> edits, Effect? effect, FixGain? wins)
    {
        asked.Cancel.ThrowIfCancellationRequested();
        var night = asked.Ask(RigNight.Of);
        double? At(RigNight of) => Enumerable.Range(0, of.Candidates.Count).Where(n => of.Candidates[n].Id == part.Id)
            .Select(n => (double?)of.Marks(n).FirstIceS).FirstOrDefault() is { } s && double.IsFinite(s) ? s : null;
        var zone = asked.Index.ZoneAt(part.Box.Centre());
        int morning = Math.Max(1, night.Answer.ReportS.ToList().FindIndex(s => s >= night.MorningS));
        double Coldest(Zone? of) => Enumerable.Range(0, morning + 1).Min(r => night.AirC(of, r));
        double coldest = Coldest(zone);
        var steady = asked.Conditions.Steady();
        bool inRoom = zone?.Kind is ZoneKind.Living or ZoneKind.Garage or ZoneKind.Cupboard;
        bool Windy(Point3 at) => asked.Index.ZoneAt(at) is null or { Kind: ZoneKind.OpenUnderfloor };
        int joints = asked.Rig.Runs.Where(r => r.From.Part == part.Id || r.To.Part == part.Id)
            .SelectMany(r => asked.Index.CourseOf(r) is { Length: > 1 } course ? (Point3[])[course[0], course[^1]] : []).Count(Windy);
        bool vessel = Catalogue.Part(part.Stock)!.Passage == Passage.Vessel;
        return new ComparedPlace(
            name, edits.Count == 0, edits, effect, At(night), At(RigNight.Of(asked, Uncertainty.Pessimistic)), At(RigNight.Of(asked, Uncertainty.Optimistic)),
            coldest, PartContacts.Of(asked, part).Sum(c => c.AtWPerK(steady.OutdoorC, steady.WindMPerS) * Math.Max(0, TradeConstants.HoldC - Coldest(c.To))),
            inRoom ? part.Box.VolumeM3() * 1000 : 0, PartWater.HoldsL(part) + PartWater.EmptyKg(part), part.Box.Centre().ZM, joints, wins,
            vessel ? Caution(zone) : null);
    }

    private static Sentence Caution(Zone? zone) => zone?.Kind is ZoneKind.OpenUnderfloor or ZoneKind.EnclosedUnderfloor
        ? "Low weight and room to store, in the wind and the spray: rated straps, and local rules on what hangs under a vehicle."
        : "As warm as the room, and as heavy where people sleep: hold it for a crash with rated straps.";

    // The nearest free spot on the floor of a zone, or under its ceiling where it hangs; null: there is none.
    private static Point3? Spot(Question question, Part part, Zone zone, double around)
    {
        var (low, far, size) = (zone.Box.At, zone.Box.Far(), part.Box.Size);
        var solids = question.Rig.Shell.Obstacles.Select(o => o.Box).Concat(question.Rig.Parts.Where(p => p.Id != part.Id
            && Catalogue.Part(p.Stock)!.Look != PartLook.Joint).Select(p => p.Box)).ToList();
        double z = zone.Kind == ZoneKind.OpenUnderfloor ? far.ZM - size.ZM - around : low.ZM + around;
        if (z < low.ZM + around - 1e-9 || z + size.ZM + around > far.ZM + 1e-9) return null;
        Point3? best = null;
        for (double x = low.XM + around; x + size.XM + around <= far.XM + 1e-9; x += StepM)
            for (double y = low.YM + around; y + size.YM + around <= far.YM + 1e-9; y += StepM)
            {
                var at = new Point3(Math.Round(x, 3), Math.Round(y, 3), Math.Round(z, 3));
                var box = new Box(at - new Point3(around, around, around), size + new Point3(2 * around, 2 * around, 2 * around));
                if (best is { } known && known.DistanceM(part.Box.At) <= at.DistanceM(part.Box.At)) continue;
                // A smaller room within it is another room.
                if (question.Index.ZoneAt(new Box(at, size).Centre())?.Id != zone.Id || solids.Any(s => s.Overlaps(box, 0.004))) continue;
                best = at;
            }
        return best;
    }

    // A box of 30 mm of board around it, with a louvre to the living space where there is one.
    private static List<Edit> Boxed(Rig rig, Box part)
    {
        string id = Enumerable.Range(1, 100).Select(n => $"tank-box-{n}").First(n => rig.Shell.Zones.Find(n) is null);
        var margin = new Point3(RoundM, RoundM, RoundM);
        var box = new Box(part.At - margin, part.Size + margin + margin);
        var under = rig.Shell.Zones.First(z => Under.Contains(z.Kind));
        var s = box.Size;
        IReadOnlyList<FaceLayer> board = [new(Catalogue.Usual(UsualFor.Board).Id, BoxM), new("aluminium", 0.0015)];
        var living = rig.Shell.Zones.FirstOrDefault(z => z.Kind == ZoneKind.Living);
        Face[] faces =
        [
            new("sides", "its sides", FaceSide.Wall, Math.Round(2 * (s.XM + s.YM) * s.ZM, 3), board, 0, [], under.Id),
            new("floor", "its floor", FaceSide.Floor, Math.Round(s.XM * s.YM, 3), board, 0, [], under.Id),
            new("roof", "the floor above it", FaceSide.Roof, Math.Round(s.XM * s.YM, 3), [new("plywood", 0.012)], 0, [], living?.Id ?? under.Id),
        ];
        var zone = new Zone(id, "tank box", ZoneKind.EnclosedUnderfloor, box, 0.5, faces, living is null ? []
            : [new Opening("louvre", living.Id, 0.02, 0.1, FaceSide.Roof)]);
        return [new AddThing("shell/zones", (JsonObject)RigDiff.Node(zone)!)];
    }
}
