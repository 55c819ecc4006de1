using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies;

/// <summary>One input of a number: its name, its value, whether it is an estimate.</summary>
/// <param name="Name">What it is.</param>
/// <param name="Value">Its value.</param>
/// <param name="Estimate">It is an estimate.</param>
public sealed record WhyInput(string Name, Measure Value, bool Estimate);

/// <summary>How a number came about: the formula in words and what went into it.</summary>
/// <param name="Formula">In words.</param>
/// <param name="Inputs">What went into it.</param>
public sealed record Why(string Formula, IReadOnlyList<WhyInput> Inputs);
