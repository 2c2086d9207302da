"use client";
/** One thing that the fill-in form asks: a length or number to type, a yes or no, or a choice. */
import { useId } from "react";
import type { KeySize } from "@/core/job";
import { type Problem, sentence } from "@/core/kernel";
import type { LengthUnit } from "@/core/measure";

type Props = {
  readonly size: KeySize;
  readonly unit: LengthUnit;
  readonly value: string;
  readonly problem: Problem | undefined;
  readonly onChange: (text: string) => void;
};

const spoken = (name: string) => {
  const words = name.replaceAll("_", " ");
  return words.charAt(0).toUpperCase() + words.slice(1);
};

function rangeWords({ least, greatest, measure }: KeySize, unit: LengthUnit): string {
  const mark = measure === "length" ? ` ${unit}` : measure === "angle" ? "°" : "";
  if (least !== null && greatest !== null) return `from ${least} to ${greatest}${mark}`;
  if (least !== null) return `at least ${least}${mark}`;
  return greatest === null ? mark.trim() : `at most ${greatest}${mark}`;
}

export function Question({ size, unit, value, problem, onChange }: Props) {
  const id = useId();
  const picks = size.measure === "yesNo" ? ["yes", "no"] : size.measure === "choice" ? size.choices : null;
  const about = [size.note, picks ? "" : rangeWords(size, unit)].filter(Boolean).join(", ");
  return (
    <div className="grid grid-cols-[150px_1fr] items-baseline gap-x-5">
      <span id={`${id}-name`} className="font-semibold font-slab text-[17px]">
        {spoken(size.name)}
      </span>
      <div>
        {picks ? (
          <fieldset aria-labelledby={`${id}-name`} className="flex flex-wrap gap-2">
            {picks.map((pick) => (
              <label
                key={pick}
                className={`flex h-9 cursor-pointer items-center gap-2 rounded-sm border px-3 ${value === pick ? "border-enamel bg-leaf font-semibold" : "border-seam bg-leaf"}`}
              >
                <input
                  type="radio"
                  name={id}
                  checked={value === pick}
                  onChange={() => onChange(pick)}
                  className="accent-enamel"
                />
                {pick}
              </label>
            ))}
          </fieldset>
        ) : (
          <input
            aria-labelledby={`${id}-name`}
            aria-describedby={`${id}-about`}
            aria-invalid={problem !== undefined}
            value={value}
            onChange={(event) => onChange(event.target.value)}
            className={`h-9 w-[180px] rounded-sm border bg-leaf px-2 font-table text-[17px] ${problem ? "border-oxide" : "border-seam"}`}
          />
        )}
        <p id={`${id}-about`} className={`pt-0.5 text-[13px] ${problem ? "text-oxide" : "text-ink-soft"}`}>
          {problem ? sentence(problem) : about}
        </p>
      </div>
    </div>
  );
}
