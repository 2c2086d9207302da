"use client";
/** Picking rows as every list does: a click picks one, with Control it adds or takes away, with Shift everything from the last one on. */
import { useCallback, useRef } from "react";
import { useDesk } from "./desk-context";

export type PickKeys = { readonly shiftKey: boolean; readonly ctrlKey: boolean; readonly metaKey: boolean };

/** Whether what is picked comes to what is selected, where there is no run to be had: with any of the keys. */
export const isMore = ({ shiftKey, ctrlKey, metaKey }: PickKeys): boolean => shiftKey || ctrlKey || metaKey;

/** What is selected after one more thing is picked with Control: it comes, or goes when all of it was there. */
export function toggled(selected: ReadonlySet<string>, ids: readonly string[]): readonly string[] {
  const isThere = ids.length > 0 && ids.every((id) => selected.has(id));
  const own = new Set(ids);
  return isThere ? [...selected].filter((id) => !own.has(id)) : [...new Set([...selected, ...ids])];
}

/** A row that can be picked: what it is called, and the records that it stands for. */
export type PickRow = { readonly key: string; readonly ids: readonly string[] };

/** The rows from one to another, in their order; only the last when the first is no longer there. */
export function rowsBetween(rows: readonly PickRow[], from: string | null, to: string): readonly PickRow[] {
  const [a, b] = [rows.findIndex(({ key }) => key === from), rows.findIndex(({ key }) => key === to)];
  if (b < 0) return [];
  return a < 0 ? rows.slice(b, b + 1) : rows.slice(Math.min(a, b), Math.max(a, b) + 1);
}

/** `rows`: those of the list, as they stand when somebody picks. */
export function usePicking(rows: () => readonly PickRow[]): (row: PickRow, keys: PickKeys) => void {
  const desk = useDesk();
  const last = useRef<string | null>(null);
  const all = useRef(rows);
  all.current = rows;
  return useCallback(
    (row, { shiftKey, ctrlKey, metaKey }) => {
      const { selected } = desk.store.getState();
      const more = ctrlKey || metaKey;
      if (shiftKey) {
        const run = rowsBetween(all.current(), last.current, row.key).flatMap(({ ids }) => ids);
        desk.select(more ? [...selected, ...run] : run);
        last.current ??= row.key;
        return;
      }
      desk.select(more ? toggled(selected, row.ids) : row.ids);
      last.current = row.key;
    },
    [desk],
  );
}
