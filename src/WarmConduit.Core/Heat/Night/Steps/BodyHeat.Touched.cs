namespace WarmConduit.Core.Heat.Night.Steps;

/// <content>Bodies that circuits touch.</content>
internal sealed partial class BodyHeat
{
    /// <summary>Adds the bodies that circuits touch: each has an equation of its own, for its mean over the step.</summary>
    public void AddTouched(ZoneEquations equations, double step)
    {
        foreach (int b in _layout.Touched)
        {
            int phase = _state.Phase(b), row = _layout.ZoneCount + _layout.TouchedAt[b];
            if (phase == 0)
            {
                AddIce(equations, b, step);
                equations.Matrix[row, row] += 1;
                continue;
            }
            double all = AllWPerK(b);
            ref readonly var s = ref Answer(b, all, phase, step);
            if (all == 0)
            {
                (_startC[b], _fixedEndC[b]) = (0, 0);
                equations.Matrix[row, row] += 1;
                equations.Side[row] += _state.C[b];
                continue;
            }
            Surround(b, all, _extras.OwnWatt(b));
            equations.Matrix[row, row] += all;
            equations.Side[row] += all * (s.Phi * _state.C[b] + s.MeanStart * _startC[b] + s.MeanEnd * _fixedEndC[b]);
            for (int c = _contacts.First(b); c < _contacts.End(b); c++)
            {
                int z = _contacts.To(c);
                if (z < 0) continue;
                double g = _contacts.WPerK(c);
                equations.Matrix[row, z] -= s.MeanEnd * g;
                equations.Matrix[z, z] += g / 2;
                equations.Matrix[z, row] -= g;
                equations.Side[z] -= g / 2 * _air.ZoneStartC[z];
            }
        }
    }

    /// <summary>Share of what circuits bring to a body over the step that its equation has: none where ice grows, which stays at 0 °C.</summary>
    public double BroughtShare(int b) => _state.Phase(b) == 0 || AllWPerK(b) == 0 ? 0 : 1 - _answer[b].Phi;

    /// <summary>Takes what circuits were solved to bring.</summary>
    public void TakeBrought(Circuits circuits)
    {
        foreach (int b in _layout.Touched)
        {
            double all = AllWPerK(b);
            if (_state.Phase(b) == 0 || all == 0) continue;
            double over = circuits.BroughtW(_layout.TouchedAt[b]) / all;
            _startC[b] += over;
            _fixedEndC[b] += over;
        }
    }
}
