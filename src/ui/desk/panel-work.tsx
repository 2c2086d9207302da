"use client";
import { Plus, Trash2 } from "lucide-react";
import type { ReactNode } from "react";
import { type Groove, type Hole, type Notch, PANEL_EDGES, type Panel, type Work } from "@/core/job";
import { type LengthUnit, startLength } from "@/core/measure";
import { Button } from "../common/button";
import { Chooser } from "../common/chooser";
import { newId } from "../common/fresh-id";
import { TextField } from "../common/text-field";
/** The work of one panel: grooves, rebates, holes and notches, their places and sizes as formulas. */
import { useDeskState } from "./desk-context";

const FACES = [
  { value: "good", label: "good face" },
  { value: "other", label: "other face" },
] as const;
const EDGES = PANEL_EDGES.map((edge) => ({ value: edge, label: `${edge} edge` }));

const GROOVE_FIELDS = [
  ["distance", "From the edge"],
  ["width", "Width"],
  ["depth", "Depth"],
  ["stopAtStart", "Stopped before start"],
  ["stopAtEnd", "Stopped before end"],
] as const;
const HOLE_FIELDS = [
  ["x", "From the left"],
  ["y", "From the front"],
  ["diameter", "Diameter"],
  ["count", "Quantity"],
  ["step", "Spacing"],
] as const;
const NOTCH_FIELDS = [
  ["distance", "From the left or front"],
  ["width", "Along the edge"],
  ["depth", "Depth into panel"],
] as const;

const groove = { face: "good", from: "front", stopAtStart: "0", stopAtEnd: "0" } as const;
const ADDED: readonly { readonly word: string; readonly work: (id: string, unit: LengthUnit) => Work }[] = [
  {
    word: "groove",
    work: (id, unit) => ({
      ...groove,
      id,
      kind: "groove",
      distance: startLength(unit, "10", "3/8"),
      width: startLength(unit, "6", "1/4"),
      depth: startLength(unit, "5", "1/4"),
    }),
  },
  {
    word: "rebate",
    work: (id, unit) => ({
      ...groove,
      id,
      kind: "groove",
      distance: "0",
      width: startLength(unit, "9", "3/8"),
      depth: startLength(unit, "9", "3/8"),
    }),
  },
  {
    word: "hole",
    work: (id, unit) => ({
      id,
      kind: "hole",
      face: "good",
      x: startLength(unit, "40", "1 1/2"),
      y: startLength(unit, "40", "1 1/2"),
      diameter: startLength(unit, "8", "5/16"),
      depth: null,
      count: "1",
      step: startLength(unit, "32", "1 1/4"),
      along: "length",
    }),
  },
  {
    word: "notch",
    work: (id, unit) => ({
      id,
      kind: "notch",
      from: "front",
      distance: "0",
      width: startLength(unit, "40", "1 1/2"),
      depth: startLength(unit, "40", "1 1/2"),
    }),
  },
];

type Props = { readonly panel: Panel; readonly onChange: (work: Work[]) => string | null };

export function PanelWork({ panel, onChange }: Props) {
  const unit = useDeskState((state) => state.job.info.job.unit);
  const set = (next: Work) => onChange(panel.work.map((one) => (one.id === next.id ? next : one)));
  const counts = new Map<string, number>();
  return (
    <section aria-label="Work" className="col-span-3 space-y-1.5">
      {panel.work.map((work) => {
        const number = (counts.get(work.kind) ?? 0) + 1;
        counts.set(work.kind, number);
        const name = `${work.kind[0]?.toUpperCase()}${work.kind.slice(1)} ${number}`;
        return (
          <fieldset key={work.id} className="grid grid-cols-4 gap-x-2 gap-y-1 border-seam border-l-2 pl-2">
            <legend className="sr-only">{name}</legend>
            <WorkFields work={work} name={name} onChange={set} />
            <span className="self-end">
              <Button
                look="danger"
                icon={<Trash2 size={14} aria-hidden />}
                aria-label={`Remove ${name.toLowerCase()}`}
                onClick={() => onChange(panel.work.filter((one) => one.id !== work.id))}
              >
                Remove
              </Button>
            </span>
          </fieldset>
        );
      })}
      <p className="flex gap-2">
        {ADDED.map(({ word, work }) => (
          <Button
            key={word}
            look="plain"
            icon={<Plus size={14} aria-hidden />}
            onClick={() => onChange([...panel.work, work(newId("work"), unit)])}
          >
            Add a {word}
          </Button>
        ))}
      </p>
    </section>
  );
}

type FieldsProps<W extends Work> = {
  readonly work: W;
  readonly name: string;
  readonly onChange: (work: Work) => string | null;
};

function WorkFields({ work, ...rest }: FieldsProps<Work>) {
  switch (work.kind) {
    case "groove":
      return <GrooveFields work={work} {...rest} />;
    case "hole":
      return <HoleFields work={work} {...rest} />;
    case "notch":
      return <NotchFields work={work} {...rest} />;
    default:
      return work satisfies never;
  }
}

/** Text fields of a piece of work by the name of what they set. */
function Lengths<W extends Work, F extends keyof W & string>({
  work,
  fields,
  onChange,
}: {
  readonly work: W;
  readonly fields: readonly (readonly [F, string])[];
  readonly onChange: (work: W) => string | null;
}): ReactNode {
  return fields.map(([field, label]) => (
    <TextField
      key={field}
      label={label}
      value={String(work[field])}
      onCommit={(text) => onChange({ ...work, [field]: text })}
    />
  ));
}

function FaceChoice<W extends Groove | Hole>({ work, name, onChange }: FieldsProps<W>) {
  return (
    <Chooser
      label={`${name} on the`}
      value={work.face}
      choices={FACES}
      onChoose={(face) => onChange({ ...work, face })}
    />
  );
}

function EdgeChoice<W extends Groove | Notch>({
  work,
  label,
  onChange,
}: Omit<FieldsProps<W>, "name"> & { readonly label: string }) {
  return (
    <Chooser
      label={label}
      value={work.from}
      choices={EDGES}
      onChoose={(from) => onChange({ ...work, from })}
    />
  );
}

function GrooveFields({ work, name, onChange }: FieldsProps<Groove>) {
  return (
    <>
      <FaceChoice work={work} name={name} onChange={onChange} />
      <EdgeChoice work={work} label="Measured from the" onChange={onChange} />
      <Lengths work={work} fields={GROOVE_FIELDS} onChange={onChange} />
    </>
  );
}

function HoleFields({ work, name, onChange }: FieldsProps<Hole>) {
  return (
    <>
      <FaceChoice work={work} name={name} onChange={onChange} />
      <TextField
        label="Depth"
        value={work.depth ?? ""}
        placeholder="through"
        onCommit={(text) => onChange({ ...work, depth: text.trim() === "" ? null : text.trim() })}
      />
      <Lengths work={work} fields={HOLE_FIELDS} onChange={onChange} />
      <Chooser
        label="In a row along the"
        value={work.along}
        choices={[
          { value: "length", label: "length" },
          { value: "width", label: "width" },
        ]}
        onChoose={(along) => onChange({ ...work, along })}
      />
    </>
  );
}

function NotchFields({ work, name, onChange }: FieldsProps<Notch>) {
  return (
    <>
      <EdgeChoice work={work} label={`${name} in the`} onChange={onChange} />
      <Lengths work={work} fields={NOTCH_FIELDS} onChange={onChange} />
    </>
  );
}
