"use client";
/**
 * Sheets drawn to scale, on which panels are moved by hand: dragged with the pointer, or with the keys from the panel that
 * has the focus. Panels lie as buttons over the drawing, so that both ways reach the same things.
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
import { useState } from "react";
import { at, type Result } from "@/core/kernel";
import { adviceFor, type KeptSheets, pieceKey, rowFinder } from "@/core/layout";
import {
  boxOf,
  bringBack,
  type CutSheet,
  type Direction,
  firstSpot,
  movedTogether,
  movePanel,
  nextSpot,
  type PlacedAt,
  type Refusal,
  type SheetLayout,
  type Spot,
  setAside,
  setLock,
  snapped,
} from "@/core/layout/sheets";
import { sheetOrderTable } from "@/core/lists";
import { CuttingOrder } from "./cutting-order";
import { FurtherStock, furtherStock } from "./further-stock";
import { type HandAction, HandBar } from "./hand-bar";
import { useLayoutGround } from "./layout-ground";
import { OneSheet, SheetCaption } from "./one-sheet";
import { handKey, useByHand } from "./use-by-hand";
import { Waiting } from "./waiting";

type Held = PlacedAt | { readonly waiting: number };
/** Within so many pixels an edge snaps to a line. */
const REACH_PX = 9;
const ARROWS: Readonly<Record<string, Direction>> = {
  ArrowLeft: "left",
  ArrowRight: "right",
  ArrowUp: "up",
  ArrowDown: "down",
};

export function SheetBench({
  kept,
  width,
  height,
}: {
  readonly kept: KeptSheets;
  readonly width: number;
  readonly height: number;
}) {
  const { problem, layout } = kept;
  const ground = useLayoutGround();
  const hand = useByHand<SheetLayout>(kept);
  const [held, setHeld] = useState<PlacedAt | null>(null);
  const [goingTo, setGoingTo] = useState<{
    readonly sheet: number;
    readonly stock: number;
    readonly good: boolean;
  } | null>(null);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }));
  const sizes = layout.sheets.map((sheet) => at(problem.stock, sheet.stock));
  const longest = Math.max(1, ...sizes.map((size) => size.length));
  const widest = Math.max(1, ...sizes.map((size) => size.width));
  // A whole sheet is to be seen at once.
  const scale = Math.min((width - 8) / longest, height / widest);
  const nameOf = (at: PlacedAt) => {
    const panel = layout.sheets[at.sheet]?.placements[at.index]?.panel;
    return panel === undefined ? "" : pieceKey(kept.pieces[panel] ?? { mark: "", name: "" });
  };

  const accept = (changed: Result<SheetLayout, Refusal>, spot: Spot | null, from?: PlacedAt): void => {
    if (changed.ok) {
      if (from && spot) setHeld(followed(layout, changed.value, from, spot.sheet));
      setAgainst(null);
      hand.put(changed.value);
      return;
    }
    const { kind, message } = changed.problem;
    hand.say(message);
    setAgainst(kind === "against" ? spot : null);
  };
  const [against, setAgainst] = useState<Spot | null>(null);
  const put = (layoutNow: SheetLayout) => {
    setAgainst(null);
    hand.put(layoutNow);
  };

  /** The spot that a drag ends at, on the sheet under it. */
  const spotOf = (
    event: DragMoveEvent | DragEndEvent,
  ): { readonly spot: Spot; readonly from: Held } | null => {
    const from = event.active.data.current as Held | undefined;
    const target = event.over?.data.current as { sheet: number; stock: number } | undefined;
    const box = event.active.rect.current.translated;
    const over = event.over?.rect;
    if (!from || !target || !box || !over) return null;
    const sheet: CutSheet = layout.sheets[target.sheet] ?? {
      stock: target.stock,
      placements: [],
      offcuts: [],
    };
    const source = "waiting" in from ? null : at(layout.sheets, from.sheet);
    const together = source && !("waiting" in from) ? movedTogether(source, from.index) : [];
    const moved = together.map((i) => at(source?.placements ?? [], i));
    const size = "waiting" in from ? at(problem.panels, from.waiting) : boxOf(moved);
    const stock = at(problem.stock, sheet.stock);
    const wanted = {
      x: (box.left - over.left) / scale,
      // Drawn with y upwards.
      y: stock.width - (box.top - over.top) / scale - size.width,
      length: size.length,
      width: size.width,
    };
    const place = snapped(problem, sheet, wanted, {
      except: source === sheet ? together : [],
      reach: REACH_PX / scale,
    });
    return { spot: { ...target, ...place, rotated: moved[0]?.rotated ?? false }, from };
  };
  const tried = (from: Held, spot: Spot) =>
    "waiting" in from
      ? bringBack(problem, layout, from.waiting, spot)
      : movePanel(problem, layout, from, spot);

  const onMove = (event: DragMoveEvent) => {
    const going = spotOf(event);
    const fresh = going !== null && going.spot.sheet >= layout.sheets.length;
    setGoingTo(
      going && {
        sheet: going.spot.sheet,
        stock: going.spot.stock ?? -1,
        good: fresh || tried(going.from, going.spot).ok,
      },
    );
  };
  const onEnd = (event: DragEndEvent) => {
    setGoingTo(null);
    const from = event.active.data.current as Held | undefined;
    if (event.over?.id === "waiting" && from && !("waiting" in from)) {
      accept(setAside(problem, layout, from), null);
      return;
    }
    const going = spotOf(event);
    if (!going) return;
    const moved = "waiting" in going.from ? undefined : going.from;
    if (going.spot.sheet >= layout.sheets.length) {
      // A further sheet is not drawn yet: the panel comes to lie in its corner.
      const begun = firstSpot(problem, layout, going.from, going.spot);
      if (begun && moved) setHeld(followed(layout, begun, moved, going.spot.sheet));
      if (begun) put(begun);
      else hand.say("It does not fit a sheet of that size.");
      return;
    }
    if (moved) setHeld(moved);
    accept(tried(going.from, going.spot), going.spot, moved);
  };

  const act = (action: HandAction): void => {
    if (action === "undo") hand.undo();
    else if (action === "redo") hand.redo();
    if (!held) return;
    const sheet = layout.sheets[held.sheet];
    const one = sheet?.placements[held.index];
    if (!sheet || !one) return;
    switch (action) {
      case "lock":
        put(setLock(layout, held, !one.locked));
        return;
      case "aside":
        accept(setAside(problem, layout, held), null);
        setHeld(null);
        return;
      case "turn": {
        const box = boxOf(movedTogether(sheet, held.index).map((i) => at(sheet.placements, i)));
        const spot: Spot = { sheet: held.sheet, x: box.x, y: box.y, rotated: !one.rotated };
        const here = movePanel(problem, layout, held, spot);
        if (here.ok || here.problem.kind === "against") accept(here, spot);
        else {
          const elsewhere = firstSpot(problem, layout, held, { sheet: held.sheet, rotated: !one.rotated });
          if (elsewhere) put(elsewhere);
          else hand.say(`Turned, ${nameOf(held)} finds no room on this sheet.`);
        }
        return;
      }
      case "before":
      case "next": {
        const to = held.sheet + (action === "next" ? 1 : -1);
        const fresh = to >= layout.sheets.length;
        const stock = furtherStock(kept)[0] ?? null;
        if (to < 0 || (fresh && stock === null)) {
          hand.say(to < 0 ? "This is the first sheet." : "There is no further sheet in stock.");
          return;
        }
        const moved = firstSpot(problem, layout, held, {
          sheet: to,
          ...(fresh && stock !== null ? { stock } : {}),
          rotated: one.rotated,
        });
        if (moved) {
          setHeld(followed(layout, moved, held, to));
          put(moved);
        } else hand.say(`${nameOf(held)} finds no room on sheet ${to + 1}.`);
        return;
      }
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
      const moved = nextSpot(problem, layout, held, direction);
      if (moved) put(moved);
      else hand.say(`${nameOf(held)} has no place further ${direction} on this sheet.`);
    }
  };
  const rowOf = rowFinder(ground.tasks, kept.taskId);
  const one = held ? layout.sheets[held.sheet]?.placements[held.index] : undefined;
  const further = furtherStock(kept);
  const fresh = further[0] ?? null;
  return (
    <div onKeyDown={onKeys}>
      <DndContext
        sensors={sensors}
        // What lies under the pointer is meant, not what the panel overlaps most.
        collisionDetection={pointerWithin}
        onDragMove={onMove}
        onDragOver={onMove}
        onDragEnd={onEnd}
        onDragCancel={() => setGoingTo(null)}
        accessibility={{
          screenReaderInstructions: {
            draggable:
              "Arrows move, T turns, L locks, Page Down takes it to the next sheet, Delete sets it aside.",
          },
        }}
      >
        <HandBar
          held={held && one ? { name: nameOf(held), locked: one.locked ?? false } : null}
          hand={hand}
          onAction={act}
          allow={
            against && held
              ? () => {
                  accept(movePanel(problem, layout, held, { ...against, against: true }), against, held);
                }
              : null
          }
        >
          <span className="flex gap-2">
            {further.map((stock) => (
              <FurtherStock
                key={stock}
                kept={kept}
                stock={stock}
                data={{ sheet: layout.sheets.length, stock }}
                going={goingTo?.sheet === layout.sheets.length && goingTo.stock === stock}
              />
            ))}
          </span>
        </HandBar>
        <Waiting
          pieces={layout.unplaced.map(({ panel, qty, why }) => ({
            index: panel,
            qty,
            why,
            advice: adviceFor(kept, panel, why),
            name: pieceKey(at(kept.pieces, panel)),
            width: at(problem.panels, panel).length * scale,
            height: at(problem.panels, panel).width * scale,
          }))}
          onBring={(panel) => {
            const back = placeFor(kept, panel, fresh);
            if (back) put(back);
            else hand.say("There is no room for it on any sheet.");
          }}
        />
        {layout.sheets.map((sheet, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: the sheets of one layout have no identity beyond their order
          <figure key={i} className="mb-4">
            <SheetCaption kept={kept} index={i} />
            <OneSheet
              kept={kept}
              index={i}
              scale={scale}
              held={held}
              going={goingTo?.sheet === i ? goingTo.good : null}
              onHold={(at) => {
                setHeld(at);
                setAgainst(null);
                hand.say(null);
                const panel = sheet.placements[at.index]?.panel;
                if (panel !== undefined) ground.pick(pieceKey(kept.pieces[panel] ?? { mark: "", name: "" }));
              }}
            />
            <CuttingOrder table={sheetOrderTable(kept, i, ground.style, rowOf)} />
          </figure>
        ))}
      </DndContext>
    </div>
  );
}

/** Where a panel stands after it was moved: in its place on its own sheet, at the end of another. */
function followed(before: SheetLayout, after: SheetLayout, from: PlacedAt, to: number): PlacedAt {
  if (to === from.sheet) return from;
  const source = before.sheets[from.sheet];
  const emptied = source && movedTogether(source, from.index).length === source.placements.length;
  const sheet = emptied && to > from.sheet ? to - 1 : to;
  return { sheet, index: (after.sheets[sheet]?.placements.length ?? 1) - 1 };
}

/** The layout with a waiting panel on the first sheet that has room for it, or on a further one. */
function placeFor({ problem, layout }: KeptSheets, panel: number, fresh: number | null): SheetLayout | null {
  const sheets = layout.sheets.map((_, sheet) => ({ sheet }));
  const further = fresh === null ? [] : [{ sheet: layout.sheets.length, stock: fresh }];
  for (const where of [...sheets, ...further]) {
    for (const rotated of [false, true]) {
      const back = firstSpot(problem, layout, { waiting: panel }, { ...where, rotated });
      if (back) return back;
    }
  }
  return null;
}
