import { describe, expect, it } from "vitest";
import { distance, toWorld } from "../geometry";
import { volumeOf } from "../geometry/mesh.fixture";
import { copyOfPieces, newJob, type OutlineCorner, type PanelParts } from "../job";
import { edited } from "../job/edit.fixture";
import { resultsOf } from "../pipeline.fixture";
import { outlinePolygon, type Shape, snapPlaces } from ".";
import { meshOf } from "./mesh.fixture";

type Edge = readonly ["left" | "right", string, "front" | "back", string, string?];
const corners = (...all: readonly Edge[]): OutlineCorner[] =>
  all.map(([fromX, x, fromY, y, radius = "0"], i) => ({ id: `c${i}`, fromX, x, fromY, y, radius }));
const TRIANGLE = corners(
  ["left", "0", "front", "0"],
  ["right", "0", "front", "0"],
  ["left", "0", "back", "0"],
);
const ROUNDED = corners(
  ["left", "0", "front", "0", "20"],
  ["right", "0", "front", "0", "20"],
  ["right", "0", "back", "0", "20"],
  ["left", "0", "back", "0", "20"],
);

const job = (outline: OutlineCorner[] | null, more: Partial<PanelParts> = {}) =>
  newJob({
    info: { code: "T", title: "Gusset" },
    keySizes: { leg: { formula: "120" } },
    panels: {
      gusset: {
        name: "Gusset",
        board: "ply",
        length: "leg",
        width: "80",
        ...(outline ? { outline } : {}),
        ...more,
      },
    },
  });
const gusset = (outline: OutlineCorner[], more: Partial<PanelParts> = {}) => {
  const { shape } = resultsOf(job(outline, more));
  return {
    solid: shape.panels[0],
    why: shape.uncomputed[0]?.why,
    remarks: shape.panels[0]?.remarks,
    shape,
  };
};

const volume = (shape: Shape) => {
  const mesh = meshOf(shape, "gusset");
  return mesh ? volumeOf(mesh) : Number.NaN;
};

describe("the outline of a panel", () => {
  it("has the area of its corners and arcs, worked out by hand", () => {
    expect(gusset(TRIANGLE).solid?.outline?.area).toBeWithinMm((120 * 80) / 2, 1e-9);
    // A rectangle less four corners, each a square less a quarter disc.
    expect(gusset(ROUNDED).solid?.outline?.area).toBeWithinMm(120 * 80 - (4 - Math.PI) * 20 ** 2, 1e-9);
    // A corner that points inwards: an L, whose hollow is rounded and so larger by that corner.
    const angle = corners(
      ["left", "0", "front", "0"],
      ["right", "0", "front", "0"],
      ["right", "0", "front", "30"],
      ["left", "30", "front", "30", "10"],
      ["left", "30", "back", "0"],
      ["left", "0", "back", "0"],
    );
    expect(gusset(angle).solid?.outline?.area).toBeWithinMm(
      120 * 30 + 30 * 50 + (1 - Math.PI / 4) * 10 ** 2,
      1e-9,
    );
  });

  it("follows the panel's size, whichever way round its corners were set", () => {
    const wide = edited({ kind: "setKeySize", id: "size-leg", formula: "200", variant: null }, job(TRIANGLE));
    expect(resultsOf(wide).shape.panels[0]?.outline?.area).toBeWithinMm((200 * 80) / 2, 1e-9);
    expect(gusset(TRIANGLE.toReversed()).solid?.outline?.area).toBeWithinMm((120 * 80) / 2, 1e-9);
  });

  it("is a solid of its area times its thickness, less its grooves", () => {
    const groove = {
      id: "g",
      kind: "groove",
      face: "good",
      from: "front",
      distance: "10",
      width: "6",
      depth: "5",
      stopAtStart: "0",
      stopAtEnd: "0",
    } as const;
    const plain = volume(gusset(TRIANGLE).shape);
    expect(plain / ((120 * 80) / 2) / 18).toBeWithinMm(1, 1e-6);
    const grooved = volume(gusset(TRIANGLE, { work: [groove] }).shape);
    // The strip from 10 to 16 above the front: as long as the triangle is wide there, on average 120·(1 − 13/80).
    expect(plain - grooved).toBeWithinMm(6 * 5 * 120 * (1 - 13 / 80), 0.5);
    // Arcs are drawn as tangents: never less than the true outline.
    const round = gusset(ROUNDED);
    const share = volume(round.shape) / 18 / (round.solid?.outline?.area ?? 1);
    // Its roundings are drawn as chords.
    expect(share).toBeGreaterThan(0.995);
    expect(share).toBeLessThan(1 + 1e-9);
  });

  it.each([
    [
      "beyond its size",
      corners(["left", "0", "front", "0"], ["left", "130", "front", "0"], ["left", "0", "back", "0"]),
      { kind: "outlineBeyond", of: "outline", corner: 2 },
    ],
    [
      "crossing itself",
      corners(
        ["left", "0", "front", "0"],
        ["right", "0", "back", "0"],
        ["right", "0", "front", "0"],
        ["left", "0", "back", "0"],
      ),
      { kind: "outlineCrosses", of: "outline" },
    ],
    [
      "on one line",
      corners(["left", "0", "front", "0"], ["left", "50", "front", "0"], ["left", "90", "front", "0"]),
      { kind: "outlineCrosses", of: "outline" },
    ],
    [
      "too round",
      corners(
        ["left", "0", "front", "0", "50"],
        ["right", "0", "front", "0", "80"],
        ["right", "0", "back", "0"],
        ["left", "0", "back", "0"],
      ),
      { kind: "cornerTooRound", of: "outline", corner: 2 },
    ],
    [
      "negative",
      corners(["left", "0", "front", "0", "-1"], ["right", "0", "front", "0"], ["left", "0", "back", "0"]),
      { kind: "cornerRadius", of: "outline", corner: 1 },
    ],
    [
      "unknown",
      corners(["left", "lag", "front", "0"], ["right", "0", "front", "0"], ["left", "0", "back", "0"]),
      { kind: "cornerText", of: "outline", corner: 1 },
    ],
  ] as const)("that is %s is told, and the panel is not computed", (_, outline, why) => {
    const found = gusset([...outline]);
    expect(found.solid).toBeUndefined();
    expect(found.why).toMatchObject(why);
  });

  it("that leaves part of its size unused, or a hole outside, is remarked on", () => {
    const small = corners(
      ["left", "0", "front", "0"],
      ["left", "100", "front", "0"],
      ["left", "0", "front", "60"],
    );
    expect(gusset(small).remarks).toEqual(["its outline takes 100 × 60 mm of its 120 × 80 mm"]);
    const hole = {
      id: "h",
      kind: "hole",
      face: "good",
      diameter: "10",
      depth: null,
      count: "1",
      step: "0",
      along: "length",
    } as const;
    expect(gusset(TRIANGLE, { work: [{ ...hole, x: "20", y: "20" }] }).remarks).toEqual([]);
    const beyond = ["a hole lies on or beyond the panel's edge"];
    expect(gusset(TRIANGLE, { work: [{ ...hole, x: "100", y: "60" }] }).remarks).toEqual(beyond);
    // 4.9 mm from the long side with a radius of 5: the distance of (60, y) from it is (80 − y − 40)·cos of its slope.
    const y = 40 - 4.9 / (120 / Math.hypot(120, 80));
    expect(gusset(TRIANGLE, { work: [{ ...hole, x: "60", y: String(y) }] }).remarks).toEqual(beyond);
  });

  it("keeps its polygon outside of the arcs, by the tolerance at most", () => {
    const outline = gusset(ROUNDED).solid?.outline;
    if (!outline) throw new Error("an outline");
    for (const [x, y] of outlinePolygon(outline, 0.1)) {
      const [dx, dy] = [Math.max(0, Math.abs(x - 60) - 40), Math.max(0, Math.abs(y - 40) - 20)];
      if (dx === 0 || dy === 0) continue;
      expect(Math.hypot(dx, dy)).toBeGreaterThan(20 - 1e-9);
      expect(Math.hypot(dx, dy)).toBeLessThan(20.1 + 1e-9);
    }
  });
});

describe("edits of a panel with an outline", () => {
  const sized = () =>
    job(
      corners(
        ["left", "0", "front", "0"],
        ["left", "leg - 20", "front", "0"],
        ["left", "0", "front", "leg/2"],
      ),
    );

  it("a key size that is renamed is renamed in its corners", () => {
    const renamed = edited({ kind: "renameKeySize", id: "size-leg", name: "side" }, sized());
    expect(renamed.panels["gusset"]?.outline?.map(({ x, y }) => [x, y])).toEqual([
      ["0", "0"],
      ["side - 20", "0"],
      ["0", "side/2"],
    ]);
    expect(resultsOf(renamed).shape.panels[0]?.outline?.area).toBeWithinMm((100 * 60) / 2, 1e-9);
  });

  it.each([0, 1, 2] as const)("its mirror image across axis %i encloses the mirrored solid", (axis) => {
    let id = 0;
    const edit = copyOfPieces(sized(), ["gusset"], { kind: "mirror", axis, plane: "300" }, () => `n${id++}`);
    if (!edit.ok) throw new Error("a mirror image");
    const { shape, tally } = resultsOf(edited(edit.value, sized()));
    const [first, second] = shape.panels;
    if (!first || !second) throw new Error("two panels");
    const corner = (solid: typeof first) =>
      (solid.outline?.corners ?? []).map(({ at: [x, y] }) => toWorld(solid.frame, [x, y, 0]));
    const flipped = corner(first).map((place) => place.map((value, i) => (i === axis ? 600 - value : value)));
    const sides = [0, 18].map((z) =>
      (second.outline?.corners ?? []).map(({ at: [x, y] }) => toWorld(second.frame, [x, y, z])),
    );
    // The mirrored face is one of the two faces of the copy.
    const near = sides.some((side) =>
      flipped.every((place) =>
        side.some((other) => distance(other, place as [number, number, number]) < 1e-6),
      ),
    );
    expect(near).toBe(true);
    expect(tally.rows.map(({ count }) => count)).toEqual([2]);
  });

  it("drawing catches on the corners of the outline, not on those of the size it is cut from", () => {
    const places = snapPlaces(sized(), resultsOf(sized()).shape).filter(
      ({ words }) => words() === "corner of Gusset",
    );
    expect(places).toHaveLength(6);
    expect(places.map(({ at }) => at)).toContainEqual([100, 0, 18]);
    expect(places.map(({ at }) => at)).not.toContainEqual([120, 0, 18]);
  });
});

describe("pieces that stand where an outline is cut away", () => {
  const strut = (outline: OutlineCorner[] | null, at: string) =>
    newJob({
      info: { code: "T", title: "Corner" },
      keySizes: { leg: { formula: "300" } },
      points: { A: [at, at, "-100"], B: [at, at, "100"] },
      members: { post: { name: "Post", from: "A", to: "B", section: "tube" } },
      panels: {
        gusset: {
          name: "Gusset",
          board: "ply",
          length: "leg",
          width: "leg",
          ...(outline ? { outline } : {}),
        },
      },
    });
  const told = (outline: OutlineCorner[] | null, at: string) =>
    resultsOf(strut(outline, at)).shape.checks.filter(({ kind }) => kind === "overlap").length;

  it("do not run into it; those that stand in what is left do", () => {
    expect(told(null, "240")).toBe(1);
    expect(told(TRIANGLE, "240")).toBe(0);
    expect(told(TRIANGLE, "100")).toBe(1);
    // Its corner at 155 − 20 reaches over the long side by a few millimetres.
    expect(told(TRIANGLE, "155")).toBe(1);
    expect(told(TRIANGLE, "175")).toBe(0);
  });
});
