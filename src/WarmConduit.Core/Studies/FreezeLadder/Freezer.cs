using WarmConduit.Core.Geometry;
using WarmConduit.Core.Heat;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.FreezeLadder;

/// <summary>Something with water in it that the cold gets at: when it freezes, and why then.</summary>
internal abstract class Freezer
{
    protected static readonly FreezingConstants Constants = FreezingConstants.Default;

    /// <summary>Id of its rung.</summary>
    public abstract string Id { get; }

    /// <summary>Its rung on the ladder.</summary>
    public abstract Rung Rung(Conditions night);

    /// <summary>How the time of first ice came about.</summary>
    public abstract Why Why(Conditions night);

    protected static Rung Make(
        string id, string name, string? runId, string? partId, string? zoneId, IReadOnlyList<Point3> course, double litres, double airC,
        FreezingTimes times, Conditions night, double coolingS, Func<double, double> iceTime, bool breaksByIce)
    {
        double morning = night.Hours * 3600;
        double ice = times.FirstIceS >= morning ? 0 : times.SolidS <= morning ? 1 : InverseIce(iceTime, morning);
        double celsius = ice >= 1 ? airC : ice > 0 ? 0 : airC + (night.StartWaterC - airC) * Math.Exp(-morning / coolingS);
        var state = times.FirstIceS >= morning ? IceState.Safe
            : times.SolidS <= morning ? IceState.Solid
            : times.TenthS <= morning ? IceState.Blocked
            : IceState.FirstIce;
        return new Rung(
            id, name, runId, partId, zoneId, course, litres, airC, Finite(times.FirstIceS), Finite(times.TenthS), Finite(times.SolidS), celsius, ice, state,
            breaksByIce && state != IceState.Safe);
    }

    private static double InverseIce(Func<double, double> iceTime, double at)
    {
        double low = 0, high = 1;
        for (int i = 0; i < 40; i++)
        {
            double mid = (low + high) / 2;
            if (iceTime(mid) < at) low = mid;
            else high = mid;
        }
        return low;
    }

    private static double? Finite(double value) => double.IsFinite(value) ? value : null;
}

/// <summary>A piece of a run in one zone.</summary>
internal sealed class PipeFreezer(PipeLosses losses, Run run, PipeStock pipe, Piece piece, string id, string name, bool full, bool breaksByIce) : Freezer
{
    public override string Id => id;

    public override Rung Rung(Conditions night)
    {
        double airC = losses.AirC(piece.Zone), resistance = losses.Of(pipe, piece.Sleeve, piece.Zone).ResistanceMKPerW;
        double kgPerM = Math.Min(piece.Litres / piece.LengthM, pipe.BoreM2() * 1000) * Constants.WaterKgPerM3 / 1000;
        var times = Freezing.PartlyFilled(kgPerM, resistance, pipe.WallJPerMK(), night.StartWaterC, airC, Constants);
        double annulus = 4 * Math.PI * Constants.IceWPerMK;
        double IceTime(double f) =>
            times.FirstIceS + kgPerM * Constants.LatentJPerKg / -airC * (resistance * f + (f + (f < 1 ? (1 - f) * Math.Log(1 - f) : 0)) / annulus);
        double coolingS = (kgPerM * Constants.WaterJPerKgK + pipe.WallJPerMK()) * resistance;
        return Make(id, name, run.Id, null, piece.Zone?.Id, piece.Course, piece.Litres, airC, times, night, coolingS, IceTime, breaksByIce);
    }

    public override Why Why(Conditions night)
    {
        var (resistance, worst) = losses.Of(pipe, piece.Sleeve, piece.Zone);
        return new Why(
            "Time to cool to 0 °C = (water + pipe wall) × resistance × ln((start − air) / (0 − air)); ice then grows inwards and insulates (Plank).",
            [
                new("length of this piece", Measure.Length(piece.LengthM), false),
                new("water in it", Measure.Volume(piece.Litres), !full),
                new("loss of this piece", Measure.Conductance(piece.LengthM / resistance), true),
                new("air around it", Measure.Temperature(losses.AirC(piece.Zone)), true),
                new(worst < losses.WindMPerS(piece.Zone) ? "worst wind up to the night's" : "wind on it", new Measure(worst, Quantity.Speed), false),
                new("water at the start", Measure.Temperature(night.StartWaterC), false),
                new("insulation", Measure.Length(piece.Sleeve?.ThicknessM ?? 0), false),
            ]);
    }
}

/// <summary>A part.</summary>
internal sealed class PartFreezer : Freezer
{
    private readonly Part _part;
    private readonly Zone? _zone;
    private readonly double _litres, _airC, _lossWPerK;
    private readonly bool _breaks;

    public PartFreezer(Question question, PipeLosses losses, Part part, double litres, double fullL)
    {
        var stock = Catalogue.Part(part.Stock)!;
        (_part, _litres) = (part, litres);
        _zone = question.Index.ZoneAt(part.Box.Centre());
        double zoneC = losses.AirC(_zone);
        _airC = zoneC + stock.OutdoorShare * (question.Conditions.OutdoorC - zoneC);
        _lossWPerK = PartWater.LossWPerK(part);
        // A puddle in a tank loses through the floor and its own surface: half of the faces, at the least.
        if (stock.Passage == Passage.Vessel && litres < fullL) _lossWPerK *= 0.5 + 0.5 * litres / fullL;
        _breaks = stock.IceBreaks == IceBreaks.Yes || (stock.IceBreaks == IceBreaks.WhenFull && litres > TradeConstants.FullShare * fullL);
    }

    public override string Id => _part.Id;

    public override Rung Rung(Conditions night)
    {
        double kg = _litres * Constants.WaterKgPerM3 / 1000, dry = PartWater.DryJPerK(kg);
        var times = Freezing.Lump(kg, dry, _lossWPerK, night.StartWaterC, _airC, Constants);
        double coolingS = (kg * Constants.WaterJPerKgK + dry) / _lossWPerK;
        double IceTime(double f) => times.FirstIceS + f * (times.SolidS - times.FirstIceS);
        return Make(_part.Id, _part.Name, null, _part.Id, _zone?.Id, [_part.Box.Centre()], _litres, _airC, times, night, coolingS, IceTime, _breaks);
    }

    public override Why Why(Conditions night) => new(
        "Time to cool to 0 °C = (water + body) ÷ loss × ln((start − air) / (0 − air)); the latent heat of the water then leaves at the loss times the cold.",
        [
            new("water in it", Measure.Volume(_litres), _part.HoldsL is null),
            new("loss", Measure.Conductance(_lossWPerK), _part.LossWPerK is null),
            new("air around it", Measure.Temperature(_airC), true),
            new("water at the start", Measure.Temperature(night.StartWaterC), false),
        ]);
}
