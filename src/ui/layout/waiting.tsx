"use client";
/** Pieces without a place, each with why: set aside by hand, or none was found. They can be dragged back, or brought back. */
import { useDraggable, useDroppable } from "@dnd-kit/core";
import type { PieceWithoutPlace } from "@/core/layout";
import { Button } from "../common/button";
import { Tag } from "../common/tag";

export type WaitingPiece = PieceWithoutPlace & {
  readonly name: string;
  /** Drawn size, so that a drag shows it as large as it will lie. */
  readonly width: number;
  readonly height: number;
};

export function Waiting({
  pieces,
  onBring,
}: {
  readonly pieces: readonly WaitingPiece[];
  readonly onBring: (index: number) => void;
}) {
  const { setNodeRef, isOver } = useDroppable({ id: "waiting" });
  return (
    <section
      ref={setNodeRef}
      aria-label="Without a place"
      className={`mb-3 ${pieces.length > 0 || isOver ? "border-oxide border-l-2 bg-oxide-pale px-3 py-1" : ""} ${isOver ? "outline outline-2 outline-brass" : ""}`}
    >
      {pieces.map((piece) => (
        <p key={`${piece.index} ${piece.reason}`} className="flex items-center gap-2 text-[13px] text-oxide">
          <WaitingTag piece={piece} />
          <span className="min-w-0">
            Not placed: {piece.qty} × {piece.why}. {piece.advice}.
          </span>
          <Button look="plain" onClick={() => onBring(piece.index)}>
            Place
          </Button>
        </p>
      ))}
    </section>
  );
}

function WaitingTag({ piece }: { readonly piece: WaitingPiece }) {
  const { setNodeRef, listeners, transform, isDragging } = useDraggable({
    id: `waiting-${piece.index}-${piece.reason}`,
    data: { waiting: piece.index },
  });
  return (
    <button
      ref={setNodeRef}
      type="button"
      aria-label={`${piece.name}, not placed`}
      className={`relative shrink-0 cursor-grab touch-none ${isDragging ? "z-30" : ""}`}
      style={{ transform: transform ? `translate(${transform.x}px, ${transform.y}px)` : undefined }}
      {...listeners}
    >
      <Tag mark={piece.name} />
      {isDragging ? (
        <span
          aria-hidden
          className="absolute top-0 left-0 border border-ink bg-brass-pale/80"
          style={{ width: piece.width, height: piece.height }}
        />
      ) : null}
    </button>
  );
}
