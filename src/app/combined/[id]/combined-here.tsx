"use client";
/** The combined layout with the layout worker, which its folder does not know. */
import { CombinedDesk, type CombinedDeskProps } from "@/ui/combined/combined-desk";
import { LayoutTime } from "@/ui/layout/layout-time";
import { startLayoutWorker } from "../../jobs/[id]/start-worker";

type Props = Omit<CombinedDeskProps, "startWorker"> & { readonly layoutTime: number };

export function CombinedHere({ layoutTime, ...props }: Props) {
  return (
    <LayoutTime value={layoutTime}>
      <CombinedDesk {...props} startWorker={startLayoutWorker} />
    </LayoutTime>
  );
}
