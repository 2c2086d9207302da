/** Orders and ways of made-up solids, of which a person can say what can leave and how. */
import { describe, expect, it } from "vitest";
import type { Vec3 } from "../geometry";
import { offsetsOf } from "./distances";
import { peeled } from "./peeling";
import type { Part, Unit } from "./units";

const AXES: readonly Vec3[] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];
const box = (low: Vec3, high: Vec3): Part => ({
  low,
  high,
  points: [0, 1, 2, 3, 4, 5, 6, 7].map(
    (bits): Vec3 => [bits & 1 ? high[0] : low[0], bits & 2 ? high[1] : low[1], bits & 4 ? high[2] : low[2]],
  ),
  normals: AXES,
  edges: AXES,
});
function unit(key: string, parts: readonly (readonly [Vec3, Vec3])[], like = key, bought = false): Unit {
  const corners = parts.flat();
  const edge = (pick: (...values: number[]) => number) =>
    [0, 1, 2].map((k) => pick(...corners.map((corner) => corner[k] as number))) as unknown as Vec3;
  return {
    key,
    like,
    bought,
    parts: parts.map(([low, high]) => box(low, high)),
    low: edge(Math.min),
    high: edge(Math.max),
  };
}

describe("what can leave", () => {
  it("nothing that is walled in on all sides: it is told", () => {
    const walls = unit("walls", [
      [
        [-20, -20, -20],
        [20, 20, -10],
      ],
      [
        [-20, -20, 10],
        [20, 20, 20],
      ],
      [
        [-20, -20, -10],
        [-10, 20, 10],
      ],
      [
        [10, -20, -10],
        [20, 20, 10],
      ],
      [
        [-10, -20, -10],
        [10, -10, 10],
      ],
      [
        [-10, 10, -10],
        [10, 20, 10],
      ],
    ]);
    const inside = unit("inside", [
      [
        [-10, -10, -10],
        [10, 10, 10],
      ],
    ]);
    const { removals, stuck } = peeled([walls, inside]);
    expect(removals).toEqual([]);
    expect(stuck).toHaveLength(1);
  });

  it("a tongue along its groove alone, and a lid before what lies under it", () => {
    // A groove along x in the floor's top, 10 wide, with lips over it: the tongue can leave to either end only.
    const floor = unit("floor", [
      [
        [0, 0, 0],
        [100, 100, 10],
      ],
      [
        [0, 0, 10],
        [100, 40, 20],
      ],
      [
        [0, 60, 10],
        [100, 100, 20],
      ],
      [
        [0, 0, 20],
        [100, 45, 25],
      ],
      [
        [0, 55, 20],
        [100, 100, 25],
      ],
    ]);
    const tongue = unit("tongue", [
      [
        [0, 40.2, 10.2],
        [100, 59.8, 19.8],
      ],
      [
        [0, 45.5, 19.8],
        [100, 54.5, 60],
      ],
    ]);
    const { removals, stuck } = peeled([floor, tongue]);
    expect(stuck).toEqual([]);
    const [first] = removals;
    expect(first?.units.map(({ way }) => way.map(Math.abs))).toEqual([[1, 0, 0]]);

    const well = unit("well", [
      [
        [0, 0, 0],
        [50, 50, 5],
      ],
      [
        [0, 0, 5],
        [5, 50, 40],
      ],
      [
        [45, 0, 5],
        [50, 50, 40],
      ],
      [
        [5, 0, 5],
        [45, 5, 40],
      ],
      [
        [5, 45, 5],
        [45, 50, 40],
      ],
    ]);
    const block = unit("block", [
      [
        [5, 5, 5],
        [45, 45, 40],
      ],
    ]);
    const lid = unit("lid", [
      [
        [0, 0, 40],
        [50, 50, 45],
      ],
    ]);
    const order = peeled([block, well, lid]).removals.map(({ units }) => units.map(({ key }) => key));
    expect(order).toEqual([["lid"], ["block"]]);
  });

  it("like pieces together, each its own way along one axis", () => {
    const back = unit("back", [
      [
        [0, 0, 0],
        [100, 10, 100],
      ],
    ]);
    const sides = [
      unit(
        "left",
        [
          [
            [-10, 0, 0],
            [0, 50, 100],
          ],
        ],
        "side",
      ),
      unit(
        "right",
        [
          [
            [100, 0, 0],
            [110, 50, 100],
          ],
        ],
        "side",
      ),
    ];
    const { removals } = peeled([back, ...sides]);
    expect(removals).toHaveLength(1);
    const ways = new Map(removals[0]?.units.map(({ key, way }) => [key, way]));
    expect(ways.get("left")).toEqual([-1, 0, 0]);
    expect(ways.get("right")).toEqual([1, 0, 0]);
  });

  it("pieces that share room where they stand block nothing, as that is a fault of the design", () => {
    const a = unit("a", [
      [
        [0, 0, 0],
        [100, 100, 10],
      ],
    ]);
    const b = unit("b", [
      [
        [20, 20, 5],
        [60, 60, 50],
      ],
    ]);
    expect(peeled([a, b]).stuck).toEqual([]);
  });
});

describe("distances", () => {
  it("leave a gap to all that is in the way, and are as short as that allows", () => {
    const floor = unit("floor", [
      [
        [0, 0, 0],
        [120, 120, 10],
      ],
    ]);
    const first = unit("first", [
      [
        [0, 0, 10],
        [120, 120, 20],
      ],
    ]);
    const second = unit("second", [
      [
        [0, 0, 20],
        [120, 120, 30],
      ],
    ]);
    const units = [floor, first, second];
    const { removals } = peeled(units);
    const offsets = offsetsOf(units, removals);
    // Gaps of a twelfth of 120, but of 10 at least: one stands 10 up, the next goes along with it and 10 more.
    const heights = [...offsets.values()].map(([, , z]) => Math.abs(z)).sort((a, b) => a - b);
    expect(heights).toHaveLength(2);
    expect(heights[0]).toBeCloseTo(10, 6);
    for (const [x, y] of offsets.values()) expect([x, y]).toEqual([0, 0]);
  });
});
