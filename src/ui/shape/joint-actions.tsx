"use client";
/** Joints of the selection: cut by a rule, two points made one, a member split. */
import { Combine, Merge, Scissors } from "lucide-react";
import { useState } from "react";
import { type Job, membersAtPoint, SQUARE_END } from "@/core/job";
import { sentence } from "@/core/kernel";
import {
  cutsByRule,
  editsOfCuts,
  endsOnOthers,
  freedEnds,
  type JointRule,
  type Shape,
  splitMember,
} from "@/core/shape";
import { Chooser } from "../common/chooser";
import { useDesk, useDeskState } from "../desk/desk-context";
import { ActionForm, type Asked, AskedField, DoButton } from "./action-form";
import { freshIds } from "./fresh-ids";

/** Makes one point of the two that are selected: the second goes into the first. */
export function JoinPoints({ points }: { readonly points: readonly string[] }) {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  const [into, from] = points;
  if (into === undefined || from === undefined) return null;
  const join = () => {
    const refused = desk.submit({ kind: "joinPoints", from, into });
    if (refused === null) desk.select([into]);
    return refused;
  };
  return (
    <DoButton icon={<Combine size={14} aria-hidden />} onDo={join}>
      Join {job.points[from]?.name} to {job.points[into]?.name}
    </DoButton>
  );
}

/** Cuts all joints of the selection by one rule, or the joint at one point. */
export function JointForm({
  members,
  point,
}: {
  readonly members: readonly string[];
  readonly point: string | undefined;
}) {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  // A single member is cut at its own two joints, with all that meet there.
  const [single] = members.length === 1 ? members : [];
  const line = job.lines[job.members[single ?? ""]?.line ?? ""];
  const places = point !== undefined ? [point] : line ? [line.from as string, line.to as string] : [];
  const meeting = [...new Set(places.flatMap((place) => membersAtPoint(job, place)))];
  const [corners, setCorners] = useState<JointRule["corners"] | "square" | "free">("mitre");
  const [through, setThrough] = useState("deepest");
  /** Ends of the selection that no longer hang on other members. */
  const standAlone = (how: "square" | "free", shape: Shape): string | null => {
    const own = new Set(members.length > 0 ? members : meeting.map(({ id }) => id as string));
    const ends = endsOnOthers(job, own).filter(
      ({ member, side }) => members.length > 0 || pointAt(job, member, side) === point,
    );
    if (ends.length === 0) return "No end of the selection is cut against another member.";
    const edits =
      how === "free"
        ? freedEnds(job, shape, ends).edits
        : editsOfCuts(ends.map((end) => ({ ...end, cut: SQUARE_END })));
    const what = how === "free" ? "Free ends" : "Cut ends square";
    return desk.submit({ kind: "together", what, edits: [...edits] });
  };
  const run = (asked: Asked) => {
    const { results, stockroom } = desk.store.getState();
    if (corners === "square" || corners === "free") return standAlone(corners, results.shape);
    const only = places.flatMap((place) => {
      const at = results.shape.points.get(place);
      return at ? [at] : [];
    });
    const rule: JointRule = {
      corners,
      through:
        through === "deepest" || through === "level" || through === "plumb" ? through : { member: through },
      gap: asked("gap") || "0",
    };
    const ids = new Set(places.length === 0 ? members : meeting.map((member) => member.id as string));
    const ground = { sizes: results.sizes, stockroom, ...(places.length > 0 ? { only } : {}) };
    const edits = editsOfCuts(cutsByRule(job, ids, rule, ground));
    if (edits.length === 0) return "These members do not meet. Select members that share a point.";
    return desk.submit({ kind: "together", what: "Cut joints by a rule", edits: [...edits] });
  };
  return (
    <ActionForm word="Joints" icon={<Merge size={14} aria-hidden />} button="Apply" onDo={run}>
      <Chooser
        label="Corner joint"
        value={corners}
        choices={[
          { value: "mitre", label: "mitre" },
          { value: "butt", label: "butt" },
          { value: "square", label: "none: ends square" },
          { value: "free", label: "none: ends stay as they are" },
        ]}
        onChoose={setCorners}
      />
      {corners === "square" || corners === "free" ? null : (
        <>
          <Chooser
            label="Through member"
            value={through}
            choices={[
              { value: "deepest", label: "deepest" },
              { value: "level", label: "horizontal" },
              { value: "plumb", label: "vertical" },
              ...meeting.map(({ id, name }) => ({ value: id as string, label: name })),
            ]}
            onChoose={setThrough}
          />
          <AskedField name="gap" label="Root gap" start="0" required />
        </>
      )}
    </ActionForm>
  );
}

const pointAt = (job: Job, member: string, side: "start" | "end") => {
  const line = job.lines[job.members[member]?.line ?? ""];
  return side === "start" ? line?.from : line?.to;
};

export function SplitForm({ id }: { readonly id: string }) {
  const desk = useDesk();
  const run = (asked: Asked) => {
    const { job, results } = desk.store.getState();
    const edit = splitMember({ job, sizes: results.sizes }, id, asked("at"), freshIds(job));
    return edit.ok ? desk.submit(edit.value) : sentence(edit.problem);
  };
  return (
    <ActionForm word="Split" icon={<Scissors size={14} aria-hidden />} button="Split" onDo={run}>
      <AskedField name="at" label="Fraction (0.5) or length from start" start="0.5" required />
    </ActionForm>
  );
}
