"use client";
/** A field of a form that is submitted as a whole (react-hook-form): what does not fit is told under it when it is sent. */
import { type FieldPath, type FieldValues, get, type UseFormReturn } from "react-hook-form";
import { Field, type FieldProps } from "./field";

type Look = Pick<
  FieldProps,
  "type" | "autoComplete" | "placeholder" | "autoFocus" | "unit" | "labelled" | "align" | "onKeyDown"
>;

export type FormFieldProps<T extends FieldValues> = Look & {
  readonly form: UseFormReturn<T>;
  readonly name: FieldPath<T>;
  readonly label: string;
  /** Nothing is sent without it. */
  readonly required?: boolean;
};

export function FormField<T extends FieldValues>({
  form,
  name,
  label,
  type = "text",
  autoComplete = "off",
  required = false,
  ...look
}: FormFieldProps<T>) {
  const fault = get(form.formState.errors, name) as
    | { readonly type?: string; readonly message?: string }
    | undefined;
  return (
    <Field
      label={label}
      type={type}
      autoComplete={autoComplete}
      fault={fault ? faultWords(label, fault) : null}
      {...look}
      {...form.register(name, { required })}
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
