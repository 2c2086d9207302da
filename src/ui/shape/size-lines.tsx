"use client";
import { useMemo, useState } from "react";
import { add, scale, type Vec3 } from "@/core/geometry";
import { styleOf } from "@/core/lists";
import { formatLength, MM_PER_UNIT } from "@/core/measure";
import { type SizeSpan, sizeSpans } from "@/core/shape";
/** Key sizes in the 3D view as dimension lines; a click on one sets it there. */
import { Field } from "../common/field";
import { useSentForm } from "../common/use-sent-form";
import { useDesk, useDeskState } from "../desk/desk-context";
import type { Project, Spot } from "./draw/pointer";

/** The spans of the key sizes while they are shown; finding them costs one shape for each size. */
export function useSizeSpans(shown: boolean): readonly SizeSpan[] {
  const job = useDeskState((state) => state.job);
  const variant = useDeskState((state) => state.variant);
  const { sizes, shape } = useDeskState((state) => state.results);
  const stockroom = useDeskState((state) => state.stockroom);
  const home = useDeskState((state) => state.inside);
  return useMemo(
    () => (shown ? sizeSpans(job, { variant, sizes, shape, home }, stockroom) : []),
    [shown, job, variant, sizes, shape, stockroom, home],
  );
}

type Props = { readonly spans: readonly SizeSpan[]; readonly project: Project };

/** Pixels between a stretch and its dimension line, and from one line to the next on the same side. */
const FIRST_OFF = 24;
const NEXT_OFF = 22;

export function SizeLines({ spans, project }: Props) {
  const seen = new Map<string, number>();
  return spans.map((span) => {
    const side = span.off.map((part) => Math.round(part)).join(",");
    const order = seen.get(side) ?? 0;
    seen.set(side, order + 1);
    return <SizeLine key={span.size.id} span={span} project={project} order={order} />;
  });
}

/** Screen direction of a way in the job, of the length 1; straight up where it runs at the eye. */
function wayOnScreen(from: Vec3, way: Vec3, project: Project): Spot {
  const [a, b] = [project(from), project(add(from, scale(way, 100)))];
  const size = Math.hypot(b.x - a.x, b.y - a.y);
  return size < 1 ? { x: 0, y: -1 } : { x: (b.x - a.x) / size, y: (b.y - a.y) / size };
}

/** Where along their lines neighbouring labels stand, so that none covers the next. */
const LABEL_SHARES = [0.5, 0.7, 0.32, 0.85];

type LineProps = Omit<Props, "spans"> & { readonly span: SizeSpan; readonly order: number };

function SizeLine({ span, project, order }: LineProps) {
  const off = FIRST_OFF + order * NEXT_OFF;
  const share = LABEL_SHARES[order % LABEL_SHARES.length] ?? 0.5;
  const { size, from, to } = span;
  const way = wayOnScreen(from, span.off, project);
  const [a, b] = [project(from), project(to)];
  const moved = ({ x, y }: Spot, by: number): Spot => ({ x: x + way.x * by, y: y + way.y * by });
  const [p, q] = [moved(a, off), moved(b, off)];
  // Seen from its end a stretch has no length to draw.
  if (Math.hypot(q.x - p.x, q.y - p.y) < 12) return null;
  const tick = ({ x, y }: Spot) => `M${x - 5} ${y + 5}L${x + 5} ${y - 5}`;
  const reach = (spot: Spot) => {
    const [start, end] = [moved(spot, 4), moved(spot, off + 5)];
    return `M${start.x} ${start.y}L${end.x} ${end.y}`;
  };
  return (
    <>
      <svg aria-hidden className="pointer-events-none absolute inset-0 h-full w-full overflow-visible">
        <path d={`${reach(a)}${reach(b)}`} className="stroke-chalk" strokeWidth={0.8} />
        <path
          d={`M${p.x} ${p.y}L${q.x} ${q.y}${tick(p)}${tick(q)}`}
          className="fill-none stroke-chalk"
          strokeWidth={1.4}
        />
      </svg>
      <span
        className="absolute -translate-x-1/2 -translate-y-1/2"
        style={{ left: p.x + (q.x - p.x) * share, top: p.y + (q.y - p.y) * share }}
      >
        <SizeLabel size={size} />
      </span>
    </>
  );
}

function SizeLabel({ size }: { readonly size: SizeSpan["size"] }) {
  const desk = useDesk();
  const variantId = useDeskState((state) => state.variant);
  const text = useDeskState(
    (state) => (variantId && state.job.variants[variantId]?.formulas[size.name]) || size.formula,
  );
  const value = useDeskState((state) => state.results.sizes.scope.get(size.name));
  const info = useDeskState((state) => state.job.info.job);
  const [open, setOpen] = useState(false);
  const shown =
    typeof value === "number" ? formatLength(value * MM_PER_UNIT[info.unit], styleOf(info), 0.1) : "?";
  if (!open)
    return (
      <button
        type="button"
        disabled={size.locked}
        title={size.locked ? `${size.name} is locked` : `Set ${size.name}`}
        onClick={() => setOpen(true)}
        className="whitespace-nowrap rounded-sm bg-leaf/90 px-1 font-semibold font-table text-[13px] text-chalk enabled:hover:bg-brass-pale"
      >
        {size.name} {shown}
      </button>
    );
  return (
    <SizeForm
      label={`${size.name} in the 3D view`}
      start={text}
      onSet={(formula) => desk.submit({ kind: "setKeySize", id: size.id, formula, variant: variantId })}
      onDone={() => setOpen(false)}
    />
  );
}

type SizeFormProps = {
  readonly label: string;
  readonly start: string;
  /** Carries it out; the sentence why not, or null. */
  readonly onSet: (formula: string) => string | null;
  readonly onDone: () => void;
};

/** Enter sets it; Escape, and leaving it as it was taken, put it away. */
function SizeForm({ label, start, onSet, onDone }: SizeFormProps) {
  const { form, onSubmit, fault } = useSentForm({ value: start }, ({ value }) => {
    const refused = onSet(value);
    if (refused === null) onDone();
    return refused;
  });
  return (
    <form className="rounded-sm border border-chalk bg-leaf p-1 shadow-lg" noValidate onSubmit={onSubmit}>
      <span className="block w-[130px]">
        <Field
          label={label}
          labelled="hidden"
          fault={fault}
          autoFocus
          onKeyDown={(event) => event.key === "Escape" && onDone()}
          {...form.register("value", { onBlur: () => fault === null && onDone() })}
        />
      </span>
    </form>
  );
}
