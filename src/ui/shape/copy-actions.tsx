"use client";
/** Copies of the selection: moved, repeated by a number or a formula, mirrored. */
import { Copy, FlipHorizontal2 } from "lucide-react";
import { useState } from "react";
import { type Axis, assemblyOf, type CopyRule, copyOfPieces, readPlace } from "@/core/job";
import { sentence } from "@/core/kernel";
import { Chooser } from "../common/chooser";
import { useDesk } from "../desk/desk-context";
import { ActionForm, type Asked, AskedField } from "./action-form";
import { freshIds } from "./fresh-ids";

function useCopies(ids: readonly string[]) {
  const desk = useDesk();
  return (rule: CopyRule): string | null => {
    const { job } = desk.store.getState();
    const edit = copyOfPieces(job, ids, rule, freshIds(job));
    if (!edit.ok) return sentence(edit.problem);
    const refused = desk.submit(edit.value);
    const { members, panels, boughtParts, placements } = edit.value;
    if (refused === null)
      desk.select([...members, ...panels, ...boughtParts, ...placements].map((record) => record.id));
    return refused;
  };
}

export function CopyForm({ ids }: { readonly ids: readonly string[] }) {
  const copy = useCopies(ids);
  const desk = useDesk();
  const run = (asked: Asked) => {
    const by = readPlace(asked("by"));
    if (by?.kind !== "place") return "Type three lengths separated by semicolons: width; depth; height.";
    const many = asked("times");
    if (!/^\d+$/.test(many)) return repeatByFormula(desk, ids, by.at, many);
    return copy({ kind: "move", by: by.at, times: Number(asked("times")) });
  };
  return (
    <ActionForm word="Copy" icon={<Copy size={14} aria-hidden />} button="Copy" onDo={run}>
      <AskedField name="by" label="Spacing (width; depth; height)" start="0; 100; 0" required />
      <AskedField name="times" label="How many copies, or a formula that stays" start="1" required />
    </ActionForm>
  );
}

/** A number that follows key sizes is kept by an assembly that stands there so many times more. */
function repeatByFormula(
  desk: ReturnType<typeof useDesk>,
  ids: readonly string[],
  step: readonly [string, string, string],
  formula: string,
): string | null {
  const { job } = desk.store.getState();
  const [only] = ids;
  const placement = ids.length === 1 && only !== undefined ? job.placements[only] : undefined;
  const count = `1 + (${formula})`;
  if (placement)
    return desk.submit({
      kind: "changePlacements",
      ids: [placement.id],
      set: { count, step: [step[0], step[1], step[2]] },
    });
  const name = ids
    .map((id) => (job.members[id] ?? job.panels[id] ?? job.boughtParts[id])?.name)
    .find(Boolean);
  const repeat = { count, step };
  const edit = assemblyOf(job, ids, { name: name ?? "Repeat", at: ["0", "0", "0"], repeat }, freshIds(job));
  if (!edit.ok) return sentence(edit.problem);
  const refused = desk.submit(edit.value);
  if (refused === null && edit.value.kind === "makeAssembly") desk.select([edit.value.placement.id]);
  return refused;
}

export function MirrorForm({ ids }: { readonly ids: readonly string[] }) {
  const copy = useCopies(ids);
  const [axis, setAxis] = useState<Axis>(0);
  const run = (asked: Asked) => copy({ kind: "mirror", axis, plane: asked("plane") });
  return (
    <ActionForm
      word="Mirror"
      icon={<FlipHorizontal2 size={14} aria-hidden />}
      button="Create mirrored copy"
      onDo={run}
    >
      <Chooser
        label="Mirror direction"
        value={String(axis)}
        choices={[
          { value: "0", label: "width" },
          { value: "1", label: "depth" },
          { value: "2", label: "height" },
        ]}
        onChoose={(value) => setAxis(Number(value) as Axis)}
      />
      <AskedField name="plane" label="Mirror plane at" start="0" required />
    </ActionForm>
  );
}
