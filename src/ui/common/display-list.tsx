"use client";
/** A display list of the core as SVG. What carries a mark can be picked and is shown in brass when selected. */
import { memo, useId } from "react";
import {
  CAPITAL_HEIGHT,
  type DrawItem,
  type Drawing,
  type Face,
  type Ink,
  type Path,
  pathData,
  type Tint,
} from "@/core/drawing";

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
  ink: "var(--color-ink)",
  paper: "var(--color-leaf)",
  steel: "var(--color-steel)",
  timber: "var(--color-timber)",
  board: "var(--color-board)",
  rest: "var(--color-rest)",
  brass: "var(--color-brass-pale)",
  ground: "var(--color-ground)",
  lock: "var(--color-brass)",
};
/** Its tint, darker where it is shaded. */
const tintOf = (item: Extract<DrawItem, { kind: "polygon" | "paths" }>): string => {
  if (!item.fill) return "none";
  const shade = item.kind === "paths" ? (item.shade ?? 0) : 0;
  return shade === 0
    ? TINTS[item.fill]
    : `color-mix(in srgb, ${TINTS[item.fill]}, black ${Math.round(shade * 100)}%)`;
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

/** Items of a display list within an SVG that somebody else has opened; drawn anew only when they are others. */
export const DrawnItems = memo(function DrawnItems({ items }: { readonly items: readonly DrawItem[] }) {
  return items.map((item, i) => (
    // biome-ignore lint/suspicious/noArrayIndexKey: a display list has no identity beyond its order
    <Item key={i} item={item} isSelected={undefined} onPick={undefined} />
  ));
});

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
  if (item.kind === "image")
    return (
      <image
        x={item.at[0]}
        y={item.at[1]}
        width={item.width}
        height={item.height}
        href={`data:image/${item.picture.type};base64,${item.picture.data}`}
      />
    );
  if (item.kind === "clip") return <Clipped item={item} isSelected={isSelected} onPick={onPick} />;
  if (item.kind === "polygon" || item.kind === "paths") {
    const fill = chosen ? "var(--color-brass-pale)" : tintOf(item);
    const drawn = {
      fill,
      // Without an outline, a hair of its own tint closes the seam to the next face.
      stroke: chosen ? INKS.brass : item.stroke ? INKS[item.stroke.ink] : fill,
      strokeWidth: (item.stroke?.width ?? 0.4) * (chosen ? 1.8 : 1),
      strokeDasharray: item.stroke?.dash?.join(" "),
      strokeLinejoin: "round",
      "data-pick": pick,
      ...picking,
    } as const;
    if (item.kind === "paths") return <path d={dataOf(item.paths)} fillRule="evenodd" {...drawn} />;
    return <polygon points={pointsOf(item.points)} {...drawn} />;
  }
  return (
    <text
      x={item.at[0]}
      y={item.at[1] + (item.size * CAPITAL_HEIGHT) / 2}
      transform={item.turn ? `rotate(${-item.turn} ${item.at[0]} ${item.at[1]})` : undefined}
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

/** To a thousandth: of a millimetre on paper, of a pixel elsewhere. All digits would be three times as much to write and to read. */
const short = (value: number) => String(Math.round(value * 1000) / 1000);
const written = new WeakMap<readonly Path[], string>();

/** What paths say to SVG; kept with them, as a page stands on the desk and once more as a small picture. */
function dataOf(paths: readonly Path[]): string {
  const before = written.get(paths);
  if (before !== undefined) return before;
  const data = pathData(paths, short);
  written.set(paths, data);
  return data;
}

const pointsOf = (points: readonly (readonly [number, number])[]) =>
  points.map(([x, y]) => `${short(x)},${short(y)}`).join(" ");

function Clipped({
  item,
  isSelected,
  onPick,
}: Omit<ItemProps, "item"> & { readonly item: Extract<DrawItem, { kind: "clip" }> }) {
  const id = useId();
  return (
    <>
      <clipPath id={id}>
        <polygon points={pointsOf(item.within)} />
      </clipPath>
      <g clipPath={`url(#${id})`}>
        {item.items.map((one, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a display list has no identity beyond its order
          <Item key={i} item={one} isSelected={isSelected} onPick={onPick} />
        ))}
      </g>
    </>
  );
}
