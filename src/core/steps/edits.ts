/** Edits of building steps: joined, parted, and what comes in moved from one to another. */
import {
  copyOfPage,
  type Edit,
  itemsOfPage,
  type Job,
  type PageEdit,
  type PageItem,
  type StepItem,
  type StepPart,
  withThoseOnThem,
} from "../job";
import { partName } from "./proposal";
import { stepsInOrder } from "./standing";

const isSame = (a: StepPart, b: StepPart): boolean => a.record === b.record && a.repeat === b.repeat;

/** A step with some parts more; those that it has stay as they are. */
export const withParts = (step: StepItem, parts: readonly StepPart[]): StepItem => ({
  ...step,
  comes: [...step.comes, ...parts.filter((part) => !step.comes.some((own) => isSame(own, part)))],
});

/** A step without some parts. */
export const withoutParts = (step: StepItem, parts: readonly StepPart[]): StepItem => ({
  ...step,
  comes: step.comes.filter((own) => !parts.some((part) => isSame(own, part))),
});

/** The steps beside one in the order of its home; null: there is none. */
export function stepsBeside(
  job: Pick<Job, "pages" | "pageItems">,
  step: StepItem,
): { readonly before: StepItem | null; readonly after: StepItem | null } {
  const own = stepsInOrder(job).filter(({ home }) => home === step.home);
  const i = own.findIndex(({ id }) => id === step.id);
  return { before: own[i - 1] ?? null, after: own[i + 1] ?? null };
}

/** Views of a step, and all that stands on them. */
function shownBy(job: Job, step: StepItem): readonly PageItem[] {
  const views = Object.values(job.pageItems).filter((item) => item.kind === "view" && item.step === step.id);
  return withThoseOnThem(
    job,
    views.map(({ id }) => id),
  );
}

/** The edit that puts a step into the one before it; its page goes where nothing else stands there. Null: there is none before it. */
export function joinedWithBefore(job: Job, step: StepItem): Edit | null {
  const { before } = stepsBeside(job, step);
  if (!before) return null;
  const text = [before.text, step.text].filter((one) => one !== "").join("\n");
  const joined: StepItem = { ...withParts(before, step.comes), text: text.slice(0, 2_000) };
  const gone = new Set<string>([step.id, ...shownBy(job, step).map(({ id }) => id)]);
  const left = itemsOfPage(job, step.page).filter(({ id }) => !gone.has(id));
  const remove: PageEdit =
    left.length === 0
      ? { kind: "removePages", ids: [step.page] }
      : { kind: "removePageItems", ids: [...gone] };
  return {
    kind: "together",
    what: `Join the steps ${before.heading} and ${step.heading}`,
    edits: [{ kind: "setPageItems", items: [joined] }, remove],
  };
}

/** Whether an item points at what comes in with a step. */
const pointsAt = (item: PageItem, { comes }: StepItem): boolean =>
  item.kind === "balloon" && item.pieces.some((piece) => comes.some(({ record }) => record === piece.record));

/** The edit that makes another step, on a page right after it, of some parts of a step. Null: they are none, or all. */
export function partedStep(
  job: Job,
  step: StepItem,
  parts: readonly StepPart[],
  newId: (kind: "page" | "pageItem") => string,
): { readonly edit: Edit; readonly page: string } | null {
  const rest = withoutParts(step, parts);
  const taken = withoutParts(step, rest.comes);
  if (rest.comes.length === 0 || taken.comes.length === 0) return null;
  const [page, copied] = copyOfPage(job, step.page, newId) ?? [];
  if (page?.kind !== "setPages" || copied?.kind !== "setPageItems") return null;
  const shown = shownBy(job, step);
  const own = new Set<string>([step.id, ...shown.map(({ id }) => id)]);
  const names = [...new Set(taken.comes.map(({ record }) => partName(job, record)))];
  const heading = (names.join(", ") || step.heading).slice(0, 80);
  // Copies come in the order of what they are of: only the step, and what shows it; of balloons those that name what comes in.
  const copies = itemsOfPage(job, step.page).flatMap((item, i): readonly PageItem[] => {
    const copy = copied.items[i];
    if (!copy || !own.has(item.id) || pointsAt(copy, rest)) return [];
    return copy.kind === "step" ? [{ ...copy, heading, text: "", comes: taken.comes }] : [copy];
  });
  const pages = page.pages.map((one) => ({ ...one, heading }));
  const stray = shown.filter((item) => pointsAt(item, taken)).map(({ id }) => id);
  const edits: PageEdit[] = [
    { kind: "setPages", pages },
    { kind: "setPageItems", items: [...copies, rest] },
  ];
  if (stray.length > 0) edits.push({ kind: "removePageItems", ids: stray });
  return {
    edit: { kind: "together", what: `Part the step ${step.heading}`, edits },
    page: pages[0]?.id ?? "",
  };
}
