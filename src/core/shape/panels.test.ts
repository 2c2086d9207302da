import { describe, expect, it } from "vitest";
import { volumeOf } from "../geometry/mesh.fixture";
import {
  assetIdOf,
  type Between,
  copyOfPieces,
  type Groove,
  type Hole,
  type Notch,
  newJob,
  type PanelEdge,
  type PanelParts,
} from "../job";
import { edited, refusal } from "../job/edit.fixture";
import { sentence } from "../kernel";
import { resultsOf } from "../pipeline.fixture";
import { letGo, readTriangles } from ".";
import { meshOf, reflected, sameVertices } from "./mesh.fixture";
import { grooveBox } from "./panel";

type BetweenParts = Omit<Between, "first" | "second"> & { readonly first: string; readonly second: string };
const between: BetweenParts = {
  first: "left",
  second: "right",
  reachFirst: "6",
  reachSecond: "5",
  runs: "width",
  distance: "800 - shelf_at - 18",
  insetStart: "20",
  insetEnd: "16",
};
/** The good faces look at one another, both widths run to the back: so the left one's length runs down. */
const left: PanelParts = {
  name: "Side",
  board: "ply",
  origin: ["0", "0", "800"],
  lengthAxis: ["0", "0", "-1"],
  faceAxis: ["1", "0", "0"],
  length: "800",
  width: "depth",
};
const right: PanelParts = {
  ...left,
  origin: ["width", "0", "0"],
  lengthAxis: ["0", "0", "1"],
  faceAxis: ["-1", "0", "0"],
};
const carcass = (more: Partial<PanelParts> = {}, shelf: Partial<BetweenParts> = {}) =>
  newJob({
    info: { code: "T", title: "Carcass" },
    keySizes: { width: { formula: "600" }, depth: { formula: "320" }, shelf_at: { formula: "300" } },
    panels: {
      left,
      right: { ...right, ...more },
      shelf: { name: "Shelf", board: "ply", between: { ...between, ...shelf } },
    },
  });
const shelfOf = (job: ReturnType<typeof carcass>) => {
  const { shape } = resultsOf(job);
  const solid = shape.panels.find(({ panel }) => panel.id === "shelf");
  return { solid, why: shape.uncomputed.find((piece) => piece.id === "shelf")?.why };
};

describe("a panel tilted about an edge", () => {
  /** 400 × 200 × 18, lying. */
  const lying = { name: "P", board: "ply", length: "400", width: "200" } as const;
  const tilted = (edge: PanelEdge, angle: string, more: Partial<PanelParts> = {}) =>
    resultsOf(
      newJob({
        info: { code: "T", title: "T" },
        keySizes: { lean: { formula: "20" } },
        panels: { p: { ...lying, ...more, tilt: { edge, angle } } },
      }),
    ).shape;
  const spans = (shape: ReturnType<typeof tilted>) =>
    ([0, 1, 2] as const).map((i) => {
      const along = (meshOf(shape, "p")?.vertices ?? []).map((vertex) => vertex[i]);
      return [Math.min(...along), Math.max(...along)].map((value) => Math.round(value * 1e6) / 1e6 + 0);
    });
  const [cos, sin] = [Math.cos(Math.PI / 6), Math.sin(Math.PI / 6)];
  const round = (value: number) => Math.round(value * 1e6) / 1e6;

  it.each([
    // By hand: the edge stays, the opposite one rises by sin 30°, the thickness leans back over the edge.
    ["front", [0, 400], [round(-18 * sin), round(200 * cos)], 200],
    ["back", [0, 400], [round(200 - 200 * cos), round(200 + 18 * sin)], 200],
    ["left", [round(-18 * sin), round(400 * cos)], [0, 200], 400],
    ["right", [round(400 - 400 * cos), round(400 + 18 * sin)], [0, 200], 400],
  ] as const)("%s: the opposite edge rises to the good face", (edge, width, depth, run) => {
    expect(spans(tilted(edge, "30"))).toEqual([width, depth, [0, round(run * sin + 18 * cos)]]);
  });

  it("by a formula, and the other way below zero", () => {
    const [, , up] = spans(tilted("front", "lean / 2"));
    expect(up?.[1]).toBeCloseTo(200 * Math.sin(Math.PI / 18) + 18 * Math.cos(Math.PI / 18), 5);
    expect(spans(tilted("front", "-30"))[2]?.[0]).toBeCloseTo(-100, 5);
    expect(tilted("front", "lean +").uncomputed[0]?.why).toMatchObject({ kind: "text", field: "tilt" });
  });

  it("mirrored it leans the mirrored way: the reflected corners", () => {
    const job = newJob({
      info: { code: "T", title: "T" },
      panels: { p: { ...lying, lengthAxis: ["0", "1", "0"], tilt: { edge: "front", angle: "25" } } },
    });
    for (const axis of [0, 1, 2] as const) {
      const copy = copyOfPieces(job, ["p"], { kind: "mirror", axis, plane: "75" }, (kind) => `new-${kind}`);
      if (!copy.ok) throw new Error(sentence(copy.problem));
      const { shape } = resultsOf(edited(copy.value, job));
      const [mesh, image] = [meshOf(shape, "p"), meshOf(shape, copy.value.panels[0]?.id ?? "")];
      if (!mesh || !image) throw new Error("both are computed");
      expect(sameVertices(reflected(mesh, axis, 75), image)).toBe(true);
    }
  });

  it("let go, it stays where it stands without a tilt of its own", () => {
    const shape = tilted("back", "35");
    const [solid] = shape.panels;
    if (!solid) throw new Error("it has a solid");
    const set = letGo(solid, "mm");
    expect(set.tilt).toBeNull();
    const job = newJob({ info: { code: "T", title: "T" }, panels: { p: { ...lying, ...(set as object) } } });
    const [stays, stood] = [meshOf(resultsOf(job).shape, "p"), meshOf(shape, "p")];
    if (!stays || !stood) throw new Error("both are computed");
    expect(sameVertices(stays, stood)).toBe(true);
  });
});

describe("a panel between two others", () => {
  it("takes the room between their faces and its reach into them, and follows them", () => {
    const job = carcass();
    // By hand: 600 − 2·18 between the faces, 6 and 5 into them; 320 less 20 and 16.
    expect(shelfOf(job).solid).toMatchObject({ length: 564 + 11, width: 284 });
    const wide = edited({ kind: "setKeySize", id: "size-width", formula: "900", variant: null }, job);
    expect(shelfOf(wide).solid?.length).toBeWithinMm(864 + 11, 1e-9);
  });

  it("stands where it says: its mesh lies within the sides at that height", () => {
    const vertices = meshOf(resultsOf(carcass()).shape, "shelf")?.vertices ?? [];
    const along = (i: 0 | 1 | 2) => vertices.map((vertex) => vertex[i]);
    const span = (i: 0 | 1 | 2) => [Math.min(...along(i)), Math.max(...along(i))];
    expect([span(0), span(1), span(2)].flat().map((value) => Math.round(value * 1e6) / 1e6)).toEqual([
      ...[18 - 6, 600 - 18 + 5],
      ...[20, 320 - 16],
      ...[300, 318],
    ]);
    expect(
      volumeOf(meshOf(resultsOf(carcass()).shape, "shelf") ?? { vertices: [], triangles: [], edges: [] }),
    ).toBeWithinMm(575 * 284 * 18, 1e-3);
  });

  it("let go, it stays where it stood", () => {
    const job = carcass();
    const { shape } = resultsOf(job);
    const solid = shape.panels.find(({ panel }) => panel.id === "shelf");
    if (!solid) throw new Error("the shelf is computed");
    const after = edited({ kind: "changePanels", ids: ["shelf"], set: letGo(solid, "mm") }, job);
    const [before, now] = [meshOf(shape, "shelf"), meshOf(resultsOf(after).shape, "shelf")];
    before?.vertices.forEach((vertex, i) => {
      const other = now?.vertices[i] ?? [0, 0, 0];
      for (const axis of [0, 1, 2] as const) expect(other[axis]).toBeWithinMm(vertex[axis], 1e-6);
    });
  });

  it.each([
    [{}, { second: "left" }, "must stand between two other panels"],
    [{}, { second: "nowhere" }, "The panel nowhere is no longer in this job"],
  ])("is refused where it cannot: %#", (_, shelf, words) => {
    const job = carcass();
    const wanted = { ...between, ...shelf } as Between;
    expect(refusal({ kind: "changePanels", ids: ["shelf"], set: { between: wanted } }, job)).toContain(words);
  });

  it.each([
    [{ faceAxis: ["-1", "0.2", "0"] }, {}, { kind: "notParallel", names: ["Side", "Side"] }],
    [{ origin: ["10", "0", "0"] }, {}, { kind: "noRoom" }],
    [{ origin: ["width", "5000", "0"] }, {}, { kind: "notFacing" }],
    [{}, { insetEnd: "400" }, { kind: "notFacing" }],
    [{ length: "nothing" }, {}, { kind: "followsFault", name: "Side" }],
    [{}, { first: "shelf2" }, { kind: "followsFault", name: "Other" }],
  ] as const)("says why it has no place: %#", (more, shelf, why) => {
    const job = carcass(more as Partial<PanelParts>, shelf as Partial<BetweenParts>);
    const looped = {
      ...job,
      panels: {
        ...job.panels,
        ...newJob({
          info: { code: "T", title: "T" },
          panels: { shelf2: { name: "Other", board: "ply", between: { ...between, first: "shelf" } } },
        }).panels,
      },
    };
    const chosen = "first" in shelf ? looped : job;
    const { shape } = resultsOf(chosen);
    expect(shape.uncomputed.find(({ id }) => id === "shelf")?.why).toMatchObject(why);
    if (chosen === looped)
      expect(shape.uncomputed.map((piece) => piece.why)).toContainEqual({
        kind: "followsLoop",
        names: ["Other", "Shelf"],
      });
  });

  it("keeps the panels that it follows from being removed", () => {
    expect(refusal({ kind: "remove", ids: ["left"] }, carcass())).toBe(
      'Panel "Shelf" follows Side; let it go first.',
    );
  });
});

const hole = (more: Partial<Hole>): Hole => ({
  id: "h",
  kind: "hole",
  face: "good",
  x: "40",
  y: "30",
  diameter: "8",
  depth: null,
  count: "1",
  step: "32",
  along: "length",
  ...more,
});
const notch = (more: Partial<Notch>): Notch => ({
  id: "n",
  kind: "notch",
  from: "front",
  distance: "0",
  width: "50",
  depth: "40",
  ...more,
});
const groove = (more: Partial<Groove>): Groove => ({
  id: "g",
  kind: "groove",
  face: "good",
  from: "front",
  distance: "20",
  width: "4",
  depth: "6",
  stopAtStart: "0",
  stopAtEnd: "0",
  ...more,
});
const worked = (work: PanelParts["work"]) =>
  newJob({
    info: { code: "T", title: "T" },
    keySizes: { pins: { formula: "5", measure: "number" } },
    panels: { p: { name: "Panel", board: "ply", length: "600", width: "300", work: work ?? [] } },
  });
const remarks = (work: PanelParts["work"]) =>
  resultsOf(worked(work)).shape.checks.map((check) => check.message);

describe("holes and notches", () => {
  it("a row of holes follows its count", () => {
    const [solid] = resultsOf(worked([hole({ count: "pins", along: "width", y: "20" })])).shape.panels;
    expect(solid?.holes.map(({ x, y }) => [x, y])).toEqual([20, 52, 84, 116, 148].map((y) => [40, y]));
  });

  it("a notch takes its room out of the solid, at a corner and in an edge", () => {
    const mesh = meshOf(
      resultsOf(worked([notch({}), notch({ id: "m", from: "right", distance: "100" })])).shape,
      "p",
    );
    if (!mesh) throw new Error("it is computed");
    expect(volumeOf(mesh)).toBeWithinMm((600 * 300 - 2 * 50 * 40) * 18, 1e-3);
  });

  it.each([
    ["hole", [hole({ diameter: "nix" })]],
    ["hole", [hole({ depth: "nix" })]],
    ["hole", [hole({ step: "nix", count: "2" })]],
    ["groove", [groove({ width: "nix" })]],
    ["groove", [groove({ stopAtEnd: "nix" })]],
    ["notch", [notch({ distance: "nix" })]],
  ] as const)("a %s with a size that cannot be computed: the panel is told with it (%#)", (what, work) => {
    const { shape } = resultsOf(worked(work));
    expect(shape.panels).toEqual([]);
    expect(shape.uncomputed.map(({ name }) => name)).toEqual(["Panel"]);
    const told = shape.checks.map((check) => check.message).join();
    expect(told).toContain(`a ${what}`);
    expect(told).toContain("uses nix, which is no key size");
  });

  // Panel 600 × 300 × 18, a groove 4 wide and 6 deep at 20 from its edge, in millimetres of its own axes; 1 is beyond a face.
  it.each([
    [{ from: "front" }, [-1, 20, 12], [601, 24, 19]],
    [{ from: "back" }, [-1, 276, 12], [601, 280, 19]],
    [{ from: "left" }, [20, -1, 12], [24, 301, 19]],
    [{ from: "right" }, [576, -1, 12], [580, 301, 19]],
    [{ from: "front", face: "other" }, [-1, 20, -1], [601, 24, 6]],
    [{ from: "front", stopAtStart: "50" }, [50, 20, 12], [601, 24, 19]],
    [{ from: "front", stopAtEnd: "70" }, [-1, 20, 12], [530, 24, 19]],
    [{ from: "left", stopAtStart: "50", stopAtEnd: "70" }, [20, 50, 12], [24, 230, 19]],
    // At the very edge it is a rebate, open there.
    [{ from: "front", distance: "0" }, [-1, -1, 12], [601, 4, 19]],
    [{ from: "back", distance: "0" }, [-1, 296, 12], [601, 301, 19]],
  ] as const)("a groove %o takes the room from %o to %o", (more, from, to) => {
    const [solid] = resultsOf(worked([groove(more)])).shape.panels;
    const [one] = solid?.grooves ?? [];
    if (!one) throw new Error("it has a groove");
    expect(grooveBox(one, [600, 300, 18])).toEqual({ from, to });
  });

  it.each([
    [{ width: "0" }, "a groove has no width or no depth"],
    [{ depth: "0" }, "a groove has no width or no depth"],
    [{ distance: "297" }, "a groove lies beyond the panel's edge"],
    [{ from: "left", distance: "597" }, "a groove lies beyond the panel's edge"],
    [{ depth: "18" }, "a groove is as deep as the panel is thick and breaks out"],
    [{ stopAtStart: "300", stopAtEnd: "300" }, "a stopped groove has no length left"],
    [{ from: "left", stopAtStart: "150", stopAtEnd: "150" }, "a stopped groove has no length left"],
  ] as const)("a groove with %o is told", (more, words) => {
    expect(remarks([groove(more)])).toContain(`Panel: ${words}.`);
  });

  it.each([
    { distance: "296" },
    { from: "left", distance: "596" },
    { depth: "17.9" },
    { stopAtStart: "300", stopAtEnd: "299" },
    { from: "left", stopAtStart: "150", stopAtEnd: "149" },
  ] as const)("a groove with %o is right", (more) => {
    expect(remarks([groove(more)])).toEqual([]);
  });

  it.each([
    [[hole({ x: "2" })], "Panel: a hole lies on or beyond the panel's edge."],
    [[hole({ depth: "18" })], "Panel: a hole is as deep as the panel is thick; let it run through."],
    [[hole({ diameter: "0" })], "Panel: a hole has no diameter or no depth."],
    [[notch({ width: "700" })], "Panel: a notch lies beyond the panel's edge."],
    [[notch({ from: "left", width: "300" })], "Panel: a notch runs right across and parts the panel."],
    [[notch({ depth: "0" })], "Panel: a notch has no size."],
    [
      [hole({ count: "2.5" })],
      "Panel cannot be computed: a row of holes: its count would be 2.5; it must be a whole number from 0 to 2,000.",
    ],
  ])("what cannot be bored or cut is told: %#", (work, words) => {
    expect(remarks(work)).toContain(words);
  });

  it.each([
    ["across the width, at the left", { from: "left", distance: "0", width: "300", depth: "50" }, true],
    ["along the front, whole length", { from: "front", distance: "0", width: "600", depth: "50" }, true],
    ["the whole width but a millimetre", { from: "left", distance: "0", width: "299", depth: "50" }, false],
    ["as deep as the panel is wide", { from: "front", distance: "100", width: "50", depth: "300" }, true],
    ["not quite as deep", { from: "front", distance: "100", width: "50", depth: "299" }, false],
    ["in a corner", { from: "front", distance: "0", width: "50", depth: "40" }, false],
    ["in the other corner", { from: "back", distance: "550", width: "50", depth: "40" }, false],
  ] as const)("a notch %s parts the panel, or does not", (_, more, parts) => {
    expect(remarks([notch(more)])).toEqual(
      parts ? ["Panel: a notch runs right across and parts the panel."] : [],
    );
  });

  it("mirrored work is the other hand, and work in the middle is none", () => {
    const handed = (work: PanelParts["work"], other: PanelParts["work"]) => {
      const job = worked(work);
      const both = { ...job, panels: { ...job.panels, ...worked(other).panels } };
      const second = worked(other).panels["p"];
      if (!second) throw new Error("there is one");
      const two = { ...both, panels: { ...job.panels, q: { ...second, id: "q" as never } } };
      return resultsOf(two).tally.rows.map((row) => row.hands);
    };
    // Blind holes with a good face: turned end for end only.
    const blind = { depth: "10" };
    expect(handed([hole(blind)], [hole({ ...blind, x: "560" })])).toEqual([{ asDrawn: 1, opposite: 1 }]);
    // Right through, the board is turned over and is the same.
    expect(handed([hole({})], [hole({ x: "560" })])).toEqual([{ asDrawn: 2, opposite: 0 }]);
    expect(handed([hole({ ...blind, x: "300" })], [hole({ ...blind, x: "300", y: "270" })])).toEqual([
      { asDrawn: 2, opposite: 0 },
    ]);
    expect(handed([notch({})], [notch({ from: "back" })])).toEqual([{ asDrawn: 2, opposite: 0 }]);
    expect(handed([hole({})], [hole({ diameter: "9" })])).toHaveLength(2);
  });
});

describe("imported shapes", () => {
  const text = (lines: readonly string[]) => new TextEncoder().encode(lines.join("\n")).buffer as ArrayBuffer;
  const triangle = ["vertex 10 10 5", "vertex 30 10 5", "vertex 10 40 25"];

  it("text and binary STL give the same triangles, the middle of their foot at the origin", () => {
    const fromText = readTriangles("a.stl", text(["solid a", ...triangle, "endsolid a"]));
    const view = new DataView(new ArrayBuffer(84 + 50));
    view.setUint32(80, 1, true);
    [10, 10, 5, 30, 10, 5, 10, 40, 25].forEach((value, i) => {
      view.setFloat32(84 + 12 + 4 * i, value, true);
    });
    const fromBinary = readTriangles("a.stl", view.buffer);
    const asset = { kind: "shape" as const, triangles: [-10, -15, 0, 10, -15, 0, -10, 15, 20] };
    expect(fromText.ok && fromText.value).toEqual({
      standIn: { kind: "shape", name: "a.stl", asset: assetIdOf(asset) },
      asset,
    });
    expect(fromBinary).toEqual(fromText);
  });

  it("of more triangles than a job takes are made coarser, which their name says", () => {
    const read = readTriangles(
      "large.stl",
      text(["solid a", ...Array.from({ length: 4_001 }, () => triangle).flat()]),
    );
    if (!read.ok) throw new Error("not read");
    const { standIn, asset } = read.value;
    // All of them lie on one another.
    expect([
      standIn.kind === "shape" && standIn.name,
      asset.kind === "shape" && asset.triangles.length,
    ]).toEqual(["large.stl, coarser", 9]);
  });

  it.each([
    ["empty.stl", text(["solid a"])],
    ["noise.stl", text(["hello"])],
    ["broken.stl", text(["solid a", "vertex 1 2 x", "vertex 0 0 0", "vertex 1 1 1"])],
    ["far.stl", text(["solid a", "vertex 1 2 1e9", "vertex 0 0 0", "vertex 1 1 1"])],
  ])("%s is refused with a sentence", (name, bytes) => {
    const read = readTriangles(name, bytes);
    expect(read.ok).toBe(false);
  });
});
