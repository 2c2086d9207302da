/** Layouts as they come in over HTTP: their shape, and the check that runs on each before it is stored. */
import * as v from "valibot";
import type { KeptLayout } from "@/core/layout";
import { BarProblemSchema, PIECE_TURNS, verifyBars } from "@/core/layout/bars";
import { ShapeProblemSchema, verifyShapes } from "@/core/layout/shapes";
import { SheetProblemSchema, verifySheets } from "@/core/layout/sheets";
import { UnplacedReasonSchema } from "@/core/layout/stock";

const whole = v.pipe(v.number(), v.integer(), v.minValue(0));
const finite = v.pipe(v.number(), v.finite());
const left = { qty: whole, why: UnplacedReasonSchema };
const outcome = {
  cost: v.nullable(finite),
  count: whole,
  lowerBound: finite,
  lowerBoundOf: v.picklist(["cost", "count"]),
  proven: v.boolean(),
};
const text = v.pipe(v.string(), v.maxLength(200));
const common = {
  id: v.exactOptional(v.pipe(v.string(), v.minLength(1), v.maxLength(60))),
  stock: v.exactOptional(
    v.object({
      entry: v.pipe(v.string(), v.maxLength(200)),
      material: v.nullable(v.pipe(v.string(), v.maxLength(60))),
    }),
  ),
  taskId: v.pipe(v.string(), v.minLength(1), v.maxLength(300)),
  fingerprint: v.pipe(v.string(), v.maxLength(5_000_000)),
  revision: whole,
  pieces: v.array(
    v.object({
      mark: text,
      name: text,
      job: v.exactOptional(text),
      finished: v.exactOptional(v.tuple([finite, finite])),
    }),
  ),
};
const rect = { x: finite, y: finite, length: finite, width: finite };

export const KeptSchema = v.variant("kind", [
  v.object({
    ...common,
    kind: v.literal("bars"),
    problem: BarProblemSchema,
    layout: v.object({
      ...outcome,
      bars: v.array(
        v.object({
          stock: whole,
          times: whole,
          pieces: v.array(whole),
          turns: v.exactOptional(v.array(v.nullable(v.picklist(PIECE_TURNS)))),
          locked: v.exactOptional(v.array(whole)),
          remainder: finite,
        }),
      ),
      unplaced: v.array(v.object({ ...left, piece: whole })),
      shared: v.exactOptional(v.object({ cuts: whole, length: finite })),
    }),
  }),
  v.object({
    ...common,
    kind: v.literal("sheets"),
    problem: SheetProblemSchema,
    layout: v.object({
      ...outcome,
      utilisation: finite,
      sheets: v.array(
        v.object({
          stock: whole,
          placements: v.array(
            v.object({
              ...rect,
              panel: whole,
              rotated: v.boolean(),
              locked: v.exactOptional(v.boolean()),
              against: v.exactOptional(v.boolean()),
              together: v.exactOptional(v.object({ group: whole, run: whole })),
            }),
          ),
          offcuts: v.array(v.object(rect)),
        }),
      ),
      unplaced: v.array(v.object({ ...left, panel: whole })),
    }),
  }),
  v.object({
    ...common,
    kind: v.literal("shapes"),
    problem: ShapeProblemSchema,
    layout: v.object({
      ...outcome,
      utilisation: finite,
      sheets: v.array(
        v.object({
          stock: whole,
          placements: v.array(
            v.object({
              shape: whole,
              angle: finite,
              x: finite,
              y: finite,
              mirrored: v.exactOptional(v.boolean()),
              locked: v.exactOptional(v.boolean()),
              against: v.exactOptional(v.boolean()),
            }),
          ),
          offcuts: v.array(v.object(rect)),
        }),
      ),
      unplaced: v.array(v.object({ ...left, shape: whole })),
    }),
  }),
]);

/** What is wrong with a layout, as the end of a sentence; null: nothing. */
export function keptFault(kept: KeptLayout): string | null {
  if (kept.kind === "bars") return verifyBars(kept.problem, kept.layout);
  return kept.kind === "sheets"
    ? verifySheets(kept.problem, kept.layout)
    : verifyShapes(kept.problem, kept.layout);
}
