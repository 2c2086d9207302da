"use client";
/** A list of records that are picked one by one, several with Control, or a run of them with Shift. */
import { createContext, type ReactNode, useContext } from "react";
import { invariant } from "@/core/kernel";
import { LongList } from "../common/long-list";
import { type PickKeys, usePicking } from "../desk/picking";

type Pick = (id: string, keys: PickKeys) => void;
const PickContext = createContext<Pick | null>(null);

/** Picks one record of the list that a row stands in. */
export function useRecordPick(): Pick {
  const pick = useContext(PickContext);
  invariant(pick, "a row stands outside a list of records");
  return pick;
}

type Props<T> = {
  readonly items: readonly T[];
  readonly keyOf: (item: T) => string;
  readonly children: (item: T) => ReactNode;
};

export function RecordList<T>({ items, keyOf, children }: Props<T>) {
  const pick = usePicking(() => items.map((item) => ({ key: keyOf(item), ids: [keyOf(item)] })));
  const pickId: Pick = (id, keys) => pick({ key: id, ids: [id] }, keys);
  return (
    <PickContext value={pickId}>
      <LongList items={items} keyOf={keyOf}>
        {children}
      </LongList>
    </PickContext>
  );
}
