"use client";
/** The rows of a list as they were last looked at on this computer, so that what changed since can be flagged. */
import { useCallback, useMemo, useState, useSyncExternalStore } from "react";
import type { ListSetup } from "@/core/job";
import type { ListTable } from "@/core/lists";
import { type ListChanges, listChanges, type SeenList, seenBy, seenList } from "@/core/release";
import { useDeskState } from "../desk/desk-context";
import { readSeen, writeSeen } from "./seen-store";

const never = () => () => undefined;
/** False while the page that the server made is taken over: it knows nothing of what this browser keeps. */
const useInBrowser = () =>
  useSyncExternalStore(
    never,
    () => true,
    () => false,
  );

/**
 * What changed in a list, and the act of having seen it. The first look counts as seen; so does what only another setup
 * makes different.
 */
export function useSeenList(
  table: ListTable,
  setup: ListSetup,
): { readonly changes: ListChanges; readonly acknowledge: () => void } {
  const id = useDeskState((state) => state.id);
  const variant = useDeskState((state) => state.variant);
  const key = `rustic-tally:list:${id}:${variant ?? ""}:${setup.id}`;
  const [held, setHeld] = useState<{ readonly key: string; readonly seen: SeenList } | null>(null);
  const inBrowser = useInBrowser();
  const known = !inBrowser ? null : held?.key === key ? held.seen : readSeen(key);
  const seen = useMemo(
    () => (known === null ? seenList(table, setup) : seenBy(known, table, setup)),
    [known, table, setup],
  );
  if (inBrowser && seen !== known) writeSeen(key, seen);
  if (inBrowser && (held?.key !== key || held.seen !== seen)) setHeld({ key, seen });
  const changes = useMemo(() => listChanges(seen.rows, table), [seen, table]);
  const acknowledge = useCallback(() => {
    const fresh = seenList(table, setup);
    writeSeen(key, fresh);
    setHeld({ key, seen: fresh });
  }, [key, table, setup]);
  return { changes, acknowledge };
}
