namespace WarmConduit.Core.Heat.Night;

/// <summary>A <see cref="NightNetwork"/> checked and laid out in arrays. Immutable; safe to run from several threads at once.</summary>
internal sealed class NightLayout
{
    private const double LongestS = 10 * 366 * 86400.0;

    // The first boundary, as in ContactTo.
    public const int Outdoors = -1;

    public readonly NightNetwork Network;
    public readonly int ZoneCount, BodyCount;

    // Boundaries: outdoors first, then the sources.
    public readonly TimeSeries[] Boundary;
    public readonly (double[] TimeS, double[] Value)[] BoundaryKnots;
    public readonly (double[] TimeS, double[] Value) Wind;

    // The sky; null: as warm as the air.
    public readonly (double[] TimeS, double[] Value)? Sky;

    // Contacts of bodies in compressed rows. A target from 0 on is a zone, below 0 boundary -1 - target.
    public readonly int[] ContactStart;
    public readonly int[] ContactTo;
    public readonly double[] ContactG;

    // The films of contacts, outer faces of zones and links, each in compressed rows; what a contact can come to at most.
    public readonly FilmRows ContactFilms, OuterFilms, LinkFilms;
    public readonly double[] ContactMostG;

    // Contacts between bodies, each once.
    public readonly (int A, int B, double G)[] Neighbours;

    public readonly (int A, int B, double G)[] Links;
    // B below 0: outdoors.
    public readonly (int A, int B, double AreaM2, double HeightM, double WindShare, int Above)[] Openings;
    public readonly (double TimeS, int A, int B, double Factor)[] Events;
    public readonly (bool OfZone, int Owner, int Index, NightHeater Heater)[] Heaters;

    public readonly CircuitLayout[] Circuits;

    // Bodies that a circuit touches, and the place of each among them (-1: none does).
    public readonly int[] Touched, TouchedAt;

    /// <summary>What each heater senses, a body or a target (numbered as in <see cref="ContactTo"/>); null: what it heats.</summary>
    public readonly (bool OfBody, int Index)?[] Sensed;

    // Heaters of zones come first, those of bodies from the first start on.
    public readonly int[] BodyHeaterStart;

    /// <summary>Lays out and checks; throws <see cref="HeatNetworkException"/> naming the place.</summary>
    public NightLayout(NightNetwork network)
    {
        Network = network;
        (ZoneCount, BodyCount) = (network.Zones.Count, network.Bodies.Count);
        if (!(network.StartS >= 0 && network.EndS > network.StartS && network.EndS <= LongestS))
            throw new HeatNetworkException("end", "the end must be after the start, within ten years");
        if (ZoneCount == 0) throw new HeatNetworkException("zones", "there must be at least one zone");
        CheckSeries("outdoor", network.OutdoorC, -HeatNumbers.HottestC);
        CheckSeries("wind", network.WindMPerS, 0);
        if (network.SkyC is { } over) CheckSeries("sky", over, -HeatNumbers.HottestC);
        CheckConstants(network.Constants);

        var index = new Dictionary<string, (char Kind, int Index)> { ["outdoor"] = ('b', 0) };
        void Name(string id, char kind, int i)
        {
            if (string.IsNullOrEmpty(id) || !index.TryAdd(id, (kind, i))) throw new HeatNetworkException(id, "this id is missing or already used");
        }
        for (int z = 0; z < ZoneCount; z++) Name(network.Zones[z].Id, 'z', z);
        for (int b = 0; b < BodyCount; b++) Name(network.Bodies[b].Id, 'w', b);
        for (int s = 0; s < network.Sources.Count; s++)
        {
            Name(network.Sources[s].Id, 'b', s + 1);
            CheckSeries(network.Sources[s].Id, network.Sources[s].TemperatureC, -HeatNumbers.HottestC);
        }
        Boundary = [network.OutdoorC, .. network.Sources.Select(s => s.TemperatureC)];
        BoundaryKnots = [.. Boundary.Select(Knots)];
        Wind = Knots(network.WindMPerS);
        Sky = network.SkyC is { } sky ? Knots(sky) : null;

        foreach (var zone in network.Zones)
        {
            HeatNumbers.Positive(zone.Id, "heat capacity", zone.HeatCapacityJPerK);
            HeatNumbers.NotNegative(zone.Id, "conductance to outdoors", zone.OutdoorWPerK);
            HeatNumbers.NotNegative(zone.Id, "conductance by wind", zone.OutdoorWPerKPerMPerS);
            HeatNumbers.Temperature(zone.Id, zone.StartC);
            if (!double.IsFinite(zone.HandedOnJ)) throw new HeatNetworkException(zone.Id, "its heat in transit must be a finite number");
        }
        OuterFilms = new FilmRows(network.Zones.Select(z => (z.Id, z.Outer)));
        LinkFilms = new FilmRows(network.Links.Select(l => ($"{l.A}-{l.B}", l.Windy)));
        int Zone(string id, string place) =>
            index.TryGetValue(id, out var t) && t.Kind == 'z' ? t.Index : throw new HeatNetworkException(place, $"zone '{id}' is unknown");
        Links = [.. network.Links.Select(l =>
        {
            string place = $"{l.A}-{l.B}";
            HeatNumbers.NotNegative(place, "conductance", l.ConductanceWPerK);
            if (l.A == l.B) throw new HeatNetworkException(place, "a zone cannot be connected to itself");
            return (Zone(l.A, place), Zone(l.B, place), l.ConductanceWPerK);
        })];
        Openings = [.. network.Openings.Select(o =>
        {
            string place = $"{o.A}-{o.B}";
            HeatNumbers.NotNegative(place, "area", o.AreaM2);
            HeatNumbers.NotNegative(place, "height", o.HeightM);
            HeatNumbers.NotNegative(place, "share of the wind", o.WindShare);
            if (o.A == o.B) throw new HeatNetworkException(place, "a zone cannot open to itself");
            return (Zone(o.A, place), o.B is null ? Outdoors : Zone(o.B, place), o.AreaM2, o.HeightM, o.WindShare, Math.Sign(o.Above));
        })];
        Events = [.. network.Events.Select(e =>
        {
            HeatNumbers.NotNegative(e.A, "factor", e.Factor);
            if (!double.IsFinite(e.TimeS)) throw new HeatNetworkException(e.A, "the event's time must be a finite number");
            return (e.TimeS, Zone(e.A, e.A), e.B is null ? -1 : Zone(e.B, e.A), e.Factor);
        }).OrderBy(e => e.TimeS)];

        ContactStart = new int[BodyCount + 1];
        var to = new List<int>();
        var g = new List<double>();
        var films = new List<(string, IReadOnlyList<NightFilmed>?)>();
        var neighbours = new List<(int, int, double)>();
        for (int b = 0; b < BodyCount; b++)
        {
            var body = network.Bodies[b];
            CheckBody(body);
            foreach (var contact in body.Contacts)
            {
                HeatNumbers.NotNegative(body.Id, "conductance", contact.ConductanceWPerK);
                if (!index.TryGetValue(contact.To, out var target))
                    throw new HeatNetworkException(body.Id, $"it is in contact with an unknown body '{contact.To}'");
                if (target == ('w', b)) throw new HeatNetworkException(body.Id, "it cannot be in contact with itself");
                if (target.Kind == 'w')
                {
                    if (contact.Films is { Count: > 0 }) throw new HeatNetworkException(body.Id, "a contact of two bodies cannot have surface films");
                    neighbours.Add((b, target.Index, contact.ConductanceWPerK));
                    continue;
                }
                to.Add(target.Kind == 'z' ? target.Index : -1 - target.Index);
                g.Add(contact.ConductanceWPerK);
                films.Add((body.Id, contact.Films));
            }
            ContactStart[b + 1] = to.Count;
        }
        (ContactTo, ContactG, Neighbours, ContactFilms) = ([.. to], [.. g], [.. neighbours], new FilmRows(films));
        double strongest = Wind.Value.Max();
        ContactMostG = [.. ContactG.Select((w, c) => w + ContactFilms.MostWPerK(c, strongest))];

        Circuits = [.. network.Circuits.Where(c => c.Reaches.Any(r => r.KgPerS > 0)).Select(c => new CircuitLayout(c, index))];
        Touched = [.. Circuits.SelectMany(c => c.Targets).Where(t => t.Kind == 'w').Select(t => t.Index).Distinct().Order()];
        TouchedAt = new int[BodyCount];
        Array.Fill(TouchedAt, -1);
        for (int l = 0; l < Touched.Length; l++) TouchedAt[Touched[l]] = l;

        var heaters = new List<(bool, int, int, NightHeater)>();
        BodyHeaterStart = new int[BodyCount + 1];
        for (int z = 0; z < ZoneCount; z++) Add(true, z, network.Zones[z].Id, network.Zones[z].Heaters);
        BodyHeaterStart[0] = heaters.Count;
        for (int b = 0; b < BodyCount; b++)
        {
            Add(false, b, network.Bodies[b].Id, network.Bodies[b].Heaters);
            BodyHeaterStart[b + 1] = heaters.Count;
        }
        Heaters = [.. heaters];
        Sensed = [.. heaters.Select(h => Sensor(h.Item1, h.Item2, h.Item4))];

        (bool OfBody, int Index)? Sensor(bool ofZone, int owner, NightHeater heater)
        {
            if (heater.SensedAt is not { } id || (!ofZone && id == network.Bodies[owner].Id)) return null;
            string place = ofZone ? network.Zones[owner].Id : network.Bodies[owner].Id;
            if (ofZone) throw new HeatNetworkException(place, "the heater of a zone senses that zone");
            if (!index.TryGetValue(id, out var at)) throw new HeatNetworkException(place, $"its heater senses an unknown body '{id}'");
            return (at.Kind == 'w', at.Kind == 'b' ? -1 - at.Index : at.Index);
        }

        void Add(bool ofZone, int owner, string id, IReadOnlyList<NightHeater> list)
        {
            for (int i = 0; i < list.Count; i++)
            {
                HeatNumbers.Positive(id, "band of its heater", list[i].BandK);
                HeatNumbers.NotNegative(id, "power of its heater", list[i].PowerW);
                HeatNumbers.Temperature(id, list[i].SetpointC);
                if (double.IsNaN(list[i].FromS) || double.IsNaN(list[i].ToS) || !(list[i].LimitWh >= 0))
                    throw new HeatNetworkException(id, "its heater's range or limit must be a finite number");
                heaters.Add((ofZone, owner, i, list[i]));
            }
        }
    }

    /// <summary>
    /// Times at which something bends or jumps, rising, from the start to the end: knots, hours, reports, heater windows, events. True where it jumps.
    /// </summary>
    public List<(double TimeS, bool Jump)> Milestones(IReadOnlyList<double> reports)
    {
        double start = Network.StartS, end = Network.EndS;
        var all = new List<(double, bool)> { (start, true), (end, false) };
        void Add(double t, bool jump)
        {
            if (t > start && t < end) all.Add((t, jump));
        }
        foreach (var series in Boundary.Append(Network.WindMPerS))
            foreach (double t in series.TimeS) Add(t, false);
        foreach (double t in reports) Add(t, false);
        foreach (var (_, _, _, heater) in Heaters)
        {
            Add(heater.FromS, true);
            Add(heater.ToS, true);
        }
        foreach (var e in Events) Add(e.TimeS, true);
        foreach (double t in Circuits.SelectMany(c => c.Edges())) Add(t, true);
        for (double t = 3600; t < end; t += 3600) Add(t, false);
        all.Sort();
        // What lies nearer than the shortest step is one milestone, at the last of its times: a step of microseconds has no digits left.
        var merged = new List<(double TimeS, bool Jump)>(all.Count);
        double first = double.NegativeInfinity;
        foreach (var (t, jump) in all)
        {
            if (t - first < NightOptions.ShortestS) merged[^1] = (t, merged[^1].Jump || jump);
            else
            {
                merged.Add((t, jump));
                first = t;
            }
        }
        return merged;
    }

    private static (double[] TimeS, double[] Value) Knots(TimeSeries series) => ([.. series.TimeS], [.. series.Value]);

    private static void CheckBody(NightBody body)
    {
        HeatNumbers.NotNegative(body.Id, "water", body.WaterKg);
        HeatNumbers.NotNegative(body.Id, "dry heat capacity", body.DryJPerK);
        HeatNumbers.Positive(body.Id, "mass or dry heat capacity", body.WaterKg + body.DryJPerK);
        HeatNumbers.Temperature(body.Id, body.StartC);
        if (!(body.StartIce is >= 0 and <= 1) || (body.StartIce > 0 && body.StartC > 0))
            throw new HeatNetworkException(body.Id, "its ice fraction must be from 0 to 1, and 0 above 0 °C");
        if (body.Slush is { } slush && !(slush.FreezesC < 0 && slush.HardC <= slush.FreezesC && double.IsFinite(slush.HardC) && body.WaterKg == 0))
            throw new HeatNetworkException(body.Id, "antifreeze must have no water mass, freeze below 0 °C and be solid at that temperature or colder");
        if (!Enum.IsDefined(body.Ice)) throw new HeatNetworkException(body.Id, "its ice growth must be one of the known kinds");
        HeatNumbers.NotNegative(body.Id, "length", body.LengthM);
        if (body.Ice == IceGrowth.Cylinder) HeatNumbers.Positive(body.Id, "length", body.LengthM);
    }

    private static void CheckConstants(NightConstants c)
    {
        HeatNumbers.Positive("constants", "heat capacity of water", c.WaterJPerKgK);
        HeatNumbers.Positive("constants", "heat capacity of ice", c.IceJPerKgK);
        HeatNumbers.Positive("constants", "latent heat", c.LatentJPerKg);
        HeatNumbers.Positive("constants", "conductivity of ice", c.IceWPerMK);
    }

    private static void CheckSeries(string id, TimeSeries series, double least)
    {
        if (series.TimeS.Count == 0 || series.TimeS.Count != series.Value.Count)
            throw new HeatNetworkException(id, "it must have one value for each time, and at least one");
        for (int i = 0; i < series.TimeS.Count; i++)
        {
            if (!double.IsFinite(series.TimeS[i]) || !(series.Value[i] >= least && series.Value[i] < HeatNumbers.HottestC))
                throw new HeatNetworkException(id, $"value {i + 1} must be a number within the limits");
            if (i > 0 && series.TimeS[i] <= series.TimeS[i - 1]) throw new HeatNetworkException(id, $"times must rise: value {i + 1} does not");
        }
    }
}
