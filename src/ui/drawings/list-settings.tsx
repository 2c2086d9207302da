"use client";
/** Settings of a list on a page: what it shows, how large it may grow, and where it goes on. */
import type { DrawnPage } from "@/core/drawing";
import { addedLists, LIST_CORNERS, type ListItem } from "@/core/job";
import { Button } from "../common/button";
import { Chooser } from "../common/chooser";
import { TextField } from "../common/text-field";
import { Tick } from "../common/tick";
import { useDesk, useDeskState } from "../desk/desk-context";
import { CORNER_WORDS, listWords } from "./item-words";
import { restOnNextPage } from "./new-items";
import { GRID, OptionalLength, paperLength, RemoveItems, useItemChange } from "./settings-parts";

function listOf(chosen: string): ListItem["list"] {
  if (chosen === "cut" || chosen === "buying" || chosen === "pages") return { kind: chosen };
  const [kind, ...id] = chosen.split(" ");
  return kind === "layout" ? { kind, task: id.join(" ") } : { kind: "own", list: id.join(" ") };
}

export function ListSettings({ item, drawn }: { readonly item: ListItem; readonly drawn: DrawnPage }) {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  const change = useItemChange(item);
  const tasks = useDeskState((state) => state.results.tasks);
  const { list } = item;
  const value =
    list.kind === "own" ? `own ${list.list}` : list.kind === "layout" ? `layout ${list.task}` : list.kind;
  const { columns = [], left = 0 } = drawn.placed.find((one) => one.item.id === item.id) ?? {};
  const isContinued = Object.values(job.pageItems).some(
    (one) => one.kind === "list" && one.list.kind === "rest" && one.list.of === item.id,
  );
  const goOn = () => {
    const rest = restOnNextPage(item, job);
    if (!rest) return;
    const edits = [...rest.edits];
    if (desk.submit({ kind: "together", what: "Continue a list on the next page", edits }) !== null) return;
    desk.openPage(rest.page.id);
    // What is left once more is continued from there.
    desk.select([rest.rest.id]);
  };
  return (
    <div className={GRID}>
      {list.kind === "rest" ? (
        <p className="self-end">{listWords(item, job)}</p>
      ) : (
        <Chooser
          label="List"
          value={value}
          placeholder={listWords(item, job)}
          choices={[
            { value: "cut", label: "Cut list" },
            { value: "buying", label: "Buying list" },
            { value: "pages", label: "Contents" },
            ...addedLists(job).map(({ id, name }) => ({ value: `own ${id}`, label: name })),
            ...tasks.map(({ id, name }) => ({ value: `layout ${id}`, label: `Layout of ${name}` })),
          ]}
          onChoose={(chosen) => change({ list: listOf(chosen), columnWidths: {} })}
        />
      )}
      <Chooser
        label="Corner that stays"
        value={item.corner}
        choices={LIST_CORNERS.map((one) => ({ value: one, label: CORNER_WORDS[one] }))}
        onChoose={(corner) => change({ corner })}
      />
      <TextField
        label="Width, mm"
        value={String(item.width)}
        onCommit={(text) => {
          const width = paperLength(text, 20, 1200);
          return typeof width === "string" ? width : change({ width });
        }}
      />
      <OptionalLength
        label="Greatest height, mm"
        value={item.height}
        placeholder="as tall as it is"
        least={15}
        most={1200}
        onSet={(height) => change({ height })}
      />
      <TextField
        label="Side by side, at most"
        value={item.columns === null ? "" : String(item.columns)}
        placeholder="as often as needed"
        onCommit={(text) => {
          if (text.trim() === "") return change({ columns: null });
          const count = Number(text);
          return Number.isInteger(count) && count >= 1 && count <= 20
            ? change({ columns: count })
            : "Enter a whole number from 1 to 20.";
        }}
      />
      {list.kind === "rest" || list.kind === "layout" ? null : (
        <OptionalLength
          label="Least row height, mm"
          value={item.rowHeight}
          placeholder="as the text is"
          least={4}
          most={40}
          onSet={(rowHeight) => change({ rowHeight })}
        />
      )}
      <span className="col-span-full flex items-end gap-3">
        {list.kind === "cut" ? (
          <Tick
            label="Silhouettes"
            on={item.silhouettes}
            onToggle={(silhouettes) => change({ silhouettes })}
          />
        ) : null}
        {left > 0 && !isContinued ? (
          <Button look="plain" onClick={goOn}>
            Continue on the next page
          </Button>
        ) : null}
        <RemoveItems ids={[item.id]} />
      </span>
      {list.kind === "rest" || columns.length === 0 ? null : <ColumnWidths item={item} columns={columns} />}
    </div>
  );
}

/** The widths of the columns of a list: an empty one takes its part of what the others leave. */
function ColumnWidths({
  item,
  columns,
}: {
  readonly item: ListItem;
  readonly columns: NonNullable<DrawnPage["placed"][number]["columns"]>;
}) {
  const change = useItemChange(item);
  const { columnWidths } = item;
  return (
    <details className="col-span-full">
      <summary className="cursor-pointer text-[13px] text-ink-soft">Widths of columns</summary>
      <div className="mt-1 grid grid-cols-3 gap-x-3 gap-y-1.5 lg:grid-cols-5">
        {columns.map(({ id, heading, width }) => (
          <OptionalLength
            key={id}
            label={`${heading}, mm`}
            value={columnWidths[id] ?? null}
            placeholder={String(Math.round(width))}
            least={4}
            most={400}
            onSet={(wide) => {
              const { [id]: _, ...others } = columnWidths;
              return change({ columnWidths: wide === null ? others : { ...others, [id]: wide } });
            }}
          />
        ))}
      </div>
    </details>
  );
}
