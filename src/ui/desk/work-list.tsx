"use client";
/** The work of panels or members: of several it is shown where they have the same, and what is added is added to each. */
import { Plus, Trash2 } from "lucide-react";
import type { ReactNode } from "react";
import type { SimpleEdit } from "@/core/job";
import type { LengthUnit } from "@/core/measure";
import { Button } from "../common/button";
import { newId } from "../common/fresh-id";
import { TextField } from "../common/text-field";
import { useDesk, useDeskState } from "./desk-context";
import { shared, submitEach } from "./shared-fields";

type AnyWork = { readonly id: string };
type Worked<W extends AnyWork> = { readonly id: string; readonly work: readonly W[] };

/** What can be added: its word, and one with round values of the job's unit. */
export type NewWork<W> = { readonly word: string; readonly work: (id: string, unit: LengthUnit) => W };

type Props<W extends AnyWork> = {
  readonly records: readonly Worked<W>[];
  readonly noun: "panels" | "members";
  readonly added: readonly NewWork<W>[];
  readonly wordOf: (work: W) => string;
  readonly editOf: (id: string, work: W[]) => SimpleEdit;
  readonly fields: (work: W, name: string, onChange: (work: W) => string | null) => ReactNode;
};

/** The work without what only tells one piece of it, or one of its corners, from another. */
const bare = (work: AnyWork): unknown =>
  JSON.parse(JSON.stringify(work, (key, value: unknown) => (key === "id" ? undefined : value)));

export function WorkList<W extends AnyWork>({ records, noun, added, wordOf, editOf, fields }: Props<W>) {
  const desk = useDesk();
  const unit = useDeskState((state) => state.job.info.job.unit);
  const same = shared(records.map(({ work }) => work.map(bare))) !== null;
  const shown = same ? (records[0]?.work ?? []) : [];
  const carryOut = (what: string, workOf: (record: Worked<W>) => W[]): string | null => {
    const edits = records.map((record) => editOf(record.id, workOf(record)));
    return submitEach(desk, `${what} ${edits.length} ${noun}`, edits);
  };
  const counts = new Map<string, number>();
  return (
    <section aria-label="Work" className="col-span-3 space-y-1.5">
      {same ? null : (
        <p className="text-[13px] text-ink-soft">
          The work of these {records.length} {noun} differs. What is added here is added to each.
        </p>
      )}
      {shown.map((work, i) => {
        const word = wordOf(work);
        const number = (counts.get(word) ?? 0) + 1;
        counts.set(word, number);
        const name = `${word[0]?.toUpperCase()}${word.slice(1)} ${number}`;
        const set = (next: W) =>
          carryOut("Change the work of", (record) =>
            record.work.map((one, k) => (k === i ? { ...next, id: one.id } : one)),
          );
        return (
          <fieldset key={work.id} className="grid grid-cols-4 gap-x-2 gap-y-1 border-seam border-l-2 pl-2">
            <legend className="sr-only">{name}</legend>
            {fields(work, name, set)}
            <span className="self-end">
              <Button
                look="danger"
                icon={<Trash2 size={14} aria-hidden />}
                aria-label={`Remove ${name.toLowerCase()}`}
                onClick={() => carryOut("Remove work of", (record) => record.work.filter((_, k) => k !== i))}
              >
                Remove
              </Button>
            </span>
          </fieldset>
        );
      })}
      <p className="flex gap-2">
        {added.map(({ word, work }) => (
          <Button
            key={word}
            look="plain"
            icon={<Plus size={14} aria-hidden />}
            onClick={() =>
              carryOut(`Add a ${word} to`, (record) => [...record.work, work(newId("work"), unit)])
            }
          >
            Add a {word}
          </Button>
        ))}
      </p>
    </section>
  );
}

/** Text fields of a piece of work by the name of what they set. */
export function WorkTexts<W extends AnyWork, F extends keyof W & string>({
  work,
  fields,
  onChange,
}: {
  readonly work: W;
  readonly fields: readonly (readonly [F, string])[];
  readonly onChange: (work: W) => string | null;
}): ReactNode {
  return fields.map(([field, label]) => (
    <TextField
      key={field}
      label={label}
      value={String(work[field])}
      onCommit={(text) => onChange({ ...work, [field]: text })}
    />
  ));
}
