/**
 * A sheet cut on paper: the cutting order as it is told is carried out with scissors, so to speak, and what comes off must be
 * exactly the panels and the offcuts of the layout. It knows nothing of how the order was made.
 */
import { at, fromNm, toNm } from "../../kernel";
import { type SheetCuttingOrder, sheetCuts } from "./cutting-order";
import type { CutSheet, SheetProblem } from "./problem";

/** A sheet of paper: its sizes in nanometres, and the edges that are still the factory's. */
type Paper = { length: number; width: number; rawLength: boolean; rawWidth: boolean };

/** null, or where carrying out the cuts comes to something else than the layout tells. */
export function walkFault(problem: SheetProblem, sheet: CutSheet): string | null {
  return walkedFault(problem, sheet, sheetCuts(problem, sheet));
}

/** The same for an order that is given. */
export function walkedFault(problem: SheetProblem, sheet: CutSheet, order: SheetCuttingOrder): string | null {
  const stock = at(problem.stock, sheet.stock);
  const [kerf, trim] = [toNm(problem.kerf), toNm(problem.trim)];
  const parts = new Map<number, Paper>([
    [0, { length: toNm(stock.length), width: toNm(stock.width), rawLength: trim > 0, rawWidth: trim > 0 }],
  ]);
  const made: { readonly panel: number | null; readonly offcut: number | null; readonly paper: Paper }[] = [];
  const trims = order.cuts.filter(({ kind }) => kind === "trim");
  if (trims.length !== (trim > 0 ? 2 : 0)) return `${trims.length} edges are trimmed`;
  const whole = parts.get(0);
  if (whole) {
    whole.length -= trim;
    whole.width -= trim;
  }
  // What is left of a part has its name from then on; nothing is cut off the part itself any more.
  const paperOf = (id: number): Paper | null => {
    const known = parts.get(id);
    if (known) return known;
    const left = order.left.find(({ part }) => part === id);
    const paper = left && left.of !== id ? paperOf(left.of) : null;
    if (!left || !paper) return null;
    parts.delete(left.of);
    parts.set(id, paper);
    return paper;
  };
  for (const { kind, setting, of, part, panel, offcut } of order.cuts) {
    if (kind === "trim") continue;
    const paper = paperOf(of);
    if (!paper) return `part ${of} is cut, and there is none`;
    const [size, raw] =
      kind === "rip" ? (["width", "rawWidth"] as const) : (["length", "rawLength"] as const);
    const off = { ...paper, [size]: toNm(setting), [raw]: false };
    paper[size] -= toNm(setting) + kerf;
    if (paper[size] < -kerf) return `part ${of} is too small for a cut at ${setting}`;
    parts.set(part, off);
    if (panel !== null || offcut !== null) made.push({ panel, offcut, paper: off });
  }
  for (const { part, panel, offcut } of order.left) {
    if (panel === null && offcut === null) continue;
    const paper = paperOf(part);
    if (!paper) return `part ${part} is left, and there is none`;
    made.push({ panel, offcut, paper });
  }
  return madeFault(problem, sheet, made);
}

function madeFault(
  problem: SheetProblem,
  sheet: CutSheet,
  made: readonly { readonly panel: number | null; readonly offcut: number | null; readonly paper: Paper }[],
): string | null {
  const trim = toNm(problem.trim);
  const panels = made.flatMap(({ panel, paper }) =>
    panel === null ? [] : [`${panel} of ${paper.length} × ${paper.width}`],
  );
  const wanted = sheet.placements.map((one) => `${one.panel} of ${toNm(one.length)} × ${toNm(one.width)}`);
  if (panels.sort().join() !== wanted.sort().join()) return "its cuts do not give its panels";
  const offcuts = made.flatMap(({ offcut, paper }) => {
    if (offcut === null) return [];
    // An edge that is still the factory's is not part of what is told.
    const length = paper.length - (paper.rawLength ? trim : 0);
    const width = paper.width - (paper.rawWidth ? trim : 0);
    return [`${fromNm(length)} × ${fromNm(width)}`];
  });
  const told = sheet.offcuts.map(({ length, width }) => `${length} × ${width}`);
  return offcuts.sort().join() === told.sort().join() ? null : "its cuts do not give its offcuts";
}
