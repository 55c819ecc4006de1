namespace WarmConduit.Core.Materials;

/// <summary>What electric heat runs on.</summary>
public enum ElectricSupply
{
    /// <summary>The vehicle's battery.</summary>
    Battery,

    /// <summary>Mains: it warms only while the vehicle is plugged in.</summary>
    Mains,

    /// <summary>What the alternator has to spare: it warms only while the vehicle drives. A winter's sun is not counted on.</summary>
    Surplus,
}
