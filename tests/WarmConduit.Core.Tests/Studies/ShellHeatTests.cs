using System.Text.Json.Nodes;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Rigs.Starting;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.ShellHeat;

namespace WarmConduit.Core.Tests.Studies;

public class ShellHeatTests
{
    private static readonly NewRig Van = new("Test", 3.7, 1.75, 1.9, WayOfLiving.LivedIn, FreezeSchool.Heat, "long-van");
    private static readonly Rig Bare = Start.Make(Van), Plumbed = Start.Make(Van with { Starter = "lived-in" }), Empty = Start.Make(Van with { Body = null });

    private static ShellHeatAnswer Ask(Rig rig) => ShellHeatStudy.Ask(new Question(rig, Conditions.Of(rig.Brief)));

    private static Rig Do(Rig rig, params Edit[] edits) => Editor.Apply(rig, edits).Rig;

    [Fact]
    public void The_coldest_room_with_water_is_named_and_each_face_says_what_it_lets_through()
    {
        var answer = Ask(Plumbed);
        var underfloor = answer.Zones.Single(z => z.ZoneId == "underfloor");
        Assert.True(underfloor.HoldsWater);
        Assert.Equal("underfloor", answer.ColdestId);
        var living = answer.Zones.Single(z => z.ZoneId == "living");
        Assert.Equal((18, true), (Math.Round(living.AirC), living.HeaterW > 100));
        Assert.All(answer.Zones.SelectMany(z => z.Faces), f => Assert.True(f.TransmittanceWPerM2K > 0.1 && f.WPerK > 0));
        // Drawn from its boxes, no area differs from them.
        Assert.All(answer.Zones.SelectMany(z => z.Faces.Select(f => (f, Area: Plumbed.Shell.Zones.Find(z.ZoneId)!.Faces.Find(f.FaceId)!.AreaM2))), p =>
            Assert.Equal(p.Area, p.f.DrawnM2!.Value, 2));
    }

    [Fact]
    public void A_typed_area_stays_until_faces_are_drawn_again()
    {
        var typed = Do(Bare, new ChangeThing("shell/zones/garage/faces/rear-doors",
            new JsonObject { ["areaM2"] = 9, ["layers"] = new JsonArray(new JsonObject { ["material"] = "xps", ["thicknessM"] = 0.05 }) }));
        Assert.Equal(9, typed.Shell.Zones.Find("garage")!.Faces.Find("rear-doors")!.AreaM2);
        var drawn = Do(typed, new DrawFaces(["garage"])).Shell.Zones.Find("garage")!.Faces.Single(f => f.Side == FaceSide.Wall && f.Name == "rear doors");
        Assert.Equal((Bare.Shell.Zones.Find("garage")!.Faces.Find("rear-doors")!.AreaM2, "xps"), (drawn.AreaM2, drawn.Layers.Single().Material));
        // What is drawn twice is drawn once.
        var once = Do(Bare, new DrawFaces([]));
        Assert.Equal(RigFile.Write(once), RigFile.Write(Do(once, new DrawFaces([]))));
    }

    [Fact]
    public void A_wider_garage_takes_from_the_living_space_and_the_body_stays_the_same()
    {
        var garage = Bare.Shell.Zones.Find("garage")!;
        var wider = Do(Bare, new ChangeThing("shell/zones/garage", new JsonObject
        {
            ["box"] =
            RigDiff.Node(garage.Box with { Size = garage.Box.Size with { XM = garage.Box.Size.XM + 0.5 } })
        }), new DrawFaces([]));
        double Outward(Rig rig) => rig.Shell.Zones.SelectMany(z => z.Faces).Where(f => f.Towards is null).Sum(f => f.AreaM2);
        double Floor(Rig rig, string zone) => rig.Shell.Zones.Find(zone)!.Faces.Where(f => f.Side == FaceSide.Floor).Sum(f => f.AreaM2);
        var before = Do(Bare, new DrawFaces([]));
        Assert.Equal(Outward(before), Outward(wider), 2);
        Assert.Equal(Floor(before, "garage") + 0.5 * 1.75, Floor(wider, "garage"), 2);
    }

    /// <summary>A cavity in the kerb-side wall, moved into each other wall: every face has an id of its own, and what was said of its layers goes
    /// along.</summary>
    [Fact]
    public void A_cavity_is_moved_from_wall_to_wall_and_keeps_its_layers()
    {
        var rig = Empty;
        while (Ask(rig).Forgotten is { Count: > 0 } offers)
            rig = Do(rig, new AddThing("shell/zones", (JsonObject)RigDiff.Node(offers[0].Zone)!), new DrawFaces([]));
        var cavity = rig.Shell.Zones.Find("wall-cavity")!;
        foreach (var face in cavity.Faces)
            rig = Do(rig, new ChangeThing($"shell/zones/wall-cavity/faces/{face.Id}",
            new JsonObject { ["layers"] = new JsonArray(new JsonObject { ["material"] = "xps", ["thicknessM"] = 0.01 }) }));
        var body = rig.Shell.Body;
        var size = cavity.Box.Size;
        foreach (var at in (Point3[])[cavity.Box.At with { YM = body.Far().YM - size.YM }, new(body.At.XM, body.At.YM + 0.4, cavity.Box.At.ZM),
            new(1, 0.5, body.Far().ZM - size.ZM), cavity.Box.At])
        {
            rig = Do(rig, new ChangeThing("shell/zones/wall-cavity", new JsonObject { ["box"] = RigDiff.Node(new Box(at, size)) }), new DrawFaces([]));
            RigFile.Read(System.Text.Encoding.UTF8.GetBytes(RigFile.Write(rig)));
            var faces = rig.Shell.Zones.Find("wall-cavity")!.Faces;
            Assert.Equal(faces.Count, faces.Select(f => f.Id).Distinct().Count());
            Assert.Contains(faces, f => f.Layers.Count == 1 && f.Layers[0].Material == "xps");
        }
    }

    /// <summary>From an empty box, a press on each room that is offered gives a shell whose rooms have their faces, and every room is offered once.</summary>
    [Fact]
    public void Forgotten_rooms_are_offered_until_they_are_there()
    {
        var rig = Empty;
        var seen = new List<string>();
        while (Ask(rig).Forgotten is { Count: > 0 } offers)
        {
            seen.Add(offers[0].Id);
            rig = Do(rig, new AddThing("shell/zones", (JsonObject)RigDiff.Node(offers[0].Zone)!), new DrawFaces([]));
        }
        Assert.Equal(["living", "underfloor", "hatch", "wall-cavity", "skirt"], seen);
        Assert.All(rig.Shell.Zones.Where(z => z.Kind != ZoneKind.OpenUnderfloor), z => Assert.NotEmpty(z.Faces));
        // As cold as the living space in the morning, but for the half hour that it lags behind.
        Assert.Equal(Ask(rig).Zones.Single(z => z.ZoneId == "living").AirC, Ask(rig).Zones.Single(z => z.ZoneId == "hatch").AirC, 1.0);
    }
}
