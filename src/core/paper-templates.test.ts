/** Templates on pages: every row of the demo jobs that has ends, and what is told where one cannot be drawn. */
import { describe, expect, it } from "vitest";
import { noticeBoard } from "../../demo/notice-board";
import { pottingBench } from "../../demo/potting-bench";
import { shelfBrackets } from "../../demo/shelf-brackets";
import { demoStockroom } from "../../demo/stockroom";
import { pagesForTemplate, wholeTemplate } from "./drawing";
import {
  copyOfPage,
  type Job,
  jobStyle,
  NO_ASSETS,
  type Page,
  type PageItem,
  plainPage,
  plainTemplate,
} from "./job";
import { pagesForFile } from "./paper-set";
import { done, placed, start, withItems } from "./paper-set.fixture";
import { createPipeline } from "./pipeline";
import { stockroomOf } from "./stockroom";

const stockroom = stockroomOf(demoStockroom);
const resultsOf = (job: Job) => createPipeline()(job, null, stockroom, []);

const A4: Page = plainPage({
  id: "p" as Page["id"],
  paper: "a4",
  lying: false,
  titleBlock: false,
});
const template = (record: string, more: Partial<ReturnType<typeof plainTemplate>> = {}) =>
  plainTemplate({ id: "t" as PageItem["id"], page: "p", record, at: [23, 13], ...more });

describe("templates of the demo jobs", () => {
  it.each([
    ["potting bench", pottingBench()],
    ["notice board", noticeBoard()],
    ["shelf brackets", shelfBrackets()],
  ])("%s: each row with ends or an outline has one that fits on paper", (_, job) => {
    const { tally } = resultsOf(job);
    let count = 0;
    for (const row of tally.rows) {
      if (row.shown.form.kind === "none") continue;
      const asked = template(row.pieces[0]?.id ?? "");
      const whole = wholeTemplate(asked, row, { code: "C", stockroom, style: jobStyle(job) });
      if (!whole.ok) throw new Error(whole.problem);
      const needed = pagesForTemplate(whole.value, jobStyle(job).unit === "in");
      expect(needed, row.mark).not.toBeNull();
      count++;
    }
    expect(count).toBeGreaterThan(4);
  });

  it("the coped rail of the bench stands on A4, with nothing to be said against it", () => {
    const bench = done(pottingBench(), { kind: "setPages", pages: [A4] });
    const rail = [...resultsOf(bench).tally.rows].find((row) =>
      row.shown.form.kind === "member" ? row.shown.form.ends.some((end) => end.kind === "cope") : false,
    );
    const job = withItems(bench, template(rail?.pieces[0]?.id ?? ""));
    const head = { info: job.info.job, revision: 1, date: "", variantName: null, shop: "" };
    const inputs = { job, stockroom, assets: NO_ASSETS, layouts: [], variant: null, head };
    const [drawing] = pagesForFile([A4], { ...inputs, results: resultsOf(job) });
    const items = drawing?.items ?? [];
    expect(items.some((item) => "ink" in item && item.ink === "oxide")).toBe(false);
    const [line] = items.flatMap((item) =>
      item.kind === "paths" && item.layer === "CUTS" ? item.paths : [],
    );
    const last = line?.segments.at(-1);
    // As wide as the tube is round, at the middle of paper 0.1 mm thick.
    expect((last?.kind === "line" ? last.to[0] : 0) - (line?.from[0] ?? 0)).toBeCloseTo(Math.PI * 33.8, 6);
  });
});

describe("a template that cannot be drawn", () => {
  const job = done(start, { kind: "setPages", pages: [A4] });
  const faultOf = (item: PageItem) => placed(withItems(job, item), "t").fault;

  it("says why in its place on the page", () => {
    const record = Object.keys(job.members)[0] ?? "";
    expect(faultOf(template("gone"))).toEqual({ kind: "lost", what: "pieceOfTemplate" });
    expect(faultOf(template(record, { at: [150, 13] }))).toEqual({ kind: "templatePastBorder" });
    expect(faultOf(template(record, { at: [23, 200] }))).toEqual({ kind: "templatePastBorder" });
    expect(faultOf(template(record))).toBeNull();
  });

  it("copied with its page stays of its piece", () => {
    const record = Object.keys(job.members)[0] ?? "";
    const one = withItems(job, template(record));
    const copied = done(one, ...(copyOfPage(one, "p" as Page["id"], (kind) => `${kind}2`) ?? []));
    expect(Object.values(copied.pageItems).map((item) => item.kind === "template" && item.record)).toEqual([
      record,
      record,
    ]);
  });
});
