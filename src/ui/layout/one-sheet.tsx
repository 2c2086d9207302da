"use client";
/** One sheet of a layout to scale, its panels as buttons over the drawing; and where a further sheet can be begun. */
import { useDroppable } from "@dnd-kit/core";
import { sheetDrawing } from "@/core/drawing";
import { at } from "@/core/kernel";
import { type KeptSheets, pieceKey } from "@/core/layout";
import type { PlacedAt } from "@/core/layout/sheets";
import { DisplayList, screenMeasure } from "../common/display-list";
import { useLayoutGround } from "./layout-ground";
import { PieceButton } from "./piece-button";

export function SheetCaption({ kept, index }: { readonly kept: KeptSheets; readonly index: number }) {
  const ground = useLayoutGround();
  const stock = at(kept.problem.stock, at(kept.layout.sheets, index).stock);
  const rack = stock.rack === null ? "" : ` · ${ground.rackLabel(stock.rack)} from the rack`;
  const grain = stock.grain ? ` · grain along the ${stock.grain}` : "";
  return (
    <figcaption className="mb-1 text-[13px]">
      <b className="font-semibold">Sheet {index + 1}</b>{" "}
      <span className="text-ink-soft">{`${stock.length} × ${stock.width}${rack}${grain}`}</span>
    </figcaption>
  );
}

type OneSheetProps = {
  readonly kept: KeptSheets;
  readonly index: number;
  readonly scale: number;
  readonly held: PlacedAt | null;
  /** Whether what is dragged over it can be let go here; null: nothing is. */
  readonly going: boolean | null;
  readonly onHold: (at: PlacedAt) => void;
};

export function OneSheet({ kept, index, scale, held, going, onHold }: OneSheetProps) {
  const ground = useLayoutGround();
  const sheet = at(kept.layout.sheets, index);
  const stock = at(kept.problem.stock, sheet.stock);
  const { setNodeRef } = useDroppable({ id: `sheet-${index}`, data: { sheet: index, stock: sheet.stock } });
  const items = sheetDrawing(
    { sheet, problem: kept.problem, pieces: kept.pieces, style: ground.style },
    { scale, line: 1, text: 15, measure: screenMeasure },
  );
  const edge =
    going === null ? "" : going ? "outline outline-2 outline-moss" : "outline outline-2 outline-oxide";
  return (
    <div
      ref={setNodeRef}
      data-sheet={index}
      className={`relative ${edge}`}
      style={{ width: stock.length * scale, height: stock.width * scale }}
    >
      <div className="-m-px">
        <DisplayList
          drawing={{ width: stock.length * scale, height: stock.width * scale, items }}
          label={`Sheet ${index + 1}: ${sheet.placements.map((one) => kept.pieces[one.panel]?.mark).join(", ")}`}
          isSelected={ground.isSelected}
        />
      </div>
      {sheet.placements.map((one, i) => (
        <PieceButton
          // biome-ignore lint/suspicious/noArrayIndexKey: a placement is known by its place in the sheet
          key={i}
          id={`panel-${index}-${i}`}
          data={{ sheet: index, index: i }}
          box={{
            left: one.x * scale,
            top: (stock.width - one.y - one.width) * scale,
            width: one.length * scale,
            height: one.width * scale,
          }}
          name={`${pieceKey(at(kept.pieces, one.panel))}, ${one.length} × ${one.width} on sheet ${index + 1}${finishedWords(kept, one.panel)}${one.locked ? ", locked" : ""}`}
          held={held?.sheet === index && held.index === i}
          onHold={() => onHold({ sheet: index, index: i })}
        />
      ))}
    </div>
  );
}

/** ", finished 488 × 328", where the blank is another size. */
function finishedWords(kept: KeptSheets, panel: number): string {
  const finished = kept.pieces[panel]?.finished;
  return finished ? `, finished ${finished[0]} × ${finished[1]}` : "";
}
