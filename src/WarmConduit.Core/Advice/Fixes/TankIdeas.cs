using System.Text.Json;
using System.Text.Json.Nodes;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Tanks;

namespace WarmConduit.Core.Advice.Fixes;

/// <summary>Ideas about a tank that keeps water, or does not breathe.</summary>
internal sealed class TankIdeas(Question question, Fitter fit)
{
    /// <summary>A vent from the tank's own port to an opening above it, on either long side.</summary>
    public IEnumerable<Idea> Vented(string tankId)
    {
        var tank = question.Index.Part(tankId);
        if (tank.Ports.FirstOrDefault(p => tank.RoleOf(p) == PortRole.Vent && !question.Index.IsJoined(tankId, p.Id)) is not { } port) yield break;
        var leaves = tank.PortAt(port.Id)!.Value;
        var body = question.Rig.Shell.Body;
        double up = Math.Max(leaves.ZM, tank.Box.Far().ZM) + 0.25;
        // Up beside the tank, and out through a long wall; it rises all the way.
        foreach (var (wallY, side) in ((double, string)[])[(body.At.YM, "kerb side"), (body.Far().YM, "far side")])
            yield return new Idea(
                $"A vent from {tank.Name} up and out on the {side}",
                [.. fit.OnPort(tank, port.Id, "vent-cap", "vent", "vent hose", Service.Vent, "vent-hose-10", new Point3(leaves.XM, wallY, up),
                leaves with { ZM = up - 0.05 })],
                null, $"vent {tankId}");
    }

    /// <summary>A drain on it, its outlet lower or elsewhere, or an arm and a sponge.</summary>
    public IEnumerable<Idea> Drained(Part tank)
    {
        foreach (var idea in Cocked(tank)) yield return idea;
        if (!TankStudy.IsTank(tank)) yield break;
        foreach (var port in tank.Ports.Where(p => tank.RoleOf(p) is PortRole.Outlet or PortRole.Drain && p.Offset.ZM > 0.002))
            yield return new Idea($"{tank.Name}: {port.Called()} at its floor",
                [new ChangeThing($"parts/{tank.Id}/ports/{port.Id}", new JsonObject { ["offset"] = Json(port.Offset with { ZM = 0 }) })]);
        foreach (var port in tank.Ports.Where(p => tank.RoleOf(p) == PortRole.Drain
            || (tank.RoleOf(p) == PortRole.Outlet && tank.Ports.All(o => tank.RoleOf(o) != PortRole.Drain))))
        {
            var middle = new Point3(tank.Box.Size.XM / 2, tank.Box.Size.YM / 2, 0);
            if (port.Offset.DistanceM(middle) > 0.02)
                yield return new Idea($"{tank.Name}: {port.Called()} in the middle of its floor",
                [new ChangeThing($"parts/{tank.Id}/ports/{port.Id}", new JsonObject { ["offset"] = Json(Turning.Micro(middle)) })]);
        }
        if (question.Conditions.Parked != Attitude.Level || tank.Ports.Any(p => tank.RoleOf(p) == PortRole.Outlet))
        {
            yield return new Idea($"{tank.Name}: its outlet at the other end", [new MirrorPart(tank.Id, Axis.X)]);
            yield return new Idea($"{tank.Name}: its outlet on the other side", [new MirrorPart(tank.Id, Axis.Y)]);
        }
        // What an arm reaches into.
        if (question.Rig.ByHand.Find(tank.Id) is null && PartWater.OpenTop(tank))
            yield return new Idea($"By hand when leaving: sponge out {tank.Name}",
                [new AddThing("byHand", new JsonObject { ["id"] = tank.Id, ["task"] = "sponge out what the outlet leaves" })]);
    }

    // A drain cock on a port that nothing is joined to, or on one that is made in its floor.
    private IEnumerable<Idea> Cocked(Part tank)
    {
        if (PartWater.OpenTop(tank)) yield break;
        if (tank.Ports.Any(p => tank.RoleOf(p) == PortRole.Drain && question.Index.IsJoined(tank.Id, p.Id))) yield break;
        var spare = tank.Ports.FirstOrDefault(p => tank.RoleOf(p) == PortRole.Drain);
        // A tank can be bored; a heater has the ports that it came with.
        if (spare is null && !TankStudy.IsTank(tank)) yield break;
        string port = spare?.Id ?? fit.Free("drain", tank.Ports.Select(p => p.Id));
        var offset = spare?.Offset ?? Turning.Micro(new Point3(tank.Box.Size.XM / 2, tank.Box.Size.YM / 2, 0));
        Edit[] bored = spare is null ? [new AddThing($"parts/{tank.Id}/ports",
            new JsonObject { ["id"] = port, ["offset"] = Json(offset), ["facing"] = "down", ["boreM"] = 0.0123, ["role"] = "drain" })] : [];
        var service = Catalogue.Part(tank.Stock)!.Group == PartGroup.Waste ? Service.Waste : Service.Cold;
        yield return new Idea(
            spare is null ? $"A drain in the floor of {tank.Name}" : $"A drain at the drain port of {tank.Name}",
            [.. bored, .. fit.OnPort(tank, port, "drain-cock", "drain", "line of the drain", service, "pex-1/2",
            tank.Box.At + offset - new Point3(0, 0, Ideas.DrainDropM))]);
    }

    private static JsonNode Json<T>(T value) => JsonSerializer.SerializeToNode(value, RigFile.Compact)!;
}
