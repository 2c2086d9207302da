"use client";
/** The work of panels: grooves, rebates, holes and notches, their places and sizes as formulas. */
import { Plus, Trash2 } from "lucide-react";
import type { ReactNode } from "react";
import {
  type Groove,
  type Hole,
  lengthWith,
  type Notch,
  PANEL_EDGES,
  type Panel,
  type SimpleEdit,
  type Sizes,
  type Work,
} from "@/core/job";
import { type LengthUnit, startLength } from "@/core/measure";
import { Button } from "../common/button";
import { Chooser } from "../common/chooser";
import { newId } from "../common/fresh-id";
import { TextField } from "../common/text-field";
import { useDesk, useDeskState } from "./desk-context";
import { type EdgeWords, edgeName, useEdgeWords } from "./panel-edges";
import { shared } from "./shared-fields";

const FACES = [
  { value: "good", label: "good face" },
  { value: "other", label: "other face" },
] as const;

const GROOVE_FIELDS = [
  ["distance", "From the edge"],
  ["width", "Width"],
  ["depth", "Depth"],
  ["stopAtStart", "Stopped before start"],
  ["stopAtEnd", "Stopped before end"],
] as const;
const HOLE_FIELDS = [
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

/** The work without what only tells one piece of it from another. */
const bare = ({ id: _, ...work }: Work) => work;

/** What a piece of work is called: a groove at its very edge is a rebate. */
const wordOf = (work: Work, sizes: Sizes): string => {
  if (work.kind !== "groove") return work.kind;
  const distance = lengthWith(sizes, work.distance);
  return distance.ok && distance.value <= 0 ? "rebate" : "groove";
};

/** The work of panels: of several it is shown where they have the same, and what is added is added to each. */
export function PanelWork({ panels }: { readonly panels: readonly Panel[] }) {
  const desk = useDesk();
  const unit = useDeskState((state) => state.job.info.job.unit);
  const sizes = useDeskState((state) => state.results.sizes);
  const words = useEdgeWords(panels);
  const shown = panels[0]?.work ?? [];
  const same = shared(panels.map(({ work }) => work.map(bare))) !== null;
  const carryOut = (what: string, workOf: (panel: Panel) => Work[]): string | null => {
    const edits = panels.map((panel): SimpleEdit => {
      return { kind: "changePanels", ids: [panel.id], set: { work: workOf(panel) } };
    });
    const [first] = edits;
    if (!first) return null;
    if (edits.length === 1) return desk.submit(first);
    return desk.submit({ kind: "together", what: `${what} ${edits.length} panels`, edits });
  };
  const set = (i: number, next: Work) =>
    carryOut("Change the work of", ({ work }) =>
      work.map((one, k) => (k === i ? { ...next, id: one.id } : one)),
    );
  const counts = new Map<string, number>();
  return (
    <section aria-label="Work" className="col-span-3 space-y-1.5">
      {same ? null : (
        <p className="text-[13px] text-ink-soft">
          The work of these {panels.length} panels differs. What is added here is added to each.
        </p>
      )}
      {(same ? shown : []).map((work, i) => {
        const word = wordOf(work, sizes);
        const number = (counts.get(word) ?? 0) + 1;
        counts.set(word, number);
        const name = `${word[0]?.toUpperCase()}${word.slice(1)} ${number}`;
        return (
          <fieldset key={work.id} className="grid grid-cols-4 gap-x-2 gap-y-1 border-seam border-l-2 pl-2">
            <legend className="sr-only">{name}</legend>
            <WorkFields work={work} name={name} words={words} onChange={(next) => set(i, next)} />
            <span className="self-end">
              <Button
                look="danger"
                icon={<Trash2 size={14} aria-hidden />}
                aria-label={`Remove ${name.toLowerCase()}`}
                onClick={() => carryOut("Remove work of", (panel) => panel.work.filter((_, k) => k !== i))}
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
            onClick={() =>
              carryOut(`Add a ${word} to`, (panel) => [...panel.work, work(newId("work"), unit)])
            }
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
  readonly words: EdgeWords;
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

function FaceChoice<W extends Groove | Hole>({ work, name, onChange }: Omit<FieldsProps<W>, "words">) {
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
  words,
  onChange,
}: Omit<FieldsProps<W>, "name"> & { readonly label: string }) {
  return (
    <Chooser
      label={label}
      value={work.from}
      choices={PANEL_EDGES.map((edge) => ({ value: edge, label: `${edgeName(edge, words)} edge` }))}
      onChoose={(from) => onChange({ ...work, from })}
    />
  );
}

function GrooveFields({ work, name, words, onChange }: FieldsProps<Groove>) {
  return (
    <>
      <FaceChoice work={work} name={name} onChange={onChange} />
      <EdgeChoice work={work} label="Measured from the" words={words} onChange={onChange} />
      <Lengths work={work} fields={GROOVE_FIELDS} onChange={onChange} />
    </>
  );
}

function HoleFields({ work, name, words, onChange }: FieldsProps<Hole>) {
  return (
    <>
      <FaceChoice work={work} name={name} onChange={onChange} />
      <TextField
        label="Depth"
        value={work.depth ?? ""}
        placeholder="through"
        onCommit={(text) => onChange({ ...work, depth: text.trim() === "" ? null : text.trim() })}
      />
      <Lengths
        work={work}
        fields={[
          ["x", `From the ${edgeName("left", words)}`],
          ["y", `From the ${edgeName("front", words)}`],
          ...HOLE_FIELDS,
        ]}
        onChange={onChange}
      />
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

function NotchFields({ work, name, words, onChange }: FieldsProps<Notch>) {
  return (
    <>
      <EdgeChoice work={work} label={`${name} in the`} words={words} onChange={onChange} />
      <Lengths work={work} fields={NOTCH_FIELDS} onChange={onChange} />
    </>
  );
}
