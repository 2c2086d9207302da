/** What the pointer takes hold of on a page: pieces of views, and the named places that sizes run between. */
import { describe, expect, it } from "vitest";
import { catchFeature, type DrawnView, pieceAt, standOfSize } from "./drawing";
import type { Vec2 } from "./geometry";
import {
  type Job,
  NO_ASSETS,
  type Page,
  type PageItem,
  plainPage,
  plainView,
  type SizeItem,
  withEdit,
} from "./job";
import { at } from "./kernel";
import { asksOfPages, createPageDrawing } from "./paper-set";
import { resultsOf, STOCK, smallFrame } from "./pipeline.fixture";
import { createViews } from "./views";

const PAGE: Page = plainPage({
  id: "p" as Page["id"],
  heading: "P",
  scale: 0.2,
});
const VIEW: PageItem = plainView({
  id: "v" as PageItem["id"],
  page: "p",
  at: [200, 120],
});

/** The frame from the front, 600 wide and 470 high: on paper 120 by 94, its middle in [0, 0]. */
function ground(start: Job = smallFrame()) {
  const job = [
    { kind: "setPages", pages: [PAGE] } as const,
    { kind: "setPageItems", items: [VIEW] } as const,
  ].reduce<Job>((one, edit) => {
    const next = withEdit(
      one,
      edit.kind === "setPages" ? { ...edit, pages: [PAGE] } : { ...edit, items: [VIEW] },
    );
    if (!next.ok) throw new Error("the edit is good");
    return next.value;
  }, start);
  const results = resultsOf(job);
  const asked = at(asksOfPages(job, [PAGE], null, true), 0);
  const drawn = createViews()({ job, stockroom: STOCK, assets: NO_ASSETS }, asked);
  const head = { info: job.info.job, revision: 1, date: "", variantName: null, shop: "" };
  const views = new Map<string, DrawnView>([["v", drawn]]);
  const inputs = { job, results, stockroom: STOCK, views, layouts: [], assets: NO_ASSETS, head };
  const ring = createPageDrawing()(PAGE, inputs).rings.get("v");
  if (!ring) throw new Error("the view is there");
  return { shape: results.shape, asked, assets: NO_ASSETS, drawn, place: ring.place };
}
const FRAME = ground();
/** A place on paper by millimetres of the design: from the left, and up from the floor. */
const paper = (right: number, up: number): Vec2 => [(right - 300) * 0.2, (235 - up) * 0.2];
const sizeOf = (measure: SizeItem["measure"], point: Vec2) =>
  catchFeature(measure, point, 1.5, FRAME)?.feature;

describe("a piece of a view", () => {
  const piece = (point: Vec2) => pieceAt(FRAME.drawn, FRAME.place, point, 1.4)?.record ?? null;

  it("is the one that is seen there, in its middle as at its edges", () => {
    // The front rail runs along the top, 40 high; the left leg under it, the shelf behind at 100.
    expect([piece(paper(300, 450)), piece(paper(20, 200))]).toEqual(["front", "legLeft"]);
    expect(piece(paper(300, 109))).toBe("shelfLow");
    expect([piece(paper(300, 471)), piece(paper(300, 429))]).toEqual(["front", "front"]);
  });

  it("is none where nothing is drawn near", () => {
    expect([piece(paper(300, 350)), piece(paper(-80, 200)), piece([500, 0])]).toEqual([null, null, null]);
  });
});

describe("a place for a size", () => {
  it("is the named one that is nearest, and of several behind one another the nearest to the viewer", () => {
    const foot = sizeOf("vertical", paper(1, 1));
    expect(foot).toMatchObject({ record: "legLeft" });
    expect(foot?.place).toMatch(/^start, corner/);
    expect(sizeOf("horizontal", paper(20, 0))).toMatchObject({ record: "legLeft", place: "start, axis" });
    // At its upper left corner the front rail and the end rail behind it meet.
    expect(sizeOf("along", paper(0, 470))?.record).toBe("front");
    expect(sizeOf("along", paper(300, 350))).toBeUndefined();
  });

  it("of an angle is the line of a member, of a diameter a hole", () => {
    expect(sizeOf("angle", paper(20, 200))).toEqual({ record: "legLeft", way: null, place: "axis" });
    expect(sizeOf("diameter", paper(20, 200))).toBeUndefined();
  });

  it("its line stands on the nearer side, in the first row that is free there", () => {
    const there = (side: SizeItem["side"], out: number) => ({ side, out }) as SizeItem;
    expect(standOfSize("horizontal", [paper(0, 0), paper(600, 20)], [])).toEqual({ side: "bottom", out: 10 });
    expect(
      standOfSize("vertical", [paper(600, 0), paper(580, 400)], [there("right", 10), there("left", 17)]),
    ).toEqual({
      side: "right",
      out: 17,
    });
    expect(standOfSize("horizontal", [paper(0, 460), paper(600, 470)], [there("top", 17)])).toEqual({
      side: "top",
      out: 10,
    });
  });
});
