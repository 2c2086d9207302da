/** Lists on pages: where they stand, how they look, and where they go on. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { copyOfPage, type Job, type Page, type PageItem, plainList, plainPage } from "./job";
import { lawRuns } from "./kernel/law-runs.fixture";
import { done, drawn, type Kind, list, placed, start, withItems } from "./paper-set.fixture";

describe("a list on a page", () => {
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
});

const NEXT: Page = plainPage({ id: "q" as Page["id"], heading: "Lists", position: 1 });
const twoPages = done(start, { kind: "setPages", pages: [NEXT] });
const rest = (id: string, of: string, more: Partial<Kind<"list">> = {}) =>
  plainList({ id: id as PageItem["id"], page: "q", at: [30, 30], list: { kind: "rest", of }, ...more });
const onNext = (job: Job, id: string) => {
  const found = drawn(job, [], undefined, false, NEXT).page.placed.find(({ item }) => item.id === id);
  if (!found) throw new Error(`${id} is on the next page`);
  return found;
};
const recordsOf = ({ rows = [] }: ReturnType<typeof placed>) => rows.map(({ records }) => records.join(" "));
const wordsOf = ({ items }: ReturnType<typeof placed>) =>
  items.flatMap((item) => (item.kind === "text" ? [item.text] : []));

describe("a list that has no room", () => {
  const short = list({ height: 30, columns: 1 });

  it("says how many rows are left, on the page as well", () => {
    const one = placed(withItems(start, short), "list");
    const all = recordsOf(placed(withItems(start, list()), "list"));
    const here = recordsOf(one);
    expect(here.length).toBeGreaterThan(0);
    expect(here).toEqual(all.slice(0, here.length));
    expect(one.fault).toEqual({ kind: "listTooLong", left: all.length - here.length, what: "row" });
    expect(wordsOf(one)).toContain("Further rows have no room here.");
  });

  it("goes on on another page, with its heading and what it is, and says on which sheet", () => {
    const job = withItems(twoPages, short, rest("more", "list"));
    const [first, second] = [placed(job, "list"), onNext(job, "more")];
    expect([first.fault, second.fault]).toEqual([null, null]);
    expect(wordsOf(first)).toContain("Continued on sheet 2.");
    expect(wordsOf(second)).toContain("Cut list, continued");
    expect([...recordsOf(first), ...recordsOf(second)]).toEqual(
      recordsOf(placed(withItems(start, list()), "list")),
    );
    // Sums and sentences stand at the end of the last part alone.
    expect(wordsOf(second)).toContain("Name");
  });

  it("leaves nothing and repeats nothing, however tall and wide its parts are", () => {
    const all = recordsOf(placed(withItems(start, list()), "list"));
    const part = fc.record({
      height: fc.integer({ min: 15, max: 80 }),
      columns: fc.integer({ min: 1, max: 3 }),
      width: fc.integer({ min: 60, max: 200 }),
    });
    fc.assert(
      fc.property(part, part, (a, b) => {
        const job = withItems(
          twoPages,
          list(a),
          rest("second", "list", b),
          rest("third", "second", { height: null }),
        );
        const parts = [placed(job, "list"), onNext(job, "second"), onNext(job, "third")];
        expect(parts.flatMap(recordsOf)).toEqual(all);
        // Side by side they may be wider than the page, which is told.
        for (const { fault } of parts) expect([null, { kind: "offSheet" }]).toContainEqual(fault);
      }),
      { numRuns: lawRuns(25) },
    );
  });

  it("keeps the place of a part that is not needed", () => {
    const job = withItems(twoPages, list(), rest("more", "list"));
    expect(onNext(job, "more")).toMatchObject({ fault: null });
    expect(wordsOf(onNext(job, "more"))).toEqual(["Cut list: nothing is left to continue here"]);
  });

  it("tells a part whose list is gone, and parts that go round", () => {
    const job = withItems(twoPages, rest("more", "list"));
    expect(onNext(job, "more").fault).toEqual({ kind: "lost", what: "listBefore" });
    const round = withItems(twoPages, rest("a", "b"), rest("b", "a"));
    expect(onNext(round, "a").fault).toEqual({ kind: "lost", what: "listBefore" });
  });

  it("is copied with its page: the parts of the copy belong to one another", () => {
    const job = withItems(start, short, rest("more", "list", { page: "p" }));
    let count = 0;
    const edits = copyOfPage(job, "p", (kind) => `${kind}-${++count}`) ?? [];
    const copied = done(job, ...edits);
    const items = Object.values(copied.pageItems).filter(({ page }) => page !== "p");
    const parts = items.flatMap((item) =>
      item.kind === "list" && item.list.kind === "rest" ? [item.list.of] : [],
    );
    expect(parts).toHaveLength(1);
    expect(items.map(({ id }) => id as string)).toContain(parts[0]);
  });
});

describe("the look of a list", () => {
  const columnsOf = (more: Partial<Kind<"list">>) =>
    placed(withItems(start, list(more)), "list").columns ?? [];
  const widthOf = (columns: ReturnType<typeof columnsOf>, id: string) =>
    columns.find((column) => column.id === id)?.width ?? 0;

  it("has columns as wide as they are set; the others share the rest as before", () => {
    const plain = columnsOf({});
    const set = columnsOf({ columnWidths: { mark: 30 } });
    expect(widthOf(set, "mark")).toBe(30);
    const sum = set.reduce((all, { width }) => all + width, 0);
    expect(sum).toBeCloseTo(170, 9);
    const ratio = (columns: typeof plain) => widthOf(columns, "name") / widthOf(columns, "note");
    expect(ratio(set)).toBeCloseTo(ratio(plain), 9);
  });

  it("keeps every column in it where the set ones ask for more than there is", () => {
    const set = columnsOf({ columnWidths: { mark: 150, name: 150 } });
    expect(set.reduce((all, { width }) => all + width, 0)).toBeCloseTo(170, 9);
    expect(widthOf(set, "mark")).toBeCloseTo(widthOf(set, "name"), 9);
    for (const { width } of set) expect(width).toBeGreaterThanOrEqual(4 - 1e-9);
    // All of them set: they fill the list.
    const every = columnsOf({ columnWidths: Object.fromEntries(columnsOf({}).map(({ id }) => [id, 5])) });
    for (const { width } of every) expect(width).toBeCloseTo(170 / every.length, 9);
  });

  it("has rows at least as tall as they are set", () => {
    const rows = placed(withItems(start, list({ rowHeight: 12 })), "list").rows ?? [];
    for (const { box } of rows) expect(box.y1 - box.y0).toBe(12);
    const plain = placed(withItems(start, list({ rowHeight: 4 })), "list").rows ?? [];
    for (const { box } of plain) expect(box.y1 - box.y0).toBeGreaterThan(5);
  });
});
