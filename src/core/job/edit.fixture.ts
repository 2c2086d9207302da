/** What the tests of the edits share: an edit made on the small frame, or the sentence why it is refused. */
import { sentence } from "../kernel";
import { smallFrame } from "../pipeline.fixture";
import { applyEdit, type Edit, type Job, withEdit } from ".";

export const job = smallFrame();

export const edited = (edit: Edit, from: Job = job): Job => {
  const next = withEdit(from, edit);
  if (!next.ok) throw new Error(sentence(next.problem));
  return next.value;
};

/** Empty when the edit is not refused. */
export const refusal = (edit: Edit, from: Job = job): string => {
  const diff = applyEdit(from, edit);
  return diff.ok ? "" : sentence(diff.problem);
};
