"use client";
/** The closed outlines of a drawing before they enter the job as panels: in which unit, and of which board on each layer. */
import { useState } from "react";
import { boardOfLayer, type DrawnPieces, layersOf, piecesEdit } from "@/core/imports";
import { jobStyle } from "@/core/job";
import { counted } from "@/core/kernel";
import { sayLength } from "@/core/measure";
import { Button } from "../common/button";
import { Chooser } from "../common/chooser";
import { DialogClose } from "../common/dialog";
import { LongList, ScrolledBox } from "../common/long-list";
import { Fault, Notice } from "../common/notice";
import { useDesk, useDeskState } from "../desk/desk-context";
import { freshIds } from "./fresh-ids";
import { DRAWING_UNITS } from "./skeleton-form";

const NONE = "none";

export function PiecesForm({ drawn, onDone }: { readonly drawn: DrawnPieces; readonly onDone: () => void }) {
  const desk = useDesk();
  const stock = useDeskState((state) => state.stockroom.boards);
  const style = jobStyle(useDeskState((state) => state.job));
  const [unit, setUnit] = useState<string>(drawn.unit === null ? "" : String(drawn.unit));
  const [boards, setBoards] = useState<ReadonlyMap<string, string>>(
    () =>
      new Map(
        layersOf(drawn.pieces).flatMap(({ name }) => {
          const board = boardOfLayer(name, stock);
          return board === null ? [] : [[name, board] as const];
        }),
      ),
  );
  const [fault, setFault] = useState<string | null>(null);
  const choose = (layer: string, id: string) => {
    const next = new Map(boards);
    if (id === NONE) next.delete(layer);
    else next.set(layer, id);
    setBoards(next);
  };
  const enter = () => {
    const { job } = desk.store.getState();
    const refused = desk.submit(piecesEdit(drawn, { scale: Number(unit), boards }, job, freshIds(job)));
    setFault(refused);
    if (refused === null) onDone();
  };
  const by = drawn.unit === null ? Number(unit) : 1;
  const far = (pick: (piece: DrawnPieces["pieces"][number]) => number) =>
    drawn.pieces.reduce((most, piece) => Math.max(most, pick(piece)), 0) * by;
  return (
    <>
      <p className="text-[14px]">
        <b>{counted(drawn.pieces.length, "closed outline")}</b>
        {unit === ""
          ? ". The file tells no unit."
          : `, the longest ${sayLength(
              far(({ outline }) => Math.max(outline.length, outline.width)),
              style,
            )}.`}
      </p>
      {drawn.unit === null ? (
        <div className="w-[260px]">
          <Chooser
            label="The drawing is in"
            value={unit}
            choices={DRAWING_UNITS}
            onChoose={setUnit}
            placeholder="choose"
          />
        </div>
      ) : null}
      <ScrolledBox className="max-h-[300px] overflow-auto border border-seam">
        <LongList items={layersOf(drawn.pieces)} keyOf={({ name }) => name}>
          {({ name, count }) => (
            <div className="grid grid-cols-[minmax(0,1fr)_100px_300px] items-center gap-2 border-seam border-b px-2 py-0.5 text-[13px]">
              <span className="truncate">{name}</span>
              <span className="text-right font-table">{counted(count, "outline")}</span>
              <Chooser
                label={`Board of layer ${name}`}
                hideLabel
                value={boards.get(name) ?? NONE}
                choices={[
                  { value: NONE, label: "choose later" },
                  ...stock.map((entry) => ({ value: entry.id as string, label: entry.name })),
                ]}
                onChoose={(id) => choose(name, id)}
              />
            </div>
          )}
        </LongList>
      </ScrolledBox>
      {drawn.told.length > 0 ? (
        <Notice tone="warning">
          <ul className="list-disc pl-4 text-[13px]">
            {drawn.told.map((words) => (
              <li key={words}>{words}.</li>
            ))}
          </ul>
        </Notice>
      ) : null}
      {fault ? <Fault>{fault}</Fault> : null}
      <div className="flex justify-end gap-2">
        <DialogClose />
        <Button look="primary" disabled={unit === ""} onClick={enter}>
          Import {counted(drawn.pieces.length, "panel")}
        </Button>
      </div>
    </>
  );
}
