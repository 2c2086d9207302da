"use client";
/** A field of a form that is submitted as a whole (react-hook-form): what does not fit is told under it when it is sent. */
import type { HTMLInputTypeAttribute } from "react";
import { type FieldPath, type FieldValues, get, type UseFormReturn } from "react-hook-form";
import { Field } from "./field";

export type FormFieldProps<T extends FieldValues> = {
  readonly form: UseFormReturn<T>;
  readonly name: FieldPath<T>;
  readonly label: string;
  readonly placeholder?: string;
  readonly type?: HTMLInputTypeAttribute;
  readonly autoComplete?: string;
};

export function FormField<T extends FieldValues>({
  form,
  name,
  label,
  placeholder,
  type = "text",
  autoComplete = "off",
}: FormFieldProps<T>) {
  const fault = get(form.formState.errors, name) as
    | { readonly type?: string; readonly message?: string }
    | undefined;
  return (
    <Field
      id={name}
      label={label}
      type={type}
      autoComplete={autoComplete}
      placeholder={placeholder}
      fault={fault ? faultWords(label, fault) : null}
      {...form.register(name)}
    />
  );
}

/** What a schema said of a field, for whoever fills it in. */
function faultWords(
  label: string,
  { type, message }: { readonly type?: string; readonly message?: string },
): string {
  if (type === "min_length" || type === "required") return `${label} is missing.`;
  if (type === "max_length") return `${label} is too long.`;
  return message ?? "It does not fit.";
}
