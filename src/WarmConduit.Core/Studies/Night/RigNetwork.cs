using WarmConduit.Core.Heat;
using WarmConduit.Core.Heat.Night;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Weather;

namespace WarmConduit.Core.Studies.Night;

/// <summary>Factors on what is guessed: losses of walls, pipes and parts, and what rooms hold of heat.</summary>
internal readonly record struct Doubt(double Walls, double Parts, double Capacity)
{
    public static Doubt None => new(1, 1, 1);

    // A fifth more lost, a third less held, and the other way round: what formulas for films, joints and furniture are worth. Estimate.
    public static Doubt Cold => new(1.2, 1.2, 0.67);

    public static Doubt Warm => new(1 / 1.2, 1 / 1.2, 1.5);
}

/// <summary>A rig as the night's engine sees it: rooms, all that holds water, and the weather.</summary>
internal static class RigNetwork
{
    private const double HourS = 3600, BandK = 1, Emissivity = 0.9, RearShare = 0.5;

    // A room of hardly anything but air follows the rooms around it within a quarter of an hour: frames, skins and lids hold that much. Estimate; figures are told to a quarter of an hour.
    private const double QuickestS = 900, WideK = 15;

    // Stands for rooms where none is drawn.
    private const string Nowhere = "zone:";

    /// <summary>Id of a room in the network.</summary>
    public static string IdOf(string zoneId) => Nowhere + zoneId;

    /// <summary>
    /// The network of one stretch of a night; <paramref name="weather"/> has one value an hour from the start of the night, or one for all of it. Rooms start as they were kept; the caller sets
    /// what an earlier stretch left. <paramref name="bodyOf"/> is the number of the body that each freezer is part of.
    /// </summary>
    public static NightNetwork Of(Question question, IReadOnlyList<Freezer> freezers, IReadOnlyList<WeatherHour> weather, NightStretch stretch, Doubt doubt, out int[] bodyOf)
    {
        var bodies = Alike(Bodies(question, freezers, doubt), out bodyOf);
        return Rooms(question, weather, stretch, doubt) with { Bodies = bodies };
    }

    /// <summary>All that holds water, each by itself. What lies beside a line that holds none by then has the room there.</summary>
    public static IReadOnlyList<NightBody> Bodies(Question question, IEnumerable<Freezer> freezers, Doubt doubt)
    {
        var bodies = freezers.Select(f => f.Body(question.Conditions, z => z is null ? "outdoor" : Nowhere + z)).ToList();
        var there = bodies.Where(b => b.Contacts.Any(IsBeside)).Select(b => b.Id).ToHashSet();
        // A contact of two is given once, by the first of them.
        IEnumerable<NightContact> Once(NightBody b) => b.Contacts.Where(c => !IsBeside(c) || !there.Contains(c.To) || string.CompareOrdinal(b.Id, c.To) < 0)
            .Select(c => IsBeside(c) && !there.Contains(c.To) ? c with { To = b.Contacts[0].To } : c);
        if (there.Count == 0 && doubt.Parts == 1) return bodies;
        return [.. bodies.Select(b => b with { Contacts = [.. (there.Count == 0 ? b.Contacts : Once(b)).Select(c => c with { ConductanceWPerK = c.ConductanceWPerK * doubt.Parts })] })];
    }

    // Lines alone have such ids.
    private static bool IsBeside(NightContact contact) => contact.To.Contains('#', StringComparison.Ordinal);

    /// <summary>The network without what holds water.</summary>
    public static NightNetwork Rooms(Question question, IReadOnlyList<WeatherHour> weather, NightStretch stretch, Doubt doubt)
    {
        var (rig, night) = (question.Rig, question.Conditions);
        var zones = rig.Shell.Zones;
        if (stretch.DrivingMPerS > 0) weather = [.. weather.Select(w => w with { WindMPerS = Math.Max(w.WindMPerS, stretch.DrivingMPerS) })];
        var now = weather[Math.Min((int)(stretch.FromS / HourS), weather.Count - 1)];
        var evening = night with { OutdoorC = now.TemperatureC, WindMPerS = now.WindMPerS };
        // What an earlier stretch left is set by the caller.
        var start = stretch.FromS > 0 ? zones.ToDictionary(z => z.Id, _ => 0.0) : ZoneBalance.Kept(rig, evening).ToDictionary(z => z.ZoneId, z => z.AirC);
        // A wind that the year's films are laid through.
        double strongest = weather.Max(w => w.WindMPerS), windy = Math.Max(4, strongest), rear = stretch.DrivingMPerS > 0 ? RearShare : 1;
        var (links, openings) = ZoneBalance.Between(rig, evening);
        var index = zones.Select((z, i) => (z.Id, i)).ToDictionary(z => z.Id, z => z.i);
        NightOpening[] opened =
        [
            .. openings.Select(o => new NightOpening(Nowhere + zones[o.A].Id, Nowhere + zones[o.B].Id, o.Opening.AreaM2, o.Opening.HeightM, ZoneBalance.WindShare(zones[o.A], zones[o.B]))),
            .. stretch.Open.Where(o => index.ContainsKey(o.ZoneId!)).Select(o => new NightOpening(
                Nowhere + o.ZoneId, o.Towards is null ? null : Nowhere + o.Towards, o.AreaM2!.Value, o.HeightM!.Value,
                o.Towards is null ? 1 : ZoneBalance.WindShare(zones[index[o.ZoneId!]], zones[index[o.Towards]]))),
        ];
        var outdoor = new TimeSeries([.. weather.Select((_, h) => h * HourS)], [.. weather.Select(w => w.TemperatureC)]);
        var sources = new List<NightSource>();
        var made = new List<NightZone>();
        bool open = weather.Any(w => w.Cloud < 1);
        foreach (var zone in zones)
        {
            double Loss(double wind) => ZoneBalance.OutdoorWPerK(zone, evening with { WindMPerS = wind }, rear);
            // On a night of one wind it is that wind's; over many it is laid through none and the strongest.
            // What was measured is known to its own deviation, twice of it either way.
            double walls = zone.Measured is { } known ? 1 + (2 * Math.Sign(doubt.Walls - 1) * Math.Min(0.3, known.LossDeviation)) : doubt.Walls;
            double g = Loss(weather.Count == 1 ? evening.WindMPerS : 0), byWind = weather.Count == 1 ? 0 : Math.Max(0, (Loss(windy) - g) / windy);
            string? sky = null;
            if (open && SkyShare(zone, evening) is > 0 and var share)
            {
                sky = $"sky:{zone.Id}";
                sources.Add(new NightSource(sky, outdoor with
                {
                    Value = [.. weather.Select(w => w.TemperatureC + share * OuterFace.ShiftK(w.TemperatureC, OuterFace.SkyC(w.TemperatureC, w.Cloud), 1, w.WindMPerS, Emissivity))],
                }));
            }
            NightHeater[] heaters = zone.Heater is { PowerW: > 0 } heater && stretch.Heats(heater) ? [new NightHeater(Math.Min(heater.SetpointC, stretch.HoldC ?? heater.SetpointC), BandK, heater.PowerW, 0, 1e9)] : [];
            string id = Nowhere + zone.Id;
            double joined = g + windy * byWind
                + links.Where(l => zones[l.A] == zone || zones[l.B] == zone).Sum(l => l.ConductanceWPerK)
                + opened.Where(o => o.A == id || o.B == id).Sum(o => AirExchange.OpeningWPerK(o.AreaM2, o.HeightM, WideK, evening.OutdoorC, o.WindShare * strongest));
            made.Add(new NightZone(id, Math.Max(ZoneCapacity.JPerK(zone) * (zone.HeatCapacityJPerK is null ? doubt.Capacity : 1), QuickestS * joined), g * walls, start[zone.Id], heaters, byWind * walls, sky));
        }
        if (made.Count == 0) made.Add(new NightZone(Nowhere, 1000, 10, weather[0].TemperatureC, []));
        return new NightNetwork(made, [.. links.Select(l => new NightLink(Nowhere + zones[l.A].Id, Nowhere + zones[l.B].Id, l.ConductanceWPerK))], [], outdoor, stretch.ToS)
        {
            StartS = stretch.FromS,
            WindMPerS = outdoor with { Value = [.. weather.Select(w => w.WindMPerS)] },
            Sources = sources,
            Openings = opened,
        };
    }

    /// <summary>
    /// Bodies of which a kilogram is the same in all that cools it are one larger body: they keep to one temperature and freeze together. <paramref name="number"/> says which each has become.
    /// </summary>
    public static IReadOnlyList<NightBody> Alike(IEnumerable<NightBody> bodies, out int[] number)
    {
        var made = new List<NightBody>();
        var known = new Dictionary<Likeness, int>();
        var all = bodies as IReadOnlyList<NightBody> ?? [.. bodies];
        number = new int[all.Count];
        // What lies beside another is itself alone.
        var beside = all.Where(b => b.Contacts.Any(IsBeside)).SelectMany(b => b.Contacts.Where(IsBeside).Select(c => c.To).Append(b.Id)).ToHashSet();
        for (int b = 0; b < all.Count; b++)
        {
            var body = all[b];
            var key = new Likeness(body, beside.Contains(body.Id));
            if (known.TryGetValue(key, out int at))
            {
                var first = made[at];
                made[at] = first with
                {
                    WaterKg = first.WaterKg + body.WaterKg,
                    DryJPerK = first.DryJPerK + body.DryJPerK,
                    LengthM = first.LengthM + body.LengthM,
                    Contacts = [.. first.Contacts.Zip(body.Contacts, (a, b) => a with { ConductanceWPerK = a.ConductanceWPerK + b.ConductanceWPerK })],
                };
            }
            else
            {
                known[key] = at = made.Count;
                made.Add(body);
            }
            number[b] = at;
        }
        return made;
    }

    // What makes a kilogram of one body the same as a kilogram of another, to nine digits; one that lies beside another is like none.
    private readonly struct Likeness(NightBody body, bool alone) : IEquatable<Likeness>
    {
        private readonly NightBody _body = body;
        private readonly bool _alone = alone;

        public bool Equals(Likeness other)
        {
            var (a, b) = (_body, other._body);
            if (_alone || other._alone) return ReferenceEquals(a, b);
            if (a.Ice != b.Ice || a.StartC != b.StartC || a.StartIce != b.StartIce || a.Contacts.Count != b.Contacts.Count) return false;
            if (AKilogram(a.DryJPerK, a) != AKilogram(b.DryJPerK, b) || AKilogram(a.LengthM, a) != AKilogram(b.LengthM, b)) return false;
            for (int c = 0; c < a.Contacts.Count; c++)
                if (a.Contacts[c].To != b.Contacts[c].To || AKilogram(a.Contacts[c].ConductanceWPerK, a) != AKilogram(b.Contacts[c].ConductanceWPerK, b)) return false;
            return true;
        }

        public override bool Equals(object? obj) => obj is Likeness other && Equals(other);

        // What loses nothing has no contact.
        public override int GetHashCode() => _body.Contacts is [var first, ..] ? HashCode.Combine(_body.Ice, _body.Contacts.Count, first.To, AKilogram(first.ConductanceWPerK, _body)) : 0;

        // Without the last digits of a double, so that lengths of one line come to the same.
        private static long AKilogram(double value, NightBody body) => (BitConverter.DoubleToInt64Bits(value / body.WaterKg) + (1L << 21)) >> 22;
    }

    // How much of what a zone loses to outdoors leaves through faces that see the sky: roofs wholly, walls by half.
    private static double SkyShare(Zone zone, Conditions night)
    {
        double all = ZoneBalance.OutdoorWPerK(zone, night);
        if (all <= 0) return 0;
        return ZoneBalance.Measured(zone, null) * zone.Faces.Where(f => f.Towards is null).Sum(f => f.AreaM2 * ZoneBalance.Transmittance(f, night, inWind: true) * (f.Side switch { FaceSide.Roof => 1, FaceSide.Wall => 0.5, _ => 0 })) / all;
    }
}
