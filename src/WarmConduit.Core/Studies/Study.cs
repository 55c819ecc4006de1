using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Standing;

namespace WarmConduit.Core.Studies;

/// <summary>A question that can be asked of a rig by name.</summary>
/// <param name="Name">The name under which its answer is wanted.</param>
/// <param name="Answer">The type of the answer.</param>
/// <param name="Ask">Asks it.</param>
public sealed record Study(string Name, Type Answer, Func<Question, object> Ask)
{
    /// <summary>All studies. A new one is a folder and a line here.</summary>
    public static IReadOnlyList<Study> All { get; } =
    [
        Of("drainDown", DrainDownStudy.Ask),
        Of("freezeLadder", FreezeLadderStudy.Ask),
        Of("rungWhy", RungWhyStudy.Ask),
        Of("standing", StandingStudy.Ask),
    ];

    /// <summary>A study under a name.</summary>
    public static Study Of<TAnswer>(string name, Func<Question, TAnswer> ask)
        where TAnswer : class => new(name, typeof(TAnswer), q => q.Ask(ask));
}
