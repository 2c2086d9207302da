"use client";
import { threadOf } from "@/ui/common/thread";
/** The fill-in form with the layout worker that it needs. */
import type { DeskProps } from "@/ui/desk/desk";
import type { SetThread } from "@/ui/drawings/use-set-drawing";
import { FillInPage } from "@/ui/fill-in/fill-in-page";
import { LayoutTime } from "@/ui/layout/layout-time";
import { drawingWorkers, startLayoutWorker } from "../start-worker";

const setThread: SetThread = threadOf(drawingWorkers.set);

type Props = Pick<DeskProps, "opened" | "stockroom"> & { readonly layoutTime: number };

export function FillInHere({ layoutTime, ...props }: Props) {
  return (
    <LayoutTime value={layoutTime}>
      <FillInPage {...props} startWorker={startLayoutWorker} setThread={setThread} />
    </LayoutTime>
  );
}
