using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.DrainDown;

namespace WarmConduit.Core.Studies.DrainOrder;

/// <summary>A rig part way through its draining: what has been opened, and which tasks have been done by hand. What is not named stands as the scenario has it,
/// openings shut.</summary>
internal sealed class Stage
{
    private readonly Question _question;

    /// <summary>Of <paramref name="of"/>, with <paramref name="opened"/> parts open and tasks of <paramref name="done"/> parts done; <paramref name="shut"/>
    /// parts are shut whatever the scenario says.</summary>
    public Stage(Question of, IReadOnlySet<string> opened, IReadOnlySet<string> done, string? shut = null)
    {
        var scenario = of.Scenario;
        var settings = new List<Setting>(scenario.Settings.Where(s => s.Id != shut && !Opens(of.Index.Part(s.Id))));
        foreach (var part in of.Rig.Parts)
        {
            if (part.Id == shut) settings.Add(new Setting(part.Id, Positions.Closed));
            else if (Opens(part)) settings.Add(new Setting(part.Id, opened.Contains(part.Id) ? OpenAs(scenario, part) : Positions.Closed));
        }
        var staged = scenario with { Settings = settings.InOrder() };
        var rig = of.Rig with
        {
            Scenarios = [.. of.Rig.Scenarios.Where(s => s.Id != scenario.Id).Append(staged).OrderBy(s => s.Id, StringComparer.Ordinal)],
            ByHand = [.. of.Rig.ByHand.Where(h => done.Contains(h.Id))],
        };
        _question = new Question(rig, of.Conditions with { ScenarioId = staged.Id }, of.Cancel);
    }

    /// <summary>What stays at this stage.</summary>
    public DrainDownAnswer Drained => _question.Ask(DrainDownStudy.Ask);

    /// <summary>All that stays, L.</summary>
    public double StaysL() => Drained.Stays.TotalL;

    /// <summary>Whether a part is an opening that the builder opens to drain.</summary>
    public static bool Opens(Part part) => Catalogue.Part(part.Stock)!.Passage is Passage.Mixer or Passage.Drain;

    // As the scenario leaves it where that is open.
    private static string OpenAs(Scenario scenario, Part part) =>
        scenario.PositionOf(part) is { Passes: true } open ? open.Id : Catalogue.Part(part.Stock)!.Positions.First(p => p.Passes).Id;
}
