/** The cutting order of a kept layout as a table: what to set, what to cut, what comes of it. */

import { at, LENGTH_TOLERANCE_MM } from "../kernel";
import type { KeptLayout } from "../layout";
import { barCuts } from "../layout/bars";
import { type SheetCut, sheetCuts } from "../layout/sheets";
import { formatLength, type LengthStyle } from "../measure";
import type { TallyRow } from "../tally";
import { endCell, standWords } from "./cut-list";
import { type Column, type ListRow, type ListTable, numberCell, textCell } from "./table";

type KeptBars = Extract<KeptLayout, { kind: "bars" }>;
type KeptSheets = Extract<KeptLayout, { kind: "sheets" }>;

const column = (id: string, heading: string, width: number, align: Column["align"] = "left"): Column => ({
  id,
  heading,
  align,
  width,
  writes: null,
});

const row = (id: string, cells: ListRow["cells"]): ListRow => ({
  id,
  records: [],
  summed: false,
  level: 0,
  cells,
});

const table = (
  title: string,
  columns: readonly Column[],
  rows: readonly ListRow[],
  note: string,
): ListTable => ({
  title,
  columns,
  groups: rows.length === 0 ? [] : [{ heading: "", detail: "", summary: "", rows }],
  groupColumns: [],
  foot: [],
  notes: [note],
});

const BAR_COLUMNS = [
  column("stop", "Stop", 10, "right"),
  column("mark", "Mark", 8),
  column("ends", "Ends °", 20),
  column("pieces", "Pieces", 8, "right"),
  column("from", "From", 30),
];

/** One row for each stop setting and mark; the next setting only when this one is done with. */
export function barOrderTable(
  { problem, layout, pieces }: KeptBars,
  rows: readonly TallyRow[],
  style: LengthStyle,
): ListTable {
  const order = barCuts(problem, layout);
  const byMark = new Map(rows.map((one) => [one.mark, one]));
  const lines = order.steps.flatMap(({ setting, from }, i) => {
    const marks = [...new Set(from.map(({ piece }) => piece))];
    return marks.map((piece, k) => {
      const own = from.filter((one) => one.piece === piece);
      const count = own.reduce((sum, { each, bars }) => sum + each * bars, 0);
      const { mark } = at(pieces, piece);
      return row(`${i}.${k}`, {
        stop: numberCell(setting, k === 0 ? formatLength(setting, style, LENGTH_TOLERANCE_MM) : ""),
        mark: textCell(mark),
        ends: textCell(endWords(byMark.get(mark))),
        pieces: numberCell(count),
        from: textCell(own.map(fromWords).join(", ")),
      });
    });
  });
  const settings = order.steps.length;
  const note = `${order.cuts} cuts at ${settings} ${settings === 1 ? "stop setting" : "stop settings"}; longest first, each setting on all its bars before the next.`;
  return table("Cutting order", BAR_COLUMNS, lines, note);
}

function fromWords({ pattern, each, bars }: { pattern: number; each: number; bars: number }): string {
  const which = bars === 1 ? `pattern ${pattern + 1}` : `the ${bars} bars of pattern ${pattern + 1}`;
  return bars === 1 && each === 1 ? which : `${each} from ${bars === 1 ? "" : "each of "}${which}`;
}

/** Both angles and how they stand to one another; square ends need no words. */
function endWords(tally: TallyRow | undefined): string {
  const form = tally?.shown.form;
  if (form?.kind !== "member") return "";
  const both = `${endCell(form, 0).text} / ${endCell(form, 1).text}`;
  const stand = standWords(form);
  return stand === "square" ? "square" : `${both}, ${stand}`;
}

const SHEET_COLUMNS = [
  column("step", "Step", 6, "right"),
  column("cut", "Cut", 14),
  column("setting", "Setting", 12, "right"),
  column("of", "From", 22),
  column("gives", "Gives", 30),
];

const CUT_WORDS = { trim: "trim an edge", rip: "rip", cross: "cross-cut" } as const;

/** One row for each setting: all parts that are cut at it, and what comes off. */
export function sheetOrderTable(
  { problem, layout, pieces }: KeptSheets,
  sheet: number,
  style: LengthStyle,
): ListTable {
  const order = sheetCuts(problem, at(layout.sheets, sheet));
  const name = (part: number) => (part === 0 ? "the sheet" : `part ${part}`);
  const gives = ({ part, panel }: Pick<SheetCut, "part" | "panel">) =>
    panel === null ? name(part) : at(pieces, panel).mark;
  const runs: SheetCut[][] = [];
  for (const cut of order.cuts) {
    const last = runs.at(-1);
    const like = last?.[0]?.kind === cut.kind && last[0].setting === cut.setting;
    if (like && last) last.push(cut);
    else runs.push([cut]);
  }
  const rows = runs.map((cuts, i) => {
    const { kind, setting } = at(cuts, 0);
    const from = [...new Set(cuts.map(({ of }) => name(of)))];
    return row(String(i), {
      step: numberCell(i + 1),
      cut: textCell(`${CUT_WORDS[kind]}${cuts.length > 1 ? ` × ${cuts.length}` : ""}`),
      setting: numberCell(setting, formatLength(setting, style, LENGTH_TOLERANCE_MM)),
      of: textCell(from.join(", ")),
      gives: textCell(kind === "trim" ? "reference edges" : counted(cuts.map(gives))),
    });
  });
  const left = order.left.filter(({ panel }) => panel !== null);
  const words = `${order.cuts.length} cuts at ${order.settings} settings.`;
  const rest = left.map((one) => `${gives(one)} from ${name(one.of)}`).join(", ");
  const note = left.length > 0 ? `${words} Left at its size without a cut: ${rest}.` : words;
  return table(`Cutting order of sheet ${sheet + 1}`, SHEET_COLUMNS, rows, note);
}

/** "C × 4, part 2": what is alike counted together. */
function counted(names: readonly string[]): string {
  const counts = new Map<string, number>();
  for (const one of names) counts.set(one, (counts.get(one) ?? 0) + 1);
  return [...counts].map(([one, count]) => (count === 1 ? one : `${one} × ${count}`)).join(", ");
}
