"use client";
/** A display list of the core as SVG. What carries a mark can be picked and is shown in brass when selected. */
import type { DrawItem, Drawing, Face, Ink, Tint } from "@/core/drawing";

const INKS: Readonly<Record<Ink, string>> = {
  ink: "var(--color-ink)",
  soft: "var(--color-ink-soft)",
  seam: "var(--color-seam)",
  brass: "var(--color-brass)",
  chalk: "var(--color-chalk)",
  oxide: "var(--color-oxide)",
  moss: "var(--color-moss)",
};
const TINTS: Readonly<Record<Tint, string>> = {
  paper: "var(--color-leaf)",
  steel: "var(--color-steel)",
  timber: "var(--color-timber)",
  board: "var(--color-board)",
  rest: "var(--color-rest)",
  brass: "var(--color-brass-pale)",
  ground: "var(--color-ground)",
  lock: "var(--color-brass)",
};
const FACES: Readonly<Record<Face, string>> = {
  text: "font-text",
  strong: "font-text font-semibold",
  condensed: "font-table",
  condensedStrong: "font-table font-semibold",
  slab: "font-slab font-semibold",
};
const ANCHORS = { left: "start", centre: "middle", right: "end" } as const;

export type DisplayListProps = {
  readonly drawing: Drawing;
  readonly label: string;
  readonly isSelected?: (pick: string) => boolean;
  readonly onPick?: (pick: string) => void;
  /** Room around the drawing, for strokes that lie on its edge. */
  readonly pad?: number;
  readonly fluid?: boolean;
};

export function DisplayList({
  drawing,
  label,
  isSelected,
  onPick,
  pad = 1,
  fluid = false,
}: DisplayListProps) {
  const { width, height } = drawing;
  const size = fluid
    ? { width: "100%", height: "100%" }
    : { width: width + 2 * pad, height: height + 2 * pad };
  return (
    <svg
      {...size}
      viewBox={`${-pad} ${-pad} ${width + 2 * pad} ${height + 2 * pad}`}
      role="img"
      aria-label={label}
      className="block max-w-none"
    >
      {drawing.items.map((item, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a display list has no identity beyond its order
        <Item key={i} item={item} isSelected={isSelected} onPick={onPick} />
      ))}
    </svg>
  );
}

type ItemProps = {
  readonly item: DrawItem;
  readonly isSelected: DisplayListProps["isSelected"] | undefined;
  readonly onPick: DisplayListProps["onPick"] | undefined;
};

function Item({ item, isSelected, onPick }: ItemProps) {
  const { pick } = item;
  const chosen = pick !== undefined && isSelected?.(pick) === true;
  const picking =
    pick !== undefined && onPick ? { onClick: () => onPick(pick), style: { cursor: "pointer" } } : {};
  if (item.kind === "line") {
    const { stroke } = item;
    return (
      <line
        x1={item.from[0]}
        y1={item.from[1]}
        x2={item.to[0]}
        y2={item.to[1]}
        stroke={INKS[stroke.ink]}
        strokeWidth={stroke.width}
        strokeDasharray={stroke.dash?.join(" ")}
      />
    );
  }
  if (item.kind === "polygon") {
    const fill = chosen ? "var(--color-brass-pale)" : item.fill ? TINTS[item.fill] : "none";
    // Without an outline, a hair of its own tint closes the seam to the next face.
    const stroke = chosen ? INKS.brass : item.stroke ? INKS[item.stroke.ink] : fill;
    return (
      <polygon
        points={item.points.map((p) => `${p[0]},${p[1]}`).join(" ")}
        fill={fill}
        stroke={stroke}
        strokeWidth={(item.stroke?.width ?? 0.4) * (chosen ? 1.8 : 1)}
        strokeDasharray={item.stroke?.dash?.join(" ")}
        strokeLinejoin="round"
        data-pick={pick}
        {...picking}
      />
    );
  }
  return (
    <text
      x={item.at[0]}
      y={item.at[1] + item.size * 0.35}
      fontSize={item.size}
      textAnchor={ANCHORS[item.align]}
      fill={INKS[item.ink]}
      className={FACES[item.face]}
      {...picking}
    >
      {item.text}
    </text>
  );
}

/** Widths of texts on screen, from a canvas; a fair guess where there is none (on the server). */
let context: CanvasRenderingContext2D | null = null;
const FAMILIES: Readonly<Record<Face, string>> = {
  text: "400 100px Barlow",
  strong: "600 100px Barlow",
  condensed: '400 100px "Barlow Semi Condensed"',
  condensedStrong: '600 100px "Barlow Semi Condensed"',
  slab: '600 100px "Zilla Slab"',
};

export function screenMeasure(text: string, size: number, face: Face): number {
  if (typeof document === "undefined") return text.length * size * 0.5;
  context ??= document.createElement("canvas").getContext("2d");
  if (!context) return text.length * size * 0.5;
  context.font = FAMILIES[face];
  return (context.measureText(text).width * size) / 100;
}
