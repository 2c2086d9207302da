"use client";
/** The whole set of a job, drawn up in a thread of its own that lives as long as it takes. */
import { useCallback, useEffect, useRef, useState } from "react";
import type { SetRecipe } from "@/core/stockroom";
import type { WholeSet, WholeSetMessage } from "@/core/whole-set";
import { newId } from "../common/fresh-id";
import type { ThreadStart } from "../common/thread";
import { useDesk } from "../desk/desk-context";

export type SetThread = ThreadStart<WholeSetMessage, WholeSet>;

/** Draws up the set of the variant on the desk; null where it was stopped, or the thread ended. Nothing is kept. */
export function useSetDrawing(thread: SetThread): {
  readonly running: boolean;
  readonly draw: (recipe: SetRecipe) => Promise<WholeSet | "stopped" | "failed">;
  readonly stop: () => void;
} {
  const desk = useDesk();
  const [running, setRunning] = useState(false);
  const stopping = useRef<(() => void) | null>(null);
  const stop = useCallback(() => stopping.current?.(), []);
  useEffect(() => stop, [stop]);
  const draw = useCallback(
    (recipe: SetRecipe) =>
      new Promise<WholeSet | "stopped" | "failed">((resolve) => {
        stopping.current?.();
        const end = (answer: WholeSet | "stopped" | "failed") => {
          stopping.current = null;
          started.end();
          setRunning(false);
          resolve(answer);
        };
        const started = thread(end, () => end("failed"));
        stopping.current = () => end("stopped");
        setRunning(true);
        const { job, stockroom, assets, variant, layouts } = desk.store.getState();
        started.post({ job, stockroom, assets, variant, layouts, recipe, prefix: newId("set") });
      }),
    [desk, thread],
  );
  return { running, draw, stop };
}
