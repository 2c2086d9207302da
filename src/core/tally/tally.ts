/**
 * The tally: every piece of the job in exactly one row with a mark and a count, and a balance that
 * shows it. Pure: the same job, shape and stockroom give the same tally.
 */

import { type Check, type Job, jobStyle, plainCheck } from "../job";
import { byKey, byNaturalText, byNumber, inTurn, type Order } from "../kernel";
import type { LengthStyle } from "../measure";
import type { Shape } from "../shape";
import type { Stockroom } from "../stockroom";
import { collectPieces } from "./collect";
import type { Group } from "./group";
import { handRowChecks, handRowOfPiece, together } from "./hand-rows";
import { giveMarks, type MarkedGroup, marksToKeep } from "./marks";
import { TWIN_TOLERANCE } from "./member-twins";
import { newTallyMemory, type TallyMemory } from "./memory";
import { nearTwinChecks } from "./near-twins";
import type { Piece } from "./piece";
import { pieceChecks } from "./piece-checks";
import type { TallyRow } from "./row";
import { eitherDistance, groupPieces } from "./rows";

export type Balance = {
  readonly design: number;
  readonly inRows: number;
  readonly bought: number;
  readonly leftOut: number;
  readonly guides: number;
};

export type LeftOut = { readonly id: string; readonly name: string; readonly quantity: number };

export type Tally = {
  readonly rows: readonly TallyRow[];
  readonly checks: readonly Check[];
  readonly balance: Balance;
  readonly batch: number;
  /** Pieces that were left out of the lists, each with what leaves it out. */
  readonly leftOut: readonly LeftOut[];
  /** Row of each piece, by the id of its record. */
  readonly rowOfPiece: ReadonlyMap<string, TallyRow>;
  /** Marks that differ from those kept in the job. */
  readonly newMarks: readonly { readonly id: string; readonly mark: string }[];
};

const KIND_ORDER: Readonly<Record<Piece["kind"], number>> = { member: 0, panel: 1, other: 2, bought: 3 };

function mainSize(piece: Piece): number {
  return piece.form.kind === "member"
    ? piece.form.cutNm
    : piece.form.kind === "panel"
      ? piece.form.lengthNm
      : 0;
}

/** Made before bought, by stock as the stockroom has it, longest first. */
function readingOrder(stockroom: Stockroom): Order<Group> {
  const place = new Map(
    [...stockroom.sections, ...stockroom.boards, ...stockroom.bought].map((entry, i) => [entry.id, i]),
  );
  const stockPlace = (group: Group) =>
    group.shown.stock === null ? 1e9 : (place.get(group.shown.stock) ?? 1e9);
  return inTurn(
    byKey((group: Group) => KIND_ORDER[group.shown.kind], byNumber),
    byKey(stockPlace, byNumber),
    byKey((group: Group) => group.shown.stockName ?? "", byNaturalText),
    byKey((group: Group) => group.shown.material ?? "", byNaturalText),
    byKey((group: Group) => -mainSize(group.shown), byNumber),
    byKey((group: Group) => nameOf(group), byNaturalText),
    byKey((group: Group) => group.shown.id, byNaturalText),
  );
}

/** The name that most of its pieces carry. */
function nameOf(group: Group): string {
  const counts = new Map<string, number>();
  for (const { piece, quantity } of group.pieces)
    counts.set(piece.name, (counts.get(piece.name) ?? 0) + quantity);
  return [...counts].reduce((best, entry) => (entry[1] > best[1] ? entry : best))[0];
}

/** A tally stage with its own memory: pieces and stocks that an edit does not touch are not grouped again. */
export function createTallier(): (job: Job, shape: Shape, stockroom: Stockroom) => Tally {
  const memory = newTallyMemory();
  return (job, shape, stockroom) => tallyJob(job, shape, stockroom, memory);
}

/** Groups the pieces of a job into marked rows and balances them. */
function tallyJob(
  job: Job,
  shape: Shape,
  stockroom: Stockroom,
  memory: TallyMemory = newTallyMemory(),
): Tally {
  const { pieces, guides } = collectPieces(job, shape, stockroom, memory);
  const listed = pieces.filter((piece) => !piece.leftOut);
  const groups = [...groupPieces(listed, memory, handRowOfPiece(job))].sort(readingOrder(stockroom));
  const made = groups.filter((group) => group.shown.kind !== "bought");
  const kept = new Map(Object.values(job.marks).map((one) => [one.id, one]));
  const { marked, shared } = giveMarks(made, kept);
  const batch = job.info.job.batch;
  const bought = groups.filter((group) => group.shown.kind === "bought");
  const rows = [
    ...marked.map(({ group, mark }) =>
      toRow(
        group,
        mark,
        batch,
        group.pieces.some(({ piece }) => kept.get(piece.id)?.held && kept.get(piece.id)?.mark === mark),
      ),
    ),
    ...bought.map((group) => toRow(group, "", batch, false)),
  ];
  const rowOfPiece = new Map(rows.flatMap((row) => row.pieces.map((piece) => [piece.id, row] as const)));
  const checks = [
    ...shape.checks,
    ...pieceChecks(job, pieces, stockroom),
    ...groupChecks(marked, shared, jobStyle(job)),
    ...memory.nearTwins(memory, nearTwinInputs(job, shape, rows), () => nearTwinChecks(job, shape, rows)),
    ...typedLikeDrawn(rows),
  ].map((check) => withMarks(check, rowOfPiece));
  return {
    rows,
    checks,
    balance: balanceOf(pieces, rows, batch, shape.guides + guides * batch),
    batch,
    leftOut: pieces
      .filter((piece) => piece.leftOut)
      .map(({ id, name, quantity }) => ({ id, name, quantity: quantity * batch })),
    rowOfPiece,
    newMarks: marksToKeep(marked, kept),
  };
}

/** All that near twins are found and told by. */
function nearTwinInputs(job: Job, shape: Shape, rows: readonly TallyRow[]): readonly unknown[] {
  const { meant, points, lines, members, panels, boughtParts, typedPieces, keySizes } = job;
  const design = [points, lines, members, panels, boughtParts, typedPieces, keySizes, shape.points];
  const from: unknown[] = [meant, ...design];
  for (const { shown, mark, count, name, pieces } of rows)
    from.push(
      shown.form,
      shown.boughtLength,
      shown.stock,
      shown.material,
      mark,
      count,
      name,
      pieces.length,
      pieces[0]?.id,
    );
  return from;
}

function toRow(group: Group, mark: string, batch: number, held: boolean): TallyRow {
  const { shown } = group;
  const hands = { asDrawn: 0, opposite: 0 };
  for (const { quantity, hand } of group.pieces) hands[hand] += quantity * batch;
  return {
    id:
      mark === ""
        ? `bought ${shown.stock ?? shown.id} ${shown.boughtLength ?? ""}${group.byHand === null ? "" : ` ${group.byHand}`}`
        : mark,
    mark,
    held,
    byHand: group.byHand,
    name: nameOf(group),
    kind: shown.kind,
    count: hands.asDrawn + hands.opposite,
    hands,
    stock: shown.stock,
    stockName: shown.stockName,
    material: shown.material,
    shown,
    pieces: group.pieces.map(({ piece, quantity, hand, first }) => ({
      id: piece.id,
      quantity,
      hand,
      first,
      places: piece.places,
      ofRecord: piece.quantity,
    })),
    typed: shown.typed,
  };
}

function groupChecks(
  marked: readonly MarkedGroup[],
  shared: readonly { mark: string; instead: string }[],
  style: LengthStyle,
): readonly Check[] {
  const spread = marked
    .filter(({ group }) => group.spread && group.byHand === null)
    .map(({ group, mark }) =>
      plainCheck(
        "spreadRow",
        "warning",
        `Mark ${mark}: its sizes differ in small steps, each below the tolerance. The pieces are in several rows.`,
        group.pieces.map(({ piece }) => piece.id),
      ),
    );
  const doubled = shared.map(({ mark, instead }) => ({
    ...plainCheck(
      "markShared",
      "error",
      `The list uses mark ${mark} for pieces of different size; the later ones are called ${instead} here.`,
      [],
    ),
    marks: [mark, instead],
  }));
  return [...spread, ...handRowChecks(marked, style), ...doubled];
}

/** Typed-in rows never merge with drawn ones by themselves: it is said where they could. */
function typedLikeDrawn(rows: readonly TallyRow[]): readonly Check[] {
  const drawn = rows.filter((row) => !row.typed && row.shown.form.kind !== "none");
  return rows
    .filter((row) => row.typed && row.stock !== null && row.byHand === null)
    .flatMap((row) => {
      const like = drawn.find(
        (other) =>
          other.stock === row.stock &&
          other.material === row.material &&
          eitherDistance(other.shown.form, row.shown.form, TWIN_TOLERANCE) <= 1,
      );
      if (!like) return [];
      const check = plainCheck(
        "typedLikeDrawn",
        "warning",
        `Mark ${row.mark} is typed in and has the size of the drawn mark ${like.mark}; they are counted apart.`,
        row.pieces.map((piece) => piece.id),
      );
      const edit = together([like, row], `hand-${row.pieces[0]?.id ?? row.mark}`);
      return [{ ...check, marks: [row.mark, like.mark], fix: { label: "Merge rows", edit } }];
    });
}

function withMarks(check: Check, rowOfPiece: ReadonlyMap<string, TallyRow>): Check {
  if (check.marks.length > 0) return check;
  const marks = new Set(
    check.records.map((id) => rowOfPiece.get(id)?.mark ?? "").filter((mark) => mark !== ""),
  );
  return marks.size === 0 ? check : { ...check, marks: [...marks] };
}

function balanceOf(
  pieces: readonly Piece[],
  rows: readonly TallyRow[],
  batch: number,
  guides: number,
): Balance {
  const count = (list: readonly Piece[]) => list.reduce((sum, piece) => sum + piece.quantity * batch, 0);
  const inRows = rows.filter((row) => row.kind !== "bought").reduce((sum, row) => sum + row.count, 0);
  const bought = rows.filter((row) => row.kind === "bought").reduce((sum, row) => sum + row.count, 0);
  return {
    design: count(pieces),
    inRows,
    bought,
    leftOut: count(pieces.filter((piece) => piece.leftOut)),
    guides,
  };
}

export function balances({ design, inRows, bought, leftOut }: Balance): boolean {
  return design === inRows + bought + leftOut;
}
