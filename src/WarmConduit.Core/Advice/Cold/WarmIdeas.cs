using System.Text.Json.Nodes;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Advice.Cold;

/// <summary>Something that keeps water warm for longer.</summary>
/// <param name="Sort">Of one sort the best is enough where they are offered as fixes.</param>
/// <param name="Words">What is done.</param>
/// <param name="Edits">The edits that do it.</param>
/// <param name="ThicknessM">Insulation it adds, m; null: it adds none.</param>
/// <param name="SpaceL">Inside space that it takes, L.</param>
/// <param name="Money">At the builder's prices; null where they give none.</param>
/// <param name="ZoneId">The room it warms as a whole; null where it is about one thing.</param>
/// <param name="Thing">The run or part it is about; null where it is about a room.</param>
/// <param name="Event">What is done in the course of the night instead of an edit; null: nothing.</param>
internal sealed record WarmIdea(string Sort, Sentence Words, IReadOnlyList<Edit> Edits, double? ThicknessM, double SpaceL, double? Money, string? ZoneId,
    string? Thing, PlanEvent? Event = null);

/// <summary>What might be done against the cold: sleeves, jackets, linings, louvres, doors, boxes, and another place. What each wins is found by trying
/// it.</summary>
internal sealed class WarmIdeas(Question question)
{
    private static readonly SolidStock Tube = Catalogue.Usual(UsualFor.Sleeve), Board = Catalogue.Usual(UsualFor.Board);
    private const double LouvreM2 = 0.03, LouvreHeightM = 0.4, DoorM2 = 0.2, DoorHeightM = 0.5, FaceM = 0.02, InsulatingWPerMK = 0.1;

    private Rig Rig => question.Rig;

    /// <summary>For one part: jackets, and what warms the room it stands in.</summary>
    public IEnumerable<WarmIdea> For(string partId)
    {
        var part = question.Index.Part(partId);
        var zone = question.Index.ZoneAt(part.Box.Centre());
        foreach (double thick in (double[])[0.013, 0.025, 0.05]) yield return Jackets(part, zone, thick).First();
        if (zone is not null) foreach (var idea in Room(zone, 3)) yield return idea;
    }

    /// <summary>For a piece or part that freezes: one step more around it, and what warms its room.</summary>
    public IEnumerable<WarmIdea> For(FreezeCandidate candidate)
    {
        if (Rig.Runs.Find(candidate.Thing) is { } run) yield return Sleeved(run, candidate.Zone, 0.013);
        else if (Rig.Parts.Find(candidate.Thing) is { } part)
        {
            foreach (var idea in Jackets(part, candidate.Zone, 0.025)) yield return idea;
            var stock = Catalogue.Part(part.Stock)!;
            bool open = candidate.Zone is null or { Kind: ZoneKind.OpenUnderfloor }, clean = stock.Group == PartGroup.Clean;
            // A filter is easily set elsewhere, out of a garage too.
            bool unheated = candidate.Zone is not { Kind: ZoneKind.Living or ZoneKind.Cupboard };
            if ((open && stock.Passage is Passage.Vessel or Passage.Pump) || (clean && unheated))
                foreach (var idea in OutOfTheWind(part, open)) yield return idea;
        }
        if (candidate.Zone is { } zone) foreach (var idea in Room(zone, 6)) yield return idea;
    }

    /// <summary>What is done in the course of the night: the door of a cupboard left open to a warmer room.</summary>
    public IEnumerable<WarmIdea> Doors(FreezeCandidate candidate)
    {
        var events = question.Conditions.Events ?? [];
        if (candidate.Zone is not { Kind: ZoneKind.Cupboard } zone || events.Count >= NightPlan.MostEvents
            || events.Any(e => e.Kind == PlanEventKind.Open && e.ZoneId == zone.Id) || WarmerBeside(zone) is not { } warmer) yield break;
        string id = Enumerable.Range(1, NightPlan.MostEvents).Select(n => $"door-{n}").First(n => events.All(e => e.Id != n));
        yield return new WarmIdea(
            $"door {zone.Id}", Sentence.Of($"{zone.Name}: its door to {warmer.Name} left open all night"), [], null, 0, null, zone.Id, null,
            new PlanEvent(id, PlanEventKind.Open, 0, ZoneId: zone.Id, Towards: warmer.Id, AreaM2: DoorM2,
            HeightM: Math.Min(DoorHeightM, Math.Min(zone.Box.Size.ZM, warmer.Box.Size.ZM))));
    }

    private IEnumerable<WarmIdea> OutOfTheWind(Part part, bool open)
    {
        if (PlaceFinder.Indoors(question, part) is { } inside)
            yield return new WarmIdea($"inside {part.Id}", Sentence.Of($"{part.Name}: set inside, in {inside.Zone.Name}"), inside.Edits, null,
                part.Box.VolumeM3() * 1000, null, null, part.Id);
        if (open && PlaceFinder.BoxedIn(question, part) is { } boxed)
            yield return new WarmIdea(
                $"box {part.Id}", Sentence.Of($"{part.Name}: boxed in under the floor with {Measure.Length(PlaceFinder.BoxM)} of {Board.Name}"), boxed.Edits,
                PlaceFinder.BoxM, 0,
                Rig.Prices.OfBoard(Board.Id, PlaceFinder.BoxM) * PartContacts.Sides.Sum(s => part.SideM2(s)), null, part.Id);
    }

    private WarmIdea Sleeved(Run run, Zone? zone, double more)
    {
        Sleeve Thicker(Sleeve? sleeve) => sleeve is null ? new Sleeve(Tube.Id, more) : sleeve with { ThicknessM = Math.Min(0.3, sleeve.ThicknessM + more) };
        var edits = new List<Edit> { new ChangeThing($"runs/{run.Id}", new JsonObject { ["insulation"] = RigDiff.Node(Thicker(run.Insulation)) }) };
        if (run.Bends.Any(b => b.Insulation is not null))
            edits.Add(new RouteRun(run.Id, [.. run.Bends.Select(b => b.Insulation is null ? b : b with { Insulation = Thicker(b.Insulation) })]));
        double length = question.Index.PipeLengthM(run), outer = Catalogue.Pipe(run.Pipe)!.OuterDiameterM + (2 * (run.Insulation?.AllM() ?? 0));
        double volume = Math.PI / 4 * (Math.Pow(outer + (2 * more), 2) - Math.Pow(outer, 2)) * length * 1000;
        var sleeve = Thicker(run.Insulation);
        return new WarmIdea(
            $"sleeve {run.Id}", Sentence.Of($"{run.Name}: {Measure.Length(more)} of " +
            $"{Catalogue.Solid(sleeve.Material)!.Name}{(run.Insulation is null ? "" : " more")} all along"), edits, more, Takes(zone) ? volume : 0,
            Rig.Prices.OfMetre(sleeve.Material) * length, null, run.Id);
    }

    // All around; of a tank also without the sides that it stands with against something, and its largest free side alone.
    private IEnumerable<WarmIdea> Jackets(Part part, Zone? zone, double more)
    {
        var jacket = part.Jacket is { } worn ? worn with { ThicknessM = Math.Min(0.3, worn.ThicknessM + more) } : new Sleeve(Board.Id, more);
        string material = Catalogue.Solid(jacket.Material)!.Name;
        WarmIdea Idea(string sort, Sentence words, IReadOnlyList<Facing> off)
        {
            double area = PartContacts.Sides.Except(off).Sum(s => part.SideM2(s));
            return new WarmIdea(
                $"jacket {part.Id}{sort}", words, [new ChangeThing($"parts/{part.Id}",
                new JsonObject { ["jacket"] = RigDiff.Node(jacket), ["jacketOff"] = off.Count == 0 ? null : RigDiff.Node(off) })], more,
                Takes(zone) ? area * more * 1000 : 0, Rig.Prices.OfBoard(jacket.Material, more) * area, null, part.Id);
        }
        if (part.Jacket is not null)
        {
            yield return Idea("", Sentence.Of($"{part.Name}: {Measure.Length(more)} more of {material} where its jacket is"), part.JacketOff ?? []);
            if (part.JacketOff is { Count: > 0 })
                yield return Idea(" whole", Sentence.Of($"{part.Name}: its jacket all around, and {Measure.Length(more)} more of {material}"), []);
            yield break;
        }
        yield return Idea("", Sentence.Of($"{part.Name}: a jacket of {Measure.Length(more)} of {material}"), []);
        if (zone is null || Catalogue.Part(part.Stock)!.Passage != Passage.Vessel) yield break;
        var stands = PartContacts.Sides.Where(s => question.SurfaceContacts.Of(zone, part.Box, s) is not null).ToList();
        if (stands.Count is > 0 and < 6) yield return Idea(" free", Sentence.Of($"{part.Name}: {Measure.Length(more)} of {material} except where it " +
            $"touches something"), stands);
        if (PartContacts.Sides.Except(stands).OrderByDescending(s => part.SideM2(s)).Select(s => (Facing?)s).FirstOrDefault() is { } largest)
            yield return Idea($" {largest}", Sentence.Of($"{part.Name}: {Measure.Length(more)} of {material} on its {SideWords(largest)} only"),
                [.. PartContacts.Sides.Where(s => s != largest)]);
    }

    private static string SideWords(Facing side) => side switch { Facing.Up => "top", Facing.Down => "underside", _ => Skin.Words(side) };

    // The outer faces that lose most, louvres to warmer rooms, and louvres that let the cold in.
    private IEnumerable<WarmIdea> Room(Zone zone, int faces)
    {
        var air = question.Ask(RigNight.Of).Zones().ToDictionary(z => z.ZoneId, z => z.AirC);
        bool Colder(string? id) => id is null || air[id] < air[zone.Id] - 1;
        foreach (var face in zone.Faces.Where(f => Colder(f.Towards)).OrderByDescending(f => f.AreaM2).Take(faces))
        {
            var layers = face.Layers.ToList();
            int at = layers.FindIndex(l => Catalogue.Solid(l.Material)!.ConductivityWPerMK < InsulatingWPerMK);
            if (at >= 0) layers[at] = layers[at] with { ThicknessM = Math.Min(1, layers[at].ThicknessM + FaceM) };
            else layers.Insert(Math.Min(1, layers.FindIndex(l => l.Material == "plywood") + 1), new FaceLayer(Board.Id, FaceM));
            yield return new WarmIdea(
                $"face {zone.Id} {face.Id}", Sentence.Of($"{zone.Name}, {face.Name}: {Measure.Length(FaceM)} of insulation more"),
                [new ChangeThing($"shell/zones/{zone.Id}/faces/{face.Id}", new JsonObject { ["layers"] = RigDiff.Node(layers) })], FaceM, Takes(zone)
                ? face.AreaM2 * FaceM * 1000 : 0, Rig.Prices.OfBoard(at >= 0 ? layers[at].Material : Board.Id, FaceM) * face.AreaM2, zone.Id, null);
        }
        foreach (var opening in zone.Openings.Where(o => Colder(o.Towards) && air[o.Towards] < 0))
            yield return new WarmIdea($"shut {zone.Id} {opening.Id}",
                Sentence.Of($"{zone.Name}: shut the opening to {Rig.Shell.Zones.Find(opening.Towards)!.Name}"),
                [new RemoveThing($"shell/zones/{zone.Id}/openings/{opening.Id}")], null, 0, null, zone.Id, null);
        // Under the floor it would let the warm air out.
        if (zone.Kind != ZoneKind.OpenUnderfloor && WarmerBeside(zone) is { } warmer)
        {
            string id = Enumerable.Range(1, 100).Select(n => $"louvre-{n}").First(n => zone.Openings.Find(n) is null);
            yield return new WarmIdea(
                $"louvre {zone.Id}", Sentence.Of($"{zone.Name}: a louvre of {new Measure(LouvreM2, Quantity.Area)} to {warmer.Name}"),
                [new AddThing($"shell/zones/{zone.Id}/openings", (JsonObject)RigDiff.Node(LouvreTo(id, zone, warmer))!)], null, 0, null, zone.Id, null);
        }
    }

    // In the partition that there is: in a floor or roof it lies flat. No higher than its rooms.
    private static Opening LouvreTo(string id, Zone zone, Zone warmer)
    {
        FaceSide? side = zone.Faces.FirstOrDefault(f => f.Towards == warmer.Id)?.Side
            ?? warmer.Faces.FirstOrDefault(f => f.Towards == zone.Id)?.Side switch
            {
                FaceSide.Roof => FaceSide.Floor,
                FaceSide.Floor => FaceSide.Roof,
                var other => other
            };
        var louvre = new Opening(id, warmer.Id, LouvreM2, LouvreHeightM, side == FaceSide.Wall ? null : side);
        return louvre with { HeightM = Math.Min(LouvreHeightM, louvre.MostHeightM(zone, warmer)) };
    }

    // The warmest room behind a partition of this one, where it is warmer by something; air is let in only through a partition that there is.
    private Zone? WarmerBeside(Zone zone)
    {
        var air = question.Ask(RigNight.Of).Zones().ToDictionary(z => z.ZoneId, z => z.AirC);
        return Rig.Shell.Zones.Where(z => air[z.Id] > air[zone.Id] + 2 && (z.Faces.Any(f => f.Towards == zone.Id) || zone.Faces.Any(f => f.Towards == z.Id)))
            .MaxBy(z => air[z.Id]);
    }

    // What is built into a room that people use takes room from them.
    private static bool Takes(Zone? zone) => zone?.Kind is ZoneKind.Living or ZoneKind.Garage or ZoneKind.Cupboard;
}
