/** The rack in the database: what lies in it, who holds it, and what has left it. */
import { and, asc, eq, isNull } from "drizzle-orm";
import { nextLabel, type RackPiece } from "@/core/stockroom";
import type { Connection, Database } from "./database";
import { rackPieces } from "./schema";

export type Transaction = Parameters<Parameters<Database["transaction"]>[0]>[0];
type Row = typeof rackPieces.$inferSelect;

function pieceOf(row: Row): RackPiece {
  const { id, label, entryId, material, length, width, place, note, cameFrom } = row;
  const holder =
    row.holderJob === null
      ? null
      : {
          job: row.holderJob,
          code: row.holderCode ?? "",
          variant: row.holderVariant ?? "",
          task: row.holderTask ?? "",
        };
  return { id, label, entry: entryId, material, length, width, place, note, from: cameFrom, holder };
}

/** What lies in the rack, by label as it was given. */
export async function readRack({ db }: Connection): Promise<readonly RackPiece[]> {
  const rows = await db
    .select()
    .from(rackPieces)
    .where(isNull(rackPieces.goneAt))
    .orderBy(asc(rackPieces.at), asc(rackPieces.label));
  return rows.map(pieceOf);
}

/** The revision of each piece in the rack, by id. */
export async function readRackRevisions({ db }: Connection): Promise<Readonly<Record<string, number>>> {
  const rows = await db
    .select({ id: rackPieces.id, revision: rackPieces.revision })
    .from(rackPieces)
    .where(isNull(rackPieces.goneAt));
  return Object.fromEntries(rows.map(({ id, revision }) => [id, revision]));
}

/** A new piece without its label, or one that is there already with what is changed. */
export type RackEntry = Omit<RackPiece, "holder" | "label"> & { readonly label: string | null };

export type KeptRackPiece = { readonly piece: RackPiece; readonly revision: number };
const savedOf = (row: Row): KeptRackPiece => ({ piece: pieceOf(row), revision: row.revision });

/** A piece as it was saved, or why not; `theirs`: what somebody else left in the meantime. */
export type RackAnswer =
  | ({ readonly kind: "saved" } & KeptRackPiece)
  | { readonly kind: "refused"; readonly why: string; readonly theirs: KeptRackPiece | null };

const refuse = (why: string, theirs: KeptRackPiece | null = null): RackAnswer => ({
  kind: "refused",
  why,
  theirs,
});

const changedWords = (label: string) => `${label} was changed somewhere else in the meantime.`;

/**
 * Puts a piece into the rack, or changes one that lies there when nobody else did since `expected` (null: it is new).
 */
export async function saveRackPiece(
  { write }: Connection,
  entry: RackEntry,
  at: number,
  expected: number | null = null,
): Promise<RackAnswer> {
  return write((db) =>
    db.transaction(async (tx) => {
      const [known] = await tx.select().from(rackPieces).where(eq(rackPieces.id, entry.id));
      if (known && known.goneAt !== null) return refuse(`${known.label} has left the rack.`);
      if (!known && expected !== null) return refuse("That piece is not in the rack any more.");
      if (known && known.revision !== expected) return refuse(changedWords(known.label), savedOf(known));
      const sized = known && (known.length !== entry.length || known.width !== entry.width);
      if (sized && known.holderJob !== null)
        return refuse(
          `${known.label} is reserved for ${known.holderCode}; its size cannot change while that layout uses it.`,
        );
      const label = entry.label ?? known?.label ?? nextLabel(await allLabels(tx));
      const [taken] = await tx.select().from(rackPieces).where(eq(rackPieces.label, label));
      if (taken && taken.id !== entry.id)
        return refuse(`Label ${label} already exists. Choose another label.`);
      const row = await insert(tx, { ...entry, label }, at, (known?.revision ?? 0) + 1);
      return { kind: "saved", ...savedOf(row) };
    }),
  );
}

const allLabels = async (tx: Transaction) =>
  (await tx.select({ label: rackPieces.label }).from(rackPieces)).map((row) => row.label);

async function insert(
  tx: Transaction,
  { id, label, entry, material, length, width, place, note, from }: Omit<RackPiece, "holder">,
  at: number,
  revision = 1,
): Promise<Row> {
  const row = { id, label, entryId: entry, material, length, width, place, note, cameFrom: from, revision };
  const [saved] = await tx
    .insert(rackPieces)
    .values({ ...row, at })
    .onConflictDoUpdate({ target: rackPieces.id, set: row })
    .returning();
  if (!saved) throw new Error("a rack piece was not stored");
  return saved;
}

/** New pieces from a job, each with the next label. */
export async function addRackPieces(
  tx: Transaction,
  pieces: readonly Omit<RackPiece, "holder" | "label">[],
  at: number,
): Promise<readonly RackPiece[]> {
  const labels = await allLabels(tx);
  const added: RackPiece[] = [];
  for (const [i, piece] of pieces.entries())
    added.push(pieceOf(await insert(tx, { ...piece, label: nextLabel(labels, i) }, at)));
  return added;
}

/** Takes a piece out of the rack; the sentence why not, or null. */
export async function removeRackPiece(
  { write }: Connection,
  id: string,
  at: number,
  expected: number,
): Promise<string | null> {
  return write((db) =>
    db.transaction(async (tx) => {
      const [known] = await tx.select().from(rackPieces).where(eq(rackPieces.id, id));
      if (!known || known.goneAt !== null) return "That piece is not in the rack any more.";
      if (known.holderJob !== null)
        return `${known.label} is reserved for ${known.holderCode}; lay that out without it first.`;
      if (known.revision !== expected) return `${changedWords(known.label)} Look at it, then take it out.`;
      await tx.update(rackPieces).set({ goneAt: at }).where(eq(rackPieces.id, id));
      return null;
    }),
  );
}

export type Holding = {
  readonly job: string;
  readonly code: string;
  readonly variant: string;
  readonly task: string;
};

const heldBy = ({ job, variant, task }: Holding) =>
  and(
    eq(rackPieces.holderJob, job),
    eq(rackPieces.holderVariant, variant),
    eq(rackPieces.holderTask, task),
    isNull(rackPieces.goneAt),
  );

const NOBODY = { holderJob: null, holderCode: null, holderVariant: null, holderTask: null };

/** Frees everything that a job or combined layout holds. */
export async function letGoAll(tx: Transaction, job: string): Promise<void> {
  await tx
    .update(rackPieces)
    .set(NOBODY)
    .where(and(eq(rackPieces.holderJob, job), isNull(rackPieces.goneAt)));
}

/** Sets pieces aside for a layout in the place of those that it held; the sentence why not, or null. */
export async function holdRack(
  tx: Transaction,
  holding: Holding,
  ids: readonly string[],
): Promise<string | null> {
  await tx.update(rackPieces).set(NOBODY).where(heldBy(holding));
  for (const id of ids) {
    const [row] = await tx.select().from(rackPieces).where(eq(rackPieces.id, id));
    if (!row || row.goneAt !== null)
      return `${row?.label ?? "A rack piece"} is not in the rack any more; lay out again.`;
    if (row.holderJob !== null)
      return `${row.label} is reserved for ${row.holderCode} in the meantime; lay out again without it.`;
    const { job, code, variant, task } = holding;
    await tx
      .update(rackPieces)
      .set({ holderJob: job, holderCode: code, holderVariant: variant, holderTask: task })
      .where(eq(rackPieces.id, id));
  }
  return null;
}

/** The pieces that a layout holds leave the rack. */
export async function takeHeld(tx: Transaction, holding: Holding, at: number): Promise<readonly RackPiece[]> {
  const rows = await tx.update(rackPieces).set({ goneAt: at }).where(heldBy(holding)).returning();
  return rows.map(pieceOf);
}
