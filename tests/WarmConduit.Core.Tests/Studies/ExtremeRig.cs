using System.Text.Json;
using System.Text.Json.Nodes;
using CsCheck;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Tests.Rigs;
using WarmConduit.Core.Tests.Rigs.Edits;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>Rigs that the rules allow and nobody would build, by seed.</summary>
internal static class ExtremeRig
{
    private static readonly double[] Figures = [0, 1e-9, 1e-6, 0.001, 0.5, 1, 3, 15, 30, 100, 1000, 1e4, 1e6, -1e-6, -0.3, -30];

    /// <summary>Edits by chance, then figures of the file set to the ends of what is allowed and beyond; what the rules refuse is left as it was.</summary>
    public static Rig Of(int seed)
    {
        var random = new Random(seed);
        var rig = seed % 5 == 0 ? DemoRigs.Of("sparrow") : AnyRig.Of(seed);
        for (int n = random.Next(25); n > 0; n--)
        {
            try
            {
                rig = Editor.Apply(rig, [EditGen.On(rig).Generate(new PCG((uint)random.Next(1, 1000), (ulong)random.NextInt64()), null, out _)]).Rig;
            }
            catch (RigFileException)
            {
            }
        }
        for (int n = random.Next(40); n > 0; n--)
        {
            var node = JsonNode.Parse(RigFile.Write(rig))!;
            var numbers = Numbers(node).ToList();
            var (parent, key) = numbers[random.Next(numbers.Count)];
            double figure = Figures[random.Next(Figures.Length)];
            if (parent is JsonObject values) values[(string)key] = figure;
            else ((JsonArray)parent)[(int)key] = figure;
            try
            {
                rig = RigFile.Read(JsonSerializer.SerializeToUtf8Bytes(node));
            }
            catch (RigFileException)
            {
            }
        }
        return rig;
    }

    private static IEnumerable<(JsonNode Parent, object Key)> Numbers(JsonNode node) => node switch
    {
        JsonObject values => values.ToList().SelectMany(v => v.Value is JsonValue n && n.GetValueKind() == JsonValueKind.Number ? [(node, v.Key)]
            : v.Value is null ? [] : Numbers(v.Value)),
        JsonArray list => list.SelectMany((v, i) => v is JsonValue n && n.GetValueKind() == JsonValueKind.Number ? [(node, (object)i)] : v is null ? []
        : Numbers(v)),
        _ => [],
    };

    /// <summary>A night that no place has.</summary>
    public static Conditions Night(Random random, Rig rig)
    {
        T OneOf<T>(params T[] all) => all[random.Next(all.Length)];
        return new(
            OneOf(-60.0, -18, -0.01, 0, 0.01, 3, 50), OneOf(0.0, 4, 60), random.Next(2) == 0, OneOf(0.0, 0.01, 12, 95),
            OneOf(WaterState.Wet, WaterState.Drained), OneOf(0.0, 22, 24), OneOf(0.5, 8, 72),
            new Attitude(OneOf(0, 0, -15, 3, 15), OneOf(0, 0, 2, -15, 15)), rig.Scenarios[random.Next(rig.Scenarios.Count)].Id,
            InsideC: OneOf<double?>(null, -40, 0, 40), Cloud: OneOf(0.0, 1));
    }
}
