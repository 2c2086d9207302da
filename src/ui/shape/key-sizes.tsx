"use client";
import { ClipboardList, Lock, LockOpen, Plus } from "lucide-react";
import Link from "next/link";
import { useState } from "react";
import { type KeySize, newKeySize, readChoices } from "@/core/job";
import { sentence } from "@/core/kernel";
import { styleOf } from "@/core/lists";
import { formatLength, MM_PER_UNIT, roundTo } from "@/core/measure";
import { Button, buttonClass } from "../common/button";
import { Chooser } from "../common/chooser";
/** The key sizes of the job: value or formula, what it comes to, its note; new ones at the foot. */
import { newId } from "../common/fresh-id";
import { Hint } from "../common/hint";
import { TextField } from "../common/text-field";
import { useDesk, useDeskState } from "../desk/desk-context";
import { UNIT_NAMES } from "../jobs/unit-names";
import { Section } from "./ledger-section";

export function KeySizes() {
  const keySizes = useDeskState((state) => state.job.keySizes);
  const unit = useDeskState((state) => state.job.info.job.unit);
  const id = useDeskState((state) => state.id);
  const sorted = Object.values(keySizes).sort((a, b) => a.position - b.position);
  return (
    <Section title="Key sizes" facts={`numbers without unit: ${UNIT_NAMES[unit]}`}>
      <ul>
        {sorted.map((size) => (
          <KeySizeRow key={size.id} size={size} />
        ))}
      </ul>
      <NewKeySize count={sorted.length} />
      {sorted.some((size) => size.asked) ? (
        <p className="px-3 pb-1">
          <Link href={`/jobs/${id}/to-size`} className={buttonClass("plain")}>
            <ClipboardList size={15} aria-hidden /> Fill-in form, asks for{" "}
            {sorted.filter((size) => size.asked).length}
          </Link>
        </p>
      ) : null}
    </Section>
  );
}

function KeySizeRow({ size }: { readonly size: KeySize }) {
  const desk = useDesk();
  const variantId = useDeskState((state) => state.variant);
  const variant = useDeskState((state) => (variantId === null ? undefined : state.job.variants[variantId]));
  const { sizes } = useDeskState((state) => state.results);
  const info = useDeskState((state) => state.job.info.job);
  const chosen = useDeskState((state) => state.selected.has(size.id));
  const text = variant?.formulas[size.name] ?? size.formula;
  const value = sizes.scope.get(size.name);
  const problem = sizes.problems.get(size.name);
  const computed =
    typeof value !== "number"
      ? typeof value === "boolean"
        ? value
          ? "yes"
          : "no"
        : (value ?? "")
      : size.measure === "length"
        ? formatLength(value * MM_PER_UNIT[info.unit], styleOf(info), 0.1)
        : String(roundTo(value, 3));
  const [refused, setRefused] = useState<string | null>(null);
  const fault = refused ?? (problem ? sentence(problem) : null);
  return (
    <li
      className={`grid grid-cols-[104px_136px_64px_minmax(0,1fr)_24px] items-start gap-2 border-seam border-b px-3.5 py-1 ${chosen ? "bg-brass-pale" : ""}`}
    >
      <button
        type="button"
        aria-pressed={chosen}
        title="Settings below"
        className="truncate pt-1 text-left font-semibold font-table hover:underline"
        onClick={() => desk.select([size.id])}
      >
        {size.name}
      </button>
      <SizeValue
        size={size}
        text={text}
        fault={fault}
        onFault={setRefused}
        onCommit={(formula) => desk.submit({ kind: "setKeySize", id: size.id, formula, variant: variantId })}
      />
      {fault ? (
        // In the place of the note, so that no row moves away from under the pointer.
        <span
          id={`${size.id}-fault`}
          role="alert"
          className="col-span-2 text-[12px] text-oxide leading-[14px]"
        >
          {fault}
        </span>
      ) : (
        <>
          <span className="pt-1 text-right font-table" title="Computed value">
            {computed === text ? "" : `= ${computed}`}
          </span>
          <span className="pt-1 text-[13px] text-ink-soft leading-tight" title={rangeWords(size)}>
            {size.note || rangeWords(size)}
          </span>
        </>
      )}
      <Hint text={size.locked ? "Unlock" : "Lock"}>
        <button
          type="button"
          aria-label={`${size.locked ? "Unlock" : "Lock"} ${size.name}`}
          className="pt-1.5 text-ink-soft hover:text-ink"
          onClick={() => desk.submit({ kind: "changeKeySize", id: size.id, set: { locked: !size.locked } })}
        >
          {size.locked ? <Lock size={15} aria-hidden /> : <LockOpen size={15} aria-hidden />}
        </button>
      </Hint>
    </li>
  );
}

type SizeValueProps = {
  readonly size: KeySize;
  readonly text: string;
  readonly fault: string | null;
  readonly onFault: (sentence: string | null) => void;
  readonly onCommit: (formula: string) => string | null;
};

/** Yes or no and choices are picked; a formula in their place is typed like any other. */
function SizeValue({ size, text, fault, onFault, onCommit }: SizeValueProps) {
  const picks = size.measure === "yesNo" ? ["yes", "no"] : size.measure === "choice" ? size.choices : [];
  if (picks.includes(text) && !size.locked) {
    return (
      <Chooser
        label={size.name}
        hideLabel
        value={text}
        choices={picks.map((value) => ({ value, label: value }))}
        onChoose={(value) => onFault(onCommit(value))}
      />
    );
  }
  return (
    <TextField
      label={size.name}
      hideLabel
      value={text}
      disabled={size.locked}
      invalid={fault}
      fault={{ id: `${size.id}-fault`, show: onFault }}
      onCommit={onCommit}
    />
  );
}

function rangeWords({ least, greatest }: KeySize): string {
  if (least && greatest) return `from ${least} to ${greatest}`;
  return least ? `at least ${least}` : greatest ? `at most ${greatest}` : "";
}

const MEASURES = [
  { value: "length", label: "length" },
  { value: "number", label: "number" },
  { value: "angle", label: "angle" },
  { value: "yesNo", label: "yes or no" },
  { value: "choice", label: "choice" },
] as const;

function NewKeySize({ count }: { readonly count: number }) {
  const desk = useDesk();
  const [open, setOpen] = useState(false);
  const [name, setName] = useState("");
  const [measure, setMeasure] = useState<KeySize["measure"]>("length");
  const [choices, setChoices] = useState<string[]>([]);
  if (!open) {
    return (
      <p className="px-3 py-1">
        <Button look="plain" icon={<Plus size={15} aria-hidden />} onClick={() => setOpen(true)}>
          Add key size
        </Button>
      </p>
    );
  }
  const rename = (text: string) => {
    setName(text.trim());
    return null;
  };
  const add = (formula: string): string | null => {
    if (!/^[A-Za-z_][A-Za-z0-9_]{0,39}$/.test(name)) return sentence({ kind: "badName", name });
    const refused = desk.submit({
      kind: "addKeySize",
      keySize: newKeySize(newId("size"), name, formula, {
        position: count,
        measure,
        choices: measure === "choice" ? choices : [],
      }),
    });
    if (refused === null) {
      setOpen(false);
      setName("");
    }
    return refused;
  };
  return (
    <div className="grid grid-cols-[104px_110px_1fr_auto] items-start gap-2 px-3.5 py-1">
      <TextField label="Name" value={name} onCommit={rename} />
      <Chooser label="Kind" value={measure} choices={MEASURES} onChoose={setMeasure} />
      <span className="space-y-1">
        {measure === "choice" ? (
          <TextField
            label="Choices, separated by commas"
            value={choices.join(", ")}
            onCommit={(text) => {
              setChoices(readChoices(text));
              return null;
            }}
          />
        ) : null}
        <TextField
          label={measure === "yesNo" ? "yes, no or formula" : "Value or formula"}
          value=""
          onCommit={add}
        />
      </span>
      <span className="pt-5">
        <Button look="plain" onClick={() => setOpen(false)}>
          Cancel
        </Button>
      </span>
    </div>
  );
}
