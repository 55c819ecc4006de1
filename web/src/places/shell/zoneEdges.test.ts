import { describe, expect, it } from "vitest";
import type { Schema } from "../../api/client";
import { rig } from "../../test/rig";
import { edgesOf, withEdge } from "./zoneEdges";

const at = (xM: number, yM: number, zM: number) => ({ xM, yM, zM });
const zone = (id: string, corner: Schema["Point3"], size: Schema["Point3"]) =>
  ({ id, name: id, kind: "garage", box: { at: corner, size }, airChangesPerHour: 1, faces: [], openings: [] }) as Schema["Zone"];
const van = {
  ...rig,
  shell: {
    ...rig.shell,
    obstacles: [
      { id: "arch", name: "arch", kind: "wheelArch", box: { at: at(1.2, 0, 0), size: at(0.6, 0.2, 0.3) } },
    ] as Schema["Obstacle"][],
    zones: [zone("garage", at(0, 0, 0), at(0.9, 2, 0.75)), zone("cupboard", at(2, 1.5, 0), at(0.8, 0.5, 0.86))],
  },
};
const edge = { axis: "xM", high: true } as const;

describe("an edge of a room", () => {
  it("catches on arches, other rooms and the body within reach, else on whole steps", () => {
    expect(withEdge(van, "garage", edge, 1.17, 0.05, 0.005)?.size.xM).toBe(1.2);
    expect(withEdge(van, "garage", edge, 1.1011, 0.05, 0.005)?.size.xM).toBe(1.1);
    expect(withEdge(van, "garage", edge, 1.98, 0.05, 0.005)?.size.xM).toBe(2);
    expect(withEdge(van, "garage", edge, 2.97, 0.05, 0.005)?.size.xM).toBe(3);
    expect(withEdge(van, "garage", { axis: "zM", high: true }, 0.87, 0.05, 0.005)?.size.zM).toBe(0.86);
  });

  it("moves alone: the other stays, and some thickness is kept", () => {
    expect(withEdge(van, "cupboard", { axis: "xM", high: false }, 2.3, 0.01, 0.005)).toEqual({
      at: at(2.3, 1.5, 0),
      size: at(0.5, 0.5, 0.86),
    });
    expect(withEdge(van, "cupboard", { axis: "xM", high: false }, 9, 0.01, 0.005)).toEqual({
      at: at(2.78, 1.5, 0),
      size: at(0.02, 0.5, 0.86),
    });
    expect(withEdge(van, "cupboard", edge, -1, 0.01, 0.005)?.size.xM).toBe(0.02);
    expect(withEdge(van, "attic", edge, 1, 0.01, 0.005)).toBeNull();
  });

  it("is one of the four that a view can tell", () => {
    expect(edgesOf("side").map((e) => e.axis)).toEqual(["xM", "xM", "zM", "zM"]);
    expect(edgesOf("plan").map((e) => e.axis)).toEqual(["xM", "xM", "yM", "yM"]);
  });
});
