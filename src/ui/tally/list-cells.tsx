"use client";
/** The cells of a list: as they are read, flagged when they changed, marked when they were typed over, or being typed. */
import { type KeyboardEvent, useRef, useState } from "react";
import { silhouette, silhouetteLength } from "@/core/drawing";
import { type Cell, type Column, type ListRow, severalWords } from "@/core/lists";
import { changeWords, type ListChange } from "@/core/release";
import type { TallyRow } from "@/core/tally";
import { DisplayList } from "../common/display-list";

export const SILHOUETTE_PX = 126;

/** The column in which what changed in a row is told, where a list has it. */
export const NOTE_COLUMN = "note";

type CellTextProps = {
  readonly cell: Cell;
  readonly was: string | undefined;
  /** What it said before is told in another cell of the row. */
  readonly told: boolean;
};

/** The text of a cell with what was typed and what is computed under it; after it, so that it is never cut off, what it said before. */
export function CellText({ cell, was, told }: CellTextProps) {
  const { text, lack, over, link } = cell;
  const before =
    was === undefined || told ? null : (
      <>
        {" "}
        <span className="font-semibold text-[12px] text-brass-ink">
          {changeWords(was, over?.computed ?? text)}
        </span>
      </>
    );
  if (over)
    return (
      <>
        <s className="text-[12px] text-ink-soft">{over.computed === "" ? "nothing" : over.computed}</s>{" "}
        <span className="border-chalk border-b-2 border-dotted font-semibold text-chalk">{text}</span>
        {over.changed ? <span className="ml-1 font-semibold text-amber">!</span> : null}
        {before}
      </>
    );
  if (link)
    return (
      <a
        href={link}
        target="_blank"
        rel="noreferrer"
        className="text-chalk underline"
        onClick={(event) => event.stopPropagation()}
      >
        {text}
      </a>
    );
  const look =
    lack === "missing"
      ? "font-semibold text-oxide"
      : lack === "empty"
        ? "text-ink-soft italic"
        : was === undefined
          ? ""
          : "font-semibold text-brass-ink";
  return (
    <>
      <span className={look}>{text}</span>
      {before}
    </>
  );
}

/** Columns whose figure stands beside what is told of it; others are named. */
const PLAIN: ReadonlySet<string> = new Set(["length", "size", "mark", NOTE_COLUMN]);

/** What the cells of a row said before, for the column of notes: there it takes no room from the figures. */
export function ChangeWords({
  change,
  row,
  columns,
}: {
  readonly change: ListChange | undefined;
  readonly row: ListRow;
  readonly columns: readonly Column[];
}) {
  if (change?.kind !== "changed") return null;
  const words = columns.flatMap(({ id, heading }) => {
    const [was, cell] = [change.was[id], row.cells[id]];
    if (was === undefined || !cell) return [];
    const said = changeWords(was, cell.over?.computed ?? cell.text);
    return [PLAIN.has(id) ? said : `${heading.toLowerCase()} ${said}`];
  });
  return words.length === 0 ? null : (
    <b className="mr-1.5 font-semibold text-brass-ink">{words.join(", ")}</b>
  );
}

/** What a cell is in words, for a pointer that rests on it. */
export function cellTitle({ text, over, several }: Cell, was: string | undefined): string {
  const old = was === undefined ? "" : `; ${changeWords(was, over?.computed ?? text)}`;
  if (several) return `${text}: ${severalWords(several)}${old}`;
  if (!over) return `${text}${old}`;
  const since = over.changed ? `, ${over.was || "nothing"} when it was typed` : "";
  return `${text}, changed by hand; computed ${over.computed || "nothing"}${since}${old}`;
}

/** The piece of a row, to one scale for the whole list. */
export function SilhouetteCell({ row, longest }: { readonly row: TallyRow; readonly longest: number }) {
  const scale = (SILHOUETTE_PX - 6) / longest;
  return (
    <DisplayList
      drawing={{
        width: Math.max(1, silhouetteLength(row.shown) * scale),
        height: 16,
        items: silhouette(row.shown, { scale, depth: 16, line: 1 }),
      }}
      label={`Silhouette of ${row.name}`}
    />
  );
}

type EditorProps = {
  readonly label: string;
  readonly start: string;
  readonly choices: readonly string[];
  /** Carries it out; the sentence why not, or null. */
  readonly onCommit: (text: string) => string | null;
  /** `byKey`: the keys go on in the list. */
  readonly onClose: (byKey: boolean) => void;
};

/** The field in a cell that is being typed over: Enter keeps it, Escape leaves it as it was. */
export function CellEditor({ label, start, choices, onCommit, onClose }: EditorProps) {
  const [text, setText] = useState(start);
  const [fault, setFault] = useState<string | null>(null);
  // A field that closes loses the focus as well: what was carried out or left is not carried out again.
  const done = useRef(false);
  const close = (byKey: boolean) => {
    done.current = true;
    onClose(byKey);
  };
  const commit = (byKey: boolean) => {
    if (done.current) return;
    const refused = onCommit(text.trim());
    setFault(refused);
    if (refused === null) close(byKey);
  };
  const keys = (event: KeyboardEvent) => {
    event.stopPropagation();
    if (event.key === "Enter") commit(true);
    if (event.key === "Escape") close(true);
  };
  return (
    <span className="relative block">
      <input
        aria-label={label}
        value={text}
        // biome-ignore lint/a11y/noAutofocus: the person has just asked to type here
        autoFocus
        list={choices.length > 0 ? "cell-choices" : undefined}
        aria-invalid={fault !== null}
        onChange={(event) => setText(event.target.value)}
        onKeyDown={keys}
        onBlur={() => commit(false)}
        onClick={(event) => event.stopPropagation()}
        className={`h-6 w-full min-w-[60px] rounded-sm border bg-leaf px-1 font-table text-[14px] ${fault ? "border-oxide" : "border-enamel"}`}
      />
      {choices.length > 0 ? (
        <datalist id="cell-choices">
          {choices.map((choice) => (
            <option key={choice} value={choice} />
          ))}
        </datalist>
      ) : null}
      {fault ? (
        <span
          role="alert"
          className="absolute top-6 left-0 z-30 w-[260px] whitespace-normal border border-oxide bg-oxide-pale px-1.5 py-0.5 text-left text-[12px] text-oxide"
        >
          {fault}
        </span>
      ) : null}
    </span>
  );
}
