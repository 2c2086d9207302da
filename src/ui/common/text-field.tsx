"use client";
/**
 * A field that is carried out with Enter or by leaving it and put back with Escape. A value that is
 * refused stays in the field with the sentence under it, so that nothing typed is lost.
 */
import { useState } from "react";
import { Field } from "./field";

export type TextFieldProps = {
  readonly label: string;
  readonly value: string;
  /** Carries the value out; gives the sentence why not, or null. */
  readonly onCommit: (value: string) => string | null;
  readonly hideLabel?: boolean;
  readonly disabled?: boolean;
  readonly align?: "left" | "right";
  readonly invalid?: string | null;
  readonly placeholder?: string;
  /** Takes the focus when it appears: for fields that follow one another while something is typed. */
  readonly autoFocus?: boolean;
  /** Takes the sentence to show it elsewhere, under this id, where it moves nothing. */
  readonly fault?: { readonly id: string; readonly show: (sentence: string | null) => void };
};

export function TextField({
  label,
  value,
  onCommit,
  hideLabel = false,
  disabled = false,
  align = "left",
  invalid = null,
  placeholder,
  autoFocus = false,
  fault: elsewhere,
}: TextFieldProps) {
  const [draft, setDraft] = useState<string | null>(null);
  const [fault, keepFault] = useState<string | null>(null);
  const setFault = (sentence: string | null) => {
    keepFault(sentence);
    elsewhere?.show(sentence);
  };
  const commit = () => {
    if (draft === null || draft === value) {
      setDraft(null);
      setFault(null);
      return;
    }
    const refused = onCommit(draft);
    setFault(refused);
    if (refused === null) setDraft(null);
  };
  return (
    <Field
      label={label}
      labelled={hideLabel ? "hidden" : "above"}
      value={draft ?? value}
      disabled={disabled}
      align={align}
      placeholder={placeholder}
      fault={fault ?? invalid}
      faultElsewhere={elsewhere?.id}
      autoFocus={autoFocus}
      onChange={(event) => setDraft(event.target.value)}
      onBlur={commit}
      onKeyDown={(event) => {
        if (event.key === "Enter") commit();
        if (event.key === "Escape") {
          // What was typed is given up first; only then what lies around the field.
          if (draft !== null && draft !== value) event.preventDefault();
          setDraft(null);
          setFault(null);
        }
      }}
    />
  );
}
