"use client";
/** The whole set of a job, drawn up in a thread of its own that lives as long as it takes. */
import { useCallback, useEffect, useRef, useState } from "react";
import { toast } from "sonner";
import { counted } from "@/core/kernel";
import { type SetRecipe, STEPS_ALONE } from "@/core/stockroom";
import { editsOfSet, type WholeSet, type WholeSetAnswer, type WholeSetMessage } from "@/core/whole-set";
import { newId } from "../common/fresh-id";
import type { ThreadStart } from "../common/thread";
import { useDesk } from "../desk/desk-context";

export type SetThread = ThreadStart<WholeSetMessage, WholeSetAnswer>;

/** A set, or why there is none: somebody stopped it, or a sentence. */
export type SetOutcome = WholeSet | "stopped" | { readonly refused: string };

/** Draws up the set of the variant on the desk. Nothing is kept. */
export function useSetDrawing(thread: SetThread): {
  readonly running: boolean;
  /** So many pages there are so far. */
  readonly pages: number;
  readonly draw: (recipe: SetRecipe) => Promise<SetOutcome>;
  readonly stop: () => void;
} {
  const desk = useDesk();
  const [running, setRunning] = useState(false);
  const [pages, setPages] = useState(0);
  const stopping = useRef<(() => void) | null>(null);
  const stop = useCallback(() => stopping.current?.(), []);
  useEffect(() => stop, [stop]);
  const draw = useCallback(
    (recipe: SetRecipe) =>
      new Promise<SetOutcome>((resolve) => {
        stopping.current?.();
        const end = (answer: SetOutcome) => {
          stopping.current = null;
          started.end();
          setRunning(false);
          resolve(answer);
        };
        const started = thread(
          (said) => {
            if (said.kind === "pages") setPages(said.count);
            else end(said.kind === "set" ? said.set : { refused: said.why });
          },
          () => end({ refused: "The set could not be drawn up. Try again, or with fewer pages." }),
        );
        stopping.current = () => end("stopped");
        setRunning(true);
        setPages(0);
        const { job, stockroom, assets, variant, layouts } = desk.store.getState();
        started.post({ job, stockroom, assets, variant, layouts, recipe, prefix: newId("set") });
      }),
    [desk, thread],
  );
  return { running, pages, draw, stop };
}

/** Which lists of the recipe a job does not have, and what to do. */
export const lackingWords = (lists: readonly string[]): string =>
  `This job has no list named ${lists.map((name) => `"${name}"`).join(", ")}. Add it in Tally, or take it out of the set.`;

/** Draws up what a recipe asks for and puts it into the job, in one step back; tells whether that ended well. */
export function useDrawUp(thread: SetThread): {
  readonly running: boolean;
  readonly pages: number;
  readonly drawUp: (recipe: SetRecipe, what: string) => Promise<boolean>;
  readonly stop: () => void;
} {
  const desk = useDesk();
  const { running, pages: count, draw, stop } = useSetDrawing(thread);
  const drawUp = async (recipe: SetRecipe, what: string): Promise<boolean> => {
    const made = await draw(recipe);
    if (made === "stopped") return false;
    if ("refused" in made) {
      toast.error(made.refused);
      return false;
    }
    const { pages, items, lacking } = made;
    if (lacking.length > 0) toast(lackingWords(lacking));
    if (items.length === 0) {
      toast("Nothing is missing: all that was asked for is on the pages.");
      return true;
    }
    if (desk.submit({ kind: "together", what, edits: [...editsOfSet(made)] }) !== null) return false;
    const [first] = [...pages].sort((a, b) => a.position - b.position);
    if (first) desk.openPage(first.id);
    toast(`${counted(pages.length, "page")} added.`);
    return true;
  };
  return { running, pages: count, drawUp, stop };
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
