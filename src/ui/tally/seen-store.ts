"use client";
/** What was last looked at, kept in this browser; one without storage only forgets it. */

export function readSeen<T>(key: string): readonly T[] | null {
  try {
    const text = window.localStorage.getItem(key);
    const data: unknown = text === null ? null : JSON.parse(text);
    return Array.isArray(data) ? (data as readonly T[]) : null;
  } catch {
    return null;
  }
}

export function writeSeen(key: string, rows: readonly unknown[]): void {
  try {
    window.localStorage.setItem(key, JSON.stringify(rows));
  } catch {
    // Nothing hangs on it but the flags.
  }
}
