/** Cut-outs of panels: their solids, what is odd about them, what they do to twins, to mass and to what passes through. */
import { describe, expect, it } from "vitest";
import { distance, toWorld } from "../geometry";
import { volumeOf } from "../geometry/mesh.fixture";
import { copyOfPieces, newJob, type OutlineCorner, type PanelParts, type Work } from "../job";
import { edited } from "../job/edit.fixture";
import { areaOfPanel, cutOutArea } from "../layout";
import { resultsOf } from "../pipeline.fixture";
import { meshOf } from "./mesh.fixture";

type Edge = readonly ["left" | "right", string, "front" | "back", string, string?];
const cutOut = (id: string, ...all: readonly Edge[]): Work => ({
  id,
  kind: "cutOut",
  corners: all.map(
    ([fromX, x, fromY, y, radius = "0"], i): OutlineCorner => ({
      id: `${id}${i}`,
      fromX,
      x,
      fromY,
      y,
      radius,
    }),
  ),
});
/** So far from all edges of the panel. */
const inset = (by: string, radius = "0") =>
  cutOut(
    "glass",
    ["left", by, "front", by, radius],
    ["right", by, "front", by, radius],
    ["right", by, "back", by, radius],
    ["left", by, "back", by, radius],
  );
/** Neither its own mirror image nor a half turn of it. */
const TRIANGLE = cutOut(
  "t",
  ["left", "30", "front", "30"],
  ["left", "90", "front", "30"],
  ["left", "30", "front", "60"],
);

const board = (work: readonly Work[], more: Partial<PanelParts> = {}) =>
  newJob({
    info: { code: "T", title: "Front" },
    keySizes: { wide: { formula: "300" } },
    panels: {
      front: { name: "Front", board: "ply", length: "wide", width: "200", work: [...work], ...more },
    },
  });
const front = (work: readonly Work[], more: Partial<PanelParts> = {}) => {
  const results = resultsOf(board(work, more));
  return { ...results, solid: results.shape.panels[0], why: results.shape.uncomputed[0]?.why };
};

describe("a cut-out", () => {
  it("follows the size of its panel, and takes its area off mass, not off what is bought", () => {
    const { shape, tally, quantities } = front([inset("40", "10")]);
    const opening = 220 * 120 - (4 - Math.PI) * 100;
    const mesh = meshOf(shape, "front");
    const thickness = shape.panels[0]?.thickness ?? 0;
    if (!mesh) throw new Error("no picture");
    expect(volumeOf(mesh) / thickness / (300 * 200 - opening)).toBeCloseTo(1, 3);
    const form = tally.rows[0]?.shown.form;
    if (form?.kind !== "panel") throw new Error("no panel");
    expect(cutOutArea(form)).toBeWithinMm(opening, 1e-3);
    expect(areaOfPanel(form)).toBe(300 * 200);
    // Birch ply of 18 at 680 kg/m³.
    expect(quantities.massKg).toBeWithinMm((300 * 200 - opening) * 18e-9 * 680, 1e-6);
  });

  it("through the same wall twice, in a hole or beyond the edge is told, and drawn", () => {
    const told = (...work: Work[]) => front(work).solid?.remarks;
    expect(told(inset("40"))).toEqual([]);
    expect(told(inset("40"), { ...TRIANGLE, id: "u" })).toEqual(["two cut-outs overlap"]);
    expect(
      told(
        cutOut(
          "e",
          ["left", "0", "front", "20"],
          ["left", "50", "front", "20"],
          ["left", "0", "front", "60"],
        ),
      ),
    ).toEqual(["a cut-out lies on or beyond the panel's edge; make it part of the outline"]);
    const hole: Work = {
      id: "h",
      kind: "hole",
      face: "good",
      x: "45",
      y: "40",
      diameter: "8",
      depth: null,
      count: "1",
      step: "0",
      along: "length",
    };
    expect(told(TRIANGLE, hole)).toEqual(["a hole lies in a cut-out or on its edge"]);
  });

  it("that cannot be is a fault that names it", () => {
    const crossed = cutOut(
      "x",
      ["left", "10", "front", "10"],
      ["left", "60", "front", "60"],
      ["left", "60", "front", "10"],
      ["left", "10", "front", "50"],
    );
    expect(front([crossed]).why).toMatchObject({ kind: "outlineCrosses", of: "cutOut" });
    expect(front([inset("nowhere")]).why).toMatchObject({ kind: "cornerText", of: "cutOut", corner: 1 });
  });

  it("makes panels twins or hands of one another", () => {
    const mirrored = cutOut(
      "m",
      ["right", "30", "front", "30"],
      ["right", "90", "front", "30"],
      ["right", "30", "front", "60"],
    );
    const turned = cutOut(
      "r",
      ["right", "30", "back", "30"],
      ["right", "90", "back", "30"],
      ["right", "30", "back", "60"],
    );
    const rows = (second: Work, goodFace: boolean) => {
      const base = board([TRIANGLE], { goodFace });
      const panels = newJob({
        info: { code: "T", title: "T" },
        panels: {
          a: { name: "A", board: "ply", length: "300", width: "200", goodFace, work: [TRIANGLE] },
          b: { name: "B", board: "ply", length: "300", width: "200", goodFace, work: [second] },
        },
      }).panels;
      return resultsOf({ ...base, panels }).tally.rows.map(({ count, hands }) => [count, hands.opposite]);
    };
    expect(rows(turned, true)).toEqual([[2, 0]]);
    // With one good face it cannot be turned over.
    expect(rows(mirrored, true)).toEqual([[2, 1]]);
    expect(rows(mirrored, false)).toEqual([[2, 0]]);
    expect(rows(inset("30"), false)).toEqual([
      [1, 0],
      [1, 0],
    ]);
  });

  it.each([0, 1, 2] as const)("stands mirrored in the mirror image of its panel, across axis %i", (axis) => {
    const start = board([TRIANGLE]);
    let id = 0;
    const edit = copyOfPieces(start, ["front"], { kind: "mirror", axis, plane: "500" }, () => `n${id++}`);
    if (!edit.ok) throw new Error("a mirror image");
    const { shape } = resultsOf(edited(edit.value, start));
    const [first, second] = shape.panels;
    if (!first || !second) throw new Error("two panels");
    const corners = (panel: typeof first, z: number) =>
      (panel.cutOuts[0]?.corners ?? []).map(({ at: [x, y] }) => toWorld(panel.frame, [x, y, z]));
    const flipped = corners(first, 0).map((place) =>
      place.map((value, k) => (k === axis ? 1000 - value : value)),
    );
    // The mirrored face is one of the two faces of the copy.
    const near = [0, 18].some((z) =>
      flipped.every(([x = 0, y = 0, zed = 0]) =>
        corners(second, z).some((place) => distance(place, [x, y, zed]) < 1e-6),
      ),
    );
    expect(near).toBe(true);
  });

  it("has room for what passes through it", () => {
    const through = (work: readonly Work[]) => {
      const { panels } = board(work);
      const job = newJob({
        info: { code: "T", title: "T" },
        points: { P: ["150", "100", "-200"], Q: ["150", "100", "200"] },
        members: { post: { name: "Post", from: "P", to: "Q", section: "tube" } },
      });
      return resultsOf({ ...job, panels, keySizes: board(work).keySizes }).shape.checks.filter(
        ({ kind }) => kind === "overlap",
      );
    };
    expect(through([]).length).toBeGreaterThan(0);
    expect(through([inset("50")])).toEqual([]);
  });
});
