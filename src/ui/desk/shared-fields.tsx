"use client";
/** What the settings of several records share: the value that all have, and the condition of being there. */
import type { SimpleEdit } from "@/core/job";
import { Button } from "../common/button";
import { TextField } from "../common/text-field";
import type { Desk } from "./desk-store";

/** The value that all share, or null when they differ. */
export function shared<T>(values: readonly T[]): T | null {
  const texts = new Set(values.map((value) => JSON.stringify(value)));
  return texts.size === 1 ? (values[0] ?? null) : null;
}

/** Carries out one edit a record, as one step where there are several; the sentence why not, or null. */
export function submitEach(desk: Desk, what: string, edits: readonly SimpleEdit[]): string | null {
  const [first] = edits;
  if (!first) return null;
  return desk.submit(edits.length === 1 ? first : { kind: "together", what, edits: [...edits] });
}

/** Under which condition the selected pieces are part of the design. */
export function OnlyWhen({
  whens,
  onChange,
}: {
  readonly whens: readonly (string | null)[];
  readonly onChange: (when: string | null) => string | null;
}) {
  return (
    <TextField
      label="Include only if"
      value={shared(whens) ?? ""}
      placeholder={new Set(whens).size > 1 ? "mixed values" : "always"}
      onCommit={(text) => onChange(text.trim() === "" ? null : text.trim())}
    />
  );
}

/** Takes the selected pieces out of the lists, or puts them back. */
export function LeaveOut({
  leftOut,
  onChange,
}: {
  readonly leftOut: boolean;
  readonly onChange: (leftOut: boolean) => void;
}) {
  return (
    <Button look="plain" onClick={() => onChange(!leftOut)}>
      {leftOut ? "Include in lists" : "Leave out of lists"}
    </Button>
  );
}
