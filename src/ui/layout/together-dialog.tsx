"use client";
import { ArrowDown, ArrowUp, Link2 } from "lucide-react";
import { useState } from "react";
import type { BlankGroup } from "@/core/job";
import type { SheetTask } from "@/core/layout";
import { wholeBlank } from "@/core/layout/sheets";
import { sayLength, saySizes } from "@/core/measure";
import { Button } from "../common/button";
import { Chooser } from "../common/chooser";
import { Dialog } from "../common/dialog";
/** Panels that are cut as one blank: mirrored sides, a set of fronts in one run of grain, in an order that can be changed. */
import { newId } from "../common/fresh-id";
import { useDesk, useDeskState } from "../desk/desk-context";
import { useLayoutGround } from "./layout-ground";

const ALONG = [
  { value: "width", label: "Side by side, across the grain" },
  { value: "length", label: "One after the other, along the grain" },
] as const;

/** A place in a blank: the record that is cut there, and what it is called. */
type Place = { readonly record: string; readonly name: string };

export function KeepTogether({ task }: { readonly task: SheetTask }) {
  const ground = useLayoutGround();
  // A combined layout lays out what its jobs say; there is nothing to say here.
  return ground.settings ? <Together task={task} /> : null;
}

function Together({ task }: { readonly task: SheetTask }) {
  const desk = useDesk();
  const selected = useDeskState((state) => state.selected);
  const groups = useDeskState((state) => state.job.blankGroups);
  const [open, setOpen] = useState(false);
  const records = new Set(task.rows.flatMap((row) => row.pieces.map((piece) => piece.id)));
  const own = Object.values(groups).filter((group) => group.panels.some((id) => records.has(id)));
  const chosen = placesOf(task, selected);
  return (
    <Dialog
      open={open}
      onOpen={setOpen}
      title="Panels cut as one blank"
      about="The panels are placed side by side with the kerf between, cut out as one and separated last. Grooves that run across all of them are cut once."
      width="middle"
      trigger={
        <Button look="plain" icon={<Link2 size={15} aria-hidden />}>
          Keep together{own.length > 0 ? ` (${own.length})` : ""}
        </Button>
      }
      close="Close"
    >
      <ul className="mt-3">
        {own.map((group) => (
          <li key={group.id} className="flex items-center gap-3 border-seam border-b py-1.5 text-[14px]">
            <span className="min-w-0 flex-1">{groupWords(task, group)}</span>
            <Button look="danger" onClick={() => desk.submit({ kind: "removeBlankGroup", id: group.id })}>
              Separate
            </Button>
          </li>
        ))}
      </ul>
      {chosen.length >= 2 ? (
        <NewGroup
          key={chosen.map(({ record }) => record).join()}
          task={task}
          chosen={chosen}
          onDone={() => setOpen(false)}
        />
      ) : (
        <p className="mt-3 text-[14px] text-ink-soft">
          Select two or more panels of this board first, in the picture or in the tally (shift adds), then
          come back here.
        </p>
      )}
    </Dialog>
  );
}

/** One place for each selected piece of this board; a typed-in row of several stands as often. */
function placesOf(task: SheetTask, selected: ReadonlySet<string>): readonly Place[] {
  return task.rows.flatMap((row) =>
    row.pieces
      .filter((piece) => selected.has(piece.id))
      .flatMap((piece) => {
        const name = `${row.mark} ${row.name}`;
        const times = row.typed ? Math.min(piece.quantity, 12) : 1;
        return Array.from({ length: times }, () => ({ record: piece.id, name }));
      }),
  );
}

function groupWords(task: SheetTask, group: BlankGroup): string {
  const marks = group.panels.map(
    (id) => task.rows.find((row) => row.pieces.some((piece) => piece.id === id))?.mark ?? "?",
  );
  const how = ALONG.find(({ value }) => value === group.along)?.label ?? "";
  return `${marks.join(" + ")} · ${how.toLowerCase()}`;
}

function NewGroup({
  task,
  chosen,
  onDone,
}: {
  readonly task: SheetTask;
  readonly chosen: readonly Place[];
  readonly onDone: () => void;
}) {
  const desk = useDesk();
  const { style } = useLayoutGround();
  const [order, setOrder] = useState(chosen);
  const [along, setAlong] = useState<BlankGroup["along"]>("width");
  const [refused, setRefused] = useState<string | null>(null);
  const rowOf = ({ record }: Place) =>
    task.rows.findIndex((row) => row.pieces.some((piece) => piece.id === record));
  const blank = wholeBlank(task.problem, { panels: order.map(rowOf), along, qty: 1 });
  const move = (i: number, by: number) =>
    setOrder((all) => {
      const next = [...all];
      const [one] = next.splice(i, 1);
      if (one) next.splice(i + by, 0, one);
      return next;
    });
  const submit = () => {
    const group: BlankGroup = {
      id: newId("blank"),
      name: order
        .map(({ name }) => name.split(" ")[0])
        .join(" + ")
        .slice(0, 60),
      panels: order.map(({ record }) => record),
      along,
    };
    const problem = desk.submit({ kind: "setBlankGroup", group });
    setRefused(problem);
    if (problem === null) onDone();
  };
  return (
    <div className="mt-3">
      <Chooser label="Arrangement" value={along} choices={ALONG} onChoose={setAlong} />
      <ol className="mt-2 border-seam border-t">
        {order.map((place, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a record may stand in the blank more than once
          <li key={i} className="flex items-center gap-2 border-seam border-b py-1 text-[14px]">
            <span className="w-5 text-right text-ink-soft">{i + 1}</span>
            <span className="min-w-0 flex-1 truncate">{place.name}</span>
            <Button
              look="plain"
              disabled={i === 0}
              aria-label={`Move ${place.name} up`}
              onClick={() => move(i, -1)}
            >
              <ArrowUp size={14} aria-hidden />
            </Button>
            <Button
              look="plain"
              disabled={i === order.length - 1}
              aria-label={`Move ${place.name} down`}
              onClick={() => move(i, 1)}
            >
              <ArrowDown size={14} aria-hidden />
            </Button>
          </li>
        ))}
      </ol>
      <p className={`mt-2 text-[14px] ${blank ? "" : "text-oxide"}`}>
        {blank
          ? `One blank of ${saySizes([blank.length, blank.width], style)}, the kerf of ${sayLength(task.problem.kerf, style)} between.`
          : "They differ in the other direction; panels of one blank need one size across."}
      </p>
      {refused ? <p className="text-[13px] text-oxide">{refused}</p> : null}
      <div className="mt-2 flex justify-end">
        <Button look="primary" disabled={!blank} onClick={submit}>
          Keep these together
        </Button>
      </div>
    </div>
  );
}
