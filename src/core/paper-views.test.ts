/** Details and cut views on the pages of a job. */
import { describe, expect, it } from "vitest";
import { verdict } from "./drawing/lines/lines.oracle";
import { seenPieces } from "./drawing/lines/shape-solids";
import { viewFrom } from "./drawing/lines/view-frame";
import { viewLines } from "./drawing/lines/view-lines";
import { cutSolid, dot, scale, type Vec3 } from "./geometry";
import { itemsOfPage, type Job, NO_ASSETS } from "./job";
import { seededRandom } from "./kernel";
import { asksOfPages } from "./paper-set";
import {
  at3,
  done,
  drawn,
  faultOf,
  type Kind,
  PAGE,
  placed,
  start,
  textsOf,
  view,
  withItems,
} from "./paper-set.fixture";
import { resultsOf, STOCK } from "./pipeline.fixture";
import { createViews } from "./views";

describe("details", () => {
  const about = at3("front", "start, long point");
  const detail = (more: Partial<Kind<"view">["from"]> = {}) =>
    view("d", {
      at: [300, 60],
      scale: 1,
      from: { kind: "detail", of: "v", about, radius: 30, letter: "X", ...more } as Kind<"view">["from"],
    });
  const job = withItems(start, view("v", { from: { kind: "named", side: "front" } }), detail());

  it("show what lies round a place of their view, larger, within a circle; the view says where", () => {
    const one = placed(job, "d");
    expect([one.at, one.box.x1 - one.box.x0, one.fault]).toEqual([[300, 60], 60, null]);
    const clip = one.items.find((item) => item.kind === "clip");
    expect(clip?.kind === "clip" && clip.items.length).toBeGreaterThan(0);
    const texts = (id: string) =>
      placed(job, id).items.flatMap((item) => (item.kind === "text" ? [item.text] : []));
    expect(texts("d")).toEqual(["X, 1:1"]);
    expect(texts("v")).toEqual(["X"]);
    // The same lines as those of the view, not drawn twice.
    const draw = createViews();
    const [whole, part] = asksOfPages(job, [PAGE], null).map((asked) =>
      draw({ job, stockroom: STOCK, assets: NO_ASSETS }, asked),
    );
    expect(part?.paths).toBe(whole?.paths);
  });

  it("follow their place, say when it is gone, and go with their view", () => {
    const wider = done(job, { kind: "setKeySize", id: "size-width", formula: "700", variant: null });
    expect(placed(wider, "d").fault).toBeNull();
    expect(faultOf(done(job, { kind: "remove", ids: ["front"] }), "d")).toEqual({
      kind: "lost",
      what: "placeOfDetail",
    });
    expect(faultOf(withItems(job, detail({ about: at3("front", "nothing") })), "d")).toEqual({
      kind: "lost",
      what: "placeOfDetail",
    });
    expect(itemsOfPage(done(job, { kind: "removePageItems", ids: ["v"] }), "p")).toEqual([]);
  });
});

describe("cut views", () => {
  const cut = (at: string, axis: "width" | "depth" | "height" = "depth") =>
    view("v", { from: { kind: "named", side: "front" }, cut: { axis, at, letter: "A" } });

  it("leave away what lies before the plane and show the faces of the cut", () => {
    // Through the middle: the front rail and both legs are gone, the two end rails and the shelves are cut.
    const job = withItems(start, cut("depth / 2"));
    const { drawn: of } = drawn(job).page.rings.get("v") ?? {};
    const pieces = of?.pieces.map(({ record }) => record) ?? [];
    expect(pieces).not.toContain("front");
    expect(pieces).toEqual(expect.arrayContaining(["back", "left", "right", "shelfLow", "shelfHigh"]));
    const cutOnes = of?.sections.map(({ piece }) => of.pieces[piece]?.record).sort();
    expect(cutOnes).toEqual(["left", "right", "shelfHigh", "shelfLow"]);
    // The section of a shelf is as wide as it is and 18 thick; of a tube 40 by 40 with its bore.
    const boxOfPiece = (record: string) => {
      const found = of?.sections.find(({ piece }) => of.pieces[piece]?.record === record);
      const [xs, ys] = [0, 1].map((k) => found?.outlines.flat().map((place) => place[k as 0 | 1]) ?? []) as [
        number[],
        number[],
      ];
      return [Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys), found?.outlines.length];
    };
    expect(boxOfPiece("shelfLow").map((one) => Number(one?.toFixed(6)))).toEqual([520, 18, 1]);
    expect(boxOfPiece("left").map((one) => Number(one?.toFixed(6)))).toEqual([40, 40, 2]);
    expect(placed(job, "v").items.some(({ layer }) => layer === "HATCHING")).toBe(true);
  });

  it("are shown where they are by a line in other views of the same thing, from where they are looked at", () => {
    const top = view("w", { from: { kind: "named", side: "top" }, at: [250, 90] });
    const linesOf = (job: Job, id: string) =>
      placed(job, id).items.flatMap((item) => (item.kind === "line" ? [[item.from, item.to]] : []));
    const lettersOf = (job: Job, id: string) =>
      placed(job, id).items.flatMap((item) => (item.kind === "text" && item.text === "A" ? [item.at] : []));
    const job = withItems(start, cut("100"), top);
    const box = placed(job, "w").box;
    const [chain] = linesOf(job, "w");
    // The depth runs up the paper of a view from above; the frame is as deep as its key size, 400 mm, at 1:5.
    const tall = box.y1 - box.y0;
    expect(chain?.map(([x]) => x).sort((a, b) => (a ?? 0) - (b ?? 0))).toEqual([box.x0 - 5, box.x1 + 5]);
    for (const [, y] of chain ?? []) expect(y).toBeCloseTo(box.y1 - (100 * tall) / 400, 6);
    // Seen from the front: letters and tails of the arrows stand on the near side.
    expect(lettersOf(job, "w")).toHaveLength(2);
    for (const [, y] of lettersOf(job, "w")) expect(y).toBeGreaterThan(chain?.[0]?.[1] ?? 0);
    const fromBehind = withItems(job, { ...cut("100"), from: { kind: "named", side: "back" } });
    for (const [, y] of lettersOf(fromBehind, "w")) expect(y).toBeLessThan(chain?.[0]?.[1] ?? 0);
    expect(textsOf(job)).toContain("A–A");
    // Not in itself, not where the plane is seen from the front or slanting, not of another thing, not without a letter.
    expect(lettersOf(job, "v")).toEqual([]);
    for (const more of [
      { from: { kind: "named", side: "back" } },
      { from: { kind: "named", side: "frontLeft" } },
      { of: { kind: "piece", record: "left" } },
    ] as const)
      expect(lettersOf(withItems(start, cut("100"), { ...top, ...more }), "w")).toEqual([]);
    const plain = { ...cut("100"), cut: { axis: "depth", at: "100", letter: null } } as const;
    expect(lettersOf(withItems(start, plain, top), "w")).toEqual([]);
    expect(lettersOf(withItems(start, cut("depth + 100"), top), "w")).toEqual([]);
  });

  it("are shown by a line through the same points in the axes of one piece", () => {
    const of = { kind: "piece", record: "shelfLow" } as const;
    const across = view("v", {
      of,
      from: { kind: "named", side: "left" },
      cut: { axis: "width", at: "130", letter: "B" },
    });
    const job = withItems(
      start,
      across,
      view("w", { of, from: { kind: "named", side: "front" }, at: [250, 90] }),
    );
    const { box, items } = placed(job, "w");
    const [chain] = items.flatMap((item) => (item.kind === "line" ? [[item.from, item.to]] : []));
    // A quarter of the 520 mm of the shelf, from its own left end.
    for (const [x] of chain ?? []) expect(x).toBeCloseTo(box.x0 + (box.x1 - box.x0) / 4, 6);
  });

  it("follow the key sizes, and tell when their place cannot be computed", () => {
    const job = withItems(start, cut("depth / 2"));
    const before = drawn(job).page.rings.get("v")?.drawn.sections;
    const deeper = done(job, { kind: "setKeySize", id: "size-depth", formula: "500", variant: null });
    expect(drawn(deeper).page.rings.get("v")?.drawn.sections).toHaveLength(before?.length ?? 0);
    expect(faultOf(withItems(start, cut("breadth / 2")), "v")).toMatchObject({ kind: "cutNotComputed" });
    expect(faultOf(withItems(start, cut("depth + 100")), "v")).toEqual({ kind: "nothingSeen" });
    expect(faultOf(withItems(start, cut("0 - 100")), "v")).toBeNull();
  });

  it("stand where the image changes and nowhere else, from square and from odd directions, by brute force", () => {
    const { shape } = resultsOf(start);
    for (const [axis, way, at2] of [
      [1, [0, -1, 0], 200],
      [0, [1, 0, 0], 300],
      [2, [0, 0, 1], 260],
      [1, [0.4, -1, 0.3], 200],
    ] as const) {
      const frame = viewFrom(way);
      const world: Vec3 = [axis === 0 ? 1 : 0, axis === 1 ? 1 : 0, axis === 2 ? 1 : 0];
      const normal: Vec3 = [dot(frame.right, world), dot(frame.up, world), dot(frame.towards, world)];
      const sign = normal[2] < 0 ? -1 : 1;
      const solids = seenPieces(shape, frame).flatMap((piece) => {
        const { origin, x, y, z } = piece.frame;
        const n = scale(normal, sign);
        const { solid } = cutSolid(
          piece.solid,
          [dot(n, x), dot(n, y), dot(n, z)],
          sign * at2 - dot(n, origin),
        );
        return solid ? [{ ...piece, solid }] : [];
      });
      const found = verdict(solids, viewLines(solids), seededRandom(4), { scans: 40, places: 250 });
      expect(found.missing).toEqual([]);
      expect(found.withoutReason).toEqual([]);
      expect(found.changes).toBeGreaterThan(20);
    }
  });
});
