using System.Text;
using System.Text.Json.Nodes;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Tests.Rigs;

public class RigFileTests
{
    private static readonly byte[] Bytes = File.ReadAllBytes(Path.Combine(AppContext.BaseDirectory, "Data", "sparrow.json"));

    public static Rig Sparrow { get; } = RigFile.Read(Bytes);

    [Fact]
    public void The_demo_rig_reads_and_writes_back_to_the_letter_and_is_as_rich_as_it_should_be()
    {
        Assert.Equal(Encoding.UTF8.GetString(Bytes), RigFile.Write(Sparrow));
        Assert.True(Sparrow.Parts.Count >= 12 && Sparrow.Runs.Count >= 25 && Sparrow.Shell.Zones.Count >= 4);
        Assert.Equal([Service.Cold, Service.Hot, Service.Waste, Service.Vent, Service.Fill], Sparrow.Runs.Select(r => r.Service).Distinct().Order());
    }

    [Theory]
    [InlineData("formatVersion", "3", "formatVersion")]
    [InlineData("formatVersion", "\"\\ud800\"", "formatVersion")]
    [InlineData("name", "\"\\ud800\"", "name")]
    [InlineData("runs.0.from.part", "\"nowhere\"", "runs[0].from.part")]
    [InlineData("runs.0.from.port", "\"nose\"", "runs[0].from.port")]
    [InlineData("runs.1.id", "\"accumulator-bypass\"", "runs[1].id")]
    [InlineData("runs.2.pipe", "\"bamboo\"", "runs[2].pipe")]
    [InlineData("parts.3.box.size.xM", "1e999", "parts[3].box.size.xM")]
    [InlineData("parts.3.box.size.xM", "NaN", "parts[3].box.size.xM")]
    [InlineData("parts.3.box.size.xM", "40000", "parts[3].box.size.xM")]
    [InlineData("parts.3.box.size.xM", "\"wide\"", "parts[3].box.size.xM")]
    [InlineData("parts.4.stock", "null", "parts[4].stock")]
    [InlineData("parts.4", "null", "parts[4]")]
    [InlineData("runs.3.bends", "[{\"id\":\"b\",\"at\":{\"xM\":1,\"yM\":1,\"zM\":1}},null]", "runs[3].bends[1]")]
    [InlineData("shell.zones.1.faces.2.towards", "\"attic\"", "shell.zones[1].faces[2].towards")]
    [InlineData("brief.colour", "\"red\"", "brief.colour")]
    [InlineData("brief.school", "\"hope\"", "brief.school")]
    public void A_bad_file_is_refused_with_the_field(string path, string value, string field)
    {
        var fault = Assert.Throws<RigFileException>(() => RigFile.Read(Encoding.UTF8.GetBytes(With(path, value)))).Faults[0];
        Assert.Equal(field, fault.Path);
        Assert.NotEmpty(fault.Reason);
    }

    [Fact]
    public void Too_large_empty_and_cut_off_files_are_refused()
    {
        string Refused(byte[] bytes) => Assert.Throws<RigFileException>(() => RigFile.Read(bytes)).Faults[0].Reason;
        Assert.Contains("larger than 5 MB", Refused(new byte[RigFile.MaxBytes + 1]));
        Assert.NotEmpty(Refused([]));
        Assert.NotEmpty(Refused(Bytes[..(Bytes.Length / 2)]));
        Assert.Contains("no rig", Refused("[1]"u8.ToArray()));
    }

    [Fact]
    public void The_schema_names_every_field_of_the_file()
    {
        static void Covered(JsonNode value, JsonNode schema, string path)
        {
            if (schema["items"] is { } items && items["$ref"] is null && value is JsonArray array)
                foreach (var item in array) Covered(item!, items, path + "[]");
            if (value is not JsonObject fields) return;
            foreach (var (name, child) in fields)
            {
                var next = schema["properties"]?[name];
                Assert.True(next is not null, $"{path}.{name}");
                // A type that came before stands as a reference to its first place.
                if (child is not null && next["$ref"] is null) Covered(child, next, $"{path}.{name}");
            }
        }
        Covered(JsonNode.Parse(Bytes)!, RigFile.Schema(), "");
    }

    private static string With(string path, string value)
    {
        var root = JsonNode.Parse(Bytes)!;
        var steps = path.Split('.');
        JsonNode at = root;
        foreach (string step in steps[..^1]) at = int.TryParse(step, out int i) ? at[i]! : at[step]!;
        if (int.TryParse(steps[^1], out int last)) at[last] = "#here#";
        else at[steps[^1]] = "#here#";
        return root.ToJsonString().Replace("\"#here#\"", value, StringComparison.Ordinal);
    }
}
