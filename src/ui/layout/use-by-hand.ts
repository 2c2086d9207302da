"use client";
/** Changes of a saved layout by hand: each is carried out at once and kept, or the sentence why not is shown. */
import { useCallback, useState } from "react";
import { isReleased, type SavedLayout, withOwnLocks } from "@/core/layout";
import { useLayoutGround } from "./layout-ground";

export type ByHand<L> = {
  /** What was refused last, or what is true of the piece that is held; null: nothing to say. */
  readonly message: string | null;
  readonly say: (message: string | null) => void;
  readonly put: (layout: L) => void;
  readonly undo: () => void;
  readonly redo: () => void;
  /** Buttons for both; null: they stand in the head of the page. */
  readonly buttons: { readonly canUndo: boolean; readonly canRedo: boolean } | null;
};

const FROZEN = "This layout is released and cannot change. Lay out again to make a new one.";

export function useByHand<L extends SavedLayout["layout"]>(saved: SavedLayout): ByHand<L> {
  const ground = useLayoutGround();
  const [message, say] = useState<string | null>(null);
  const { taskId } = saved;
  const released = isReleased(saved);
  const put = useCallback(
    (layout: L) => {
      if (released) return say(FROZEN);
      say(null);
      void ground.keep(withOwnLocks({ ...saved, layout } as SavedLayout));
    },
    [ground, saved, released],
  );
  return {
    message,
    say,
    put,
    undo: () => ground.step(taskId, "undo"),
    redo: () => ground.step(taskId, "redo"),
    buttons: ground.history
      ? null
      : {
          canUndo: !released && ground.canStep(taskId, "undo"),
          canRedo: !released && ground.canStep(taskId, "redo"),
        },
  };
}

/** Keys that act on a piece that has the focus, the same on bars and on sheets. */
export type HandKey = "turn" | "over" | "lock" | "aside" | "undo" | "redo" | "before" | "next";
export function handKey(event: React.KeyboardEvent): HandKey | null {
  const key = event.key.toLowerCase();
  if (event.ctrlKey || event.metaKey)
    return key === "z" ? (event.shiftKey ? "redo" : "undo") : key === "y" ? "redo" : null;
  if (event.altKey) return null;
  switch (key) {
    case "t":
      return "turn";
    case "o":
      return "over";
    case "l":
      return "lock";
    case "delete":
    case "backspace":
      return "aside";
    case "pageup":
      return "before";
    case "pagedown":
      return "next";
    default:
      return null;
  }
}
