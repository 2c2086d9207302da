/** The six stages in working order. */
export const STAGES = ["shape", "tally", "layout", "buy", "drawings", "floor"] as const;
export type Stage = (typeof STAGES)[number];

export const STAGE_NAMES: Readonly<Record<Stage, string>> = {
  shape: "Shape",
  tally: "Tally",
  layout: "Layout",
  buy: "Buy",
  drawings: "Drawings",
  floor: "Floor",
};

export const isStage = (text: string | null): text is Stage => STAGES.some((stage) => stage === text);
