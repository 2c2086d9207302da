"use client";
/** A word for an icon, shown on hover and focus (Radix Tooltip). */
import { Tooltip } from "radix-ui";
import type { ReactNode } from "react";

export function Hint({ text, children }: { readonly text: string; readonly children: ReactNode }) {
  return (
    <Tooltip.Provider delayDuration={300}>
      <Tooltip.Root>
        <Tooltip.Trigger asChild>{children}</Tooltip.Trigger>
        <Tooltip.Portal>
          <Tooltip.Content
            sideOffset={4}
            className="z-50 rounded-sm bg-ink px-2 py-1 text-[12px] text-ground"
          >
            {text}
          </Tooltip.Content>
        </Tooltip.Portal>
      </Tooltip.Root>
    </Tooltip.Provider>
  );
}
