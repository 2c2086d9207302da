"use client";
import type { BoughtPart, Stand, StandIn } from "@/core/job";
/** Bought parts: which, how many or how much, and what stands for them in the picture. */
import { entryChosen } from "@/core/job";
import { type LengthUnit, startLength } from "@/core/measure";
import { Button } from "../common/button";
import { Chooser } from "../common/chooser";
import { TextField } from "../common/text-field";
import { useDesk, useDeskState } from "./desk-context";
import { LOOK_CHOICES, ThreeFields } from "./placement-settings";
import { ShapeFile } from "./shape-file";
import { OnlyWhen, shared } from "./shared-fields";

const NOUGHT: Stand["at"] = ["0", "0", "0"];
/** A box to begin with, round in the unit of the job. */
function startIn(unit: LengthUnit): Stand {
  const side = startLength(unit, "50", "2");
  return { at: NOUGHT, turn: NOUGHT, step: NOUGHT, as: { kind: "box", size: [side, side, side] } };
}

export function BoughtSettings({ parts }: { readonly parts: readonly BoughtPart[] }) {
  const desk = useDesk();
  const bought = useDeskState((state) => state.stockroom.bought);
  const change = (set: Partial<Omit<BoughtPart, "id" | "assembly">>) =>
    desk.submit({ kind: "changeBoughtParts", ids: parts.map((part) => part.id), set });
  const [only] = parts.length === 1 ? parts : [];
  const leftOut = parts.every((part) => part.leftOut);
  return (
    <div className="grid grid-cols-3 gap-x-3 gap-y-1.5">
      <Chooser
        label="Bought part"
        value={shared(parts.map((part) => part.entry ?? ""))}
        placeholder="mixed values"
        choices={[
          { value: "", label: "none chosen" },
          ...bought.map(({ id, name }) => ({ value: id, label: name })),
        ]}
        onChoose={(id) => desk.submit(entryChosen(parts, id === "" ? null : id, bought))}
      />
      <TextField
        label="Name"
        value={shared(parts.map((part) => part.name)) ?? ""}
        placeholder="mixed values"
        onCommit={(text) => (text.trim() === "" ? "Enter a name." : change({ name: text.trim() }))}
      />
      {only ? (
        <TextField label="Count, or a formula" value={only.count} onCommit={(count) => change({ count })} />
      ) : null}
      {only ? (
        <TextField
          label="Length of each, when by length"
          value={only.length ?? ""}
          placeholder="each as it comes"
          onCommit={(text) => change({ length: text.trim() === "" ? null : text.trim() })}
        />
      ) : null}
      <OnlyWhen whens={parts.map((part) => part.when)} onChange={(when) => change({ when })} />
      <div className="self-end">
        <Button look="plain" onClick={() => change({ leftOut: !leftOut })}>
          {leftOut ? "Include in lists" : "Leave out of lists"}
        </Button>
      </div>
      {only ? <StandFields part={only} onChange={change} /> : null}
    </div>
  );
}

type StandProps = {
  readonly part: BoughtPart;
  readonly onChange: (set: Partial<Pick<BoughtPart, "stand" | "look">>) => string | null;
};

function StandFields({ part, onChange }: StandProps) {
  const { stand } = part;
  const unit = useDeskState((state) => state.job.info.job.unit);
  const start = startIn(unit);
  const side = startLength(unit, "50", "2");
  const set = (next: Partial<Stand>) => onChange({ stand: { ...start, ...stand, ...next } });
  const choose = (kind: string) => {
    if (kind === "") onChange({ stand: null });
    else if (kind === "box") set({ as: start.as });
    else if (kind === "cylinder") set({ as: { kind: "cylinder", diameter: side, height: side } });
  };
  return (
    <>
      <Chooser
        label="In the 3D view"
        value={stand?.as.kind ?? ""}
        choices={[
          { value: "", label: "nowhere, only counted" },
          { value: "box", label: "a box" },
          { value: "cylinder", label: "a cylinder" },
          ...(stand?.as.kind === "shape" ? [{ value: "shape", label: stand.as.name }] : []),
        ]}
        onChoose={choose}
      />
      <ShapeFile onRead={(as) => set({ as })} />
      <Chooser
        label="Colour"
        value={part.look ?? ""}
        choices={LOOK_CHOICES}
        onChoose={(look) => onChange({ look: look === "" ? null : look })}
      />
      {stand ? (
        <>
          <StandInFields as={stand.as} onChange={(as) => set({ as })} />
          <ThreeFields label="Position" values={stand.at} onCommit={(at) => set({ at })} />
          <ThreeFields label="Spacing" values={stand.step} onCommit={(step) => set({ step })} />
          <ThreeFields label="Rotation, °" values={stand.turn} onCommit={(turn) => set({ turn })} />
        </>
      ) : null}
    </>
  );
}

function StandInFields({
  as,
  onChange,
}: {
  readonly as: StandIn;
  readonly onChange: (as: StandIn) => string | null;
}) {
  if (as.kind === "box")
    return <ThreeFields label="Size" values={as.size} onCommit={(size) => onChange({ ...as, size })} />;
  if (as.kind === "shape") return null;
  return (
    <>
      <TextField
        label="Diameter"
        value={as.diameter}
        onCommit={(diameter) => onChange({ ...as, diameter })}
      />
      <TextField label="Height" value={as.height} onCommit={(height) => onChange({ ...as, height })} />
    </>
  );
}
