"use client";
/** Assemblies of the selection: made, opened, placed again, taken apart; a panel put between two. */
import { Boxes, Columns2, LogIn, Plus, Ungroup } from "lucide-react";
import { useMemo, useState } from "react";
import { assemblyOf, type Edit, findAssembly, newInsert, newPanel, readPlace, takenApart } from "@/core/job";
import { counted, sentence } from "@/core/kernel";
import { between, endsAcross, freedEnds, panelSolid } from "@/core/shape";
import { Button } from "../common/button";
import { Tick } from "../common/tick";
import { useDesk, useDeskState } from "../desk/desk-context";
import { ActionForm, type Asked, AskedField, DoButton } from "./action-form";
import { placeAgain } from "./assembly-tree";
import { freshIds } from "./fresh-ids";

/** A new panel between the two that are selected, which follows them. */
export function BetweenForm({ ids }: { readonly ids: readonly string[] }) {
  const desk = useDesk();
  const run = (asked: Asked) => {
    const { job, results, inside } = desk.store.getState();
    const [first, second] = ids.map((id) => panelSolid(results.shape, id));
    if (!first || !second) return "One of the two panels cannot be computed. Fix it first.";
    const panel = newPanel(freshIds(job)("panel"), {
      name: asked("name"),
      board: first.panel.board,
      assembly: inside,
      between: between(first, second, asked("distance")),
    });
    const refused = desk.submit(newInsert("Add panel between two", { panels: [panel] }));
    if (refused === null) desk.select([panel.id]);
    return refused;
  };
  return (
    <ActionForm word="Panel between" icon={<Columns2 size={14} aria-hidden />} button="Add panel" onDo={run}>
      <AskedField name="name" label="Name" start="Shelf" required />
      <AskedField name="distance" label="Offset from left or front of first panel" start="100" required />
    </ActionForm>
  );
}

/** Makes an assembly of the selection where it stands. */
export function AssembleForm({ ids }: { readonly ids: readonly string[] }) {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  const first = ids
    .map((id) => (job.members[id] ?? job.panels[id] ?? job.boughtParts[id])?.name)
    .find(Boolean);
  const [free, setFree] = useState(true);
  const run = (asked: Asked) => {
    const at = readPlace(asked("at"));
    if (at?.kind !== "place") return "Type three lengths separated by semicolons: width; depth; height.";
    const edit = assemblyOf(job, ids, { name: asked("name"), at: at.at }, freshIds(job));
    if (!edit.ok) return sentence(edit.problem);
    const across = free ? endsAcross(job, new Set(ids)) : [];
    const { edits: freed } = freedEnds(job, desk.store.getState().results.shape, across);
    const made = edit.value;
    const whole: Edit =
      freed.length === 0
        ? made
        : { kind: "together", what: `Make ${asked("name")} an assembly`, edits: [...freed, made] };
    const refused = desk.submit(whole);
    if (refused === null) desk.select([made.placement.id]);
    return refused;
  };
  return (
    <ActionForm word="Assemble" icon={<Boxes size={14} aria-hidden />} button="Create assembly" onDo={run}>
      <AskedField name="name" label="Name" start={first ?? "Assembly"} required />
      <AskedField name="at" label="Origin (width; depth; height)" start="0; 0; 0" required />
      <FreeEnds ids={ids} on={free} onToggle={setFree} />
    </ActionForm>
  );
}

type FreeEndsProps = {
  readonly ids: readonly string[];
  readonly on: boolean;
  readonly onToggle: (on: boolean) => void;
};

/** Asked only where an end is cut across the border of the assembly; all members are gone through when the form is opened. */
function FreeEnds({ ids, ...tick }: FreeEndsProps) {
  const job = useDeskState((state) => state.job);
  const across = useMemo(() => endsAcross(job, new Set(ids)).length, [job, ids]);
  if (across === 0) return null;
  return (
    <Tick
      label={`Free ${counted(across, "end")} cut against what stays outside, or the other way round. They keep their form.`}
      {...tick}
    />
  );
}

/** What can be done to one placed assembly. */
export function PlacedActions({ id }: { readonly id: string }) {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  const assembly = findAssembly(job, job.placements[id]?.assembly ?? null);
  if (!assembly) return null;
  const takeApart = () => {
    const edit = takenApart(job, id, freshIds(job));
    if (!edit.ok) return sentence(edit.problem);
    const refused = desk.submit(edit.value);
    if (refused === null) desk.select([]);
    return refused;
  };
  return (
    <>
      <Button look="plain" icon={<LogIn size={14} aria-hidden />} onClick={() => desk.enter(assembly.id)}>
        Open
      </Button>
      <DoButton icon={<Plus size={14} aria-hidden />} onDo={() => placeAgain(desk, assembly)}>
        Add placement
      </DoButton>
      <DoButton icon={<Ungroup size={14} aria-hidden />} onDo={takeApart}>
        Dissolve
      </DoButton>
    </>
  );
}
