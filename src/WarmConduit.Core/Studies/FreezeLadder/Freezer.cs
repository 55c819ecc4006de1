using WarmConduit.Core.Geometry;
using WarmConduit.Core.Heat;
using WarmConduit.Core.Heat.Night;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.FreezeLadder;

/// <summary>Something with water in it that the cold gets at.</summary>
internal abstract class Freezer
{
    protected static readonly FreezingConstants Constants = FreezingConstants.Default;

    /// <summary>Id of its rung: the part's, or the run's with the zone it lies in and its number there. A piece of the same zone has the same one wet and drained.</summary>
    public abstract string Id { get; }

    /// <summary>Id of the run or part.</summary>
    public abstract string Thing { get; }

    /// <summary>In the builder's words.</summary>
    public abstract string Name { get; }

    /// <summary>The zone it is in; null: outdoors.</summary>
    public abstract Zone? Zone { get; }

    /// <summary>Any ice breaks it.</summary>
    public abstract bool BreaksByIce { get; }

    /// <summary>Ice that has no way to expand breaks it.</summary>
    public virtual bool BreaksShut => false;

    /// <summary>As the night's engine sees it; <paramref name="target"/> names what stands for a zone's id there, or for outdoors (null).</summary>
    public abstract NightBody Body(Conditions night, Func<string?, string> target);

    /// <summary>What the figures of its rung came from.</summary>
    public abstract Why Why(Conditions night, Rung rung);

    /// <summary>Its rung on the ladder, as freezer number <paramref name="number"/> of the night.</summary>
    public Rung Rung(RigNight night, int number)
    {
        var marks = night.Marks(number);
        int morning = night.Morning;
        double ice = night.Ice(morning, number);
        var state = marks.FirstIceS >= night.MorningS ? IceState.Safe
            : marks.SolidS <= night.MorningS ? IceState.Solid
            : marks.BlockedS <= night.MorningS ? IceState.Blocked
            : IceState.FirstIce;
        return Named(night.AirC(Zone, morning)) with
        {
            FirstIceS = Finite(marks.FirstIceS),
            BlockedS = Finite(marks.BlockedS),
            SolidS = Finite(marks.SolidS),
            ThawedS = Finite(marks.ThawedS),
            MorningC = night.WaterC(morning, number),
            MorningIce = ice,
            State = state,
            Breaks = night.BreaksS(number) < night.MorningS,
            BreaksS = Finite(night.BreaksS(number)),
            ShutIn = !BreaksByIce && double.IsFinite(night.BreaksS(number)),
        };
    }

    // The rung without its times, in air of so many degrees in the morning.
    protected abstract Rung Named(double morningAirC);

    protected static Rung Bare(string id, string name, string? runId, string? partId, string? zoneId, IReadOnlyList<Point3> course, double litres, double airC) =>
        new(id, name, runId, partId, zoneId, course, litres, airC, null, null, null, null, airC, 0, IceState.Safe, false, null, false);

    private static double? Finite(double value) => double.IsFinite(value) ? value : null;
}

/// <summary>A piece of a run in one zone.</summary>
internal sealed class PipeFreezer(PipeLosses losses, Run run, PipeStock pipe, Piece piece, string id, string name, bool full, bool breaksByIce) : Freezer
{
    public override string Id => id;

    public override string Thing => run.Id;

    public override string Name => name;

    public override Zone? Zone => piece.Zone;

    public override bool BreaksByIce => breaksByIce;

    public override bool BreaksShut => full && pipe.StandsFreezing == StandsFreezing.PipeOnly;

    public override NightBody Body(Conditions night, Func<string?, string> target)
    {
        double kgPerM = Math.Min(piece.Litres / piece.LengthM, pipe.BoreM2() * 1000) * Constants.WaterKgPerM3 / 1000;
        double g = piece.LengthM / losses.Of(pipe, piece.Sleeve, piece.Zone).ResistanceMKPerW;
        return new NightBody(id, kgPerM * piece.LengthM, pipe.WallJPerMK() * piece.LengthM, night.StartWaterC, IceGrowth.Cylinder, piece.LengthM, Contacts(target, g), []);
    }

    // What looks at a bare skin has outdoors before it, not the room.
    private NightContact[] Contacts(Func<string?, string> target, double g)
    {
        double skin = BareSkin.FacesShare * piece.SkinM / piece.LengthM;
        return skin <= 0 ? [new(target(piece.Zone?.Id), g)] : [new(target(piece.Zone?.Id), (1 - skin) * g), new(target(null), skin * g)];
    }

    public override Why Why(Conditions night, Rung rung)
    {
        var (resistance, worst) = losses.Of(pipe, piece.Sleeve, piece.Zone);
        return new Why(
            "The piece cools towards the air around it, which cools as the vehicle does: loss × (its temperature − the air's), hour by hour. At 0 °C its ice grows inwards and insulates (Plank).",
            [
                new("length of this piece", Measure.Length(piece.LengthM), false),
                new("water in it", Measure.Volume(piece.Litres), !full),
                new("loss of this piece", Measure.Conductance(piece.LengthM / resistance), true),
                new("air around it in the morning", Measure.Temperature(rung.AirC), true),
                new(worst < losses.WindMPerS(piece.Zone) ? "worst wind up to the night's" : "wind on it", new Measure(worst, Quantity.Speed), false),
                new("water at the start", Measure.Temperature(night.StartWaterC), false),
                new("insulation", Measure.Length(piece.Sleeve?.ThicknessM ?? 0), false),
                .. piece.SkinM > 0 ? [new("of it against a bare skin", Measure.Length(piece.SkinM), true)] : (WhyInput[])[],
                .. piece.Sleeve?.GapShare is > 0 and var gaps ? [new("gaps in it", new Measure(gaps, Quantity.Share), false)] : (WhyInput[])[],
            ]);
    }

    protected override Rung Named(double morningAirC) => Bare(id, name, run.Id, null, piece.Zone?.Id, piece.Course, piece.Litres, morningAirC);
}

/// <summary>A part.</summary>
internal sealed class PartFreezer : Freezer
{
    private readonly Part _part;
    private readonly double _litres, _outdoorShare, _lossWPerK;

    public PartFreezer(Question question, Part part, double litres, double fullL)
    {
        var stock = Catalogue.Part(part.Stock)!;
        (_part, _litres, _outdoorShare, Zone) = (part, litres, stock.OutdoorShare, question.Index.ZoneAt(part.Box.Centre()));
        _lossWPerK = PartWater.LossWPerK(part);
        // A puddle in a tank loses through the floor and its own surface: half of the faces, at the least.
        if (stock.Passage == Passage.Vessel && litres < fullL) _lossWPerK *= 0.5 + 0.5 * litres / fullL;
        BreaksByIce = stock.IceBreaks == IceBreaks.Yes || (stock.IceBreaks == IceBreaks.WhenFull && litres > TradeConstants.FullShare * fullL);
    }

    public override string Id => _part.Id;

    public override string Thing => _part.Id;

    public override string Name => _part.Name;

    public override Zone? Zone { get; }

    public override bool BreaksByIce { get; }

    public override NightBody Body(Conditions night, Func<string?, string> target)
    {
        double kg = _litres * Constants.WaterKgPerM3 / 1000;
        double outdoors = Zone is null ? 1 : _outdoorShare;
        var contacts = new List<NightContact>();
        if (outdoors < 1) contacts.Add(new NightContact(target(Zone!.Id), (1 - outdoors) * _lossWPerK));
        if (outdoors > 0) contacts.Add(new NightContact(target(null), outdoors * _lossWPerK));
        return new NightBody(_part.Id, kg, PartWater.DryJPerK(kg), night.StartWaterC, IceGrowth.Lumped, 0, contacts, []);
    }

    public override Why Why(Conditions night, Rung rung) => new(
        "It cools towards the air around it, which cools as the vehicle does: loss × (its temperature − the air's), hour by hour. At 0 °C the latent heat of its water leaves in the same way.",
        [
            new("water in it", Measure.Volume(_litres), _part.HoldsL is null),
            new("loss", Measure.Conductance(_lossWPerK), _part.LossWPerK is null),
            new("air around it in the morning", Measure.Temperature(rung.AirC), true),
            new("water at the start", Measure.Temperature(night.StartWaterC), false),
        ]);

    protected override Rung Named(double morningAirC) => Bare(_part.Id, _part.Name, null, _part.Id, Zone?.Id, [_part.Box.Centre()], _litres, morningAirC);
}
