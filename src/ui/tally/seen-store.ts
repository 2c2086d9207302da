"use client";
/** What was last looked at, kept in this browser; one without storage only forgets it. */
import type { SeenList } from "@/core/release";

export function readSeen(key: string): SeenList | null {
  try {
    const text = window.localStorage.getItem(key);
    const data: unknown = text === null ? null : JSON.parse(text);
    const isSeen = typeof data === "object" && data !== null && "rows" in data && "columnsBy" in data;
    return isSeen ? (data as SeenList) : null;
  } catch {
    return null;
  }
}

export function writeSeen(key: string, seen: SeenList): void {
  try {
    window.localStorage.setItem(key, JSON.stringify(seen));
  } catch {
    // Nothing hangs on it but the flags.
  }
}
