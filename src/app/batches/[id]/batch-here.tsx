"use client";
/** The batch with the layout worker, which its folder does not know. */
import { BatchDesk, type BatchDeskProps } from "@/ui/batch/batch-desk";
import { LayoutTime } from "@/ui/layout/layout-time";
import { startLayoutWorker } from "../../jobs/[id]/start-worker";

type Props = Omit<BatchDeskProps, "startWorker"> & { readonly layoutTime: number };

export function BatchHere({ layoutTime, ...props }: Props) {
  return (
    <LayoutTime value={layoutTime}>
      <BatchDesk {...props} startWorker={startLayoutWorker} />
    </LayoutTime>
  );
}
