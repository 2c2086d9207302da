/** What changed on pages since they were put out: held against the design by hand, and against random texts. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { drawnJob } from "../../../demo/drawn-jobs.fixture";
import { pottingBench } from "../../../demo/potting-bench";
import { demoStockroom } from "../../../demo/stockroom";
import { type Edit, type Job, NO_ASSETS, pagesInOrder, withEdit } from "../job";
import { createDrawnPages } from "../paper-set";
import { createPipeline } from "../pipeline";
import { stockroomOf } from "../stockroom";
import { type PageSays, pageChanges, pageSays, withChangeMarks } from ".";

const stockroom = stockroomOf(demoStockroom);

function drawn(job: Job) {
  const results = createPipeline()(job, null, stockroom, []);
  const head = { info: job.info.job, revision: 1, date: "", variantName: null, shop: "" };
  const inputs = { job, results, stockroom, layouts: [], assets: NO_ASSETS, head, variant: null };
  return pagesInOrder(job).map(createDrawnPages(inputs));
}

const says = (job: Job): readonly PageSays[] => drawn(job).map((page) => pageSays(page, job));

function edited(job: Job, edit: Edit): Job {
  const next = withEdit(job, edit);
  if (!next.ok) throw new Error("the edit fits");
  return next.value;
}

describe("pages of the bench", () => {
  const job = drawnJob(pottingBench());
  const before = says(job);
  const changesAfter = (edit: Edit) => {
    const now = says(edited(job, edit));
    return before.map((one, i) => pageChanges(one, now[i] ?? {}));
  };

  it("say the same when nothing changed, or something was only moved", () => {
    expect(before.length).toBeGreaterThan(1);
    expect(before.every((one) => Object.keys(one).length > 3)).toBe(true);
    expect(says(job).map((one, i) => pageChanges(before[i] ?? {}, one))).toEqual(before.map(() => []));
    const view = Object.values(job.pageItems).find(
      (item) => item.kind === "view" && item.from.kind === "named",
    );
    if (view?.kind !== "view") throw new Error("there is a view");
    const moved = { ...view, at: [view.at[0] + 5, view.at[1]] as [number, number] };
    expect(changesAfter({ kind: "setPageItems", items: [moved] }).flat()).toEqual([]);
  });

  it("tell sizes, rows and views with their values before and after a key size changed", () => {
    const width = Object.values(job.keySizes).find(({ name }) => name === "width");
    if (!width) throw new Error("the bench has a width");
    const changes = changesAfter({ kind: "setKeySize", id: width.id, formula: "1600", variant: null }).flat();
    const ofKind = (kind: string) => changes.filter((one) => one.kind === kind);
    expect(ofKind("size").some(({ was, now }) => was.includes("1380") && now.includes("1580"))).toBe(true);
    // The top rail: its row before, and as it is now.
    const [list] = ofKind("list");
    expect(list?.was.some((line) => line.includes("Top rail") && line.includes("1400"))).toBe(true);
    expect(list?.now.some((line) => line.includes("Top rail") && line.includes("1600"))).toBe(true);
    // Rows of other pieces are not told: the legs stay as long as they are.
    expect([...(list?.was ?? []), ...(list?.now ?? [])].some((line) => line.includes("Front leg"))).toBe(
      false,
    );
    expect(ofKind("view").length).toBeGreaterThan(0);
  });

  it("tell what was removed and what came", () => {
    const size = Object.values(job.pageItems).find(({ kind }) => kind === "size");
    if (!size) throw new Error("there is a size");
    const gone = changesAfter({ kind: "removePageItems", ids: [size.id] }).flat();
    expect(gone.map(({ id, now }) => [id, now])).toEqual([[size.id, []]]);
    const { page } = size;
    const note = {
      id: "n",
      page,
      kind: "note",
      at: [50, 50],
      text: "Two\nlines",
      letters: 3.5,
      width: null,
      strong: false,
    };
    const come = changesAfter({ kind: "setPageItems", items: [note as never] }).flat();
    expect(come).toEqual([{ id: "n", kind: "note", was: [], now: ["Two", "lines"] }]);
  });

  it("have a bar beside what changed, and nowhere else", () => {
    const [page] = drawn(job);
    if (!page) throw new Error("there is a page");
    const [one, two] = page.placed.map(({ item }) => item.id);
    const change = (id: string | undefined) => ({ id: id ?? "", kind: "size", was: [], now: ["1"] });
    const bars = withChangeMarks(page, [change(one), change(two), change("gone")]);
    expect(bars.frame.length).toBe(page.frame.length + 2);
    expect(withChangeMarks(page, [])).toBe(page);
  });
});

it("lines that differ are those that one has more often than the other, whatever the order", () => {
  const lines = fc.array(fc.constantFrom("a", "b", "c"), { maxLength: 6 });
  const count = (all: readonly string[], line: string) => all.filter((one) => one === line).length;
  fc.assert(
    fc.property(lines, lines, (old, now) => {
      const [change] = pageChanges({ x: { kind: "note", lines: old } }, { x: { kind: "note", lines: now } });
      for (const line of ["a", "b", "c"]) {
        const more = count(now, line) - count(old, line);
        expect(count(change?.now ?? [], line)).toBe(Math.max(0, more));
        expect(count(change?.was ?? [], line)).toBe(Math.max(0, -more));
      }
    }),
  );
});
