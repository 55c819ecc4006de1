namespace WarmConduit.Core.Rigs;

/// <summary>The limits of a figure.</summary>
/// <param name="Least">The least allowed.</param>
/// <param name="Most">The most.</param>
/// <param name="Unit">The unit of both; empty: a number or share.</param>
public sealed record FieldLimit(double Least, double Most, string Unit);

/// <summary>Between what the figures of documents and questions lie, each once: the checkers refuse by it, and screens ask by it.</summary>
public static class FieldLimits
{
    /// <summary>All of them, by the thing that has the field and the field's name.</summary>
    public static IReadOnlyDictionary<string, FieldLimit> All { get; } = new Dictionary<string, FieldLimit>
    {
        ["autoFall.slopeDeg"] = new(0, 10, "°"),
        ["axles.frontXM"] = new(-RigCheck.FarthestM, RigCheck.FarthestM, "m"),
        ["axles.kg"] = new(0, 20_000, "kg"),
        ["axles.otherKg"] = new(0, 10_000, "kg"),
        ["axles.trackM"] = new(0.5, 3, "m"),
        ["axles.wheelbaseM"] = new(0.5, 15, "m"),
        ["brief.choices.batteryWh"] = new(0, 1e5, "Wh"),
        ["brief.choices.canL"] = new(1, 100, "L"),
        ["brief.choices.fuelL"] = new(0, 1000, "L"),
        ["brief.daysBetweenFills"] = new(0.1, 365, "days"),
        ["brief.hoursWithoutHeat"] = new(0, 24 * 365, "h"),
        ["brief.leastFall"] = new(0, 0.2, "m/m"),
        ["brief.litresPerPersonDay"] = new(0.1, 500, "L"),
        ["brief.lowestC"] = new(-60, 30, "°C"),
        ["brief.parking.breakableL"] = new(0, 10, "L"),
        ["brief.parking.outsideL"] = new(0, 10, "L"),
        ["brief.parking.slopeDeg"] = new(0, 4, "°"),
        ["brief.parking.tankShare"] = new(0, 1, ""),
        ["brief.people"] = new(1, 20, ""),
        ["brief.windMPerS"] = new(0, 60, "m/s"),
        ["edge.m"] = new(0.001, RigCheck.FarthestM, "m"),
        ["event.areaM2"] = new(0, 20, "m²"),
        ["event.atH"] = new(0, PlanEvent.MostH, "h"),
        ["event.heightM"] = new(0, 5, "m"),
        ["event.holdC"] = new(-20, 40, "°C"),
        ["event.speedMPerS"] = new(0, 60, "m/s"),
        ["event.untilH"] = new(0, PlanEvent.MostH, "h"),
        ["exchange.factor"] = new(0.02, 50, ""),
        ["face.areaM2"] = new(0, 200, "m²"),
        ["face.bridgeFraction"] = new(0, 1, ""),
        ["heater.powerW"] = new(0, 50_000, "W"),
        ["heater.setpointC"] = new(-20, 40, "°C"),
        ["layer.thicknessM"] = new(0, 1, "m"),
        ["left.glycol"] = new(0, LeftAct.MostGlycol, ""),
        ["left.outL"] = new(0, 10_000, "L"),
        ["measured.lossDeviation"] = new(0, 1, ""),
        ["measured.lossFactor"] = new(0.02, 50, ""),
        ["night.cloud"] = new(0, 1, ""),
        ["night.hours"] = new(0.5, PlanEvent.MostH, "h"),
        ["night.insideC"] = new(-40, 40, "°C"),
        ["night.outdoorC"] = new(-60, 50, "°C"),
        ["night.parked.pitchDeg"] = new(-15, 15, "°"),
        ["night.parked.rollDeg"] = new(-15, 15, "°"),
        ["night.startHour"] = new(0, 24, "h"),
        ["night.startWaterC"] = new(0, 95, "°C"),
        ["night.tankShare"] = new(0, 1, ""),
        ["night.windMPerS"] = new(0, 60, "m/s"),
        ["opening.areaM2"] = new(0, 20, "m²"),
        ["opening.heightM"] = new(0, 5, "m"),
        ["part.holdsL"] = new(0, 2000, "L"),
        ["part.lossWPerK"] = new(0, 100, "W/K"),
        ["part.massKg"] = new(0, 1000, "kg"),
        ["part.reach.screws"] = new(0, 99, ""),
        ["photo.alongM"] = new(-RigCheck.FarthestM, RigCheck.FarthestM, "m"),
        ["photo.corners"] = new(0, 1, ""),
        ["photo.heightM"] = new(0.01, RigCheck.FarthestM, "m"),
        ["photo.otherM"] = new(-RigCheck.FarthestM, RigCheck.FarthestM, "m"),
        ["photo.widthM"] = new(0.01, RigCheck.FarthestM, "m"),
        ["place.m"] = new(-RigCheck.FarthestM, RigCheck.FarthestM, "m"),
        ["port.boreM"] = new(0.001, 0.3, "m"),
        ["price.amount"] = new(0, 1e6, ""),
        ["run.clipSpacingM"] = new(0.05, 10, "m"),
        ["run.slackM"] = new(0, 5, "m"),
        ["sleeve.gapShare"] = new(0, 1, ""),
        ["sleeve.thicknessM"] = new(0, 0.3, "m"),
        ["zone.airChangesPerHour"] = new(0, 1000, "an hour"),
        ["zone.heatCapacityJPerK"] = new(1e3, 1e8, "J/K"),
    };
}
