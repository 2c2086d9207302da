/**
 * Saved layouts, of jobs and of combined layouts. Keeping one sets the rack pieces aside that it uses; releasing it takes them out of
 * the rack and puts the rests into it: in one transaction, so that nothing is promised twice.
 */
import { createHash, randomUUID } from "node:crypto";
import { and, asc, eq } from "drizzle-orm";
import { readSaved, restsToKeep, type SavedLayout, stockOfSaved, usedRack } from "@/core/layout";
import type { RackPiece } from "@/core/stockroom";
import type { Connection, Database } from "./database";
import { addRackPieces, type Holding, holdRack, type Transaction, takeHeld } from "./rack-repository";
import { combinedLayouts, layouts, releasedLayouts } from "./schema";

/** Whose layouts they are: a variant of a job ("" for its own sizes), or a combined layout. */
export type LayoutOwner =
  | { readonly job: string; readonly variant: string; readonly code: string }
  | { readonly combined: string; readonly code: string };

export type StoredLayout = SavedLayout & { readonly releasedAt: number | null };

const holdingOf = (owner: LayoutOwner, task: string): Holding =>
  "combined" in owner
    ? { job: owner.combined, code: owner.code, variant: "", task }
    : { job: owner.job, code: owner.code, variant: owner.variant, task };

const rowsOf = (owner: LayoutOwner) =>
  "combined" in owner
    ? eq(combinedLayouts.combinedId, owner.combined)
    : and(eq(layouts.jobId, owner.job), eq(layouts.variant, owner.variant));

const parsed = (text: string, releasedAt: number | null): StoredLayout => ({
  ...readSaved(JSON.parse(text) as SavedLayout),
  releasedAt,
});

export const readLayouts = ({ db }: Connection, owner: LayoutOwner) => layoutsIn(db, owner);

async function layoutsIn(db: Database | Transaction, owner: LayoutOwner): Promise<readonly StoredLayout[]> {
  const rows =
    "combined" in owner
      ? await db.select().from(combinedLayouts).where(rowsOf(owner)).orderBy(asc(combinedLayouts.taskId))
      : await db.select().from(layouts).where(rowsOf(owner)).orderBy(asc(layouts.taskId));
  return rows.map((row) => parsed(row.kept, row.releasedAt));
}

/** Keeps a layout in the place of the one before; the sentence why not, or null. */
export async function saveLayout(
  { write }: Connection,
  owner: LayoutOwner,
  saved: SavedLayout,
  at: number,
): Promise<string | null> {
  try {
    await write((db) =>
      db.transaction(async (tx) => {
        if (await wasReleased(tx, owner, saved)) throw new Refused(FROZEN);
        const refused = await holdRack(tx, holdingOf(owner, saved.taskId), usedRack(saved));
        // Thrown, so that nothing of it stands.
        if (refused !== null) throw new Refused(refused);
        await put(tx, owner, saved, at);
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
const idOf = (owner: LayoutOwner, { id, taskId, layout }: SavedLayout): string =>
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

const rackOwner = (owner: LayoutOwner) =>
  "combined" in owner ? [owner.combined, ""] : [owner.job, owner.variant];

async function wasReleased(tx: Transaction, owner: LayoutOwner, saved: SavedLayout): Promise<boolean> {
  const id = idOf(owner, saved);
  const [found] = await tx
    .select({ id: releasedLayouts.id })
    .from(releasedLayouts)
    .where(eq(releasedLayouts.id, id));
  if (found !== undefined) return true;
  // Those that were released before releases were recorded are known by their mark.
  const now = (await layoutsIn(tx, owner)).find(({ taskId }) => taskId === saved.taskId);
  return now !== undefined && now.releasedAt !== null && idOf(owner, now) === id;
}

async function put(tx: Transaction, owner: LayoutOwner, saved: SavedLayout, at: number): Promise<void> {
  const text = JSON.stringify({ ...saved, releasedAt: undefined });
  const row = { taskId: saved.taskId, kept: text, at, releasedAt: null };
  if ("combined" in owner) {
    const own = { ...row, combinedId: owner.combined };
    await tx
      .insert(combinedLayouts)
      .values(own)
      .onConflictDoUpdate({ target: [combinedLayouts.combinedId, combinedLayouts.taskId], set: own });
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

/** Sends a saved layout to the floor; the sentence why not. */
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
        ...stockOfSaved(found),
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
      if ("combined" in owner)
        await tx
          .update(combinedLayouts)
          .set({ releasedAt: at })
          .where(and(rowsOf(owner), eq(combinedLayouts.taskId, taskId)));
      else
        await tx
          .update(layouts)
          .set({ releasedAt: at })
          .where(and(rowsOf(owner), eq(layouts.taskId, taskId)));
      return { left, entered };
    }),
  );
}
