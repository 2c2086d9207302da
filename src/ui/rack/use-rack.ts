"use client";
/**
 * Changes of rack pieces, sent one after the other on the newest state of each piece. When somebody else was first, the
 * same change is made on what they left, so that neither is lost.
 */
import { useEffect, useRef } from "react";
import { toast } from "sonner";
import type { RackPiece } from "@/core/stockroom";
import { call } from "../common/http";

/** What is typed of a piece; `label` null: the next one that is free. */
export type RackEntry = Omit<RackPiece, "label" | "holder"> & { readonly label: string | null };
type Saved = { readonly piece: RackPiece; readonly revision: number };
type Revisions = Readonly<Record<string, number>>;

export function useRack(rack: readonly RackPiece[], revisions: Revisions, reload: () => void) {
  const known = useRef(new Map<string, Saved>());
  const queue = useRef<Promise<void>>(Promise.resolve());
  useEffect(() => {
    for (const piece of rack) {
      const before = known.current.get(piece.id);
      const revision = revisions[piece.id] ?? 1;
      // A page that was loaded before the last answer knows less than that answer.
      if (!before || revision >= before.revision) known.current.set(piece.id, { piece, revision });
    }
  }, [rack, revisions]);

  const oneByOne = (work: () => Promise<void>): Promise<void> => {
    queue.current = queue.current.then(work).finally(reload);
    return queue.current;
  };

  const send = async (
    entry: RackEntry,
    expected: number | null,
    again: ((theirs: Saved) => Promise<void>) | null,
  ) => {
    const reply = await call<Saved>("PUT", "/api/rack", { piece: withoutHolder(entry), expected });
    if (reply.ok) {
      known.current.set(entry.id, reply.value);
      return;
    }
    const theirs = (reply.problem.body as { theirs?: Saved | null } | null)?.theirs;
    if (theirs && again) await again(theirs);
    else toast.error(reply.problem.message);
  };

  /** Changes a piece by what it is now. */
  const change = (id: string, made: (piece: RackPiece) => RackPiece): Promise<void> =>
    oneByOne(async () => {
      const now = known.current.get(id);
      if (!now) return;
      await send(made(now.piece), now.revision, async (theirs) => {
        known.current.set(id, theirs);
        await send(made(theirs.piece), theirs.revision, null);
      });
    });
  const add = (entry: RackEntry): Promise<void> => oneByOne(() => send(entry, null, null));
  const remove = (piece: RackPiece): Promise<void> =>
    oneByOne(async () => {
      const expected = known.current.get(piece.id)?.revision ?? 1;
      const reply = await call("DELETE", "/api/rack", { id: piece.id, expected });
      if (!reply.ok) toast.error(reply.problem.message);
      else toast(`${piece.label} was removed from the rack.`);
    });
  return { change, add, remove };
}

function withoutHolder({ id, label, entry, material, length, width, place, note, from }: RackEntry) {
  return { id, label, entry, material, length, width, place, note, from };
}
