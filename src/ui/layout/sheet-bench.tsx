"use client";
/** The bench of sheets: parted by straight cuts, or cut along outlines. */
import { useMemo } from "react";
import { type KeptShapes, type KeptSheets, rowFinder } from "@/core/layout";
import { shapePiecesTable, sheetOrderTable } from "@/core/lists";
import { CuttingOrder } from "./cutting-order";
import { useLayoutGround } from "./layout-ground";
import { OneShapeSheet, OneSheet } from "./one-sheet";
import { PlaneBench } from "./plane-bench";
import { shapeHand } from "./shape-hand";
import { sheetHand } from "./sheet-hand";

type Props<K> = { readonly kept: K; readonly width: number; readonly height: number };

export function SheetBench({ kept, ...size }: Props<KeptSheets>) {
  const ground = useLayoutGround();
  const hand = useMemo(() => sheetHand(kept), [kept]);
  const rowOf = rowFinder(ground.tasks, kept.taskId);
  return (
    <PlaneBench
      kept={kept}
      hand={hand}
      {...size}
      drawSheet={(props) => (
        <>
          <OneSheet kept={kept} {...props} />
          <CuttingOrder table={sheetOrderTable(kept, props.index, ground.style, rowOf)} />
        </>
      )}
    />
  );
}

export function ShapeSheetBench({ kept, ...size }: Props<KeptShapes>) {
  const ground = useLayoutGround();
  const hand = useMemo(() => shapeHand(kept), [kept]);
  return (
    <PlaneBench
      kept={kept}
      hand={hand}
      {...size}
      drawSheet={(props) => (
        <>
          <OneShapeSheet kept={kept} {...props} />
          <CuttingOrder table={shapePiecesTable(kept, props.index, ground.style)} />
        </>
      )}
    />
  );
}
