"use client";
/** A piece on a drawing as a button over it: it can be dragged, and keys act on it while it has the focus. */
import { useDraggable } from "@dnd-kit/core";

export type PieceButtonProps = {
  readonly id: string;
  /** What is dragged, for whoever it is let go on. */
  readonly data: object;
  readonly box: {
    readonly left: number;
    readonly top: number;
    readonly width: number;
    readonly height: number;
  };
  /** Its corners in the box, in pixels; left out: the whole box. */
  readonly outline?: readonly (readonly [number, number])[];
  readonly name: string;
  readonly held: boolean;
  readonly onHold: () => void;
};

export function PieceButton({ id, data, box, outline, name, held, onHold }: PieceButtonProps) {
  const { setNodeRef, listeners, transform, isDragging } = useDraggable({ id, data: { ...data } });
  return (
    <button
      ref={setNodeRef}
      type="button"
      aria-label={name}
      aria-pressed={held}
      className={`absolute cursor-grab touch-none ${held ? (outline ? "bg-brass/40" : "outline-3 -outline-offset-3 outline-brass") : ""} ${isDragging ? "z-30 border border-ink bg-brass-pale/80" : ""}`}
      style={{
        ...box,
        clipPath: outline && `polygon(${outline.map(([x, y]) => `${x}px ${y}px`).join(", ")})`,
        transform: transform ? `translate(${transform.x}px, ${transform.y}px)` : undefined,
      }}
      onClick={onHold}
      onFocus={onHold}
      {...listeners}
    />
  );
}
