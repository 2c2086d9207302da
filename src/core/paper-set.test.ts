/** Pages of a job: what stands on them follows the design, and what cannot be shown is told. */
import * as v from "valibot";
import { describe, expect, it } from "vitest";
import { loadLinearSolver } from "@/engines/linear-solver";
import { type DrawnView, flatPage, newBalloons, overallSizes } from "./drawing";
import { verdict } from "./drawing/lines/lines.oracle";
import { seenPieces } from "./drawing/lines/shape-solids";
import { viewFrom } from "./drawing/lines/view-frame";
import { viewLines } from "./drawing/lines/view-lines";
import { cutSolid, dot, scale, toWorld, type Vec3 } from "./geometry";
import {
  type Assets,
  assetIdOf,
  assetsOf,
  type Edit,
  EditSchema,
  itemsOfPage,
  type Job,
  NO_ASSETS,
  type Page,
  type PageItem,
  plainPage,
  plainView,
  withEdit,
} from "./job";
import { at, seededRandom, sentence } from "./kernel";
import { type SavedLayout, savedLayout } from "./layout";
import { layOutBars } from "./layout/bars";
import { asksOfPages, createPageDrawing } from "./paper-set";
import { resultsOf, STOCK, smallFrame } from "./pipeline.fixture";
import { featuresOf } from "./shape";
import { createViews } from "./views";

const PAGE: Page = plainPage({
  id: "p" as Page["id"],
  heading: "Frame",
  scale: 0.2,
});
type Kind<K extends PageItem["kind"]> = Extract<PageItem, { kind: K }>;
const view = (id: string, more: Partial<Kind<"view">> = {}): Kind<"view"> =>
  plainView({
    id: id as PageItem["id"],
    page: "p",
    at: [120, 90],
    from: { kind: "named", side: "frontLeft" },
    ...more,
  });
const list = (more: Partial<Kind<"list">> = {}): Kind<"list"> => ({
  id: "list" as PageItem["id"],
  page: "p",
  kind: "list",
  at: [410, 250],
  list: { kind: "cut" },
  corner: "bottomRight",
  width: 170,
  height: null,
  silhouettes: false,
  ...more,
});
const callout = (pattern: string): Kind<"callout"> => ({
  id: "call" as PageItem["id"],
  page: "p",
  kind: "callout",
  view: "v",
  piece: { record: "front", way: null },
  pattern,
  at: [60, -50],
  letters: 3.5,
});

function done(job: Job, ...edits: Edit[]): Job {
  return edits.reduce<Job>((one, edit) => {
    const next = withEdit(one, edit);
    if (!next.ok) throw new Error(sentence(next.problem));
    return next.value;
  }, job);
}
const withItems = (job: Job, ...items: PageItem[]) => done(job, { kind: "setPageItems", items });
const start = done(smallFrame(), { kind: "setPages", pages: [PAGE] });

function drawn(job: Job, layouts: readonly SavedLayout[] = [], assets: Assets = NO_ASSETS, allParts = false) {
  const results = resultsOf(job);
  const draw = createViews();
  const views = new Map<string, DrawnView>(
    asksOfPages(job, [PAGE], null, allParts).map((asked) => [
      asked.id,
      draw({ job, stockroom: STOCK, assets: NO_ASSETS }, asked),
    ]),
  );
  const head = {
    info: job.info.job,
    revision: 7,
    date: "2026-11-27",
    variantName: null,
    shop: "Hollow Lane Works",
  };
  const page = createPageDrawing()(at(Object.values(job.pages), 0), {
    job,
    results,
    stockroom: STOCK,
    views,
    layouts,
    assets,
    head,
  });
  return { page, results };
}
const placed = (job: Job, id: string) => {
  const found = drawn(job).page.placed.find(({ item }) => item.id === id);
  if (!found) throw new Error(`${id} is on the page`);
  return found;
};
const textsOf = (job: Job) =>
  flatPage(drawn(job).page).items.flatMap((item) => (item.kind === "text" ? [item.text] : []));
const faultOf = (job: Job, id: string) => placed(job, id).fault;

function withBalloons(job: Job): Job {
  const { page, results } = drawn(job, [], NO_ASSETS, true);
  const ring = page.rings.get("v");
  if (!ring) throw new Error("the view is there");
  let count = 0;
  const there = itemsOfPage(job, "p").flatMap((item) => (item.kind === "balloon" ? [item] : []));
  const items = newBalloons(
    { page: "p", view: "v" },
    results.tally.rows,
    there,
    ring,
    () => `b${count++}` as never,
  );
  return withItems(job, ...items);
}

describe("a page", () => {
  it("has its title block filled from the job, the shop and the page (ISO 7200)", () => {
    const texts = textsOf(start);
    for (const text of [
      "Hollow Lane Works",
      "T-1",
      "Small frame",
      "Frame",
      "7",
      "1:5",
      "1 of 1",
      "2026-11-27",
    ])
      expect(texts).toContain(text);
    expect(textsOf(done(start, { kind: "setPages", pages: [{ ...PAGE, titleBlock: false }] }))).toEqual([]);
  });

  it("shows a view to scale: an edge is as long on paper as it is, times the scale", () => {
    const { box } = placed(withItems(start, view("v", { from: { kind: "named", side: "front" } })), "v");
    expect(box.x1 - box.x0).toBeCloseTo(600 * 0.2, 6);
    expect(box.y1 - box.y0).toBeCloseTo((450 + 20) * 0.2, 6);
  });

  it("follows the design, and keeps the lines of views that an edit does not touch", () => {
    const job = withItems(start, view("v"), view("shelf", { of: { kind: "piece", record: "shelfLow" } }));
    const draw = createViews();
    const look = (one: Job) =>
      asksOfPages(one, [PAGE], null).map((asked) =>
        draw({ job: one, stockroom: STOCK, assets: NO_ASSETS }, asked),
      );
    const [whole, shelf] = look(job);
    const moved = done(job, { kind: "changePoint", id: "E", set: { at: ["20", "20", "-30"] } });
    const [after, same] = look(moved);
    expect(same).toBe(shelf);
    expect(after).not.toBe(whole);
    const [again] = look(moved);
    expect(again).toBe(after);
  });

  it("shows one piece in its own axes, lying along the page, wherever it stands", () => {
    const leg = view("v", {
      of: { kind: "piece", record: "legLeft" },
      from: { kind: "named", side: "front" },
    });
    const { box } = placed(withItems(start, leg), "v");
    expect(box.x1 - box.x0).toBeCloseTo(430 * 0.2, 6);
    expect(box.y1 - box.y0).toBeCloseTo(40 * 0.2, 6);
    const shelf = view("v", {
      of: { kind: "piece", record: "shelfLow" },
      from: { kind: "named", side: "front" },
    });
    const flat = placed(withItems(start, shelf), "v").box;
    expect(flat.x1 - flat.x0).toBeCloseTo(520 * 0.2, 6);
    expect(flat.y1 - flat.y0).toBeCloseTo(320 * 0.2, 6);
  });

  it("keeps the corner of a list, and goes on beside where it may grow no taller", () => {
    const low = placed(withItems(start, list()), "list");
    expect([low.box.x1, low.box.y1]).toEqual([0, 0]);
    const split = placed(withItems(start, list({ height: 30 })), "list");
    expect(split.box.y1 - split.box.y0).toBeLessThan(low.box.y1 - low.box.y0);
    expect(split.box.x0).toBeLessThan(low.box.x0);
    expect(split.box.x1).toBe(0);
    // Nothing of it is lost on the way.
    const words = (one: typeof low) => one.items.flatMap((item) => (item.kind === "text" ? [item.text] : []));
    for (const text of words(low)) expect(words(split)).toContain(text);
  });

  it("knows the records of the rows of a list, each where it stands", () => {
    const one = placed(withItems(start, list({ height: 40 })), "list");
    const rows = one.rows ?? [];
    expect(rows.flatMap(({ records }) => records).sort()).toEqual(
      [...Object.keys(start.members), ...Object.keys(start.panels)].sort(),
    );
    for (const { box, records } of rows) {
      expect(
        box.x0 >= one.box.x0 && box.x1 <= one.box.x1 && box.y0 >= one.box.y0 && box.y1 <= one.box.y1,
      ).toBe(true);
      const inside = one.items.flatMap((item) =>
        item.kind === "text" &&
        item.at[1] > box.y0 &&
        item.at[1] < box.y1 &&
        item.at[0] >= box.x0 &&
        item.at[0] <= box.x1
          ? [item.text]
          : [],
      );
      const name = start.members[records[0] ?? ""]?.name ?? start.panels[records[0] ?? ""]?.name;
      expect(inside).toContain(name);
    }
  });

  it("writes callouts by patterns over columns, and tells a name that is none", () => {
    const job = withItems(start, view("v"));
    expect(textsOf(withItems(job, callout("{mark}: {Name}\ncut {cut length}")))).toEqual(
      expect.arrayContaining(["A: Rail", "cut 600"]),
    );
    expect(faultOf(withItems(job, callout("{colour}")), "call")).toContain(
      "names {colour}, which is no column",
    );
  });
});

describe("balloons", () => {
  const job = withBalloons(withItems(start, view("v"), list()));
  const balloons = (one: Job) => itemsOfPage(one, "p").filter((item) => item.kind === "balloon");

  it("are placed once for each row that is seen, and asked for again nothing is added", () => {
    const { results } = drawn(job);
    const isMade = (id: string) => id in job.members || id in job.panels;
    const rows = results.tally.rows.filter(({ pieces }) => pieces.some(({ id }) => isMade(id)));
    expect(balloons(job)).toHaveLength(rows.length);
    const texts = textsOf(job);
    for (const { mark } of rows) expect(texts).toContain(mark);
    for (const item of balloons(job)) expect(faultOf(job, item.id)).toBeNull();
    const there = new Set(
      balloons(job).flatMap((item) =>
        item.kind === "balloon" ? item.pieces.map(({ record }) => record) : [],
      ),
    );
    const without = results.tally.rows.filter(({ pieces }) => !pieces.some(({ id }) => there.has(id)));
    expect(without.every(({ pieces }) => !pieces.some(({ id }) => isMade(id)))).toBe(true);
  });

  it("stand clear of lists, other views and the border", () => {
    const room = placed(job, "list");
    for (const { id } of balloons(job)) {
      const { at: place, box } = placed(job, id);
      const [x0, y0, x1, y1] = [place[0] + box.x0, place[1] + box.y0, place[0] + box.x1, place[1] + box.y1];
      expect(x0 >= 20 && y0 >= 10 && x1 <= 410 && y1 <= 287).toBe(true);
      const overlaps =
        x1 > room.at[0] + room.box.x0 && x0 < room.at[0] && y1 > room.at[1] + room.box.y0 && y0 < room.at[1];
      expect(overlaps).toBe(false);
    }
  });

  it("tell when their piece is not seen or gone, and stay", () => {
    const leg = balloons(job).find(
      (item) => item.kind === "balloon" && item.pieces[0]?.record === "legRight",
    );
    const id = leg?.id ?? "";
    const both = ["legLeft", "legRight"];
    const hidden = withItems(job, view("v", { hidden: both }));
    const mine = balloons(job).find(
      (item) => item.kind === "balloon" && both.includes(item.pieces[0]?.record ?? ""),
    );
    expect(faultOf(hidden, mine?.id ?? id)).toContain("is not seen in this view");
    const removed = done(job, { kind: "remove", ids: both });
    expect(faultOf(removed, mine?.id ?? id)).toContain("is gone");
  });
});

const size = (id: string, more: Partial<Kind<"size">>): Kind<"size"> => ({
  id: id as PageItem["id"],
  page: "p",
  kind: "size",
  view: "v",
  measure: "horizontal",
  from: { record: "left", way: null, place: "start, corner 1" },
  to: { record: "right", way: null, place: "start, corner 1" },
  side: "bottom",
  out: 10,
  typed: null,
  brackets: false,
  ...more,
});
const at3 = (record: string, place: string) => ({ record, way: null, place });

describe("sizes", () => {
  const front = view("v", { from: { kind: "named", side: "front" } });
  const textOf = (job: Job, id: string) =>
    placed(job, id).items.flatMap((item) => (item.kind === "text" ? [item.text] : []));
  const ends = {
    // The long points of the mitred front rail, over all, and the feet of its legs.
    from: at3("front", "start, long point"),
    to: at3("front", "end, long point"),
  };

  it("say what is measured in the design, and follow it", () => {
    const job = withItems(
      start,
      front,
      size("width", ends),
      size("height", {
        measure: "vertical",
        from: at3("legLeft", "start, axis"),
        to: at3("shelfLow", "other face, front left"),
        side: "left",
      }),
      size("leg", {
        measure: "along",
        from: at3("legLeft", "start, axis"),
        to: at3("legLeft", "end, axis"),
        side: "own",
      }),
    );
    expect([textOf(job, "width"), textOf(job, "height"), textOf(job, "leg")]).toEqual([
      ["600"],
      ["100"],
      ["430"],
    ]);
    const wider = done(job, { kind: "setKeySize", id: "size-width", formula: "725", variant: null });
    expect(textOf(wider, "width")).toEqual(["725"]);
  });

  it("of pairs of places are as far apart as the places of the solids are, by themselves", () => {
    const { shape } = resultsOf(start);
    const all = [
      ...shape.members.map(({ member }) => member.id),
      ...shape.panels.map(({ panel }) => panel.id),
    ];
    const random = seededRandom(3);
    const pick = () => {
      const record = at(all, random.below(all.length));
      const found = featuresOf(shape, record);
      if (!found) throw new Error("it stands somewhere");
      const [name, local] = at([...found.places], random.below(found.places.size));
      return { feature: at3(record, name), world: toWorld(found.frame, local) };
    };
    for (let i = 0; i < 15; i++) {
      const [a, b] = [pick(), pick()];
      // From the front width runs right and height up; what lies behind one another falls together.
      const apart = Math.abs(a.world[0] - b.world[0]);
      const job = withItems(start, front, size("one", { from: a.feature, to: b.feature }));
      const one = placed(job, "one");
      if (apart < 0.01) expect(one.fault).toContain("fall together");
      else {
        const text = one.items.flatMap((item) => (item.kind === "text" ? [item.text] : []))[0] ?? "";
        expect(Number(text.replace("≈", ""))).toBeCloseTo(apart, 1);
      }
    }
  });

  it("of fractions stand with the fraction stacked, those typed over carry an asterisk, references brackets", () => {
    const axes = { from: at3("legLeft", "start, axis"), to: at3("legRight", "start, axis") };
    const inch = done(start, {
      kind: "changeInfo",
      set: { format: { kind: "fraction", denominator: 16 } },
    });
    const job = withItems(
      { ...inch, info: { job: { ...inch.info.job, unit: "in" } } },
      front,
      size("one", axes),
    );
    // 560 in between the axes, as the formulas of that job say now; three quarters more have a fraction.
    expect(textOf(job, "one").join("|")).not.toContain("/");
    const half = done(job, { kind: "setKeySize", id: "size-width", formula: "620 3/4", variant: null });
    expect(textOf(half, "one")).toEqual(["580", "3", "4"]);
    expect(textOf(withItems(job, size("one", { ...ends, typed: "about 600" })), "one")).toEqual([
      "about 600 *",
    ]);
    expect(textOf(withItems(start, front, size("one", { ...ends, brackets: true })), "one")).toEqual([
      "(600)",
    ]);
  });

  it("of angles and holes read what is there", () => {
    const drilled = smallFrame({
      members: { brace: { name: "Brace", from: "E", to: "B", section: "lath" } },
    });
    const job = withItems(
      done(drilled, { kind: "setPages", pages: [PAGE] }),
      front,
      size("one", {
        measure: "angle",
        from: at3("legLeft", "axis"),
        to: at3("brace", "axis"),
        side: "own",
        out: 20,
      }),
    );
    // 560 wide, 450 high between the points: the brace leans by atan(560 / 450) from the leg.
    expect(textOf(job, "one")).toEqual([`${((Math.atan(560 / 450) * 180) / Math.PI).toFixed(2)}°`]);
    expect(faultOf(withItems(job, size("one", { measure: "diameter", ...ends })), "one")).toContain(
      "wants a hole",
    );
    expect(faultOf(withItems(job, size("one", { measure: "radius", ...ends, to: null })), "one")).toContain(
      "wants a rounded corner",
    );
  });

  it("that have lost what they measure stay and say so, also in a view at an angle", () => {
    const job = withItems(start, front, size("one", ends));
    const gone = done(job, { kind: "remove", ids: ["front"] });
    expect(faultOf(gone, "one")).toContain("pick again");
    expect(textOf(gone, "one")).toEqual(["lost: pick again"]);
    expect(faultOf(withItems(job, view("v")), "one")).toContain("seen at an angle");
    const same = size("one", { from: ends.from, to: ends.from });
    expect(faultOf(withItems(job, same), "one")).toContain("fall together");
  });

  it("over all are as large as the view, in rows beyond those that are there", () => {
    const job = withItems(start, front, size("one", { ...ends, out: 10 }));
    const { page, results } = drawn(job);
    const [asked, ring] = [at(asksOfPages(job, [PAGE], null), 0), page.rings.get("v")];
    if (!ring) throw new Error("the view is there");
    const ground = { shape: results.shape, asked, assets: NO_ASSETS, drawn: ring.drawn, place: ring.place };
    const there = itemsOfPage(job, "p").flatMap((item) => (item.kind === "size" ? [item] : []));
    const made = overallSizes(ground, there);
    expect(made.map(({ measure, side, out }) => [measure, side, out])).toEqual([
      ["horizontal", "bottom", 17],
      ["vertical", "left", 10],
    ]);
    const with2 = withItems(job, ...made.map((one, i) => size(`new${i}`, one)));
    expect([textOf(with2, "new0"), textOf(with2, "new1")]).toEqual([["600"], ["470"]]);
  });
});

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
    expect(faultOf(done(job, { kind: "remove", ids: ["front"] }), "d")).toContain("is gone");
    expect(faultOf(withItems(job, detail({ about: at3("front", "nothing") })), "d")).toContain("is gone");
    expect(itemsOfPage(done(job, { kind: "removePageItems", ids: ["v"] }), "p")).toEqual([]);
  });
});

describe("cut views", () => {
  const cut = (at: string, axis: "width" | "depth" | "height" = "depth") =>
    view("v", { from: { kind: "named", side: "front" }, cut: { axis, at } });

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

  it("follow the key sizes, and tell when their place cannot be computed", () => {
    const job = withItems(start, cut("depth / 2"));
    const before = drawn(job).page.rings.get("v")?.drawn.sections;
    const deeper = done(job, { kind: "setKeySize", id: "size-depth", formula: "500", variant: null });
    expect(drawn(deeper).page.rings.get("v")?.drawn.sections).toHaveLength(before?.length ?? 0);
    expect(faultOf(withItems(start, cut("breadth / 2")), "v")).toContain("cannot be computed");
    expect(faultOf(withItems(start, cut("depth + 100")), "v")).toContain("cut away");
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

describe("layouts on pages", () => {
  const { tasks } = resultsOf(start);
  const tube = tasks.find(({ kind }) => kind === "bars");
  const laid = (id: string) => withItems(start, list({ list: { kind: "layout", task: id }, height: 120 }));

  it("are those of the shop papers, with the cutting order, or say that there is none yet", async () => {
    if (tube?.kind !== "bars") throw new Error("there is tube to be laid out");
    const job = laid(tube.id);
    const texts = (layouts: readonly SavedLayout[]) =>
      flatPage(drawn(job, layouts).page).items.flatMap((item) => (item.kind === "text" ? [item.text] : []));
    expect(texts([]).join(" ")).toContain("No layout yet");
    const now = () => 0;
    const layout = layOutBars(tube.problem, { solver: await loadLinearSolver(), now, budgetMs: 1_000 });
    const shown = texts([savedLayout(tube, layout, 1, { problem: tube.problem, id: "one" })]).join(" ");
    expect(shown).toContain(tube.name);
    expect(shown).toMatch(/1 bar/);
  });

  it("of a stock that is gone are told", () => {
    expect(faultOf(laid("nothing"), "list")).toContain("not in the job any more");
  });
});

describe("pictures on pages", () => {
  const picture = { kind: "picture", type: "jpeg", width: 40, height: 30, data: "/9j/" } as const;
  const asset = assetIdOf(picture);
  const item: Kind<"picture"> = {
    id: "pic" as PageItem["id"],
    page: "p",
    kind: "picture",
    at: [50, 60],
    asset,
    width: 80,
    ratio: 0.75,
  };

  it("are drawn as large as they say, belong to the assets of the job, and are told when they are not there", () => {
    const job = withItems(start, item);
    expect([...assetsOf(job)]).toContain(asset);
    expect(faultOf(job, "pic")).toContain("not there any more");
    const { page } = drawn(job, [], new Map([[asset, picture]]));
    const one = page.placed.find(({ item: { id } }) => id === "pic");
    expect(one).toMatchObject({ fault: null, box: { x0: 0, y0: 0, x1: 80, y1: 60 } });
    expect(flatPage(page).items).toContainEqual({
      kind: "image",
      at: [50, 60],
      width: 80,
      height: 60,
      picture,
    });
  });
});

describe("what cannot be shown is a sentence where it stands, and the rest is drawn", () => {
  it.each([
    [
      "all hidden",
      view("v", { of: { kind: "pieces", records: ["front"] }, hidden: ["front"] }),
      "Nothing to be seen",
    ],
    ["a piece that is gone", view("v", { of: { kind: "piece", record: "nobody" } }), "Nothing to be seen"],
    [
      "an assembly that is gone",
      view("v", { of: { kind: "assembly", assembly: "gone" as never } }),
      "is gone",
    ],
    ["a list that is gone", list({ id: "v" as never, list: { kind: "own", list: "gone" } }), "is gone"],
  ])("%s", (_, item, words) => {
    const job = withItems(start, item, view("other"));
    expect(faultOf(job, "v")).toContain(words);
    expect(placed(job, "other").items.length).toBeGreaterThan(0);
    expect(flatPage(drawn(job).page).items.length).toBeGreaterThan(10);
  });

  it("a scale of zero or a million is refused", () => {
    const read = (scale: number) =>
      v.safeParse(EditSchema, { kind: "setPageItems", items: [view("v", { scale })] }).success;
    expect([0, -1, 1e6, Number.NaN, 0.1].map(read)).toEqual([false, false, false, false, true]);
  });
});
