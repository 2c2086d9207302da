"use client";
/** The stock of the job: what each size needs, how good its layout is, and whether it is outdated. */
import { counted } from "@/core/kernel";
import { type LayoutTask, layoutKind, savedFor } from "@/core/layout";
import { Button } from "../common/button";
import { PaneHead } from "../desk/pane-head";
import { useLayoutGround } from "./layout-ground";
import type { LayoutRunner } from "./use-layout-runner";

export type LayoutLedgerProps = {
  readonly runner: LayoutRunner;
  readonly task: string | null;
  readonly onTask: (id: string) => void;
};

export function LayoutLedger({ runner, task, onTask }: LayoutLedgerProps) {
  const { tasks } = useLayoutGround();
  const current = tasks.find((one) => one.id === task) ?? tasks[0];
  return (
    <>
      <PaneHead title="Stock">
        <Button
          look="primary"
          disabled={tasks.length === 0 || runner.running !== null}
          onClick={() => runner.run(tasks)}
        >
          Lay out all
        </Button>
      </PaneHead>
      <ul className="min-h-0 flex-1 overflow-auto">
        {tasks.map((one) => (
          <li key={one.id}>
            <TaskRow
              task={one}
              current={one === current}
              busy={runner.running?.task.id === one.id}
              onTask={onTask}
            />
          </li>
        ))}
      </ul>
      {tasks.length === 0 ? (
        <p className="p-4 text-ink-soft">
          Bars and sheets appear here. This job has no piece with a size yet.
        </p>
      ) : null}
    </>
  );
}

function TaskRow({
  task,
  current,
  busy,
  onTask,
}: {
  readonly task: LayoutTask;
  readonly current: boolean;
  readonly busy: boolean;
  readonly onTask: (id: string) => void;
}) {
  const { layouts } = useLayoutGround();
  const found = savedFor(task, layouts);
  const pieces = task.rows.reduce((sum, row) => sum + row.count, 0);
  const kind = layoutKind(task);
  const share = found ? kind.share(found.saved.problem, found.saved.layout) : null;
  return (
    <button
      type="button"
      aria-current={current ? "true" : undefined}
      onClick={() => onTask(task.id)}
      className={`block w-full border-seam border-b px-3.5 py-2.5 text-left ${current ? "bg-brass-pale" : "hover:bg-ground"}`}
    >
      <span className="block font-semibold">{task.name}</span>
      <span className="flex justify-between text-[13px]">
        <span>{found ? counted(found.saved.layout.count, kind.noun) : counted(pieces, "piece")}</span>
        <span>{share === null ? "" : `${Math.round(share * 100)} %`}</span>
      </span>
      <span className="mt-1 block h-[5px] bg-seam">
        <span className="block h-full bg-enamel" style={{ width: `${Math.round((share ?? 0) * 100)}%` }} />
      </span>
      <span className="mt-1 flex justify-between text-[12px]">
        <State task={task} busy={busy} />
        <span className="text-ink-soft">{task.material ?? "no material"}</span>
      </span>
    </button>
  );
}

function State({ task, busy }: { readonly task: LayoutTask; readonly busy: boolean }) {
  const { layouts } = useLayoutGround();
  const found = savedFor(task, layouts);
  if (busy) return <span className="text-chalk">laying out…</span>;
  if (!found) return <span className="text-ink-soft">no layout yet</span>;
  if (found.outdated)
    return <span className="rounded-sm bg-amber-pale px-1 font-semibold text-amber">outdated</span>;
  const { layout } = found.saved;
  if (layout.unplaced.length > 0) return <span className="font-semibold text-oxide">not all placed</span>;
  return layout.proven ? (
    <span className="font-semibold text-moss-deep">proven best</span>
  ) : (
    <span className="text-ink-soft">{boundWords(found.saved)}</span>
  );
}

type Saved = NonNullable<ReturnType<typeof savedFor>>["saved"];

export function boundWords({ layout }: Saved): string {
  return layout.lowerBoundOf === "cost"
    ? `minimum possible cost ${layout.lowerBound.toFixed(2)}`
    : `minimum possible ${layout.lowerBound} to buy`;
}
