using System.Numerics;
using System.Runtime.InteropServices;

namespace WarmConduit.Core.Heat.Night.Steps;

/// <summary>
/// One circuit over the step at hand. For given states of heaters, fans and thermostats, every temperature of its fluid is a sum of the temperatures of what it
/// touches, and so is the heat that each of them gets: <see cref="PerK"/> and <see cref="Plain"/>.
/// </summary>
internal sealed class CircuitHeat
{
    private const double FanBandK = 2;

    private readonly CircuitLayout _net;
    private readonly NightReach[] _reach;

    // Out of a reach = a · in + b · what it touches + c.
    private readonly double[] _a, _c;

    // Of a reach: what its thermostat lets through, what is left of the difference without one, and the fluid that comes to it, as far as it is known.
    private readonly double[] _let, _left, _inC, _outC;

    // How far its fan is on, and the same the time before, with the fluid that came then.
    private readonly double[] _fan, _fanBefore, _inBeforeC;
    private readonly FluidHeaterState[] _state;

    // Rows of the nodes, by target, cut, and 1.
    private readonly double[] _node, _cut;
    private readonly int _columns, _one;
    private readonly double[] _emitterC;

    /// <summary>Heat into target t by a kelvin of target u, W/K, and without any, W.</summary>
    public readonly double[,] PerK;
    public readonly double[] Plain;

    public CircuitHeat(CircuitLayout layout)
    {
        _net = layout;
        _reach = [.. layout.Reach.Select(r => layout.Circuit.Reaches[r])];
        int n = _reach.Length;
        (_a, _c, _let, _left, _inC, _outC, _state, _emitterC) = (new double[n], new double[n], new double[n], new double[n], new double[n], new double[n],
            new FluidHeaterState[n], new double[n]);
        (_fan, _fanBefore, _inBeforeC) = (new double[n], new double[n], new double[n]);
        Array.Fill(_let, 1);
        Array.Fill(_fan, 1);
        Array.Fill(_inC, _reach.Max(r => r.Heater?.LimitC) ?? 20);
        (_columns, _one) = (layout.Targets.Length + layout.Cuts.Length + 1, layout.Targets.Length + layout.Cuts.Length);
        (_node, _cut) = (new double[layout.NodeCount * _columns], new double[layout.Cuts.Length * _columns]);
        (PerK, Plain) = (new double[layout.Targets.Length, layout.Targets.Length], new double[layout.Targets.Length]);
    }

    public CircuitLayout Layout => _net;

    public bool Runs { get; private set; }

    public ReadOnlySpan<double> InC => _inC;

    public ReadOnlySpan<double> OutC => _outC;

    /// <summary>Remembers heaters, fans and thermostats; what is called goes back to that.</summary>
    public Action Remember()
    {
        var kept = ((double[])_let.Clone(), (double[])_fan.Clone(), (double[])_fanBefore.Clone(), (double[])_inBeforeC.Clone(), (double[])_inC.Clone(),
            (FluidHeaterState[])_state.Clone(), Runs);
        return () =>
        {
            kept.Item1.CopyTo(_let, 0);
            kept.Item2.CopyTo(_fan, 0);
            kept.Item3.CopyTo(_fanBefore, 0);
            kept.Item4.CopyTo(_inBeforeC, 0);
            kept.Item5.CopyTo(_inC, 0);
            kept.Item6.CopyTo(_state, 0);
            Runs = kept.Runs;
        };
    }

    /// <summary>Takes pump and heaters as they are at <paramref name="atS"/>.</summary>
    public void Start(double atS)
    {
        Runs = CircuitLayout.On(_net.Circuit.PumpOn, atS);
        for (int r = 0; r < _reach.Length; r++)
        {
            if (_reach[r].Heater is not { } heater) continue;
            bool on = Runs && heater.PowerW > 0 && CircuitLayout.On(heater.On, atS);
            if (!on) _state[r] = FluidHeaterState.Off;
            else if (_state[r] == FluidHeaterState.Off && _inC[r] < heater.LimitC) _state[r] = FluidHeaterState.Full;
        }
    }

    /// <summary>Works out what its fluid does to what it touches. <paramref name="touchedC"/>: targets as they can be foreseen; <paramref name="throughIce"/>:
    /// conductance to a target through its ice.</summary>
    public void Build(ReadOnlySpan<double> touchedC, Func<int, double, double> throughIce)
    {
        Array.Clear(PerK);
        Array.Clear(Plain);
        if (!Runs) return;
        for (int r = 0; r < _reach.Length; r++) Share(r, touchedC, throughIce);
        Array.Clear(_node);
        foreach (int n in _net.Order)
        {
            if (_net.CutOf[n] >= 0) Node(n)[_net.Targets.Length + _net.CutOf[n]] = 1;
            else Mix(n, Node(n));
        }
        CloseCuts(touchedC);
        for (int r = 0; r < _reach.Length; r++)
        {
            if (_net.Column[r] is not (>= 0 and int t)) continue;
            double g = _net.CarriedWPerK[r] * (1 - _a[r]);
            if (g == 0) continue;
            var from = Node(_net.From[r]);
            AddTimes(MemoryMarshal.CreateSpan(ref PerK[t, 0], Plain.Length), from[..Plain.Length], g);
            Plain[t] += g * from[_one];
            PerK[t, t] -= g;
        }
    }

    /// <summary>Temperatures of its fluid with what it touches at <paramref name="c"/>.</summary>
    public void Take(ReadOnlySpan<double> c)
    {
        if (!Runs) return;
        for (int r = 0; r < _reach.Length; r++)
        {
            var from = Node(_net.From[r]);
            double sum = from[_one];
            for (int u = 0; u < c.Length; u++) sum += from[u] * c[u];
            _inC[r] = sum;
            _outC[r] = _a[r] * sum + _c[r] + (_net.Column[r] is >= 0 and int t ? (1 - _a[r]) * c[t] : 0);
        }
    }

    /// <summary>Heat a reach gives off, W.</summary>
    public double HeatW(int r) => Runs ? _net.CarriedWPerK[r] * (_inC[r] - _outC[r]) : 0;

    /// <summary>
    /// Sets heaters, fans and thermostats to what the temperatures ask for; whether one changed. <paramref name="slopes"/>: what all thermostats on a target
    /// move it by, wide open, in their bands (<see cref="AddSlopes"/>). <paramref name="oneOnly"/>: where heaters turn each other on and off, only the one
    /// that is farthest out turns.
    /// </summary>
    public bool Mend(double atS, ReadOnlySpan<double> touchedC, ReadOnlySpan<double> slopes, bool oneOnly)
    {
        if (!Runs) return false;
        bool changed = TurnHeaters(atS, oneOnly);
        for (int r = 0; r < _reach.Length; r++)
        {
            if (_net.Column[r] is not (>= 0 and int t)) continue;
            // What it gives goes with the difference to the power 1.3: near enough, the share along it is the same.
            if (_reach[r].Emission is not null && Math.Abs(_emitterC[r] - _inC[r]) > 0.1 + 0.02 * Math.Abs(_inC[r] - touchedC[t])) changed = true;
            if (_reach[r].Emission is { FanFromC: > -1000 } emission) changed |= TurnFan(r, emission.FanFromC);
            if (_reach[r].SetpointC is not { } set) continue;
            // Newton: what it touches answers what all of them let through.
            double ask = (set + _reach[r].BandK / 2 - touchedC[t]) / _reach[r].BandK;
            double let = Math.Clamp(_let[r] + ((ask - _let[r]) / (1 + slopes[t])), 0, 1);
            if (Math.Abs(let - _let[r]) > 1e-3) changed = true;
            _let[r] = let;
        }
        return changed;
    }

    // The more a fan gives, the colder the fluid comes: by the slope of the last two tries it is found where both agree.
    private bool TurnFan(int r, double fromC)
    {
        double want = ((_inC[r] - fromC) / FanBandK) + 0.5, moved = _fan[r] - _fanBefore[r];
        if (Math.Abs(Math.Clamp(want, 0, 1) - _fan[r]) < 5e-3) return false;
        double slope = Math.Abs(moved) > 1e-6 ? Math.Max(0, -(_inC[r] - _inBeforeC[r]) / moved / FanBandK) : 0;
        (_fanBefore[r], _inBeforeC[r]) = (_fan[r], _inC[r]);
        _fan[r] = Math.Clamp(_fan[r] + ((want - _fan[r]) / (1 + slope)), 0, 1);
        return true;
    }

    /// <summary>Adds to each target what thermostats on it move it by, wide open, in their bands; <paramref name="answerKPerW"/>: how much a watt over the step
    /// moves its mean.</summary>
    public void AddSlopes(int target, double answerKPerW, ReadOnlySpan<double> touchedC, ref double slope)
    {
        for (int r = 0; r < _reach.Length; r++)
            if (Runs && _net.Column[r] == target && _reach[r].SetpointC is not null)
                slope += Math.Max(0, _net.CarriedWPerK[r] * (1 - _left[r]) * (_inC[r] - touchedC[target])) * answerKPerW / _reach[r].BandK;
    }

    // Full until that would pass the limit, at it while that neither takes more than its power nor cools, off where the fluid comes hotter.
    private bool TurnHeaters(double atS, bool oneOnly)
    {
        const double tolerance = 1e-6;
        var (farthest, most, turned) = (-1, 0.0, FluidHeaterState.Full);
        for (int r = 0; r < _reach.Length; r++)
        {
            if (_reach[r].Heater is not { PowerW: > 0 } heater || !CircuitLayout.On(heater.On, atS)) continue;
            double over = _inC[r] - heater.LimitC, overFull = over + heater.PowerW / _net.CarriedWPerK[r];
            var (next, by) = _state[r] switch
            {
                FluidHeaterState.Full when overFull > tolerance => (FluidHeaterState.AtLimit, overFull),
                FluidHeaterState.AtLimit when overFull < -tolerance => (FluidHeaterState.Full, -overFull),
                FluidHeaterState.AtLimit when over > tolerance => (FluidHeaterState.Off, over),
                FluidHeaterState.Off when over < -tolerance => (FluidHeaterState.AtLimit, -over),
                _ => (_state[r], 0),
            };
            if (by > most) (farthest, most, turned) = (r, by, next);
            if (!oneOnly) _state[r] = next;
        }
        if (farthest >= 0) _state[farthest] = turned;
        return farthest >= 0;
    }

    private void Share(int r, ReadOnlySpan<double> touchedC, Func<int, double, double> throughIce)
    {
        var reach = _reach[r];
        double carried = _net.CarriedWPerK[r];
        (_a[r], _c[r]) = (1, 0);
        if (reach.Heater is { } heater)
        {
            if (_state[r] == FluidHeaterState.Full) _c[r] = heater.PowerW / carried;
            else if (_state[r] == FluidHeaterState.AtLimit) (_a[r], _c[r]) = (0, heater.LimitC);
        }
        else if (_net.Column[r] is >= 0 and int t)
        {
            if (reach.Emission is null) _left[r] = Math.Exp(-throughIce(t, reach.ConductanceWPerK) / carried);
            else (_emitterC[r], _left[r]) = (_inC[r], Left(r, _inC[r], touchedC[t]));
            _a[r] = 1 - _let[r] * (1 - _left[r]);
        }
    }

    // What is left of the difference to the room behind an emitter that its thermostat lets give all: d(T - room)/dx ∝ -(T - room)^1.3, integrated.
    private double Left(int r, double inC, double roomC)
    {
        var emission = _reach[r].Emission!;
        double share = emission.StillShare + (1 - emission.StillShare) * _fan[r];
        double over = Math.Abs(inC - roomC), k = share * emission.RatedW / Math.Pow(emission.RatedK, 1.3) / _net.CarriedWPerK[r];
        return over < 1e-9 ? 1 : Math.Pow(1 + 0.3 * k * Math.Pow(over, 0.3), -1 / 0.3);
    }

    private Span<double> Node(int n) => _node.AsSpan(n * _columns, _columns);

    private Span<double> Cut(int k) => _cut.AsSpan(k * _columns, _columns);

    private static void AddTimes(Span<double> to, ReadOnlySpan<double> what, double times)
    {
        int wide = Vector<double>.Count, u = 0;
        for (; u <= what.Length - wide; u += wide)
            (new Vector<double>(to[u..]) + (new Vector<double>(what[u..]) * times)).CopyTo(to[u..]);
        for (; u < what.Length; u++) to[u] += times * what[u];
    }

    private void Mix(int n, Span<double> into)
    {
        double all = _net.IntoWPerK[n];
        foreach (int r in _net.Into[n])
        {
            double part = _net.CarriedWPerK[r] / all, a = part * _a[r];
            if (a != 0) AddTimes(into, Node(_net.From[r]), a);
            into[_one] += part * _c[r];
            if (_net.Column[r] is >= 0 and int t) into[t] += part * (1 - _a[r]);
        }
    }

    // The cuts' own temperatures, out of what comes round to them; put into the rows of all nodes. A way round that nothing heats or cools is as warm as
    // what the circuit touches.
    private void CloseCuts(ReadOnlySpan<double> touchedC)
    {
        int cuts = _net.Cuts.Length, first = _net.Targets.Length;
        Array.Clear(_cut);
        double rest = 0;
        foreach (double c in touchedC) rest += c / touchedC.Length;
        for (int k = 0; k < cuts; k++)
        {
            var row = Cut(k);
            Mix(_net.Cuts[k], row);
            for (int j = 0; j < cuts; j++) row[first + j] = (k == j ? 1 : 0) - row[first + j];
        }
        for (int k = 0; k < cuts; k++)
        {
            var row = Cut(k);
            double pivot = row[first + k];
            if (pivot < 1e-9)
            {
                row[_one] += 1e-9 * rest;
                pivot += 1e-9;
            }
            for (int u = 0; u < _columns; u++) row[u] /= pivot;
            row[first + k] = 1;
            for (int j = 0; j < cuts; j++)
                if (j != k && Cut(j)[first + k] is not 0 and var f) AddTimes(Cut(j), row, -f);
        }
        for (int n = 0; n < _net.NodeCount; n++)
        {
            var node = Node(n);
            for (int k = 0; k < cuts; k++)
            {
                double f = node[first + k];
                if (f == 0) continue;
                node[first + k] = 0;
                AddTimes(node[..first], Cut(k)[..first], f);
                node[_one] += f * Cut(k)[_one];
            }
        }
    }
}
