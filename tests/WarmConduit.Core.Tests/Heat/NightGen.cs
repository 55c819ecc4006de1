using WarmConduit.Core.Heat.Night;

namespace WarmConduit.Core.Tests.Heat;

/// <summary>Random nights with everything in them: rooms large and tiny, doorways, events, limits, narrow thermostats, neighbours, a loop, pipes and walls
/// whose films follow wind and air.</summary>
internal sealed class NightGen(int seed)
{
    private const double Hour = 3600;
    private readonly Random _random = new(seed), _films = new(~seed), _circuits = new(seed + 1_000_000);

    private double Even(double low, double high) => low + (high - low) * _random.NextDouble();

    // Even on a logarithmic scale.
    private double Wide(double low, double high) => Math.Exp(Even(Math.Log(low), Math.Log(high)));

    private bool OneIn(int n) => _random.Next(n) == 0;

    public NightNetwork Night()
    {
        int rooms = _random.Next(1, 7);
        NightZone[] zones = [.. Enumerable.Range(0, rooms).Select(z => new NightZone(
            $"z{z}", Wide(2000, 5e5), Wide(1, 60), Even(2, 20), OneIn(3) ? [Heater()] : [], OneIn(2) ? 0 : Wide(0.1, 3)))];
        var links = new List<NightLink>();
        var openings = new List<NightOpening>();
        var events = new List<NightEvent>();
        for (int z = 1; z < rooms; z++)
        {
            string here = $"z{z}", there = $"z{_random.Next(z)}";
            if (!OneIn(4)) links.Add(new(here, there, Wide(0.5, 40)));
            if (OneIn(3)) openings.Add(new(here, OneIn(3) ? null : there, Wide(0.002, 2), Even(0.1, 1.8), OneIn(2) ? 0 : Even(0, 1)));
            if (OneIn(4)) events.Add(new(Even(0, 24) * Hour, here, OneIn(2) ? there : null, OneIn(2) ? 0 : Wide(0.1, 20)));
        }
        double[] times = [.. Enumerable.Range(0, 7).Select(i => i * 4 * Hour)];
        NightBody[] bodies = [.. Enumerable.Range(0, _random.Next(1, 12)).Select(b => Filmed(Body(b, rooms)))];
        // Some sense what another is at: weak ones, as nothing stops them where they are.
        for (int b = 0; b < bodies.Length; b++)
            if (bodies[b].Heaters is [var heater] && Chance(2))
                bodies[b] = bodies[b] with
                {
                    Heaters = [heater with
                    {
                        PowerW = heater.PowerW / 4,
                        SensedAt = Chance(3) ? "outdoor" : Chance(2) ? $"b{_films.Next(bodies.Length)}" : $"z{_films.Next(rooms)}",
                    }],
                };
        return new NightNetwork([.. zones.Select(z => Chance(2) ? z with { Outer = [Wall(), Wall()] } : z)],
            [.. links.Select(l => Chance(4) ? l with { Windy = [Wall()] } : l)], bodies, Weather(-18, 4), 24 * Hour)
        {
            SkyC = Chance(2) ? null : new TimeSeries([0, 12 * Hour, 24 * Hour], [Of(-38, -18), Of(-38, -18), Of(-38, -18)]),
            Openings = openings,
            Events = events,
            Sources = [new("loop", TimeSeries.Constant(40))],
            WindMPerS = Weather(0, 12),
        };

        TimeSeries Weather(double low, double high) => new(times, [.. times.Select(_ => Even(low, high))]);
    }

    /// <summary>The same night with one or two circuits: a heater, then one to three branches side by side, each past a few of what is there.</summary>
    public NightNetwork WithCircuits()
    {
        var night = Night();
        return night with { Circuits = [.. Enumerable.Range(0, _circuits.Next(1, 3)).Select(c => Circuit(c, night))] };
    }

    private NightCircuit Circuit(int c, NightNetwork night)
    {
        double Between(double low, double high) => low + ((high - low) * _circuits.NextDouble());
        bool Half() => _circuits.Next(2) == 0;
        NightWindow[] Windows() => Half() ? [NightWindow.Always] : [new(0, Between(3, 10) * Hour), new(Between(12, 15) * Hour, Between(16, 22) * Hour)];
        double[] flow = [.. Enumerable.Range(0, _circuits.Next(1, 4)).Select(_ => Between(0.01, 0.08))];
        var reaches = new List<NightReach>
        {
            new("heater", "back", "out", flow.Sum(), Heater: new NightFluidHeater(Between(300, 5000), Between(40, 80), Windows())),
        };
        for (int branch = 0; branch < flow.Length; branch++)
        {
            int past = _circuits.Next(1, 5);
            for (int i = 0; i < past; i++)
            {
                string from = i == 0 ? "out" : $"n{branch}.{i}", to = i + 1 == past ? "back" : $"n{branch}.{i + 1}", id = $"r{branch}.{i}";
                string zone = $"z{_circuits.Next(night.Zones.Count)}";
                var body = night.Bodies[_circuits.Next(night.Bodies.Count)];
                // A thermostat sits on a tank, not on a thimble.
                reaches.Add(Half() ? new(id, from, to, flow[branch], body.Id, Between(0.2, 10), SetpointC: body.WaterKg > 2 ? Between(5, 30) : null)
                    : Half() ? new(id, from, to, flow[branch], Half() ? "outdoor" : zone, Between(0.2, 5))
                    : new(id, from, to, flow[branch], zone, Emission: new NightEmission(Between(100, 2500), 50, Between(0.1, 1), Half() ? 40 : -1000),
                        SetpointC: Half() ? Between(8, 20) : null));
            }
        }
        return new NightCircuit($"c{c}", Between(3400, 4200), reaches, Windows());
    }

    private double Of(double low, double high) => low + (high - low) * _films.NextDouble();

    private bool Chance(int n) => _films.Next(n) == 0;

    private NightFilmed Wall() => new(new WallFilm(Of(0.1, 2), Chance(3) ? 0.5 : 1, Chance(2) ? 0 : 0.5), Of(0.5, 15));

    // As water in so many metres of pipe, bare or in a sleeve; or a tank in the wind.
    private NightBody Filmed(NightBody body)
    {
        if (!Chance(2)) return body;
        double metres = body.WaterKg / Of(0.1, 0.4);
        NightFilmed film = body.WaterKg > 2 ? new(new WallFilm(Of(0.2, 1.5), 1), body.WaterKg / 30)
            : new(new CylinderFilm(Of(0.012, 0.05), Chance(3) ? Of(1, 5) : Of(0.05, 0.3), 0.9, Chance(2) ? 0 : 1), metres);
        return body with
        {
            Contacts = [body.Contacts[0] with { ConductanceWPerK = Chance(2) ? 0 : body.Contacts[0].ConductanceWPerK / 2, Films = [film] },
            .. body.Contacts.Skip(1)]
        };
    }

    private NightHeater Heater() => new(
        Even(5, 20), OneIn(3) ? Wide(0.05, 1) : 1, Wide(100, 4000), OneIn(2) ? 0 : Even(0, 5) * Hour, OneIn(2) ? 1e9 : Even(6, 24) * Hour,
        OneIn(4) ? Wide(200, 20_000) : double.PositiveInfinity);

    private NightBody Body(int b, int rooms)
    {
        var contacts = new List<NightContact> { new($"z{_random.Next(rooms)}", Wide(0.02, 5)) };
        if (OneIn(4)) contacts.Add(new("outdoor", Wide(0.01, 1)));
        if (OneIn(5)) contacts.Add(new($"z{_random.Next(rooms)}", Wide(0.02, 2)));
        if (OneIn(6)) contacts.Add(new("loop", Wide(0.05, 1)));
        if (b > 0 && OneIn(5)) contacts.Add(new($"b{_random.Next(b)}", Wide(0.02, 2)));
        double kg = OneIn(5) ? Wide(2, 80) : Wide(0.01, 2);
        NightHeater[] heaters = OneIn(6) ? [new(Even(3, 10), 1, Wide(1, 20) * Math.Min(1, kg), 0, 1e9, OneIn(3) ? Wide(5, 200) : double.PositiveInfinity)] : [];
        double startC = OneIn(6) ? 0 : Even(2, 15);
        return new($"b{b}", kg, Wide(10, 500), startC, OneIn(2) ? IceGrowth.Cylinder : IceGrowth.Lumped, Wide(0.3, 6), contacts, heaters, startC == 0
            ? Even(0.05, 0.9) : 0);
    }
}
