"use client";
/** What lies over the picture of the model: guides, grips and tags. */
import type { Vec3 } from "@/core/geometry";
import type { SnapLine } from "@/core/shape";
import type { Tally } from "@/core/tally";
import { Tag } from "../common/tag";
import { useDeskState } from "../desk/desk-context";
import type { Project } from "./draw/pointer";
import type { ModelScene } from "./model-scene";

/** Guides: chalk lines that no piece stands on. */
export function GuideLines({
  lines,
  project,
}: {
  readonly lines: readonly SnapLine[];
  readonly project: Project;
}) {
  const selected = useDeskState((state) => state.selected);
  return (
    <svg aria-hidden className="pointer-events-none absolute inset-0 h-full w-full">
      {lines.map(({ id, from, to }) => {
        const [a, b] = [project(from), project(to)];
        return (
          <line
            key={id}
            x1={a.x}
            y1={a.y}
            x2={b.x}
            y2={b.y}
            className={selected.has(id) ? "stroke-brass" : "stroke-chalk"}
            strokeWidth={selected.has(id) ? 2.5 : 1}
            strokeDasharray="10 4 2 4"
          />
        );
      })}
    </svg>
  );
}

/** Rings round the points that can be dragged. */
export function Grips({
  grips,
  project,
}: {
  readonly grips: readonly { readonly id: string; readonly at: Vec3 }[];
  readonly project: Project;
}) {
  return (
    <svg aria-hidden className="pointer-events-none absolute inset-0 h-full w-full">
      {grips.map(({ id, at }) => {
        const { x, y } = project(at);
        return <circle key={id} cx={x} cy={y} r={6} className="fill-leaf/70 stroke-chalk" strokeWidth={2} />;
      })}
    </svg>
  );
}

type MarksProps = {
  readonly scene: ModelScene | null;
  readonly frames: number;
  readonly tally: Tally;
  readonly selected: ReadonlySet<string>;
  readonly all: boolean;
};

/** Tags on the picture: one for each row, or for the selected pieces alone. */
export function Marks({ scene, frames, tally, selected, all }: MarksProps) {
  if (!scene || frames === 0) return null;
  const chosenRows = new Set([...selected].flatMap((id) => tally.rowOfPiece.get(id) ?? []));
  const wanted = tally.rows.flatMap((row) => {
    const chosen = chosenRows.has(row);
    if (row.mark === "" || !(all || chosen)) return [];
    const piece = row.pieces.find(({ id }) => selected.has(id)) ?? row.pieces[0];
    const place = piece ? scene.placeOf(piece.id) : null;
    return place ? [{ row, chosen, place }] : [];
  });
  return (
    <div aria-hidden className="pointer-events-none absolute inset-0">
      {wanted.map(({ row, chosen, place }) => (
        <span
          key={row.id}
          className="absolute -translate-x-1/2 -translate-y-1/2"
          style={{ left: place.x, top: place.y }}
        >
          <Tag mark={row.mark} selected={chosen} />
        </span>
      ))}
    </div>
  );
}
