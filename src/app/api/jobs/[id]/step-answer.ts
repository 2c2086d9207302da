/** The answer to an edit, an undo or a redo. The document goes along unless the caller already has it. */
import type { Job } from "@/core/job";
import type { StepNames } from "@/db";
import type { StepAnswer } from "@/server";
import { NO_SUCH_JOB, sayJson } from "../../answer";

type Outcome = {
  readonly answer: StepAnswer;
  readonly stored: { readonly revision: number; readonly job: Job };
  readonly steps: StepNames;
};

export function sayStep(outcome: Outcome | null, expectedRevision: number | null): Response {
  if (!outcome) return NO_SUCH_JOB();
  const { answer, stored, steps } = outcome;
  const base = { revision: stored.revision, steps };
  if (answer.status === "refused") {
    return sayJson(
      { ...base, status: "refused", message: answer.message, job: stored.job },
      answer.clash ? 409 : 422,
    );
  }
  const known = expectedRevision !== null && !answer.replayed;
  return sayJson({
    ...base,
    status: "applied",
    replayed: answer.replayed,
    ...(known ? {} : { job: stored.job }),
  });
}
