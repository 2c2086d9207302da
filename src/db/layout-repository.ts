/**
 * Kept layouts, of jobs and of batches. Keeping one sets the rack pieces aside that it uses; releasing it takes them out of
 * the rack and puts the rests into it: in one transaction, so that nothing is promised twice.
 */
import { createHash, randomUUID } from "node:crypto";
import { and, asc, eq } from "drizzle-orm";
import { type KeptLayout, readKept, restsToKeep, stockOfKept, usedRack } from "@/core/layout";
import type { RackPiece } from "@/core/stockroom";
import type { Connection, Database } from "./database";
import { addRackPieces, type Holding, holdRack, type Transaction, takeHeld } from "./rack-repository";
import { batchLayouts, layouts, releasedLayouts } from "./schema";

/** Whose layouts they are: a variant of a job ("" for its own sizes), or a batch. */
export type LayoutOwner =
  | { readonly job: string; readonly variant: string; readonly code: string }
  | { readonly batch: string; readonly code: string };

export type StoredLayout = KeptLayout & { readonly releasedAt: number | null };

const holdingOf = (owner: LayoutOwner, task: string): Holding =>
  "batch" in owner
    ? { job: owner.batch, code: owner.code, variant: "", task }
    : { job: owner.job, code: owner.code, variant: owner.variant, task };

const rowsOf = (owner: LayoutOwner) =>
  "batch" in owner
    ? eq(batchLayouts.batchId, owner.batch)
    : and(eq(layouts.jobId, owner.job), eq(layouts.variant, owner.variant));

const parsed = (text: string, releasedAt: number | null): StoredLayout => ({
  ...readKept(JSON.parse(text) as KeptLayout),
  releasedAt,
});

export const readLayouts = ({ db }: Connection, owner: LayoutOwner) => layoutsIn(db, owner);

async function layoutsIn(db: Database | Transaction, owner: LayoutOwner): Promise<readonly StoredLayout[]> {
  const rows =
    "batch" in owner
      ? await db.select().from(batchLayouts).where(rowsOf(owner)).orderBy(asc(batchLayouts.taskId))
      : await db.select().from(layouts).where(rowsOf(owner)).orderBy(asc(layouts.taskId));
  return rows.map((row) => parsed(row.kept, row.releasedAt));
}

/** Keeps a layout in the place of the one before; the sentence why not, or null. */
export async function saveLayout(
  { write }: Connection,
  owner: LayoutOwner,
  kept: KeptLayout,
  at: number,
): Promise<string | null> {
  try {
    await write((db) =>
      db.transaction(async (tx) => {
        if (await wasReleased(tx, owner, kept)) throw new Refused(FROZEN);
        const refused = await holdRack(tx, holdingOf(owner, kept.taskId), usedRack(kept));
        // Thrown, so that nothing of it stands.
        if (refused !== null) throw new Refused(refused);
        await put(tx, owner, kept, at);
      }),
    );
    return null;
  } catch (thrown) {
    if (thrown instanceof Refused) return thrown.message;
    throw thrown;
  }
}
class Refused extends Error {}
const FROZEN = "This layout was released and stays as it is. Lay out again to make a new one.";

/** The name of a layout; one without a name of its own is known by its task and by what lies where. */
const idOf = (owner: LayoutOwner, { id, taskId, layout }: KeptLayout): string =>
  id ??
  createHash("sha256")
    .update(inOrder([rackOwner(owner), taskId, layout]))
    .digest("hex");

/** A value as text in which the order of keys says nothing. */
const inOrder = (value: unknown): string =>
  JSON.stringify(value, (_, one: unknown) =>
    one !== null && typeof one === "object" && !Array.isArray(one)
      ? Object.fromEntries(Object.entries(one).sort(([a], [b]) => (a < b ? -1 : 1)))
      : one,
  );

const rackOwner = (owner: LayoutOwner) => ("batch" in owner ? [owner.batch, ""] : [owner.job, owner.variant]);

async function wasReleased(tx: Transaction, owner: LayoutOwner, kept: KeptLayout): Promise<boolean> {
  const id = idOf(owner, kept);
  const [found] = await tx
    .select({ id: releasedLayouts.id })
    .from(releasedLayouts)
    .where(eq(releasedLayouts.id, id));
  if (found !== undefined) return true;
  // Those that were released before releases were recorded are known by their mark.
  const now = (await layoutsIn(tx, owner)).find(({ taskId }) => taskId === kept.taskId);
  return now !== undefined && now.releasedAt !== null && idOf(owner, now) === id;
}

async function put(tx: Transaction, owner: LayoutOwner, kept: KeptLayout, at: number): Promise<void> {
  const text = JSON.stringify({ ...kept, releasedAt: undefined });
  const row = { taskId: kept.taskId, kept: text, at, releasedAt: null };
  if ("batch" in owner) {
    const own = { ...row, batchId: owner.batch };
    await tx
      .insert(batchLayouts)
      .values(own)
      .onConflictDoUpdate({ target: [batchLayouts.batchId, batchLayouts.taskId], set: own });
    return;
  }
  const own = { ...row, jobId: owner.job, variant: owner.variant };
  await tx
    .insert(layouts)
    .values(own)
    .onConflictDoUpdate({ target: [layouts.jobId, layouts.variant, layouts.taskId], set: own });
}

export type ReleaseOutcome = {
  /** Rack pieces that were cut up. */
  readonly left: readonly RackPiece[];
  /** Rests that lie in the rack now. */
  readonly entered: readonly RackPiece[];
};

/** Sends a kept layout to the floor; the sentence why not. */
export async function releaseLayout(
  { write }: Connection,
  owner: LayoutOwner,
  taskId: string,
  at: number,
): Promise<ReleaseOutcome | string> {
  return write((db) =>
    db.transaction(async (tx) => {
      const found = (await layoutsIn(tx, owner)).find((kept) => kept.taskId === taskId);
      if (!found) return "There is no layout of that stock to release; lay it out first.";
      if (found.releasedAt !== null || (await wasReleased(tx, owner, found)))
        return "This layout is released already. Lay out again to make a new one.";
      const left = await takeHeld(tx, holdingOf(owner, taskId), at);
      const rests = restsToKeep(found).map(({ length, width }) => ({
        id: randomUUID(),
        ...stockOfKept(found),
        length,
        width,
        place: "",
        note: "",
        from: owner.code,
      }));
      const entered = await addRackPieces(tx, rests, at);
      const [who = "", variant = ""] = rackOwner(owner);
      await tx.insert(releasedLayouts).values({
        id: idOf(owner, found),
        owner: who,
        variant,
        taskId,
        kept: JSON.stringify({ ...found, releasedAt: undefined }),
        at,
      });
      if ("batch" in owner)
        await tx
          .update(batchLayouts)
          .set({ releasedAt: at })
          .where(and(rowsOf(owner), eq(batchLayouts.taskId, taskId)));
      else
        await tx
          .update(layouts)
          .set({ releasedAt: at })
          .where(and(rowsOf(owner), eq(layouts.taskId, taskId)));
      return { left, entered };
    }),
  );
}
