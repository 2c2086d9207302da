"use client";
/** What the stage that is still to come can do today, said plainly. */
import { Out, PaneHead } from "./pane-head";

export function LaterStage() {
  return (
    <>
      <PaneHead title="Floor">
        <Out />
      </PaneHead>
      <div className="max-w-[52ch] space-y-3 overflow-auto p-5 text-[15px]">
        <p className="font-semibold">What works here today</p>
        <p>Print the shop papers for the saw. Every page shows its revision.</p>
        <p className="border-brass border-l-2 pl-3 text-ink-soft">
          Releases, cutting steps with tick-off and labels are not built yet.
        </p>
      </div>
    </>
  );
}
