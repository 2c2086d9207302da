import { describe, expect, it } from "vitest";
import { newJob } from "../job";
import { resultsOf, STOCK_DATA } from "../pipeline.fixture";
import { stockroomOf } from "../stockroom";

/** A flat of 40 × 10, so that left, right, top and bottom cannot be taken for one another. */
const stock = stockroomOf({
  ...STOCK_DATA,
  sections: [
    {
      id: "bar",
      name: "Flat 40 × 10",
      shape: { kind: "flat", size: [40, 10] },
      material: "S235",
      densityKgM3: 7850,
      massKgPerM: null,
      source: "width × thickness",
      stock: [],
      kerf: 0,
      trimStart: 0,
      trimEnd: 0,
    },
  ],
});

/** The corners of the member's box across its line, as they lie in the world: [y, z] low and high. */
function lies(cardinal: number, way: 1 | -1) {
  const job = newJob({
    info: { code: "T", title: "T" },
    points: { A: ["0", "0", "0"], B: [`${way * 500}`, "0", "0"] },
    members: { m: { name: "m", from: "A", to: "B", section: "bar", cardinal } },
  });
  const member = resultsOf(job, stock).shape.members[0];
  if (!member) throw new Error("the member is computed");
  const { origin, x, y } = member.frame;
  const corners = [-1, 1].flatMap((u) =>
    [-1, 1].map((v) => [1, 2].map((i) => (origin[i] ?? 0) + u * 20 * (x[i] ?? 0) + v * 5 * (y[i] ?? 0))),
  );
  const span = (i: number) => {
    const all = corners.map((corner) => corner[i] ?? 0);
    return [Math.min(...all), Math.max(...all)].map((value) => Math.round(value * 1e6) / 1e6 + 0);
  };
  return { y: span(0), z: span(1) };
}

/**
 * The numbering of ISO 16739-1 (IFC), cardinal points: 1 bottom left to 3 bottom right, 4 to 6 at half depth, 7 to 9
 * along the top; from memory. Left and right are told here as one sees them who looks from the end of the member back to
 * its start: there the section's x points to the right and its y upwards.
 */
const NINE = [
  [1, "left", "bottom"],
  [2, "middle", "bottom"],
  [3, "right", "bottom"],
  [4, "left", "middle"],
  [5, "middle", "middle"],
  [6, "right", "middle"],
  [7, "left", "top"],
  [8, "middle", "top"],
  [9, "right", "top"],
] as const;

describe("the point of the section that lies on the line", () => {
  const across = { left: [0, 40], middle: [-20, 20], right: [-40, 0] } as const;
  const up = { bottom: [0, 10], middle: [-5, 5], top: [-10, 0] } as const;

  it.each(NINE)("cardinal point %i is %s %s", (cardinal, side, level) => {
    // Along +X the one who looks back has +Y at the right.
    expect(lies(cardinal, 1)).toEqual({ y: across[side], z: up[level] });
    // Drawn the other way round, right and left change sides and top and bottom do not.
    const [low, high] = across[side];
    expect(lies(cardinal, -1)).toEqual({ y: [0 - high, 0 - low], z: up[level] });
  });

  it("10 is the centroid, for a flat the middle", () => {
    expect(lies(10, 1)).toEqual(lies(5, 1));
  });
});
