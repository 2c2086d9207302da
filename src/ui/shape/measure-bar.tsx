"use client";
/** Measuring between two places, picked in the picture or typed: straight, and along width, depth and height. */
import { Check } from "lucide-react";
import { useState } from "react";
import { distance, type Vec3 } from "@/core/geometry";
import { sentence } from "@/core/kernel";
import { styleOf } from "@/core/lists";
import { formatLength } from "@/core/measure";
import { type DrawPlace, type SnapPlace, typedPlace, whereIs } from "@/core/shape";
import { Button } from "../common/button";
import { TextField } from "../common/text-field";
import { useDesk, useDeskState } from "../desk/desk-context";
import { Tick, Words } from "./draw/draw-overlay";
import type { Project, Spot } from "./draw/pointer";

type Ends = readonly [DrawPlace | null, DrawPlace | null];
export type Measuring = ReturnType<typeof useMeasuring>;

export function useMeasuring() {
  const desk = useDesk();
  const [active, setActive] = useState(false);
  const [ends, setEnds] = useState<Ends>([null, null]);
  const set = (which: 0 | 1, place: DrawPlace | null) =>
    setEnds(([a, b]) => (which === 0 ? [place, b] : [a, place]));
  /** A picked place is the first end, then the second, then the first of a new measure. */
  const take = (snap: SnapPlace) => {
    const place = { point: snap.point, texts: snap.texts() };
    setEnds(([a, b]) => (a !== null && b === null ? [a, place] : [place, null]));
  };
  const type = (which: 0 | 1, text: string): string | null => {
    const { job, results, inside } = desk.store.getState();
    if (text.trim() === "") {
      set(which, null);
      return null;
    }
    const place = typedPlace({ job, sizes: results.sizes, home: inside }, text);
    if (!place.ok) return sentence(place.problem);
    set(which, place.value);
    return null;
  };
  const toggle = () => {
    setActive(!active);
    setEnds([null, null]);
  };
  return { active, toggle, ends, take, type };
}

/** Where the two ends lie now. */
function useEnds({ ends }: Measuring): readonly (Vec3 | null)[] {
  const sizes = useDeskState((state) => state.results.sizes);
  return ends.map((end) => {
    const place = end ? whereIs(sizes, end) : null;
    return place?.ok ? place.value : null;
  });
}

export function MeasureBar({ measuring }: { readonly measuring: Measuring }) {
  const job = useDeskState((state) => state.job);
  const [from, to] = useEnds(measuring);
  const style = styleOf(job.info.job);
  const write = (mm: number) => formatLength(Math.abs(mm), style, 0.1);
  const words = (place: DrawPlace | null) =>
    place === null ? "" : ((place.point && job.points[place.point]?.name) ?? place.texts.join("; "));
  return (
    <section
      aria-label="Measure"
      className="flex shrink-0 items-end gap-3 border-seam border-b bg-ground px-3 py-1.5"
      onKeyDown={(event) => {
        if (event.key === "Escape" && !event.defaultPrevented) measuring.toggle();
      }}
    >
      {(["Measure from", "Measure to"] as const).map((label, i) => (
        <span key={label} className="w-[130px]">
          <TextField
            key={words(measuring.ends[i as 0 | 1])}
            label={label}
            value={words(measuring.ends[i as 0 | 1])}
            placeholder="P1 or 0; 0; 300"
            onCommit={(text) => measuring.type(i as 0 | 1, text)}
          />
        </span>
      ))}
      <p role="status" className="min-w-0 flex-1 pb-1 font-table text-[14px]">
        {from && to ? (
          <>
            <b className="font-semibold text-chalk">
              {write(distance(from, to))} {style.unit}
            </b>
            <span className="text-ink-soft">
              {" "}
              · width {write(to[0] - from[0])} · depth {write(to[1] - from[1])} · height{" "}
              {write(to[2] - from[2])}
            </span>
          </>
        ) : (
          <span className="text-[12px] text-ink-soft">
            Pick two points, middles or corners, or type them.
          </span>
        )}
      </p>
      <Button look="primary" icon={<Check size={15} aria-hidden />} onClick={measuring.toggle}>
        Done
      </Button>
    </section>
  );
}

export function MeasureOverlay({
  measuring,
  hover,
  project,
}: {
  readonly measuring: Measuring;
  readonly hover: SnapPlace | null;
  readonly project: Project;
}) {
  const [from, to] = useEnds(measuring);
  const info = useDeskState((state) => state.job.info.job);
  const end = to ?? (from && hover ? hover.at : null);
  const [a, b]: (Spot | null)[] = [from ? project(from) : null, end ? project(end) : null];
  return (
    <svg aria-hidden className="pointer-events-none absolute inset-0 h-full w-full">
      {a ? <Tick at={a} /> : null}
      {a && b && from && end ? (
        <>
          <line x1={a.x} y1={a.y} x2={b.x} y2={b.y} className="stroke-chalk" strokeWidth={1.5} />
          <Tick at={b} />
          <Words
            at={{ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 - 8 }}
            text={formatLength(distance(from, end), styleOf(info), 0.1)}
          />
        </>
      ) : null}
      {hover ? (
        <Words at={{ x: project(hover.at).x + 10, y: project(hover.at).y + 16 }} text={hover.words()} />
      ) : null}
    </svg>
  );
}
