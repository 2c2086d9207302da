"use client";
import {
  DndContext,
  type DragEndEvent,
  PointerSensor,
  pointerWithin,
  useDroppable,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import { useState } from "react";
import { barDrawing } from "@/core/drawing";
import { at, type Result, timesWords } from "@/core/kernel";
import { pieceKey, piecesWithoutPlace, type RowFinder, rowFinder, type SavedBars } from "@/core/layout";
import {
  type BarLayout,
  type BarRefusal,
  type BarSpot,
  barRefusalWords,
  bringPieceBack,
  movePiece,
  type PieceAt,
  pieceOutlines,
  setPieceAside,
  setPieceLock,
  turnPiece,
} from "@/core/layout/bars";
/** Bars drawn to scale, on which pieces are moved by hand: along their bar, to another one, or to one that is not begun. */
import { PLAIN_MM, sayLength } from "@/core/measure";
import { DisplayList } from "../common/display-list";
import { FurtherStock, furtherStock } from "./further-stock";
import { type HandAction, HandBar } from "./hand-bar";
import { useLayoutGround } from "./layout-ground";
import { PieceButton } from "./piece-button";
import { handKey, useByHand } from "./use-by-hand";
import { Waiting } from "./waiting";

const DEPTH = 34;
type From = PieceAt | { readonly waiting: number };
type Target = { readonly bar: number; readonly stock: number };

export function BarBench({ saved, width }: { readonly saved: SavedBars; readonly width: number }) {
  const { problem, layout } = saved;
  const ground = useLayoutGround();
  const hand = useByHand<BarLayout>(saved);
  const [held, setHeld] = useState<PieceAt | null>(null);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }));
  const longest = Math.max(1, ...layout.bars.map((bar) => at(problem.stock, bar.stock).length));
  const scale = (width - 8) / longest;
  const pieceAt = (where: PieceAt) => layout.bars[where.bar]?.pieces[where.place];
  const nameOf = (piece: number) => pieceKey(at(saved.pieces, piece));
  const rowOf = rowFinder(ground.tasks, saved.taskId);
  const further = furtherStock(saved);
  const fresh = further[0] ?? null;

  const accept = (changed: Result<BarLayout, BarRefusal>): void => {
    if (changed.ok) hand.put(changed.value);
    else hand.say(barRefusalWords(changed.problem, problem.style ?? PLAIN_MM));
  };
  const toSpot = ({ bar, stock }: Target, place: number): BarSpot =>
    bar < layout.bars.length ? { bar, place } : { bar, stock, place };

  const onEnd = (event: DragEndEvent) => {
    const from = event.active.data.current as From | undefined;
    if (!from || !event.over) return;
    if (event.over.id === "waiting") {
      if (!("waiting" in from)) accept(setPieceAside(problem, layout, from));
      return;
    }
    const target = event.over.data.current as Target | undefined;
    const box = event.active.rect.current.translated;
    if (!target || !box) return;
    const middle = (box.left + box.width / 2 - event.over.rect.left) / scale;
    const place = placeFor(saved, target.bar, middle, "waiting" in from ? null : from);
    accept(
      "waiting" in from
        ? bringPieceBack(problem, layout, from.waiting, toSpot(target, place))
        : movePiece(problem, layout, from, toSpot(target, place)),
    );
  };

  // A pattern that is cut several times gives one of its bars for the change: it stands behind it.
  const singledOut = (where: PieceAt): PieceAt => ({
    ...where,
    bar: where.bar + ((layout.bars[where.bar]?.times ?? 1) > 1 ? 1 : 0),
  });
  const act = (action: HandAction): void => {
    if (action === "undo") hand.undo();
    else if (action === "redo") hand.redo();
    if (!held || pieceAt(held) === undefined) return;
    const locked = layout.bars[held.bar]?.locked?.includes(held.place) ?? false;
    if (action === "lock" || action === "turn") setHeld(singledOut(held));
    if (action === "lock") accept(setPieceLock(problem, layout, held, !locked));
    else if (action === "turn") accept(turnPiece(problem, layout, held));
    else if (action === "aside") {
      setHeld(null);
      accept(setPieceAside(problem, layout, held));
    } else if (action === "before" || action === "next") {
      const to = held.bar + (action === "next" ? 1 : -1);
      if (to < 0) hand.say("This is the first bar.");
      else if (to >= layout.bars.length && fresh === null) hand.say("No more bars are in stock.");
      else accept(movePiece(problem, layout, held, toSpot({ bar: to, stock: fresh ?? 0 }, 1e6)));
    }
  };
  const onKeys = (event: React.KeyboardEvent): void => {
    const sideways = event.key === "ArrowLeft" ? -1 : event.key === "ArrowRight" ? 1 : 0;
    const key = sideways === 0 ? handKey(event) : null;
    if (sideways === 0 && !key) return;
    event.preventDefault();
    event.stopPropagation();
    if (key) {
      act(key);
      return;
    }
    if (!held) return;
    const to = held.place + sideways;
    if (to < 0 || to >= (layout.bars[held.bar]?.pieces.length ?? 0)) {
      hand.say("The piece is at the end of its bar.");
      return;
    }
    accept(movePiece(problem, layout, held, { bar: held.bar, place: to }));
    setHeld({ ...singledOut(held), place: to });
  };
  const one = held ? pieceAt(held) : undefined;
  return (
    <div onKeyDown={onKeys}>
      <DndContext sensors={sensors} collisionDetection={pointerWithin} onDragEnd={onEnd}>
        <HandBar
          held={
            held && one !== undefined
              ? {
                  name: nameOf(one),
                  locked: layout.bars[held.bar]?.locked?.includes(held.place) ?? false,
                }
              : null
          }
          hand={hand}
          onAction={act}
          allow={null}
        >
          <span className="flex gap-2">
            {further.map((stock) => (
              <FurtherStock
                key={stock}
                saved={saved}
                stock={stock}
                data={{ bar: layout.bars.length, stock }}
              />
            ))}
          </span>
        </HandBar>
        <Waiting
          pieces={piecesWithoutPlace(saved).map((one) => ({
            ...one,
            name: nameOf(one.index),
            width: at(problem.pieces, one.index).length * scale,
            height: DEPTH,
          }))}
          onBring={(piece) => {
            const bars = layout.bars.map((_, bar) => bar);
            if (fresh !== null) bars.push(layout.bars.length);
            for (const bar of bars) {
              const back = bringPieceBack(problem, layout, piece, toSpot({ bar, stock: fresh ?? 0 }, 1e6));
              if (!back.ok) continue;
              hand.put(back.value);
              return;
            }
            hand.say("The piece fits on no bar.");
          }}
        />
        {layout.bars.map((bar, i) => (
          <OneBar
            // biome-ignore lint/suspicious/noArrayIndexKey: the patterns of one layout have no identity beyond their order
            key={i}
            saved={saved}
            index={i}
            scale={scale}
            held={held}
            rowOf={rowOf}
            onHold={(where) => {
              setHeld(where);
              hand.say(null);
              const piece = bar.pieces[where.place];
              if (piece !== undefined) ground.pick(nameOf(piece));
            }}
          />
        ))}
      </DndContext>
    </div>
  );
}

/** The place between the pieces of a bar that a middle in mm stands for. */
function placeFor(saved: SavedBars, index: number, middle: number, from: PieceAt | null): number {
  const bar = saved.layout.bars[index];
  if (!bar) return 0;
  const outlines = pieceOutlines(saved.problem, bar);
  const before = outlines.filter(({ start, end }, place) => {
    if (from?.bar === index && from.place === place) return false;
    return (start.upper + start.lower + end.upper + end.lower) / 4 < middle;
  });
  return before.length;
}

type OneBarProps = {
  readonly saved: SavedBars;
  readonly index: number;
  readonly scale: number;
  readonly held: PieceAt | null;
  readonly rowOf: RowFinder;
  readonly onHold: (where: PieceAt) => void;
};

function OneBar({ saved, index, scale, held, rowOf, onHold }: OneBarProps) {
  const ground = useLayoutGround();
  const bar = at(saved.layout.bars, index);
  const stock = at(saved.problem.stock, bar.stock);
  const { setNodeRef, isOver } = useDroppable({ id: `bar-${index}`, data: { bar: index, stock: bar.stock } });
  const items = barDrawing(
    {
      bar,
      problem: saved.problem,
      pieces: saved.pieces,
      shownOf: (piece) => rowOf(piece)?.shown ?? null,
      style: ground.style,
    },
    { scale, depth: DEPTH, line: 1, text: 15 },
  );
  const outlines = pieceOutlines(saved.problem, bar);
  const times = timesWords(bar.times);
  const rack = stock.rack === null ? "" : ` · ${ground.rackLabel(stock.rack)} from the rack`;
  return (
    <figure className="mb-3">
      <figcaption className="mb-1 text-[13px]">
        <b className="font-semibold">Pattern {index + 1}</b>{" "}
        <span className="text-ink-soft">{`${bar.times} × bar ${sayLength(stock.length, ground.style)}${rack}`}</span>
      </figcaption>
      <div
        ref={setNodeRef}
        data-bar={index}
        className={`relative ${isOver ? "outline outline-2 outline-brass" : ""}`}
        style={{ width: stock.length * scale, height: DEPTH }}
      >
        <div className="-m-px">
          <DisplayList
            drawing={{ width: stock.length * scale, height: DEPTH, items }}
            label={`Pattern ${index + 1}, ${times}: ${bar.pieces.map((piece) => saved.pieces[piece]?.mark).join(", ")}`}
            isSelected={ground.isSelected}
          />
        </div>
        {bar.pieces.map((piece, place) => {
          const { start, end } = at(outlines, place);
          const left = Math.min(start.upper, start.lower);
          const right = Math.max(end.upper, end.lower);
          return (
            <PieceButton
              // biome-ignore lint/suspicious/noArrayIndexKey: a piece is known by its place on the bar
              key={place}
              id={`piece-${index}-${place}`}
              data={{ bar: index, place }}
              box={{ left: left * scale, top: 0, width: (right - left) * scale, height: DEPTH }}
              name={`${pieceKey(at(saved.pieces, piece))}, ${at(saved.problem.pieces, piece).length} on pattern ${index + 1}${bar.locked?.includes(place) ? ", locked" : ""}`}
              held={held?.bar === index && held.place === place}
              onHold={() => onHold({ bar: index, place })}
            />
          );
        })}
      </div>
    </figure>
  );
}
