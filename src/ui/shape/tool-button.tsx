"use client";
/** A tool of the picture: an icon with its word as a tooltip, pressed while it is on. */
import type { ReactNode } from "react";
import { Hint } from "../common/hint";

export function toolClass(pressed: boolean): string {
  return `flex h-7 w-8 shrink-0 items-center justify-center rounded-sm ${pressed ? "bg-brass-pale text-enamel" : "text-enamel hover:bg-ground"}`;
}

type ToolProps = {
  readonly word: string;
  readonly onClick: () => void;
  readonly children: ReactNode;
  readonly pressed?: boolean;
};

export function ToolButton({ word, onClick, children, pressed }: ToolProps) {
  return (
    <Hint text={word}>
      <button
        type="button"
        aria-label={word}
        {...(pressed === undefined ? {} : { "aria-pressed": pressed })}
        onClick={onClick}
        className={toolClass(pressed ?? false)}
      >
        {children}
      </button>
    </Hint>
  );
}
