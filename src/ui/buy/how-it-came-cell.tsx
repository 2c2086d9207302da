"use client";
/** A figure of the buying list that opens how it came about, down to the pieces. */
import { Popover } from "radix-ui";
import { howItCame } from "@/core/lists";
import { useDesk, useDeskState } from "../desk/desk-context";
import { type TableFieldProps, TextCell } from "./table-cells";

export function FigureCell({ column, cells, line: id }: TableFieldProps & { readonly line: string }) {
  const text = cells[column.id]?.text ?? "";
  if (text === "" || text === "–") return <TextCell column={column} cells={cells} />;
  return (
    <td className="px-2 py-1 text-right align-top">
      <Popover.Root>
        <Popover.Trigger
          className={`underline decoration-dotted underline-offset-2 hover:text-enamel ${cells[column.id]?.lack === "missing" ? "font-semibold text-amber" : ""}`}
          title="How it came about"
          onClick={(event) => event.stopPropagation()}
        >
          {text}
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content
            side="bottom"
            align="end"
            sideOffset={4}
            aria-label="How it came about"
            className="z-40 max-h-[420px] w-[460px] overflow-auto rounded-sm border border-seam bg-leaf p-3 text-[13px] shadow-lg"
            onClick={(event) => event.stopPropagation()}
          >
            <Steps id={id} />
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
    </td>
  );
}

function Steps({ id }: { readonly id: string }) {
  const desk = useDesk();
  const { lines, currency } = useDeskState((state) => state.results.quantities);
  const rows = useDeskState((state) => state.results.tally.rows);
  const info = useDeskState((state) => state.job.info.job);
  const line = lines.find((one) => one.id === id);
  if (!line) return null;
  const style = { unit: info.unit, format: info.format, feet: info.feet };
  const steps = howItCame(line, rows, info, { currency, style });
  return (
    <>
      <h3 className="mb-1 font-semibold">{line.name}</h3>
      <ul className="font-table">
        {steps.map(({ words, result, records, isSum }) => (
          <li
            key={words}
            className={`flex items-baseline justify-between gap-4 py-0.5 ${isSum ? "border-seam border-t" : ""}`}
          >
            {records.length > 0 ? (
              <button
                type="button"
                className="min-h-6 text-left hover:underline"
                onClick={() => desk.select(records)}
              >
                {words}
              </button>
            ) : (
              <span className={isSum ? "font-semibold" : ""}>{words}</span>
            )}
            <span className={`shrink-0 ${isSum ? "font-semibold" : ""}`}>{result}</span>
          </li>
        ))}
      </ul>
    </>
  );
}
