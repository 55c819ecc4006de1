using System.Text.Json;
using System.Text.Json.Nodes;
using WarmConduit.Core.Advice;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Rigs.Starting;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;

namespace WarmConduit.Core.Tests.Rigs;

/// <summary>The demo rigs are drawn by the program's own edits: <c>demo/scripts</c> gives <c>demo</c>. With WARM_CONDUIT_WRITE_DEMO set the files are written
/// instead.</summary>
public class DemoScriptTests
{
    private sealed record Step(string What, IReadOnlyList<Edit> Edits);

    private sealed record Script(JsonObject About, NewRig New, IReadOnlyList<Step> Steps);

    public static TheoryData<string> Names() => ["sparrow", "tern", "lantern"];

    [Theory]
    [MemberData(nameof(Names))]
    public void A_script_of_edits_gives_the_file_and_every_step_can_be_taken_back(string name)
    {
        var script = JsonSerializer.Deserialize<Script>(File.ReadAllBytes(Path.Combine(DemoRigs.Folder(), "scripts", $"{name}.json")), RigFile.Json)!;
        var rig = Editor.Apply(Start.Make(script.New), [new ChangeThing("rig", script.About)]).Rig;
        string begun = RigFile.Write(rig);
        var done = new List<Edited>();
        foreach (var step in script.Steps)
        {
            done.Add(Editor.Apply(rig, step.Edits));
            rig = done[^1].Rig;
        }
        string made = RigFile.Write(rig), path = Path.Combine(DemoRigs.Folder(), $"{name}.json");
        if (Environment.GetEnvironmentVariable("WARM_CONDUIT_WRITE_DEMO") is not null) File.WriteAllText(path, made);
        Assert.Equal(File.ReadAllText(path), made);
        // Undone to the start, and done again to the end.
        var redo = new Stack<Edited>();
        foreach (var step in Enumerable.Reverse(done))
        {
            redo.Push(Editor.Apply(rig, step.Inverse));
            rig = redo.Peek().Rig;
        }
        Assert.Equal(begun, RigFile.Write(rig));
        while (redo.TryPop(out var undone)) rig = Editor.Apply(rig, undone.Inverse).Rig;
        Assert.Equal(made, RigFile.Write(rig));
    }

    [Fact]
    public void Each_demo_rig_has_the_faults_that_it_shall_show_and_no_other()
    {
        static (Rig Rig, Question Question, string[] Faults) Of(string name)
        {
            var rig = DemoRigs.Of(name);
            var question = new Question(rig, Conditions.Of(rig.Brief));
            // What ice breaks follows from what stays, or from the school of heat.
            return (rig, question, [.. Adviser.Ask(question).Findings.Where(f => f.Severity <= Severity.Warning
                && f.Kind is not (FindingKind.FirstIce or FindingKind.KeepsWater)).Select(f => f.Id).Order(StringComparer.Ordinal)]);
        }
        var lantern = Of("lantern");
        Assert.True(lantern.Rig.Parts.Count >= 85 && lantern.Rig.Runs.Count >= 90);
        Assert.Contains(lantern.Rig.Runs, r => r.Service == Service.Coolant);
        Assert.Empty(lantern.Faults);
        // A vent with a dip, a dead leg, and a main that is flatter than a yard of one degree.
        var tern = Of("tern");
        Assert.Equal(["dip:vent", "parking:outside", "parking:tank:grey", "parking:tank:tank", "pool:shower-leg", "pool:vent"], tern.Faults);
        Assert.Contains(Adviser.Ask(tern.Question).Findings, f => f.Id == "flat:cold-main");
        bool Stays(double pitchDeg) => new Question(tern.Rig, tern.Question.Conditions with { Parked = new(pitchDeg, 0) })
            .Ask(DrainDownStudy.Ask).Runs.Where(r => r.RunId is "cold-main" or "cold-main-2").Sum(r => r.PoolL) > 0.01;
        Assert.Equal((false, true), (Stays(0), Stays(-1)));
        Assert.Equal(["parking:outside", "parking:tank:grey-tank", "parking:tank:tank", "pool:kitchen-cold", "pool:shower-hot", "scald:heater"],
            Of("sparrow").Faults);
    }
}
