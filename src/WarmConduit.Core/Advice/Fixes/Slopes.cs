using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies.DrainDown;

namespace WarmConduit.Core.Advice.Fixes;

/// <summary>Heights of one run's bends that let its water leave: lifted as little as it takes, or lowered. Its ends stay.</summary>
internal sealed class Slopes
{
    // Heights are given to the millimetre.
    private const double Step = 0.001;

    private readonly Run _run;
    private readonly IReadOnlyList<Station> _down;

    public Slopes(Run run, RunDrain drain)
    {
        _run = run;
        _down = drain.Reversed ? [.. drain.Stations.Reverse()] : drain.Stations;
    }

    /// <summary>Every bend at least as high as it must be for the water to fall by <paramref name="fall"/> to the lower end; null where the upper end is too
    /// low for that, and where nothing moves.</summary>
    public (RouteRun Edit, int Moved, double ByM, Band? Band)? Lifted(double fall)
    {
        var z = Heights();
        for (int i = z.Length - 2; i >= 1; i--) z[i] = Math.Max(z[i], Up(z[i + 1] + fall * Length(i), z[i]));
        return z[0] - z[1] < fall * Length(0) - 1e-6 ? null : Made(z, i => (z[i + 1] + fall * Length(i), z[i - 1] - fall * Length(i - 1)));
    }

    /// <summary>Every bend no higher than it may be; null where the lower end is too high for that, and where nothing moves.</summary>
    public (RouteRun Edit, int Moved, double ByM, Band? Band)? Lowered(double fall)
    {
        var z = Heights();
        for (int i = 1; i + 1 < z.Length; i++) z[i] = Math.Min(z[i], Down(z[i - 1] - fall * Length(i - 1), z[i]));
        return z[^2] - z[^1] < fall * Length(z.Length - 2) - 1e-6 ? null : Made(z, i => (z[i + 1] + fall * Length(i), z[i - 1] - fall * Length(i - 1)));
    }

    /// <summary>The one bend at <paramref name="pointId"/> on the straight line between its neighbours, or null.</summary>
    public (RouteRun Edit, int Moved, double ByM, Band? Band)? Straight(string pointId)
    {
        var z = Heights();
        for (int i = 1; i + 1 < z.Length; i++)
        {
            if (_down[i].Id != pointId) continue;
            double share = Length(i - 1) / Math.Max(1e-9, Length(i - 1) + Length(i));
            z[i] = Math.Round((z[i - 1] + (z[i + 1] - z[i - 1]) * share) / Step) * Step;
            return Made(z, _ => (null, null));
        }
        return null;
    }

    private static double Up(double wanted, double was) => wanted <= was + 1e-9 ? was : was + Math.Ceiling((wanted - was) / Step - 1e-6) * Step;

    private static double Down(double wanted, double was) => wanted >= was - 1e-9 ? was : was - Math.Ceiling((was - wanted) / Step - 1e-6) * Step;

    private double[] Heights() => [.. _down.Select(s => s.HeightM)];

    // Along the plan: that is what stays when a bend goes up or down.
    private double Length(int i) => Math.Max(1e-6, (_down[i].At with { ZM = 0 }).DistanceM(_down[i + 1].At with { ZM = 0 }));

    private (RouteRun Edit, int Moved, double ByM, Band? Band)? Made(double[] z, Func<int, (double? Low, double? High)> band)
    {
        var by = new Dictionary<string, double>();
        for (int i = 1; i + 1 < z.Length; i++)
            if (Math.Abs(z[i] - _down[i].HeightM) > 1e-6) by[_down[i].Id] = z[i] - _down[i].HeightM;
        if (by.Count == 0) return null;
        var edit = new RouteRun(_run.Id, [.. _run.Bends.Select(b => by.TryGetValue(b.Id, out double d)
            ? b with { At = b.At with { ZM = Math.Round(b.At.ZM + d, 4) } } : b)]);
        Band? allowed = null;
        if (by.Count == 1)
        {
            int at = Enumerable.Range(0, _down.Count).First(i => by.ContainsKey(_down[i].Id));
            var (low, high) = band(at);
            // Heights over ground differ from those in the vehicle by what the parking does there.
            double tilt = _down[at].HeightM - _down[at].At.ZM;
            allowed = new Band(_run.Id, _down[at].Id, low - tilt, high - tilt);
        }
        return (edit, by.Count, by.Values.MaxBy(Math.Abs), allowed);
    }
}
