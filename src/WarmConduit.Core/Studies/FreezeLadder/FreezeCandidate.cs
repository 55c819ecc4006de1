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
internal abstract class FreezeCandidate
{
    protected static readonly FreezingConstants Constants = FreezingConstants.Default;

    /// <summary>Id of its rung: the part's, or the run's with the zone it lies in and its number there. A piece of the same zone has the same one wet and
    /// drained.</summary>
    public abstract string Id { get; }

    /// <summary>Id of the run or part.</summary>
    public abstract string Thing { get; }

    /// <summary>How far from the start of its run it begins, m; 0 for a part.</summary>
    public virtual double AlongM => 0;

    /// <summary>How much of its run it is, m; 0 for a part.</summary>
    public virtual double LengthM => 0;

    /// <summary>Whether a trace lies against it.</summary>
    public virtual bool Taped => false;

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
    public abstract Why Why(RigNight night, Rung rung);

    /// <summary>Its rung on the ladder, as candidate number <paramref name="number"/> of the night.</summary>
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
            AtS = Finite(night.BreaksS(number) < night.MorningS ? night.BreaksS(number) : marks.FirstIceS),
            ShutIn = !BreaksByIce && double.IsFinite(night.BreaksS(number)),
        };
    }

    // The rung without its times, in air of so many degrees in the morning.
    protected abstract Rung Named(double morningAirC);

    protected static Rung Bare(string id, string name, string? runId, string? partId, string? zoneId, IReadOnlyList<Point3> course, double litres,
        double airC) =>
        new(id, name, runId, partId, zoneId, course, litres, airC, null, null, null, null, airC, 0, IceState.Safe, false, null, null, false);

    private static double? Finite(double value) => double.IsFinite(value) ? value : null;
}

/// <summary>A piece of a run in one zone.</summary>
internal sealed class PipeCandidate(PipeFilms films, Run run, PipeStock pipe, Piece piece, double glycol, string id, string name, bool full, bool breaksByIce)
    : FreezeCandidate
{
    public override string Id => id;

    public override string Thing => run.Id;

    public override double AlongM => piece.StartM;

    public override double LengthM => piece.LengthM;

    public override bool Taped => piece.Beside.Taped;

    public override string Name => name;

    public override Zone? Zone => piece.Zone;

    public override bool BreaksByIce => breaksByIce;

    public override bool BreaksShut => full && pipe.StandsFreezing == StandsFreezing.PipeOnly;

    private readonly List<(PipeCandidate Other, double AlongM)> _beside = [];

    /// <summary>As it lies, for what lies beside it.</summary>
    public LineLaid Laid => new(piece.Zone, [.. piece.Course.Select(p => p + new Point3(0, 0, pipe.InnerDiameterM / 2))],
        (pipe.OuterDiameterM / 2) + (piece.Sleeve?.AllM() ?? 0));

    /// <summary>Lays two lines side by side for <paramref name="alongM"/> metres.</summary>
    public static void Join(PipeCandidate a, PipeCandidate b, double alongM)
    {
        a._beside.Add((b, alongM));
        b._beside.Add((a, alongM));
    }

    public override NightBody Body(Conditions night, Func<string?, string> target)
    {
        double kgPerM = Math.Min(piece.Litres / piece.LengthM, pipe.BoreM2() * 1000) * Constants.WaterKgPerM3 / 1000;
        return Antifreeze.In(new NightBody(id, kgPerM * piece.LengthM, pipe.WallJPerMK() * piece.LengthM, night.StartWaterC, IceGrowth.Cylinder, piece.LengthM,
            Contacts(target), []), glycol);
    }

    private double StillResistanceMKPerW => films.StillResistanceMKPerW(pipe, piece.Sleeve);

    private double BesideShare => Math.Min(1, ParallelPipes.FacesShare * _beside.Sum(b => b.AlongM) / piece.LengthM);

    // What lies against a face has what is behind it before a part of its surface, not the room; what lies beside a line has that.
    private NightContact[] Contacts(Func<string?, string> target)
    {
        double room = (1 - piece.Leans.Sum(l => l.Share)) * (1 - BesideShare);
        var metre = films.Of(pipe, piece.Sleeve, PipeFilms.InWind(piece.Zone), piece.Beside.Bundle);
        NightContact To(Zone? zone, double share) => new(target(zone?.Id), 0, metre.Times(share * piece.LengthM));
        return
        [
            To(piece.Zone, room), .. piece.Leans.Select(l => To(l.To, l.Share * (1 - BesideShare))),
            .. _beside.Select(b => new NightContact(b.Other.Id, ParallelPipes.FacesShare * b.AlongM / (StillResistanceMKPerW + b.Other.StillResistanceMKPerW))),
        ];
    }

    public override Why Why(RigNight night, Rung rung)
    {
        bool windy = PipeFilms.InWind(piece.Zone);
        double airC = night.AirC(piece.Zone, 0), wind = windy ? night.WeatherAt(0).WindMPerS : 0;
        return new Why(
            "The piece cools towards the air around it, which cools as the vehicle does: loss × (its temperature − the air's), minute by minute; still air " +
            "takes less from it the nearer the two are. At 0 °C its ice grows inwards and insulates (Plank).",
            [
                new("length of this piece", Measure.Length(piece.LengthM), false),
                new("water in it", Measure.Volume(piece.Litres), !full),
                .. Antifreeze.Why(glycol),
                new("loss of this piece at the start", Measure.Conductance(piece.LengthM / films.ResistanceMKPerW(pipe, piece.Sleeve, windy,
                night.Asked.StartWaterC, airC, wind, piece.Beside.Bundle)), true),
                new("air around it at the start", Measure.Temperature(airC), true),
                new("air around it in the morning", Measure.Temperature(rung.AirC), true),
                new("wind on it at the start, and all up to it", new Measure(wind, Quantity.Speed), false),
                new("water at the start", Measure.Temperature(night.Asked.StartWaterC), false),
                new("insulation", Measure.Length(piece.Sleeve?.AllM() ?? 0), false),
                .. piece.Beside.Bundle is { } bundle && piece.Sleeve is not null
                    ? [new("its share of what the common sleeve loses", new Measure(bundle.Share, Quantity.Share), true)] : (WhyInput[])[],
                .. piece.Leans.Select(l => new WhyInput($"share of its loss to {l.To?.Name ?? "outdoors"}, where it lies against a face",
                new Measure(l.Share, Quantity.Share), true)),
                .. _beside.Count > 0 ? [new("of it beside other lines", Measure.Length(_beside.Max(b => b.AlongM)), true)] : (WhyInput[])[],
                .. piece.SkinM > 0 ? [new("of it against a bare skin", Measure.Length(piece.SkinM), true)] : (WhyInput[])[],
                .. piece.Sleeve?.GapShare is > 0 and var gaps ? [new("gaps in it", new Measure(gaps, Quantity.Share), false)] : (WhyInput[])[],
            ]);
    }

    protected override Rung Named(double morningAirC) => Bare(id, name, run.Id, null, piece.Zone?.Id, piece.Course, piece.Litres, morningAirC);
}

/// <summary>A part.</summary>
internal sealed class PartCandidate : FreezeCandidate
{
    private readonly Part _part;
    private readonly double _litres, _glycol;
    private readonly IReadOnlyList<PartContact> _losses;

    public PartCandidate(Question question, Part part, double litres, double fullL, double glycol)
    {
        var stock = Catalogue.Part(part.Stock)!;
        (_part, _litres, _glycol, Zone) = (part, litres, glycol, question.Index.ZoneAt(part.Box.Centre()));
        // A puddle in a tank loses through the floor and its own surface: half of the faces, at the least.
        double wet = stock.Passage == Passage.Vessel && litres < fullL ? 0.5 + (0.5 * litres / fullL) : 1;
        _losses = [.. PartContacts.Of(question, part).Select(c => c.Times(wet))];
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
        return Antifreeze.In(new NightBody(_part.Id, kg, PartWater.DryJPerK(kg), night.StartWaterC, IceGrowth.Lumped, 0,
            [.. _losses.Select(c => new NightContact(target(c.To?.Id), c.WPerK, c.Films))], []), _glycol);
    }

    public override Why Why(RigNight night, Rung rung)
    {
        var start = night.WeatherAt(0);
        double Loss(PartContact c) => c.AtWPerK(start.TemperatureC, start.WindMPerS);
        return new Why(
            "It cools towards the air around it, which cools as the vehicle does: loss × (its temperature − the air's), minute by minute. At 0 °C the latent " +
            "heat of its water leaves in the same way.",
            [
                new("water in it", Measure.Volume(_litres), _part.HoldsL is null),
                .. Antifreeze.Why(_glycol),
                new("loss at the start", Measure.Conductance(_losses.Sum(Loss)), _part.LossWPerK is null),
                .. _losses.Where(c => c.Through).Select(c => new WhyInput($"of it to {c.To?.Name ?? "outdoors"}, through what it stands against",
                Measure.Conductance(Loss(c)), true)),
                new("air around it in the morning", Measure.Temperature(rung.AirC), true),
                new("water at the start", Measure.Temperature(night.Asked.StartWaterC), false),
            ]);
    }

    protected override Rung Named(double morningAirC) => Bare(_part.Id, _part.Name, null, _part.Id, Zone?.Id, [_part.Box.Centre()], _litres, morningAirC);
}
