using WarmConduit.Core.Heat;
using WarmConduit.Core.Heat.Night;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.FreezeLadder;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Weather;

namespace WarmConduit.Core.Studies.Night;

/// <summary>Factors on what is guessed: losses of walls, pipes and parts, and what rooms hold of heat.</summary>
internal readonly record struct Uncertainty(double Walls, double Parts, double Capacity)
{
    public static Uncertainty None => new(1, 1, 1);

    // A fifth more lost, a third less held, and the other way round: what formulas for films, joints and furniture are worth. Estimate.
    public static Uncertainty Pessimistic => new(1.2, 1.2, 0.67);

    public static Uncertainty Optimistic => new(1 / 1.2, 1 / 1.2, 1.5);
}

/// <summary>A rig as the night's engine sees it: rooms, all that holds water, and the weather.</summary>
internal static class RigNetwork
{
    private const double HourS = 3600, BandK = 1, RearShare = 0.5;

    // A room of hardly anything but air follows the rooms around it within a quarter of an hour in a fresh wind, whatever blows later: frames, skins and lids
    // hold that much. Estimate; figures are told to a quarter of an hour.
    private const double QuickestS = 900, WideK = 15, FreshMPerS = 4;

    // Stands for rooms where none is drawn.
    private const string Nowhere = "zone:";

    /// <summary>Id of a room in the network.</summary>
    public static string IdOf(string zoneId) => Nowhere + zoneId;

    /// <summary>
    /// The network of one segment of a night; <paramref name="weather"/> has one value an hour from the start of the night, or one for all of it. Rooms start
    /// as they were kept; the caller sets what an earlier segment left. <paramref name="bodyOf"/> is the number of the body that each candidate is part of.
    /// </summary>
    public static NightNetwork Of(Question question, IReadOnlyList<FreezeCandidate> candidates, IReadOnlyList<WeatherHour> weather, NightSegment segment,
        Uncertainty doubt, LaidCircuits laid, out int[] bodyOf) => Of(question, Bodies(question, candidates, doubt), weather, segment, doubt, laid, out bodyOf);

    /// <summary>The same with <paramref name="bodies"/> that are known already.</summary>
    public static NightNetwork Of(Question question, IEnumerable<NightBody> bodies, IReadOnlyList<WeatherHour> weather, NightSegment segment,
        Uncertainty doubt, LaidCircuits laid, out int[] bodyOf)
    {
        var touched = laid.All.SelectMany(c => c.Circuit.Reaches).Select(r => r.Target).OfType<string>().ToHashSet();
        // What a sensor sits on is told by itself.
        touched.UnionWith(question.Rig.Parts.Select(p => p.Pad?.Sensor?.PartId).OfType<string>());
        var all = Alike(WithPads(question, bodies, segment), touched, out bodyOf);
        var rooms = Rooms(question, weather, segment, doubt);
        if (laid.All.Count > 0 && segment.FromS == 0) rooms = WarmedBefore(question, rooms, laid);
        return rooms with
        {
            Zones = [.. rooms.Zones, .. Engines(question, rooms, segment)],
            Bodies = all,
            Circuits = [.. laid.All.Select(c => c.Circuit)],
        };
    }

    // Rooms that nobody keeps warm start as the circuits had them by then: half a day of the evening's weather before, with the rooms that are kept
    // as they were. Water starts as it is said.
    private static NightNetwork WarmedBefore(Question question, NightNetwork rooms, LaidCircuits laid)
    {
        var places = rooms.Zones.Select(z => z.Id).Append("outdoor").ToHashSet();
        const double unmoved = 1e12;
        bool Kept(Zone z) => z.Kind == ZoneKind.Living || z.Heater is { PowerW: > 0 };
        var kept = question.Rig.Shell.Zones.Where(Kept).Select(z => IdOf(z.Id)).ToHashSet();
        double Now(TimeSeries series) => series.Value[0];
        var before = rooms with
        {
            Zones = [.. rooms.Zones.Select(z => kept.Contains(z.Id) ? z with { HeatCapacityJPerK = unmoved, Heaters = [] } : z)],
            Circuits = [.. laid.Before().Select(c => c with
            {
                Reaches = [.. c.Reaches.Select(r => r.Target is { } t && !places.Contains(t) ? r with { Target = null, SetpointC = null } : r)],
            })],
            OutdoorC = TimeSeries.Constant(Now(rooms.OutdoorC)),
            WindMPerS = TimeSeries.Constant(Now(rooms.WindMPerS)),
            SkyC = rooms.SkyC is { } sky ? TimeSeries.Constant(Now(sky)) : null,
            EndS = LaidCircuits.BeforeS,
        };
        var then = NightEngine.Run(before, new NightOptions(2 * HourS, 60, [LaidCircuits.BeforeS]), question.Cancel);
        return rooms with { Zones = [.. rooms.Zones.Select((z, i) => kept.Contains(z.Id) ? z : z with { StartC = Math.Max(z.StartC, then.ZoneC[0, i]) })] };
    }

    // An engine starts the night cold. It cools by what it loses, so that what it holds follows from how fast; while it runs it keeps itself warm.
    private static IEnumerable<NightZone> Engines(Question question, NightNetwork rooms, NightSegment segment) =>
        question.Rig.Parts.Where(p => p.Heats().IsEngine && question.Index.HoldsCoolant(p)).Select(p =>
        {
            var heat = p.Heats();
            bool runs = segment.Heating.Drives || question.Conditions.Heating(question.Rig).PositionOf(p)?.Passes != false;
            return new NightZone(RigHeat.EngineZone(p), Math.Max(1, heat.CoolsS!.Value * heat.LossWPerK), heat.LossWPerK, rooms.OutdoorC.Value[0],
                runs ? [new NightHeater(heat.RunsC!.Value, BandK, heat.PowerW ?? 0, 0, 1e9)] : []);
        });

    // A pad is counted on up to where it goes on, and no further.
    private static IEnumerable<NightBody> WithPads(Question question, IEnumerable<NightBody> bodies, NightSegment segment)
    {
        var pads = question.Rig.Parts.Where(p => p.Pad is { } pad && segment.Heating.Has(pad.Supply) && !segment.Failed.Contains(p.Id)).ToDictionary(p => p.Id);
        if (pads.Count == 0) return bodies;
        var all = bodies as IReadOnlyList<NightBody> ?? [.. bodies];
        return all.Select(b => pads.TryGetValue(b.Id, out var part) ? b with { Heaters = [Thermostat(part, part.Pad!)] } : b);

        NightHeater Thermostat(Part part, Pad pad)
        {
            // Warm by itself, a sensor in the pad turns it off while the water is cold, where that is more than its thermostat has between on and off: no
            // longer, on average, than while it reads what turns it on.
            double band = BandK + (pad.Sensor is { Kind: PadSensorKind.InPad } && pad.OverK(part) is var over && over > pad.OffC - pad.OnC ? over : 0);
            return new NightHeater(pad.OnC - (band / 2), band, pad.PowerW, 0, double.PositiveInfinity, SensedAt: SensedAt(part, pad));
        }

        // A part that holds nothing is as warm as its room.
        string? SensedAt(Part part, Pad pad) => pad.Sensor switch
        {
            { Kind: PadSensorKind.Room } => RoomOf(part),
            { Kind: PadSensorKind.Part, PartId: { } on } => all.Any(b => b.Id == on) ? on : RoomOf(question.Index.Part(on)),
            _ => null,
        };

        string RoomOf(Part part) => question.Index.ZoneAt(part.Box.Centre()) is { } room ? IdOf(room.Id) : "outdoor";
    }

    /// <summary>All that holds water, each by itself. What lies beside a line that holds none by then has the room there.</summary>
    public static IReadOnlyList<NightBody> Bodies(Question question, IEnumerable<FreezeCandidate> candidates, Uncertainty doubt)
    {
        var bodies = candidates.Select(f => f.Body(question.Conditions, z => z is null ? "outdoor" : Nowhere + z)).ToList();
        var there = bodies.Where(b => b.Contacts.Any(IsBeside)).Select(b => b.Id).ToHashSet();
        // A contact of two is given once, by the first of them.
        IEnumerable<NightContact> Once(NightBody b) => b.Contacts.Where(c => !IsBeside(c) || !there.Contains(c.To) || string.CompareOrdinal(b.Id, c.To) < 0)
            .Select(c => IsBeside(c) && !there.Contains(c.To) ? c with { To = b.Contacts[0].To } : c);
        if (there.Count == 0 && doubt.Parts == 1) return bodies;
        return [.. bodies.Select(b => b with { Contacts = [.. (there.Count == 0 ? b.Contacts : Once(b))
            .Select(c => c with { ConductanceWPerK = c.ConductanceWPerK * doubt.Parts, Films = c.Films?.Times(doubt.Parts) })] })];
    }

    // Lines alone have such ids.
    private static bool IsBeside(NightContact contact) => contact.To.Contains('#', StringComparison.Ordinal);

    /// <summary>The network without what holds water.</summary>
    public static NightNetwork Rooms(Question question, IReadOnlyList<WeatherHour> weather, NightSegment segment, Uncertainty doubt)
    {
        var (rig, night) = (question.Rig, question.Conditions);
        var zones = rig.Shell.Zones;
        if (segment.DrivingMPerS > 0) weather = [.. weather.Select(w => w with { WindMPerS = Math.Max(w.WindMPerS, segment.DrivingMPerS) })];
        var now = weather[Math.Min((int)(segment.FromS / HourS), weather.Count - 1)];
        // What an earlier segment left is set by the caller.
        var start = segment.FromS > 0 ? zones.ToDictionary(z => z.Id, _ => 0.0)
            : ZoneBalance.Kept(rig, new SteadyNight(now.TemperatureC, now.WindMPerS, true), night.InsideC).ToDictionary(z => z.ZoneId, z => z.AirC);
        double rear = segment.DrivingMPerS > 0 ? RearShare : 1;
        var (partitions, openings) = ZoneBalance.Between(rig);
        var volumes = ZoneVolumes.Of(zones);
        var index = zones.Select((z, i) => (z.Id, i)).ToDictionary(z => z.Id, z => z.i);
        var still = new SteadyNight(now.TemperatureC, 0, true);
        NightLink[] links =
        [
            .. partitions.Select(p => p.Windy
                ? new NightLink(Nowhere + zones[p.A].Id, Nowhere + zones[p.B].Id, 0, [.. ZoneBalance.Films(p.Face, p.Factor)])
                : new NightLink(Nowhere + zones[p.A].Id, Nowhere + zones[p.B].Id,
                    p.Factor * p.Face.AreaM2 * ZoneBalance.Transmittance(p.Face, still, inWind: false))),
        ];
        NightOpening[] opened =
        [
            .. openings.Select(o => new NightOpening(Nowhere + zones[o.A].Id, Nowhere + zones[o.B].Id, o.Opening.AreaM2, o.Opening.HeightM, o.WindShare,
            o.Opening.Above())),
            .. segment.Open.Where(o => index.ContainsKey(o.ZoneId!)).Select(o => new NightOpening(
                Nowhere + o.ZoneId, o.Towards is null ? null : Nowhere + o.Towards, o.AreaM2!.Value, Math.Min(o.HeightM!.Value, o.MostHeightM(zones)),
                o.Towards is null ? 1 : ZoneBalance.WindShare(zones[index[o.ZoneId!]], zones[index[o.Towards]]))),
        ];
        var made = new List<NightZone>();
        for (int z = 0; z < zones.Count; z++)
        {
            var zone = zones[z];
            // What was measured is known to its own deviation, twice of it either way.
            double walls = zone.Measured is { } known ? 1 + (2 * Math.Sign(doubt.Walls - 1) * Math.Min(0.3, known.LossDeviation)) : doubt.Walls;
            double factor = walls * ZoneBalance.Measured(zone, null), leaks = walls * ZoneBalance.LeakageWPerK(zone, volumes[z]),
                blown = walls * ZoneBalance.BlownThroughWPerK(zone, volumes[z]);
            var outer = Films.Alike(zone.Faces.Where(f => f.Towards is null)
                .SelectMany(f => ZoneBalance.Films(f, factor, f.Rearward == true ? rear : 1, SkyView(f.Side))));
            NightHeater[] heaters = zone.Heater is { PowerW: > 0 } heater && segment.Heats(heater)
                ? [new NightHeater(Math.Min(heater.SetpointC, segment.HoldC ?? heater.SetpointC), BandK, heater.PowerW, 0, 1e9)] : [];
            string id = Nowhere + zone.Id;
            double joined = (leaks + (FreshMPerS * blown) + Most(outer)) / walls
                + links.Where(l => l.A == id || l.B == id).Sum(l => l.ConductanceWPerK + Most(l.Windy ?? []))
                + opened.Where(o => o.A == id || o.B == id).Sum(o => AirExchange.OpeningWPerK(o.AreaM2, o.HeightM, WideK, now.TemperatureC,
                    o.WindShare * FreshMPerS));
            double capacity = ZoneCapacity.JPerK(zone, volumes[z]) * (zone.HeatCapacityJPerK is null ? doubt.Capacity : 1);
            made.Add(new NightZone(id, Math.Max(capacity, QuickestS * joined), leaks, start[zone.Id], heaters, blown, outer));
        }
        if (made.Count == 0) made.Add(new NightZone(Nowhere, 1000, 10, weather[0].TemperatureC, []));
        double[] hours = [.. weather.Select((_, h) => h * HourS)];
        return new NightNetwork(made, links, [], new TimeSeries(hours, [.. weather.Select(w => w.TemperatureC)]), segment.ToS)
        {
            StartS = segment.FromS,
            WindMPerS = new TimeSeries(hours, [.. weather.Select(w => w.WindMPerS)]),
            SkyC = weather.All(w => w.Cloud >= 1) ? null : new TimeSeries(hours, [.. weather.Select(w => OuterFace.SkyC(w.TemperatureC, w.Cloud))]),
            Openings = opened,
        };

        double Most(IReadOnlyList<NightFilmed> films) => films.Sum(f => f.Size * f.Film.MostWPerK(FreshMPerS));
    }

    // How much of the sky a face sees.
    private static double SkyView(FaceSide side) => side switch { FaceSide.Roof => 1, FaceSide.Wall => 0.5, _ => 0 };

    /// <summary>
    /// Bodies of which a kilogram is the same in all that cools it are one larger body: they keep to one temperature and freeze together. <paramref
    /// name="number"/> says which each has become.
    /// </summary>
    public static IReadOnlyList<NightBody> Alike(IEnumerable<NightBody> bodies, IReadOnlySet<string> touched, out int[] number)
    {
        var made = new List<NightBody>();
        var known = new Dictionary<Likeness, int>();
        var all = bodies as IReadOnlyList<NightBody> ?? [.. bodies];
        number = new int[all.Count];
        // What lies beside another, or is warmed, is itself alone.
        var beside = all.Where(b => b.Contacts.Any(IsBeside)).SelectMany(b => b.Contacts.Where(IsBeside).Select(c => c.To).Append(b.Id)).ToHashSet();
        for (int b = 0; b < all.Count; b++)
        {
            var body = all[b];
            var key = new Likeness(body, body.Heaters.Count > 0 || beside.Contains(body.Id) || touched.Contains(body.Id));
            if (known.TryGetValue(key, out int at))
            {
                var first = made[at];
                made[at] = first with
                {
                    WaterKg = first.WaterKg + body.WaterKg,
                    DryJPerK = first.DryJPerK + body.DryJPerK,
                    LengthM = first.LengthM + body.LengthM,
                    Contacts = [.. first.Contacts.Zip(body.Contacts, (a, b) => a with
                    {
                        ConductanceWPerK = a.ConductanceWPerK + b.ConductanceWPerK,
                        Films = a.Films is null ? null : [.. a.Films.Zip(b.Films!, (x, y) => x with { Size = x.Size + y.Size })],
                    })],
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
            if (a.Ice != b.Ice || a.StartC != b.StartC || a.StartIce != b.StartIce || a.Slush != b.Slush || a.Contacts.Count != b.Contacts.Count) return false;
            if (AKilogram(a.DryJPerK, a) != AKilogram(b.DryJPerK, b) || AKilogram(a.LengthM, a) != AKilogram(b.LengthM, b)) return false;
            for (int c = 0; c < a.Contacts.Count; c++)
                if (a.Contacts[c].To != b.Contacts[c].To || AKilogram(a.Contacts[c].ConductanceWPerK, a) != AKilogram(b.Contacts[c].ConductanceWPerK, b)
                    || !AlikeFilms(a.Contacts[c].Films ?? [], b.Contacts[c].Films ?? [], a, b)) return false;
            return true;
        }

        private static bool AlikeFilms(IReadOnlyList<NightFilmed> films, IReadOnlyList<NightFilmed> others, NightBody a, NightBody b)
        {
            if (films.Count != others.Count) return false;
            for (int f = 0; f < films.Count; f++)
                if (AKilogram(films[f].Size, a) != AKilogram(others[f].Size, b) || !films[f].Film.Equals(others[f].Film)) return false;
            return true;
        }

        public override bool Equals(object? obj) => obj is Likeness other && Equals(other);

        // What loses nothing has no contact.
        public override int GetHashCode() => _body.Contacts is [var first, ..]
            ? HashCode.Combine(_body.Ice, _body.Contacts.Count, first.To, AKilogram(first.ConductanceWPerK, _body), first.Films is [var film, ..]
            ? AKilogram(film.Size, _body) : 0) : 0;

        // Without the last digits of a double, so that lengths of one line come to the same.
        private static long AKilogram(double value, NightBody body) => (BitConverter.DoubleToInt64Bits(value / (body.Slush is null ? body.WaterKg
            : body.DryJPerK)) + (1L << 21)) >> 22;
    }
}
