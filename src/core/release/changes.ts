/**
 * What changed between two tallies of one job: rows are matched by their mark, then by the pieces that
 * they share. The screen compares with what was last looked at; releases will compare with a letter.
 */
import { fromNm } from "../kernel";
import { formatDegrees, formatLength, type LengthStyle } from "../measure";
import { anglesOf, type Tally, type TallyRow } from "../tally";

/** The facts of a row that a shop acts on, as plain data that can be kept. */
export type RowFacts = {
  readonly id: string;
  readonly name: string;
  readonly count: number;
  readonly size: readonly number[];
  readonly angles: readonly number[];
  readonly stock: string;
};

export type RowChange =
  | { readonly kind: "new" }
  | { readonly kind: "changed"; readonly words: readonly string[] };

export type Changes = {
  /** By the id of the row as it is now. */
  readonly byRow: ReadonlyMap<string, RowChange>;
  readonly gone: readonly RowFacts[];
};

function rowFacts(row: TallyRow): RowFacts {
  const { form } = row.shown;
  const size =
    form.kind === "member"
      ? [fromNm(form.cutNm)]
      : form.kind === "panel"
        ? [form.lengthNm, form.widthNm, form.thicknessNm ?? 0].map(fromNm)
        : [];
  const angles =
    form.kind === "member"
      ? [anglesOf(form.start).angle, anglesOf(form.end).angle].sort((a, b) => a - b)
      : [];
  return {
    id: row.id,
    name: row.name,
    count: row.count,
    size,
    angles,
    stock: `${row.stockName ?? ""} ${row.material ?? ""}`.trim(),
  };
}

export function factsOf(tally: Tally): readonly RowFacts[] {
  return tally.rows.map(rowFacts);
}

/** Which rows differ from what they were, in words with the old value. */
export function changesSince(before: readonly RowFacts[], tally: Tally, style: LengthStyle): Changes {
  const old = new Map(before.map((facts) => [facts.id, facts]));
  const byRow = new Map<string, RowChange>();
  for (const row of tally.rows) {
    const was = old.get(row.id);
    old.delete(row.id);
    if (!was) byRow.set(row.id, { kind: "new" });
    else {
      const words = differences(was, rowFacts(row), style);
      if (words.length > 0) byRow.set(row.id, { kind: "changed", words });
    }
  }
  return { byRow, gone: [...old.values()] };
}

function differences(was: RowFacts, is: RowFacts, style: LengthStyle): readonly string[] {
  const words: string[] = [];
  const sizeText = (size: readonly number[]) => size.map((mm) => formatLength(mm, style, 0.1)).join(" × ");
  const differs = (a: readonly number[], b: readonly number[], by: number) =>
    a.length !== b.length || a.some((value, i) => Math.abs(value - (b[i] ?? 0)) > by);
  if (differs(was.size, is.size, 1e-6)) words.push(`was ${sizeText(was.size)}`);
  if (was.count !== is.count) words.push(`was ${was.count} off`);
  if (differs(was.angles, is.angles, 1e-3)) words.push(`was ${was.angles.map(formatDegrees).join(" / ")}°`);
  if (was.stock !== is.stock) words.push(`was ${was.stock || "without stock"}`);
  return words;
}
