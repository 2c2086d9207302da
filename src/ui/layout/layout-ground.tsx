"use client";
/**
 * What the panes of the layout stand on: the tasks and their layouts, and how one is kept. A desk gives it for its job, a
 * combined layout for several. Changes by hand and new layouts are remembered by the desk, or here where there is none, so that each
 * can be taken back.
 */
import { createContext, useCallback, useContext, useMemo, useRef, useState } from "react";
import type { LayoutSetting } from "@/core/job";
import { invariant } from "@/core/kernel";
import type { LayoutTask, SavedLayout } from "@/core/layout";
import type { LengthStyle } from "@/core/measure";
import type { SawEntry } from "@/core/stockroom";
import type { Released } from "../desk/desk-store";

export type LayoutSource = {
  readonly tasks: readonly LayoutTask[];
  readonly layouts: readonly SavedLayout[];
  readonly revision: number;
  readonly style: LengthStyle;
  readonly saws: readonly SawEntry[];
  /** Keys of the pieces that are selected in every pane. */
  readonly isSelected: (key: string) => boolean;
  readonly pick: (key: string) => void;
  readonly save: (saved: SavedLayout) => Promise<void>;
  /** Where changes are taken back together with those of the design; null: the ground remembers them itself. */
  readonly history: { readonly step: (which: "undo" | "redo") => void } | null;
  readonly release: (taskId: string) => Promise<Released | null>;
  /** The rack label that stands for an id. */
  readonly rackLabel: (id: string) => string;
  /** What the job says otherwise than the stockroom; null where nobody can say so. */
  readonly settings: {
    readonly of: (entry: string) => LayoutSetting | undefined;
    readonly set: (entry: string, change: Partial<Omit<LayoutSetting, "id">>) => string | null;
  } | null;
  /** Address of what can be taken away as a file. */
  readonly papers: string;
};

export type LayoutGround = LayoutSource & {
  /** Keeps a layout, remembering the one before. */
  readonly keep: (saved: SavedLayout) => Promise<void>;
  /** The same for a layout that will be ready later: it is kept where it was begun, whatever is shown by then. */
  readonly keeper: () => (saved: SavedLayout) => Promise<void>;
  readonly step: (taskId: string, which: "undo" | "redo") => void;
  readonly canStep: (taskId: string, which: "undo" | "redo") => boolean;
};

export const LayoutGroundContext = createContext<LayoutGround | null>(null);

export function useLayoutGround(): LayoutGround {
  const ground = useContext(LayoutGroundContext);
  invariant(ground, "a layout pane stands on no ground");
  return ground;
}

type Memory = { readonly past: readonly SavedLayout[]; readonly future: readonly SavedLayout[] };
const NOTHING: Memory = { past: [], future: [] };
const MOST_STEPS = 100;

export function useGround(source: LayoutSource): LayoutGround {
  const [memory, setMemory] = useState<ReadonlyMap<string, Memory>>(new Map());
  const latest = useRef(source);
  latest.current = source;
  const found = useCallback(
    (taskId: string) => latest.current.layouts.find((saved) => saved.taskId === taskId) ?? null,
    [],
  );
  const remember = useCallback((taskId: string, change: (before: Memory) => Memory) => {
    setMemory((all) => new Map(all).set(taskId, change(all.get(taskId) ?? NOTHING)));
  }, []);
  const keeper = useCallback(() => {
    const { save, history } = latest.current;
    return async (saved: SavedLayout) => {
      const before = found(saved.taskId);
      if (before && !history)
        remember(saved.taskId, ({ past }) => ({ past: [...past.slice(1 - MOST_STEPS), before], future: [] }));
      await save(saved);
    };
  }, [found, remember]);
  const keep = useCallback((saved: SavedLayout) => keeper()(saved), [keeper]);
  const step = useCallback(
    (taskId: string, which: "undo" | "redo") => {
      const { history } = latest.current;
      if (history) return history.step(which);
      const { past, future } = memory.get(taskId) ?? NOTHING;
      const next = which === "undo" ? past.at(-1) : future.at(-1);
      const now = found(taskId);
      if (!next || !now) return;
      remember(taskId, () =>
        which === "undo"
          ? { past: past.slice(0, -1), future: [...future, now] }
          : { past: [...past, now], future: future.slice(0, -1) },
      );
      void latest.current.save(next);
    },
    [memory, found, remember],
  );
  const canStep = useCallback(
    (taskId: string, which: "undo" | "redo") => {
      const { past, future } = memory.get(taskId) ?? NOTHING;
      return (which === "undo" ? past : future).length > 0;
    },
    [memory],
  );
  return useMemo(() => ({ ...source, keep, keeper, step, canStep }), [source, keep, keeper, step, canStep]);
}
