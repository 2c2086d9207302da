"use client";
/** A drawing before it enters the job: as the panels that its outlines are, or as the skeleton that its lines are. */
import { useState } from "react";
import { type DrawnPieces, isOfPanels, type Skeleton } from "@/core/imports";
import { counted } from "@/core/kernel";
import { Chooser } from "../common/chooser";
import { PiecesForm } from "./pieces-form";
import { SkeletonForm } from "./skeleton-form";

export type ReadDrawing = {
  readonly name: string;
  /** null: there is no straight line in it. */
  readonly skeleton: Skeleton | null;
  /** null: there is no closed outline in it. */
  readonly panels: DrawnPieces | null;
};

export function DrawingForm({
  drawing: { skeleton, panels },
  onDone,
}: {
  readonly drawing: ReadDrawing;
  readonly onDone: () => void;
}) {
  // Where lines lead nowhere they are those of a frame.
  const [as, setAs] = useState<"panels" | "skeleton">(
    panels && (isOfPanels(panels) || !skeleton) ? "panels" : "skeleton",
  );
  return (
    <>
      {skeleton && panels ? (
        <div className="w-[260px]">
          <Chooser
            label="Enters as"
            value={as}
            choices={[
              { value: "panels" as const, label: `panels: ${counted(panels.pieces.length, "outline")}` },
              { value: "skeleton" as const, label: `a skeleton: ${counted(skeleton.lines.length, "line")}` },
            ]}
            onChoose={setAs}
          />
        </div>
      ) : null}
      {as === "panels" && panels ? (
        <PiecesForm drawn={panels} onDone={onDone} />
      ) : skeleton ? (
        <SkeletonForm skeleton={skeleton} onDone={onDone} />
      ) : null}
    </>
  );
}
