"use client";
/**
 * One field to type into: its label, the input, its unit and what is wrong with it. Fields that commit one by one
 * (`TextField`), those of a form that is submitted as a whole (`FormField`) and those that a form reads by name or
 * follows with each key all are this one.
 */
import { type ComponentPropsWithRef, useId } from "react";
import { Fault } from "./notice";

export type FieldProps = Omit<ComponentPropsWithRef<"input">, "className" | "size" | "children"> & {
  readonly label: string;
  /** Where the label stands: over the input, before it, or only read out. */
  readonly labelled?: "above" | "beside" | "hidden";
  readonly unit?: string;
  /** What is wrong with what stands in it; null: nothing. */
  readonly fault?: string | null;
  /** The element that shows the fault elsewhere, where it moves nothing. */
  readonly faultElsewhere?: string | undefined;
  readonly align?: "left" | "right";
};

const BOX =
  "h-7 w-full rounded-sm border bg-leaf px-1.5 font-table text-[14px] disabled:bg-ground disabled:text-ink-soft";

export function Field({
  label,
  labelled = "above",
  unit,
  fault = null,
  faultElsewhere,
  align = "left",
  id: given,
  ...input
}: FieldProps) {
  const made = useId();
  const id = given ?? made;
  const faultId = faultElsewhere ?? `${id}-fault`;
  const beside = labelled === "beside";
  return (
    <span className={beside ? "grid grid-cols-[1fr_120px] items-center gap-2" : "block min-w-0"}>
      <label
        htmlFor={id}
        className={
          labelled === "hidden" ? "sr-only" : `block text-ink-soft ${beside ? "text-[13px]" : "text-[12px]"}`
        }
      >
        {unit ? `${label}, ${unit}` : label}
      </label>
      <input
        id={id}
        aria-invalid={fault !== null}
        aria-describedby={fault === null ? undefined : faultId}
        className={`${BOX} ${fault === null ? "border-seam" : "border-oxide"} ${align === "right" ? "text-right" : ""}`}
        {...input}
      />
      {fault === null || faultElsewhere ? null : (
        <Fault id={faultId} className={`pt-0.5 ${beside ? "col-span-2" : ""}`}>
          {fault}
        </Fault>
      )}
    </span>
  );
}
