/** Which rows of the tally go into a list, with the counts that the list means, and in which order. */
import { holds, homeOf, type ListSetup } from "../job";
import { byKey, byNaturalText, byNumber, inTurn, type Order } from "../kernel";
import { indexOfMark, type TallyRow } from "../tally";
import {
  type ListGround,
  listedPlaces,
  NOTHING_KNOWN,
  type PieceLine,
  type RowQuantity,
  rowQuantities,
} from "./list-ground";

/** Whether a list takes a row, apart from where its pieces stand. */
export function rowGoesIn(row: TallyRow, { kinds, materials, marks }: ListSetup): boolean {
  if (!kinds.includes(row.kind)) return false;
  if (materials.length > 0 && !materials.includes(row.material ?? "")) return false;
  return marks.length === 0 || marks.some((wanted) => markIsIn(row.mark, wanted));
}

/** `C` is that mark; `A-F` and `P1-P12` are all from one to the other. */
export function markIsIn(mark: string, wanted: string): boolean {
  if (mark === wanted) return true;
  const [from, to, ...more] = wanted.split(/\s*[-–]\s*/);
  if (from === undefined || to === undefined || more.length > 0) return false;
  const [low, high, own] = [placeOfMark(from), placeOfMark(to), placeOfMark(mark)];
  if (!low || !high || !own) return false;
  return (
    low.before === high.before &&
    own.before === low.before &&
    own.place >= low.place &&
    own.place <= high.place
  );
}

function placeOfMark(mark: string): { readonly before: string; readonly place: number } | null {
  const letters = indexOfMark(mark);
  if (letters !== null) return { before: "letters", place: letters };
  const [, before, digits] = /^(\D*)(\d+)$/.exec(mark) ?? [];
  return before === undefined || digits === undefined
    ? null
    : { before: `digits ${before}`, place: Number(digits) };
}

/** Lines of a list that stands flat: of the whole job, or of one assembly alone. */
export function flatLines(setup: ListSetup, ground: ListGround): readonly PieceLine[] {
  const quantities = rowQuantities(ground);
  const { batch } = ground.tally;
  const inside = assemblyTest(setup, ground);
  const ones = setup.assembly === null ? batch : batch * listedPlaces(ground, setup.assembly).length;
  const lines: PieceLine[] = [];
  for (const row of ground.tally.rows) {
    if (!rowGoesIn(row, setup)) continue;
    const { records, asDrawn, opposite } = inside
      ? counted(row.pieces.filter(({ id }) => inside(id)))
      : countedRow(row);
    const count = (asDrawn + opposite) * batch;
    if (count === 0) continue;
    // Written out: spreading costs more than all that is computed here.
    lines.push({
      kind: "pieces",
      id: row.id,
      level: 0,
      row,
      quantity: quantities.get(row.id) ?? NOTHING_KNOWN,
      records,
      count,
      asDrawn: asDrawn * batch,
      opposite: opposite * batch,
      inOne: count / Math.max(1, ones),
    });
  }
  return lines;
}

type Counted = { readonly records: readonly string[]; readonly asDrawn: number; readonly opposite: number };

function counted(pieces: TallyRow["pieces"]): Counted {
  const sum = { asDrawn: 0, opposite: 0 };
  for (const { hand, quantity } of pieces) sum[hand] += quantity;
  return { records: pieces.map((piece) => piece.id), ...sum };
}

/** Of whole rows, counted once for all lists that show them. */
const COUNTED = new WeakMap<TallyRow, Counted>();
function countedRow(row: TallyRow): Counted {
  const known = COUNTED.get(row) ?? counted(row.pieces);
  COUNTED.set(row, known);
  return known;
}

/** A line of a row before its counts. */
export function lineOf(row: TallyRow, quantities: ReadonlyMap<string, RowQuantity>, level: number) {
  const quantity = quantities.get(row.id) ?? NOTHING_KNOWN;
  return { kind: "pieces", id: row.id, level, row, quantity } as const;
}

function assemblyTest({ assembly }: ListSetup, { job }: ListGround): ((id: string) => boolean) | null {
  if (assembly === null) return null;
  return (id) => {
    if (id === assembly) return true;
    const home = homeOf(job, id);
    return home !== undefined && holds(job, assembly, home);
  };
}

export type Sortable = { readonly value: number | null; readonly text: string };

/**
 * The order of lines: by hand where somebody dragged them, else by columns; numbers by value, texts as people read
 * them, and what has no value last either way. Rows that are equal stay as the tally has them.
 */
export function ordered<T extends { readonly records: readonly string[] }>(
  lines: readonly T[],
  setup: ListSetup,
  cellOf: (line: T, column: string) => Sortable,
): readonly T[] {
  if (setup.handOrder) return byHand(lines, setup.handOrder);
  if (setup.order.length === 0) return lines;
  // Cells are looked up once a line, not once a comparison.
  const keyed = lines.map((line) => ({ line, keys: setup.order.map(({ column }) => cellOf(line, column)) }));
  const orders = setup.order.map(({ descending }, i): Order<(typeof keyed)[number]> => {
    const turn = descending ? -1 : 1;
    return (a, b) => {
      const [x, y] = [a.keys[i], b.keys[i]];
      if (!x || !y) return 0;
      if (x.value !== null && y.value !== null) return turn * byNumber(x.value, y.value);
      if (x.value !== null || y.value !== null) return x.value !== null ? -1 : 1;
      return turn * byNaturalText(x.text, y.text);
    };
  });
  return keyed.sort(inTurn(...orders)).map(({ line }) => line);
}

/** As many records as an order by hand may name. */
const MOST_IN_ORDER = 20_000;

/**
 * Rows as an order by hand: all their records, so that a row keeps its place when some of its pieces leave it. Of very many
 * pieces one stands for each row.
 */
export function handOrderOf(rows: readonly { readonly records: readonly string[] }[]): string[] {
  const all = [...new Set(rows.flatMap(({ records }) => records))];
  return all.length <= MOST_IN_ORDER
    ? all
    : rows.flatMap(({ records }) => records.slice(0, 1)).slice(0, MOST_IN_ORDER);
}

/** Lines whose records nobody dragged come last, as they were. */
function byHand<T extends { readonly records: readonly string[] }>(
  lines: readonly T[],
  order: readonly string[],
): readonly T[] {
  const place = new Map(order.map((id, i) => [id, i]));
  const placeOf = ({ records }: T) =>
    records.reduce((least, id) => Math.min(least, place.get(id) ?? order.length), order.length);
  return lines
    .map((line) => ({ line, at: placeOf(line) }))
    .sort(byKey((one) => one.at, byNumber))
    .map(({ line }) => line);
}
