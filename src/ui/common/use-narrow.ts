"use client";
/** Whether the window is too narrow for two panes beside one another. */
import { useSyncExternalStore } from "react";

/** The same bound as `narrow:` in the styles. */
const QUERY = "(max-width: 999px)";

function subscribe(onChange: () => void): () => void {
  const list = window.matchMedia(QUERY);
  list.addEventListener("change", onChange);
  return () => list.removeEventListener("change", onChange);
}

export const useNarrow = (): boolean =>
  useSyncExternalStore(
    subscribe,
    () => window.matchMedia(QUERY).matches,
    () => false,
  );
