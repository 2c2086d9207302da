"use client";
import { useDroppable } from "@dnd-kit/core";
import type { ReactNode } from "react";
import { type DrawItem, nestingDrawing, sheetDrawing } from "@/core/drawing";
import { boxOfPoints } from "@/core/geometry";
import { at } from "@/core/kernel";
import { pieceKey, type SavedNesting, type SavedSheets } from "@/core/layout";
import { lyingOutline, type ShapePlacement } from "@/core/layout/nesting";
/** One sheet of a layout to scale, its pieces as buttons over the drawing. */
import { type LengthStyle, saySizes } from "@/core/measure";
import { isMetal } from "@/core/stockroom";
import { DisplayList } from "../common/display-list";
import { useLayoutGround } from "./layout-ground";
import { PieceButton } from "./piece-button";
import type { OneSheetProps } from "./plane-bench";

const DRAWN = { line: 1, text: 15 };

export function OneSheet({
  saved,
  index,
  scale,
  held,
  going,
  onHold,
}: OneSheetProps & { readonly saved: SavedSheets }) {
  const ground = useLayoutGround();
  const { problem, pieces } = saved;
  const sheet = at(saved.layout.sheets, index);
  const stock = at(problem.stock, sheet.stock);
  return (
    <SheetFrame
      index={index}
      scale={scale}
      stock={{ ...stock, index: sheet.stock }}
      going={going}
      items={sheetDrawing({ sheet, problem, pieces, style: ground.style }, { scale, ...DRAWN })}
      marks={sheet.placements.map((one) => at(pieces, one.panel).mark)}
    >
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
          name={`${pieceKey(at(pieces, one.panel))}, ${saySizes([one.length, one.width], ground.style)} on sheet ${index + 1}${finishedWords(saved, one.panel, ground.style)}${one.locked ? ", locked" : ""}`}
          held={held?.sheet === index && held.index === i}
          onHold={() => onHold({ sheet: index, index: i })}
        />
      ))}
    </SheetFrame>
  );
}

/** ", finished 488 × 328", where the blank is another size. */
function finishedWords(saved: SavedSheets, panel: number, style: LengthStyle): string {
  const finished = saved.pieces[panel]?.finished;
  return finished ? `, finished ${saySizes(finished, style)}` : "";
}

export function OneNestingSheet({
  saved,
  index,
  scale,
  held,
  going,
  onHold,
}: OneSheetProps & { readonly saved: SavedNesting }) {
  const ground = useLayoutGround();
  const { problem, pieces } = saved;
  const sheet = at(saved.layout.sheets, index);
  const { grain, ...stock } = at(problem.stock, sheet.stock);
  const task = ground.tasks.find((one) => one.id === saved.taskId);
  const tint = task?.kind === "shapes" && isMetal(task.entry) ? "steel" : "board";
  const grained = problem.shapes.some((shape) => shape.grain);
  return (
    <SheetFrame
      index={index}
      scale={scale}
      stock={{ ...stock, grain: grained ? grain : null, index: sheet.stock }}
      going={going}
      items={nestingDrawing({ sheet, problem, pieces, style: ground.style, tint }, { scale, ...DRAWN })}
      marks={sheet.placements.map((one) => at(pieces, one.shape).mark)}
    >
      {sheet.placements.map((one, i) => {
        const outline = lyingOutline(problem, one);
        const { x0, y0, x1, y1 } = boxOfPoints(outline);
        return (
          <PieceButton
            // biome-ignore lint/suspicious/noArrayIndexKey: a placement is known by its place in the sheet
            key={i}
            id={`shape-${index}-${i}`}
            data={{ sheet: index, index: i }}
            box={{
              left: x0 * scale,
              top: (stock.width - y1) * scale,
              width: (x1 - x0) * scale,
              height: (y1 - y0) * scale,
            }}
            // Shapes lie in one another's corners: only the shape itself is to be picked.
            outline={outline.map(([x, y]) => [(x - x0) * scale, (y1 - y) * scale])}
            name={shapeWords(saved, one, index, ground.style)}
            held={held?.sheet === index && held.index === i}
            onHold={() => onHold({ sheet: index, index: i })}
          />
        );
      })}
    </SheetFrame>
  );
}

/** "A3, 200 × 150 mm on sheet 1, turned by 90°, other face up, locked". */
function shapeWords(
  { pieces }: SavedNesting,
  one: ShapePlacement,
  sheet: number,
  style: LengthStyle,
): string {
  const piece = at(pieces, one.shape);
  return [
    `${pieceKey(piece)}${piece.finished ? `, ${saySizes(piece.finished, style)}` : ""} on sheet ${sheet + 1}`,
    ...(one.angle === 0 ? [] : [`turned by ${one.angle}°`]),
    ...(one.mirrored ? ["other face up"] : []),
    ...(one.locked ? ["locked"] : []),
  ].join(", ");
}

type FrameProps = {
  readonly index: number;
  readonly scale: number;
  readonly stock: {
    readonly index: number;
    readonly length: number;
    readonly width: number;
    readonly grain: "length" | "width" | null;
    readonly rack: string | null;
  };
  readonly going: boolean | null;
  readonly items: readonly DrawItem[];
  readonly marks: readonly string[];
  readonly children: ReactNode;
};

/** A sheet with its caption; pieces are dropped on it. */
function SheetFrame({ index, scale, stock, going, items, marks, children }: FrameProps) {
  const ground = useLayoutGround();
  const { setNodeRef } = useDroppable({
    id: `sheet-${index}`,
    data: { sheet: index, stock: stock.index },
  });
  const rack = stock.rack === null ? "" : ` · ${ground.rackLabel(stock.rack)} from the rack`;
  const grain = stock.grain ? ` · grain along the ${stock.grain}` : "";
  const edge =
    going === null ? "" : going ? "outline outline-2 outline-moss" : "outline outline-2 outline-oxide";
  const [width, height] = [stock.length * scale, stock.width * scale];
  return (
    <>
      <figcaption className="mb-1 text-[13px]">
        <b className="font-semibold">Sheet {index + 1}</b>{" "}
        <span className="text-ink-soft">{`${saySizes([stock.length, stock.width], ground.style)}${rack}${grain}`}</span>
      </figcaption>
      <div ref={setNodeRef} data-sheet={index} className={`relative ${edge}`} style={{ width, height }}>
        <div className="-m-px">
          <DisplayList
            drawing={{ width, height, items }}
            label={`Sheet ${index + 1}: ${marks.join(", ")}`}
            isSelected={ground.isSelected}
          />
        </div>
        {children}
      </div>
    </>
  );
}
