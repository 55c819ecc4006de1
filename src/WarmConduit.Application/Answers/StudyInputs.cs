using System.Text.Json;
using WarmConduit.Core.Registry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;

namespace WarmConduit.Application.Answers;

/// <summary>Inputs of studies besides the rig and the night, by the name of the study.</summary>
public sealed class StudyInputs : Dictionary<string, JsonElement>
{
    /// <summary>The input of a study that was sent for it, checked; null: none, for a study that can be asked without. Throws <see cref="RigFileException"/>
    /// naming the field.</summary>
    public static IStudyInput? Read(StudyInputs? sent, Study study, Rig rig)
    {
        string path = $"inputs.{study.Name}";
        if (sent is null || !sent.TryGetValue(study.Name, out var json)) return study.Usual ? null : throw Refused(path, "it is missing");
        if (study.Input is null) throw Refused(path, "this answer takes no input");
        IStudyInput? input;
        try
        {
            input = (IStudyInput?)json.Deserialize(study.Input, RigFile.Compact);
        }
        catch (JsonException e)
        {
            throw Misread.Refused(study.Input, JsonSerializer.SerializeToNode(json), e, path);
        }
        if (input is null) throw Refused(path, "a value belongs here");
        var faults = input.Check(rig).Select(f => f with { Path = f.Path.Length == 0 ? path : $"{path}.{f.Path}" }).ToList();
        return faults.Count == 0 ? input : throw new RigFileException(faults);
    }

    /// <summary>Refuses what nothing reads: an input of an answer that is not wanted.</summary>
    public static void RefuseUnread(StudyInputs? sent, IEnumerable<Study> wanted)
    {
        if (sent?.Keys.FirstOrDefault(k => wanted.All(s => s.Name != k)) is not { } unread) return;
        throw Refused($"inputs.{unread}", StudyRegistry.Named(unread) is null ? "there is no answer of that name" : "that answer is not wanted here");
    }

    private static RigFileException Refused(string path, string reason) => new([new RigFault(path, reason)]);
}
