/** Everything that a person reads of the notice board, a job in inches: no text of it speaks of millimetres or metres. */
import { describe, expect, it } from "vitest";
import { diagramPages, shopPapers } from "@/core/drawing";
import { JIGS } from "@/core/jigs";
import { buttEnd, type Edit, type Job, type MemberId, withEdit } from "@/core/job";
import { sentence } from "@/core/kernel";
import {
  type LayoutTask,
  layoutKind,
  piecesWithoutPlace,
  type SavedLayout,
  savedLayout,
} from "@/core/layout";
import { layOutBars } from "@/core/layout/bars";
import { layOutNesting } from "@/core/layout/nesting";
import { layOutSheets } from "@/core/layout/sheets";
import { LIST_STARTS, listNames, namedTable, startList } from "@/core/lists";
import { MM_PER_UNIT, parseLength } from "@/core/measure";
import { createPipeline, type Results } from "@/core/pipeline";
import { stockroomOf } from "@/core/stockroom";
import { loadLinearSolver } from "@/engines/linear-solver";
import { noticeBoard } from "./notice-board";
import { demoStockroom } from "./stockroom";

const stockroom = stockroomOf(demoStockroom);
const solver = await loadLinearSolver();
const now = () => 0;

const METRIC = /(?:\d|\b)\s?(?:mm|cm|m|m²|m2)(?![\w"'])|milli|metre/;

/** Every text within a value, with the way to it. */
function textsIn(value: unknown, way: string): readonly (readonly [string, string])[] {
  if (typeof value === "string") return [[way, value]];
  if (value === null || typeof value !== "object") return [];
  return Object.entries(value).flatMap(([key, inner]) => textsIn(inner, `${way}.${key}`));
}

function edited(job: Job, ...edits: readonly Edit[]): Job {
  return edits.reduce((now, edit) => {
    const next = withEdit(now, edit);
    if (!next.ok) throw new Error(sentence(next.problem));
    return next.value;
  }, job);
}

const changed = (id: string, set: (Edit & { kind: "changeMembers" })["set"]): Edit => ({
  kind: "changeMembers",
  ids: [id as MemberId],
  set,
});

function layoutOf(task: LayoutTask): SavedLayout {
  switch (task.kind) {
    case "bars":
      return savedLayout(task, layOutBars(task.problem, { solver, now, budgetMs: 500 }), 1);
    case "sheets":
      return savedLayout(task, layOutSheets(task.problem, { seed: 1, now, budgetMs: 500 }), 1);
    default:
      return savedLayout(task, layOutNesting(task.problem, { seed: 1, now, budgetMs: 500 }), 1);
  }
}

/** All that a person reads of a job: checks, notes, lists, layouts and papers. */
function everything(job: Job, laid: (tasks: readonly LayoutTask[]) => readonly SavedLayout[]) {
  const { tasks } = createPipeline()(job, null, stockroom, []);
  const saved = laid(tasks);
  const results = createPipeline()(job, null, stockroom, saved);
  const input = {
    info: job.info.job,
    revision: 1,
    date: "2026-11-26",
    variantName: null,
    shop: "A shop",
    results,
    saved,
    saws: stockroom.saws,
  };
  const { tally, shape } = results;
  return {
    results,
    texts: [
      ...textsIn(
        tally.checks.map(({ message, fix }) => [message, fix?.label]),
        "checks",
      ),
      ...textsIn(
        shape.uncomputed.map(({ why }) => why),
        "uncomputed",
      ),
      ...textsIn(
        shape.panels.map(({ remarks }) => remarks),
        "remarks",
      ),
      ...textsIn(
        listNames(job).map((name) => namedTable(name, { job, stockroom, ...results })),
        "lists",
      ),
      ...textsIn(
        results.tasks.map((task) => [task.name, layoutKind(task).notes(task.problem)]),
        "notes",
      ),
      ...saved.flatMap((one) => [
        ...piecesWithoutPlace(one).flatMap(({ why, advice }) => [
          ...textsIn(why, "unplaced"),
          ...textsIn(advice, "advice"),
        ]),
      ]),
      ...textsIn(shopPapers(input, "letter"), "papers"),
      ...textsIn(diagramPages(input, "letter"), "diagrams"),
    ],
  };
}

const metricIn = (texts: readonly (readonly [string, string])[]) =>
  texts.filter(([, text]) => METRIC.test(text)).map(([way, text]) => `${way}: ${text}`);

/** Lengths of the job in millimetres, as they would be written if somebody forgot to convert them. */
function rawLengths({ tally }: Results): ReadonlySet<string> {
  const nm = tally.rows.flatMap(({ shown: { form } }) =>
    form.kind === "member" ? [form.cutNm] : form.kind === "panel" ? [form.lengthNm, form.widthNm] : [],
  );
  return new Set(nm.map((one) => String(Math.round(one / 1e5) / 10)).filter((text) => text.length > 3));
}

const withLists = (job: Job) =>
  edited(
    job,
    ...LIST_STARTS.map(
      (start, i): Edit => ({ kind: "setList", list: startList(start, `list-${i}`, start.name, i) }),
    ),
  );

describe("a job in inches", () => {
  it("speaks of inches and feet on every stage and paper", () => {
    const { texts, results } = everything(withLists(noticeBoard()), (tasks) => tasks.map(layoutOf));
    expect(texts.length).toBeGreaterThan(300);
    expect(metricIn(texts)).toEqual([]);
    const raw = rawLengths(results);
    expect(raw.size).toBeGreaterThan(4);
    expect(texts.filter(([, text]) => raw.has(text))).toEqual([]);
    expect(texts.some(([, text]) => /\d \d+\/\d+ in$/.test(text))).toBe(true);
    expect(texts.some(([, text]) => text === "ft²")).toBe(true);
  });

  it("says its troubles in inches: near twins, overlaps, pieces that no stock holds", () => {
    const job = edited(
      noticeBoard(),
      { kind: "setKeySize", id: "size-leg_height", formula: "100", variant: null },
      { kind: "setKeySize", id: "size-board_height", formula: "47", variant: null },
      changed("railLow", { start: buttEnd("legLeft", "1/8") }),
      changed("braceLeft", { start: { kind: "square", offset: "0", past: null } }),
    );
    const { texts, results } = everything(job, (tasks) =>
      tasks.map((task) =>
        layoutOf({
          ...task,
          problem:
            task.kind === "bars"
              ? { ...task.problem, stock: task.problem.stock.map((one) => ({ ...one, length: 1000 })) }
              : { ...task.problem, stock: task.problem.stock.map((one) => ({ ...one, length: 900 })) },
        } as LayoutTask),
      ),
    );
    expect(texts.filter(([way]) => way.startsWith("unplaced")).length).toBeGreaterThan(0);
    expect(texts.filter(([way]) => way.startsWith("advice")).length).toBeGreaterThan(0);
    expect(new Set(results.tally.checks.map(({ kind }) => kind))).toEqual(new Set(["nearTwins", "overlap"]));
    expect(metricIn(texts)).toEqual([]);
  });

  it.each(JIGS.map((jig) => [jig.name, jig] as const))("begins %s with round inches", (_, jig) => {
    for (const field of jig.fields) {
      if (field.kind !== "length") continue;
      const read = parseLength(field.value.in, "in");
      // Formulas over the jig's own fields have no number to look at.
      if (!read.ok) continue;
      const sixteenths = (read.value / MM_PER_UNIT.in) * 16;
      expect(Math.abs(sixteenths - Math.round(sixteenths)), field.label).toBeLessThan(1e-6);
    }
  });
});
