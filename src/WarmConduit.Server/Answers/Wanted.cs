using WarmConduit.Core.Advice;
using WarmConduit.Core.Advice.AllHeights;
using WarmConduit.Core.Advice.Cold;
using WarmConduit.Core.Advice.Fixes;
using WarmConduit.Core.Studies;

namespace WarmConduit.Server.Answers;

/// <summary>All that can be wanted of a rig: the studies, and the advice over them.</summary>
internal static class Wanted
{
    public static IReadOnlyList<Study> All { get; } = [.. Study.All, Study.Of("advice", Adviser.Ask), Study.Of("fixes", Fixer.Ask), Study.Of("mendAll", MendAll.Ask), Study.Of("autoFall", HeightFinder.Ask), Study.Of("insulation", InsulationFinder.Ask), Study.Of("places", PlaceFinder.Ask)];

    public static Study? Named(string name) => All.FirstOrDefault(s => s.Name == name);
}

/// <summary>Answers by the name under which they were wanted.</summary>
public sealed class WantedAnswers : Dictionary<string, object>;
