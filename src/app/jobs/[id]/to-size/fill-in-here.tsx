"use client";
/** The fill-in form with the layout worker that it needs. */
import type { DeskProps } from "@/ui/desk/desk";
import { FillInPage } from "@/ui/fill-in/fill-in-page";
import { LayoutTime } from "@/ui/layout/layout-time";
import { startLayoutWorker } from "../start-worker";

type Props = Pick<DeskProps, "opened" | "stockroom"> & { readonly layoutTime: number };

export function FillInHere({ layoutTime, ...props }: Props) {
  return (
    <LayoutTime value={layoutTime}>
      <FillInPage {...props} startWorker={startLayoutWorker} />
    </LayoutTime>
  );
}
