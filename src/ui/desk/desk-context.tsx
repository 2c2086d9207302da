"use client";
/** The desk that the panes of one job share. */
import { createContext, useContext } from "react";
import { useStore } from "zustand";
import { invariant } from "@/core/kernel";
import type { TallyRow } from "@/core/tally";
import type { Desk, DeskState } from "./desk-store";

export const DeskContext = createContext<Desk | null>(null);

export function useDesk(): Desk {
  const desk = useContext(DeskContext);
  invariant(desk, "a pane stands outside a desk");
  return desk;
}

export function useDeskState<T>(pick: (state: DeskState) => T): T {
  return useStore(useDesk().store, pick);
}

/** Whether a row has a selected piece. */
function isRowSelected(row: TallyRow, selected: ReadonlySet<string>): boolean {
  return row.pieces.some((piece) => selected.has(piece.id));
}

/** Selecting by mark: all pieces of the row. */
export function useMarkSelection() {
  const desk = useDesk();
  const tally = useDeskState((state) => state.results.tally);
  const selected = useDeskState((state) => state.selected);
  const rowOf = (mark: string) => tally.rows.find((row) => row.mark === mark);
  return {
    isSelected: (mark: string) => {
      const row = rowOf(mark);
      return row !== undefined && isRowSelected(row, selected);
    },
    pick: (mark: string) => desk.select(rowOf(mark)?.pieces.map((piece) => piece.id) ?? []),
  };
}
