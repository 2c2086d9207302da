"use client";
/** The whole set of a job, drawn up in a thread of its own that lives as long as it takes. */
import { useCallback, useEffect, useRef, useState } from "react";
import { toast } from "sonner";
import type { PageEdit } from "@/core/job";
import { counted } from "@/core/kernel";
import { type SetRecipe, STEPS_ALONE } from "@/core/stockroom";
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

/** Draws up what a recipe asks for and puts it into the job, in one step back; tells whether that ended well. */
export function useDrawUp(thread: SetThread): {
  readonly running: boolean;
  readonly drawUp: (recipe: SetRecipe, what: string) => Promise<boolean>;
  readonly stop: () => void;
} {
  const desk = useDesk();
  const { running, draw, stop } = useSetDrawing(thread);
  const drawUp = async (recipe: SetRecipe, what: string): Promise<boolean> => {
    const made = await draw(recipe);
    if (made === "stopped") return false;
    if (made === "failed") {
      toast.error("The set could not be drawn up. Try again, or with fewer pages.");
      return false;
    }
    const { pages, items } = made;
    if (items.length === 0) {
      toast("Nothing is missing: all that was asked for is on the pages.");
      return true;
    }
    const edits: PageEdit[] = [];
    if (pages.length > 0) edits.push({ kind: "setPages", pages: [...pages] });
    edits.push({ kind: "setPageItems", items: [...items] });
    if (desk.submit({ kind: "together", what, edits }) !== null) return false;
    const [first] = [...pages].sort((a, b) => a.position - b.position);
    if (first) desk.openPage(first.id);
    toast(`${counted(pages.length, "page")} added.`);
    return true;
  };
  return { running, drawUp, stop };
}

/** Proposes building steps for all that has none, and one more for what is in none. */
export function useProposeSteps(thread: SetThread): () => void {
  const desk = useDesk();
  const { drawUp, stop } = useDrawUp(thread);
  return () => {
    const { paper } = desk.store.getState().stockroom.setRecipe;
    const told = toast.loading("Proposing building steps…", { action: { label: "Stop", onClick: stop } });
    void drawUp({ ...STEPS_ALONE, paper }, "Propose building steps").finally(() => toast.dismiss(told));
  };
}
