/** Keeps a layout that a worker made. It is checked again here before it is stored. */
import * as v from "valibot";
import type { KeptLayout } from "@/core/layout";
import { BarProblemSchema, verifyBars } from "@/core/layout/bars";
import { SheetProblemSchema, verifySheets } from "@/core/layout/sheets";
import { findJob, saveLayout } from "@/db";
import { connection } from "@/server";
import { guarded, NO_SUCH_JOB, readBody, sayJson, sayProblem } from "../../../answer";

const whole = v.pipe(v.number(), v.integer(), v.minValue(0));
const finite = v.pipe(v.number(), v.finite());
const left = { qty: whole, why: v.pipe(v.string(), v.maxLength(400)) };
const outcome = {
  cost: v.nullable(finite),
  count: whole,
  lowerBound: finite,
  lowerBoundOf: v.picklist(["cost", "count"]),
  proven: v.boolean(),
};
const common = {
  taskId: v.pipe(v.string(), v.minLength(1), v.maxLength(300)),
  fingerprint: v.pipe(v.string(), v.maxLength(5_000_000)),
  revision: whole,
  pieces: v.array(v.object({ mark: v.string(), name: v.string() })),
};
const rect = { x: finite, y: finite, length: finite, width: finite };
const KeptSchema = v.variant("kind", [
  v.object({
    ...common,
    kind: v.literal("bars"),
    problem: BarProblemSchema,
    layout: v.object({
      ...outcome,
      bars: v.array(v.object({ stock: whole, times: whole, pieces: v.array(whole), remainder: finite })),
      unplaced: v.array(v.object({ ...left, piece: whole })),
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
          placements: v.array(v.object({ ...rect, panel: whole, rotated: v.boolean() })),
          offcuts: v.array(v.object(rect)),
        }),
      ),
      unplaced: v.array(v.object({ ...left, panel: whole })),
    }),
  }),
]);
const Body = v.object({ variant: v.pipe(v.string(), v.maxLength(60)), kept: KeptSchema });

export function PUT(request: Request, { params }: { readonly params: Promise<{ readonly id: string }> }) {
  return guarded(async () => {
    const body = await readBody(request, Body);
    if (!body.ok) return body.problem;
    const db = await connection();
    const { id } = await params;
    if (!(await findJob(db, id))) return NO_SUCH_JOB();
    const { kept, variant } = body.value;
    const fault =
      kept.kind === "bars" ? verifyBars(kept.problem, kept.layout) : verifySheets(kept.problem, kept.layout);
    if (fault) return sayProblem(`The layout was not kept: ${fault}.`, 422);
    await saveLayout(db, id, variant, kept satisfies KeptLayout, Date.now());
    return sayJson({});
  });
}
