"use client";
/**
 * The entries of the stockroom as they are shown: each change is made at once on the newest state of its entry, and sent
 * one after the other, so that two fields that follow one another never collide with themselves. When somebody else was
 * first, the same change is made on what they left.
 */
import { useCallback, useEffect, useRef, useState } from "react";
import { toast } from "sonner";
import type { Result } from "@/core/kernel";
import type { StockroomData } from "@/core/stockroom";
import { call } from "../common/http";
import { type AnyEntry, type EntryKind, KINDS } from "./entry-columns";
import { type EntryFault, entryFaultWords } from "./entry-fault";

/** A change of one field: the entry after it, or why not. */
export type EntryChange = (entry: AnyEntry) => Result<AnyEntry, EntryFault>;

type Sent = { readonly kind: EntryKind; readonly id: string; readonly change: EntryChange };
type Known = { readonly entry: AnyEntry; readonly revision: number | null };

export type StockEntries = {
  readonly entries: (kind: EntryKind) => readonly AnyEntry[];
  /** Makes a change at once and sends it; the sentence why not, or null. */
  readonly change: (kind: EntryKind, id: string, change: EntryChange) => string | null;
  readonly add: (kind: EntryKind, entry: AnyEntry) => Promise<boolean>;
  readonly remove: (kind: EntryKind, entry: AnyEntry) => Promise<void>;
};

type Shown = Readonly<Record<EntryKind, readonly AnyEntry[]>>;

const shownOf = (data: StockroomData): Shown =>
  Object.fromEntries(KINDS.map(({ kind, list }) => [kind, data[list]])) as unknown as Shown;

export function useStockEntries(
  data: StockroomData,
  revisions: Readonly<Record<string, number>>,
  reload: () => void,
): StockEntries {
  const [shown, setShown] = useState(() => shownOf(data));
  /** What is shown now, also between two renders. */
  const now = useRef(shown);
  /** What the server has, with the revision that it gave. */
  const saved = useRef(new Map<string, Known>());
  const queue = useRef<readonly Sent[]>([]);
  const sending = useRef(false);
  const show = useCallback((next: Shown) => {
    now.current = next;
    setShown(next);
  }, []);
  const put = useCallback(
    (kind: EntryKind, entry: AnyEntry) =>
      show({ ...now.current, [kind]: now.current[kind].map((one) => (one.id === entry.id ? entry : one)) }),
    [show],
  );
  useEffect(() => {
    // What is on its way is newer than what a page brings that was loaded before.
    if (queue.current.length > 0) return;
    show(shownOf(data));
    saved.current = new Map(
      Object.values(shownOf(data)).flatMap((entries) =>
        entries.map((entry) => [entry.id, { entry, revision: revisions[entry.id] ?? null }] as const),
      ),
    );
  }, [data, revisions, show]);

  /** Sends one change on top of what the server has; whether it is settled. */
  const send = useCallback(async ({ kind, id, change }: Sent): Promise<boolean> => {
    const known = saved.current.get(id);
    const made = known ? change(known.entry) : null;
    if (!known || !made?.ok) return true;
    const reply = await call<{ revision: number }>("PUT", "/api/stockroom/entries", {
      change: { kind, entry: made.value },
      expected: known.revision,
    });
    if (reply.ok) {
      saved.current.set(id, { entry: made.value, revision: reply.value.revision });
      return true;
    }
    const { status, message, body } = reply.problem;
    const theirs = body as { entry?: AnyEntry | null; revision?: number | null } | null;
    if (status === 409 && theirs?.entry) {
      saved.current.set(id, { entry: theirs.entry, revision: theirs.revision ?? null });
      return false;
    }
    if (status === 0 || status >= 500) {
      toast.error(`${message} The change is sent again.`);
      await new Promise((resolve) => setTimeout(resolve, 1500));
      return false;
    }
    toast.error(message);
    return true;
  }, []);

  const sendAll = useCallback(async () => {
    if (sending.current) return;
    sending.current = true;
    for (let next = queue.current[0]; next; next = queue.current[0]) {
      if (!(await send(next))) continue;
      const { kind, id } = next;
      queue.current = queue.current.slice(1);
      // What the server has, with what is still on its way on top.
      const base = saved.current.get(id);
      if (!base) continue;
      const rest = queue.current.filter((one) => one.id === id);
      const entry = rest.reduce((made, one) => {
        const after = one.change(made);
        return after.ok ? after.value : made;
      }, base.entry);
      put(kind, entry);
    }
    sending.current = false;
    reload();
  }, [put, reload, send]);

  const change = useCallback(
    (kind: EntryKind, id: string, made: EntryChange): string | null => {
      const entry = now.current[kind].find((one) => one.id === id);
      if (!entry) return "This entry was deleted. Load the page again.";
      const after = made(entry);
      if (!after.ok) return entryFaultWords(after.problem);
      put(kind, after.value);
      queue.current = [...queue.current, { kind, id, change: made }];
      void sendAll();
      return null;
    },
    [put, sendAll],
  );

  const add = useCallback(
    async (kind: EntryKind, entry: AnyEntry): Promise<boolean> => {
      const reply = await call<{ revision: number }>("PUT", "/api/stockroom/entries", {
        change: { kind, entry },
        expected: null,
      });
      if (reply.ok) {
        saved.current.set(entry.id, { entry, revision: reply.value.revision });
        show({ ...now.current, [kind]: [...now.current[kind], entry] });
      } else toast.error(reply.problem.message);
      reload();
      return reply.ok;
    },
    [reload, show],
  );

  const remove = useCallback(
    async (kind: EntryKind, entry: AnyEntry): Promise<void> => {
      const gone = await call("DELETE", "/api/stockroom/entries", {
        kind,
        id: entry.id,
        expected: saved.current.get(entry.id)?.revision ?? 0,
      });
      if (!gone.ok) toast.error(gone.problem.message);
      else {
        show({ ...now.current, [kind]: now.current[kind].filter(({ id }) => id !== entry.id) });
        toast(`${entry.name} was removed.`, {
          action: { label: "Undo", onClick: () => void add(kind, entry) },
        });
      }
      reload();
    },
    [add, reload, show],
  );

  return { entries: (kind) => shown[kind], change, add, remove };
}
