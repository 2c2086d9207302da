"use client";
import { Popover } from "radix-ui";
import { type ReactNode, useState } from "react";
import { FormProvider, useFormContext } from "react-hook-form";
import { Button, buttonClass } from "../common/button";
import { FormField } from "../common/form-field";
/** The small parts that actions on a selection are made of: a form that opens over its word, and a button that may be refused. */
import { Fault } from "../common/notice";
import { useSentForm } from "../common/use-sent-form";

/** What stands in a field of a form, by its name, trimmed. */
export type Asked = (name: string) => string;

type FormProps = {
  readonly word: string;
  readonly icon: ReactNode;
  readonly button: string;
  readonly children: ReactNode;
  /** Carries it out; the sentence why not, or null. */
  readonly onDo: (asked: Asked) => string | null;
};

/** A small form that opens over its word. */
export function ActionForm({ word, icon, ...asked }: FormProps) {
  const [open, setOpen] = useState(false);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className={buttonClass("plain")}>
        {icon} {word}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side="top"
          align="start"
          sideOffset={6}
          aria-label={word}
          className="z-40 w-[300px] rounded-sm border border-seam bg-leaf p-3 shadow-lg"
        >
          <OpenForm {...asked} onDone={() => setOpen(false)} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

type OpenProps = Pick<FormProps, "button" | "children" | "onDo"> & { readonly onDone: () => void };

function OpenForm({ button, children, onDo, onDone }: OpenProps) {
  const { form, onSubmit, fault } = useSentForm<Record<string, string>>({}, (values) => {
    const refused = onDo((name) => (values[name] ?? "").trim());
    if (refused === null) onDone();
    return refused;
  });
  return (
    <FormProvider {...form}>
      <form className="space-y-2" noValidate onSubmit={onSubmit}>
        {children}
        {fault ? <Fault>{fault}</Fault> : null}
        <Button look="primary" type="submit">
          {button}
        </Button>
      </form>
    </FormProvider>
  );
}

type AskedProps = {
  readonly name: string;
  readonly label: string;
  /** What stands in it at first. */
  readonly start?: string;
  readonly required?: boolean;
};

/** A field of such a form. */
export function AskedField({ start = "", ...asked }: AskedProps) {
  return <FormField form={useFormContext<Record<string, string>>()} start={start} {...asked} />;
}

type DoProps = {
  readonly icon: ReactNode;
  readonly look?: "plain" | "danger";
  readonly children: ReactNode;
  /** Carries it out; the sentence why not, or null. */
  readonly onDo: () => string | null;
};

/** A button whose refusal stands beside it. */
export function DoButton({ icon, look = "plain", children, onDo }: DoProps) {
  const [fault, setFault] = useState<string | null>(null);
  return (
    <>
      <Button look={look} icon={icon} onClick={() => setFault(onDo())}>
        {children}
      </Button>
      {fault ? <Fault line>{fault}</Fault> : null}
    </>
  );
}
