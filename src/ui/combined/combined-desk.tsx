"use client";
/** The layouts of a combined layout: the same panes as on a desk, on the pieces of all its jobs. */
import Link from "next/link";
import { useCallback, useMemo, useState } from "react";
import { toast } from "sonner";
import { type CombinedJob, combinedTasks } from "@/core/combined";
import type { SavedLayout } from "@/core/layout";
import { styleOf } from "@/core/lists";
import { indexStockroom, type Rack, type RackPiece, type StockroomData } from "@/core/stockroom";
import { HomeFrame } from "../common/home-frame";
import { call } from "../common/http";
import type { Released } from "../desk/desk-store";
import { LayoutGroundContext, type LayoutSource, useGround } from "../layout/layout-ground";
import { LayoutLedger } from "../layout/layout-ledger";
import { LayoutPicture } from "../layout/layout-picture";
import { useLayoutRunner } from "../layout/use-layout-runner";

export type CombinedDeskProps = {
  readonly opened: {
    readonly combined: { readonly id: string; readonly name: string };
    readonly jobs: readonly CombinedJob[];
    readonly gone: number;
    readonly layouts: readonly SavedLayout[];
    readonly rack: Rack;
    readonly stockroom: StockroomData;
  };
  readonly startWorker: () => Worker;
};

const STYLE = { unit: "mm", format: { kind: "decimal", places: 1, trailingZeros: false } } as const;

export function CombinedDesk({ opened, startWorker }: CombinedDeskProps) {
  const { combined, jobs } = opened;
  const [layouts, setLayouts] = useState(opened.layouts);
  const [rack, setRack] = useState(opened.rack);
  const [selected, setSelected] = useState<string | null>(null);
  const stockroom = useMemo(() => indexStockroom(opened.stockroom), [opened.stockroom]);
  const tasks = useMemo(() => combinedTasks(jobs, stockroom, rack), [jobs, stockroom, rack]);
  const url = `/api/combined/${encodeURIComponent(combined.id)}`;
  const put = useCallback(
    (saved: SavedLayout) => setLayouts((all) => [...all.filter((one) => one.taskId !== saved.taskId), saved]),
    [],
  );
  const racked = useCallback(
    (pieces: readonly RackPiece[]) => setRack((before) => ({ ...before, pieces })),
    [],
  );
  const save = useCallback(
    async (saved: SavedLayout) => {
      put(saved);
      const reply = await call<{ rack: readonly RackPiece[] }>("PUT", `${url}/layouts`, { saved });
      if (reply.ok) racked(reply.value.rack);
      else toast.error(reply.problem.message);
    },
    [url, put, racked],
  );
  const release = useCallback(
    async (taskId: string): Promise<Released | null> => {
      const reply = await call<Released & { rack: readonly RackPiece[]; releasedAt: number }>(
        "POST",
        `${url}/layouts`,
        { taskId },
      );
      if (!reply.ok) {
        toast.error(reply.problem.message);
        return null;
      }
      const { releasedAt } = reply.value;
      setLayouts((all) => all.map((one) => (one.taskId === taskId ? { ...one, releasedAt } : one)));
      racked(reply.value.rack);
      return reply.value;
    },
    [url, racked],
  );
  const source = useMemo(
    (): LayoutSource => ({
      tasks,
      layouts,
      revision: 1,
      style: jobs[0] ? styleOf(jobs[0].job.info.job) : STYLE,
      saws: stockroom.saws,
      isSelected: (key) => key === selected,
      pick: setSelected,
      save,
      history: null,
      release,
      rackLabel: (id) => rack.pieces.find((piece) => piece.id === id)?.label ?? "a rack piece",
      settings: null,
      papers: `${url}/diagrams?`,
    }),
    [tasks, layouts, jobs, stockroom, selected, save, release, rack, url],
  );
  const ground = useGround(source);
  return (
    <HomeFrame current="Combined layouts">
      <LayoutGroundContext value={ground}>
        <div className="flex h-[calc(100vh-52px)] flex-col">
          <div className="flex items-baseline gap-4 border-seam border-b px-4 py-2">
            <h1 className="font-semibold font-slab text-[19px]">{combined.name}</h1>
            <p className="text-[13px] text-ink-soft">
              {jobs.map((job, i) => (
                <span key={job.id}>
                  {i > 0 ? ", " : ""}
                  <Link href={`/jobs/${job.id}`} className="hover:underline">
                    {job.code} {job.job.info.job.title}
                  </Link>
                </span>
              ))}
              {opened.gone > 0 ? ` · ${opened.gone} of its jobs deleted` : ""}
              {" · settings of the stockroom, sizes as drawn"}
            </p>
          </div>
          <Panes startWorker={startWorker} />
        </div>
      </LayoutGroundContext>
    </HomeFrame>
  );
}

function Panes({ startWorker }: { readonly startWorker: () => Worker }) {
  const runner = useLayoutRunner(startWorker);
  const [task, setTask] = useState<string | null>(null);
  return (
    <div className="flex min-h-0 flex-1">
      <section aria-label="List" className="flex w-[306px] shrink-0 flex-col border-seam border-r bg-leaf">
        <LayoutLedger runner={runner} task={task} onTask={setTask} />
      </section>
      <section aria-label="3D view" className="flex min-w-0 flex-1 flex-col bg-leaf">
        <LayoutPicture runner={runner} task={task} />
      </section>
    </div>
  );
}
