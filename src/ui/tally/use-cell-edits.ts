"use client";
import { useCallback } from "react";
import type { ListCell, ListSetup, SimpleEdit } from "@/core/job";
import { ownColumnIn } from "@/core/job";
import { sentence } from "@/core/kernel";
import type { ListRow } from "@/core/lists";
import { holdMark, letMarkGo, type TallyRow } from "@/core/tally";
/** What typing into a cell of a list does: it holds a mark, sets an own column, or stands over what is computed. */
import { newId } from "../common/fresh-id";
import { useDesk } from "../desk/desk-context";

export type CellEdits = {
  /** Types a text into a cell; empty puts it back. Gives the sentence why not, or null. */
  readonly type: (row: ListRow, column: string, text: string) => string | null;
  /** Puts a cell back to what is computed. */
  readonly putBack: (row: ListRow, column: string) => string | null;
};

const typedCell = (cell: Omit<ListCell, "id">): SimpleEdit => ({
  kind: "setCell",
  cell: { ...cell, id: newId("cell") as ListCell["id"] },
});

/** The edit that gives some records a value in an own column. */
export const ownValue = (column: string, records: readonly string[], text: string): SimpleEdit =>
  typedCell({ list: null, column, records: [...records], summed: false, text, computed: null });

export function useCellEdits(setup: ListSetup): CellEdits {
  const desk = useDesk();
  const rowOf = useCallback(
    (row: ListRow): TallyRow | undefined =>
      row.summed ? undefined : desk.store.getState().results.tally.rowOfPiece.get(row.records[0] ?? ""),
    [desk],
  );
  const putBack = useCallback(
    (row: ListRow, column: string): string | null => {
      const tallyRow = rowOf(row);
      if (column === "mark" && tallyRow) return tallyRow.held ? desk.submit(letMarkGo(tallyRow)) : null;
      const list = ownColumnIn(column) === null ? setup.id : null;
      const { listCells } = desk.store.getState().job;
      const mine = (cell: ListCell) =>
        cell.list === list && cell.column === column && cell.records.some((id) => row.records.includes(id));
      if (!Object.values(listCells).some(mine)) return null;
      return desk.submit({ kind: "clearCells", list, column, records: [...row.records] });
    },
    [desk, rowOf, setup.id],
  );
  const type = useCallback(
    (row: ListRow, column: string, text: string): string | null => {
      if (text === "") return putBack(row, column);
      const tallyRow = rowOf(row);
      if (column === "mark" && tallyRow) {
        if (text === tallyRow.mark) return null;
        const edit = holdMark(desk.store.getState().results.tally, tallyRow, text);
        return edit.ok ? desk.submit(edit.value) : sentence(edit.problem);
      }
      const cell = row.cells[column];
      if (!cell || text === cell.text) return null;
      const own = ownColumnIn(column) !== null;
      const computed = cell.over?.computed ?? cell.text;
      if (!own && text === computed) return putBack(row, column);
      if (own) return desk.submit(ownValue(column, row.records, text));
      const { records, summed } = row;
      return desk.submit(
        typedCell({ list: setup.id, column, records: [...records], summed, text, computed }),
      );
    },
    [desk, putBack, rowOf, setup.id],
  );
  return { type, putBack };
}
