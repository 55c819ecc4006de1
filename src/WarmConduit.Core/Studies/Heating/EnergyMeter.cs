using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Units;

namespace WarmConduit.Core.Studies.Heating;

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

    /// <summary>Reads what a rig's circuits hold.</summary>
    public EnergyMeter(Question question) => (_rig, FluidJPerK) = (question.Rig, RigHeat.Of(question).FluidJPerK);

    /// <summary>Heat that the fluid of all circuits takes up, J/K.</summary>
    public double FluidJPerK { get; }

    /// <summary>When so much is used up, s from the start; null: not by the last hour, or nothing is said.</summary>
    public static double? EmptyS(IReadOnlyList<double> byHour, double? has)
    {
        double sum = 0;
        for (int h = 0; h < byHour.Count && has is > 0; h++)
        {
            if (sum + byHour[h] > has) return (h + ((has.Value - sum) / byHour[h])) * HourS;
            sum += byHour[h];
        }
        return null;
    }

    /// <summary>What a part does with heat.</summary>
    public static HeatRole RoleOf(Part part) =>
        part.Heats() is { StopsC: not null } ? HeatRole.Source : part.Heats().IsEngine ? HeatRole.Engine
        : part.Heats().CoilWPerK is not null ? HeatRole.Coil : HeatRole.Emitter;

    /// <summary>What a night takes. O(parts · hours).</summary>
    public MeteredHours Of(RigNight night)
    {
        var moments = night.HeatMoments();
        return Sum(night.Heat, h => h < moments.Count ? moments[h] : null, night.HeaterWh);
    }

    /// <summary>Sums it up. <paramref name="momentOf"/>: the circuits at the start of an hour, or near it; <paramref name="heaterWh"/>: what a room's heater
    /// gives by hour. O(parts · hours).</summary>
    public MeteredHours Sum(HeatCourse heat, Func<int, HeatMoment?> momentOf, Func<Zone, IReadOnlyList<double>> heaterWh)
    {
        int hours = heat.Hours;
        var (battery, fuel, mains) = (new double[hours], new double[hours], new double[hours]);
        bool burns = false;
        foreach (var (id, wh) in heat.PartWh)
        {
            var part = _rig.Parts.Find(id)!;
            var (kind, figures) = (RoleOf(part), part.Heats());
            var (starts, flowS) = (heat.Starts.GetValueOrDefault(id), heat.FlowS.GetValueOrDefault(id));
            for (int h = 0; h < hours; h++)
            {
                if (kind == HeatRole.Source)
                {
                    // It works as its load asks while its pump runs.
                    double runs = (flowS?[h] ?? 0) / HourS;
                    if (runs > 0) battery[h] += runs * HeaterCycle.Of(figures, -wh[h] / runs, FluidJPerK).ElectricWh(figures);
                    battery[h] += (starts?[h] ?? 0) * HeaterCycle.StartWh(figures);
                    if (figures.Supply is { } electric) Electric(electric, h, -wh[h]);
                    else if (figures is { FuelLPerH: { } full, PowerW: > 0 and var power }) fuel[h] -= full * wh[h] / power;
                    burns |= figures.FuelLPerH is not null;
                }
                else if (kind == HeatRole.Emitter && figures.DrawW is { } fan && Blows(figures, wh[h], InC(id, h)))
                    battery[h] += fan * (flowS?[h] ?? 0) / HourS;
            }
        }
        foreach (var (id, wh) in heat.PadWh)
            for (int h = 0; h < hours; h++) Electric(_rig.Parts.Find(id)!.Pad!.Supply, h, wh[h]);
        foreach (var (id, s) in heat.PumpS)
            for (int h = 0; h < hours; h++) battery[h] += _rig.Parts.Find(id)!.Heats().TurnsW * s[h] / HourS;
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

        // Of a pump that rests just then, nothing is known: its fans are taken to run.
        double? InC(string part, int hour)
        {
            if (momentOf(hour) is not { } moment) return null;
            for (int p = moment.Pieces.Count - 1; p >= 0; p--)
                if (moment.Pieces[p].PartId == part) return moment.Row.InC[p];
            return null;
        }

        // By its pipe, where that is warm and the room asks for it.
        static bool Blows(PartHeat heat, double wh, double? inC) => heat.FanBy switch
        {
            null or FanControl.Off => false,
            FanControl.On => true,
            _ => wh > 0 && !(inC <= heat.FanFromC),
        };

        // What is to spare costs nothing.
        void Electric(ElectricSupply supply, int hour, double wh)
        {
            if (supply != ElectricSupply.Surplus) (supply == ElectricSupply.Mains ? mains : battery)[hour] += wh;
        }
    }
}
