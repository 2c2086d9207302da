"use client";
/** A dialog over the page (Radix): what it is about, what is in it, and the buttons at its foot. */
import { Dialog as Radix } from "radix-ui";
import type { ReactNode } from "react";
import { buttonClass } from "./button";

const WIDTHS = { narrow: "w-[460px]", middle: "w-[540px]", wide: "w-[1000px]" } as const;

export type DialogProps = {
  readonly open: boolean;
  readonly onOpen: (open: boolean) => void;
  readonly title: string;
  /** In a sentence or two, for those who open it the first time; null: its content says it. */
  readonly about: string | null;
  readonly width?: keyof typeof WIDTHS;
  /** What opens it; null: something elsewhere does. */
  readonly trigger: ReactNode | null;
  /** Beside the title. */
  readonly head?: ReactNode;
  /** The word on the button at its foot that closes it; null: the content has buttons of its own. */
  readonly close: "Cancel" | "Close" | null;
  /** Beside that button. */
  readonly foot?: ReactNode;
  readonly children: ReactNode;
};

export function Dialog({
  open,
  onOpen,
  title,
  about,
  width = "narrow",
  trigger,
  head,
  close,
  foot,
  children,
}: DialogProps) {
  return (
    <Radix.Root open={open} onOpenChange={onOpen}>
      {trigger === null ? null : <Radix.Trigger asChild>{trigger}</Radix.Trigger>}
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-ink/40" />
        <Radix.Content
          {...(about === null ? { "aria-describedby": undefined } : {})}
          className={`fixed top-[6vh] left-1/2 z-50 flex max-h-[88vh] ${WIDTHS[width]} max-w-[96vw] -translate-x-1/2 flex-col overflow-auto rounded-sm border border-seam bg-leaf p-5 shadow-xl`}
        >
          <div className="flex items-center gap-4">
            <Radix.Title className="font-semibold font-slab text-[19px]">{title}</Radix.Title>
            {head}
          </div>
          {about === null ? null : (
            <Radix.Description className="mt-1 text-[13px] text-ink-soft">{about}</Radix.Description>
          )}
          {children}
          {close === null ? null : (
            <div className="mt-4 flex shrink-0 justify-end gap-2">
              <DialogClose word={close} />
              {foot}
            </div>
          )}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}

/** The button that closes the dialog that it stands in. */
export function DialogClose({ word = "Cancel" }: { readonly word?: "Cancel" | "Close" }) {
  return <Radix.Close className={buttonClass("outline")}>{word}</Radix.Close>;
}
