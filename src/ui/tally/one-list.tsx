"use client";
import { ClipboardCopy, Columns3, Rows3 } from "lucide-react";
import { useMemo, useState } from "react";
import { toast } from "sonner";
import { CUT_LIST, type ListSetup } from "@/core/job";
/** One list of the job: what is looked for in it, its setup, its rows, and what changed since it was looked at. */
import { counted } from "@/core/kernel";
import { createLister, type ListTable, shownColumns, tableAsTabs } from "@/core/lists";
import { Button } from "../common/button";
import { useDesk, useDeskState } from "../desk/desk-context";
import { FindField } from "./find-field";
import { ListGrid } from "./list-grid";
import { listLines } from "./list-lines";
import { ColumnSettings, RowSettings } from "./list-settings";
import { useSeenList } from "./use-seen-list";

function useListTable(setup: ListSetup): ListTable {
  const cutList = useDeskState((state) => state.results.cutList);
  const job = useDeskState((state) => state.job);
  const stockroom = useDeskState((state) => state.stockroom);
  const { sizes, shape, tally, tasks, quantities } = useDeskState((state) => state.results);
  const [lister] = useState(createLister);
  return useMemo(
    () =>
      setup.id === CUT_LIST
        ? viewOf(cutList)
        : lister(setup, { job, sizes, stockroom, shape, tally, tasks, quantities }),
    [lister, setup, cutList, job, sizes, stockroom, shape, tally, tasks, quantities],
  );
}

/** A table with the columns that are shown. */
const viewOf = (table: ListTable): ListTable => ({ ...table, columns: shownColumns(table) });

type Panel = "rows" | "columns";

export function OneList({ setup }: { readonly setup: ListSetup }) {
  const desk = useDesk();
  const table = useListTable(setup);
  const seen = useSeenList(table, setup);
  const [open, setOpen] = useState<Panel | null>(null);
  const [find, setFind] = useState("");
  const [folded, setFolded] = useState<ReadonlySet<string>>(new Set());
  const lines = useMemo(() => listLines(table, { folded, find }), [table, folded, find]);
  const isEmpty = useDeskState((state) => state.results.tally.rows.length === 0);
  const changed = seen.changes.byRow.size + seen.changes.gone.length;
  const typed = useDeskState(
    (state) => Object.values(state.job.listCells).filter((cell) => cell.list === setup.id).length,
  );
  const fold = (id: string) => {
    const next = new Set(folded);
    if (!next.delete(id)) next.add(id);
    setFolded(next);
  };
  const panel = (which: Panel, word: string, icon: React.ReactNode) => (
    <Button
      look="plain"
      aria-expanded={open === which}
      icon={icon}
      onClick={() => setOpen(open === which ? null : which)}
    >
      {word}
    </Button>
  );
  return (
    <>
      <div className="flex items-center gap-3 border-seam border-b bg-ground px-3.5 py-0.5 text-[13px]">
        <FindField value={find} onChange={setFind} />
        <span className="min-w-0 flex-1 truncate text-ink-soft" title={table.notes.join(" ")}>
          {table.notes.join(" ")}
        </span>
        <Button
          look="plain"
          icon={<ClipboardCopy size={14} aria-hidden />}
          onClick={() => void copyTable(tableAsTabs(table))}
        >
          Copy for a spreadsheet
        </Button>
        {panel("rows", "Set up rows", <Rows3 size={14} aria-hidden />)}
        {panel("columns", "Set up columns", <Columns3 size={14} aria-hidden />)}
      </div>
      {open === "rows" ? <RowSettings key={setup.id} setup={setup} /> : null}
      {open === "columns" ? <ColumnSettings key={setup.id} setup={setup} /> : null}
      {changed > 0 || typed > 0 ? (
        <p className="flex items-center gap-3 border-seam border-b px-3.5 text-[13px]">
          {changed > 0 ? (
            <>
              <span className="font-semibold text-brass-ink">
                {counted(changed, "row")} changed since this list was last looked at
                {goneWords(seen.changes.gone.length)}
              </span>
              <Button look="plain" onClick={seen.acknowledge}>
                Mark as seen
              </Button>
            </>
          ) : null}
          <span className="flex-1" />
          {typed > 0 ? (
            <>
              <span className="text-chalk">{counted(typed, "cell")} changed by hand</span>
              <Button
                look="plain"
                onClick={() =>
                  desk.submit({ kind: "clearCells", list: setup.id, column: null, records: null })
                }
              >
                Put all back to computed
              </Button>
            </>
          ) : null}
        </p>
      ) : null}
      {lines.length > 0 ? (
        <ListGrid setup={setup} table={table} lines={lines} changes={seen.changes.byRow} onFold={fold} />
      ) : (
        <p className="flex-1 p-4 text-ink-soft">
          {isEmpty
            ? "The pieces appear here, grouped and marked. Nothing is drawn or typed in yet."
            : find.trim() !== ""
              ? `No row holds “${find.trim()}”.`
              : "No piece of the job goes into this list. “Set up rows” says which do."}
        </p>
      )}
    </>
  );
}

const goneWords = (gone: number) => (gone === 0 ? "" : `, ${gone} deleted`);

async function copyTable(text: string): Promise<void> {
  try {
    await navigator.clipboard.writeText(text);
    toast("The list is on the clipboard; paste it into a spreadsheet.");
  } catch {
    toast.error("This browser does not let the list onto the clipboard; take the CSV under Out instead.");
  }
}
