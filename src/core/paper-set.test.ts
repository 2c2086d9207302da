/** Pages of a job: what stands on them follows the design, and what cannot be shown is told. */
import * as v from "valibot";
import { describe, expect, it } from "vitest";
import { loadLinearSolver } from "@/engines/linear-solver";
import { balloonRows, flatPage, pieceAt, spotOf } from "./drawing";
import { assetIdOf, assetsOf, EditSchema, itemsOfPage, type Job, NO_ASSETS, type PageItem } from "./job";
import { type SavedLayout, savedLayout } from "./layout";
import { layOutBars } from "./layout/bars";
import { asksOfPages } from "./paper-set";
import {
  callout,
  done,
  drawn,
  faultOf,
  type Kind,
  list,
  PAGE,
  placed,
  start,
  textsOf,
  view,
  withBalloons,
  withItems,
} from "./paper-set.fixture";
import { resultsOf, STOCK } from "./pipeline.fixture";
import { createViews } from "./views";

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

  it("writes callouts by patterns over columns, and tells a name that is none", () => {
    const job = withItems(start, view("v"));
    expect(textsOf(withItems(job, callout("{mark}: {Name}\ncut {cut length}")))).toEqual(
      expect.arrayContaining(["A: Rail", "cut 600"]),
    );
    expect(faultOf(withItems(job, callout("{colour}")), "call")).toMatchObject({
      kind: "textNotRead",
    });
  });
});

describe("a view that is bound to a variant", () => {
  const bound = view("v", { from: { kind: "named", side: "front" }, variant: "wide" });
  const job = withItems(start, bound, callout("{mark}: {cut length}"));

  it("shows that variant, and its texts say what holds there", () => {
    // The demo frame of tests is 600 wide, and 900 in its variant.
    expect(textsOf(job)).toContain("A: 900");
    const { box } = placed(job, "v");
    expect(box.x1 - box.x0).toBeCloseTo(900 * 0.2, 6);
    const own = withItems(job, view("v", { from: { kind: "named", side: "front" } }));
    expect(textsOf(own)).toContain("A: 600");
    const wider = done(job, {
      kind: "setKeySize",
      id: "size-width",
      formula: "950",
      variant: "wide" as never,
    });
    expect(textsOf(wider)).toContain("A: 950");
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

  it("are counted by row and page, one with several leaders once", () => {
    const { results } = drawn(job);
    const { all, without, counts } = balloonRows(job, results);
    expect(without).toEqual([]);
    for (const { id } of all) expect([...(counts.get(id) ?? [])]).toEqual([["p", 1]]);
    const [one] = balloons(job);
    if (one?.kind !== "balloon") throw new Error("there is a balloon");
    const [piece] = one.pieces;
    const twice = withItems(job, { ...one, pieces: [...one.pieces, ...one.pieces] });
    const row = results.tally.rowOfPiece.get(piece?.record ?? "")?.id ?? "";
    expect(balloonRows(twice, results).counts.get(row)?.get("p")).toBe(1);
    const more = withItems(job, { ...one, id: "more" as PageItem["id"] });
    expect(balloonRows(more, results).counts.get(row)?.get("p")).toBe(2);
    const less = done(job, { kind: "removePageItems", ids: [one.id] });
    expect(balloonRows(less, results).without.map(({ id }) => id)).toEqual([row]);
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

  it("point where they were slid to, on what is seen of their piece, and stay there when the design changes", () => {
    const [one] = balloons(job);
    if (one?.kind !== "balloon") throw new Error("there is a balloon");
    const slidTo = (of: Job, spot: [number, number]) =>
      withItems(of, { ...one, pieces: [{ record: "front", way: null, spot }] });
    const tipIn = (of: Job) => placed(of, one.id).tips?.[0] ?? null;
    const seenAt = (of: Job, tip: readonly [number, number] | null) => {
      const ring = drawn(of, [], NO_ASSETS, true).page.rings.get("v");
      return tip && ring && pieceAt(ring.drawn, ring.place, tip, 0.6)?.record;
    };
    const [left, right] = [tipIn(slidTo(job, [0.1, 0.2])), tipIn(slidTo(job, [0.9, 0.8]))];
    expect((left?.[0] ?? 0) + 20).toBeLessThan(right?.[0] ?? 0);
    // Wherever it is asked for, it ends on the piece; what a place of the piece is called leads back to it.
    for (const spot of [
      [0, 0],
      [1, 0],
      [0.5, 0.5],
      [0.3, 1],
      [1, 1],
    ] as const) {
      const slid = slidTo(job, [...spot]);
      const tip = tipIn(slid);
      expect(seenAt(slid, tip)).toBe("front");
      const ring = drawn(slid, [], NO_ASSETS, true).page.rings.get("v");
      const back = tip && ring && spotOf({ record: "front", way: null }, tip, ring.drawn, ring.place);
      expect(back && tipIn(slidTo(job, back))?.map((value) => Math.round(value))).toEqual(
        tip?.map((value) => Math.round(value)),
      );
    }
    const wider = done(slidTo(job, [0.9, 0.8]), {
      kind: "setKeySize",
      id: "size-width",
      formula: "800",
      variant: null,
    });
    expect(seenAt(wider, tipIn(wider))).toBe("front");
    expect(tipIn(wider)?.[0] ?? 0).toBeGreaterThan(right?.[0] ?? 0);
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
    expect(faultOf(hidden, mine?.id ?? id)).toMatchObject({ kind: "balloonUnseen" });
    const removed = done(job, { kind: "remove", ids: both });
    expect(faultOf(removed, mine?.id ?? id)).toEqual({ kind: "lost", what: "pieceOfBalloon" });
  });
});

const widthOf = (job: Job) =>
  Object.values(job.keySizes).find(({ name }) => name === "width")?.id ?? ("" as never);

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
    const saved = [savedLayout(tube, layout, 1, { problem: tube.problem, id: "one" })];
    const shown = texts(saved).join(" ");
    expect(shown).toContain(tube.name);
    expect(shown).toMatch(/1 bar/);
    // Older than the design it is told, on paper and beside the page.
    const wider = done(job, { kind: "setKeySize", id: widthOf(job), formula: "700", variant: null });
    const fault = (one: Job) =>
      drawn(one, saved).page.placed.find(({ item }) => item.id === "list")?.fault ?? null;
    expect(fault(job)).toBeNull();
    expect(fault(wider)).toMatchObject({ kind: "layoutOutdated", revision: 1 });
  });

  it("of a stock that is gone are told", () => {
    expect(faultOf(laid("nothing"), "list")).toEqual({ kind: "lost", what: "stockOfLayout" });
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
    expect(faultOf(job, "pic")).toEqual({ kind: "lost", what: "picture" });
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
      { kind: "nothingSeen" },
    ],
    ["a piece that is gone", view("v", { of: { kind: "piece", record: "nobody" } }), { kind: "nothingSeen" }],
    [
      "an assembly that is gone",
      view("v", { of: { kind: "assembly", assembly: "gone" as never } }),
      { kind: "lost", what: "assemblyOfView" },
    ],
    [
      "a list that is gone",
      list({ id: "v" as never, list: { kind: "own", list: "gone" } }),
      { kind: "lost", what: "list" },
    ],
  ])("%s", (_, item, fault) => {
    const job = withItems(start, item, view("other"));
    expect(faultOf(job, "v")).toEqual(fault);
    expect(placed(job, "other").items.length).toBeGreaterThan(0);
    expect(flatPage(drawn(job).page).items.length).toBeGreaterThan(10);
  });

  it("an item that runs off the sheet says so", () => {
    const at = (x: number, y: number) => faultOf(withItems(start, list({ at: [x, y] })), "list");
    expect(at(410, 250)).toBeNull();
    expect(at(425, 250)).toEqual({ kind: "offSheet" });
    expect(at(410, 20)).toEqual({ kind: "offSheet" });
  });

  it("a scale of zero or a million is refused", () => {
    const read = (scale: number) =>
      v.safeParse(EditSchema, { kind: "setPageItems", items: [view("v", { scale })] }).success;
    expect([0, -1, 1e6, Number.NaN, 0.1].map(read)).toEqual([false, false, false, false, true]);
  });
});
