"use client";
import { proxy, type Remote, wrap } from "comlink";
import { useCallback, useContext, useEffect, useMemo, useRef, useState } from "react";
import { toast } from "sonner";
import {
  type LayoutKind,
  type LayoutTask,
  type LayoutWorker,
  type SavedLayout,
  savedFor,
  savedLayout,
  withLocks,
} from "@/core/layout";
/**
 * Runs layout tasks in a web worker, one after the other, with the best so far at every step. Stopping
 * ends the worker and keeps the best layout that it had; a worker that dies is started once more.
 */
import { freshId } from "../common/fresh-id";
import { useLayoutGround } from "./layout-ground";
import { LayoutTime } from "./layout-time";

type AnyLayout = SavedLayout["layout"];
type AnyProblem = SavedLayout["problem"];
export type Running = {
  readonly task: LayoutTask;
  readonly best: AnyLayout | null;
  readonly waiting: number;
};
export type LayoutRunner = {
  readonly running: Running | null;
  readonly run: (tasks: readonly LayoutTask[]) => void;
  /** Ends the search and keeps the best found so far. */
  readonly stop: () => void;
  /** What the last run had to let go, a sentence each. */
  readonly notes: readonly string[];
};

const BUDGET_MS: Readonly<Record<LayoutKind, number>> = { bars: 20_000, sheets: 4_000, shapes: 8_000 };

/** The search of the kind that a task is of. */
function asked(
  remote: Remote<LayoutWorker>,
  kind: LayoutTask["kind"],
  problem: AnyProblem,
  time: number,
  onProgress: (layout: AnyLayout) => void,
): Promise<AnyLayout> {
  // The worker has one search a kind, and each task comes with the problem of its own.
  return (remote[kind] as LayoutWorker[LayoutKind])(problem as never, BUDGET_MS[kind] * time, onProgress);
}

/** `startWorker` gives a fresh layout worker; the folder above knows where its code lies. */
export function useLayoutRunner(startWorker: () => Worker): LayoutRunner {
  const ground = useLayoutGround();
  const time = useContext(LayoutTime);
  const latest = useRef(ground);
  latest.current = ground;
  const [notes, setNotes] = useState<readonly string[]>([]);
  const [running, setRunning] = useState<Running | null>(null);
  const worker = useRef<Worker | null>(null);
  const best = useRef<AnyLayout | null>(null);
  const queue = useRef<readonly LayoutTask[]>([]);
  const finish = useRef<((layout: AnyLayout | null) => void) | null>(null);

  const end = useCallback(() => {
    worker.current?.terminate();
    worker.current = null;
  }, []);
  useEffect(() => end, [end]);

  const attempt = useCallback(
    (task: LayoutTask, problem: AnyProblem): Promise<AnyLayout | null> => {
      const made = startWorker();
      worker.current = made;
      const remote = wrap<LayoutWorker>(made);
      const onProgress = (layout: AnyLayout) => {
        best.current = layout;
        setRunning((state) => (state ? { ...state, best: layout } : state));
      };
      return new Promise((resolve, reject) => {
        finish.current = resolve;
        made.addEventListener("error", (event) => reject(new Error(event.message)));
        const answer = asked(remote, task.kind, problem, time, proxy(onProgress));
        answer.then(resolve, reject);
      });
    },
    [startWorker, time],
  );

  const layOut = useCallback(
    async (task: LayoutTask): Promise<void> => {
      best.current = null;
      const { layouts, revision, keeper } = latest.current;
      const keep = keeper();
      const taken = withLocks(task, savedFor(task, layouts)?.saved ?? null);
      setNotes((before) => [...before, ...taken.notes.map((note) => `${task.name}: ${note}`)]);
      for (let tries = 0; tries < 2; tries++) {
        try {
          const layout = await attempt(task, taken.problem);
          if (layout)
            await keep(savedLayout(task, layout, revision, { problem: taken.problem, id: freshId() }));
          return;
        } catch (thrown) {
          console.warn("layout worker:", thrown instanceof Error ? thrown.message.slice(0, 300) : thrown);
        } finally {
          end();
        }
      }
      toast.error(
        `${task.name} could not be laid out: the computation stopped twice. Change its stock or pieces and try again.`,
      );
    },
    [attempt, end],
  );

  const run = useCallback(
    (tasks: readonly LayoutTask[]) => {
      const idle = queue.current.length === 0;
      queue.current = [
        ...queue.current,
        ...tasks.filter((task) => !queue.current.some((one) => one.id === task.id)),
      ];
      if (!idle) return;
      setNotes([]);
      void (async () => {
        for (let task = queue.current[0]; task; task = queue.current[0]) {
          setRunning({ task, best: null, waiting: queue.current.length - 1 });
          await layOut(task);
          queue.current = queue.current.slice(1);
        }
        setRunning(null);
      })();
    },
    [layOut],
  );

  const stop = useCallback(() => {
    queue.current = queue.current.slice(0, 1);
    end();
    finish.current?.(best.current);
  }, [end]);

  return useMemo(() => ({ running, run, stop, notes }), [running, run, stop, notes]);
}
