using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.Measuring;

/// <summary>Something that can be measured, or read on a label.</summary>
/// <param name="Id">Stable id.</param>
/// <param name="Name">What to measure.</param>
/// <param name="How">How.</param>
/// <param name="Worth">The effect of not knowing it.</param>
/// <param name="SwingK">How far the coldest room with water changes when this guess is off by its usual error, K; null where it does not affect warmth.</param>
/// <param name="Place">Where; null for the rig as a whole.</param>
public sealed record ToMeasure(string Id, string Name, string How, Sentence Worth, double? SwingK, Place? Place);

/// <summary>What to measure next.</summary>
/// <param name="ZoneId">The coldest room with water, or the coldest room while there is no water; null: no rooms.</param>
/// <param name="AirC">Its air on the brief's night with the heat on, °C.</param>
/// <param name="Items">Missing figures first, then by effect on that air. All are estimates.</param>
public sealed record MeasureNextAnswer(string? ZoneId, double? AirC, IReadOnlyList<ToMeasure> Items);

/// <summary>What a builder should measure next, by what not knowing it costs.</summary>
public static class MeasureNextStudy
{
    // How far off one usually is before measuring. Estimates.
    private const double LayerShare = 0.3, LeakShare = 1, SizeShare = 0.05, HeaterShare = 0.25;

    /// <summary>Swings each guess by what one is usually off by and looks at the coldest room. Pure. O(guesses × the balance of zones).</summary>
    public static MeasureNextAnswer Ask(Question question)
    {
        var rig = question.Rig;
        var night = SteadyNight.Of(rig.Brief);
        var items = Missing(question).ToList();
        var wet = rig.Parts.Where(p => PartWater.HoldsL(p) > 0).Select(p => question.Index.ZoneAt(p.Box.Centre())?.Id).ToHashSet();
        var rooms = rig.Shell.Zones.Where(z => z.Kind != ZoneKind.OpenUnderfloor).Select(z => z.Id).ToHashSet();
        var air = ZoneBalance.Solve(rig, night).Where(z => rooms.Contains(z.ZoneId)).OrderBy(z => wet.Contains(z.ZoneId) ? 0 : 1).ThenBy(z => z.AirC).ToList();
        if (air.Count == 0) return new MeasureNextAnswer(null, null, items);
        var coldest = air[0];
        string name = rig.Shell.Zones.Find(coldest.ZoneId)!.Name;
        void Swing(string id, string what, string how, string off, Func<Zone, Zone> change, Place? place = null)
        {
            question.Cancel.ThrowIfCancellationRequested();
            var other = rig with { Shell = rig.Shell with { Zones = [.. rig.Shell.Zones.Select(change)] } };
            double moved = Math.Abs(ZoneBalance.Solve(other, night).First(z => z.ZoneId == coldest.ZoneId).AirC - coldest.AirC);
            if (moved >= 0.05)
                items.Add(new ToMeasure(id, what, how, Sentence.Of($"{off} moves the air of {name} by {Measure.Difference(moved)}."), moved, place));
        }
        static FaceLayer Thinner(FaceLayer l) => Catalogue.Solid(l.Material)!.ConductivityWPerMK < 0.1
            ? l with { ThicknessM = l.ThicknessM * (1 - LayerShare) } : l;
        int before = items.Count;
        foreach (var side in Enum.GetValues<FaceSide>())
            Swing($"layers-{side}".ToLowerInvariant(), $"Insulation of the {side.ToString().ToLowerInvariant()}s",
                "Push a wire through to the metal and measure it.", "A third less of it",
                z => z with { Faces = [.. z.Faces.Select(f => f.Side == side ? f with { Layers = [.. f.Layers.Select(Thinner)] } : f)] });
        foreach (var zone in rig.Shell.Zones.Where(z => z.Kind != ZoneKind.OpenUnderfloor))
        {
            var at = new Place(zone.Box.Centre(), zone.Name, null, null, null, zone.Id);
            Swing($"leaks-{zone.Id}", $"Air leakage of {zone.Name}", "On a windy day hold a wet hand to its doors and corners.", "Twice as much air through it",
                z => z.Id == zone.Id ? z with { AirChangesPerHour = z.AirChangesPerHour * (1 + LeakShare) } : z, at);
            if (zone.Heater is { } heater)
                Swing($"heater-{zone.Id}", $"Heater of {zone.Name}", "Read its label.", "A quarter less", z => z.Id == zone.Id
                    ? z with { Heater = heater with { PowerW = heater.PowerW * (1 - HeaterShare) } } : z, at);
        }
        Swing("size", "Inside length, width and height", "Tape them at the floor and at half height.", "Five per cent more of every face", z =>
            z with { Faces = [.. z.Faces.Select(f => f with { AreaM2 = f.AreaM2 * (1 + SizeShare) })] });
        items.Sort(before, items.Count - before, Comparer<ToMeasure>.Create((a, b) => Nullable.Compare(b.SwingK, a.SwingK)));
        return new MeasureNextAnswer(coldest.ZoneId, coldest.AirC, items);
    }

    private static IEnumerable<ToMeasure> Missing(Question question)
    {
        var rig = question.Rig;
        if (rig.Shell.Zones.Count == 0)
            yield return new ToMeasure("rooms", "Rooms", "Draw the living space first, then what is closed off in it.",
                "Until then everything is as cold as outdoors.", null, null);
        if (rig.Shell.Obstacles.All(o => o.Kind != ObstacleKind.WheelArch))
            yield return new ToMeasure("arches", "Wheel arches", "Length, depth and height of each, and how far it is from the rear.",
                "Lines may run through it.", null, null);
        if (rig.Parts.All(p => Catalogue.Part(p.Stock) is not { Passage: Passage.Vessel, Group: PartGroup.Store }))
            yield return new ToMeasure("tank", "The place for the tank", "Its length, width and height, and its height over the floor.",
                "Falls, weights and first ice depend on its place.", null, null);
        foreach (var part in rig.Parts.Where(p => p.HoldsL is null && Catalogue.Part(p.Stock) is { Passage: Passage.Vessel, HoldsL: 0 }).Take(3))
            yield return new ToMeasure(
                $"holds-{part.Id}", $"Content of {part.Name}", "Read its label, or fill it from a can and count.",
                Sentence.Of($"Assumed {Measure.Volume(PartWater.HoldsL(part))} from its outside; walls and corners take a tenth."), null,
                Place.OnPart(question.Index, part));
    }
}
