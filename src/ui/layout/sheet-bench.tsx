"use client";
/** The bench of sheets: parted by straight cuts, or cut along outlines. */
import { useMemo } from "react";
import { rowFinder, type SavedNesting, type SavedSheets } from "@/core/layout";
import { shapePiecesTable, sheetOrderTable } from "@/core/lists";
import { CuttingOrder } from "./cutting-order";
import { useLayoutGround } from "./layout-ground";
import { shapeHand } from "./nesting-hand";
import { OneNestingSheet, OneSheet } from "./one-sheet";
import { PlaneBench } from "./plane-bench";
import { sheetHand } from "./sheet-hand";

type Props<K> = { readonly saved: K; readonly width: number; readonly height: number };

export function SheetBench({ saved, ...size }: Props<SavedSheets>) {
  const ground = useLayoutGround();
  const hand = useMemo(() => sheetHand(saved), [saved]);
  const rowOf = rowFinder(ground.tasks, saved.taskId);
  return (
    <PlaneBench
      saved={saved}
      hand={hand}
      {...size}
      drawSheet={(props) => (
        <>
          <OneSheet saved={saved} {...props} />
          <CuttingOrder table={sheetOrderTable(saved, props.index, ground.style, rowOf)} />
        </>
      )}
    />
  );
}

export function NestingSheetBench({ saved, ...size }: Props<SavedNesting>) {
  const ground = useLayoutGround();
  const hand = useMemo(() => shapeHand(saved), [saved]);
  return (
    <PlaneBench
      saved={saved}
      hand={hand}
      {...size}
      drawSheet={(props) => (
        <>
          <OneNestingSheet saved={saved} {...props} />
          <CuttingOrder table={shapePiecesTable(saved, props.index, ground.style)} />
        </>
      )}
    />
  );
}
