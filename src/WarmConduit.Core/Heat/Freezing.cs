using WarmConduit.Core.Materials;

namespace WarmConduit.Core.Heat;

/// <summary>Constants of freezing used where a case gives none: water cp 4200 J/kgK, ice k 2.22 W/mK, latent heat 333.6 kJ/kg, water 1000 kg/m³.</summary>
public readonly record struct FreezingConstants(double WaterJPerKgK, double LatentJPerKg, double IceWPerMK, double WaterKgPerM3)
{
    /// <summary>The defaults.</summary>
    public static readonly FreezingConstants Default = new(Water.FreezingJPerKgK, Water.LatentJPerKg, Ice.FreezingWPerMK, 1000);
}

/// <summary>Seconds from the start to first ice, to a tenth, to a half and to all of the water frozen; infinite when the air is not below 0 °C.</summary>
public readonly record struct FreezingTimes(double FirstIceS, double TenthS, double HalfS, double SolidS)
{
    /// <summary>Nothing ever freezes.</summary>
    public static readonly FreezingTimes Never =
        new(double.PositiveInfinity, double.PositiveInfinity, double.PositiveInfinity, double.PositiveInfinity);
}

/// <summary>
/// Dead water cooling and freezing in air of constant temperature. No supercooling, which only delays and cannot be counted on. While ice grows inwards
/// its annulus insulates; solid, the time equals Plank's equation.
/// </summary>
public static class Freezing
{
    /// <summary>
    /// A metre of pipe of bore <paramref name="innerDiameterM"/> with resistance <paramref name="resistanceMKPerW"/> from water to air, wall heat
    /// capacity <paramref name="wallJPerMK"/> (counts while cooling only). O(1), exact for this model.
    /// </summary>
    public static FreezingTimes Pipe(
        double innerDiameterM, double resistanceMKPerW, double wallJPerMK, double startC, double airC, FreezingConstants k)
    {
        double kgPerM = Math.PI / 4 * innerDiameterM * innerDiameterM * k.WaterKgPerM3;
        return PartlyFilled(kgPerM, resistanceMKPerW, wallJPerMK, startC, airC, k);
    }

    /// <summary>As <see cref="Pipe"/> with the water per metre given, for a bore that is only partly full. Fewer kilograms freeze sooner.</summary>
    public static FreezingTimes PartlyFilled(
        double waterKgPerM, double resistanceMKPerW, double wallJPerMK, double startC, double airC, FreezingConstants k)
    {
        if (airC >= 0) return FreezingTimes.Never;
        double latent = waterKgPerM * k.LatentJPerKg;
        double zero = Cooling((waterKgPerM * k.WaterJPerKgK + wallJPerMK) * resistanceMKPerW, startC, airC);
        double At(double f)
        {
            double rest = f < 1 ? (1 - f) * Math.Log(1 - f) : 0;
            return zero + latent / -airC * (resistanceMKPerW * f + (f + rest) / (4 * Math.PI * k.IceWPerMK));
        }
        return new FreezingTimes(zero, At(0.1), At(0.5), At(1));
    }

    /// <summary>
    /// A lump of <paramref name="waterKg"/> with <paramref name="dryJPerK"/> of metal or plastic beside it, losing <paramref name="lossWPerK"/> to the air.
    /// O(1).
    /// </summary>
    public static FreezingTimes Lump(double waterKg, double dryJPerK, double lossWPerK, double startC, double airC, FreezingConstants k)
    {
        if (airC >= 0 || lossWPerK <= 0) return FreezingTimes.Never;
        double zero = Cooling((waterKg * k.WaterJPerKgK + dryJPerK) / lossWPerK, startC, airC);
        double whole = waterKg * k.LatentJPerKg / (lossWPerK * -airC);
        return new FreezingTimes(zero, zero + 0.1 * whole, zero + 0.5 * whole, zero + whole);
    }

    private static double Cooling(double timeConstantS, double startC, double airC) =>
        startC <= 0 ? 0 : timeConstantS * Math.Log((startC - airC) / -airC);
}
