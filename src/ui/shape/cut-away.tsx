"use client";
/** Cutting the picture open: a plane across the width, depth or height, by sliding or typing. */
import { SquareSplitHorizontal } from "lucide-react";
import { Popover } from "radix-ui";
import { type ReactNode, useState } from "react";
import { lengthWith } from "@/core/job";
import { sentence } from "@/core/kernel";
import { MM_PER_UNIT, roundTo } from "@/core/measure";
import { Chooser } from "../common/chooser";
import { Hint } from "../common/hint";
import { TextField } from "../common/text-field";
import { useDeskState } from "../desk/desk-context";
import type { CutAway, ModelScene } from "./model-scene";
import { toolClass } from "./tool-button";

const AXES = [
  { value: "", label: "off" },
  { value: "0", label: "across the width" },
  { value: "1", label: "across the depth" },
  { value: "2", label: "across the height" },
];

export function CutAwayForm({ scene }: { readonly scene: () => ModelScene | null }): ReactNode {
  const sizes = useDeskState((state) => state.results.sizes);
  const unit = useDeskState((state) => state.job.info.job.unit);
  const [cut, setCut] = useState<CutAway | null>(null);
  const show = (next: CutAway | null) => {
    setCut(next);
    scene()?.cutAway(next);
  };
  const [low, high] = cut ? (scene()?.extent(cut.axis) ?? [0, 0]) : [0, 0];
  const choose = (text: string) => {
    if (text === "") return show(null);
    const axis = Number(text) as CutAway["axis"];
    const [from, to] = scene()?.extent(axis) ?? [0, 0];
    // The half nearer to the eye goes: the left, the front, the upper one.
    show({ axis, at: (from + to) / 2, keep: axis === 2 ? "below" : "above" });
  };
  const type = (text: string): string | null => {
    const at = lengthWith(sizes, text);
    if (!at.ok) return sentence(at.problem);
    if (cut) show({ ...cut, at: at.value });
    return null;
  };
  return (
    <Popover.Root>
      <Hint text="Clip view">
        <Popover.Trigger
          className={toolClass(cut !== null)}
          aria-label="Clip view"
          aria-pressed={cut !== null}
        >
          <SquareSplitHorizontal size={17} aria-hidden />
        </Popover.Trigger>
      </Hint>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={6}
          aria-label="Clip view"
          className="z-40 w-[270px] space-y-2 rounded-sm border border-seam bg-leaf p-3 shadow-lg"
        >
          <Chooser label="Cut" value={cut ? String(cut.axis) : ""} choices={AXES} onChoose={choose} />
          {cut ? (
            <>
              <label className="block text-[12px] text-ink-soft">
                Position
                <input
                  type="range"
                  min={low}
                  max={high}
                  step={(high - low) / 200 || 1}
                  value={cut.at}
                  className="w-full accent-enamel"
                  onChange={(event) => show({ ...cut, at: Number(event.target.value) })}
                />
              </label>
              <TextField
                label="Position, typed"
                value={String(roundTo(cut.at / MM_PER_UNIT[unit], 1))}
                onCommit={type}
              />
              <Chooser
                label="Keep"
                value={cut.keep}
                choices={[
                  { value: "below", label: "lower side" },
                  { value: "above", label: "higher side" },
                ]}
                onChoose={(keep) => show({ ...cut, keep: keep })}
              />
            </>
          ) : null}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
