"use client";
/** A member from each selected point, or from each end of the selected members, straight down or up to a height. */
import { ArrowDownToLine } from "lucide-react";
import { useState } from "react";
import { lastUsed } from "@/core/jigs";
import { counted, sentence } from "@/core/kernel";
import { drawLegs } from "@/core/shape";
import { useDesk, useDeskState } from "../desk/desk-context";
import { SectionChooser } from "../desk/section-chooser";
import { ActionForm, type Asked, AskedField } from "./action-form";
import { freshIds } from "./fresh-ids";

export function LegsForm({
  points,
  members,
}: {
  readonly points: readonly string[];
  readonly members: readonly string[];
}) {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  const stockroom = useDeskState((state) => state.stockroom);
  const [section, setSection] = useState(() => lastUsed(job, stockroom, "section") ?? "");
  const ends = members.flatMap((id) => {
    const line = job.lines[job.members[id]?.line ?? ""];
    return line ? [line.from as string, line.to as string] : [];
  });
  const from = points.length > 0 ? points : [...new Set(ends)];
  const run = (asked: Asked) => {
    const { results, inside } = desk.store.getState();
    const ground = { job, sizes: results.sizes, stockroom, home: inside };
    const settings = { name: asked("name"), section: section || null, roll: "0", cardinal: 10 };
    const drawn = drawLegs(ground, from, asked("height"), settings, freshIds(job));
    return drawn.ok ? desk.submit(drawn.value.edit) : sentence(drawn.problem);
  };
  return (
    <ActionForm word="Legs" icon={<ArrowDownToLine size={14} aria-hidden />} button="Draw legs" onDo={run}>
      <p className="text-[13px] text-ink-soft">One from each of {counted(from.length, "point")}.</p>
      <AskedField name="name" label="Name" start="Leg" required />
      <SectionChooser value={section} onChoose={setSection} />
      <AskedField name="height" label="Down or up to this height" start="0" required />
    </ActionForm>
  );
}
