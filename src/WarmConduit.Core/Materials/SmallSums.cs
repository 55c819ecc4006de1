namespace WarmConduit.Core.Materials;

/// <summary>A mass, kg, and its distance behind the front axle, m.</summary>
public readonly record struct PlacedMass(double MassKg, double BehindFrontAxleM);

/// <summary>What axles carry, kg.</summary>
public readonly record struct AxleLoads(double FrontKg, double RearKg);

/// <summary>Small sums of the trade.</summary>
public static class SmallSums
{
    /// <summary>Standard atmosphere, bar.</summary>
    public const double AtmosphereBar = 1.01325;

    /// <summary>
    /// Litres an accumulator gives between cut-out and cut-in: Boyle, isothermal, absolute pressures; gauge bar in. 0 when the pump never presses past the
    /// air. O(1).
    /// </summary>
    public static double AccumulatorL(double volumeL, double prechargeBar, double cutInBar, double cutOutBar)
    {
        double pre = prechargeBar + AtmosphereBar, low = Math.Max(cutInBar + AtmosphereBar, pre), high = cutOutBar + AtmosphereBar;
        return Math.Max(0, volumeL * pre * (1 / low - 1 / high));
    }

    /// <summary>Static axle loads by moments about the front axle. Wheelbase above 0, m. O(masses).</summary>
    public static AxleLoads Axles(double wheelbaseM, IEnumerable<PlacedMass> masses)
    {
        if (!(wheelbaseM > 0)) throw new ArgumentOutOfRangeException(nameof(wheelbaseM), "the axles must stand apart");
        double all = 0, rear = 0;
        foreach (var m in masses)
        {
            all += m.MassKg;
            rear += m.MassKg * m.BehindFrontAxleM / wheelbaseM;
        }
        return new AxleLoads(all - rear, rear);
    }

    /// <summary>Pipe to cut between two fittings, m: the gap and the insertion depth at both ends.</summary>
    public static double CutLengthM(double gapM, double insertionStartM, double insertionEndM) => gapM + insertionStartM + insertionEndM;

    /// <summary>Seconds until hot water comes, and so the water thrown away: the bore's content over the flow.</summary>
    public static double HotWaitS(double boreL, double flowLPerMin) => boreL / flowLPerMin * 60;
}
