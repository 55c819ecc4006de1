using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies;

/// <summary>A value with its kind, in SI or litres. A null value means "never" or "without limit".</summary>
public sealed record Measure(double? Value, Quantity Quantity);

/// <summary>One input of a number: its name, its value, whether it is an estimate.</summary>
public sealed record WhyInput(string Name, Measure Value, bool Estimate);

/// <summary>How a number came about: the formula in words and what went into it.</summary>
public sealed record Why(string Formula, IReadOnlyList<WhyInput> Inputs);

/// <summary>A sentence with <c>{0}</c>, <c>{1}</c> … where the values go, so that they are written in the reader's units.</summary>
public sealed record Sentence(string Text, IReadOnlyList<Measure> Values)
{
    /// <summary>A sentence without values.</summary>
    public static implicit operator Sentence(string text) => new(text, []);
}
