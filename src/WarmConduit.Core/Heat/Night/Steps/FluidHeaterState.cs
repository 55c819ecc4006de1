namespace WarmConduit.Core.Heat.Night.Steps;

/// <summary>What a heater of a circuit does over a step.</summary>
internal enum FluidHeaterState
{
    /// <summary>It gives all it can.</summary>
    Full,

    /// <summary>It gives what holds its limit.</summary>
    AtLimit,

    /// <summary>It gives nothing.</summary>
    Off,
}
