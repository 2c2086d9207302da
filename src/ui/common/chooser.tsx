"use client";
/** A list to choose one thing from, with its label; a long one with a field to find things in it. */
import { Command } from "cmdk";
import { Check, ChevronDown } from "lucide-react";
import { Popover, Select } from "radix-ui";
import { useId, useState } from "react";

export type Choice<T extends string = string> = { readonly value: T; readonly label: string };

export type ChooserProps<T extends string> = {
  readonly label: string;
  /** Empty: nothing is chosen; null: what it stands for differ, so that not even "none" is. */
  readonly value: T | "" | null;
  /** As a function: a long list, found when somebody opens it. */
  readonly choices: readonly Choice<T>[] | (() => readonly Choice<T>[]);
  /** What is chosen is called, where the choices are found later. */
  readonly chosen?: string | undefined;
  readonly onChoose: (value: T) => void;
  readonly hideLabel?: boolean;
  readonly dark?: boolean;
  readonly placeholder?: string;
};

/** More choices than these are looked through by typing. */
const SHORT = 10;

const triggerClass = (dark: boolean) =>
  `flex h-7 w-full min-w-0 items-center justify-between gap-2 rounded-sm border px-1.5 text-left font-table text-[14px] ${dark ? "border-white/30 text-ground bg-transparent" : "border-seam bg-leaf text-ink"}`;
const ITEM =
  "flex cursor-pointer items-center gap-2 rounded-sm py-1 pr-3 pl-1 font-table text-[14px] text-ink";

export function Chooser<T extends string>(props: ChooserProps<T>) {
  const { label, hideLabel = false, choices } = props;
  const isLong = typeof choices === "function" || choices.length > SHORT;
  return (
    <span className="block min-w-0">
      {hideLabel ? null : <span className="block text-[12px] text-ink-soft">{label}</span>}
      {isLong ? <LongChooser {...props} /> : <ShortChooser {...props} choices={choices} />}
    </span>
  );
}

// Radix keeps the empty text for "nothing chosen", so our own "none" travels under a name.
const NONE = "\u0000none";

function ShortChooser<T extends string>({
  label,
  value,
  choices,
  onChoose,
  dark = false,
  placeholder = "choose",
}: ChooserProps<T> & { readonly choices: readonly Choice<T>[] }) {
  // Nothing chosen, and nothing that is called nothing: the placeholder stands there.
  const unset = value === null || (value === "" && !choices.some((choice) => choice.value === ""));
  // A desk has dozens of these: what there is to choose is made when somebody comes near, so that a letter typed finds it as well.
  const [near, setNear] = useState(false);
  const comesNear = () => setNear(true);
  return (
    <Select.Root
      value={unset ? "" : value === "" ? NONE : value}
      onValueChange={(next) => {
        const chosen = choices.find((choice) => choice.value === (next === NONE ? "" : next));
        if (chosen) onChoose(chosen.value);
      }}
    >
      <Select.Trigger
        aria-label={label}
        className={triggerClass(dark)}
        onPointerEnter={comesNear}
        onFocus={comesNear}
      >
        <span className="truncate">
          <Select.Value placeholder={placeholder}>
            {choices.find((choice) => choice.value === value)?.label}
          </Select.Value>
        </span>
        <Select.Icon>
          <ChevronDown size={14} aria-hidden />
        </Select.Icon>
      </Select.Trigger>
      {near ? (
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
                  className={`${ITEM} data-[highlighted]:bg-brass-pale data-[highlighted]:outline-none`}
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
      ) : null}
    </Select.Root>
  );
}

/** Most that are drawn at once; who sees so many types a letter more. */
const MOST_SHOWN = 200;

/** A long list: a field over it narrows it down to what is typed. */
function LongChooser<T extends string>({
  label,
  value,
  choices,
  chosen,
  onChoose,
  dark = false,
  placeholder = "choose",
}: ChooserProps<T>) {
  const [open, setOpen] = useState(false);
  const [typed, setTyped] = useState("");
  const list = useId();
  const all = typeof choices !== "function" ? choices : open ? choices() : [];
  const own = all.find((choice) => choice.value === value);
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  const isFound = ({ label: text }: Choice) => words.every((word) => text.toLowerCase().includes(word));
  const found = open ? all.filter(isFound) : [];
  const change = (next: boolean) => {
    setOpen(next);
    setTyped("");
  };
  return (
    <Popover.Root open={open} onOpenChange={change}>
      <Popover.Trigger asChild>
        <button
          type="button"
          role="combobox"
          aria-label={label}
          aria-expanded={open}
          aria-controls={list}
          className={triggerClass(dark)}
        >
          <span className="truncate">{own?.label ?? chosen ?? placeholder}</span>
          <ChevronDown size={14} aria-hidden className="shrink-0" />
        </button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={2}
          className="z-50 w-max min-w-[var(--radix-popover-trigger-width)] max-w-[420px] rounded-sm border border-seam bg-leaf shadow-lg"
        >
          <Command shouldFilter={false} label={label} {...(own ? { defaultValue: keyOf(own) } : {})}>
            <Command.Input
              value={typed}
              onValueChange={setTyped}
              placeholder="Find"
              aria-label="Find in this list"
              className="h-8 w-full border-seam border-b px-2 font-table text-[14px] outline-none"
            />
            <Command.List id={list} className="max-h-72 overflow-auto p-1">
              <Command.Empty className="px-2 py-2 text-[13px] text-ink-soft">
                Nothing here is called that.
              </Command.Empty>
              {found.slice(0, MOST_SHOWN).map((choice) => (
                <Command.Item
                  key={choice.value}
                  value={keyOf(choice)}
                  onSelect={() => {
                    change(false);
                    if (choice.value !== value) onChoose(choice.value);
                  }}
                  className={`${ITEM} data-[selected=true]:bg-brass-pale`}
                >
                  <span className="w-4">
                    {choice.value === value ? <Check size={14} aria-hidden /> : null}
                  </span>
                  {choice.label}
                </Command.Item>
              ))}
            </Command.List>
          </Command>
          {found.length > MOST_SHOWN ? (
            <p className="border-seam border-t px-2 py-1 text-[12px] text-ink-soft">
              {MOST_SHOWN} of {found.length} shown. Type to find the others.
            </p>
          ) : null}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** Two choices may be called the same. */
const keyOf = ({ value, label }: Choice) => `${label} ${value}`;
