using System.Globalization;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.LayUp;

/// <summary>How a system is sanitised. The product's label and local health rules come first.</summary>
/// <param name="Strength">Chlorine in the product, share of its mass, 0.005 to 0.2.</param>
/// <param name="MgPerL">Free chlorine in the water, mg/L, 1 to 200.</param>
/// <param name="ContactH">How long it stands, hours, 0.25 to 48.</param>
public sealed record DoseInput(double Strength = 0.04, double MgPerL = 50, double ContactH = 2)
{
    /// <summary>What is out of range.</summary>
    public IReadOnlyList<RigFault> Check() => FieldChecker.Of(c =>
    {
        c.Range("strength", Strength, "dose.strength");
        c.Range("mgPerL", MgPerL, "dose.mgPerL");
        c.Range("contactH", ContactH, "dose.contactH");
    });

    /// <summary>Of the product for so much water, L: bleach is taken to weigh a kilogram a litre, so that no less is dosed than wanted.</summary>
    public double OfL(double waterL) => waterL * MgPerL / 1e6 / Strength;

    internal string Percent() => string.Create(CultureInfo.InvariantCulture, $"{100 * Strength:0.#} %");
}
