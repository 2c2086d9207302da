/** What a design tells of the places of its pieces without a number, and what it does not. */
import { describe, expect, it } from "vitest";
import { type Job, type JobParts, mitreEnd, NO_ASSETS, newJob, type PanelParts, resolveSizes } from "../job";
import { STOCK } from "../pipeline.fixture";
import { shapeJob } from "../shape";
import { changedShapes } from "./changed";
import { type HomePlacing, homePlacing, toldByDesign } from "./placing";
import { rebuilt } from "./placing.oracle";
import { verifyPlacing } from "./verify";

type Texts = readonly [string, string, string];

/** A board that lies flat (ply of 18 mm), from its lower front left corner. */
const lying = (
  name: string,
  origin: Texts,
  length: string,
  width: string,
  more: Partial<PanelParts> = {},
): PanelParts => ({
  name,
  board: "ply",
  origin,
  lengthAxis: ["1", "0", "0"],
  faceAxis: ["0", "0", "1"],
  length,
  width,
  ...more,
});
/** One that stands, its length up, its good face to the right, from its lower back left corner. */
const standing = (
  name: string,
  origin: Texts,
  length: string,
  width: string,
  more: Partial<PanelParts> = {},
): PanelParts => ({
  ...lying(name, origin, length, width, more),
  lengthAxis: ["0", "0", "1"],
  faceAxis: ["1", "0", "0"],
});

const job = (parts: Omit<JobParts, "info">): Job => newJob({ info: { code: "P", title: "P" }, ...parts });

function placed(given: Job): HomePlacing {
  const shape = shapeJob(given, resolveSizes(given, null), STOCK);
  const others = changedShapes({ job: given, variant: null, shape }, STOCK, () => shapeJob);
  const [home] = toldByDesign(given, shape, others, NO_ASSETS);
  if (!home) throw new Error("the job itself is a home");
  const placing = homePlacing(home, []);
  expect(verifyPlacing(placing)).toEqual({ movable: [], held: [] });
  return placing;
}

/** What is loose, as "record direction", in a settled order. */
const loose = (given: Job): readonly string[] => {
  const { loose: groups, bodies } = placed(given);
  return groups
    .flatMap(({ freedom, bodies: own }) => own.map((i) => `${bodies[i]?.record} ${freedom}`))
    .sort();
};

describe("what lies on something", () => {
  const stack = (x: string, keySizes: JobParts["keySizes"] = {}) =>
    job({
      keySizes,
      panels: {
        foot: lying("Foot", ["0", "0", "0"], "600", "300"),
        top: lying("Top", [x, "40", "18"], "400", "200"),
      },
    });

  it("is held in height, and loose on its face", () => {
    expect(loose(stack("30"))).toEqual(["top depth", "top width"]);
  });

  it("is held along an edge that is in line with one of the other", () => {
    expect(loose(stack("0"))).toEqual(["top depth"]);
  });

  it("is not held by edges that are in line by chance", () => {
    expect(loose(stack("inset", { inset: { formula: "0" } }))).toEqual(["top depth", "top width"]);
    expect(loose(stack("inset - inset", { inset: { formula: "5" } }))).toEqual(["top depth"]);
  });

  it("is held whole where the outlines fall on one another", () => {
    const twice = job({
      panels: {
        foot: lying("Foot", ["0", "0", "0"], "600", "300"),
        top: lying("Top", ["0", "0", "18"], "600", "300"),
      },
    });
    expect(loose(twice)).toEqual([]);
  });
});

describe("key sizes that stand for what is bought", () => {
  const shelf = (formula: string, locked = false) =>
    job({
      keySizes: { board: { formula, locked } },
      panels: {
        side: standing("Side", ["0", "300", "0"], "700", "300"),
        shelf: lying("Shelf", ["board", "0", "300"], "500", "300"),
      },
    });

  it("are not changed: a board as thick as they say meets its neighbour", () => {
    expect(loose(shelf("18"))).toEqual(["shelf height"]);
    expect(loose(shelf("18", true))).toEqual(["shelf height"]);
  });

  it("are others' where they are of another size", () => {
    const apart = job({
      keySizes: { edge: { formula: "40" } },
      panels: {
        side: standing("Side", ["22", "300", "0"], "700", "300"),
        shelf: lying("Shelf", ["edge", "0", "300"], "500", "300"),
      },
    });
    expect(loose(apart)).toEqual(["shelf height", "shelf width"]);
  });
});

describe("grooves", () => {
  it("hold what stands in them with play, across and to their floor", () => {
    const groove = {
      id: "g",
      kind: "groove",
      face: "good",
      from: "left",
      distance: "300",
      width: "18.4",
      depth: "7",
      stopAtStart: "0",
      stopAtEnd: "0",
    } as const;
    const given = job({
      panels: {
        side: standing("Side", ["0", "300", "0"], "700", "300", { work: [groove as never] }),
        shelf: lying("Shelf", ["12", "0", "300.2"], "500", "300"),
      },
    });
    expect(loose(given)).toEqual([]);
  });
});

describe("frames", () => {
  const ring = job({
    points: { A: ["0", "0", "0"], B: ["800", "0", "0"], C: ["800", "500", "0"], D: ["0", "500", "0"] },
    members: Object.fromEntries(
      (
        [
          ["ab", "A", "B", "da", "bc"],
          ["bc", "B", "C", "ab", "cd"],
          ["cd", "C", "D", "bc", "da"],
          ["da", "D", "A", "cd", "ab"],
        ] as const
      ).map(([id, from, to, before, after]) => [
        id,
        { name: id, from, to, section: "tube", start: mitreEnd(before), end: mitreEnd(after) },
      ]),
    ),
  });

  it("that are mitred need no size", () => {
    expect(placed(ring).relations.filter(({ kind }) => kind === "fits")).toHaveLength(4);
    expect(loose(ring)).toEqual([]);
  });

  it("stand on the floor with all that reaches it", () => {
    const legs = job({
      points: { A: ["0", "0", "0"], B: ["0", "0", "700"], C: ["900", "0", "0"], D: ["900", "0", "700"] },
      members: {
        left: { name: "Leg", from: "A", to: "B", section: "tube" },
        right: { name: "Stay", from: "C", to: "D", section: "lath" },
      },
    });
    expect(loose(legs)).toEqual(["right depth", "right width"]);
  });
});

describe("turned pieces", () => {
  const prop = job({
    points: { A: ["0", "0", "0"], B: ["0", "0", "900"], P: ["600", "0", "100"], Q: ["40", "0", "700"] },
    members: {
      post: { name: "Post", from: "A", to: "B", section: "tube" },
      prop: { name: "Prop", from: "P", to: "Q", section: "lath" },
    },
  });

  it("that nothing meets are loose in every direction and in their one turn", () => {
    expect(placed(prop).bodies.map(({ turns }) => turns.length)).toEqual([0, 1]);
    expect(loose(prop)).toEqual(["prop depth", "prop height", "prop turn", "prop width"]);
  });

  it("come back by true rotations from sizes that hold them, and not without one", () => {
    const start = placed(prop);
    const [post, own] = [start.bodies[0], start.bodies[1]];
    if (!post || !own) throw new Error("two pieces stand there");
    const tip = [own.middle[0] + 200, own.middle[1], own.middle[2] - 200] as const;
    const size = (
      id: string,
      at: readonly [number, number, number],
      along: readonly [number, number, number],
    ) => ({
      id,
      home: null,
      a: post.key,
      b: own.key,
      hold: { kind: "apart", atA: post.middle, atB: at, along } as const,
      length: 0,
      rounding: 0,
      brackets: false,
    });
    const sizes = [
      size("x", own.middle, [1, 0, 0]),
      size("y", own.middle, [0, 1, 0]),
      size("z", own.middle, [0, 0, 1]),
      size("tip", tip, [0, 0, 1]),
    ];
    const lengths = new Map(
      sizes.map(({ id, hold }) => [
        id,
        hold.along.reduce((sum, part, i) => sum + part * ((hold.atB[i] ?? 0) - (hold.atA[i] ?? 0)), 0),
      ]),
    );
    const told = { home: null, bodies: start.bodies, relations: start.relations };
    const whole = homePlacing(told, sizes);
    expect(whole.loose).toEqual([]);
    for (const seed of [1, 2, 3])
      expect(Math.max(...rebuilt(whole, lengths, { seed, off: 60 }))).toBeLessThan(1e-3);
    const without = homePlacing(told, sizes.slice(0, 3));
    expect(without.loose.map(({ freedom }) => freedom)).toEqual(["turn"]);
    expect(verifyPlacing(without)).toEqual({ movable: [], held: [] });
  });
});

describe("an assembly", () => {
  const given = (turn: string) =>
    job({
      panels: { foot: lying("Foot", ["0", "0", "0"], "900", "400") },
      assemblies: {
        box: {
          name: "Box",
          panels: {
            floor: lying("Floor", ["0", "0", "0"], "200", "150"),
            lid: lying("Lid", ["0", "0", "18"], "200", "100"),
          },
        },
      },
      placements: {
        boxes: {
          assembly: "box",
          at: ["50", "60", "18"],
          turn: ["0", "0", turn],
          count: "2",
          step: ["300", "0", "0"],
        },
      },
    });

  it("is one piece in its home, and proven once by itself", () => {
    const shape = shapeJob(given("0"), resolveSizes(given("0"), null), STOCK);
    const homes = toldByDesign(given("0"), shape, [], NO_ASSETS).map((told) => homePlacing(told, []));
    expect(homes.map(({ home, bodies }) => [home, bodies.length])).toEqual([
      [null, 3],
      ["box", 2],
    ]);
    expect(homes[1]?.loose).toEqual([]);
    // Like ones that stand in line are held to one another across the line.
    expect(loose(given("0"))).toEqual(["boxes depth", "boxes depth", "boxes width", "boxes width"]);
    expect(placed(given("0")).loose.find(({ freedom }) => freedom === "depth")?.bodies).toHaveLength(2);
  });

  it("that is turned may turn", () => {
    expect(loose(given("20")).filter((one) => one.endsWith("turn"))).toHaveLength(2);
  });
});

describe("the second way of solving", () => {
  it("takes no body that happens to come to rest near its place for one that is held", () => {
    // Each held but along its row: of so many some come to rest within the limit by chance, in most of the tries.
    const row = job({
      panels: Object.fromEntries(
        Array.from({ length: 400 }, (_, i) => [
          `b${i}`,
          lying(`B${i}`, [String(i * 200), "0", "0"], "150", "100"),
        ]),
      ),
    });
    const shape = shapeJob(row, resolveSizes(row, null), STOCK);
    const [told] = toldByDesign(row, shape, [], NO_ASSETS);
    if (!told) throw new Error("the job itself is a home");
    const placing = homePlacing(told, []);
    expect(placing.loose).toHaveLength(399);
    for (const seed of [1, 2, 3, 4, 5])
      expect(verifyPlacing(placing, seed)).toEqual({ movable: [], held: [] });
    // And still sees what is said wrongly.
    const wrong = { ...placing, loose: placing.loose.slice(1) };
    expect(verifyPlacing(wrong).movable).toEqual(placing.loose[0]?.bodies);
    const pair = {
      home: null,
      bodies: told.bodies.slice(0, 2),
      relations: told.relations.filter(({ a, b }) => Math.max(a, b) < 2),
    };
    const held = homePlacing(pair, [
      {
        id: "x",
        home: null,
        a: "b0",
        b: "b1",
        hold: { kind: "apart", atA: [0, 0, 0], atB: [200, 0, 0], along: [1, 0, 0] },
        length: 200,
        rounding: 0,
        brackets: false,
      },
    ]);
    expect(held.loose).toEqual([]);
    expect(verifyPlacing({ ...held, loose: [{ freedom: "width", bodies: [1] }] }).held).toEqual([1]);
  });
});
