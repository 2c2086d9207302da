"use client";
/** What can be done by hand with the piece that has the focus; what was refused stands beside it. */
import {
  ArrowLeftRight,
  FlipHorizontal2,
  Lock,
  LockOpen,
  PackageOpen,
  Redo2,
  RotateCw,
  Undo2,
} from "lucide-react";
import type { ReactNode } from "react";
import { Button } from "../common/button";
import type { ByHand, HandKey } from "./use-by-hand";

export type HandAction = HandKey;

export type HandBarProps = {
  readonly held: { readonly name: string; readonly locked: boolean } | null;
  readonly hand: Pick<ByHand<never>, "message" | "undo" | "redo" | "buttons">;
  /** Whether pieces can be turned over here. */
  readonly turnsOver?: boolean;
  readonly onAction: (action: HandAction) => void;
  /** Where a further bar or sheet can be begun. */
  readonly children?: ReactNode;
  /** Lets the piece lie against the grain where it was refused; null: nothing of the kind was. */
  readonly allow: (() => void) | null;
};

export function HandBar({ held, hand, turnsOver = false, onAction, allow, children }: HandBarProps) {
  return (
    // Two lines that keep their height: nothing under the pointer may move while a piece is taken up.
    <div
      role="toolbar"
      aria-label="By hand"
      className="sticky top-0 z-20 mb-2 border-seam border-b bg-leaf pb-1 text-[13px]"
    >
      <div className="flex h-8 items-center gap-x-3 overflow-hidden">
        {hand.buttons ? (
          <>
            <Button
              look="plain"
              icon={<Undo2 size={14} aria-hidden />}
              disabled={!hand.buttons.canUndo}
              onClick={hand.undo}
            >
              Undo
            </Button>
            <Button
              look="plain"
              icon={<Redo2 size={14} aria-hidden />}
              disabled={!hand.buttons.canRedo}
              onClick={hand.redo}
            >
              Redo
            </Button>
          </>
        ) : null}
        <div className="ml-auto whitespace-nowrap">{children}</div>
      </div>
      <div className="flex h-7 items-center gap-x-3 overflow-hidden whitespace-nowrap">
        {held ? (
          <>
            <b className="font-semibold font-slab">{held.name}</b>
            <Button look="plain" icon={<RotateCw size={14} aria-hidden />} onClick={() => onAction("turn")}>
              Turn (T)
            </Button>
            {turnsOver ? (
              <Button
                look="plain"
                icon={<FlipHorizontal2 size={14} aria-hidden />}
                onClick={() => onAction("over")}
              >
                Turn over (O)
              </Button>
            ) : null}
            <Button
              look="plain"
              icon={held.locked ? <LockOpen size={14} aria-hidden /> : <Lock size={14} aria-hidden />}
              onClick={() => onAction("lock")}
            >
              {held.locked ? "Unlock (L)" : "Lock (L)"}
            </Button>
            <Button
              look="plain"
              icon={<ArrowLeftRight size={14} aria-hidden />}
              onClick={() => onAction("next")}
            >
              Move to next bar or sheet (Page Down)
            </Button>
            <Button
              look="plain"
              icon={<PackageOpen size={14} aria-hidden />}
              onClick={() => onAction("aside")}
            >
              Remove from layout (Delete)
            </Button>
          </>
        ) : (
          <span className="text-ink-soft">Drag a piece, or pick it and use the arrow keys.</span>
        )}
      </div>
      <div role="status">
        {hand.message ? (
          // Over the drawing, for the same reason.
          <p className="absolute top-full left-0 flex items-center gap-3 border border-oxide bg-oxide-pale px-3 py-1 text-oxide">
            {hand.message}
            {allow ? (
              <Button look="outline" onClick={allow}>
                Allow across grain
              </Button>
            ) : null}
          </p>
        ) : null}
      </div>
    </div>
  );
}
