"use client";
/** Where an assembly stands, how often and how it counts; what is usual in it for all its members and panels. */
import {
  type Assembly,
  type Defaults,
  LOOKS,
  MIRROR_AXES,
  type Placement,
  readRowNumbers,
  rowNumbersFaultWords,
  rowNumberWords,
} from "@/core/job";
import { Chooser } from "../common/chooser";
import { TextField } from "../common/text-field";
import { useDesk, useDeskState } from "./desk-context";

export const ROLE_CHOICES = [
  { value: "made", label: "made" },
  { value: "bought", label: "bought" },
  { value: "guide", label: "guide (not counted)" },
] as const;

export const LOOK_CHOICES = [
  { value: "" as const, label: "as its material" },
  ...LOOKS.map((value) => ({ value, label: value })),
];

const AXES = ["width", "depth", "height"] as const;
const GRID = "grid grid-cols-3 gap-x-3 gap-y-1.5";

type Texts = Placement["at"];

/** Three short fields under one heading, for width, depth and height. */
export function ThreeFields({
  label,
  values,
  onCommit,
}: {
  readonly label: string;
  readonly values: Texts;
  readonly onCommit: (values: Texts) => string | null;
}) {
  return (
    <fieldset className="col-span-3 grid grid-cols-3 gap-x-3">
      <legend className="sr-only">{label}</legend>
      {AXES.map((axis, i) => (
        <TextField
          key={axis}
          label={`${label}, ${axis}`}
          value={values[i] ?? ""}
          onCommit={(text) => {
            const next: [string, string, string] = [values[0], values[1], values[2]];
            next[i] = text;
            return onCommit(next);
          }}
        />
      ))}
    </fieldset>
  );
}

export function PlacementSettings({ placement }: { readonly placement: Placement }) {
  const desk = useDesk();
  const assembly = useDeskState((state) => state.job.assemblies[placement.assembly]);
  const change = (set: Partial<Omit<Placement, "id" | "assembly" | "into">>) =>
    desk.submit({ kind: "changePlacements", ids: [placement.id], set });
  if (!assembly) return null;
  return (
    <div className={GRID}>
      <ThreeFields label="Position" values={placement.at} onCommit={(at) => change({ at })} />
      <TextField
        label="Count, or a formula"
        value={placement.count}
        onCommit={(count) => change({ count })}
      />
      <Chooser
        label="Mirrored across"
        value={placement.mirror ?? ""}
        choices={[
          { value: "", label: "not mirrored" },
          ...MIRROR_AXES.map((axis) => ({ value: axis, label: axis })),
        ]}
        onChoose={(axis) => change({ mirror: axis === "" ? null : axis })}
      />
      <TextField
        label="Include only if"
        value={placement.when ?? ""}
        placeholder="always"
        onCommit={(text) => change({ when: text.trim() === "" ? null : text.trim() })}
      />
      <ThreeFields label="Spacing" values={placement.step} onCommit={(step) => change({ step })} />
      <ThreeFields label="Rotation, °" values={placement.turn} onCommit={(turn) => change({ turn })} />
      <Chooser
        label="In lists"
        value={placement.leftOut ? "out" : "in"}
        choices={[
          { value: "in", label: "counted" },
          { value: "out", label: "left out" },
        ]}
        onChoose={(way) => change({ leftOut: way === "out" })}
      />
      {placement.count.trim() === "1" && placement.without.length === 0 ? null : (
        <TextField
          label="Left out of the row, by number"
          value={rowNumberWords(placement.without)}
          placeholder="none"
          onCommit={(text) => {
            const read = readRowNumbers(text);
            return read.ok ? change({ without: read.value }) : rowNumbersFaultWords(read.problem);
          }}
        />
      )}
      <AssemblyFields assembly={assembly} />
    </div>
  );
}

/** What holds for every placement of an assembly. */
export function AssemblySettings({ assembly }: { readonly assembly: Assembly }) {
  return (
    <div className={GRID}>
      <AssemblyFields assembly={assembly} />
    </div>
  );
}

function AssemblyFields({ assembly }: { readonly assembly: Assembly }) {
  const desk = useDesk();
  const change = (set: Partial<Omit<Assembly, "id">>) =>
    desk.submit({ kind: "changeAssemblies", ids: [assembly.id], set });
  return (
    <>
      <TextField
        label="Name of the assembly"
        value={assembly.name}
        onCommit={(text) => (text.trim() === "" ? "Enter a name." : change({ name: text.trim() }))}
      />
      <Chooser
        label="Role"
        value={assembly.role}
        choices={ROLE_CHOICES}
        onChoose={(role) => change({ role })}
      />
      {assembly.role === "bought" ? <AssemblyEntry assembly={assembly} /> : null}
      <Chooser
        label="Colour"
        value={assembly.look ?? ""}
        choices={LOOK_CHOICES}
        onChoose={(look) => change({ look: look === "" ? null : look })}
      />
      <DefaultFields usual={assembly.usual} wider="the wider one" onChange={(usual) => change({ usual })} />
    </>
  );
}

/** Which bought part of the stockroom an assembly is that is bought as a whole: its price is there. */
function AssemblyEntry({ assembly }: { readonly assembly: Assembly }) {
  const desk = useDesk();
  const bought = useDeskState((state) => state.stockroom.bought);
  return (
    <Chooser
      label="Bought as"
      value={assembly.entry ?? ""}
      choices={[
        { value: "", label: "none (price missing)" },
        ...bought
          .filter(({ measure }) => measure === "each")
          .map(({ id, name }) => ({ value: id, label: name })),
      ]}
      onChoose={(id) =>
        desk.submit({ kind: "changeAssemblies", ids: [assembly.id], set: { entry: id === "" ? null : id } })
      }
    />
  );
}

/** The stock and material of all that names none of its own. */
export function DefaultFields({
  usual,
  wider,
  onChange,
}: {
  readonly usual: Defaults;
  readonly wider: string;
  readonly onChange: (usual: Defaults) => string | null;
}) {
  const { sections, boards } = useDeskState((state) => state.stockroom);
  const orNull = (text: string) => (text.trim() === "" ? null : text.trim());
  const stock = (entries: readonly { readonly id: string; readonly name: string }[]) => [
    { value: "", label: `${wider}` },
    ...entries.map(({ id, name }) => ({ value: id, label: name })),
  ];
  return (
    <>
      <Chooser
        label="Default section"
        value={usual.section ?? ""}
        choices={stock(sections)}
        onChoose={(id) => onChange({ ...usual, section: orNull(id) })}
      />
      <Chooser
        label="Default board"
        value={usual.board ?? ""}
        choices={stock(boards)}
        onChoose={(id) => onChange({ ...usual, board: orNull(id) })}
      />
      <TextField
        label="Material of members"
        value={usual.memberMaterial ?? ""}
        placeholder={`${wider}`}
        onCommit={(text) => onChange({ ...usual, memberMaterial: orNull(text) })}
      />
      <TextField
        label="Material of panels"
        value={usual.panelMaterial ?? ""}
        placeholder={`${wider}`}
        onCommit={(text) => onChange({ ...usual, panelMaterial: orNull(text) })}
      />
    </>
  );
}
