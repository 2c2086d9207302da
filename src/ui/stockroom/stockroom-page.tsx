"use client";
/** The stockroom: sections, boards, edging, bought parts and saws, edited in tables; layouts and costs read it. */
import { useRouter } from "next/navigation";
import { Tabs } from "radix-ui";
import { useState } from "react";
import { toast } from "sonner";
import type { StockroomData } from "@/core/stockroom";
import { Button } from "../common/button";
import { Chooser } from "../common/chooser";
import { HomeFrame } from "../common/home-frame";
import { call } from "../common/http";
import { TextField } from "../common/text-field";
import {
  type AnyEntry,
  COLUMNS,
  type EntryColumn,
  type EntryKind,
  KINDS,
  layoutColumns,
  newEntry,
  SIZE_COLUMNS,
} from "./entry-columns";

export type StockroomPageProps = {
  readonly data: StockroomData;
  readonly revisions: Readonly<Record<string, number>>;
};

export function StockroomPage({ data, revisions }: StockroomPageProps) {
  return (
    <HomeFrame current="Stockroom">
      <div className="mx-auto max-w-[1240px] px-6 py-6">
        <h1 className="font-semibold font-slab text-[26px]">Stockroom</h1>
        <p className="mt-1 text-ink-soft">
          Stock sizes, prices in {data.currency}, kerf and trims, all in millimetres. Layouts and quantities
          of every job read them; an empty price is a missing one.
        </p>
        <Tabs.Root defaultValue="section" className="mt-4">
          <Tabs.List aria-label="Kinds of stock" className="flex gap-1 border-seam border-b">
            {KINDS.map(({ kind, name }) => (
              <Tabs.Trigger
                key={kind}
                value={kind}
                className="border-transparent border-b-2 px-3 py-1.5 data-[state=active]:border-enamel data-[state=active]:font-semibold"
              >
                {name}
              </Tabs.Trigger>
            ))}
          </Tabs.List>
          {KINDS.map(({ kind, list }) => (
            <Tabs.Content key={kind} value={kind} className="pt-3">
              <EntryTable kind={kind} entries={data[list]} revisions={revisions} />
            </Tabs.Content>
          ))}
        </Tabs.Root>
      </div>
    </HomeFrame>
  );
}

type TableProps = {
  readonly kind: EntryKind;
  readonly entries: readonly AnyEntry[];
  readonly revisions: Readonly<Record<string, number>>;
};

function EntryTable({ kind, entries, revisions }: TableProps) {
  const router = useRouter();
  const columns = COLUMNS[kind];
  const save = async (entry: AnyEntry, expected: number | null): Promise<void> => {
    const saved = await call("PUT", "/api/stockroom/entries", { change: { kind, entry }, expected });
    if (!saved.ok) toast.error(saved.problem.message);
    router.refresh();
  };
  const remove = async (entry: AnyEntry) => {
    const gone = await call("DELETE", "/api/stockroom/entries", { kind, id: entry.id });
    if (!gone.ok) toast.error(gone.problem.message);
    else
      toast(`${entry.name} was removed.`, {
        action: { label: "Bring back", onClick: () => void save(entry, null) },
      });
    router.refresh();
  };
  return (
    <>
      <div className="border border-seam bg-leaf">
        <table className="w-full border-collapse text-[14px]">
          <thead>
            <tr className="text-left text-[12px] text-ink-soft">
              {columns.map((column) => (
                <th key={column.id} scope="col" className="border-seam border-b px-2 py-1.5 font-normal">
                  {column.heading}
                </th>
              ))}
              {SIZE_COLUMNS[kind].length > 0 ? (
                <th scope="col" className="border-seam border-b px-2 py-1.5 font-normal">
                  Stock sizes: {SIZE_COLUMNS[kind].map((column) => column.heading.toLowerCase()).join(" · ")}
                </th>
              ) : null}
              <th scope="col" className="border-seam border-b px-2 py-1.5">
                <span className="sr-only">Remove</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {entries.map((entry) => (
              <EntryRow
                key={entry.id}
                kind={kind}
                entry={entry}
                onSave={(changed) => void save(changed, revisions[entry.id] ?? null)}
                onRemove={() => void remove(entry)}
              />
            ))}
          </tbody>
        </table>
        {entries.length === 0 ? (
          <p className="p-3 text-ink-soft">Nothing of this kind yet; add the first below.</p>
        ) : null}
      </div>
      <NewEntry kind={kind} onSave={(entry) => save(entry, null)} />
    </>
  );
}

type RowProps = {
  readonly kind: EntryKind;
  readonly entry: AnyEntry;
  readonly onSave: (entry: AnyEntry) => void;
  readonly onRemove: () => void;
};

function EntryRow({ kind, entry, onSave, onRemove }: RowProps) {
  const sized = SIZE_COLUMNS[kind].length > 0;
  const laid = layoutColumns(kind, entry);
  return (
    <>
      <tr className={`align-top ${laid.length > 0 ? "" : "border-seam border-b"}`}>
        {COLUMNS[kind].map((column) => (
          <td key={column.id} className="px-1 py-1" style={{ width: column.width }}>
            <EntryField
              column={column}
              entry={entry}
              label={`${column.heading} of ${entry.name}`}
              onSave={onSave}
            />
          </td>
        ))}
        {sized ? (
          <td className="px-1 py-1" rowSpan={laid.length > 0 ? 2 : 1}>
            <Sizes kind={kind} entry={entry} onSave={onSave} />
          </td>
        ) : null}
        <td className="px-1 py-1">
          <Button look="danger" aria-label={`Remove ${entry.name}`} onClick={onRemove}>
            Remove
          </Button>
        </td>
      </tr>
      {laid.length > 0 ? (
        <tr className="border-seam border-b align-top">
          <td colSpan={COLUMNS[kind].length} className="px-1 pb-2">
            <div className="flex flex-wrap gap-x-2 gap-y-1">
              {laid.map((column) => (
                <div key={column.id} style={{ width: column.width }}>
                  <span aria-hidden className="block text-[12px] text-ink-soft">
                    {column.heading}
                  </span>
                  <EntryField
                    column={column}
                    entry={entry}
                    label={`${column.heading} of ${entry.name}`}
                    onSave={onSave}
                  />
                </div>
              ))}
            </div>
          </td>
          <td />
        </tr>
      ) : null}
    </>
  );
}

function EntryField({
  column,
  entry,
  label,
  onSave,
}: {
  readonly column: EntryColumn;
  readonly entry: AnyEntry;
  readonly label: string;
  readonly onSave: (entry: AnyEntry) => void;
}) {
  const value = column.read(entry);
  const commit = (text: string): string | null => {
    const changed = column.write(entry, text);
    if (!changed.ok) return changed.problem;
    onSave(changed.value);
    return null;
  };
  if (column.choices)
    return (
      <Chooser
        label={label}
        hideLabel
        value={value}
        choices={column.choices}
        onChoose={(text) => commit(text)}
      />
    );
  return (
    <TextField
      label={label}
      hideLabel
      value={value}
      align={column.numeric ? "right" : "left"}
      placeholder={column.empty}
      onCommit={commit}
    />
  );
}

/** The sizes that an entry is sold in, each on a line of its own. */
function Sizes({ kind, entry, onSave }: Omit<RowProps, "onRemove">) {
  if (!("stock" in entry)) return null;
  const columns = SIZE_COLUMNS[kind];
  const replace = (stock: readonly object[]) => onSave({ ...entry, stock } as AnyEntry);
  const blank =
    kind === "board"
      ? { length: 2440, width: 1220, price: null, count: null }
      : { length: 6000, price: null, count: null };
  return (
    <div className="space-y-1">
      {entry.stock.map((size, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a size is known by its place in the entry
        <div key={i} className="flex items-start gap-1">
          {columns.map((column) => (
            <span key={column.id} className="w-[74px]">
              <TextField
                label={`${column.heading} of size ${i + 1} of ${entry.name}`}
                hideLabel
                align="right"
                placeholder={column.empty}
                value={column.read(size)}
                onCommit={(text) => {
                  const changed = column.write(size, text);
                  if (!changed.ok) return changed.problem;
                  replace(entry.stock.map((one, k) => (k === i ? changed.value : one)));
                  return null;
                }}
              />
            </span>
          ))}
          <Button
            look="plain"
            aria-label={`Remove size ${i + 1} of ${entry.name}`}
            onClick={() => replace(entry.stock.filter((_, k) => k !== i))}
          >
            ×
          </Button>
        </div>
      ))}
      <Button look="plain" onClick={() => replace([...entry.stock, blank])}>
        Add size
      </Button>
    </div>
  );
}

function NewEntry({
  kind,
  onSave,
}: {
  readonly kind: EntryKind;
  readonly onSave: (entry: AnyEntry) => Promise<void>;
}) {
  const [count, setCount] = useState(0);
  const add = (name: string): string | null => {
    if (name.trim() === "") return null;
    const entry = newEntry(kind, name.trim());
    if (!entry.ok) return entry.problem;
    void onSave(entry.value).then(() => setCount(count + 1));
    return null;
  };
  return (
    <div className="mt-3 w-[420px]">
      <TextField
        key={count}
        label={
          kind === "section"
            ? "Add a section, named with its kind and size in mm: square tube 60 x 60 x 4"
            : "Add one, by its name"
        }
        value=""
        onCommit={add}
      />
    </div>
  );
}
