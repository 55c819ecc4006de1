using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies;

namespace WarmConduit.Core.Advice.Rules;

/// <summary>Rules of sense that came after the document was saved.</summary>
internal sealed class DocumentRule : IRule
{
    public IReadOnlyList<FindingKind> Kinds => [FindingKind.DocumentRule];

    public IEnumerable<Finding> Find(Question question) => RigCheck.Check(question.Rig, question.Sound).Select(f => new Finding(
        $"document:{f.Path}", FindingKind.DocumentRule, Severity.Warning, "Something saved here breaks a newer rule", "see", null, $"{f.Path}: {f.Reason}.",
        null, [], null));
}
