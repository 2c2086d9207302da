"use client";
/** What the stages that are still to come can do today, said plainly. */
import { Out, PaneHead } from "./pane-head";
import type { Stage } from "./stages";

const WORDS: Readonly<
  Record<
    "drawings" | "floor",
    { readonly title: string; readonly today: readonly string[]; readonly later: string }
  >
> = {
  drawings: {
    title: "Drawings",
    today: [
      "The shop papers come as one PDF, A4 or letter: cut list with silhouettes, bar and sheet diagrams to a stated scale, buying list.",
      "The 3D view on the right shows the job. Select a piece to see its row, its ends and its checks below.",
    ],
    later: "Pages with views, balloons, dimensions and full-size end templates are not built yet.",
  },
  floor: {
    title: "Floor",
    today: ["Print the shop papers for the saw. Every page shows its revision."],
    later: "Releases, cutting steps with tick-off and labels are not built yet.",
  },
};

export function LaterStage({ stage }: { readonly stage: Stage }) {
  const words = stage === "floor" ? WORDS.floor : WORDS.drawings;
  return (
    <>
      <PaneHead title={words.title}>
        <Out />
      </PaneHead>
      <div className="max-w-[52ch] space-y-3 overflow-auto p-5 text-[15px]">
        <p className="font-semibold">What works here today</p>
        {words.today.map((text) => (
          <p key={text}>{text}</p>
        ))}
        <p className="border-brass border-l-2 pl-3 text-ink-soft">{words.later}</p>
      </div>
    </>
  );
}
