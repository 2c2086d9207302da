"use client";
/** A field of a form that is submitted as a whole (react-hook-form): what does not fit is told under it when it is sent. */
import {
  Controller,
  type FieldPath,
  type FieldPathValue,
  type FieldValues,
  get,
  type UseFormReturn,
} from "react-hook-form";
import { Chooser, type ChooserProps } from "./chooser";
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
  /** What stands in it at first, where the form does not say. */
  readonly start?: FieldPathValue<T, FieldPath<T>>;
};

export function FormField<T extends FieldValues>({
  form,
  name,
  label,
  type = "text",
  autoComplete = "off",
  required = false,
  start,
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
      {...form.register(name, start === undefined ? { required } : { required, value: start })}
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

/** A chooser of such a form. */
export function FormChooser<T extends FieldValues>({
  form,
  name,
  ...look
}: Pick<FormFieldProps<T>, "form" | "name"> & Pick<ChooserProps<string>, "label" | "choices">) {
  return (
    <Controller
      control={form.control}
      name={name}
      render={({ field }) => <Chooser {...look} value={field.value} onChoose={field.onChange} />}
    />
  );
}
