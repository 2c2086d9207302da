/** What the tasks of all kinds are made of. */
import { fromNm } from "../../kernel";
import {
  type BoardEntry,
  boardInMaterial,
  isOfMaterial,
  type Priced,
  type RackUse,
  type SectionEntry,
  usableRack,
} from "../../stockroom";
import type { PanelForm, TallyRow } from "../../tally";
import {
  type LaidPiece,
  type LayoutTask,
  type NamedRow,
  stockOfTask,
  type TaskGround,
  type TaskStock,
} from "../types";

export const stockOfRow = ({ stock, stockName, material }: TallyRow): TaskStock => ({
  entry: stock ?? `?${stockName ?? ""}`,
  material,
});

export const styled = ({ wishes: { style } }: TaskGround) => (style ? { style } : {});

/** The board that rows are cut from, and what the job says of it otherwise than the stockroom. */
export function boardOf(named: readonly NamedRow[], { stockroom, wishes }: TaskGround) {
  const stock = named[0]?.row.stock;
  const entry = stock ? (stockroom.boardById.get(stock) ?? null) : null;
  return { entry, own: entry ? wishes.layoutSettings[entry.id] : undefined };
}

export const ofMaterial = (entry: BoardEntry | null, named: readonly NamedRow[], { stockroom }: TaskGround) =>
  entry && boardInMaterial(stockroom, entry, named[0]?.row.material ?? null);

/**
 * The sizes that a stock comes in. `priced` is the entry of the material that is wanted; without one the sizes are those of
 * the entry itself, and what they cost is not known.
 */
export function stockOf<E, S extends { readonly price: number | null }>(
  entry: E | null,
  priced: E | null,
  sizesOf: (entry: E) => readonly Priced<S>[],
) {
  if (priced) return sizesOf(priced).map(({ size }) => ({ ...size, rack: null }));
  return entry ? sizesOf(entry).map(({ size }) => ({ ...size, price: null, rack: null })) : [];
}

export const finishedOf = (form: PanelForm) => [fromNm(form.lengthNm), fromNm(form.widthNm)] as const;

export const laidPiece = ({ mark, name }: TallyRow, job: string | null): LaidPiece =>
  job === null ? { mark, name } : { mark, name, job };

export function rackOf(
  id: string,
  entry: SectionEntry | BoardEntry | null,
  use: RackUse,
  named: readonly NamedRow[],
  { rack, variant }: TaskGround,
) {
  if (use === "none" || !entry) return [];
  const material = named[0]?.row.material ?? entry.material;
  return usableRack(rack, { entry: entry.id, id, variant }).filter((one) =>
    isOfMaterial(one.material ?? entry.material, material),
  );
}

/** Rack sheets as stock of a problem: each is there once and costs nothing. */
export const rackSheets = (...of: Parameters<typeof rackOf>) =>
  rackOf(...of).flatMap(({ id, length, width }) =>
    width === null ? [] : [{ length, width, price: 0, count: 1, rack: id }],
  );

export function common(
  id: string,
  named: readonly NamedRow[],
  name: string | undefined,
): Pick<LayoutTask, "id" | "stock" | "name" | "material" | "rows"> {
  const first = named[0]?.row;
  return {
    id,
    stock: first ? stockOfRow(first) : stockOfTask(id),
    name: name ?? first?.stockName ?? (first?.kind === "panel" ? "No board chosen" : "No section chosen"),
    material: first?.material ?? null,
    rows: named.map(({ row }) => row),
  };
}

/** Settings and stock, then sizes and counts, then marks: so that what has changed since can be told. */
export const fingerprintOf = (
  settings: object,
  sizes: readonly object[],
  pieces: readonly LaidPiece[],
): string => JSON.stringify([settings, sizes, pieces.map(({ mark, job }) => [mark, job ?? ""])]);
