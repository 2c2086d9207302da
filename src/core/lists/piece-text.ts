/** Texts about one piece by a pattern over the columns of lists: `{mark}: {size}, {finish}`. */
import {
  computedColumn,
  LIST_DEFAULTS,
  LIST_KINDS,
  type ListSetup,
  ownColumnId,
  plainColumn,
  plainName,
} from "../job";
import { err, filledBraces, ok, type Problem, type Result, remembersEach, strayBrace } from "../kernel";
import type { Tally } from "../tally";
import type { ListGround, PieceLine } from "./list-ground";
import { flatLines } from "./list-rows";
import { listView } from "./list-view";

const SETUP: ListSetup = {
  ...LIST_DEFAULTS,
  id: "piece-text" as ListSetup["id"],
  name: "Piece",
  kinds: [...LIST_KINDS],
  assembly: null,
  columns: [plainColumn("mark")],
  order: [],
  groupBy: null,
  showRows: true,
  totals: false,
  sizeOfMember: null,
  sizeOfPanel: null,
  position: 0,
};

const linesByRecord = remembersEach<Tally, ReadonlyMap<string, PieceLine>>();

/** The text for the piece of a record; names in braces are columns, computed ones or the job's own, however they are typed. */
export function pieceText(pattern: string, record: string, ground: ListGround): Result<string, Problem> {
  const lines = linesByRecord(ground.tally, [ground.quantities], () => {
    const all = flatLines(SETUP, ground);
    return new Map(all.flatMap((line) => line.records.map((id) => [id, line] as const)));
  });
  const line = lines.get(record);
  if (!line)
    return err({ kind: "badValue", what: "The piece", value: record, must: "is not in the lists any more" });
  const view = listView(SETUP, ground);
  const columnOf = (name: string): string | null => {
    const own = Object.values(ground.job.ownColumns).find((one) => plainName(one.name) === plainName(name));
    return own ? ownColumnId(own) : computedColumn(name);
  };
  const stray = strayBrace(pattern, (name) => columnOf(name) !== null);
  if (stray !== null)
    return err({
      kind: "badValue",
      what: "The text",
      value: pattern,
      must: `names ${stray}, which is no column`,
    });
  return ok(
    filledBraces(pattern, (name) => {
      const column = columnOf(name);
      return column === null ? "" : view.cell(line, plainColumn(column)).text;
    }),
  );
}
