"use client";
import { useMemo } from "react";
import { type Home, homeOfLine, type Point } from "@/core/job";
/** The guide points of the job and their coordinates. */
import { counted } from "@/core/kernel";
import { linesWithoutMember } from "@/core/shape";
import { TextField } from "../common/text-field";
import { useDesk, useDeskState } from "../desk/desk-context";
import { Section } from "./ledger-section";
import { RecordList, useRecordPick } from "./record-list";

const AXES = ["width", "depth", "height"] as const;

/** The guide points: their coordinates as texts, in the order width, depth, height. */
export function Points({ home }: { readonly home: Home }) {
  const all = useDeskState((state) => state.job.points);
  const lines = useDeskState((state) => state.job.lines);
  const points = useMemo(() => Object.values(all).filter((point) => point.assembly === home), [all, home]);
  const ends = useMemo(() => {
    const counts = new Map<string, number>();
    for (const { from, to } of Object.values(lines))
      for (const point of new Set<string>([from, to])) counts.set(point, (counts.get(point) ?? 0) + 1);
    return counts;
  }, [lines]);
  if (points.length === 0) return null;
  return (
    <Section title="Points" facts="width · depth · height">
      <RecordList items={points} keyOf={({ id }) => id}>
        {(point) => <PointRow point={point} ends={ends.get(point.id) ?? 0} />}
      </RecordList>
    </Section>
  );
}

/** `ends`: how many lines begin or end there. */
function PointRow({ point, ends }: { readonly point: Point; readonly ends: number }) {
  const desk = useDesk();
  const pick = useRecordPick();
  const chosen = useDeskState((state) => state.selected.has(point.id));
  const move = (i: number, text: string) => {
    const at = point.at.map((old, k) => (k === i ? text : old)) as [string, string, string];
    return desk.submit({ kind: "movePoints", points: [{ id: point.id, at }] });
  };
  return (
    <div
      className={`grid grid-cols-[64px_1fr_1fr_1fr_64px] items-start gap-2 border-seam border-b px-3.5 py-0.5 ${chosen ? "bg-brass-pale" : ""}`}
    >
      <button
        type="button"
        aria-pressed={chosen}
        className="h-7 text-left font-semibold font-table hover:underline"
        onClick={(event) => pick(point.id, event)}
      >
        {point.name}
      </button>
      {AXES.map((axis, i) => (
        <TextField
          key={axis}
          label={`${axis} of ${point.name}`}
          hideLabel
          value={point.at[i] ?? ""}
          onCommit={(text) => move(i, text)}
        />
      ))}
      <span className="pt-1 text-right text-[12px] text-ink-soft">
        {ends === 0 ? "loose" : counted(ends, "line")}
      </span>
    </div>
  );
}

/** Lines without a member: they can be drawn from and removed, and are never counted as pieces. */
export function Guides({ home }: { readonly home: Home }) {
  const points = useDeskState((state) => state.job.points);
  const all = useDeskState(({ job }) => linesWithoutMember(job));
  const guides = useMemo(
    () => all.filter((line) => homeOfLine({ points }, line) === home),
    [all, points, home],
  );
  if (guides.length === 0) return null;
  return (
    <Section title="Guides" facts={String(guides.length)}>
      <RecordList items={guides} keyOf={({ id }) => id}>
        {(line) => (
          <GuideRow id={line.id} words={`Guide ${points[line.from]?.name}–${points[line.to]?.name}`} />
        )}
      </RecordList>
    </Section>
  );
}

function GuideRow({ id, words }: { readonly id: string; readonly words: string }) {
  const pick = useRecordPick();
  const chosen = useDeskState((state) => state.selected.has(id));
  return (
    <button
      type="button"
      aria-pressed={chosen}
      onClick={(event) => pick(id, event)}
      className={`h-7 w-full border-seam border-b px-3.5 text-left font-table ${chosen ? "bg-brass-pale" : "hover:bg-ground"}`}
    >
      {words}
    </button>
  );
}
