"use client";
/** Marks by hand: one typed and held, all given anew in an order. */
import { ListOrdered, RotateCcw, Tag as TagIcon } from "lucide-react";
import { useState } from "react";
import { sentence } from "@/core/kernel";
import { holdMark, letMarkGo, markOf, type NumberRule, renumber, type TallyRow } from "@/core/tally";
import { Button } from "../common/button";
import { Chooser } from "../common/chooser";
import { useDesk, useDeskState } from "../desk/desk-context";
import { ActionForm, type Asked, AskedField, DoButton } from "../shape/action-form";

/** The mark of the selected row: typed, and put back to computed where it was. */
export function MarkActions({ row }: { readonly row: TallyRow }) {
  const desk = useDesk();
  const hold = (asked: Asked) => {
    const { tally } = desk.store.getState().results;
    const edit = holdMark(tally, row, asked("mark"));
    return edit.ok ? desk.submit(edit.value) : sentence(edit.problem);
  };
  return (
    <>
      <ActionForm word="Mark" icon={<TagIcon size={14} aria-hidden />} button="Lock mark" onDo={hold}>
        <AskedField name="mark" label="The row keeps it whatever else changes" start={row.mark} required />
      </ActionForm>
      {row.held ? (
        <DoButton icon={<RotateCcw size={14} aria-hidden />} onDo={() => desk.submit(letMarkGo(row))}>
          Unlock mark
        </DoButton>
      ) : null}
    </>
  );
}

/** All made rows marked anew; held marks stay. */
export function RenumberForm() {
  const desk = useDesk();
  const [style, setStyle] = useState<NumberRule["style"]>("letters");
  const [order, setOrder] = useState<NumberRule["order"] | "picked">("listed");
  const run = (asked: Asked) => {
    const { job, results } = desk.store.getState();
    if (order === "picked") return pick(asked);
    const edit = renumber(job, results.tally, {
      style,
      order,
      start: Number(asked("start")),
      step: Number(asked("step")),
      prefix: {
        member: asked("member"),
        panel: asked("panel"),
        other: asked("other"),
      },
    });
    return edit.ok ? desk.submit(edit.value) : sentence(edit.problem);
  };
  const pick = (asked: Asked) => {
    const [next, step] = [Number(asked("start")), Number(asked("step"))];
    if (![next, step].every((value) => Number.isInteger(value) && value >= 1 && value <= 10_000))
      return "First and step must be whole numbers from 1 to 10,000.";
    desk.giveMarks({ style, step, next, prefix: asked("prefix") });
    return null;
  };
  return (
    <ActionForm
      word="Renumber"
      icon={<ListOrdered size={14} aria-hidden />}
      button={order === "picked" ? "Start picking" : "Renumber all"}
      onDo={run}
    >
      <Chooser
        label="Marks are"
        value={style}
        choices={[
          { value: "letters", label: "letters" },
          { value: "numbers", label: "numbers" },
        ]}
        onChoose={setStyle}
      />
      <Chooser
        label="In the order of"
        value={order}
        choices={[
          { value: "listed", label: "the cut list" },
          { value: "assembly", label: "the assemblies" },
          { value: "picked", label: "picking, in the 3D view or the list" },
        ]}
        onChoose={setOrder}
      />
      <span className="grid grid-cols-2 gap-2">
        <AskedField name="start" label="First" start="1" required />
        <AskedField name="step" label="Step" start="1" required />
      </span>
      {order === "picked" ? (
        <AskedField name="prefix" label="Prefix" />
      ) : (
        <span className="grid grid-cols-3 gap-2">
          <AskedField name="member" label="Prefix for members" />
          <AskedField name="panel" label="Prefix for panels" />
          <AskedField name="other" label="Prefix for others" />
        </span>
      )}
    </ActionForm>
  );
}

/** While marks are given by picking: which comes next, and the end of it. */
export function MarkingBar() {
  const desk = useDesk();
  const marking = useDeskState((state) => state.marking);
  if (!marking) return null;
  const { prefix, style, next } = marking;
  return (
    <p className="flex items-center gap-3 border-brass border-b bg-brass-pale px-3.5 py-0.5 text-[13px]">
      <span>
        Pick pieces in the order of their marks, in the picture or here. Next is{" "}
        <b>
          {prefix}
          {style === "letters" ? markOf(next - 1) : next}
        </b>
        ; each is held.
      </span>
      <Button look="plain" onClick={() => desk.giveMarks(null)}>
        Done
      </Button>
    </p>
  );
}
