"use client";
import { Plus, Trash2 } from "lucide-react";
import type { DrawItem } from "@/core/drawing";
import { boxOfPoints, type Vec2 } from "@/core/geometry";
import { type OutlineCorner, type Panel, panelFromDrawing } from "@/core/job";
import { at, sentence } from "@/core/kernel";
/** The outline of one panel: a rectangle, or corners that are set from its edges, with a picture of what comes of them. */
import { startLength } from "@/core/measure";
import { outlinePolygon, type PanelSolid, panelSolid } from "@/core/shape";
import { isMetal } from "@/core/stockroom";
import { Button } from "../common/button";
import { Chooser } from "../common/chooser";
import { DisplayList } from "../common/display-list";
import { FileField } from "../common/file-field";
import { newId } from "../common/fresh-id";
import { TextField } from "../common/text-field";
import { useDeskState } from "./desk-context";
import { useDrawingReaders } from "./drawing-readers";

type Side = Pick<OutlineCorner, "fromX" | "x" | "fromY" | "y">;
const corner = ({ fromX, x, fromY, y }: Side, radius = "0"): OutlineCorner => ({
  id: newId("corner"),
  fromX,
  x,
  fromY,
  y,
  radius,
});
const FRONT_LEFT: Side = { fromX: "left", x: "0", fromY: "front", y: "0" };
const FRONT_RIGHT: Side = { ...FRONT_LEFT, fromX: "right" };
const BACK_RIGHT: Side = { ...FRONT_RIGHT, fromY: "back" };
const BACK_LEFT: Side = { ...FRONT_LEFT, fromY: "back" };
const ALL = [FRONT_LEFT, FRONT_RIGHT, BACK_RIGHT, BACK_LEFT];

/** Outlines to start from; every corner can be changed after. */
const STARTS = {
  triangle: {
    label: "gusset, a triangle",
    corners: () => [FRONT_LEFT, FRONT_RIGHT, BACK_LEFT].map((side) => corner(side)),
  },
  blunt: {
    label: "gusset with blunt ends",
    corners: (cut: string) => [
      corner(FRONT_LEFT),
      corner(FRONT_RIGHT),
      corner({ ...FRONT_RIGHT, y: cut }),
      corner({ ...BACK_LEFT, x: cut }),
      corner(BACK_LEFT),
    ],
  },
  round: { label: "rounded corners", corners: (cut: string) => ALL.map((side) => corner(side, cut)) },
  corners: { label: "its four corners, to be changed", corners: () => ALL.map((side) => corner(side)) },
} as const;
type Start = keyof typeof STARTS;

type Props = {
  readonly panel: Panel;
  readonly onChange: (outline: OutlineCorner[] | null) => string | null;
  /** Takes size, outline and holes from a drawing. */
  readonly onRead: (set: Partial<Omit<Panel, "id" | "assembly">>) => string | null;
};

export function PanelOutline({ panel, onChange, onRead }: Props) {
  const shape = useDeskState((state) => state.results.shape);
  const unit = useDeskState((state) => state.job.info.job.unit);
  const solid = panelSolid(shape, panel.id);
  const { outline } = panel;
  const radius = startLength(unit, "20", "3/4");
  const choose = (value: string) => {
    if (value === "rectangle") onChange(null);
    else if (value in STARTS) onChange(STARTS[value as Start].corners(radius));
  };
  return (
    <section aria-label="Outline" className="col-span-3 space-y-1.5">
      <div className="grid grid-cols-3 gap-x-3">
        <Chooser
          label="Outline"
          value={outline === null ? "rectangle" : "own"}
          choices={[
            ...(outline === null ? [] : [{ value: "own", label: `own, of ${outline.length} corners` }]),
            { value: "rectangle", label: "rectangle" },
            ...Object.entries(STARTS).map(([value, { label }]) => ({ value, label })),
          ]}
          onChoose={choose}
        />
        {outline && solid ? <OutlinePicture solid={solid} /> : null}
        {outline ? null : <OutlineFile panel={panel} onRead={onRead} />}
      </div>
      {outline ? <OutlineFile panel={panel} onRead={onRead} /> : null}
      {outline ? <CornersFields corners={outline} onChange={onChange} /> : null}
    </section>
  );
}

type CornersProps = {
  readonly corners: readonly OutlineCorner[];
  readonly onChange: (corners: OutlineCorner[]) => string | null;
};

/** All corners of an outline, one below the other. */
export function CornersFields({ corners, onChange }: CornersProps) {
  const unit = useDeskState((state) => state.job.info.job.unit);
  const onward = startLength(unit, "20", "3/4");
  return corners.map((one, i) => (
    <CornerFields
      key={one.id}
      one={one}
      number={i + 1}
      onChange={(next) => onChange(corners.map((other) => (other.id === next.id ? next : other)))}
      onAdd={() =>
        onChange(corners.toSpliced(i + 1, 0, between(one, at(corners, (i + 1) % corners.length), onward)))
      }
      onRemove={corners.length > 3 ? () => onChange(corners.filter((other) => other.id !== one.id)) : null}
    />
  ));
}

/** Reads the outline of a DXF file: its size, its corners and its round holes. */
function OutlineFile({ panel, onRead }: Pick<Props, "panel" | "onRead">) {
  const { outline: reader } = useDrawingReaders();
  const unit = useDeskState((state) => state.job.info.job.unit);
  return (
    <FileField
      label="Outline from a file (DXF)"
      accept=".dxf"
      onFile={async (file) => {
        const read = await reader(file);
        if (!read.ok) return sentence(read.problem);
        return onRead(panelFromDrawing(read.value, panel, unit, () => newId("corner")));
      }}
    />
  );
}

/** A further corner beside one: a little way on, to be set. */
const between = (one: OutlineCorner, next: OutlineCorner, on: string): OutlineCorner =>
  one.fromX === next.fromX && one.x === next.x
    ? corner({ ...one, fromY: next.fromY, y: on })
    : corner({ ...one, fromX: next.fromX, x: on });

type CornerProps = {
  readonly one: OutlineCorner;
  readonly number: number;
  readonly onChange: (corner: OutlineCorner) => string | null;
  readonly onAdd: () => void;
  /** null: there are no more corners to spare. */
  readonly onRemove: (() => void) | null;
};

function CornerFields({ one, number, onChange, onAdd, onRemove }: CornerProps) {
  const text = (field: "x" | "y" | "radius", label: string) => (
    <TextField
      label={label}
      value={one[field]}
      align="right"
      onCommit={(value) => onChange({ ...one, [field]: value })}
    />
  );
  return (
    <fieldset className="grid grid-cols-[5fr_4fr_5fr_4fr_4fr_auto] items-end gap-x-2 border-seam border-l-2 pl-2">
      <legend className="sr-only">Corner {number}</legend>
      <Chooser
        label={`${number}: from the`}
        value={one.fromX}
        choices={[
          { value: "left", label: "left" },
          { value: "right", label: "right" },
        ]}
        onChoose={(fromX) => onChange({ ...one, fromX: fromX })}
      />
      {text("x", "by")}
      <Chooser
        label="from the"
        value={one.fromY}
        choices={[
          { value: "front", label: "front" },
          { value: "back", label: "back" },
        ]}
        onChoose={(fromY) => onChange({ ...one, fromY: fromY })}
      />
      {text("y", "by")}
      {text("radius", "Rounded by")}
      <span className="flex gap-1">
        <Button
          look="plain"
          icon={<Plus size={17} aria-hidden />}
          aria-label={`Add a corner after ${number}`}
          title="Add a corner after this one"
          onClick={onAdd}
        />
        <Button
          look="danger"
          icon={<Trash2 size={17} aria-hidden />}
          aria-label={`Remove corner ${number}`}
          title="Remove this corner"
          disabled={onRemove === null}
          onClick={() => onRemove?.()}
        />
      </span>
    </fieldset>
  );
}

const PICTURE = { width: 200, height: 96, edge: 12 };

/** The outline to scale, seen on its good face with the front below, its corners numbered. */
function OutlinePicture({ solid }: { readonly solid: PanelSolid }) {
  const { outline, length, width } = solid;
  if (!outline) return null;
  const { edge } = PICTURE;
  const scale = Math.min((PICTURE.width - 2 * edge) / length, (PICTURE.height - 2 * edge) / width);
  const drawn = ([x, y]: Vec2): Vec2 => [edge + x * scale, edge + (width - y) * scale];
  const corners = outline.reversed ? outline.corners.toReversed() : outline.corners;
  const { x0, x1, y0, y1 } = boxOfPoints(corners.map((one) => one.at));
  const middle: Vec2 = [(x0 + x1) / 2, (y0 + y1) / 2];
  const items: DrawItem[] = [
    {
      kind: "polygon",
      points: [
        [0, 0],
        [length, 0],
        [length, width],
        [0, width],
      ].map(([x, y]) => drawn([x ?? 0, y ?? 0])),
      stroke: { ink: "seam", width: 1, dash: [3, 3] },
      fill: null,
    },
    {
      kind: "polygon",
      points: outlinePolygon(outline).map(drawn),
      stroke: { ink: "ink", width: 1 },
      fill: isMetal(solid.board) ? "steel" : "board",
    },
    ...corners.map((one, i): DrawItem => {
      const [x, y] = drawn(one.at);
      // Outside the corner, away from the middle.
      const [dx, dy] = [one.at[0] - middle[0], middle[1] - one.at[1]];
      const away = Math.hypot(dx, dy) || 1;
      return {
        kind: "text",
        at: [x + (dx / away) * 8, y + (dy / away) * 8],
        text: String(i + 1),
        size: 11,
        face: "condensed",
        align: "centre",
        ink: "chalk",
      };
    }),
  ];
  return (
    <span className="col-span-2">
      <DisplayList
        drawing={{ width: PICTURE.width, height: Math.ceil(width * scale) + 2 * edge, items }}
        label={`Outline of ${solid.panel.name}`}
      />
    </span>
  );
}
