"use client";
import { Popover } from "radix-ui";
import { type ReactNode, useState } from "react";
import { Button, buttonClass } from "../common/button";
/** The small parts that actions on a selection are made of: a form that opens over its word, and a button that may be refused. */
import { Fault } from "../common/notice";

type FormProps = {
  readonly word: string;
  readonly icon: ReactNode;
  readonly button: string;
  readonly children: ReactNode;
  /** Carries it out; the sentence why not, or null. */
  readonly onDo: (form: FormData) => string | null;
};

/** A small form that opens over its word. */
export function ActionForm({ word, icon, button, children, onDo }: FormProps) {
  const [open, setOpen] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  return (
    <Popover.Root
      open={open}
      onOpenChange={(next) => {
        setOpen(next);
        setFault(null);
      }}
    >
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
          <form
            className="space-y-2"
            onSubmit={(event) => {
              event.preventDefault();
              const refused = onDo(new FormData(event.currentTarget));
              setFault(refused);
              if (refused === null) setOpen(false);
            }}
          >
            {children}
            {fault ? <Fault>{fault}</Fault> : null}
            <Button look="primary" type="submit">
              {button}
            </Button>
          </form>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** A field of a form, trimmed. */
export const textIn = (form: FormData, name: string) => String(form.get(name) ?? "").trim();

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
