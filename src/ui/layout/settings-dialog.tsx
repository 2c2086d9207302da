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
  nestingSettings,
  sheetSettings,
} from "@/core/layout";
import { parseLength, sayLength, writeLength } from "@/core/measure";
import { type CutWay, type RackUse, TURN_STEPS, type TurnStep } from "@/core/stockroom";
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
    ["grip", "Clamp length at the end"],
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

/** Something to choose: what the job says, what holds where it says nothing, and what may be said, with its words. */
type Choice = {
  readonly label: string;
  readonly of: (own: LayoutSetting) => string | null;
  readonly defaultsOf: (task: LayoutTask) => string;
  readonly values: Readonly<Record<string, string>>;
  readonly set: (text: string | null) => Partial<Omit<LayoutSetting, "id">>;
};

const CUT_WORDS = {
  through: "Straight through the sheet",
  outline: "Nesting (along outlines)",
} as const satisfies Readonly<Record<CutWay, string>>;
const RACK_WORDS = { none: "Not used", saving: "If they save stock", first: "Use first" } as const;
const STAGE_WORDS = { 0: "Any number", 2: "2", 3: "3", 4: "4" } as const;
const SHARE_WORDS = { yes: "Share a cut", no: "Each cut by itself" } as const;
const turnWords = (step: number) => (step === 0 ? "No rotation" : `${step}°`);
const orNull = (value: number | null) => (value === null ? null : String(value));

const CUT: Choice = {
  label: "Cut",
  of: ({ cut }) => cut,
  defaultsOf: ({ kind, entry }) => (kind === "bars" ? "" : CUT_WORDS[cutWay(entry, undefined)]),
  values: CUT_WORDS,
  set: (cut) => ({ cut: cut as CutWay | null }),
};
const RACK: Choice = {
  label: "Offcuts from rack",
  of: ({ rack }) => rack,
  defaultsOf: (task) => RACK_WORDS[defaultsOf(task).rack],
  values: RACK_WORDS,
  set: (rack) => ({ rack: rack as RackUse | null }),
};
const SHARE: Choice = {
  label: "Mitred neighbours",
  of: ({ share }) => (share === null ? null : share ? "yes" : "no"),
  defaultsOf: ({ kind, entry }) =>
    SHARE_WORDS[kind === "bars" && barSettings(entry, undefined).share ? "yes" : "no"],
  values: SHARE_WORDS,
  set: (text) => ({ share: text === null ? null : text === "yes" }),
};
const TURN: Choice = {
  label: "Rotation step",
  of: ({ turn }) => orNull(turn),
  defaultsOf: ({ kind, entry }) => (kind === "bars" ? "" : turnWords(nestingSettings(entry, undefined).turn)),
  values: Object.fromEntries(TURN_STEPS.map((step) => [step, turnWords(step)])),
  set: (text) => ({ turn: text === null ? null : (Number(text) as TurnStep) }),
};
const STAGES: Choice = {
  label: "Stages of cuts",
  of: ({ stages }) => orNull(stages),
  defaultsOf: ({ kind, entry }) =>
    kind === "bars" ? "" : (orNull(sheetSettings(entry, undefined).stages) ?? "any number"),
  values: STAGE_WORDS,
  set: (text) => ({ stages: text === null ? null : (Number(text) as keyof typeof STAGE_WORDS) }),
};
const CHOICES: Readonly<Record<LayoutKind, readonly Choice[]>> = {
  bars: [RACK, SHARE],
  sheets: [CUT, RACK, STAGES],
  shapes: [CUT, RACK, TURN],
};

export function LayoutSettings({ task }: { readonly task: LayoutTask }) {
  const ground = useLayoutGround();
  const { entry } = task;
  if (!entry || !ground.settings) return null;
  const own = ground.settings.of(entry.id);
  const says = own !== undefined;
  return (
    <Popover.Root>
      <Popover.Trigger className={buttonClass("plain")}>
        <SlidersHorizontal size={15} aria-hidden /> Settings{says ? " (custom)" : ""}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={4}
          className="z-50 w-[340px] rounded-sm border border-seam bg-leaf p-3 shadow-lg"
          aria-label={`Settings of ${task.name}`}
        >
          <p className="mb-2 text-[13px] text-ink-soft">
            For this job only. Empty fields use the stockroom value (grey). Smallest offcut 0: keep no
            offcuts.
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
  const usual: Partial<Record<string, unknown>> = defaultsOf(task);
  const commit = (name: LengthName, text: string): string | null => {
    if (text.trim() === "") return set({ [name]: null });
    const read = parseLength(text, unit);
    if (!read.ok) return sentence(read.problem);
    if (read.value < 0) return "It must not be negative.";
    if (name !== "keep" && read.value > 1000) return `That is more than ${sayLength(1000, ground.style)}.`;
    return set({ [name]: read.value });
  };
  return (
    <div className="grid grid-cols-2 gap-x-3 gap-y-2">
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
      {CHOICES[task.kind].map(({ label, of, defaultsOf: follows, values, set: changed }) => (
        <div key={label} className="col-span-2">
          <Chooser
            label={label}
            value={own ? (of(own) ?? "") : ""}
            choices={[
              { value: "", label: `As the stockroom: ${follows(task).toLowerCase()}` },
              ...Object.entries(values).map(([value, words]) => ({ value, label: words })),
            ]}
            onChoose={(text) => set(changed(text === "" ? null : text))}
          />
        </div>
      ))}
    </div>
  );
}

/** What holds where the job says nothing. */
function defaultsOf(task: LayoutTask) {
  switch (task.kind) {
    case "bars":
      return barSettings(task.entry, undefined);
    case "sheets":
      return sheetSettings(task.entry, undefined);
    case "shapes":
      return nestingSettings(task.entry, undefined);
    default:
      return task satisfies never;
  }
}
