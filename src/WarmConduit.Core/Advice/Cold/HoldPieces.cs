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

/// <summary>A measure that can be part of a set.</summary>
/// <param name="Place">What it is done to; of one place a set has one.</param>
/// <param name="Words">What is done.</param>
/// <param name="EditsOn">The edits that do it to a rig to which others have been done.</param>
/// <param name="EffortH">Work, h. Estimate.</param>
/// <param name="Money">At the builder's prices; null: no price is known.</param>
/// <param name="Thing">The run or part that it is about; null: a room.</param>
internal sealed record HoldPiece(
    string Place, Sentence Words, Func<Rig, IReadOnlyList<Edit>> EditsOn, double EffortH, double? Money, string? Thing);

/// <summary>All that might hold what gets too cold: insulation, pads, traces along heating lines and loops of them, louvres, other places, small frost
/// heaters.</summary>
internal sealed class HoldPieces(Question question)
{
    private const int MostThings = 80, MostPieces = 240;

    // Work by what is done, h; of sleeves and tape besides by the metre. Estimates.
    private const double SleeveH = 0.2, JacketH = 0.75, FaceH = 1.5, LouvreH = 1, ShutH = 0.2, PadH = 0.5, TapeH = 0.3, PerMetreH = 0.15, MoveH = 4,
        HeaterH = 1.5, LoopH = 0.75, SensorH = 0.2;

    // A loop, and the share of its line that must lie in the room.
    private const double LoopM = 3, LeastInRoom = 0.7;

    // A frost heater as cupboards get it. Estimate.
    private const double FrostHeaterW = 150;

    // A trace that lies beside less of its line is none.
    private const double LeastTapedM = 0.3, StepM = 0.05;

    private Rig Rig => question.Rig;

    /// <summary>Measures for all that is below <paramref name="holdC"/> on the night, the coldest first. O(things · runs).</summary>
    public IReadOnlyList<HoldPiece> For(RigNight night, double holdC)
    {
        var cold = Held.Of(night, holdC).Below;
        var ideas = new WarmIdeas(question);
        var pieces = new List<HoldPiece>();
        foreach (var f in night.Candidates.Where(f => cold.ContainsKey(f.Thing)).OrderBy(f => cold[f.Thing].C).DistinctBy(f => (f.Thing, f.Zone?.Id))
            .Take(MostThings))
        {
            foreach (var idea in ideas.For(f)) pieces.Add(Of(idea));
            if (Rig.Runs.Find(f.Thing) is { } run) pieces.AddRange(Tapes(run));
            else if (Rig.Parts.Find(f.Thing) is { Pad: null } part) pieces.Add(Pad(part));
            else if (Rig.Parts.Find(f.Thing) is { Pad.Sensor: not null } misled) pieces.Add(Sensor(misled, misled.Pad!));
            if (f.Zone is { Heater: null or { PowerW: <= 0 }, Kind: not (ZoneKind.OpenUnderfloor or ZoneKind.Living) } zone) pieces.Add(Heater(zone, holdC));
            if (f.Zone is { } room) pieces.AddRange(Loops(room));
        }
        return [.. pieces.DistinctBy(p => (p.Place, p.Words.ToString())).Take(MostPieces)];
    }

    private HoldPiece Of(WarmIdea idea)
    {
        string sort = idea.Sort.Split(' ')[0];
        double effort = sort switch
        {
            "sleeve" => SleeveH + (PerMetreH * question.Index.PipeLengthM(question.Index.Run(idea.Thing!))),
            "jacket" => JacketH,
            "face" => FaceH,
            "louvre" => LouvreH,
            "shut" => ShutH,
            _ => MoveH,
        };
        // Of jackets for one part, and of places for it, there is one.
        string place = sort is "jacket" or "inside" or "box" ? $"{sort switch { "jacket" => "jacket", _ => "place" }} {idea.Thing}" : idea.Sort;
        // Shutting an opening takes nothing but hands.
        double? money = sort switch { "shut" => 0, "louvre" => Rig.Prices.OfPart(Price.Louvre), _ => idea.Money };
        return new HoldPiece(place, idea.Words, _ => idea.Edits, effort, money, idea.Thing);
    }

    private HoldPiece Pad(Part part) => new($"pad {part.Id}",
        Sentence.Of($"{part.Name}: {(part.TakesElement() ? "an element" : "a pad")} of {Measure.Power(Rigs.Pad.Usual.PowerW)}"),
        _ => [new ChangeThing($"parts/{part.Id}", new JsonObject { ["pad"] = RigDiff.Node(Rigs.Pad.Usual) })], PadH, Rig.Prices.OfPart(Price.Pad), part.Id);

    private static HoldPiece Sensor(Part part, Pad pad) => new($"pad {part.Id}", Sentence.Of($"{part.Name}: the sensor of its pad put on it, clear of the pad"),
        _ => [new ChangeThing($"parts/{part.Id}", new JsonObject { ["pad"] = RigDiff.Node(pad with { Sensor = null }) })], SensorH, 0, part.Id);

    private HoldPiece Heater(Zone zone, double holdC) => new($"heater {zone.Id}",
        Sentence.Of($"{zone.Name}: an electric frost heater of {Measure.Power(FrostHeaterW)}, set to {Measure.Temperature(holdC + 2)}"),
        _ => [new ChangeThing($"shell/zones/{zone.Id}", new JsonObject { ["heater"] = RigDiff.Node(new ZoneHeater(FrostHeaterW, holdC + 2, true)) })],
        HeaterH, Rig.Prices.OfPart(Price.FrostHeater), null);

    // Heating lines that lie in the room already: more of their hose there, as it is, warms it.
    private IEnumerable<HoldPiece> Loops(Zone zone)
    {
        for (int r = 0; r < Rig.Runs.Count; r++)
        {
            var line = Rig.Runs[r];
            if (line.Service != Service.Coolant || (line.SlackM ?? 0) + LoopM > Run.MostSlackM) continue;
            var course = question.Index.CourseOf(line);
            double all = 0, here = 0;
            foreach (var cut in question.Cuts.Of(r))
            {
                double metres = (cut.To - cut.From) * course[cut.Segment].DistanceM(course[cut.Segment + 1]);
                all += metres;
                if (cut.Zone?.Id == zone.Id) here += metres;
            }
            // Extra length lies along the whole of a line.
            if (here < LeastInRoom * all || all <= 0) continue;
            yield return new HoldPiece($"loop {zone.Id}", Sentence.Of($"{zone.Name}: {Measure.Length(LoopM)} more of {line.Name} laid through it in a loop"),
                rig => [new ChangeThing($"runs/{line.Id}", new JsonObject { ["slackM"] = (rig.Runs.Find(line.Id)!.SlackM ?? 0) + LoopM })],
                LoopH + (PerMetreH * LoopM), Rig.Prices.OfMetre(line.Pipe) * LoopM, null);
        }
    }

    // Heating lines that lie beside it already: tape is all that it takes.
    private IEnumerable<HoldPiece> Tapes(Run water)
    {
        foreach (var line in Rig.Runs.Where(r => r.Service == Service.Coolant && r.Traces?.Find(water.Id) is null))
        {
            double beside = BesideM(water, line);
            if (beside < LeastTapedM) continue;
            yield return new HoldPiece($"tape {line.Id} {water.Id}",
                Sentence.Of($"{water.Name}: {line.Name} taped along {Measure.Length(beside)} of it, under aluminium tape" +
                    $"{(water.IsSleeved() ? " and within its insulation" : "")}"),
                rig => Taped(rig, line.Id, water.Id), TapeH + (PerMetreH * beside), Rig.Prices.OfMetre(Price.Tape) * beside, water.Id);
        }
    }

    private static IReadOnlyList<Edit> Taped(Rig rig, string line, string water) => [new ChangeThing($"runs/{line}", new JsonObject
    {
        ["traces"] = RigDiff.Node((Trace[])[.. rig.Runs.Find(line)!.Traces ?? [], new Trace(water, TraceKind.AluminiumTape, true)]),
    })];

    private double BesideM(Run water, Run line)
    {
        var course = question.Index.CourseOf(line);
        double beside = 0;
        for (int k = 0; k + 1 < course.Length; k++)
        {
            double length = course[k].DistanceM(course[k + 1]);
            int bits = Math.Max(1, (int)(length / StepM));
            for (int i = 0; i < bits; i++)
                if (question.Taped.Against(water, line, course[k].Towards(course[k + 1], (i + 0.5) / bits)) is not null) beside += length / bits;
        }
        return beside;
    }
}

/// <summary>How cold a night gets what holds water.</summary>
/// <param name="Below">What falls below, by thing: how cold, and its name.</param>
/// <param name="Deficit">By how much all of it does together, K.</param>
/// <param name="ColdestC">The coldest of all, °C; infinite where nothing holds water.</param>
/// <param name="Coldest">Its name.</param>
/// <param name="HeatWh">Heat that the night takes until morning, Wh.</param>
internal sealed record Held(IReadOnlyDictionary<string, (double C, string Name)> Below, double Deficit, double ColdestC, string Coldest, double HeatWh)
{
    /// <summary>Reads a night, at each hour until morning. O(candidates · hours).</summary>
    public static Held Of(RigNight night, double holdC)
    {
        var coldest = new Dictionary<string, (double C, string Name)>();
        for (int n = 0; n < night.Candidates.Count; n++)
        {
            double c = double.PositiveInfinity;
            for (int r = 0; r <= night.Morning; r++) c = Math.Min(c, night.WaterC(r, n));
            var f = night.Candidates[n];
            if (!coldest.TryGetValue(f.Thing, out var was) || c < was.C) coldest[f.Thing] = (c, f.Name);
        }
        var below = coldest.Where(f => f.Value.C < holdC).ToDictionary(f => f.Key, f => f.Value);
        var (least, name) = coldest.Values.OrderBy(f => f.C).FirstOrDefault((double.PositiveInfinity, ""));
        return new Held(below, below.Values.Sum(f => holdC - f.C), least, name, night.HeatWh());
    }
}
