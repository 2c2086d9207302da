"use client";
/** A cut-out of a panel: a rectangle by its four sides, or its corners one by one. */
import { useState } from "react";
import type { CutOut, OutlineCorner } from "@/core/job";
import { at } from "@/core/kernel";
import { type LengthUnit, startLength } from "@/core/measure";
import { Chooser } from "../common/chooser";
import { newId } from "../common/fresh-id";
import { TextField } from "../common/text-field";
import { CornersFields } from "./panel-outline";

type X = Pick<OutlineCorner, "fromX" | "x">;
type Y = Pick<OutlineCorner, "fromY" | "y">;

/** The sides of an upright rectangle with its rounding. */
type Sides = {
  readonly left: X;
  readonly right: X;
  readonly front: Y;
  readonly back: Y;
  readonly radius: string;
};

/** Which sides meet in each corner, one after the other round it. */
const MEETING = [
  ["left", "front"],
  ["right", "front"],
  ["right", "back"],
  ["left", "back"],
] as const;

const cornersOf = (sides: Sides, idOf: (corner: number) => string): OutlineCorner[] =>
  MEETING.map(([x, y], i) => ({ ...sides[x], ...sides[y], radius: sides.radius, id: idOf(i) }));

/** A rectangle that keeps as far from all edges of its panel, whatever size that has. */
export function newCutOut(id: string, unit: LengthUnit): CutOut {
  const by = startLength(unit, "20", "3/4");
  const sides: Sides = {
    left: { fromX: "left", x: by },
    right: { fromX: "right", x: by },
    front: { fromY: "front", y: by },
    back: { fromY: "back", y: by },
    radius: "0",
  };
  return { id, kind: "cutOut", corners: cornersOf(sides, () => newId("corner")) };
}

/** The sides of a cut-out whose corners are those of a rectangle; null: it is none. */
function sidesOf(corners: readonly OutlineCorner[]): Sides | null {
  if (corners.length !== MEETING.length) return null;
  const sides = rectangleRound(corners);
  const whole = cornersOf(sides, (i) => at(corners, i).id);
  const fields = ["fromX", "x", "fromY", "y", "radius"] as const;
  const isSame = corners.every((one, i) => fields.every((field) => one[field] === at(whole, i)[field]));
  return isSame ? sides : null;
}

const WAYS = [
  { value: "sides", label: "the sides of a rectangle" },
  { value: "corners", label: "its corners" },
] as const;

type Props = {
  readonly work: CutOut;
  readonly name: string;
  readonly onChange: (work: CutOut) => string | null;
};

export function CutOutFields({ work, name, onChange }: Props) {
  const sides = sidesOf(work.corners);
  const [single, setSingle] = useState(sides === null);
  const set = (corners: OutlineCorner[]) => onChange({ ...work, corners });
  return (
    <>
      <span className="col-span-2">
        <Chooser
          label={`${name}, set by`}
          value={sides && !single ? "sides" : "corners"}
          choices={WAYS}
          onChoose={(next) => {
            setSingle(next === "corners");
            // Corners that make no rectangle give way to one.
            if (next === "sides" && sides === null)
              set(cornersOf(rectangleRound(work.corners), () => newId("corner")));
          }}
        />
      </span>
      {sides && !single ? (
        <SideFields sides={sides} onChange={(next) => set(cornersOf(next, (i) => at(work.corners, i).id))} />
      ) : (
        <div className="col-span-4 space-y-1">
          <CornersFields corners={work.corners} onChange={set} />
        </div>
      )}
    </>
  );
}

/** A rectangle that begins as corners do which make none: from its first corner to its third. */
function rectangleRound(corners: readonly OutlineCorner[]): Sides {
  const [a, c] = [at(corners, 0), at(corners, 2)];
  return {
    left: { fromX: a.fromX, x: a.x },
    right: { fromX: c.fromX, x: c.x },
    front: { fromY: a.fromY, y: a.y },
    back: { fromY: c.fromY, y: c.y },
    radius: a.radius,
  };
}

type SideProps = { readonly sides: Sides; readonly onChange: (sides: Sides) => string | null };

const X_WAYS = [
  { value: "left", label: "left" },
  { value: "right", label: "right" },
] as const;
const Y_WAYS = [
  { value: "front", label: "front" },
  { value: "back", label: "back" },
] as const;

function SideFields({ sides, onChange }: SideProps) {
  return (
    <>
      <TextField
        label="Rounded by"
        value={sides.radius}
        align="right"
        onCommit={(radius) => onChange({ ...sides, radius })}
      />
      <div className="col-span-4 grid grid-cols-4 gap-x-2 gap-y-1">
        {(["left", "right"] as const).map((side) => (
          <SideField
            key={side}
            label={`${side === "left" ? "Left" : "Right"} side from the`}
            from={sides[side].fromX}
            by={sides[side].x}
            ways={X_WAYS}
            onChange={(fromX, x) => onChange({ ...sides, [side]: { fromX, x } })}
          />
        ))}
        {(["front", "back"] as const).map((side) => (
          <SideField
            key={side}
            label={`${side === "front" ? "Front" : "Back"} side from the`}
            from={sides[side].fromY}
            by={sides[side].y}
            ways={Y_WAYS}
            onChange={(fromY, y) => onChange({ ...sides, [side]: { fromY, y } })}
          />
        ))}
      </div>
    </>
  );
}

type SideFieldProps<T extends string> = {
  readonly label: string;
  readonly from: T;
  readonly by: string;
  readonly ways: readonly { readonly value: T; readonly label: string }[];
  readonly onChange: (from: T, by: string) => string | null;
};

/** From which edge a side stands, and how far. */
const SideField = <T extends string>({ label, from, by, ways, onChange }: SideFieldProps<T>) => (
  <span className="col-span-2 grid grid-cols-[3fr_2fr] items-end gap-x-2">
    <Chooser label={label} value={from} choices={ways} onChoose={(next) => onChange(next, by)} />
    <TextField label="by" value={by} align="right" onCommit={(next) => onChange(from, next)} />
  </span>
);
