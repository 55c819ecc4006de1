using WarmConduit.Core.Heat.Night;

namespace WarmConduit.Core.Tests.Heat;

/// <summary>
/// The equations of the night as they are written down, stepped on by equal small steps and nothing else: shares no code with the engine, and is far too slow
/// for use. For nights with the default constants.
/// </summary>
internal sealed class PlainNight(NightNetwork night)
{
    private const double Water = 4200, Ice = 2060, Latent = 333_600;

    private readonly double[] _zone = [.. night.Zones.Select(z => z.StartC)];
    private readonly double[] _h = [.. night.Bodies.Select(b => b.StartC * (b.WaterKg * Water + b.DryJPerK) - b.StartIce * b.WaterKg * Latent)];
    private readonly Dictionary<NightHeater, double> _given = night.Zones.SelectMany(z => z.Heaters).Concat(night.Bodies.SelectMany(b => b.Heaters))
        .ToDictionary(h => h, _ => 0.0);
    private readonly NightEvent[] _events = [.. night.Events.OrderBy(e => e.TimeS)];
    private readonly Dictionary<(string, string?), double> _factor = [];
    private int _event;

    /// <summary>When the water of each body first falls below 0 °C, s; infinite: not in what was run.</summary>
    public double[] FirstIceS { get; } = [.. night.Bodies.Select(b => b.StartC < 0 || b.StartIce > 0 ? 0 : double.PositiveInfinity)];

    /// <summary>When it first comes within 0.05 K of 0 °C.</summary>
    public double[] NearIceS { get; } = [.. night.Bodies.Select(b => b.StartC < 0.05 ? 0 : double.PositiveInfinity)];

    private readonly Dictionary<string, int> _zoneOf = night.Zones.Select((z, i) => (z.Id, i)).ToDictionary(t => t.Id, t => t.i);
    private readonly Dictionary<string, int> _bodyOf = night.Bodies.Select((b, i) => (b.Id, i)).ToDictionary(t => t.Id, t => t.i);

    // What each contact of each body is with: a room, a body, or neither.
    private (char Kind, int Index)[][] _target = [];

    /// <summary>Air of zones, °C, temperature of bodies and their ice, at <paramref name="reports"/> that are multiples of <paramref name="step"/>.</summary>
    public (double[,] ZoneC, double[,] BodyC, double[,] Ice) Run(IReadOnlyList<double> reports, double step)
    {
        var (zoneC, bodyC, ice) = (new double[reports.Count, _zone.Length], new double[reports.Count, _h.Length], new double[reports.Count, _h.Length]);
        int report = 0;
        _target = [.. night.Bodies.Select(b => b.Contacts.Select(c => _bodyOf.TryGetValue(c.To, out int w) ? ('w', w)
            : _zoneOf.TryGetValue(c.To, out int z) ? ('z', z) : ('-', 0)).ToArray())];
        for (long k = 0; report < reports.Count; k++)
        {
            if (k * step >= reports[report] - 1e-6)
            {
                for (int z = 0; z < _zone.Length; z++) zoneC[report, z] = _zone[z];
                for (int b = 0; b < _h.Length; b++) (bodyC[report, b], ice[report, b]) = (BodyC(b), IceOf(b));
                report++;
            }
            Step(k * step, step);
        }
        return (zoneC, bodyC, ice);
    }

    private double IceOf(int b) => Math.Clamp(-_h[b] / (night.Bodies[b].WaterKg * Latent), 0, 1);

    private double BodyC(int b)
    {
        var (kg, dry) = (night.Bodies[b].WaterKg, night.Bodies[b].DryJPerK);
        return _h[b] > 0 ? _h[b] / (kg * Water + dry) : Math.Min(0, (_h[b] + kg * Latent) / (kg * Ice + dry));
    }

    private double Factor(string a, string? b) => _factor.Count == 0 ? 1
        : _factor.TryGetValue((a, b), out double f) || (b is not null && _factor.TryGetValue((b, a), out f)) ? f : 1;

    private void Step(double t, double step)
    {
        for (; _event < _events.Length && _events[_event].TimeS <= t; _event++) _factor[(_events[_event].A, _events[_event].B)] = _events[_event].Factor;
        double outdoor = At(night.OutdoorC, t), wind = At(night.WindMPerS, t);
        var (zoneW, bodyW) = (new double[_zone.Length], new double[_h.Length]);
        void Pass(string a, string b, double g)
        {
            double w = g * (_zone[_zoneOf[b]] - _zone[_zoneOf[a]]);
            zoneW[_zoneOf[a]] += w;
            zoneW[_zoneOf[b]] -= w;
        }
        for (int z = 0; z < _zone.Length; z++)
        {
            var zone = night.Zones[z];
            zoneW[z] += (zone.OutdoorWPerK + wind * zone.OutdoorWPerKPerMPerS) * Factor(zone.Id, null) * (outdoor - _zone[z]);
            foreach (var (film, m2) in zone.Outer ?? [])
                zoneW[z] += m2 * Factor(zone.Id, null) * Outer((WallFilm)film, _zone[z], outdoor, wind, night.SkyC is { } sky ? At(sky, t) : outdoor);
            foreach (var heater in zone.Heaters) zoneW[z] += Heat(heater, t, step, _zone[z]);
        }
        foreach (var l in night.Links)
            Pass(l.A, l.B, (l.ConductanceWPerK + (l.Windy ?? []).Sum(f =>
            f.Size * -Outer((WallFilm)f.Film with { SkyView = 0 }, outdoor + 1, outdoor, wind, outdoor))) * Factor(l.A, l.B));
        foreach (var o in night.Openings)
        {
            double a = _zone[_zoneOf[o.A]], b = o.B is null ? outdoor : _zone[_zoneOf[o.B]];
            // Through a hole that lies flat, only what is warmer below rises.
            bool still = (o.Above > 0 && b > a) || (o.Above < 0 && a > b);
            double byWarmth = (still ? 0.05 : 1) * 0.6 * o.AreaM2 / 3 * Math.Sqrt(9.81 * o.HeightM * Math.Abs(a - b) / ((a + b) / 2 + 273.15)),
                byWind = 0.025 * o.AreaM2 * o.WindShare * wind;
            double g = Factor(o.A, o.B) * 1.29 * 1006 * Math.Sqrt(byWarmth * byWarmth + byWind * byWind);
            if (o.B is null) zoneW[_zoneOf[o.A]] += g * (outdoor - a);
            else Pass(o.A, o.B, g);
        }
        for (int b = 0; b < _h.Length; b++)
        {
            var body = night.Bodies[b];
            double bodyC = BodyC(b);
            foreach (var heater in body.Heaters) bodyW[b] += Heat(heater, t, step, heater.SensedAt is { } id ? Its(id, outdoor) : bodyC);
            for (int c = 0; c < body.Contacts.Count; c++)
            {
                var (to, plain, films) = body.Contacts[c];
                var (kind, other) = _target[b][c];
                double r = body.Ice == IceGrowth.Cylinder && IceOf(b) is > 0 and < 1 and double f
                    ? -Math.Log(1 - Math.Min(f, 0.9999)) / (4 * Math.PI * 2.22 * body.LengthM) : 0;
                if (kind == 'w')
                {
                    double passes = plain * (BodyC(other) - bodyC);
                    bodyW[b] += passes;
                    bodyW[other] -= passes;
                    continue;
                }
                double its = kind == 'z' ? _zone[other] : to == "outdoor" ? outdoor : At(night.Sources.Single(s => s.Id == to).TemperatureC, t);
                double all = plain;
                foreach (var (film, size) in films ?? [])
                    all += size * (film is CylinderFilm pipe ? Metre(pipe, bodyC, its, wind) : -Outer((WallFilm)film, its + 1, its, wind, its));
                double w = all / (1 + all * r) * (its - bodyC);
                bodyW[b] += w;
                if (kind == 'z') zoneW[other] -= w;
            }
        }
        foreach (var circuit in night.Circuits) GoRound(circuit, t, outdoor, zoneW, bodyW);
        for (int z = 0; z < _zone.Length; z++) _zone[z] += zoneW[z] * step / night.Zones[z].HeatCapacityJPerK;
        for (int b = 0; b < _h.Length; b++)
        {
            double before = _h[b];
            _h[b] += bodyW[b] * step;
            if (before >= 0 && _h[b] < 0) FirstIceS[b] = Math.Min(FirstIceS[b], t + (step * before / (before - _h[b])));
            if (NearIceS[b] > t && BodyC(b) < 0.05) NearIceS[b] = t;
        }
    }

    // Fluid sent round until its temperatures stay: node by node what comes in is mixed, reach by reach it loses in a hundred short lengths.
    private readonly Dictionary<string, Dictionary<string, double>> _fluid = [];
    private readonly Dictionary<string, (string To, NightReach[] Into, double KgPerS)[]> _nodes = [];

    private double Its(string id, double outdoor) =>
        _zoneOf.TryGetValue(id, out int z) ? _zone[z] : _bodyOf.TryGetValue(id, out int b) ? BodyC(b) : outdoor;

    private void GoRound(NightCircuit circuit, double t, double outdoor, double[] zoneW, double[] bodyW)
    {
        static bool On(IReadOnlyList<NightWindow> windows, double t) => windows.Any(w => t >= w.FromS && t < w.ToS);
        if (!On(circuit.PumpOn, t)) return;
        double Out(NightReach reach, double c)
        {
            double carried = reach.KgPerS * circuit.JPerKgK;
            if (reach.Heater is { } heater) return On(heater.On, t) && c < heater.LimitC ? Math.Min(heater.LimitC, c + (heater.PowerW / carried)) : c;
            if (reach.Target is null) return c;
            double its = Its(reach.Target, outdoor);
            double let = reach.SetpointC is { } set ? Math.Clamp((set + (reach.BandK / 2) - its) / reach.BandK, 0, 1) : 1;
            if (reach.Emission is not { } e)
            {
                double g = reach.ConductanceWPerK;
                if (_bodyOf.TryGetValue(reach.Target!, out int b) && night.Bodies[b].Ice == IceGrowth.Cylinder && IceOf(b) is > 0 and < 1 and double f)
                    g /= 1 - (g * Math.Log(1 - Math.Min(f, 0.9999)) / (4 * Math.PI * 2.22 * night.Bodies[b].LengthM));
                return c - (let * (c - its) * (1 - Math.Exp(-g / carried)));
            }
            double fan = e.StillShare + ((1 - e.StillShare) * Math.Clamp(((c - e.FanFromC) / 2) + 0.5, 0, 1)), at = c;
            for (int i = 0; i < 100; i++)
                at -= fan * e.RatedW / 100 * Math.Sign(at - its) * Math.Pow(Math.Abs(at - its) / e.RatedK, 1.3) / carried;
            return c + ((at - c) * let);
        }
        if (!_fluid.TryGetValue(circuit.Id, out var fluid)) _fluid[circuit.Id] = fluid = [];
        if (!_nodes.TryGetValue(circuit.Id, out var nodes))
            _nodes[circuit.Id] = nodes = [.. circuit.Reaches.GroupBy(r => r.To).Select(g => (g.Key, g.ToArray(), g.Sum(r => r.KgPerS)))];
        double C(string node) => fluid.TryGetValue(node, out double c) ? c : 20;
        for (int round = 0; round < 400; round++)
        {
            double moved = 0;
            foreach (var (to, into, kg) in nodes)
            {
                double c = 0;
                foreach (var r in into) c += r.KgPerS * Out(r, C(r.From)) / kg;
                moved = Math.Max(moved, Math.Abs(c - C(to)));
                fluid[to] = c;
            }
            if (moved < 1e-4) break;
        }
        foreach (var reach in circuit.Reaches)
        {
            if (reach.Target is null) continue;
            double watt = reach.KgPerS * circuit.JPerKgK * (C(reach.From) - Out(reach, C(reach.From)));
            if (_zoneOf.TryGetValue(reach.Target, out int z)) zoneW[z] += watt;
            else if (_bodyOf.TryGetValue(reach.Target, out int b)) bodyW[b] += watt;
        }
    }

    // What a square metre behind an outer film gains, W: convection 4 + 4 v and radiation as between two that are nearly alike, by its view of the sky from
    // there.
    private static double Outer(WallFilm film, double inC, double outC, double wind, double skyC)
    {
        double Radiates(double a, double b) => 4 * 0.9 * 5.670374419e-8 * Math.Pow(((a + b) / 2) + 273.15, 3);
        double h = 4 + (4 * film.WindShare * wind) + Radiates(outC, outC), seen = outC + (film.SkyView * Radiates(outC, skyC) * (skyC - outC) / h);
        return (seen - inC) / (film.ResistanceM2KPerW + (1 / h));
    }

    // W/K of a metre of pipe: its surface is where what comes through the wall leaves through the film (ISO 12241), found by halving.
    private static double Metre(CylinderFilm film, double waterC, double airC, double wind)
    {
        double d = film.DiameterM, v = wind * film.WindShare, over = Math.Max(Math.Abs(waterC - airC), 1e-3) * (waterC < airC ? -1 : 1);
        double Blown(double w) => w <= 0 ? 0 : w * d <= 8.55e-3 ? (8.1e-3 / d) + (3.14 * Math.Sqrt(w / d)) : 8.9 * Math.Pow(w, 0.9) / Math.Pow(d, 0.1);
        // Gusts and lulls: the worst up to the wind.
        double worst = Math.Max(Blown(v), Blown(Math.Min(v, 8.5499e-3 / d)));
        double Film(double share)
        {
            double k = Math.Abs(share * over), ts = airC + (share * over) + 273.15, ta = airC + 273.15;
            return Math.Max(worst, d * d * d * k <= 10 ? 1.25 * Math.Pow(k / d, 0.25) : 1.21 * Math.Pow(k, 1.0 / 3))
                + (film.Emissivity * 5.670374419e-8 * ((ts * ts) + (ta * ta)) * (ts + ta));
        }
        double low = 0, high = 1;
        while (high - low > 1e-7)
        {
            double share = (low + high) / 2;
            if (Film(share) * Math.PI * d * share > (1 - share) / film.InnerMKPerW) high = share;
            else low = share;
        }
        return (1 - low) / film.InnerMKPerW;
    }

    private double Heat(NightHeater heater, double t, double step, double celsius)
    {
        if (t < heater.FromS || t >= heater.ToS || _given[heater] >= heater.LimitWh * 3600) return 0;
        double w = heater.PowerW * Math.Clamp((heater.SetpointC + heater.BandK / 2 - celsius) / heater.BandK, 0, 1);
        _given[heater] += w * step;
        return w;
    }

    private static double At(TimeSeries series, double t)
    {
        for (int i = 1; i < series.TimeS.Count; i++)
        {
            double share = (t - series.TimeS[i - 1]) / (series.TimeS[i] - series.TimeS[i - 1]);
            if (share <= 1) return series.Value[i - 1] + share * (series.Value[i] - series.Value[i - 1]);
        }
        return series.Value[^1];
    }
}
