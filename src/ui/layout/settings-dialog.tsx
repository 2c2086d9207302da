"use client";
/** How this job lays out one section or board, where it does so otherwise than the stockroom says. */
import { SlidersHorizontal } from "lucide-react";
import { Popover } from "radix-ui";
import type { LayoutSetting } from "@/core/job";
import { sentence } from "@/core/kernel";
import {
  barSettings,
  cutWay,
  type LayoutKind,
  type LayoutTask,
  shapeSettings,
  sheetSettings,
} from "@/core/layout";
import { parseLength, sayLength, writeLength } from "@/core/measure";
import { type CutWay, TURN_STEPS, type TurnStep } from "@/core/stockroom";
import { buttonClass } from "../common/button";
import { Chooser } from "../common/chooser";
import { TextField } from "../common/text-field";
import { useLayoutGround } from "./layout-ground";

type LengthName = "kerf" | "trimStart" | "trimEnd" | "grip" | "trim" | "allowance" | "keep" | "gap";

const LENGTHS: Readonly<Record<LayoutKind, readonly (readonly [LengthName, string])[]>> = {
  bars: [
    ["kerf", "Kerf"],
    ["trimStart", "Trim at the start"],
    ["trimEnd", "Trim at the end"],
    ["grip", "Held by the saw at the end"],
    ["keep", "Smallest offcut to keep"],
  ],
  sheets: [
    ["kerf", "Kerf"],
    ["trim", "Trim all round"],
    ["allowance", "Allowance on blanks"],
    ["keep", "Smallest offcut to keep"],
  ],
  shapes: [
    ["gap", "Gap between pieces"],
    ["trim", "Margin all round"],
    ["keep", "Smallest offcut to keep"],
  ],
};

const CUT_WORDS = {
  through: "Straight through the sheet",
  outline: "Along the outline of each piece",
} as const satisfies Readonly<Record<CutWay, string>>;
const RACK_WORDS = { none: "Not used", saving: "Where it saves buying", first: "Used up first" } as const;
const STAGE_WORDS = { 0: "Any number", 2: "2", 3: "3", 4: "4" } as const;

export function LayoutSettings({ task }: { readonly task: LayoutTask }) {
  const ground = useLayoutGround();
  const { entry } = task;
  if (!entry || !ground.settings) return null;
  const own = ground.settings.of(entry.id);
  const says = own !== undefined;
  return (
    <Popover.Root>
      <Popover.Trigger className={buttonClass("plain")}>
        <SlidersHorizontal size={15} aria-hidden /> Settings{says ? " (own)" : ""}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={4}
          className="z-50 w-[340px] rounded-sm border border-seam bg-leaf p-3 shadow-lg"
          aria-label={`Settings of ${task.name}`}
        >
          <p className="mb-2 text-[13px] text-ink-soft">
            For this job alone. An empty field follows the stockroom, whose value stands in it pale. A least
            rest of 0 keeps none.
          </p>
          <Fields task={task} own={own} set={(change) => ground.settings?.set(entry.id, change) ?? null} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function Fields({
  task,
  own,
  set,
}: {
  readonly task: LayoutTask;
  readonly own: LayoutSetting | undefined;
  readonly set: (change: Partial<Omit<LayoutSetting, "id">>) => string | null;
}) {
  const ground = useLayoutGround();
  const { unit } = ground.style;
  /** As exactly as it is set: the job's rounding would hide a kerf of 1/64. */
  const inUnit = (mm: number) =>
    writeLength(mm, {
      unit,
      format:
        ground.style.format.kind === "fraction"
          ? { kind: "fraction", denominator: 64 }
          : { kind: "decimal", places: 4, trailingZeros: false },
    }).text;
  const usual: Partial<Record<string, unknown>> = usualOf(task);
  const commit = (name: LengthName, text: string): string | null => {
    if (text.trim() === "") return set({ [name]: null });
    const read = parseLength(text, unit);
    if (!read.ok) return sentence(read.problem);
    if (read.value < 0) return "It must not be negative.";
    if (name !== "keep" && read.value > 1000) return `That is more than ${sayLength(1000, ground.style)}.`;
    return set({ [name]: read.value });
  };
  const choose = (name: "rack" | "share" | "stages" | "cut" | "turn", text: string) => {
    if (name === "cut") return set({ cut: text === "" ? null : (text as CutWay) });
    if (name === "turn") return set({ turn: text === "" ? null : (Number(text) as TurnStep) });
    if (name === "share") return set({ share: text === "" ? null : text === "yes" });
    if (name === "stages") return set({ stages: text === "" ? null : (Number(text) as 0 | 2 | 3 | 4) });
    return set({ rack: text === "" ? null : (text as "none" | "saving" | "first") });
  };
  const follows = (words: string) => ({ value: "", label: `As the stockroom: ${words}` });
  const usualRack = String(usual["rack"] ?? "none") as keyof typeof RACK_WORDS;
  return (
    <div className="grid grid-cols-2 gap-x-3 gap-y-2">
      {task.kind === "bars" ? null : (
        <div className="col-span-2">
          <Chooser
            label="Cut"
            value={own?.cut ?? ""}
            choices={[
              follows(CUT_WORDS[cutWay(task.entry, undefined)].toLowerCase()),
              ...Object.entries(CUT_WORDS).map(([value, label]) => ({ value, label })),
            ]}
            onChoose={(text) => choose("cut", text)}
          />
        </div>
      )}
      {LENGTHS[task.kind].map(([name, label]) => (
        <TextField
          key={name}
          label={`${label}, ${unit}`}
          value={own?.[name] === null || own?.[name] === undefined ? "" : inUnit(own[name])}
          placeholder={inUnit(Number(usual[name] ?? 0))}
          align="right"
          onCommit={(text) => commit(name, text)}
        />
      ))}
      <div className="col-span-2">
        <Chooser
          label="Rack pieces"
          value={own?.rack ?? ""}
          choices={[
            follows(RACK_WORDS[usualRack].toLowerCase()),
            ...Object.entries(RACK_WORDS).map(([value, label]) => ({ value, label })),
          ]}
          onChoose={(text) => choose("rack", text)}
        />
      </div>
      {task.kind === "bars" ? (
        <div className="col-span-2">
          <Chooser
            label="Mitred neighbours"
            value={own?.share === null || own?.share === undefined ? "" : own.share ? "yes" : "no"}
            choices={[
              follows(usual["share"] ? "share a cut" : "each cut by itself"),
              { value: "yes", label: "Share a cut" },
              { value: "no", label: "Each cut by itself" },
            ]}
            onChoose={(text) => choose("share", text)}
          />
        </div>
      ) : null}
      {task.kind === "shapes" ? (
        <div className="col-span-2">
          <Chooser
            label="Pieces are turned in steps of"
            value={own?.turn === null || own?.turn === undefined ? "" : String(own.turn)}
            choices={[
              follows(turnWords(Number(usual["turn"])).toLowerCase()),
              ...TURN_STEPS.map((step) => ({ value: String(step), label: turnWords(step) })),
            ]}
            onChoose={(text) => choose("turn", text)}
          />
        </div>
      ) : null}
      {task.kind === "sheets" ? (
        <div className="col-span-2">
          <Chooser
            label="Stages of cuts"
            value={own?.stages === null || own?.stages === undefined ? "" : String(own.stages)}
            choices={[
              follows(usual["stages"] === null ? "any number" : String(usual["stages"])),
              ...Object.entries(STAGE_WORDS).map(([value, label]) => ({ value, label })),
            ]}
            onChoose={(text) => choose("stages", text)}
          />
        </div>
      ) : null}
    </div>
  );
}

const turnWords = (step: number) => (step === 0 ? "Not turned at all" : `${step}°`);

/** What holds where the job says nothing. */
function usualOf(task: LayoutTask) {
  switch (task.kind) {
    case "bars":
      return barSettings(task.entry, undefined);
    case "sheets":
      return sheetSettings(task.entry, undefined);
    default:
      return shapeSettings(task.entry, undefined);
  }
}
