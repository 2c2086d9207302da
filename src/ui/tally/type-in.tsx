"use client";
import { FileUp, Keyboard } from "lucide-react";
import { useMemo, useState } from "react";
import { toast } from "sonner";
import {
  type ColumnMeaning,
  type CuttingList,
  type Job,
  LIST_COLUMN_WORDS,
  looksLikeHeadings,
  meaningsOf,
  readCuttingList,
  type TypedPiece,
} from "@/core/job";
import { agreeing, counted, type Problem, type Result, sentence } from "@/core/kernel";
import { LENGTH_UNITS, type LengthUnit } from "@/core/measure";
import type { Stockroom } from "@/core/stockroom";
import { Button } from "../common/button";
import { type Choice, Chooser } from "../common/chooser";
import { Dialog, DialogClose } from "../common/dialog";
/**
 * Pieces that are not drawn: typed one by one, or as rows from a spreadsheet whose columns are told what they mean. What
 * cannot be read is said row by row with its text; nothing is added before somebody says so.
 */
import { freshId } from "../common/fresh-id";
import { type ListRows, listFileFaultWords, useListReader } from "../common/list-reader";
import { Notice } from "../common/notice";
import { Table, TableCell, type TableColumn } from "../common/table";
import { Tick } from "../common/tick";
import { UnreadableRows } from "../common/unreadable-rows";
import { useDesk, useDeskState } from "../desk/desk-context";
import { UNIT_NAMES } from "../jobs/unit-names";
import { OnePiece } from "./one-piece";

export function TypeIn() {
  const [open, setOpen] = useState(false);
  const [way, setWay] = useState<"one" | "rows">("one");
  return (
    <Dialog
      open={open}
      onOpen={setOpen}
      title="Pieces that are not drawn"
      about={null}
      width="wide"
      trigger={
        <Button look="plain" icon={<Keyboard size={14} aria-hidden />}>
          Type in pieces
        </Button>
      }
      head={
        <>
          <span className="flex gap-1">
            <Way label="One by one" on={way === "one"} onChoose={() => setWay("one")} />
            <Way label="Rows from a spreadsheet" on={way === "rows"} onChoose={() => setWay("rows")} />
          </span>
          <span className="ml-auto">
            <DialogClose word="Close" />
          </span>
        </>
      }
      close={null}
    >
      {way === "one" ? <OnePiece /> : <PastedRows onDone={() => setOpen(false)} />}
    </Dialog>
  );
}

function Way({
  label,
  on,
  onChoose,
}: {
  readonly label: string;
  readonly on: boolean;
  readonly onChoose: () => void;
}) {
  return (
    <button
      type="button"
      aria-pressed={on}
      onClick={onChoose}
      className={`h-8 border-b-2 px-2 text-[14px] ${on ? "border-enamel font-semibold text-enamel" : "border-transparent text-ink-soft hover:text-ink"}`}
    >
      {label}
    </button>
  );
}

/** What stands in the stockroom and in the job: other materials are asked about. */
function knownMaterials(job: Job, stockroom: Stockroom): ReadonlySet<string> {
  const all = [
    ...[...stockroom.sections, ...stockroom.boards].map((entry) => entry.material),
    ...[...Object.values(job.members), ...Object.values(job.panels), ...Object.values(job.typedPieces)].map(
      (piece) => piece.material,
    ),
  ];
  return new Set(all.flatMap((material) => material ?? []));
}

function PastedRows({ onDone }: { readonly onDone: () => void }) {
  const desk = useDesk();
  const reader = useListReader();
  const job = useDeskState((state) => state.job);
  const stockroom = useDeskState((state) => state.stockroom);
  const [text, setText] = useState("");
  const [rows, setRows] = useState<ListRows | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [unit, setUnit] = useState<LengthUnit>(job.info.job.unit);
  const [hasHeadings, setHasHeadings] = useState(true);
  const [meanings, setMeanings] = useState<readonly ColumnMeaning[]>([]);
  const [takeUnknown, setTakeUnknown] = useState(false);

  const refuse = (words: string | null) => {
    setRows(null);
    setFault(words);
  };
  const take = (given: ListRows) => {
    const head = given.find((cells) => cells.some((cell) => cell.trim() !== "")) ?? [];
    const headed = looksLikeHeadings(head);
    const width = given.reduce((most, cells) => Math.max(most, cells.length), 0);
    const means = headed ? meaningsOf(head) : [];
    setHasHeadings(headed);
    setMeanings(Array.from({ length: width }, (_, i) => means[i] ?? null));
    setRows(given);
    setFault(null);
  };
  const typed = (next: string) => {
    setText(next);
    if (next.trim() === "") return refuse(null);
    const read = reader.rows(next);
    if (read.ok) take(read.value);
    else refuse(sentence(read.problem));
  };
  const load = async (file: File | undefined) => {
    if (!file) return;
    const read = await reader.file(file);
    if (read.ok) take(read.value);
    else refuse(listFileFaultWords(read.problem));
  };
  const list = useMemo<Result<CuttingList, Problem> | null>(() => {
    if (!rows) return null;
    return readCuttingList(rows, {
      unit,
      stockroom,
      newId: (index) => `typed-${index}`,
      firstPosition: Object.keys(job.typedPieces).length,
      columns: { meanings, hasHeadings },
      ...(takeUnknown ? {} : { knownMaterials: knownMaterials(job, stockroom) }),
    });
  }, [rows, unit, stockroom, job, meanings, hasHeadings, takeUnknown]);
  const good = list?.ok ? list.value.pieces : [];
  const add = () => {
    const stamp = freshId(8);
    const pieces = good.map((piece, i) => ({ ...piece, id: `typed-${stamp}-${i}` as TypedPiece["id"] }));
    const refused = desk.submit({ kind: "addTypedPieces", pieces });
    if (refused !== null) return setFault(refused);
    desk.select(pieces.map((piece) => piece.id));
    toast(`${pieces.length} typed-in ${agreeing(pieces.length, "row was", "rows were")} added.`);
    onDone();
  };
  return (
    <>
      <div className="min-h-0 flex-1 space-y-2 overflow-auto px-4 py-3">
        <label className="block">
          <span className="block text-[13px] text-ink-soft">
            Rows copied from a spreadsheet, or a CSV or XLSX file; any common length notation
          </span>
          <textarea
            value={text}
            onChange={(event) => typed(event.target.value)}
            spellCheck={false}
            placeholder={"Name\tQty\tLength\tSection or board\nRail\t2\t1200\tSquare tube 40 × 40 × 3"}
            className="mt-0.5 h-[92px] w-full rounded-sm border border-seam bg-leaf p-2 font-table text-[14px]"
          />
        </label>
        <div className="flex items-end gap-4">
          <label className="inline-flex h-8 cursor-pointer items-center gap-1.5 rounded-sm border border-seam bg-leaf px-3 focus-within:outline-2 focus-within:outline-enamel hover:border-enamel">
            <FileUp size={16} aria-hidden /> Read a CSV or XLSX file
            <input
              type="file"
              accept=".csv,.txt,.tsv,.xlsx,text/csv"
              className="sr-only"
              onChange={(event) => void load(event.target.files?.[0])}
            />
          </label>
          <span className="w-[170px]">
            <Chooser
              label="Numbers without unit"
              value={unit}
              choices={LENGTH_UNITS.map((value) => ({ value, label: UNIT_NAMES[value] }))}
              onChoose={setUnit}
            />
          </span>
          <Tick label="The first row holds headings" on={hasHeadings} onToggle={setHasHeadings} />
          <Tick
            label="Take rows of unknown stock or material as typed"
            on={takeUnknown}
            onToggle={setTakeUnknown}
          />
        </div>
        {fault ? <Notice tone="error">{fault}</Notice> : null}
        {rows ? (
          <Mapping
            rows={rows}
            hasHeadings={hasHeadings}
            meanings={meanings}
            onMean={(at, meaning) => setMeanings(meanings.map((one, i) => (i === at ? meaning : one)))}
          />
        ) : null}
        {list ? <WhatWasRead list={list} /> : null}
      </div>
      <div className="flex items-center gap-3 border-seam border-t px-4 py-2">
        <span className="text-[13px] text-ink-soft">
          They are marked as typed, and counted apart from what is drawn.
        </span>
        <span className="ml-auto" />
        <Button look="primary" disabled={good.length === 0} onClick={add}>
          {good.length === 0 ? "Add rows" : `Add ${counted(good.length, "row")}`}
        </Button>
      </div>
    </>
  );
}

type Known = NonNullable<ColumnMeaning>;
const MEANINGS: readonly Choice<Known | "">[] = [
  { value: "", label: "not read" },
  ...(Object.keys(LIST_COLUMN_WORDS) as Known[]).map((value) => ({ value, label: LIST_COLUMN_WORDS[value] })),
];

type MappingProps = {
  readonly rows: ListRows;
  readonly hasHeadings: boolean;
  readonly meanings: readonly ColumnMeaning[];
  readonly onMean: (at: number, meaning: ColumnMeaning) => void;
};

/** What each column means, over the first rows as they stand there. */
function Mapping({ rows, hasHeadings, meanings, onMean }: MappingProps) {
  const filled = rows.filter((cells) => cells.some((cell) => cell.trim() !== ""));
  const columns = meanings.map((meaning, i): TableColumn => {
    const heading = (hasHeadings ? filled[0]?.[i]?.trim() : "") || `column ${i + 1}`;
    return {
      id: String(i),
      className: "min-w-[118px] border-r",
      heading: (
        <>
          <span className="block truncate">{heading}</span>
          <Chooser
            label={`What ${heading} means`}
            hideLabel
            value={meaning ?? ""}
            choices={MEANINGS}
            onChoose={(next) => onMean(i, next === "" ? null : next)}
          />
        </>
      ),
    };
  });
  const body = (hasHeadings ? filled.slice(1) : filled).slice(0, 3);
  return (
    <section aria-label="What the columns mean" tabIndex={0} className="overflow-x-auto border border-seam">
      <Table columns={columns} className="font-table">
        <tbody>
          {body.map((cells, r) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a row has no name but its place
            <tr key={r} className="border-seam border-t">
              {meanings.map((meaning, i) => (
                <TableCell
                  // biome-ignore lint/suspicious/noArrayIndexKey: a column has no name but its place
                  key={i}
                  className={`max-w-[200px] truncate border-seam border-r ${meaning === null ? "text-ink-soft" : ""}`}
                >
                  {cells[i] ?? ""}
                </TableCell>
              ))}
            </tr>
          ))}
        </tbody>
      </Table>
    </section>
  );
}

function WhatWasRead({ list }: { readonly list: Result<CuttingList, Problem> }) {
  if (!list.ok) return <Notice tone="error">{sentence(list.problem)}</Notice>;
  const { pieces, unreadable, notes } = list.value;
  return (
    <section aria-label="What was read" className="text-[13px]">
      <h3 className="font-semibold">
        {counted(pieces.length, "row")} can be read
        {unreadable.length > 0 ? `, ${unreadable.length} cannot and will not be added` : ""}
      </h3>
      <UnreadableRows rows={unreadable} />
      {notes.map((note) => (
        <p key={note} className="text-ink-soft">
          {note}
        </p>
      ))}
    </section>
  );
}
