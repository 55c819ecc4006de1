namespace WarmConduit.Core.Heat.Night.Steps;

/// <summary>One run, from milestone to milestone in steps: each is prepared, cut short where something happens, solved for the zones' air, and taken by the
/// bodies.</summary>
internal sealed class NightRun
{
    private const int MostAttempts = 8, MostCuts = 4;
    private const double StepGrowth = 1.3;

    private readonly NightLayout _layout;
    private readonly NightOptions _options;
    private readonly HeatLedger _ledger = new();
    private readonly StepAir _air;
    private readonly Zones _zones;
    private readonly ZoneEquations _equations;
    private readonly HeaterBank _bank;
    private readonly ZoneHeaters _zoneHeaters;
    private readonly BodyState _state;
    private readonly BodyExtras _extras;
    private readonly BodyContacts _contacts;
    private readonly BodyHeat _bodies;
    private readonly Circuits _circuits;
    private readonly StepLength _length;
    private double _previousS;

    public NightRun(NightLayout layout, NightOptions options)
    {
        (_layout, _options) = (layout, options);
        _air = new StepAir(layout);
        _zones = new Zones(layout, _air, _ledger);
        _equations = new ZoneEquations(layout.ZoneCount, layout.Touched.Length);
        _bank = new HeaterBank(layout, _ledger);
        _zoneHeaters = new ZoneHeaters(_bank, _zones, _air);
        _state = new BodyState(layout);
        _circuits = new Circuits(layout, _air, _state, _ledger);
        _extras = new BodyExtras(layout, _state, _air, _bank, _circuits);
        _contacts = new BodyContacts(layout, _air, _state, _extras);
        _bodies = new BodyHeat(layout, _air, _zones, _state, _extras, _contacts, _ledger);
        _length = new StepLength(layout, options.MaxStepS, _air, _zones, _zoneHeaters, _state, _contacts, _extras, _bodies, _circuits);
    }

    public NightAnswer Go(CancellationToken cancel)
    {
        var reports = new NightReports(_options.ReportS ?? [], _layout, _air, _state, _circuits);
        var milestones = _layout.Milestones(reports.TimeS);
        double stored = StoredJ(), ramp = _options.FirstStepS, most = 0;
        int steps = 0;
        for (int i = 0; i + 1 < milestones.Count; i++)
        {
            var (start, jump) = milestones[i];
            reports.TakeUntil(start);
            if (jump)
            {
                ramp = _options.FirstStepS;
                _zones.ApplyEvents(start);
                var now = new NightStep(start, 0, 0);
                _air.Prepare(now);
                _zones.Prepare(now);
                _zones.RaiseCapacities();
                most = _length.GreatestS();
            }
            double end = milestones[i + 1].TimeS, at = start;
            while (end - at > 1e-9)
            {
                cancel.ThrowIfCancellationRequested();
                double left = end - at;
                // Equal steps to the next milestone, so that the bodies' exponentials are worked out once.
                double step = ramp < most ? Math.Min(ramp, left) : left / Math.Ceiling(left / most - 1e-9);
                if (left - step < 1e-3 * step) step = left;
                var (taken, small) = Step(at, step);
                ramp = small ? _options.FirstStepS : StepGrowth * ramp;
                most = _length.GreatestS();
                at = taken == left ? end : at + taken;
                steps++;
            }
        }
        reports.TakeUntil(double.PositiveInfinity);
        return new NightAnswer
        {
            ReportS = reports.TimeS,
            ZoneC = reports.ZoneC,
            BodyC = reports.BodyC,
            IceFraction = reports.Ice,
            Milestones = _state.Milestones(),
            Energy = [.. _layout.Heaters.Select((h, n) => new HeaterEnergy(h.OfZone ? _layout.Network.Zones[h.Owner].Id : _layout.Network.Bodies[h.Owner].Id,
            h.Index, _bank.WhByHour[n]))],
            Circuits = [.. _layout.Circuits.Select((c, n) => new NightCircuitAnswer(c.Circuit.Id, reports.Circuits[n], _circuits.HeatWhByHour(n)))],
            Balance = new HeatBalance(_ledger.HeatersJ, _ledger.BoundariesJ, StoredJ() - stored, _ledger.TurnoverJ),
            HandedOnJ = _zones.HandedOnJ,
            Steps = steps,
        };
    }

    private double StoredJ() => _zones.StoredJ() + _bodies.StoredJ();

    // Goes a step, or the part of it to something that happens on the way; whether the next is to start small.
    private (double TakenS, bool Small) Step(double at, double length)
    {
        bool small = false;
        var step = new NightStep(at, length, _previousS);
        Prepare(step);
        for (int cut = 0; cut < MostCuts && _length.EventWithin(step) is { } part; cut++)
        {
            step = step with { LengthS = step.LengthS * part.Share };
            small |= part.Turns;
            Prepare(step);
        }
        // Heater states are guessed, solved for and mended; a state that will not settle keeps its last guess.
        for (int attempt = 1; Mend(step, attempt) && attempt < MostAttempts; attempt++) Solve(step);

        _zones.Account(step.LengthS);
        _bodies.Advance(step);
        _circuits.Account(step, _bodies.MeansC, _extras.HandOnJ, _zones);
        _bank.Account(step);
        _air.Advance();
        _previousS = step.LengthS;
        // What is spent goes out with the step, however late in it that was.
        return (step.LengthS, small || _bank.AnySpent);
    }

    // The zones' air at the end of the step, with heaters as they stand at its start.
    private void Prepare(in NightStep step)
    {
        _air.Prepare(step);
        _extras.Prepare(step);
        _zones.Prepare(step);
        _circuits.Prepare(step);
        _contacts.Prepare(step);
        _zoneHeaters.Guess(step.AtS);
        _zones.AddTo(_equations, step.LengthS);
        _bodies.AddTo(_equations, step.LengthS);
        _equations.Keep();
        Solve(step);
    }

    private bool Mend(in NightStep step, int attempt) =>
        _zones.Openings.Mend() | _zoneHeaters.Mend(step, keep: attempt == MostAttempts) | (attempt < MostAttempts && _circuits.Mend(step, attempt));

    private void Solve(in NightStep step)
    {
        _equations.Restore();
        _zones.Openings.AddTo(_equations);
        _zoneHeaters.AddTo(_equations, step.LengthS);
        if (_circuits.Any)
        {
            _bodies.AddTouched(_equations, step.LengthS);
            _circuits.AddTo(_equations, _bodies.BroughtShare);
            _circuits.Note(_equations, _bodies.BroughtShare);
        }
        _equations.Solve(_air.ZoneEndC, _circuits.BodyMeanC);
        if (!_circuits.Any) return;
        _circuits.Take();
        _bodies.TakeBrought(_circuits);
    }
}
