using WarmConduit.Core.Numerics;

namespace WarmConduit.Core.Heat;

/// <summary>
/// A zone in a steady balance: <paramref name="OutdoorWPerK"/> to the weather, a heater that gives what keeps <paramref name="SetpointC"/> but no more
/// than <paramref name="HeaterW"/> (0: none).
/// </summary>
public readonly record struct SteadyZone(double OutdoorWPerK, double HeaterW, double SetpointC);

/// <summary>Two zones exchanging <paramref name="ConductanceWPerK"/>; indices into the list of zones.</summary>
public readonly record struct SteadyLink(int A, int B, double ConductanceWPerK);

/// <summary>Temperatures in °C and heater output in W, by zone.</summary>
public sealed record SteadyBalance(double[] TemperatureC, double[] HeaterW);

/// <summary>The linear balance of a steady night.</summary>
public static class SteadyZones
{
    private enum HeaterState
    {
        Holds,
        Full,
        Off,
    }

    /// <summary>
    /// Solves ΣG(Tother - T) + Q = 0 for all zones with outdoors at <paramref name="outdoorC"/>. Heaters hold their set point, or give their limit when that
    /// is not enough, or nothing when the zone is warmer by itself. Exact; O(n³) a try, a few tries, for the few zones of a vehicle.
    /// A zone joined to nothing stays at outdoor temperature. Throws <see cref="HeatNetworkException"/> naming zone or link, counted from 0, for numbers that
    /// make no sense.
    /// </summary>
    public static SteadyBalance Solve(IReadOnlyList<SteadyZone> zones, IReadOnlyList<SteadyLink> links, double outdoorC)
    {
        int n = zones.Count;
        Check(zones, links, outdoorC);
        var state = new HeaterState[n];
        var power = new double[n];
        for (int z = 0; z < n; z++) state[z] = zones[z].HeaterW > 0 && zones[z].SetpointC > outdoorC ? HeaterState.Holds : HeaterState.Off;
        double[] t;
        // All heaters that are not as their zone wants them turn at once; where that goes round, only the one that is farthest out.
        for (int attempt = 0; ; attempt++)
        {
            for (int z = 0; z < n; z++) power[z] = state[z] == HeaterState.Full ? zones[z].HeaterW : 0;
            t = Temperatures(zones, links, outdoorC, state, power);
            var (farthest, most, turned) = (-1, 0.0, HeaterState.Holds);
            for (int z = 0; z < n; z++)
            {
                if (state[z] == HeaterState.Holds) power[z] = Need(zones, links, outdoorC, t, z);
                // Watts or kelvins: either will do to say which is farther.
                var (next, by) = state[z] switch
                {
                    HeaterState.Holds when power[z] > zones[z].HeaterW => (HeaterState.Full, power[z] - zones[z].HeaterW),
                    HeaterState.Holds when power[z] < 0 => (HeaterState.Off, -power[z]),
                    HeaterState.Full when t[z] > zones[z].SetpointC => (HeaterState.Holds, t[z] - zones[z].SetpointC),
                    HeaterState.Off when zones[z].HeaterW > 0 && t[z] < zones[z].SetpointC => (HeaterState.Holds, zones[z].SetpointC - t[z]),
                    _ => (state[z], 0),
                };
                if (by <= 1e-9) continue;
                if (by > most) (farthest, most, turned) = (z, by, next);
                if (attempt < n + 2) state[z] = next;
            }
            if (farthest < 0 || attempt > 20 * n + 20) return new SteadyBalance(t, power);
            state[farthest] = turned;
        }
    }

    private static void Check(IReadOnlyList<SteadyZone> zones, IReadOnlyList<SteadyLink> links, double outdoorC)
    {
        HeatNumbers.Temperature("outdoor", outdoorC);
        for (int z = 0; z < zones.Count; z++)
        {
            string place = $"zone {z}";
            HeatNumbers.NotNegative(place, "conductance to outdoors", zones[z].OutdoorWPerK);
            HeatNumbers.NotNegative(place, "power of its heater", zones[z].HeaterW);
            HeatNumbers.Temperature(place, zones[z].SetpointC);
        }
        for (int l = 0; l < links.Count; l++)
        {
            string place = $"link {l}";
            HeatNumbers.NotNegative(place, "conductance", links[l].ConductanceWPerK);
            if ((uint)links[l].A >= zones.Count || (uint)links[l].B >= zones.Count || links[l].A == links[l].B)
                throw new HeatNetworkException(place, "it must join two of the zones");
        }
    }

    private static double Need(IReadOnlyList<SteadyZone> zones, IReadOnlyList<SteadyLink> links, double outdoorC, double[] t, int z)
    {
        double need = zones[z].OutdoorWPerK * (t[z] - outdoorC);
        foreach (var l in links)
        {
            if (l.A == z) need += l.ConductanceWPerK * (t[z] - t[l.B]);
            else if (l.B == z) need += l.ConductanceWPerK * (t[z] - t[l.A]);
        }
        return need;
    }

    private static double[] Temperatures(
        IReadOnlyList<SteadyZone> zones, IReadOnlyList<SteadyLink> links, double outdoorC, HeaterState[] state, double[] power)
    {
        int n = zones.Count;
        var m = new double[n, n + 1];
        for (int z = 0; z < n; z++)
        {
            m[z, z] = zones[z].OutdoorWPerK + 1e-9;
            m[z, n] = m[z, z] * outdoorC + power[z];
        }
        foreach (var l in links)
        {
            m[l.A, l.A] += l.ConductanceWPerK;
            m[l.B, l.B] += l.ConductanceWPerK;
            m[l.A, l.B] -= l.ConductanceWPerK;
            m[l.B, l.A] -= l.ConductanceWPerK;
        }
        for (int z = 0; z < n; z++)
        {
            if (state[z] != HeaterState.Holds) continue;
            for (int c = 0; c < n; c++) m[z, c] = c == z ? 1 : 0;
            m[z, n] = zones[z].SetpointC;
        }
        return Dense.Solve(m, n)!;
    }
}
