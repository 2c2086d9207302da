"use client";
/** The end cut of one end of a member: its kind, what it meets, its gap or offset. */
import { against, type EndCut, homeOfMember, type Job, type Member, neighbourOf } from "@/core/job";
import { Chooser } from "../common/chooser";
import { TextField } from "../common/text-field";

type EndProps = {
  readonly member: Member;
  readonly side: "start" | "end";
  readonly job: Job;
  readonly onChange: (cut: EndCut) => string | null;
};

/** Members that could meet this end: those whose line touches the same point, then all others. */
function neighbours(member: Member, side: "start" | "end", job: Job): readonly Member[] {
  const line = job.lines[member.line];
  const point = side === "start" ? line?.from : line?.to;
  const touches = (other: Member) => {
    const own = job.lines[other.line];
    return own?.from === point || own?.to === point;
  };
  const home = homeOfMember(job, member);
  const others = Object.values(job.members).filter(
    (other) => other.id !== member.id && homeOfMember(job, other) === home,
  );
  return [...others.filter(touches), ...others.filter((other) => !touches(other))];
}

export function EndSettings({ member, side, job, onChange }: EndProps) {
  const cut = member[side];
  const line = job.lines[member.line];
  const point = job.points[(side === "start" ? line?.from : line?.to) ?? ""]?.name ?? "";
  const near = neighbours(member, side, job);
  const neighbour = neighbourOf(cut);
  const choose = (kind: string) => {
    const other = neighbour ?? near[0]?.id ?? null;
    if (kind === "level") onChange({ kind: "level", offset: "0" });
    else if (kind === "square" || other === null) onChange({ kind: "square", offset: "0", past: null });
    else if (kind === "past") onChange({ kind: "square", offset: "0", past: other });
    else if (kind === "cope") onChange({ kind: "cope", neighbour: other, gap: "0", curve: "surface" });
    else if (kind === "mitre") onChange({ kind: "mitre", neighbour: other });
    else onChange({ kind: "butt", neighbour: other, gap: "0" });
  };
  const pick = (id: string) => {
    const other = near.find((one) => one.id === id)?.id;
    if (!other) return;
    onChange(against(cut, other));
  };
  const names = near.map((other) => {
    const own = job.lines[other.line];
    return {
      value: other.id,
      label: `${other.name} ${job.points[own?.from ?? ""]?.name ?? ""}–${job.points[own?.to ?? ""]?.name ?? ""}`,
    };
  });
  return (
    <div className="space-y-1">
      <Chooser
        label={`${side === "start" ? "Start" : "End"} cut at ${point}`}
        value={cut.kind === "square" && cut.past !== null ? "past" : cut.kind}
        choices={[
          { value: "square", label: "square" },
          { value: "past", label: "square, runs past" },
          { value: "mitre", label: "mitre with" },
          { value: "butt", label: "butt against" },
          { value: "cope", label: "cope round" },
          { value: "level", label: "level" },
        ]}
        onChoose={choose}
      />
      {neighbour !== null ? (
        <Chooser
          label={`Neighbour at ${point}`}
          hideLabel
          value={neighbour}
          choices={names}
          onChoose={pick}
        />
      ) : null}
      {cut.kind === "cope" ? (
        <Chooser
          label={`Cut along, at ${point}`}
          value={cut.curve}
          choices={[
            { value: "surface", label: "the true surface" },
            { value: "fit", label: "the fit for a square blade" },
          ]}
          onChoose={(curve) => onChange({ ...cut, curve: curve as typeof cut.curve })}
        />
      ) : null}
      {cut.kind === "mitre" ? (
        <TextField
          label={`Gap at ${point}`}
          value={cut.gap ?? "0"}
          onCommit={(gap) => onChange({ ...cut, gap: gap.trim() === "" ? "0" : gap })}
        />
      ) : null}
      {cut.kind === "butt" || cut.kind === "cope" ? (
        <TextField label={`Gap at ${point}`} value={cut.gap} onCommit={(gap) => onChange({ ...cut, gap })} />
      ) : null}
      {cut.kind === "square" || cut.kind === "level" ? (
        <TextField
          label={`${cut.kind === "level" ? "Above" : "Beyond"} ${point}`}
          value={cut.offset}
          onCommit={(offset) => onChange({ ...cut, offset })}
        />
      ) : null}
    </div>
  );
}
