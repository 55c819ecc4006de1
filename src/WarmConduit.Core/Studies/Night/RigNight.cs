using System.Globalization;
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

/// <summary>
/// A rig through its night: rooms and all that holds water, from the evening on, as they were left. Rooms with a heater (the living space where there is none) start as warm as they were
/// kept, the others from that evening's balance; water starts as it was left.
/// </summary>
internal sealed class RigNight
{
    private const double StepS = 1800, HourS = 3600, BandK = 1, LeastAfterH = 12;
    private const double Emissivity = 0.9;

    // A room of hardly anything but air follows the rooms around it within a quarter of an hour: frames, skins and lids hold that much. Estimate; figures are told to a quarter of an hour.
    private const double QuickestS = 900, WideK = 15;

    // Stands for rooms where none is drawn.
    private const string Nowhere = "zone:";

    private RigNight(Question question, IReadOnlyList<Freezer> freezers, int[] bodyOf, IReadOnlyList<WeatherHour> weather, NightAnswer answer, double morningS) =>
        (Freezers, _bodyOf, Weather, Answer, MorningS, Rig, _zones, Morning) = (
            freezers, bodyOf, weather, answer, morningS, question.Rig, question.Rig.Shell.Zones.Select((z, i) => (z.Id, i)).ToDictionary(z => z.Id, z => z.i),
            answer.ReportS.ToList().IndexOf(morningS));

    private readonly Dictionary<string, int> _zones;
    private readonly int[] _bodyOf;

    public Rig Rig { get; }

    /// <summary>All that could freeze.</summary>
    public IReadOnlyList<Freezer> Freezers { get; }

    /// <summary>The weather, one value an hour from the start; one value: the same all the time.</summary>
    public IReadOnlyList<WeatherHour> Weather { get; }

    public NightAnswer Answer { get; }

    public double MorningS { get; }

    /// <summary>Number of the report in the morning.</summary>
    public int Morning { get; }

    /// <summary>When freezer number <paramref name="freezer"/> reaches what.</summary>
    public BodyMilestones Marks(int freezer) => Answer.Milestones[_bodyOf[freezer]];

    /// <summary>Its water at a report, °C.</summary>
    public double WaterC(int report, int freezer) => Answer.BodyC[report, _bodyOf[freezer]];

    /// <summary>Its ice fraction at a report, 0..1.</summary>
    public double Ice(int report, int freezer) => Answer.IceFraction[report, _bodyOf[freezer]];

    /// <summary>Air of a zone (null: outdoors) at a report, °C.</summary>
    public double AirC(Zone? zone, int report)
    {
        if (zone is not null) return Answer.ZoneC[report, _zones[zone.Id]];
        double hour = Math.Min(Answer.ReportS[report] / HourS, Weather.Count - 1);
        int h = Math.Min((int)hour, Weather.Count - 1), next = Math.Min(h + 1, Weather.Count - 1);
        return Weather[h].TemperatureC + (hour - h) * (Weather[next].TemperatureC - Weather[h].TemperatureC);
    }

    /// <summary>Each zone in the morning, and what its heater gave in the hour before, W.</summary>
    public IReadOnlyList<ZoneAir> Zones()
    {
        int hour = Math.Max(0, (int)Math.Ceiling(MorningS / HourS) - 1);
        double Heater(Zone zone) => Answer.Energy.FirstOrDefault(e => e.Owner == Nowhere + zone.Id) is { } energy && hour < energy.WhByHour.Count ? energy.WhByHour[hour] : 0;
        return [.. Rig.Shell.Zones.Select(z => new ZoneAir(z.Id, AirC(z, Morning), Heater(z)))];
    }

    /// <summary>Whether nothing that ice breaks has any by morning.</summary>
    public bool Stands() => !Freezers.Where((f, n) => f.BreaksByIce && Marks(n).FirstIceS < MorningS).Any();

    /// <summary>The weather at a report.</summary>
    public WeatherHour WeatherAt(int report) => Weather[Math.Min((int)(Answer.ReportS[report] / HourS), Weather.Count - 1)];

    /// <summary>What a zone's heater gives hour by hour, Wh; empty where it has none.</summary>
    public IReadOnlyList<double> HeaterWh(Zone zone) => Answer.Energy.FirstOrDefault(e => e.Owner == Nowhere + zone.Id)?.WhByHour ?? [];

    /// <summary>When ice first breaks something, s, and what; infinite and null: not by the end.</summary>
    public (double AtS, string? Name) FirstBreak() => First(f => f.BreaksByIce);

    /// <summary>When anything first has ice, s, and what.</summary>
    public (double AtS, string? Name) FirstIce() => First(_ => true);

    private (double AtS, string? Name) First(Func<Freezer, bool> counts)
    {
        var (at, name) = (double.PositiveInfinity, (string?)null);
        for (int n = 0; n < Freezers.Count; n++)
            if (counts(Freezers[n]) && Marks(n).FirstIceS < at) (at, name) = (Marks(n).FirstIceS, Freezers[n].Name);
        return (at, name);
    }

    /// <summary>The night asked about, once for a question. Throws <see cref="TooLargeException"/> as the cutting of runs does.</summary>
    public static RigNight Of(Question question) => Of(question, Doubt.None);

    /// <summary>The same with what is guessed on one side.</summary>
    public static RigNight Of(Question question, Doubt doubt)
    {
        var night = question.Conditions;
        double morningS = night.Hours * HourS, endS = Math.Max(night.Hours, LeastAfterH) * HourS;
        var weather = night.Weather?.From(night.StartHour, endS / HourS) ?? [new WeatherHour(night.OutdoorC, night.WindMPerS, night.Cloud)];
        var freezers = FreezeLadderStudy.Freezers(question).ToList();
        double[] reports = [.. NightOptions.Every(HourS, endS).Append(morningS).Append(endS).Distinct().Order()];
        var network = Network(question, freezers, weather, endS, doubt, out int[] bodyOf);
        return new RigNight(question, freezers, bodyOf, weather, NightEngine.Run(network, new NightOptions(StepS, 60, reports), question.Cancel), morningS);
    }

    /// <summary>What the engine is asked: rooms, all that holds water, and the weather, one value an hour. <paramref name="bodyOf"/> is the number of the body that each freezer is part of.</summary>
    public static NightNetwork Network(Question question, IReadOnlyList<Freezer> freezers, IReadOnlyList<WeatherHour> weather, double endS, Doubt doubt, out int[] bodyOf)
    {
        var (rig, night) = (question.Rig, question.Conditions);
        var zones = rig.Shell.Zones;
        var evening = night with { OutdoorC = weather[0].TemperatureC, WindMPerS = weather[0].WindMPerS };
        var start = ZoneBalance.Kept(rig, evening).ToDictionary(z => z.ZoneId, z => z.AirC);
        // A wind that the year's films are laid through.
        double windy = Math.Max(4, weather.Max(w => w.WindMPerS));
        var (links, openings) = ZoneBalance.Between(rig, evening);
        var outdoor = new TimeSeries([.. weather.Select((_, h) => h * HourS)], [.. weather.Select(w => w.TemperatureC)]);
        var sources = new List<NightSource>();
        var made = new List<NightZone>();
        bool open = weather.Any(w => w.Cloud < 1);
        foreach (var zone in zones)
        {
            double Loss(double wind) => ZoneBalance.OutdoorWPerK(zone, evening with { WindMPerS = wind });
            // On a night of one wind it is that wind's; over many it is laid through none and the strongest.
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
            NightHeater[] heaters = night.HeatOn && zone.Heater is { PowerW: > 0 } heater ? [new NightHeater(heater.SetpointC, BandK, heater.PowerW, 0, (night.HeatFailsAfterH ?? 1e6) * HourS)] : [];
            double joined = g + windy * byWind
                + links.Where(l => zones[l.A] == zone || zones[l.B] == zone).Sum(l => l.ConductanceWPerK)
                + openings.Where(o => zones[o.A] == zone || zones[o.B] == zone).Sum(o => ZoneBalance.OpeningWPerK(o.Opening, WideK, evening.OutdoorC));
            made.Add(new NightZone(Nowhere + zone.Id, Math.Max(ZoneCapacity.JPerK(zone) * (zone.HeatCapacityJPerK is null ? doubt.Capacity : 1), QuickestS * joined), g * doubt.Walls, start[zone.Id], heaters, byWind * doubt.Walls, sky));
        }
        if (made.Count == 0) made.Add(new NightZone(Nowhere, 1000, 10, weather[0].TemperatureC, []));
        var bodies = Alike(freezers.Select(f => f.Body(night, z => z is null ? "outdoor" : Nowhere + z)).Select(b => b with { Contacts = [.. b.Contacts.Select(c => c with { ConductanceWPerK = c.ConductanceWPerK * doubt.Parts })] }), out bodyOf);
        return new NightNetwork(made, [.. links.Select(l => new NightLink(Nowhere + zones[l.A].Id, Nowhere + zones[l.B].Id, l.ConductanceWPerK))], [.. bodies], outdoor, endS)
        {
            WindMPerS = outdoor with { Value = [.. weather.Select(w => w.WindMPerS)] },
            Sources = sources,
            Openings = [.. openings.Select(o => new NightOpening(Nowhere + zones[o.A].Id, Nowhere + zones[o.B].Id, o.Opening.AreaM2, o.Opening.HeightM))],
        };
    }

    /// <summary>
    /// Bodies of which a kilogram is the same in all that cools it are one larger body: they keep to one temperature and freeze together. <paramref name="number"/> says which each has become.
    /// </summary>
    public static IReadOnlyList<NightBody> Alike(IEnumerable<NightBody> bodies, out int[] number)
    {
        var of = new List<int>();
        var made = new List<NightBody>();
        var known = new Dictionary<string, int>();
        foreach (var body in bodies)
        {
            string key = string.Create(CultureInfo.InvariantCulture, $"{body.Ice} {body.StartC:R} {body.DryJPerK / body.WaterKg:G9} {body.LengthM / body.WaterKg:G9} {string.Join(' ', body.Contacts.Select(c => string.Create(CultureInfo.InvariantCulture, $"{c.To} {c.ConductanceWPerK / body.WaterKg:G9}")))}");
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
            of.Add(at);
        }
        number = [.. of];
        return made;
    }

    // How much of what a zone loses to outdoors leaves through faces that see the sky: roofs wholly, walls by half.
    private static double SkyShare(Zone zone, Conditions night)
    {
        double all = ZoneBalance.OutdoorWPerK(zone, night);
        if (all <= 0) return 0;
        return zone.Faces.Where(f => f.Towards is null).Sum(f => f.AreaM2 * ZoneBalance.Transmittance(f, night, inWind: true) * (f.Side switch { FaceSide.Roof => 1, FaceSide.Wall => 0.5, _ => 0 })) / all;
    }
}
