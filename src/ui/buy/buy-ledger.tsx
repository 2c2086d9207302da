"use client";
import { agreeing } from "@/core/kernel";
import { BUYING_COLUMNS, totalWords } from "@/core/lists";
/** What to buy: by rule and by layout side by side, subtotals and totals. */
import { isImperial } from "@/core/quantities";
import { Button } from "../common/button";
import { Chooser } from "../common/chooser";
import { Table } from "../common/table";
import { TextField } from "../common/text-field";
import { useDesk, useDeskState } from "../desk/desk-context";
import { Out, PaneHead } from "../desk/pane-head";
import { isMore, toggled } from "../desk/picking";
import type { Stage } from "../desk/stages";
import { CompareVariants } from "./compare-variants";
import { FigureCell } from "./how-it-came-cell";
import { type TableFieldProps, TextCell } from "./table-cells";

export function BuyLedger({ onStage }: { readonly onStage: (stage: Stage) => void }) {
  const table = useDeskState((state) => state.results.buyingList);
  const quantities = useDeskState((state) => state.results.quantities);
  const { byRule, byLayout, currency } = quantities;
  return (
    <>
      <PaneHead title="Buying list" facts={`prices in ${currency}`}>
        <CompareVariants />
        <Out />
      </PaneHead>
      <Settings />
      <section aria-label="Buying list, rows" tabIndex={0} className="min-h-0 flex-1 overflow-auto">
        <Table columns={BUYING_COLUMNS} stickyHead className="font-table">
          {table.groups.map((group) => (
            <tbody key={group.heading}>
              <tr className="bg-ground">
                <th scope="rowgroup" colSpan={4} className="px-2 py-1 text-left font-semibold">
                  {group.heading}
                </th>
                <td colSpan={5} className="px-2 py-1 text-right text-ink-soft">
                  {group.summary}
                </td>
              </tr>
              {group.rows.map((row) => (
                <BuyRow key={row.id} id={row.id} cells={row.cells} />
              ))}
            </tbody>
          ))}
        </Table>
        {table.groups.length === 0 ? (
          <p className="p-4 text-ink-soft">What to buy appears here when the job has pieces.</p>
        ) : null}
      </section>
      <footer className="shrink-0 border-ink border-t-2 bg-ground px-3.5 py-2.5">
        <dl className="flex flex-wrap gap-x-10 gap-y-1">
          <Total
            name={`net + ${quantities.wastePercent} % waste`}
            words={totalWords(byRule, currency)}
            incomplete={byRule.missing > 0}
          />
          <Total
            name="from layout, whole bars and sheets"
            words={totalWords(byLayout, currency)}
            incomplete={byLayout.missing > 0 || byLayout.notLaidOut > 0 || byLayout.outdated > 0}
          />
        </dl>
        {byLayout.notLaidOut > 0 || byLayout.outdated > 0 ? (
          <p className="mt-1 text-[13px] text-amber">
            {byLayout.outdated > 0 ? "A layout is outdated. " : ""}
            {byLayout.notLaidOut > 0
              ? `${byLayout.notLaidOut} stock ${agreeing(byLayout.notLaidOut, "size counts", "sizes count")} with net + waste, without a layout. `
              : ""}
            <Button look="plain" onClick={() => onStage("layout")}>
              Go to Layout
            </Button>
          </p>
        ) : null}
      </footer>
    </>
  );
}

function Total({
  name,
  words,
  incomplete,
}: {
  readonly name: string;
  readonly words: string;
  readonly incomplete: boolean;
}) {
  return (
    <div className="flex flex-col-reverse">
      <dt className="text-[13px] text-ink-soft">{name}</dt>
      <dd className={`font-semibold font-slab text-[20px] ${incomplete ? "text-amber" : ""}`}>{words}</dd>
    </div>
  );
}

/** Columns whose figures open how they came about. */
const FIGURES: ReadonlySet<string> = new Set(["net", "gross", "cost", "layoutCost"]);

function BuyRow({ id, cells }: { readonly id: string; readonly cells: TableFieldProps["cells"] }) {
  const desk = useDesk();
  const lines = useDeskState((state) => state.results.quantities.lines);
  const rows = useDeskState((state) => state.results.tally.rows);
  const selected = useDeskState((state) => state.selected);
  const line = lines.find((one) => one.id === id);
  const own = rows.filter((row) =>
    line?.marks.length ? line.marks.includes(row.mark) : id === `bought:${row.stock ?? row.id}`,
  );
  const chosen = own.some((row) => row.pieces.some((piece) => selected.has(piece.id)));
  return (
    <tr
      aria-selected={chosen}
      onClick={(event) => {
        const ids = own.flatMap((row) => row.pieces.map((piece) => piece.id));
        desk.select(isMore(event) ? toggled(selected, ids) : ids);
      }}
      className={`cursor-pointer border-seam border-b ${chosen ? "bg-brass-pale" : "hover:bg-ground"}`}
    >
      {BUYING_COLUMNS.map((column) =>
        FIGURES.has(column.id) ? (
          <FigureCell key={column.id} column={column} cells={cells} line={id} />
        ) : (
          <TextCell key={column.id} column={column} cells={cells} />
        ),
      )}
    </tr>
  );
}

/** Waste and rounding are the job's own, so they stand where their effect is seen. */
function Settings() {
  const desk = useDesk();
  const info = useDeskState((state) => state.job.info.job);
  const waste = (text: string): string | null => {
    const value = Number(text.replace(",", ".").replace("%", ""));
    if (!Number.isFinite(value) || value < 0 || value > 200) return "From 0 to 200 %.";
    return desk.submit({ kind: "changeInfo", set: { wastePercent: value } });
  };
  const batch = (text: string): string | null => {
    const value = Number(text);
    if (!Number.isInteger(value) || value < 1 || value > 10_000) return "A whole number from 1.";
    return desk.submit({ kind: "changeInfo", set: { batch: value } });
  };
  return (
    <div className="flex shrink-0 items-start gap-4 border-seam border-b bg-ground px-3.5 py-2">
      <div className="w-[110px]">
        <TextField label="Waste, %" value={String(info.wastePercent)} onCommit={waste} align="right" />
      </div>
      <div className="w-[170px]">
        <Chooser
          label="Quantities are rounded"
          value={info.rounding}
          choices={[
            { value: "piece", label: "per piece" },
            { value: "line", label: "per line" },
            { value: "end", label: "only at the end" },
          ]}
          onChoose={(rounding) => desk.submit({ kind: "changeInfo", set: { rounding: rounding } })}
        />
      </div>
      <div className="w-[110px]">
        <TextField label="Batch quantity" value={String(info.batch)} onCommit={batch} align="right" />
      </div>
      {isImperial(info.unit) ? (
        <div className="w-[150px]">
          <Chooser
            label="Feet are written"
            value={info.feet}
            choices={[
              { value: "decimal", label: "12.58 ft" },
              { value: "feetAndInches", label: "12' 7\"" },
            ]}
            onChoose={(feet) => desk.submit({ kind: "changeInfo", set: { feet: feet } })}
          />
        </div>
      ) : null}
    </div>
  );
}
