using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies;

/// <summary>One input of a number: its name, its value, whether it is an estimate.</summary>
public sealed record WhyInput(string Name, Measure Value, bool Estimate);

/// <summary>How a number came about: the formula in words and what went into it.</summary>
public sealed record Why(string Formula, IReadOnlyList<WhyInput> Inputs);
