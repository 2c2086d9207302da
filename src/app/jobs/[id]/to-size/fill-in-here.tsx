"use client";
/** The fill-in form with the layout worker that it needs. */
import type { DeskProps } from "@/ui/desk/desk";
import { FillInPage } from "@/ui/fill-in/fill-in-page";
import { startLayoutWorker } from "../start-worker";

export function FillInHere(props: Pick<DeskProps, "opened" | "stockroom">) {
  return <FillInPage {...props} startWorker={startLayoutWorker} />;
}
