import { describe, expect, it } from "vitest";
import type { PlaneBox, Vec2 } from "../../geometry";
import { type Page, type PageItem, plainList, plainPage, plainView } from "../../job";
import { arrangedOn } from "./arranging";
import type { DrawnPage } from "./page-drawing";
import type { PlacedItem } from "./placed";

const page: Page = plainPage({ id: "p" as Page["id"], heading: "One", paper: "a3", lying: true, scale: 0.1 });
const A3 = { x0: 20, y0: 10, x1: 410, y1: 287 };
const A4_LYING = { paper: "a4", lying: true } as const;
const A3_UPRIGHT = { paper: "a3", lying: false } as const;

const id = (text: string) => text as PageItem["id"];
const placed = (item: PageItem, at: Vec2, box: PlaneBox): PlacedItem => ({
  item,
  at,
  box,
  items: [],
  fault: null,
});
const drawn = (...items: readonly PlacedItem[]): DrawnPage => ({
  page,
  size: { width: 420, height: 297 },
  frame: [],
  title: null,
  placed: items,
  places: new Map(),
  rings: new Map(),
});
const half = (width: number, height: number): PlaneBox => ({
  x0: -width / 2,
  y0: -height / 2,
  x1: width / 2,
  y1: height / 2,
});

const view = (at: Vec2, width: number, height: number, more: Partial<PageItem> = {}) =>
  placed(
    { ...plainView({ id: id("view"), page: "p", at: [...at] }), ...more } as PageItem,
    at,
    half(width, height),
  );

function arrangedItems(from: DrawnPage, sheet: Pick<Page, "paper" | "lying">, title: PlaneBox | null = null) {
  const [pages, items] = arrangedOn(from, sheet, title, "mm");
  if (pages?.kind !== "setPages") throw new Error("the page gets its sheet");
  const moved = new Map((items?.kind === "setPageItems" ? items.items : []).map((item) => [item.id, item]));
  return { page: pages.pages[0], item: (name: string) => moved.get(id(name)) };
}

describe("what stands on a page that gets another sheet", () => {
  it("stands in its corner and in the middle again", () => {
    const list = plainList({ id: id("list"), page: "p", at: [A3.x1 - 100, A3.y0], width: 100 });
    const from = drawn(
      view([(A3.x0 + A3.x1) / 2, (A3.y0 + A3.y1) / 2], 60, 40),
      placed(list, [A3.x1 - 100, A3.y0], { x0: 0, y0: 0, x1: 100, y1: 50 }),
    );
    const { page: after, item } = arrangedItems(from, A3_UPRIGHT);
    expect(after).toMatchObject({ ...A3_UPRIGHT, scale: 0.1 });
    // Between the borders: 20 to 287 and 10 to 410.
    expect(item("list")).toMatchObject({ at: [187, 10] });
    expect(item("view")).toMatchObject({ at: [153.5, 210], scale: null });
  });

  it("is no taller than the sheet where its height is set, and goes on in what is left there", () => {
    const list = plainList({ id: id("list"), page: "p", at: [20, 10], width: 300, height: 270 });
    const { item } = arrangedItems(
      drawn(placed(list, [20, 10], { x0: 0, y0: 0, x1: 300, y1: 270 })),
      A4_LYING,
    );
    // Between the borders: 267 by 190.
    expect(item("list")).toMatchObject({ at: [20, 10], width: 267, height: 190 });
  });

  it("becomes smaller by a standard scale only where it has no room, with what a hand put beside it", () => {
    const callout: PageItem = {
      id: id("callout"),
      page: "p",
      kind: "callout",
      view: "view",
      piece: { record: "one", way: null, spot: null },
      pattern: "{mark}",
      at: [40, -20],
      letters: 3.5,
    };
    const from = drawn(view([200, 150], 300, 200), placed(callout, [200, 150], half(10, 10)));
    expect(arrangedItems(from, { paper: "a2", lying: true }).page?.scale).toBe(0.1);
    const { page: after, item } = arrangedItems(from, A4_LYING);
    expect(after?.scale).toBe(0.05);
    expect(item("callout")).toMatchObject({ at: [20, -10] });
  });

  it("keeps its own scale where that is smaller already, and takes a smaller one with the page", () => {
    const large = view([120, 150], 160, 270);
    const own = view([330, 150], 150, 250, { id: id("own"), scale: 0.2 } as Partial<PageItem>);
    const { page: after, item } = arrangedItems(drawn(large, own), A4_LYING);
    expect(after?.scale).toBe(0.05);
    expect(item("own")).toMatchObject({ scale: 0.1 });
  });

  it("gives way to the title block and to what is larger; what has no room anywhere is in nobody's way", () => {
    const title = { x0: 107, y0: 167, x1: 287, y1: 200 };
    const note = (name: string, at: Vec2, width: number, height: number) =>
      placed(
        {
          id: id(name),
          page: "p",
          kind: "note",
          at: [...at],
          text: name,
          letters: 3.5,
          width: null,
          strong: false,
        },
        at,
        { x0: 0, y0: 0, x1: width, y1: height },
      );
    const from = drawn(note("small", [350, 270], 60, 17), note("tall", [20, 10], 50, 250));
    const { item } = arrangedItems(from, A4_LYING, title);
    const small = item("small");
    if (small?.kind !== "note") throw new Error("the note moves");
    const [x, y] = small.at;
    expect(x + 60 < title.x0 || y + 17 < title.y0).toBe(true);
    expect(x).toBeGreaterThanOrEqual(20);
    expect(y + 17).toBeLessThanOrEqual(200);
    // Too tall for the sheet: it stays in its corner.
    expect(item("tall")).toBeUndefined();
  });
});
