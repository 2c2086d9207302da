/**
 * The cut list of a job: an ordinary list that every job has. Its setup is a record only once somebody has changed it; until
 * then, and again when that record is removed, it is the usual one.
 */
import { own } from "../kernel";
import type { Job } from "./job";
import { LIST_DEFAULTS, type ListSetup, plainColumn } from "./list-setup";

export const CUT_LIST = "cut" as ListSetup["id"];

/** Made pieces under their section or board, as the tally has them. */
const USUAL: ListSetup = {
  ...LIST_DEFAULTS,
  id: CUT_LIST,
  name: "Cut list",
  kinds: ["member", "panel", "other"],
  assembly: null,
  columns: (
    [
      ["mark", 9],
      ["name", 20],
      ["count", 8],
      ["silhouette", 22],
      ["size", 23],
      ["end1", 9],
      ["end2", 9],
      ["stand", 18],
      ["note", 25],
    ] as const
  ).map(([column, width]) => ({ ...plainColumn(column), width })),
  order: [],
  groupBy: "stock",
  showRows: true,
  totals: false,
  sizeOfMember: null,
  sizeOfPanel: null,
  position: -1,
};

/** The setup of the cut list. */
export const cutListOf = (job: Pick<Job, "lists">): ListSetup => own(job.lists, CUT_LIST) ?? USUAL;

/** The lists that somebody added, in their order: all but the cut list. */
export const addedLists = ({ lists }: Pick<Job, "lists">): readonly ListSetup[] =>
  Object.values(lists)
    .filter(({ id }) => id !== CUT_LIST)
    .sort((a, b) => a.position - b.position);
