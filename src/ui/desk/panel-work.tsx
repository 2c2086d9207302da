"use client";
/** The work of panels: grooves, rebates, holes, notches and cut-outs, their places and sizes as formulas. */
import {
  type Groove,
  type Hole,
  lengthWith,
  type Notch,
  PANEL_EDGES,
  type Panel,
  type Sizes,
  type Work,
} from "@/core/job";
import { startLength } from "@/core/measure";
import { Chooser } from "../common/chooser";
import { TextField } from "../common/text-field";
import { CutOutFields, newCutOut } from "./cut-out";
import { useDeskState } from "./desk-context";
import { type EdgeWords, edgeName, useEdgeWords } from "./panel-edges";
import { type NewWork, WorkList, WorkTexts } from "./work-list";

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
const ADDED: readonly NewWork<Work>[] = [
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
  { word: "cut-out", work: newCutOut },
];

/** What a piece of work is called: a groove at its very edge is a rebate. */
const wordOf = (work: Work, sizes: Sizes): string => {
  if (work.kind === "cutOut") return "cut-out";
  if (work.kind !== "groove") return work.kind;
  const distance = lengthWith(sizes, work.distance);
  return distance.ok && distance.value <= 0 ? "rebate" : "groove";
};

export function PanelWork({ panels }: { readonly panels: readonly Panel[] }) {
  const sizes = useDeskState((state) => state.results.sizes);
  const words = useEdgeWords(panels);
  return (
    <WorkList
      records={panels}
      noun="panels"
      added={ADDED}
      wordOf={(work) => wordOf(work, sizes)}
      editOf={(id, work) => ({ kind: "changePanels", ids: [id], set: { work } })}
      fields={(work, name, onChange) => (
        <WorkFields work={work} name={name} words={words} onChange={onChange} />
      )}
    />
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
    case "cutOut":
      return <CutOutFields work={work} name={rest.name} onChange={rest.onChange} />;
    default:
      return work satisfies never;
  }
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
      <WorkTexts work={work} fields={GROOVE_FIELDS} onChange={onChange} />
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
      <WorkTexts
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
      <WorkTexts work={work} fields={NOTCH_FIELDS} onChange={onChange} />
    </>
  );
}
