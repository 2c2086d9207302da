"use client";
import { Combine, CornerDownRight, RotateCcw, Split } from "lucide-react";
import type { Edit, SimpleEdit } from "@/core/job";
import { counted, type Problem, type Result, sentence } from "@/core/kernel";
import { moveInto, putTogether, splitOff, type TallyRow } from "@/core/tally";
import { Button } from "../common/button";
/** Rows by hand: split off, put together, moved into another row, put back to computed, singly or all. */
import { newId } from "../common/fresh-id";
import { useDesk, useDeskState } from "../desk/desk-context";
import { ActionForm, type Asked, AskedField, DoButton } from "../shape/action-form";

const freshRow = () => newId("hand");

/** What can be done by hand with the rows that the selection is in. */
export function HandActions({ rows }: { readonly rows: readonly TallyRow[] }) {
  const desk = useDesk();
  const selected = useDeskState((state) => state.selected);
  const [row] = rows;
  if (!row) return null;
  const chosen = [...new Set(rows.flatMap((one) => one.pieces.map((piece) => piece.id)))].filter((id) =>
    selected.has(id),
  );
  const part = rows.length === 1 && row.pieces.some((piece) => !selected.has(piece.id));
  const carryOut = (edit: Result<Edit, Problem>) =>
    edit.ok ? desk.submit(edit.value) : sentence(edit.problem);
  const tally = () => desk.store.getState().results.tally;
  const byHand = rows.some((one) => one.byHand !== null);
  const move = (asked: Asked) => {
    const mark = asked("mark");
    const into = tally().rows.find((one) => one.mark === mark && mark !== "");
    if (!into) return `There is no row with the mark ${mark}.`;
    return carryOut(moveInto(tally(), chosen, into, freshRow()));
  };
  return (
    <>
      {part ? (
        <DoButton
          icon={<Split size={14} aria-hidden />}
          onDo={() => carryOut(splitOff(tally(), chosen, freshRow()))}
        >
          Split row
        </DoButton>
      ) : null}
      {rows.length > 1 ? (
        <DoButton
          icon={<Combine size={14} aria-hidden />}
          onDo={() => carryOut(putTogether(tally(), chosen, freshRow()))}
        >
          Merge rows
        </DoButton>
      ) : null}
      {rows.length === 1 && row.mark !== "" ? (
        <ActionForm
          word="Move to row"
          icon={<CornerDownRight size={14} aria-hidden />}
          button="Move"
          onDo={move}
        >
          <AskedField name="mark" label="Mark of the row that takes the selected pieces" required />
        </ActionForm>
      ) : null}
      {byHand ? (
        <DoButton
          icon={<RotateCcw size={14} aria-hidden />}
          onDo={() =>
            desk.submit({
              kind: "clearHandRows",
              pieces: [...new Set(rows.flatMap((one) => one.pieces.map((piece) => piece.id)))],
            })
          }
        >
          Put row back to computed
        </DoButton>
      ) : null}
    </>
  );
}

/** How much stands by hand in the whole tally, with the way back for all of it. */
export function HandSummary() {
  const desk = useDesk();
  const rows = useDeskState((state) => state.results.tally.rows);
  const [grouped, held] = [rows.filter((row) => row.byHand !== null), rows.filter((row) => row.held)];
  if (grouped.length + held.length === 0) return null;
  const words = [
    ...(grouped.length > 0 ? [`${counted(grouped.length, "row")} by hand`] : []),
    ...(held.length > 0 ? [`${counted(held.length, "mark")} locked`] : []),
  ];
  const putBack = () => {
    const drop = [...new Set(held.flatMap((row) => row.pieces.map((piece) => piece.id)))];
    const edits: SimpleEdit[] = [
      ...(grouped.length > 0 ? [{ kind: "clearHandRows", pieces: null } as const] : []),
      ...(held.length > 0 ? [{ kind: "keepMarks" as const, marks: [], drop }] : []),
    ];
    desk.submit({ kind: "together", what: "Put all back to computed", edits });
  };
  return (
    <span className="flex items-center gap-1">
      <button
        type="button"
        className="text-chalk hover:underline"
        onClick={() =>
          desk.select([...grouped, ...held].flatMap((row) => row.pieces.map((piece) => piece.id)))
        }
      >
        {words.join(", ")}
      </button>
      <Button look="plain" onClick={putBack}>
        Put all back to computed
      </Button>
    </span>
  );
}
