/** Flat patterns of rows of the tally side by side at full size, for machines: panels as they are cut, ends of members laid flat. */
import { counted } from "../../kernel";
import type { LengthStyle } from "../../measure";
import type { Stockroom } from "../../stockroom";
import type { TallyRow } from "../../tally";
import { type DrawItem, type Drawing, movedBy } from "../display";
import type { Pattern } from "../templates";
import { patternFaultWords } from "./item-fault";
import { type TemplateAsked, wholeTemplate } from "./template-item";

export type FlatPatterns = {
  /** In mm; empty: nothing of it can be laid flat. */
  readonly drawing: Drawing;
  /** Why rows are not in it. */
  readonly told: readonly string[];
};

/** mm between two patterns. */
const APART = 20;
/** Both ends on the outside, along the true surface, on paper without thickness: a machine cuts what is drawn. */
const ASKED: TemplateAsked = { ends: "both", side: "outside", line: "surface", paper: 0 };

/** Rows that cannot be laid flat are told. */
export function flatPatterns(
  rows: readonly TallyRow[],
  ground: { readonly code: string; readonly stockroom: Stockroom; readonly style: LengthStyle },
): FlatPatterns {
  const told: string[] = [];
  const patterns: Pattern[] = [];
  for (const row of rows) {
    const whole = wholeTemplate(
      ASKED,
      { ...row, name: `${row.name}, ${counted(row.count, "piece")}` },
      ground,
    );
    if (whole.ok) patterns.push(whole.value);
    else told.push(`${row.mark} ${row.name}: ${patternFaultWords(whole.problem)}`);
  }
  // As many in a row as make the whole about as wide as high.
  const area = patterns.reduce((sum, { width, height }) => sum + (width + APART) * (height + APART), 0);
  const most = Math.max(Math.sqrt(area) * 1.2, ...patterns.map(({ width }) => width));
  const items: DrawItem[] = [];
  let [x, y, high, far] = [0, 0, 0, 0];
  for (const { width, height, items: own } of patterns) {
    if (x > 0 && x + width > most) [x, y, high] = [0, y + high + APART, 0];
    items.push(...movedBy(own, [x, y]));
    high = Math.max(high, height);
    far = Math.max(far, x + width);
    x += width + APART;
  }
  return { drawing: { width: far, height: y + high, items }, told };
}
