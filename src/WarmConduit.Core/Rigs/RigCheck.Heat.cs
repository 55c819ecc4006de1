using WarmConduit.Core.Materials;

namespace WarmConduit.Core.Rigs;

/// <content>What gives heat.</content>
public static partial class RigCheck
{
    /// <summary>Most lines along which one is taped.</summary>
    public const int MaxTraces = 20;

    private static void CheckHeat(FieldChecker c, string at, PartHeat heat, Part part)
    {
        var all = part.Heats();
        c.Range($"{at}.powerW", heat.PowerW, "heat.powerW");
        c.Range($"{at}.leastW", heat.LeastW, "heat.powerW");
        c.Range($"{at}.startsC", heat.StartsC, "heat.fluidC");
        c.Range($"{at}.stopsC", heat.StopsC, "heat.fluidC");
        c.Range($"{at}.fuelLPerH", heat.FuelLPerH, "heat.fuelLPerH");
        c.Range($"{at}.drawW", heat.DrawW, "heat.drawW");
        c.Range($"{at}.startW", heat.StartW, "heat.drawW");
        c.Range($"{at}.startS", heat.StartS, "heat.s");
        c.Range($"{at}.restS", heat.RestS, "heat.s");
        c.Range($"{at}.leastRunS", heat.LeastRunS, "heat.s");
        c.Range($"{at}.pumpW", heat.PumpW, "heat.drawW");
        c.Range($"{at}.coilWPerK", heat.CoilWPerK, "heat.coilWPerK");
        c.Range($"{at}.ratedW", heat.RatedW, "heat.powerW");
        c.Range($"{at}.ratedK", heat.RatedK, "heat.ratedK");
        c.Range($"{at}.fanFromC", heat.FanFromC, "heat.fluidC");
        c.Range($"{at}.stillShare", heat.StillShare, "heat.stillShare");
        c.Range($"{at}.holdC", heat.HoldC, "heat.holdC");
        c.Range($"{at}.runsC", heat.RunsC, "heat.fluidC");
        c.Range($"{at}.coolsS", heat.CoolsS, "heat.coolsS");
        if (heat.Supply is { } supply && !Enum.IsDefined(supply)) c.Add($"{at}.supply", "this is not known");
        if (heat.Fan is { } fan && !Enum.IsDefined(fan)) c.Add($"{at}.fan", "this is not known");
        if (all.StartsC >= all.StopsC) c.Add($"{at}.startsC", "it must start at a lower temperature than it stops at");
        if (all.LeastW > all.PowerW) c.Add($"{at}.leastW", "its lowest stage cannot give more than all of it");
        if (heat.Switch is not { } by) return;
        if (!part.IsPump()) c.Add($"{at}.switch", "only a pump is switched by a timer or a button");
        CheckSwitch(c, $"{at}.switch", by);
    }

    private static void CheckSwitch(FieldChecker c, string at, PumpSwitch by)
    {
        if (!Enum.IsDefined(by.Kind)) c.Add($"{at}.kind", "this is not known");
        c.Range($"{at}.forS", by.ForS, "pump.forS");
        c.Range($"{at}.everyS", by.EveryS, "pump.everyS");
        if (by.Times is { } times)
        {
            c.Count($"{at}.times", times.Count, 1, PumpSwitch.MostTimes);
            for (int t = 0; t < Math.Min(times.Count, PumpSwitch.MostTimes); t++)
            {
                c.Range($"{at}.times[{t}].fromHour", times[t].FromHour, "pump.hour");
                c.Range($"{at}.times[{t}].untilHour", times[t].UntilHour, "pump.hour");
            }
        }
        if (by.Kind == PumpSwitchKind.Button)
        {
            if (by.ForS is null) c.Add($"{at}.forS", "how long each press runs it belongs here");
            if (by.EveryS is not null) c.Add($"{at}.everyS", "a button is pressed by hand");
            if (by.Times is not null) c.Add($"{at}.times", "a button has no times of its own");
        }
        else if (by.ForS is null != by.EveryS is null) c.Add(by.ForS is null ? $"{at}.forS" : $"{at}.everyS", "how long and how often belong together");
        else if (by.EveryS <= by.ForS) c.Add($"{at}.everyS", "it must be longer than it runs at a time");
    }

    private static void CheckPad(FieldChecker c, string at, Pad pad, Part part)
    {
        c.Range($"{at}.powerW", pad.PowerW, "pad.powerW");
        c.Range($"{at}.onC", pad.OnC, "pad.onC");
        c.Range($"{at}.offC", pad.OffC, "pad.offC");
        c.Range($"{at}.areaM2", pad.AreaM2, "pad.areaM2");
        if (!Enum.IsDefined(pad.Supply)) c.Add($"{at}.supply", "this is not known");
        if (pad.OffC <= pad.OnC) c.Add($"{at}.offC", "it must go off at a higher temperature than it goes on");
        if (pad.Side is { } side)
        {
            if (!Enum.IsDefined(side)) c.Add($"{at}.side", "this is not known");
            else if (part.TakesElement()) c.Add($"{at}.side", "an element lies in the water");
            else if (side == Facing.Up) c.Add($"{at}.side", "on top there is air over the water: a pad there warms none, and melts what it lies on");
        }
        if (pad.Sensor is not { } sensor) return;
        if (!Enum.IsDefined(sensor.Kind)) c.Add($"{at}.sensor.kind", "this is not known");
        if (part.TakesElement()) c.Add($"{at}.sensor", "the thermostat of an element lies in its water");
        if (sensor.Kind == PadSensorKind.Part ? sensor.PartId is null || sensor.PartId == part.Id : sensor.PartId is not null)
            c.Add($"{at}.sensor.partId", sensor.Kind == PadSensorKind.Part ? "which other part it sits on belongs here" : "it sits on no other part");
    }

    private static void CheckFloor(FieldChecker c, string at, FloorLoop floor, Run run)
    {
        if (run.Service != Service.Coolant) c.Add(at, "a floor loop carries heating fluid");
        if (run.Traces is not null) c.Add(at, "a floor loop is taped to nothing");
        CheckSleeve(c, $"{at}.cover", floor.Cover);
        CheckSleeve(c, $"{at}.below", floor.Below);
    }

    private static void CheckTraces(FieldChecker c, int index, Run run, Rig rig)
    {
        if (run.Traces is not { } traces) return;
        string at = $"runs[{index}].traces";
        c.Count(at, traces.Count, 1, MaxTraces);
        c.Unique(at, traces);
        if (run.Service != Service.Coolant) c.Add(at, "a trace line carries heating fluid");
        for (int t = 0; t < Math.Min(traces.Count, MaxTraces); t++)
        {
            if (!Enum.IsDefined(traces[t].Kind)) c.Add($"{at}[{t}].kind", "this is not known");
            if (rig.Runs.Find(traces[t].Id) is not { } along) c.Add($"{at}[{t}].id", $"there is no run '{traces[t].Id}'");
            else if (along.Service == Service.Coolant) c.Add($"{at}[{t}].id", "a trace is taped along water, not along heating fluid");
        }
    }
}
