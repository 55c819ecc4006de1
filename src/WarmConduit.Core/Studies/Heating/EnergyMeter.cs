using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.Heating;

/// <summary>A part that gives heat, hour by hour.</summary>
/// <param name="Part">The part.</param>
/// <param name="Kind">What it does.</param>
/// <param name="Wh">What it gives off in each hour, Wh; below 0: a heater gives it to its fluid.</param>
/// <param name="InC">Fluid that comes to it at the start of an hour, °C; null: its pump rests.</param>
internal sealed record MeteredPart(Part Part, HeatRole Kind, IReadOnlyList<double> Wh, Func<int, double?> InC);

/// <summary>What heat costs, hour by hour.</summary>
/// <param name="BatteryWh">From the battery, Wh.</param>
/// <param name="FuelL">Fuel, L.</param>
/// <param name="MainsWh">From mains, Wh.</param>
/// <param name="Burns">Something that heats burns fuel.</param>
internal sealed record MeteredHours(double[] BatteryWh, double[] FuelL, double[] MainsWh, bool Burns)
{
    /// <summary>What is used at all, with what the brief gives of it, and how it is told.</summary>
    public IEnumerable<(EnergyKind Kind, double[] ByHour, double? Has, Func<double?, Measure> Measure, string Name)> Kinds(BriefChoices chosen)
    {
        if (BatteryWh.Any(w => w > 0)) yield return (EnergyKind.Battery, BatteryWh, chosen.BatteryWh, Measure.Energy, "battery");
        if (Burns) yield return (EnergyKind.Fuel, FuelL, chosen.FuelL, Measure.Volume, "fuel");
        if (MainsWh.Any(w => w > 0)) yield return (EnergyKind.Mains, MainsWh, null, Measure.Energy, "mains");
    }
}

/// <summary>Turns the heat that a rig gives into battery, fuel and mains; the same for a night and for a winter. May be shared between threads.</summary>
internal sealed class EnergyMeter
{
    private const double HourS = 3600;

    private readonly Rig _rig;
    private readonly double _pumpW;

    /// <summary>Reads what a rig's circuits hold, and what their pumps draw.</summary>
    public EnergyMeter(Question question)
    {
        _rig = question.Rig;
        var heat = RigHeat.Of(question);
        FluidJPerK = heat.Litres() / 1000 * heat.KgPerM3 * heat.JPerKgK;
        _pumpW = heat.Net.Drives.Sum(d => question.Index.Part(d.PartId).Heats().DrawW ?? 0);
    }

    /// <summary>Heat that the fluid of all circuits takes up, J/K.</summary>
    public double FluidJPerK { get; }

    /// <summary>What a part does with heat.</summary>
    public static HeatRole RoleOf(Part part) =>
        part.Heats() is { StopsC: not null } ? HeatRole.Source : part.Heats().IsEngine ? HeatRole.Engine
        : part.Heats().CoilWPerK is not null ? HeatRole.Coil : HeatRole.Emitter;

    /// <summary>What a night takes. O(parts · hours).</summary>
    public MeteredHours Of(Question question, RigNight night)
    {
        var moments = night.HourReports().Select(r => night.Heat.Moments[r]).ToList();
        double? InC(string part, int hour) => hour < moments.Count && moments[hour] is { } moment
            && moment.Pieces.ToList().FindLastIndex(p => p.PartId == part) is >= 0 and var i ? moment.Row.InC[i] : null;
        var circuits = night.Heat.PartWh.Select(p => (Part: question.Index.Part(p.Key), Wh: p.Value))
            .Select(p => new MeteredPart(p.Part, RoleOf(p.Part), p.Wh, h => InC(p.Part.Id, h)));
        var pads = night.Heat.PadWh.Select(p => new MeteredPart(question.Index.Part(p.Key), HeatRole.Pad, p.Value, _ => null));
        return Sum(circuits.Concat(pads), night.Heat.PumpS, night.HeaterWh);
    }

    /// <summary>Sums it up. <paramref name="pumpS"/>: seconds in each hour in which pumps run; <paramref name="heaterWh"/>: what a room's heater gives by
    /// hour. O(parts · hours).</summary>
    public MeteredHours Sum(IEnumerable<MeteredPart> parts, IReadOnlyList<double> pumpS, Func<Zone, IReadOnlyList<double>> heaterWh)
    {
        int hours = pumpS.Count;
        var (battery, fuel, mains) = (new double[hours], new double[hours], new double[hours]);
        bool burns = false;
        foreach (var (part, kind, wh, inC) in parts)
        {
            var figures = part.Heats();
            for (int h = 0; h < hours && h < wh.Count; h++)
            {
                if (kind == HeatRole.Source)
                {
                    battery[h] += HeaterCycle.Of(figures, -wh[h], FluidJPerK).ElectricWh(figures);
                    if (figures.Supply is { } electric) Electric(electric, h, -wh[h]);
                    else if (figures is { FuelLPerH: { } full, PowerW: > 0 and var power }) fuel[h] -= full * wh[h] / power;
                    burns |= figures.FuelLPerH is not null;
                }
                else if (kind == HeatRole.Emitter && figures is { DrawW: { } fan, FanFromC: { } from }) battery[h] += inC(h) > from && wh[h] > 0 ? fan : 0;
                else if (kind == HeatRole.Pad) Electric(part.Pad!.Supply, h, wh[h]);
            }
        }
        for (int h = 0; h < hours; h++) battery[h] += _pumpW * pumpS[h] / HourS;
        // Heaters of rooms: electric ones by the battery; of the others the fuel is counted as diesel.
        foreach (var zone in _rig.Shell.Zones.Where(z => z.Heater is { PowerW: > 0 }))
        {
            var wh = heaterWh(zone);
            for (int h = 0; h < hours && h < wh.Count; h++)
            {
                if (zone.Heater!.Electric == true) battery[h] += wh[h];
                else fuel[h] += wh[h] / (TradeConstants.DieselWhPerL * TradeConstants.HeaterEfficiency);
            }
            burns |= zone.Heater!.Electric != true;
        }
        return new MeteredHours(battery, fuel, mains, burns);

        // What is to spare costs nothing.
        void Electric(ElectricSupply supply, int hour, double wh)
        {
            if (supply != ElectricSupply.Surplus) (supply == ElectricSupply.Mains ? mains : battery)[hour] += wh;
        }
    }
}
