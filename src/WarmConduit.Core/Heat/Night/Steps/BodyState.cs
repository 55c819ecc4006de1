namespace WarmConduit.Core.Heat.Night.Steps;

/// <summary>What state the bodies are in: enthalpy (as <see cref="NightBody"/> has it), temperature, ice, and when each came to its milestones.</summary>
internal sealed class BodyState
{
    // 1/(4π k length) of bodies in which ice grows from the wall, 0 of others.
    private readonly double[] _annulus;
    private readonly double[] _lowestH;
    private readonly BodyMilestones[] _marks;

    public readonly double[] H, C, BeforeC;

    private readonly double[] _beforeH;

    // Of antifreeze; null: water, or nothing that freezes.
    private readonly NightSlush?[] _slush;

    /// <summary>Heat capacity all water and all ice, J/K; latent heat, J, and one over it (0 without water).</summary>
    public readonly double[] Wet, Frozen, Latent, PerLatent;

    public BodyState(NightLayout layout)
    {
        int n = layout.BodyCount;
        (H, C, BeforeC, _lowestH, _annulus, _beforeH) = (new double[n], new double[n], new double[n], new double[n], new double[n], new double[n]);
        (Wet, Frozen, Latent, PerLatent) = (new double[n], new double[n], new double[n], new double[n]);
        (_marks, _slush) = (new BodyMilestones[n], new NightSlush?[n]);
        var constants = layout.Network.Constants;
        for (int b = 0; b < n; b++)
        {
            var body = layout.Network.Bodies[b];
            Wet[b] = body.WaterKg * constants.WaterJPerKgK + body.DryJPerK;
            Frozen[b] = body.WaterKg * constants.IceJPerKgK + body.DryJPerK;
            Latent[b] = body.WaterKg * constants.LatentJPerKg;
            PerLatent[b] = Latent[b] > 0 ? 1 / Latent[b] : 0;
            if (body.Ice == IceGrowth.Cylinder) _annulus[b] = 1 / (4 * Math.PI * constants.IceWPerMK * body.LengthM);
            H[b] = _lowestH[b] = body.StartC > 0 ? Wet[b] * body.StartC : body.StartC < 0 ? Frozen[b] * body.StartC - Latent[b] : -body.StartIce * Latent[b];
            C[b] = BeforeC[b] = body.StartC;
            double never = double.PositiveInfinity, ice = body.WaterKg == 0 ? 0 : body.StartC < 0 ? 1 : body.StartIce;
            double now = layout.Network.StartS;
            if ((_slush[b] = body.Slush) is not null) ice = IceAt(b, H[b]);
            _marks[b] = new BodyMilestones(ice > 0 ? now : never, ice >= 0.1 ? now : never, ice >= 1 ? now : never, never, 0, 0);
        }
    }

    /// <summary>1: water, 0: ice growing, -1: all ice.</summary>
    public int Phase(int b) => H[b] > 0 ? 1 : H[b] <= -Latent[b] ? -1 : 0;

    public double Ice(int b) => IceAt(b, H[b]);

    public double CelsiusAt(int b, double h) => h > 0 ? h / Wet[b] : h < -Latent[b] ? (h + Latent[b]) / Frozen[b] : 0;

    /// <summary>Heat capacity in a phase that is not 0.</summary>
    public double CapacityJPerK(int b, int phase) => phase > 0 ? Wet[b] : Frozen[b];

    /// <summary>Enthalpy at a temperature in a phase that is not 0.</summary>
    public double EnthalpyAt(int b, int phase, double celsius) => phase > 0 ? celsius * Wet[b] : celsius * Frozen[b] - Latent[b];

    public bool GrowsFromWall(int b) => _annulus[b] > 0;

    /// <summary>What ice of this share leaves of a contact's conductance.</summary>
    public double ThroughIce(int b, double g, double ice) =>
        ice <= 0 || _annulus[b] == 0 ? g : g / (1 - g * _annulus[b] * Math.Log(1 - Math.Min(ice, 0.9999)));

    /// <summary>How fast the resistance of ice grows with its share, over the latent heat.</summary>
    public double IceSlope(int b, double ice) => _annulus[b] * PerLatent[b] / (1 - Math.Min(ice, 0.9999));

    public void Remember()
    {
        Array.Copy(C, BeforeC, C.Length);
        Array.Copy(H, _beforeH, H.Length);
    }

    /// <summary>Ice at the start of the step.</summary>
    public double IceAtStart(int b) => IceAt(b, _beforeH[b]);

    public BodyMilestones[] Milestones() => [.. _marks.Select((m, b) => m with { MostIce = IceAt(b, _lowestH[b]), LowestC = CelsiusAt(b, _lowestH[b]) })];

    /// <summary>Notes milestones within a stretch that began at the enthalpy <paramref name="before"/>, straight between its ends.</summary>
    public void Mark(int b, double from, double length, double before)
    {
        double after = H[b], latent = Latent[b];
        if (after < _lowestH[b]) _lowestH[b] = after;
        if (_slush[b] is not null)
        {
            MarkSlush(b, from, before);
            return;
        }
        // All water or all ice throughout, or nothing that could freeze.
        if ((after > 0 && before > 0) || (after <= -latent && before <= -latent) || latent == 0) return;
        bool first = before >= 0 && after <= 0, blocked = before > -0.1 * latent && after <= -0.1 * latent, solid = before > -latent && after <= -latent,
            thawed = before < 0 && after >= 0;
        if (!(first || blocked || solid || thawed)) return;
        ref var m = ref _marks[b];
        double When(double level) => Math.Abs(after - before) < 1e-30 ? from + length : from + length * Math.Clamp((level - before) / (after - before), 0, 1);
        if (first) m = m with { FirstIceS = Math.Min(m.FirstIceS, after == 0 ? from + length : When(0)), ThawedS = double.PositiveInfinity };
        if (blocked) m = m with { BlockedS = Math.Min(m.BlockedS, When(-0.1 * latent)) };
        if (solid) m = m with { SolidS = Math.Min(m.SolidS, When(-latent)) };
        if (thawed) m = m with { ThawedS = When(0) };
    }

    // At the start of the step in which it is reached, of which those are short.
    private void MarkSlush(int b, double from, double before)
    {
        double was = IceAt(b, before), ice = IceAt(b, H[b]);
        ref var m = ref _marks[b];
        if (was <= 0 && ice > 0) m = m with { FirstIceS = Math.Min(m.FirstIceS, from), ThawedS = double.PositiveInfinity };
        if (was < 0.1 && ice >= 0.1) m = m with { BlockedS = Math.Min(m.BlockedS, from) };
        if (was < 1 && ice >= 1) m = m with { SolidS = Math.Min(m.SolidS, from) };
        if (was > 0 && ice <= 0) m = m with { ThawedS = from };
    }

    /// <summary>In how many seconds antifreeze comes to its next edge at the earliest, cooling as fast as now towards <paramref name="surroundingsC"/>;
    /// infinite for what is none, or does not.</summary>
    public double SlushS(int b, double surroundingsC, double wPerK)
    {
        if (_slush[b] is not { } slush || surroundingsC >= C[b] || C[b] <= slush.HardC) return double.PositiveInfinity;
        double edge = C[b] > slush.FreezesC ? slush.FreezesC : slush.HardC;
        return (C[b] - edge) * Wet[b] / (wPerK * (C[b] - surroundingsC));
    }

    private double IceAt(int b, double h) =>
        _slush[b] is { } slush ? Slush(slush, CelsiusAt(b, h)) : h >= 0 ? 0 : Math.Min(1, -h * PerLatent[b]);

    private static double Slush(NightSlush slush, double c) => c > slush.FreezesC ? 0 : c <= slush.HardC ? 1
        : Math.Max(1e-9, (slush.FreezesC - c) / (slush.FreezesC - slush.HardC));
}
