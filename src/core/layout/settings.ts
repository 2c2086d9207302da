/** How a section or board is laid out in a job: what the stockroom says, with what the job says otherwise. */
import type { LayoutSetting } from "../job";
import type { BoardEntry, CutWay, RackUse, SectionEntry, TurnStep } from "../stockroom";

export type BarSettings = {
  readonly kerf: number;
  readonly trimStart: number;
  readonly trimEnd: number;
  readonly grip: number;
  readonly keep: number;
  readonly share: boolean;
  readonly rack: RackUse;
};

export type SheetSettings = {
  readonly kerf: number;
  readonly trim: number;
  readonly stages: number | null;
  readonly allowance: number;
  readonly keep: number;
  readonly rack: RackUse;
};

export type NestingSettings = {
  readonly gap: number;
  readonly trim: number;
  readonly turn: TurnStep;
  readonly keep: number;
  readonly rack: RackUse;
};

/** How a board is cut in a job; one that is not in the stockroom goes through the saw. */
export const cutWay = (entry: BoardEntry | null, own: LayoutSetting | undefined): CutWay =>
  own?.cut ?? entry?.cut ?? "through";

export function barSettings(entry: SectionEntry | null, own: LayoutSetting | undefined): BarSettings {
  return {
    kerf: own?.kerf ?? entry?.kerf ?? 0,
    trimStart: own?.trimStart ?? entry?.trimStart ?? 0,
    trimEnd: own?.trimEnd ?? entry?.trimEnd ?? 0,
    grip: own?.grip ?? entry?.grip ?? 0,
    keep: own?.keep ?? entry?.keep ?? 0,
    share: own?.share ?? entry?.share ?? false,
    rack: own?.rack ?? entry?.rack ?? "none",
  };
}

export function sheetSettings(entry: BoardEntry | null, own: LayoutSetting | undefined): SheetSettings {
  const stages = own?.stages ?? entry?.stages ?? null;
  return {
    kerf: own?.kerf ?? entry?.kerf ?? 0,
    trim: own?.trim ?? entry?.trim ?? 0,
    stages: stages === 0 ? null : stages,
    allowance: own?.allowance ?? entry?.allowance ?? 0,
    keep: own?.keep ?? entry?.keep ?? 0,
    rack: own?.rack ?? entry?.rack ?? "none",
  };
}

export function nestingSettings(entry: BoardEntry | null, own: LayoutSetting | undefined): NestingSettings {
  return {
    gap: own?.gap ?? entry?.gap ?? 0,
    trim: own?.trim ?? entry?.trim ?? 0,
    turn: own?.turn ?? entry?.turn ?? 90,
    keep: own?.keep ?? entry?.keep ?? 0,
    rack: own?.rack ?? entry?.rack ?? "none",
  };
}
