/** What somebody does next with a job, in one line for each stage: what the stage still lacks, else where the work goes on. */
import type { Job } from "./job";
import { agreeing, counted } from "./kernel";
import { type SavedLayout, savedFor } from "./layout";
import type { Results } from "./pipeline";

const WORKING_ORDER = ["shape", "tally", "layout", "buy", "drawings", "floor"] as const;
export type StageName = (typeof WORKING_ORDER)[number];

export type NextStep = {
  readonly words: string;
  /** The stage on which it is done; null: on this one. */
  readonly stage: StageName | null;
};

const here = (words: string): NextStep => ({ words, stage: null });
const onTo = (stage: StageName, words: string): NextStep => ({ words, stage });

/** The next step from a stage, as the job stands. */
export function nextStep(
  stage: StageName,
  job: Job,
  { shape, tally, tasks, quantities }: Pick<Results, "shape" | "tally" | "tasks" | "quantities">,
  saved: readonly SavedLayout[],
): NextStep {
  const rows = tally.rows.length;
  if (rows === 0)
    return stage === "shape"
      ? here("Draw members, or begin with a jig")
      : onTo("shape", "Nothing to make yet: draw it in Shape");
  const found = tasks.map((task) => savedFor(task, saved));
  const missing = found.filter((one) => one === null).length;
  const outdated = found.filter((one) => one !== null && one.outdated !== null).length;
  switch (stage) {
    case "shape": {
      const uncomputed = shape.uncomputed.length;
      if (uncomputed > 0)
        return here(`${counted(uncomputed, "piece")} cannot be computed: the checks say why`);
      return onTo("tally", `Tally: ${counted(rows, "row")} to look over`);
    }
    case "tally":
      if (missing + outdated > 0)
        return onTo("layout", `Layout: ${counted(missing + outdated, "stock")} to lay out`);
      return onTo("layout", "Layout: all is laid out");
    case "layout":
      if (missing > 0)
        return here(`Lay out: ${counted(missing, "stock")} ${agreeing(missing, "has", "have")} no layout`);
      if (outdated > 0)
        return here(`Lay out again: ${counted(outdated, "layout is", "layouts are")} outdated`);
      return onTo("buy", "Buy: what to buy, and what it costs");
    case "buy": {
      const { missing: unpriced } = quantities.byRule;
      if (unpriced > 0)
        return here(`${counted(unpriced, "line has", "lines have")} no price: enter it in the stockroom`);
      return onTo("drawings", "Drawings: the pages for the shop");
    }
    case "drawings":
      if (Object.keys(job.pages).length === 0) return here("Draw up the whole set, or add a page");
      return onTo("floor", "Floor: print the shop papers");
    case "floor":
      return here("Export: print the shop papers, or take the lists along");
    default:
      return stage satisfies never;
  }
}
