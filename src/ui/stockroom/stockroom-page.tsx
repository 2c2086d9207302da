"use client";
/** The stockroom: sections, boards, edging, bought parts and saws, edited in tables; layouts and costs read it. */
import { useQuery } from "@tanstack/react-query";
import { Tabs } from "radix-ui";
import { useCallback, useState } from "react";
import { ok, type Result } from "@/core/kernel";
import type { EntryUnit, StockroomData } from "@/core/stockroom";
import { Button } from "../common/button";
import { Chooser } from "../common/chooser";
import { HomeFrame } from "../common/home-frame";
import { answerOf } from "../common/queries";
import { Table, type TableColumn } from "../common/table";
import { TextField } from "../common/text-field";
import {
  type AnyEntry,
  blankSize,
  COLUMNS,
  choicesOf,
  type EntryColumn,
  type EntryKind,
  type FieldColumn,
  KINDS,
  layoutColumns,
  priceFault,
  SIZE_COLUMNS,
  type StockSize,
  unitOf,
} from "./entry-columns";
import { type EntryFault, entryFault, entryFaultWords } from "./entry-fault";
import { newEntry } from "./new-entry";
import { TitleBlockEditor } from "./title-block-editor";
import { type EntryChange, type StockEntries, useStockEntries } from "./use-stock-entries";

export type StockroomPageProps = {
  readonly data: StockroomData;
  readonly revisions: Readonly<Record<string, number>>;
};

/** What is of the shop but no stock. */
const TITLE_BLOCK = { kind: "titleBlock", name: "Title block" } as const;

export function StockroomPage(opened: StockroomPageProps) {
  const { data: known, refetch } = useQuery({
    queryKey: ["stockroom"],
    queryFn: () => answerOf<StockroomPageProps>("/api/stockroom/entries"),
    initialData: opened,
  });
  const { data, revisions } = known;
  const reload = useCallback(() => void refetch(), [refetch]);
  const stock = useStockEntries(data, revisions, reload);
  return (
    <HomeFrame current="Stockroom">
      <div className="mx-auto max-w-[1240px] px-6 py-6">
        <h1 className="font-semibold font-slab text-[26px]">Stockroom</h1>
        <p className="mt-1 text-ink-soft">
          Stock sizes, prices in {data.currency}, kerf and trims, each entry in its own unit. Layouts and
          quantities of every job read them. An empty price is a missing one.
        </p>
        <Tabs.Root defaultValue="section" className="mt-4">
          <Tabs.List aria-label="Kinds of stock" className="flex gap-1 border-seam border-b">
            {[...KINDS, TITLE_BLOCK].map(({ kind, name }) => (
              <Tabs.Trigger
                key={kind}
                value={kind}
                className="border-transparent border-b-2 px-3 py-1.5 data-[state=active]:border-enamel data-[state=active]:font-semibold"
              >
                {name}
              </Tabs.Trigger>
            ))}
          </Tabs.List>
          <Tabs.Content value={TITLE_BLOCK.kind} className="pt-3">
            <TitleBlockEditor saved={data.titleBlock} />
          </Tabs.Content>
          {KINDS.map(({ kind }) => (
            <Tabs.Content key={kind} value={kind} className="pt-3">
              <EntryTable kind={kind} stock={stock} />
            </Tabs.Content>
          ))}
        </Tabs.Root>
      </div>
    </HomeFrame>
  );
}

type EntryTableProps = { readonly kind: EntryKind; readonly stock: StockEntries };

function tableColumns(kind: EntryKind): readonly TableColumn[] {
  const sizes = SIZE_COLUMNS[kind].map((column) => column.heading.toLowerCase());
  return [
    ...COLUMNS[kind].map(({ id, heading }) => ({ id, heading })),
    ...(sizes.length > 0 ? [{ id: "sizes", heading: `Stock sizes: ${sizes.join(" · ")}` }] : []),
    { id: "remove", heading: "Remove", hidden: true },
  ];
}

function EntryTable({ kind, stock }: EntryTableProps) {
  const entries = stock.entries(kind);
  return (
    <>
      <div className="border border-seam bg-leaf">
        <Table columns={tableColumns(kind)} className="narrow:block narrow:[&>thead]:hidden">
          <tbody className="narrow:block">
            {entries.map((entry) => (
              <EntryRow
                key={entry.id}
                kind={kind}
                entry={entry}
                onChange={(change) => stock.change(kind, entry.id, change)}
                onRemove={() => void stock.remove(kind, entry)}
              />
            ))}
          </tbody>
        </Table>
        {entries.length === 0 ? (
          <p className="p-3 text-ink-soft">Nothing of this kind yet; add the first below.</p>
        ) : null}
      </div>
      <NewEntry kind={kind} onAdd={(entry) => stock.add(kind, entry)} />
    </>
  );
}

type RowProps = {
  readonly kind: EntryKind;
  readonly entry: AnyEntry;
  /** Carries a change out on the newest state of the entry; the sentence why not, or null. */
  readonly onChange: (change: EntryChange) => string | null;
  readonly onRemove: () => void;
};

function EntryRow({ kind, entry, onChange, onRemove }: RowProps) {
  const sized = SIZE_COLUMNS[kind].length > 0;
  const laid = layoutColumns(kind, entry);
  return (
    <>
      <tr
        className={`align-top narrow:flex narrow:flex-wrap narrow:pt-1 ${laid.length > 0 ? "" : "border-seam border-b"}`}
      >
        {COLUMNS[kind].map((column) => (
          <td key={column.id} className="px-1 py-1" style={{ width: column.width }}>
            <NarrowLabel words={column.heading} />
            <EntryField
              column={column}
              entry={entry}
              label={`${column.heading} of ${entry.name}`}
              onChange={onChange}
            />
          </td>
        ))}
        {sized ? (
          <td className="px-1 py-1" rowSpan={laid.length > 0 ? 2 : 1}>
            <NarrowLabel
              words={`Stock sizes: ${SIZE_COLUMNS[kind].map(({ heading }) => heading.toLowerCase()).join(" · ")}`}
            />
            <Sizes kind={kind} entry={entry} onChange={onChange} />
          </td>
        ) : null}
        <td className="px-1 py-1 narrow:ml-auto narrow:self-end">
          <Button look="danger" aria-label={`Remove ${entry.name}`} onClick={onRemove}>
            Remove
          </Button>
        </td>
      </tr>
      {laid.length > 0 ? (
        <tr className="border-seam border-b align-top narrow:block">
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
                    onChange={onChange}
                  />
                </div>
              ))}
            </div>
          </td>
          <td className="narrow:hidden" />
        </tr>
      ) : null}
    </>
  );
}

/** The heading of a field where there is no room for a table with its headings on top. */
function NarrowLabel({ words }: { readonly words: string }) {
  return (
    <span aria-hidden className="hidden text-[12px] text-ink-soft narrow:block">
      {words}
    </span>
  );
}

function EntryField({
  column,
  entry,
  label,
  onChange,
}: {
  readonly column: EntryColumn;
  readonly entry: AnyEntry;
  readonly label: string;
  readonly onChange: (change: EntryChange) => string | null;
}) {
  const unit = unitOf(entry);
  const value = column.read(entry, unit);
  const commit = (text: string) => onChange((newest) => column.write(newest, text, unitOf(newest)));
  if (column.choices)
    return (
      <Chooser
        label={label}
        hideLabel
        value={value}
        choices={choicesOf(column, unit, entry)}
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
function Sizes({ kind, entry, onChange }: Omit<RowProps, "onRemove">) {
  if (!("stock" in entry)) return null;
  const columns = SIZE_COLUMNS[kind];
  const unit = unitOf(entry);
  /** A change of the sizes as they are when it is carried out. */
  const changeSizes = (make: (stock: readonly StockSize[]) => Result<readonly StockSize[], EntryFault>) =>
    onChange((newest) => {
      if (!("stock" in newest)) return ok(newest);
      const made = make(newest.stock);
      if (!made.ok) return made;
      const changed = { ...newest, stock: made.value } as AnyEntry;
      const fault = priceFault(changed);
      return fault === null ? ok(changed) : entryFault(fault);
    });
  return (
    <div className="space-y-1">
      {entry.stock.map((size, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a size is known by its place in the entry
        <div key={i} className="flex items-start gap-1">
          {columns.map((column) => (
            <span key={column.id} className="w-[74px]">
              <SizeField
                column={column}
                size={size}
                unit={unit}
                label={`${column.heading} of size ${i + 1} of ${entry.name}`}
                onCommit={(text) =>
                  changeSizes((stock) => {
                    const now = stock[i];
                    if (!now) return entryFault({ kind: "sizeGone" });
                    const changed = column.write(now, text, unit);
                    return changed.ok ? ok(stock.map((one, k) => (k === i ? changed.value : one))) : changed;
                  })
                }
              />
            </span>
          ))}
          <Button
            look="plain"
            aria-label={`Remove size ${i + 1} of ${entry.name}`}
            onClick={() => changeSizes((stock) => ok(stock.filter((_, k) => k !== i)))}
          >
            ×
          </Button>
        </div>
      ))}
      <Button look="plain" onClick={() => changeSizes((stock) => ok([...stock, blankSize(kind, unit)]))}>
        Add size
      </Button>
    </div>
  );
}

function SizeField({
  column,
  size,
  unit,
  label,
  onCommit,
}: {
  readonly column: FieldColumn<StockSize>;
  readonly size: StockSize;
  readonly unit: EntryUnit;
  readonly label: string;
  readonly onCommit: (text: string) => string | null;
}) {
  const value = column.read(size, unit);
  if (column.choices)
    return (
      <Chooser
        label={label}
        hideLabel
        value={value}
        choices={choicesOf(column, unit, size)}
        onChoose={onCommit}
      />
    );
  return (
    <TextField
      label={label}
      hideLabel
      align="right"
      placeholder={column.empty}
      value={value}
      onCommit={onCommit}
    />
  );
}

function NewEntry({
  kind,
  onAdd,
}: {
  readonly kind: EntryKind;
  readonly onAdd: (entry: AnyEntry) => Promise<boolean>;
}) {
  const [count, setCount] = useState(0);
  const add = (name: string): string | null => {
    if (name.trim() === "") return null;
    const entry = newEntry(kind, name.trim());
    if (!entry.ok) return entryFaultWords(entry.problem);
    void onAdd(entry.value).then((added) => {
      if (added) setCount(count + 1);
    });
    return null;
  };
  return (
    <div className="mt-3 w-[420px]">
      <TextField
        key={count}
        label={
          kind === "section"
            ? "Add a section, named with its kind and size: square tube 60 x 60 x 4, angle 2 x 2 x 1/8 in"
            : "Add one, by its name"
        }
        value=""
        onCommit={add}
      />
    </div>
  );
}
