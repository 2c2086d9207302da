"use client";
/** A form that is sent as a whole: its values, and the sentence why they were refused. */
import type { FormEvent } from "react";
import { type DefaultValues, type FieldValues, type UseFormReturn, useForm } from "react-hook-form";

export type SentForm<T extends FieldValues> = {
  readonly form: UseFormReturn<T>;
  readonly onSubmit: (event: FormEvent) => void;
  /** Why what was sent last was refused; null: it was not. */
  readonly fault: string | null;
};

/** `send` carries it out and gives the sentence why not, or null. Fields that are not there any more are not sent. */
export function useSentForm<T extends FieldValues>(
  values: DefaultValues<T>,
  send: (values: T) => string | null | Promise<string | null>,
): SentForm<T> {
  const form = useForm<T>({ defaultValues: values, shouldUnregister: true });
  const onSubmit = (event: FormEvent) => {
    // It may stand in the page of another form: only this one is sent.
    event.stopPropagation();
    void form.handleSubmit(async (sent) => {
      const refused = await send(sent);
      if (refused !== null) form.setError("root", { type: "refused", message: refused });
    })(event);
  };
  return { form, onSubmit, fault: form.formState.errors.root?.message ?? null };
}
