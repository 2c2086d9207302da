"use client";
/** The lines of a drawing before they enter the job: in which unit, and with which section on each layer. */
import { useState } from "react";
import { layersOf, type Skeleton, skeletonEdit } from "@/core/imports";
import { counted } from "@/core/kernel";
import { Button } from "../common/button";
import { Chooser } from "../common/chooser";
import { DialogClose } from "../common/dialog";
import { LongList, ScrolledBox } from "../common/long-list";
import { Fault, Notice } from "../common/notice";
import { useDesk, useDeskState } from "../desk/desk-context";
import { freshIds } from "./fresh-ids";

export const DRAWING_UNITS = [
  { value: "1", label: "millimetres" },
  { value: "10", label: "centimetres" },
  { value: "1000", label: "metres" },
  { value: "25.4", label: "inches" },
  { value: "304.8", label: "feet" },
] as const;

const NONE = "none";

export function SkeletonForm({
  skeleton,
  onDone,
}: {
  readonly skeleton: Skeleton;
  readonly onDone: () => void;
}) {
  const desk = useDesk();
  const stock = useDeskState((state) => state.stockroom.sections);
  const [unit, setUnit] = useState<string>(skeleton.unit === null ? "" : String(skeleton.unit));
  const [sections, setSections] = useState<ReadonlyMap<string, string>>(new Map());
  const [fault, setFault] = useState<string | null>(null);
  const layers = layersOf(skeleton.lines);
  const choose = (layer: string, id: string) => {
    const next = new Map(sections);
    if (id === NONE) next.delete(layer);
    else next.set(layer, id);
    setSections(next);
  };
  const enter = () => {
    const { job } = desk.store.getState();
    const { edit } = skeletonEdit(skeleton, { unit: Number(unit), sections }, job, freshIds(job));
    const refused = desk.submit(edit);
    setFault(refused);
    if (refused === null) onDone();
  };
  return (
    <>
      <p className="text-[14px]">
        <b>{counted(skeleton.lines.length, "line")}</b> on {counted(layers.length, "layer")}.
        {skeleton.unit === null ? " The file tells no unit." : ""}
      </p>
      <div className="w-[260px]">
        <Chooser
          label="The drawing is in"
          value={unit}
          choices={DRAWING_UNITS}
          onChoose={setUnit}
          placeholder="choose"
        />
      </div>
      <ScrolledBox className="max-h-[300px] overflow-auto border border-seam">
        <LongList items={layers} keyOf={({ name }) => name}>
          {({ name, count }) => (
            <div className="grid grid-cols-[minmax(0,1fr)_80px_300px] items-center gap-2 border-seam border-b px-2 py-0.5 text-[13px]">
              <span className="truncate">{name}</span>
              <span className="text-right font-table">{counted(count, "line")}</span>
              <Chooser
                label={`Section on layer ${name}`}
                hideLabel
                value={sections.get(name) ?? NONE}
                choices={[
                  { value: NONE, label: "guide lines" },
                  ...stock.map((entry) => ({ value: entry.id, label: entry.name })),
                ]}
                onChoose={(id) => choose(name, id)}
              />
            </div>
          )}
        </LongList>
      </ScrolledBox>
      {skeleton.skipped.length > 0 ? (
        <Notice tone="warning">Left out, since no member is curved: {skeleton.skipped.join(", ")}.</Notice>
      ) : null}
      {fault ? <Fault>{fault}</Fault> : null}
      <div className="flex justify-end gap-2">
        <DialogClose />
        <Button look="primary" disabled={unit === ""} onClick={enter}>
          Import {counted(skeleton.lines.length, "line")}
        </Button>
      </div>
    </>
  );
}
