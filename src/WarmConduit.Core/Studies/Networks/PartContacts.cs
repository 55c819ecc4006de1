using WarmConduit.Core.Heat;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.Networks;

/// <summary>What a part loses to a room, or to outdoors (null), W/K; <paramref name="Through"/>: by the sides with which it stands against a face of its own room.</summary>
internal readonly record struct PartContact(Zone? To, double WPerK, bool Through);

/// <summary>What a part loses, and to what.</summary>
internal static class PartContacts
{
    // A moulded tank of 5 mm in still air with radiation, 8 W/m²K. Estimates; in the wind it is an outer wall's coefficient.
    private const double TankWallM = 0.005, AirSideWPerM2K = 8;

    /// <summary>The sides of a box.</summary>
    public static readonly Facing[] Sides = [Facing.Rear, Facing.Forward, Facing.KerbSide, Facing.FarSide, Facing.Down, Facing.Up];

    /// <summary>
    /// A plain tank loses by each side of its box: to the air of its room, or where it stands against a face of the room, through that to what is behind it. Any other part loses its own figure, or
    /// that of stock, to its room and the share of it that stock says to outdoors. A jacket is in series with what it covers. Each room once, and once more for what goes through faces.
    /// </summary>
    public static IReadOnlyList<PartContact> Of(Question question, Part part)
    {
        var stock = Catalogue.Part(part.Stock)!;
        var zone = question.Index.ZoneAt(part.Box.Centre());
        var jacket = Layered.Of(part.Jacket);
        double around = jacket.Sum(l => l.Resistance()), gaps = part.Jacket?.GapShare ?? 0, area = Sides.Sum(s => AreaM2(part, s));
        double Jacketed(Facing side, Func<double, double> transmittance) =>
            AreaM2(part, side) * (around <= 0 || part.JacketOff?.Contains(side) == true ? transmittance(0) : ((1 - gaps) * transmittance(around)) + (gaps * transmittance(0)));
        bool plain = part.LossWPerK is null && stock is { LossWPerK: 0, Passage: Passage.Vessel };
        if (!plain)
        {
            double bare = (part.LossWPerK ?? stock.LossWPerK) / area, outdoors = zone is null ? 1 : stock.OutdoorShare;
            double loss = bare <= 0 ? 0 : Sides.Sum(s => Jacketed(s, r => 1 / ((1 / bare) + r)));
            return [.. ((PartContact[])[new(zone, (1 - outdoors) * loss, false), new(null, outdoors * loss, false)]).Where(c => c.WPerK > 0)];
        }
        var night = question.Conditions;
        double air = zone is null || ZoneBalance.InWind(zone) ? SurfaceCoefficient.OuterWallWPerM2K(night.WindMPerS, 0.9, night.OutdoorC) : AirSideWPerM2K;
        return
        [
            .. Sides.Select(side =>
            {
                var behind = zone is null ? null : question.Against.Of(zone, part.Box, side);
                double outer = behind is null ? air : 1 / behind.ResistanceM2KPerW;
                return new PartContact(behind is null ? zone : behind.Beyond, Jacketed(side, r => TankFace.TransmittanceWPerM2K(TankWallM, r > 0 ? [new WallLayer(r, 1)] : [], outer)), behind is not null);
            }).GroupBy(c => (c.To, c.Through)).Select(g => new PartContact(g.Key.To, g.Sum(c => c.WPerK), g.Key.Through)),
        ];
    }

    /// <summary>A side of its box, m².</summary>
    public static double AreaM2(Part part, Facing side)
    {
        var s = part.Box.Size;
        return side switch
        {
            Facing.Rear or Facing.Forward => s.YM * s.ZM,
            Facing.KerbSide or Facing.FarSide => s.XM * s.ZM,
            _ => s.XM * s.YM,
        };
    }
}
