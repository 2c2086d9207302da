"use client";
/** The work of members: holes, slots and notches; of several at once where they have the same. */
import { MEMBER_FACES, type Member, type MemberHole, type MemberNotch, type MemberWork } from "@/core/job";
import { startLength } from "@/core/measure";
import { Chooser } from "../common/chooser";
import { type NewWork, WorkList, WorkTexts } from "./work-list";

const FACES = MEMBER_FACES.map((value) => ({ value, label: value }));
const FROM = [
  { value: "start", label: "start" },
  { value: "end", label: "end" },
  { value: "middle", label: "middle" },
] as const;
const WALLS = [
  { value: "all", label: "all walls" },
  { value: "one", label: "the first wall" },
] as const;
const ENDS = [
  { value: "start", label: "its start" },
  { value: "end", label: "its end" },
] as const;

const ADDED: readonly NewWork<MemberWork>[] = [
  {
    word: "hole",
    work: (id, unit) => ({
      id,
      kind: "hole",
      face: "top",
      from: "start",
      along: startLength(unit, "100", "4"),
      across: "0",
      diameter: startLength(unit, "9", "3/8"),
      slot: "0",
      walls: "all",
      count: "1",
      step: startLength(unit, "100", "4"),
    }),
  },
  {
    word: "notch",
    work: (id, unit) => ({
      id,
      kind: "notch",
      end: "start",
      face: "top",
      depth: startLength(unit, "10", "3/8"),
      length: startLength(unit, "40", "1 1/2"),
    }),
  },
];

export function MemberWorkFields({ members }: { readonly members: readonly Member[] }) {
  return (
    <WorkList
      records={members}
      noun="members"
      added={ADDED}
      wordOf={({ kind }) => kind}
      editOf={(id, work) => ({ kind: "changeMembers", ids: [id], set: { work } })}
      fields={(work, name, onChange) =>
        work.kind === "hole" ? (
          <HoleFields work={work} name={name} onChange={onChange} />
        ) : (
          <NotchFields work={work} name={name} onChange={onChange} />
        )
      }
    />
  );
}

type FieldsProps<W extends MemberWork> = {
  readonly work: W;
  readonly name: string;
  readonly onChange: (work: W) => string | null;
};

function HoleFields({ work, name, onChange }: FieldsProps<MemberHole>) {
  return (
    <>
      <Chooser
        label={`${name} in the`}
        value={work.face}
        choices={FACES}
        onChoose={(face) => onChange({ ...work, face })}
      />
      <Chooser
        label="Through"
        value={work.walls}
        choices={WALLS}
        onChoose={(walls) => onChange({ ...work, walls })}
      />
      <Chooser
        label="Measured from"
        value={work.from}
        choices={FROM}
        onChoose={(from) => onChange({ ...work, from })}
      />
      <WorkTexts
        work={work}
        onChange={onChange}
        fields={[
          ["along", "Along"],
          ["across", "Across, from the middle"],
          ["diameter", "Diameter"],
          ["slot", "Slot length (0: round)"],
          ["count", "Quantity"],
          ["step", "Spacing"],
        ]}
      />
    </>
  );
}

function NotchFields({ work, name, onChange }: FieldsProps<MemberNotch>) {
  return (
    <>
      <Chooser
        label={`${name} at`}
        value={work.end}
        choices={ENDS}
        onChoose={(end) => onChange({ ...work, end })}
      />
      <Chooser
        label="From the"
        value={work.face}
        choices={FACES}
        onChoose={(face) => onChange({ ...work, face })}
      />
      <WorkTexts
        work={work}
        onChange={onChange}
        fields={[
          ["depth", "Depth into section"],
          ["length", "Length along member"],
        ]}
      />
    </>
  );
}
