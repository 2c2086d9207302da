/** Building steps on their page: which one it is, what is to be done, and what comes in with it. */
import type { PlaneBox, Vec2 } from "../../geometry";
import type { StepItem } from "../../job";
import { remembersEach } from "../../kernel";
import { pieceText } from "../../lists";
import { partName, type StandingStep } from "../../steps";
import { type DrawItem, type DrawnText, fitted, type Stroke, wrapped } from "../display";
import type { Face } from "../face";
import { textWidth } from "../text-width";
import type { ItemFault } from "./item-fault";
import type { PageGround } from "./page-ground";
import type { PlacedItem, PlacedRow } from "./placed";
import { faulty } from "./plain-items";

/** mm on paper: heights of the texts, and from line to line. */
const SMALL = 3.6;
const HEAD = 7.2;
const TEXT = 5;
const LINE = 5.6;
const HEAD_LINE = 8;
const ROW = 6;
const THIN: Stroke = { ink: "seam", width: 0.15 };

/** What comes in, by its row: how many, its mark, its name, its size. */
type StepRow = {
  readonly count: number;
  readonly mark: string;
  readonly name: string;
  readonly size: string;
  readonly records: readonly string[];
};

type Drawn = Pick<PlacedItem, "items" | "box" | "rows">;
const drawnSteps = remembersEach<StandingStep, Drawn>();

export function placedStep(item: StepItem, ground: PageGround): PlacedItem {
  const home = ground.steps.get(item.home);
  const standing = home?.steps.find(({ step }) => step.id === item.id);
  if (!home || !standing || (item.home !== null && !ground.job.assemblies[item.home]))
    return faulty(item, [item.at[0] + 35, item.at[1] + 10], { kind: "lost", what: "assemblyOfStep" });
  const drawn = drawnSteps(standing, [item, ground.tally, ground.job], () =>
    drawnStep(item, standing, home.steps.length, ground),
  );
  return { item, at: item.at, fault: faultOf(standing, ground), ...drawn };
}

/** What is wrong with what a step builds in; null: nothing. */
function faultOf({ again, gone }: StandingStep, { job }: PageGround): ItemFault | null {
  if (again.length > 0) {
    const names = [...new Set(again.map((record) => partName(job, record)))];
    return { kind: "builtTwice", names };
  }
  return gone.length > 0 ? { kind: "stepPiecesGone", count: gone.length } : null;
}

/** The rows of a step: pieces by their rows in Tally, assemblies by what they are. */
function rowsOf({ coming, bought }: StandingStep, { job, tally, lists }: PageGround): readonly StepRow[] {
  const rows = new Map<string, StepRow>();
  const put = (key: string, count: number, record: string, row: Omit<StepRow, "count" | "records">) => {
    const before = rows.get(key);
    rows.set(key, {
      ...row,
      count: (before?.count ?? 0) + count,
      records: before?.records.includes(record) ? before.records : [...(before?.records ?? []), record],
    });
  };
  const sizeOf = (record: string): string => {
    const text = pieceText("{size}", record, lists);
    return text.ok && text.value !== "–" ? text.value : "";
  };
  for (const { record } of coming) {
    const row = tally.rowOfPiece.get(record);
    const assembly = job.placements[record]?.assembly;
    const name = partName(job, record);
    // Pieces of a row are alike; here each is called by its own name.
    const key = row ? `${row.id} ${name}` : (assembly ?? record);
    put(key, 1, record, { mark: row?.mark ?? "", name, size: row ? sizeOf(record) : "" });
  }
  for (const { record, count } of bought) {
    const mark = tally.rowOfPiece.get(record)?.mark ?? "";
    put(record, count, record, { mark, name: partName(job, record), size: "" });
  }
  return [...rows.values()];
}

function drawnStep(item: StepItem, standing: StandingStep, steps: number, ground: PageGround): Drawn {
  const { width } = item;
  const items: DrawItem[] = [];
  const put = (
    at: Vec2,
    text: string,
    size: number,
    face: Face,
    more: Partial<DrawnText> & Pick<DrawItem, "record"> = {},
  ) => {
    if (text === "") return;
    items.push({
      kind: "text",
      at,
      text,
      size,
      face,
      align: "left",
      ink: "ink",
      layer: "TEXTS",
      ...more,
    });
  };
  const { job } = ground;
  const assembly = item.home === null ? null : (job.assemblies[item.home]?.name ?? "");
  const place = `Step ${standing.number} of ${steps}`;
  put(
    [0, 2.5],
    fitted(assembly === null ? place : `${assembly}: ${place}`, width, SMALL, "text"),
    SMALL,
    "text",
    {
      ink: "soft",
    },
  );
  let y = 6;
  for (const line of wrapped(item.heading, width, HEAD, "strong")) {
    put([0, y + HEAD_LINE / 2], line, HEAD, "strong");
    y += HEAD_LINE;
  }
  y += 1.5;
  const lines = item.text.split("\n").flatMap((line) => wrapped(line, width, TEXT, "text"));
  if (item.text !== "")
    for (const line of lines) {
      put([0, y + LINE / 2], line, TEXT, "text");
      y += LINE;
    }
  y += 3;
  const rows = rowsOf(standing, ground);
  const columns = columnsOf(rows);
  const placedRows: PlacedRow[] = [];
  const rule = (at: number) =>
    items.push({ kind: "line", from: [0, at], to: [width, at], stroke: THIN, layer: "TEXTS" });
  if (rows.length > 0) rule(y);
  for (const row of rows) {
    const middle = y + ROW / 2;
    const record = row.records[0];
    const marked = record === undefined ? {} : { record };
    put([columns.count, middle], `${row.count} ×`, TEXT, "text", { align: "right", ...marked });
    put([columns.mark, middle], row.mark, TEXT, "strong", marked);
    const sizeWidth = row.size === "" ? 0 : textWidth(row.size, TEXT, "text") + 3;
    const name = fitted(row.name, Math.max(10, width - columns.name - sizeWidth), TEXT, "text");
    put([columns.name, middle], name, TEXT, "text", marked);
    put([width, middle], row.size, TEXT, "text", { align: "right", ...marked });
    placedRows.push({ box: { x0: 0, y0: y, x1: width, y1: y + ROW }, records: row.records });
    y += ROW;
    rule(y);
  }
  const box: PlaneBox = { x0: 0, y0: 0, x1: width, y1: y };
  return { items, box, rows: placedRows };
}

/** Where the columns of the rows begin; that of the counts: where it ends. */
function columnsOf(rows: readonly StepRow[]): {
  readonly count: number;
  readonly mark: number;
  readonly name: number;
} {
  const widest = (texts: readonly string[], face: Face) =>
    Math.max(0, ...texts.map((text) => textWidth(text, TEXT, face)));
  const count = widest(
    rows.map((row) => `${row.count} ×`),
    "text",
  );
  const marks = widest(
    rows.map(({ mark }) => mark),
    "strong",
  );
  const mark = count + 2;
  return { count, mark, name: mark + (marks > 0 ? marks + 3 : 0) };
}
