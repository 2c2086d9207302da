import { describe, expect, it } from "vitest";
import { frameOfFace, type Vec3 } from "../geometry";
import { standingEdges } from "./edge-words";

const standing = (along: Vec3, face: Vec3) => {
  const frame = frameOfFace([0, 0, 0], along, face);
  if (!frame) throw new Error("the axes are square");
  return standingEdges(frame);
};

describe("edges of a panel where it stands", () => {
  it("lying, they are called as they are", () => {
    const edges = ["front", "back", "left", "right"];
    expect(standing([1, 0, 0], [0, 0, 1])).toEqual(Object.fromEntries(edges.map((edge) => [edge, edge])));
  });

  it("a side that stands on its end has a top, a bottom, a front and a back", () => {
    expect(standing([0, 0, 1], [1, 0, 0])).toEqual({
      left: "bottom",
      right: "top",
      front: "back",
      back: "front",
    });
    expect(standing([0, 0, 1], [-1, 0, 0])).toEqual({
      left: "bottom",
      right: "top",
      front: "front",
      back: "back",
    });
  });

  it("a door seen from the front", () => {
    expect(standing([1, 0, 0], [0, -1, 0])).toEqual({
      left: "left",
      right: "right",
      front: "bottom",
      back: "top",
    });
  });

  it("leaning a little it keeps its words; half-way it has none but its own", () => {
    expect(standing([1, 0, 0], [0, -1, 0.3])?.back).toBe("top");
    expect(standing([1, 0, 0], [0, -1, 1])).toBeNull();
  });
});
