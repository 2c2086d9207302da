"use client";
/**
 * Sheets drawn to scale, on which pieces are moved by hand: dragged with the pointer, or with the keys from the piece that
 * has the focus. Pieces lie as buttons over the drawing, so that both ways reach the same things.
 */
import {
  DndContext,
  type DragEndEvent,
  type DragMoveEvent,
  PointerSensor,
  pointerWithin,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import { type ReactNode, useState } from "react";
import { at, type Result } from "@/core/kernel";
import { pieceKey, piecesWithoutPlace, type SavedNesting, type SavedSheets } from "@/core/layout";
import { FurtherStock, furtherStock } from "./further-stock";
import { type HandAction, HandBar } from "./hand-bar";
import { useLayoutGround } from "./layout-ground";
import type { Direction, Held, PlacedAt, PlaneHand, PlaneRefusal, Target, Tried } from "./plane-hand";
import { handKey, useByHand } from "./use-by-hand";
import { Waiting } from "./waiting";

/** Within so many pixels an edge snaps to a line. */
const REACH_PX = 9;
const ARROWS: Readonly<Record<string, Direction>> = {
  ArrowLeft: "left",
  ArrowRight: "right",
  ArrowUp: "up",
  ArrowDown: "down",
};

export type OneSheetProps = {
  readonly index: number;
  readonly scale: number;
  readonly held: PlacedAt | null;
  /** Whether what is dragged over it can be let go here; null: nothing is. */
  readonly going: boolean | null;
  readonly onHold: (at: PlacedAt) => void;
};

export type PlaneBenchProps<K extends SavedSheets | SavedNesting, S> = {
  readonly saved: K;
  readonly hand: PlaneHand<K["layout"], S>;
  readonly width: number;
  readonly height: number;
  /** One sheet with its caption and what goes with it. */
  readonly drawSheet: (props: OneSheetProps) => ReactNode;
};

export function PlaneBench<K extends SavedSheets | SavedNesting, S extends { readonly sheet: number }>({
  saved,
  hand,
  width,
  height,
  drawSheet,
}: PlaneBenchProps<K, S>) {
  type L = K["layout"];
  const ground = useLayoutGround();
  const byHand = useByHand<L>(saved);
  const [held, setHeld] = useState<PlacedAt | null>(null);
  const [goingTo, setGoingTo] = useState<(Target & { readonly good: boolean }) | null>(null);
  const [against, setAgainst] = useState<S | null>(null);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }));
  const sheets = Array.from({ length: hand.sheetCount }, (_, i) => i);
  const sizes = sheets.map((sheet) => hand.stockSize(hand.stockOf(sheet)));
  const longest = Math.max(1, ...sizes.map((size) => size.length));
  const widest = Math.max(1, ...sizes.map((size) => size.width));
  // A whole sheet is to be seen at once.
  const scale = Math.min((width - 8) / longest, height / widest);
  const keyOf = (piece: number) => pieceKey(saved.pieces[piece] ?? { mark: "", name: "" });
  const nameOf = (where: PlacedAt) => {
    const piece = hand.pieceAt(where);
    return piece === null ? "" : keyOf(piece);
  };
  const further = furtherStock(saved);
  const [fresh = null] = further;

  const put = (next: L) => {
    setAgainst(null);
    byHand.put(next);
  };
  const accept = (changed: Result<L, PlaneRefusal>, spot: S | null, from?: PlacedAt): void => {
    if (changed.ok) {
      if (from && spot) setHeld(hand.followed(changed.value, from, spot.sheet));
      put(changed.value);
      return;
    }
    const { kind, message } = changed.problem;
    byHand.say(message);
    setAgainst(kind === "against" ? spot : null);
  };
  const acceptTried = (outcome: Tried<L, S> | string): void => {
    if (typeof outcome === "string") byHand.say(outcome);
    else accept(outcome.changed, outcome.spot);
  };

  /** The spot that a drag ends at, on the sheet under it. */
  const spotOf = (event: DragMoveEvent | DragEndEvent) => {
    const from = event.active.data.current as Held | undefined;
    const target = event.over?.data.current as Target | undefined;
    const box = event.active.rect.current.translated;
    const over = event.over?.rect;
    if (!from || !target || !box || !over) return null;
    const x = (box.left - over.left) / scale;
    // Drawn with y upwards.
    const y = hand.stockSize(target.stock).width - (box.top - over.top) / scale - hand.carried(from).width;
    return { from, target, spot: hand.spotAt(from, target, [x, y], REACH_PX / scale) };
  };
  const onMove = (event: DragMoveEvent) => {
    const going = spotOf(event);
    const isFresh = going !== null && going.target.sheet >= hand.sheetCount;
    setGoingTo(going && { ...going.target, good: isFresh || hand.tried(going.from, going.spot).ok });
  };
  const onEnd = (event: DragEndEvent) => {
    setGoingTo(null);
    const from = event.active.data.current as Held | undefined;
    if (event.over?.id === "waiting" && from && !("waiting" in from)) {
      accept(hand.aside(from), null);
      return;
    }
    const going = spotOf(event);
    if (!going) return;
    const moved = "waiting" in going.from ? undefined : going.from;
    if (going.target.sheet >= hand.sheetCount) {
      // A further sheet is not drawn yet: the piece comes to lie in its corner.
      const begun = hand.toSheet(going.from, going.target);
      if (begun && moved) setHeld(hand.followed(begun, moved, going.target.sheet));
      if (begun) put(begun);
      else byHand.say("It does not fit a sheet of that size.");
      return;
    }
    if (moved) setHeld(moved);
    accept(hand.tried(going.from, going.spot), going.spot, moved);
  };

  const toNeighbour = (from: PlacedAt, step: 1 | -1): void => {
    const to = from.sheet + step;
    const isFresh = to >= hand.sheetCount;
    if (to < 0 || (isFresh && fresh === null)) {
      byHand.say(to < 0 ? "This is the first sheet." : "No more sheets are in stock.");
      return;
    }
    const moved = hand.toSheet(from, { sheet: to, ...(isFresh && fresh !== null ? { stock: fresh } : {}) });
    if (!moved) {
      byHand.say(`${nameOf(from)} finds no room on sheet ${to + 1}.`);
      return;
    }
    setHeld(hand.followed(moved, from, to));
    put(moved);
  };
  const act = (action: HandAction): void => {
    if (action === "undo") byHand.undo();
    else if (action === "redo") byHand.redo();
    if (!held || hand.pieceAt(held) === null) return;
    switch (action) {
      case "lock":
        put(hand.locked(held, !hand.isLocked(held)));
        break;
      case "aside":
        accept(hand.aside(held), null);
        setHeld(null);
        break;
      case "turn":
        acceptTried(hand.turned(held));
        break;
      case "over":
        if (hand.turnedOver) acceptTried(hand.turnedOver(held));
        break;
      case "before":
      case "next":
        toNeighbour(held, action === "next" ? 1 : -1);
    }
  };
  const onKeys = (event: React.KeyboardEvent): void => {
    const direction = ARROWS[event.key];
    const key = direction ? null : handKey(event);
    if (!direction && !key) return;
    if (!held && key !== "undo" && key !== "redo") return;
    event.preventDefault();
    event.stopPropagation();
    if (key) act(key);
    else if (direction && held) {
      const moved = hand.pushed(held, direction);
      if (moved) put(moved);
      else byHand.say(`${nameOf(held)} has no place further ${direction} on this sheet.`);
    }
  };
  const isHeld = held !== null && hand.pieceAt(held) !== null;
  return (
    <div onKeyDown={onKeys}>
      <DndContext
        sensors={sensors}
        // What lies under the pointer is meant, not what the piece overlaps most.
        collisionDetection={pointerWithin}
        onDragMove={onMove}
        onDragOver={onMove}
        onDragEnd={onEnd}
        onDragCancel={() => setGoingTo(null)}
        accessibility={{
          screenReaderInstructions: {
            draggable:
              "Arrows move, T turns, L locks, Page Down moves to the next sheet, Delete removes from the layout.",
          },
        }}
      >
        <HandBar
          held={isHeld ? { name: nameOf(held), locked: hand.isLocked(held) } : null}
          hand={byHand}
          turnsOver={hand.turnedOver !== null}
          onAction={act}
          allow={
            against && held
              ? () => {
                  const spot = hand.knowingly(against);
                  accept(hand.tried(held, spot), spot, held);
                }
              : null
          }
        >
          <span className="flex gap-2">
            {further.map((stock) => (
              <FurtherStock
                key={stock}
                saved={saved}
                stock={stock}
                data={{ sheet: hand.sheetCount, stock }}
                going={goingTo?.sheet === hand.sheetCount && goingTo.stock === stock}
              />
            ))}
          </span>
        </HandBar>
        <Waiting
          pieces={piecesWithoutPlace(saved).map((one) => {
            const { length, width: across } = hand.carried({ waiting: one.index });
            return {
              ...one,
              name: pieceKey(at(saved.pieces, one.index)),
              width: length * scale,
              height: across * scale,
            };
          })}
          onBring={(piece) => {
            const back = hand.broughtBack(piece, fresh);
            if (back) put(back);
            else byHand.say("The piece fits on no sheet.");
          }}
        />
        {sheets.map((index) => (
          <figure key={index} className="mb-4">
            {drawSheet({
              index,
              scale,
              held,
              going: goingTo?.sheet === index ? goingTo.good : null,
              onHold: (where) => {
                setHeld(where);
                setAgainst(null);
                byHand.say(null);
                if (hand.pieceAt(where) !== null) ground.pick(nameOf(where));
              },
            })}
          </figure>
        ))}
      </DndContext>
    </div>
  );
}
