"use client";
/** The rows of a list as they were last looked at on this computer, so that what changed since can be flagged. */
import { useCallback, useMemo, useState } from "react";
import type { ListTable } from "@/core/lists";
import { type ListChanges, listChanges, type SeenRow, seenRows } from "@/core/release";
import { useDeskState } from "../desk/desk-context";
import { readSeen, writeSeen } from "./seen-store";

/** What changed in a list, and the act of having seen it. The first look counts as seen. */
export function useSeenList(
  list: string,
  table: ListTable,
): { readonly changes: ListChanges; readonly acknowledge: () => void } {
  const id = useDeskState((state) => state.id);
  const variant = useDeskState((state) => state.variant);
  const key = `rustic-tally:list:${id}:${variant ?? ""}:${list}`;
  const [held, setHeld] = useState<{ readonly key: string; readonly rows: readonly SeenRow[] } | null>(null);
  let rows = held?.key === key ? held.rows : readSeen<SeenRow>(key);
  if (rows === null) {
    rows = seenRows(table);
    writeSeen(key, rows);
  }
  if (held?.key !== key) setHeld({ key, rows });
  const changes = useMemo(() => listChanges(rows, table), [rows, table]);
  const acknowledge = useCallback(() => {
    const fresh = seenRows(table);
    writeSeen(key, fresh);
    setHeld({ key, rows: fresh });
  }, [key, table]);
  return { changes, acknowledge };
}
