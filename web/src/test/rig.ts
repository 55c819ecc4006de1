import type { Schema } from "../api/client";

const at = (xM: number, yM: number, zM: number) => ({ xM, yM, zM });

/** A tap, a tee and a drain with two runs between them: the least a strip can be drawn of. */
export const rig: Schema["Rig"] = {
  formatVersion: 2,
  id: "test",
  name: "Test",
  note: "",
  brief: {
    people: 1,
    daysBetweenFills: 1,
    litresPerPersonDay: 1,
    lowestC: -5,
    windMPerS: 0,
    hoursWithoutHeat: 0,
    living: "weekends",
    school: "drain",
    leastFall: 0.02,
  },
  shell: { body: { at: at(0, 0, 0), size: at(3, 2, 2) }, obstacles: [], zones: [], keepOuts: [], access: [] },
  parts: [
    part("tap", "mixer", at(0, 0, 0.8), { cold: at(0, 0, 0) }),
    part("tee", "tee", at(2, 0, 0.4), { a: at(0, 0, 0), b: at(0.1, 0, 0) }),
    part("tank", "tank", at(2.5, 0, 0), { in: at(0, 0, 0.1) }),
  ],
  runs: [
    {
      id: "upper",
      name: "upper",
      service: "cold",
      pipe: "pex-1/2",
      from: { part: "tap", port: "cold" },
      to: { part: "tee", port: "a" },
      bends: [{ id: "b1", at: at(1, 0, 0.2) }],
      clipSpacingM: null,
    },
    {
      id: "lower",
      name: "lower",
      service: "cold",
      pipe: "pex-1/2",
      from: { part: "tank", port: "in" },
      to: { part: "tee", port: "b" },
      bends: [],
      clipSpacingM: null,
    },
  ],
  scenarios: [],
  byHand: [],
  prices: [],
};

function part(id: string, stock: string, corner: Schema["Point3"], ports: Record<string, Schema["Point3"]>): Schema["Part"] {
  return {
    id,
    name: id,
    stock,
    box: { at: corner, size: at(0.1, 0.1, 0.1) },
    ports: Object.entries(ports).map(([port, offset]) => ({ id: port, offset })),
    holdsL: null,
    lossWPerK: null,
  };
}

function run(runId: string, stations: Schema["Station"][], reversed: boolean, leadsTo: string | null): Schema["RunDrain"] {
  return {
    runId,
    boreM: 0.0123,
    lengthM: stations.at(-1)?.distanceM ?? 0,
    fullL: 0.2,
    poolL: 0,
    airlockedL: 0,
    filmL: 0,
    sagL: 0,
    staysL: 0,
    leastFall: 0,
    leastFallAt: null,
    stations,
    reversed,
    leadsTo,
    threatens: false,
    routeEnd: null,
  };
}

function station(id: string, place: Schema["Point3"], distanceM: number, more: Partial<Schema["Station"]> = {}): Schema["Station"] {
  return {
    id,
    at: place,
    distanceM,
    heightM: place.zM,
    levelM: place.zM,
    fall: null,
    direction: 1,
    wetFrom: 0,
    wetTo: 0,
    standsAtM: null,
    airlockedFrom: 0,
    airlockedTo: 0,
    ...more,
  };
}

/** What the server would say of it: the low bend holds water up to the tee. */
export const drain: Schema["DrainDownAnswer"] = {
  stays: { poolsL: 0.1, partsL: 0, tanksL: 0, airlockedL: 0, filmL: 0, byDesignL: 0, protectedL: 0, byHandL: 0, totalL: 0.1 },
  pools: [
    {
      id: "pool:upper",
      words: "Upper",
      retainedL: 0.1,
      levelM: 0.4,
      depthM: 0.2,
      lowest: { at: at(1, 0, 0.2), words: "Upper, bend 1", runId: "upper", pointId: "b1", partId: null, zoneId: null },
      crest: { at: at(2, 0, 0.4), words: "the tee", runId: null, pointId: null, partId: "tee", zoneId: null },
      shutBy: null,
      shares: [{ runId: "upper", retainedL: 0.1 }],
      parts: [],
      threatens: [],
    },
  ],
  poolCount: 1,
  airlocks: [],
  parts: [],
  drains: [],
  runs: [
    run(
      "upper",
      [
        station("from", at(0, 0, 0.8), 0, { fall: 0.5, wetFrom: 0.67, wetTo: 1, standsAtM: 0.4 }),
        station("b1", at(1, 0, 0.2), 1.2, { levelM: 0.4, fall: -0.2, wetFrom: 0, wetTo: 1, standsAtM: 0.4 }),
        station("to", at(2, 0, 0.4), 2.2),
      ],
      false,
      "lower",
    ),
    run(
      "lower",
      [station("from", at(2.5, 0, 0.1), 0, { direction: -1, fall: 0.6, wetFrom: 0.25, wetTo: 0.5 }), station("to", at(2.1, 0, 0.4), 0.5)],
      true,
      null,
    ),
  ],
};

export const night: Schema["Conditions"] = {
  outdoorC: -5,
  windMPerS: 0,
  heatOn: false,
  startWaterC: 10,
  water: "drained",
  startHour: 22,
  hours: 8,
  insideC: 18,
  cloud: 1,
  parked: { pitchDeg: 0, rollDeg: 0 },
};
