"use client";
/** A list to choose one thing from (Radix Select), with its label. */
import { Check, ChevronDown } from "lucide-react";
import { Select } from "radix-ui";

export type Choice<T extends string = string> = { readonly value: T; readonly label: string };

export type ChooserProps<T extends string> = {
  readonly label: string;
  /** Empty: nothing is chosen. */
  readonly value: T | "";
  readonly choices: readonly Choice<T>[];
  readonly onChoose: (value: T) => void;
  readonly hideLabel?: boolean;
  readonly dark?: boolean;
  readonly placeholder?: string;
};

// Radix keeps the empty text for "nothing chosen", so our own "none" travels under a name.
const NONE = "\u0000none";

export function Chooser<T extends string>({
  label,
  value,
  choices,
  onChoose,
  hideLabel = false,
  dark = false,
  placeholder,
}: ChooserProps<T>) {
  // Nothing chosen, and nothing that is called nothing: the placeholder stands there.
  const unset = value === "" && !choices.some((choice) => choice.value === "");
  const look = dark ? "border-white/30 text-ground bg-transparent" : "border-seam bg-leaf text-ink";
  return (
    <span className="block min-w-0">
      {hideLabel ? null : <span className="block text-[12px] text-ink-soft">{label}</span>}
      <Select.Root
        value={unset ? "" : value === "" ? NONE : value}
        onValueChange={(next) => {
          const chosen = choices.find((choice) => choice.value === (next === NONE ? "" : next));
          if (chosen) onChoose(chosen.value);
        }}
      >
        <Select.Trigger
          aria-label={label}
          className={`flex h-7 w-full min-w-0 items-center justify-between gap-2 rounded-sm border px-1.5 font-table text-[14px] ${look}`}
        >
          <span className="truncate">
            <Select.Value placeholder={placeholder ?? "choose"} />
          </span>
          <Select.Icon>
            <ChevronDown size={14} aria-hidden />
          </Select.Icon>
        </Select.Trigger>
        <Select.Portal>
          <Select.Content
            position="popper"
            sideOffset={2}
            className="z-50 max-h-80 min-w-[var(--radix-select-trigger-width)] overflow-hidden rounded-sm border border-seam bg-leaf shadow-lg"
          >
            <Select.Viewport className="p-1">
              {choices.map((choice) => (
                <Select.Item
                  key={choice.value}
                  value={choice.value === "" ? NONE : choice.value}
                  className="flex cursor-pointer items-center gap-2 rounded-sm py-1 pr-3 pl-1 font-table text-[14px] text-ink data-[highlighted]:bg-brass-pale data-[highlighted]:outline-none"
                >
                  <span className="w-4">
                    <Select.ItemIndicator>
                      <Check size={14} aria-hidden />
                    </Select.ItemIndicator>
                  </span>
                  <Select.ItemText>{choice.label}</Select.ItemText>
                </Select.Item>
              ))}
            </Select.Viewport>
          </Select.Content>
        </Select.Portal>
      </Select.Root>
    </span>
  );
}
