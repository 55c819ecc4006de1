using WarmConduit.Core.Heat;
using WarmConduit.Core.Heat.Night;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Studies.Networks;

/// <summary>
/// What a part loses to a room, or to outdoors (null), W/K, and with it what goes through <paramref name="Films"/> by the wind of the hour; <paramref
/// name="Through"/>: by the sides with which it stands against a face of its own room.
/// </summary>
internal sealed record PartContact(Zone? To, double WPerK, bool Through, IReadOnlyList<NightFilmed> Films)
{
    /// <summary>The same of a part of it.</summary>
    public PartContact Times(double share) => this with { WPerK = WPerK * share, Films = Films.Times(share) };

    /// <summary>W/K in all, in a wind of <paramref name="windMPerS"/> at <paramref name="outdoorC"/>.</summary>
    public double AtWPerK(double outdoorC, double windMPerS) => WPerK + Films.AtWPerK(outdoorC, windMPerS);
}

/// <summary>What a part loses, and to what.</summary>
internal static class PartContacts
{
    // A moulded tank of 5 mm in still air with radiation, 8 W/m²K. Estimates; in the wind it has the film of an outer wall.
    private const double TankWallM = 0.005, AirSideWPerM2K = 8;

    /// <summary>The sides of a box.</summary>
    public static readonly Facing[] Sides = [Facing.Rear, Facing.Forward, Facing.KerbSide, Facing.FarSide, Facing.Down, Facing.Up];

    /// <summary>
    /// A plain tank loses by each side of its box: to the air of its room, or where it stands against a face of the room, through that to what is behind it.
    /// Any other part loses its own figure, or that of stock, to its room and the share of it that stock says to outdoors. A jacket is in series with what it
    /// covers. Each room once, and once more for what goes through faces.
    /// </summary>
    public static IReadOnlyList<PartContact> Of(Question question, Part part)
    {
        var stock = Catalogue.Part(part.Stock)!;
        var zone = question.Index.ZoneAt(part.Box.Centre());
        var jacket = Layered.Of(part.Jacket);
        double around = jacket.Sum(l => l.Resistance()), gaps = part.Jacket?.GapShare ?? 0, area = Sides.Sum(s => part.SideM2(s));
        double Jacketed(Facing side, Func<double, double> transmittance) =>
            part.SideM2(side) * (around <= 0 || part.JacketOff?.Contains(side) == true ? transmittance(0)
                : ((1 - gaps) * transmittance(around)) + (gaps * transmittance(0)));
        bool plain = part.LossWPerK is null && stock is { LossWPerK: 0, Passage: Passage.Vessel };
        if (!plain)
        {
            double bare = (part.LossWPerK ?? stock.LossWPerK) / area, outdoors = zone is null ? 1 : stock.OutdoorShare;
            double loss = bare <= 0 ? 0 : Sides.Sum(s => Jacketed(s, r => 1 / ((1 / bare) + r)));
            return [.. ((PartContact[])[new(zone, (1 - outdoors) * loss, false, []), new(null, outdoors * loss, false, [])]).Where(c => c.WPerK > 0)];
        }
        return
        [
            .. Sides.Select(side =>
            {
                var behind = zone is null ? null : question.SurfaceContacts.Of(zone, part.Box, side);
                var to = behind is null ? zone : behind.Beyond;
                if (behind is null ? PipeFilms.InWind(zone) : behind.Windy)
                {
                    // A wall of so much in front of the outer film.
                    double wall = TankFace.TransmittanceWPerM2K(TankWallM, [], 1 / (behind?.ResistanceM2KPerW ?? 1e-9)), m2 = part.SideM2(side);
                    double covered = around <= 0 || part.JacketOff?.Contains(side) == true ? 0 : 1 - gaps;
                    NightFilmed[] films = [new(new WallFilm((1 / wall) + around, 1), covered * m2), new(new WallFilm(1 / wall, 1), (1 - covered) * m2)];
                    return new PartContact(to, 0, behind is not null, [.. films.Where(f => f.Size > 0)]);
                }
                double outer = behind is null ? AirSideWPerM2K : 1 / behind.ResistanceM2KPerW;
                return new PartContact(to, Jacketed(side, r => TankFace.TransmittanceWPerM2K(TankWallM, r > 0 ? [new WallLayer(r, 1)] : [], outer)),
                    behind is not null, []);
            }).GroupBy(c => (c.To, c.Through)).Select(g => new PartContact(g.Key.To, g.Sum(c => c.WPerK), g.Key.Through,
                Films.Alike(g.SelectMany(c => c.Films)))),
        ];
    }
}
