"use client";
import { type Home, homeOfLine, type Job, type Point } from "@/core/job";
/** The guide points of the job and their coordinates. */
import { counted } from "@/core/kernel";
import { LongList } from "../common/long-list";
import { TextField } from "../common/text-field";
import { useDesk, useDeskState } from "../desk/desk-context";
import { Section } from "./ledger-section";

const AXES = ["width", "depth", "height"] as const;

/** The guide points: their coordinates as texts, in the order width, depth, height. */
export function Points({ job, home }: { readonly job: Job; readonly home: Home }) {
  const points = Object.values(job.points).filter((point) => point.assembly === home);
  if (points.length === 0) return null;
  return (
    <Section title="Points" facts="width · depth · height">
      <LongList items={points} keyOf={({ id }) => id}>
        {(point) => <PointRow point={point} />}
      </LongList>
    </Section>
  );
}

function PointRow({ point }: { readonly point: Point }) {
  const desk = useDesk();
  const chosen = useDeskState((state) => state.selected.has(point.id));
  const lines = useDeskState((state) => state.job.lines);
  const ends = Object.values(lines).filter((line) => line.from === point.id || line.to === point.id).length;
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
        onClick={(event) =>
          desk.select(
            event.shiftKey || event.ctrlKey ? [...desk.store.getState().selected, point.id] : [point.id],
          )
        }
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
export function Guides({ job, home }: { readonly job: Job; readonly home: Home }) {
  const desk = useDesk();
  const selected = useDeskState((state) => state.selected);
  const carrying = new Set(Object.values(job.members).map((member) => member.line as string));
  const guides = Object.values(job.lines).filter(
    (line) => !carrying.has(line.id) && homeOfLine(job, line) === home,
  );
  if (guides.length === 0) return null;
  return (
    <Section title="Guides" facts={String(guides.length)}>
      <LongList items={guides} keyOf={({ id }) => id}>
        {(line) => (
          <button
            type="button"
            aria-pressed={selected.has(line.id)}
            onClick={() => desk.select([line.id])}
            className={`h-7 w-full border-seam border-b px-3.5 text-left font-table ${selected.has(line.id) ? "bg-brass-pale" : "hover:bg-ground"}`}
          >
            Guide {job.points[line.from]?.name}–{job.points[line.to]?.name}
          </button>
        )}
      </LongList>
    </Section>
  );
}
