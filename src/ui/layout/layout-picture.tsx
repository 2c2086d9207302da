"use client";
import { RotateCw, Square } from "lucide-react";
import { type ComponentType, useEffect, useRef, useState } from "react";
import { lyingPiece } from "@/core/drawing";
/** The layout of one stock size: how far it is, how it was made, and the bench on which it is changed by hand. */
import { agreeing, counted, forKind } from "@/core/kernel";
import {
  isReleased,
  type LayoutKind,
  type LayoutTask,
  layoutKind,
  outdatedWords,
  rowFinder,
  type SavedBars,
  type SavedLayout,
  type SavedOf,
  savedFor,
} from "@/core/layout";
import { barOrderTable } from "@/core/lists";
import { sayLength } from "@/core/measure";
import { Button } from "../common/button";
import { DisplayList } from "../common/display-list";
import { Notice } from "../common/notice";
import { PaneHead } from "../desk/pane-head";
import { BarBench } from "./bar-bench";
import { CuttingOrder } from "./cutting-order";
import { DiagramsOut } from "./diagrams-out";
import { useLayoutGround } from "./layout-ground";
import { boundWords } from "./layout-ledger";
import { ReleaseDialog } from "./release-dialog";
import { LayoutSettings } from "./settings-dialog";
import { NestingSheetBench, SheetBench } from "./sheet-bench";
import { KeepTogether } from "./together-dialog";
import type { LayoutRunner } from "./use-layout-runner";

export function LayoutPicture({
  runner,
  task: id,
}: {
  readonly runner: LayoutRunner;
  readonly task: string | null;
}) {
  const { tasks, layouts } = useLayoutGround();
  const task = tasks.find((one) => one.id === id) ?? tasks[0];
  if (!task)
    return (
      <p className="p-5 text-ink-soft">Choose stock on the left; its bars or sheets will be drawn here.</p>
    );
  const found = savedFor(task, layouts);
  const busy = runner.running?.task.id === task.id;
  const locks = found ? lockCount(found.saved) : 0;
  return (
    <>
      <PaneHead title={task.name} facts={settingsWords(task)}>
        {task.kind === "sheets" ? <KeepTogether task={task} /> : null}
        <LayoutSettings task={task} />
        <DiagramsOut task={task} ready={found !== null} />
        {found ? (
          <ReleaseDialog
            saved={found.saved}
            disabled={found.outdated !== null || runner.running !== null || isReleased(found.saved)}
          />
        ) : null}
        <Button
          look={found && found.outdated === null ? "outline" : "primary"}
          icon={<RotateCw size={15} aria-hidden />}
          disabled={runner.running !== null}
          onClick={() => runner.run([task])}
        >
          {found ? (locks > 0 ? "Lay out around locked pieces" : "Lay out again") : "Lay out"}
        </Button>
      </PaneHead>
      {runner.running ? <Progress runner={runner} /> : null}
      {[...layoutKind(task).notes(task.problem), ...runner.notes].map((note) => (
        <Notice tone="warning" key={note}>
          {note}
        </Notice>
      ))}
      {found?.outdated && !busy ? (
        <Notice tone="warning">{`Outdated (made from revision ${found.saved.revision}): ${outdatedWords(found.outdated)}. Lay out again before cutting${locks > 0 ? "; locked pieces stay" : ""}.`}</Notice>
      ) : null}
      {found && isReleased(found.saved) ? (
        <Notice tone="plain">
          Released: its rack offcuts are used up and its own offcuts are in the rack.
        </Notice>
      ) : null}
      <div className="min-h-0 flex-1 overflow-auto px-4 pt-2 pb-4">
        {found ? (
          <Layout saved={found.saved} />
        ) : busy ? null : (
          <p className="pt-2 text-ink-soft">
            No layout yet. Press "Lay out": the result is saved with the job.
          </p>
        )}
      </div>
    </>
  );
}

const lockCount = (saved: SavedLayout): number =>
  layoutKind(saved)
    .used(saved.layout)
    .reduce((sum, { locks }) => sum + locks, 0);

const settingsWords = (task: LayoutTask): string =>
  task.entry ? layoutKind(task).settingWords(task.problem).join(" · ") : "not in the stockroom";

function Progress({ runner: { running, stop } }: { readonly runner: LayoutRunner }) {
  if (!running) return null;
  const { best, task, waiting } = running;
  const { noun } = layoutKind(task);
  return (
    <div
      role="status"
      className="flex items-center gap-3 border-seam border-b bg-ground px-3.5 py-1.5 text-[13px]"
    >
      <span className="h-2 w-2 animate-pulse bg-brass" aria-hidden />
      <span>
        Laying out {task.name}
        {best ? `: best so far ${counted(best.count, noun)}${gapWords(task, best)}` : "…"}
        {waiting > 0 ? ` · ${waiting} more waiting` : ""}
      </span>
      <Button look="plain" icon={<Square size={13} aria-hidden />} onClick={stop}>
        Stop and use this layout
      </Button>
    </div>
  );
}

function gapWords(task: LayoutTask, layout: SavedLayout["layout"]): string {
  const { lowerBound, lowerBoundOf, cost } = layout;
  if (lowerBound <= 0) return "";
  const bought = layoutKind(task)
    .used(layout)
    .filter(({ stock }) => task.problem.stock[stock]?.rack === null)
    .reduce((sum, { times }) => sum + times, 0);
  const value = lowerBoundOf === "cost" ? cost : bought;
  const bound = lowerBoundOf === "cost" ? lowerBound.toFixed(2) : `${lowerBound} to buy`;
  const gap = value === null ? 0 : value / lowerBound - 1;
  return `, minimum possible ${bound}${gap > 1e-9 ? ` (${(gap * 100).toFixed(2)} % above it)` : ": proven best, improving the offcut"}`;
}

function Layout({ saved }: { readonly saved: SavedLayout }) {
  const box = useRef<HTMLDivElement>(null);
  const [{ width, height }, setSize] = useState({ width: 0, height: 0 });
  useEffect(() => {
    if (!box.current) return;
    const pane = box.current.parentElement;
    const watcher = new ResizeObserver(() =>
      setSize({ width: box.current?.clientWidth ?? 0, height: (pane?.clientHeight ?? 0) - 136 }),
    );
    watcher.observe(box.current);
    if (pane) watcher.observe(pane);
    return () => watcher.disconnect();
  }, []);
  return (
    <div ref={box}>
      {width > 0 ? (
        <Bench
          key={`${saved.kind} ${saved.taskId}`}
          saved={saved}
          width={width}
          height={Math.max(200, height)}
        />
      ) : null}
      <Facts saved={saved} />
    </div>
  );
}

type BenchProps<T> = { readonly saved: T; readonly width: number; readonly height: number };

function Bars({ saved, width }: BenchProps<SavedBars>) {
  return (
    <>
      <BarBench saved={saved} width={width} />
      <BarOrder saved={saved} />
    </>
  );
}

/** Where each kind of layout is changed by hand. */
const BENCHES: { readonly [K in LayoutKind]: ComponentType<BenchProps<SavedOf<K>>> } = {
  bars: Bars,
  sheets: SheetBench,
  shapes: NestingSheetBench,
};

function Bench(props: BenchProps<SavedLayout>) {
  const Own = forKind<ComponentType<BenchProps<SavedLayout>>>(BENCHES, props.saved);
  return <Own {...props} />;
}

function BarOrder({ saved }: { readonly saved: SavedBars }) {
  const ground = useLayoutGround();
  const rowOf = rowFinder(ground.tasks, saved.taskId);
  const size = { width: 150, depth: 16, line: 1 };
  return (
    <CuttingOrder
      table={barOrderTable(saved, rowOf, ground.style, ground.saws)}
      draw={(row) => (
        <DisplayList
          drawing={{ width: size.width, height: size.depth, items: lyingPiece(saved, row, rowOf, size) }}
          label="Orientation"
        />
      )}
    />
  );
}

function Facts({ saved }: { readonly saved: SavedLayout }) {
  const { style } = useLayoutGround();
  const { layout } = saved;
  const kind = layoutKind(saved);
  const share = kind.share(saved.problem, layout);
  // Of a bar there is one offcut, of a sheet there are many.
  const longest = kind.noun === "bar" ? Math.max(0, ...kind.rests(layout).map(({ length }) => length)) : null;
  const facts: readonly (readonly [string, string, string])[] = [
    [counted(layout.count, kind.noun), boundWords(saved), ""],
    [
      layout.proven ? "proven best" : "not proven",
      layout.proven ? "no layout can be better" : "a better one may exist",
      layout.proven ? "text-moss" : "text-ink",
    ],
    [`${Math.round(share * 1000) / 10} %`, `of the ${kind.noun}s used`, ""],
    ...(longest === null ? [] : [[sayLength(longest, style), "longest offcut", ""] as const]),
    ...(saved.kind === "bars" && saved.layout.shared && saved.layout.shared.cuts > 0
      ? [
          [
            sayLength(saved.layout.shared.length, style),
            `saved by ${saved.layout.shared.cuts} shared ${agreeing(saved.layout.shared.cuts, "cut")}`,
            "",
          ] as const,
        ]
      : []),
    ...(layout.cost === null
      ? [["no price", "cost is incomplete", "text-amber"] as const]
      : [[layout.cost.toFixed(2), "cost", ""] as const]),
  ];
  return (
    <dl className="mt-5 flex flex-wrap gap-x-9 gap-y-2 border-seam border-t pt-3">
      {facts.map(([value, name, look]) => (
        <div key={name} className="flex flex-col-reverse">
          <dt className="text-[13px] text-ink-soft">{name}</dt>
          <dd className={`font-semibold font-slab text-[21px] leading-tight ${look}`}>{value}</dd>
        </div>
      ))}
    </dl>
  );
}
