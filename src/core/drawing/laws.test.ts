/** Laws of drawn layouts: what is said of a piece stands in it, offcuts are told in their own room, pages hold their blocks. */

import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { at } from "../kernel";
import { lawRuns } from "../kernel/law-runs.fixture";
import type { LaidPiece } from "../layout";
import { type BarProblem, readBarProblem } from "../layout/bars";
import { layOutNesting, readNestingProblem } from "../layout/nesting";
import { layOutSheets, readSheetProblem, verifySheets } from "../layout/sheets";
import type { LengthStyle } from "../measure";
import { resultsOf, smallFrame } from "../pipeline.fixture";
import type { RackPiece } from "../stockroom";
import {
  barDrawing,
  type DrawItem,
  nestingDrawing,
  rackLabelPages,
  sheetDrawing,
  silhouette,
  silhouetteLength,
} from ".";
import { Flow, PAGE_SIZES } from "./flow";
import { textWidth } from "./text-width";

const style: LengthStyle = { unit: "mm", format: { kind: "decimal", places: 1, trailingZeros: false } };
type Text = Extract<DrawItem, { kind: "text" }>;
type Shape = Extract<DrawItem, { kind: "polygon" }>;
const textsOf = (items: readonly DrawItem[]) => items.filter((item): item is Text => item.kind === "text");
const shapesOf = (items: readonly DrawItem[]) =>
  items.filter((item): item is Shape => item.kind === "polygon");
const boxOf = ({ points }: Shape) => {
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
  return { x0: Math.min(...xs), x1: Math.max(...xs), y0: Math.min(...ys), y1: Math.max(...ys) };
};
/** The room that a text takes, by its align. */
const roomOf = ({ at: [x, y], text, size, face, align }: Text) => {
  const width = textWidth(text, size, face);
  const x0 = align === "left" ? x : align === "centre" ? x - width / 2 : x - width;
  return { x0, x1: x0 + width, y0: y - size / 2, y1: y + size / 2 };
};
const isWithin = (inner: ReturnType<typeof roomOf>, outer: ReturnType<typeof roomOf>, slack = 1e-6) =>
  inner.x0 >= outer.x0 - slack &&
  inner.x1 <= outer.x1 + slack &&
  inner.y0 >= outer.y0 - slack &&
  inner.y1 <= outer.y1 + slack;

describe("a sheet as drawn", () => {
  const panel = fc.record({
    length: fc.integer({ min: 60, max: 900 }),
    width: fc.integer({ min: 30, max: 500 }),
    qty: fc.integer({ min: 1, max: 3 }),
    grain: fc.boolean(),
  });

  it("has every word in its own panel or offcut, each panel once, y upwards", () => {
    fc.assert(
      fc.property(
        fc.array(panel, { minLength: 1, maxLength: 5 }),
        fc.constantFrom(0, 120),
        (panels, keep) => {
          const stock = [{ length: 1800, width: 900, price: 1, grain: "length" as const }];
          const problem = readSheetProblem({ kerf: 3, trim: 10, keep, stock, panels });
          const layout = layOutSheets(problem, { seed: 1, now: () => 0, budgetMs: 20, passes: 1 });
          expect(verifySheets(problem, layout)).toBeNull();
          const pieces = panels.map(
            (_, i): LaidPiece => ({ mark: `M${i}`, name: "Panel", finished: [111, 222] }),
          );
          for (const sheet of layout.sheets) {
            const items = sheetDrawing({ sheet, problem, pieces, style }, { scale: 0.1, line: 0.1, text: 3 });
            const drawn = shapesOf(items).filter(({ pick }) => pick !== undefined);
            expect(drawn).toHaveLength(sheet.placements.length);
            sheet.placements.forEach((one, i) => {
              const box = boxOf(at(drawn, i));
              // x to the right, y upwards from the near edge of the sheet.
              expect(box.x0).toBeCloseTo(one.x / 10, 9);
              expect(box.y1).toBeCloseTo((900 - one.y) / 10, 9);
              expect(box.x1 - box.x0).toBeCloseTo(one.length / 10, 9);
              expect(box.y1 - box.y0).toBeCloseTo(one.width / 10, 9);
              const said = textsOf(items).filter(
                (text) => text.pick === at(drawn, i).pick && isWithin(roomOf(text), box),
              );
              // A panel wide and high enough for its mark has it.
              if (one.length > 60 && one.width > 35)
                expect(said.some(({ text }) => text === at(pieces, one.panel).mark)).toBe(true);
            });
            for (const text of textsOf(items)) {
              if (text.pick === undefined) continue;
              expect(
                drawn.some((shape) => shape.pick === text.pick && isWithin(roomOf(text), boxOf(shape))),
              ).toBe(true);
            }
            const grain = items.filter((item) => item.kind === "line");
            expect(grain).toHaveLength(
              2 * sheet.placements.filter(({ panel: p }) => at(panels, p).grain).length,
            );
            for (const text of textsOf(items).filter(
              ({ pick, ink }) => pick === undefined && ink === "soft",
            )) {
              const offcut = sheet.offcuts.find(({ x, y, length, width }) =>
                isWithin(
                  { ...roomOf(text), y0: text.at[1], y1: text.at[1] },
                  { x0: x / 10, x1: (x + length) / 10, y0: (900 - y - width) / 10, y1: (900 - y) / 10 },
                  0.5,
                ),
              );
              expect(offcut).toBeDefined();
              if (keep > 0)
                expect(Math.min(offcut?.length ?? 0, offcut?.width ?? 0)).toBeGreaterThanOrEqual(keep);
            }
          }
        },
      ),
      { numRuns: lawRuns(25) },
    );
  });

  it("mark over size, beside it on a narrow panel, alone on a small one; the finished size under them", () => {
    const said = (length: number, width: number) => {
      const stock = [{ length: 3000, width: 1000, price: 1 }];
      const problem = readSheetProblem({ kerf: 0, stock, panels: [{ length, width, qty: 1 }] });
      const placements = [{ panel: 0, x: 100, y: 200, length, width, rotated: false }];
      const pieces = [{ mark: "A", name: "A", finished: [length - 2, width - 1] as const }];
      const items = sheetDrawing(
        { sheet: { stock: 0, placements, offcuts: [] }, problem, pieces, style },
        { scale: 0.1, line: 0.1, text: 3 },
      );
      return textsOf(items).map(({ text, at: [x, y] }) => [
        text,
        Math.round((x - (100 + length / 2) / 10) * 100) / 100,
        Math.round((y - (800 - width / 2) / 10) * 100) / 100,
      ]);
    };
    expect(said(600, 300)).toEqual([
      ["A", 0, -1.8],
      ["600 × 300", 0, 1.8],
      ["finished 598 × 299", 0, 4.95],
    ]);
    // 7.5 high is no room for two lines: the mark, 1.5 between, and the size, side by side about the middle.
    const [mark, label] = [textWidth("A", 3, "slab"), textWidth("600 × 75", 3 * 0.85, "condensed")];
    const left = -(mark + 1.5 + label) / 2;
    expect(said(600, 75)).toEqual([
      ["A", expect.closeTo(left + mark / 2, 1), 0],
      ["600 × 75", expect.closeTo(left + mark + 1.5 + label / 2, 1), 0],
    ]);
    expect(said(60, 60)).toEqual([["A", 0, 0]]);
    expect(said(20, 20)).toEqual([]);
  });
});

describe("a bar as drawn", () => {
  const bar = (more: Partial<Parameters<typeof readBarProblem>[0]>, remainder: number) => {
    const problem: BarProblem = readBarProblem({
      kerf: 2,
      trim: { start: 10, end: 40 },
      stock: [{ length: 2000, price: 1 }],
      pieces: [{ length: 600, qty: 2 }],
      ...more,
    });
    const items = barDrawing(
      {
        bar: { stock: 0, times: 1, pieces: [0, 0], remainder, locked: [1] },
        problem,
        pieces: [{ mark: "A", name: "A" }],
        shownOf: () => null,
        style,
      },
      { scale: 0.1, depth: 10, line: 0.1, text: 3 },
    );
    return { items, offcut: textsOf(items).find(({ ink }) => ink === "soft") };
  };

  it("tells the offcut in the middle of its room, before the trim at the end", () => {
    const { items, offcut } = bar({}, 746);
    expect(offcut).toMatchObject({ text: "offcut 746", align: "centre" });
    // From 2000 − 40 − 746 = 1214 to 1960: its middle is at 1587.
    expect(offcut?.at[0]).toBeCloseTo(158.7, 9);
    expect(offcut?.at[1]).toBe(5);
    expect(boxOf(at(shapesOf(items), 0))).toEqual({ x0: 0, x1: 200, y0: 0, y1: 10 });
  });

  it("says no word of what is not worth keeping or has no room", () => {
    expect(bar({ keep: 800 }, 746).offcut).toBeUndefined();
    expect(bar({ keep: 746 }, 746).offcut?.text).toBe("offcut 746");
    // Room for the number alone.
    expect(bar({}, 90).offcut?.text).toBe("90");
    expect(bar({}, 20).offcut).toBeUndefined();
    expect(bar({}, 0).offcut).toBeUndefined();
  });

  it("marks what is locked, and each piece is picked by its mark", () => {
    const { items } = bar({}, 746);
    const pieces = shapesOf(items).filter(({ pick }) => pick === "A");
    expect(pieces.map(boxOf).map(({ x0, x1 }) => [x0, x1])).toEqual([
      [1, 61],
      [61.2, 121.2],
    ]);
    const locks = shapesOf(items).filter(({ fill }) => fill === "lock");
    expect(locks.length).toBeGreaterThan(0);
    for (const lock of locks) expect(isWithin(boxOf(lock), boxOf(at(pieces, 1)))).toBe(true);
  });
});

describe("a nesting as drawn", () => {
  const problem = (keep: number) =>
    readNestingProblem({
      gap: 4,
      margin: 10,
      keep,
      stock: [{ length: 1000, width: 500, price: 1 }],
      shapes: [
        {
          outline: [
            [0, 0],
            [300, 0],
            [0, 200],
          ],
          holes: [{ x: 60, y: 60, diameter: 20 }],
          qty: 2,
        },
      ],
    });
  const drawn = (keep: number, scale = 0.1) => {
    const one = problem(keep);
    const layout = layOutNesting(one, { seed: 1, now: () => 0, budgetMs: 20 });
    const sheet = at(layout.sheets, 0);
    const input = { sheet, problem: one, pieces: [{ mark: "G", name: "G" }], style, tint: "steel" as const };
    return { sheet, items: nestingDrawing(input, { scale, line: 0.5, text: 3 }) };
  };

  it("the offcut begins at a dashed line across the sheet, its size in its middle where there is room", () => {
    const { sheet, items } = drawn(0);
    const rest = at(sheet.offcuts, 0);
    const edge = items.find((item) => item.kind === "line" && item.stroke.dash !== undefined);
    expect(edge).toMatchObject({
      from: [expect.closeTo(rest.x / 10, 9), 0],
      to: [expect.closeTo(rest.x / 10, 9), 50],
      stroke: { ink: "soft", width: 0.3, dash: [1, 1] },
    });
    const words = textsOf(items).find(({ text }) => text.startsWith("offcut"));
    expect(words?.at).toEqual([expect.closeTo((rest.x + rest.length / 2) / 10, 9), 25]);
    expect(words?.text).toBe(`offcut ${rest.length} × ${rest.width}`);
    expect(textsOf(drawn(600).items).some(({ text }) => text.startsWith("offcut"))).toBe(false);
    expect(textsOf(drawn(0, 0.02).items).some(({ text }) => text.startsWith("offcut"))).toBe(false);
  });

  it("every outline lies on its sheet with its holes and its mark in it", () => {
    const { items } = drawn(0);
    const outlines = shapesOf(items).filter(({ pick }) => pick === "G");
    expect(outlines.length).toBeGreaterThanOrEqual(2);
    for (const shape of outlines)
      expect(isWithin(boxOf(shape), { x0: 0, x1: 100, y0: 0, y1: 50 })).toBe(true);
    expect(textsOf(items).filter(({ text }) => text === "G")).toHaveLength(2);
  });
});

describe("silhouettes", () => {
  const { tally } = resultsOf(smallFrame());

  it("are as long as the piece is cut, and picked only where they are asked to be", () => {
    for (const { shown, kind } of tally.rows) {
      const { form } = shown;
      const long =
        form.kind === "member" ? form.cutNm / 1e6 : form.kind === "panel" ? form.lengthNm / 1e6 : 0;
      expect(silhouetteLength(shown)).toBe(long);
      const plain = silhouette(shown, { scale: 0.1, depth: 12, line: 0.1 });
      expect(plain.every((item) => !("pick" in item))).toBe(true);
      if (kind === "bought") expect(plain).toEqual([]);
      else {
        const [body] = shapesOf(silhouette(shown, { scale: 0.1, depth: 12, line: 0.1, pick: "P" }));
        expect(body?.pick).toBe("P");
        if (!body) throw new Error("it has a body");
        expect(boxOf(body).x1 - boxOf(body).x0).toBeCloseTo(long / 10, 6);
        // In the middle of the depth.
        expect(boxOf(body).y0 + boxOf(body).y1).toBeCloseTo(12, 6);
      }
    }
  });
});

describe("pages", () => {
  const head = {
    info: smallFrame().info.job,
    revision: 3,
    date: "2026-11-27",
    variantName: "wide",
    shop: "Hollow Lane",
  };

  it("hold their blocks one under the other, between head and foot, and lose none", () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 5, max: 200 }), { minLength: 1, maxLength: 30 }), (heights) => {
        const flow = new Flow(PAGE_SIZES.a4);
        const full = flow.fullRoom;
        heights.forEach((height, i) => {
          const room = flow.room;
          const fresh = flow.isFresh();
          const block: DrawItem = {
            kind: "polygon",
            points: [
              [0, 0],
              [flow.width, 0],
              [flow.width, height],
              [0, height],
            ],
            stroke: null,
            fill: null,
            pick: `${i}`,
          };
          expect(flow.add(height, [block])).toBe(height > room && !fresh);
          expect(flow.isFresh()).toBe(false);
        });
        const pages = flow.pages(head);
        const seen = pages.flatMap(({ items }) => shapesOf(items));
        expect(seen.map(({ pick }) => pick)).toEqual(heights.map((_, i) => `${i}`));
        for (const { items, width, height } of pages) {
          expect([width, height]).toEqual([210, 297]);
          let below = 34;
          for (const shape of shapesOf(items)) {
            const box = boxOf(shape);
            expect(box.y0).toBeCloseTo(below, 9);
            expect([box.x0, box.x1]).toEqual([14, 196]);
            below = box.y1;
          }
          if (shapesOf(items).length > 0)
            expect(below).toBeLessThanOrEqual(34 + Math.max(full, ...heights) + 1e-9);
          const said = textsOf(items).map(({ text }) => text);
          expect(said).toEqual(
            expect.arrayContaining(["T-1", "Small frame", "Hollow Lane", "Revision 3 · 2026-11-27 · wide"]),
          );
          for (const text of textsOf(items).filter(({ align }) => align === "right"))
            expect(text.at[0]).toBe(196);
        }
        expect(textsOf(pages.at(-1)?.items ?? []).at(-1)?.text).toBe(
          `A4 · page ${pages.length} of ${pages.length}`,
        );
      }),
      { numRuns: lawRuns(40) },
    );
  });

  it("one that grows is as tall as what is on it; a batch is named in the head", () => {
    const flow = new Flow({ width: 210, height: Number.POSITIVE_INFINITY, name: "tall" });
    flow.add(500, []);
    const [page] = flow.pages({ ...head, info: { ...head.info, batch: 4 }, variantName: null });
    expect(page?.height).toBe(14 + 20 + 500 + 14 + 10);
    expect(textsOf(page?.items ?? []).map(({ text }) => text)).toContain(
      "Revision 3 · 2026-11-27 · batch of 4",
    );
    const foot = textsOf(page?.items ?? []).at(-1);
    expect(foot?.at[1]).toBe((page?.height ?? 0) - 14 + 2);
  });

  it("labels of the rack: three across and seven down, each in its own field", () => {
    const piece = (i: number, more: Partial<RackPiece> = {}): RackPiece => ({
      id: `${i}`,
      label: `R-${i}`,
      entry: "ply",
      material: "birch",
      length: 1,
      width: 1,
      place: "",
      note: "",
      from: null,
      holder: null,
      ...more,
    });
    const pages = rackLabelPages(
      Array.from({ length: 23 }, (_, i) => ({ piece: piece(i), stock: "Birch ply", size: "900 × 400" })),
    );
    expect(pages.map(({ items }) => shapesOf(items).length)).toEqual([21, 2]);
    const boxes = shapesOf(at(pages, 0).items).map(boxOf);
    expect(boxes[0]).toEqual({ x0: 11.5, x1: 72.5, y0: 16.5, y1: 52.5 });
    expect([boxes[1]?.x0, boxes[3]?.y0, boxes[20]?.y1]).toEqual([74.5, 54.5, 16.5 + 6 * 38 + 36]);
    for (const text of textsOf(at(pages, 0).items))
      expect(boxes.some((box) => isWithin(roomOf(text), box))).toBe(true);
    const where = (more: Partial<RackPiece>) =>
      textsOf(at(rackLabelPages([{ piece: piece(1, more), stock: "s", size: "z" }]), 0).items).at(-1)?.text;
    expect(where({ place: "left", note: "scratched", from: "HL-204" })).toBe(
      "left · from HL-204 · scratched",
    );
    expect([where({ note: "scratched" }), where({})]).toEqual(["scratched", ""]);
    expect(rackLabelPages([])).toHaveLength(1);
  });
});
