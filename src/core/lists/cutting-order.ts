/** The cutting order of a saved layout as a table: what to set, what to cut, what comes of it. */

import { addTo, at, counted, LENGTH_TOLERANCE_MM } from "../kernel";
import {
  pieceKey,
  type RowFinder,
  type SavedBars,
  type SavedSheets,
  sawFor,
  sawReasonWords,
} from "../layout";
import { type BarStep, barCuts, type PieceTurn } from "../layout/bars";
import { type SheetCut, sheetCuts } from "../layout/sheets";
import { formatLength, type LengthStyle } from "../measure";
import type { SawEntry } from "../stockroom";
import type { TallyRow } from "../tally";
import { type GrooveRun, grooveRuns } from "./groove-settings";
import { endCell, standWords } from "./piece-notes";
import { type ListTable, numberCell, SILHOUETTE_COLUMN, textCell } from "./table";
import { column, row, table } from "./work-table";

const BAR_COLUMNS = [
  column("stop", "Stop", 9, "right"),
  column("mark", "Mark", 8),
  column("ends", "Ends °", 20),
  column(SILHOUETTE_COLUMN, "Piece", 16),
  column("lies", "Lies", 13),
  column("pieces", "Pieces", 7, "right"),
  column("from", "From", 28),
];
const SAW_COLUMN = column("saw", "Saw", 16);

const TURN_WORDS: Readonly<Record<PieceTurn, string>> = {
  end: "end for end",
  over: "turned over",
  roll: "rolled over",
};

/** The id of a row of the order, which says what is drawn of it: the piece and the way it lies. */
const orderRowId = (step: number, piece: number, turn: PieceTurn | null) =>
  `${step}.${piece}.${turn ?? "drawn"}`;

export function ofOrderRow(id: string): { readonly piece: number; readonly turn: PieceTurn | null } | null {
  const [, piece, turn] = id.split(".");
  if (piece === undefined || turn === undefined) return null;
  const known = (Object.keys(TURN_WORDS) as PieceTurn[]).find((one) => one === turn);
  return { piece: Number(piece), turn: known ?? null };
}

/** One row for each saw, stop setting, mark and way of lying; the next setting only when this one is done with. */
export function barOrderTable(
  { problem, layout, pieces }: SavedBars,
  rowOf: RowFinder,
  style: LengthStyle,
  saws: readonly SawEntry[] = [],
): ListTable {
  const choices = pieces.map((piece) => {
    const form = rowOf(piece)?.shown.form;
    return form?.kind === "member" ? sawFor(saws, form) : { saw: null, why: null };
  });
  const sawOf = (piece: number) => {
    const { saw } = at(choices, piece);
    return saw ? saws.indexOf(saw) : saws.length;
  };
  const order = barCuts(problem, layout, sawOf);
  const turned = layout.bars.some((bar) => bar.turns);
  const lines = order.steps.flatMap((step, i) =>
    ways(step).map(({ piece, turn, from }, k) => {
      const count = from.reduce((sum, { each, bars }) => sum + each * bars, 0);
      const { saw, why } = at(choices, piece);
      return row(orderRowId(i, piece, turn), {
        stop: numberCell(step.setting, k === 0 ? formatLength(step.setting, style, LENGTH_TOLERANCE_MM) : ""),
        mark: textCell(pieceKey(at(pieces, piece))),
        ends: textCell(endWords(rowOf(at(pieces, piece)) ?? undefined)),
        ...(turned ? { lies: textCell(turn === null ? "as drawn" : TURN_WORDS[turn]) } : {}),
        pieces: numberCell(count),
        from: textCell(from.map(fromWords).join(", ")),
        ...(saws.length === 0 ? {} : { saw: textCell(saw?.name ?? (why ? sawReasonWords(why, style) : "")) }),
      });
    }),
  );
  const columns = BAR_COLUMNS.filter(({ id }) => turned || id !== "lies");
  const note = `${counted(order.cuts, "cut")} at ${counted(order.steps.length, "stop setting")}; longest first, each setting on all its bars before the next.`;
  return table("Cutting order", saws.length === 0 ? columns : [SAW_COLUMN, ...columns], lines, note);
}

/** The pieces of a step, those of one mark that lie alike together. */
function ways(step: BarStep): readonly {
  readonly piece: number;
  readonly turn: PieceTurn | null;
  readonly from: BarStep["from"];
}[] {
  const byWay = new Map<string, BarStep["from"][number][]>();
  for (const one of step.from) {
    const key = `${one.piece}:${one.turn}`;
    addTo(byWay, key, one);
  }
  return [...byWay.values()].map((from) => ({ piece: at(from, 0).piece, turn: at(from, 0).turn, from }));
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
  saved: SavedSheets,
  sheet: number,
  style: LengthStyle,
  rowOf: RowFinder = () => null,
): ListTable {
  const { problem, layout, pieces } = saved;
  const order = sheetCuts(problem, at(layout.sheets, sheet));
  const name = (part: number) => (part === 0 ? "the sheet" : `part ${part}`);
  const { offcuts } = at(layout.sheets, sheet);
  const sizes = (one: { readonly length: number; readonly width: number }) =>
    `${formatLength(one.length, style, LENGTH_TOLERANCE_MM)} × ${formatLength(one.width, style, LENGTH_TOLERANCE_MM)}`;
  const gives = ({ part, panel, offcut }: Pick<SheetCut, "part" | "panel" | "offcut">) => {
    if (offcut !== null) return `offcut ${sizes(at(offcuts, offcut))}`;
    return panel === null ? name(part) : pieceKey(at(pieces, panel));
  };
  const runs: SheetCut[][] = [];
  for (const cut of order.cuts) {
    const last = runs.at(-1);
    // What is kept together gets its groove before it is separated, so that cut is a step of its own.
    const like =
      last?.[0]?.kind === cut.kind && last[0].setting === cut.setting && last[0].separates === cut.separates;
    if (like && last) last.push(cut);
    else runs.push([cut]);
  }
  const grooves = grooveRuns(saved, sheet, rowOf);
  const grooveRow = (run: GrooveRun, id: string) =>
    row(id, {
      step: textCell(""),
      cut: textCell(run.before === null ? "groove" : "groove, before separating"),
      setting: textCell(run.settings.map((one) => formatLength(one, style, LENGTH_TOLERANCE_MM)).join(" / ")),
      of: textCell(`from ${run.edges.join(" / ")}`),
      gives: textCell(
        `${run.panels} · ${formatLength(run.width, style, LENGTH_TOLERANCE_MM)} × ${formatLength(run.depth, style, LENGTH_TOLERANCE_MM)} deep`,
      ),
    });
  const partedIn = (cuts: readonly SheetCut[]) =>
    grooves.filter(
      ({ before }) =>
        before !== null &&
        cuts.some(
          ({ within, separates }) => separates && [...within].sort((a, b) => a - b).join() === before.join(),
        ),
    );
  const used = new Set<GrooveRun>();
  const rows = runs.flatMap((cuts, i) => {
    const { kind, setting } = at(cuts, 0);
    const from = [...new Set(cuts.map(({ of }) => name(of)))];
    const first = partedIn(cuts).filter((run) => !used.has(run));
    for (const run of first) used.add(run);
    const own = row(String(i), {
      step: numberCell(i + 1),
      cut: textCell(`${CUT_WORDS[kind]}${cuts.length > 1 ? ` × ${cuts.length}` : ""}`),
      setting: numberCell(setting, formatLength(setting, style, LENGTH_TOLERANCE_MM)),
      of: textCell(from.join(", ")),
      gives: textCell(kind === "trim" ? "reference edges" : alikeTogether(cuts.map(gives))),
    });
    return [...first.map((run, k) => grooveRow(run, `groove ${i}.${k}`)), own];
  });
  grooves.forEach((run, k) => {
    if (!used.has(run)) rows.push(grooveRow(run, `groove ${k}`));
  });
  const words = `${counted(order.cuts.length, "cut")} at ${counted(order.settings, "setting")}.`;
  const remain = (all: typeof order.left, start: string) =>
    all.length === 0
      ? ""
      : ` ${start}: ${all.map((one) => `${gives(one)} from ${name(one.of)}`).join(", ")}.`;
  const without =
    remain(
      order.left.filter(({ panel }) => panel !== null),
      "Left at its size without a cut",
    ) +
    remain(
      order.left.filter(({ offcut }) => offcut !== null),
      "Offcuts that remain",
    );
  const note = `${words}${without}${grooves.length > 0 ? " Groove positions: from finished edges." : ""}`;
  return table(`Cutting order of sheet ${sheet + 1}`, SHEET_COLUMNS, rows, note);
}

/** "C × 4, part 2": what is alike counted together. */
function alikeTogether(names: readonly string[]): string {
  const counts = new Map<string, number>();
  for (const one of names) counts.set(one, (counts.get(one) ?? 0) + 1);
  return [...counts].map(([one, count]) => (count === 1 ? one : `${one} × ${count}`)).join(", ");
}
