using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies;

/// <summary>How long an answer takes, and so in which lane it waits: what a drag asks never stands behind what takes long.</summary>
public enum Lane
{
    /// <summary>Answers a drag.</summary>
    Quick,

    /// <summary>Takes seconds to minutes: a job with progress that can be stopped.</summary>
    Job,
}

/// <summary>What a study is asked besides the rig and the night.</summary>
public interface IStudyInput
{
    /// <summary>What is out of range or not in <paramref name="rig"/>, by field (<c>steps</c>, <c>bands[2].lowestM</c>); empty when all is well.</summary>
    IReadOnlyList<RigFault> Check(Rig rig);
}

/// <summary>A question that can be asked of a rig by name. Pure; immutable.</summary>
public abstract class Study
{
    /// <summary>The name under which its answer is wanted.</summary>
    public required string Name { get; init; }

    /// <summary>In which lane it waits.</summary>
    public Lane Lane { get; init; }

    /// <summary>The type of its input; null: it has none.</summary>
    public abstract Type? Input { get; }

    /// <summary>The type of its answer.</summary>
    public abstract Type Answer { get; }

    /// <summary>Whether it can be asked without an input.</summary>
    public abstract bool Usual { get; }

    /// <summary>Asks it. <paramref name="input"/> is an <see cref="Input"/> that was checked before; null: none, for a study that can be asked
    /// without.</summary>
    public abstract object Ask(Question question, IStudyInput? input = null);

    /// <summary>A study of a rig and a night alone; asked once for a <see cref="Question"/>.</summary>
    public static Study Of<TAnswer>(string name, Func<Question, TAnswer> ask, Lane lane = Lane.Quick)
        where TAnswer : class => new Plain<TAnswer>(ask) { Name = name, Lane = lane };

    /// <summary>A study with an input; <paramref name="usual"/> is what it is asked where none is sent, null where one has to be.</summary>
    public static Study<TInput, TAnswer> Of<TInput, TAnswer>(string name, Func<Question, TInput, TAnswer> ask, TInput? usual = null, Lane lane = Lane.Quick)
        where TInput : class, IStudyInput
        where TAnswer : class => new(ask, usual) { Name = name, Lane = lane };

    private sealed class Plain<TAnswer>(Func<Question, TAnswer> ask) : Study
        where TAnswer : class
    {
        public override Type? Input => null;

        public override Type Answer => typeof(TAnswer);

        public override bool Usual => true;

        public override object Ask(Question question, IStudyInput? input = null) => question.Ask(ask);
    }
}

/// <summary>A question with an input of its own.</summary>
public sealed class Study<TInput, TAnswer>(Func<Question, TInput, TAnswer> ask, TInput? usual) : Study
    where TInput : class, IStudyInput
    where TAnswer : class
{
    /// <inheritdoc/>
    public override Type Input => typeof(TInput);

    /// <inheritdoc/>
    public override Type Answer => typeof(TAnswer);

    /// <inheritdoc/>
    public override bool Usual => usual is not null;

    /// <inheritdoc/>
    public override object Ask(Question question, IStudyInput? input = null)
    {
        question.Cancel.ThrowIfCancellationRequested();
        return ask(question, (TInput?)input ?? usual ?? throw new ArgumentNullException(nameof(input), $"{Name} wants an input"));
    }
}
