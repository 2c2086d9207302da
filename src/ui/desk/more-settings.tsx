"use client";
/** Settings that most never touch, folded under one line; they stay open from one selection to the next. */
import { ChevronDown, ChevronRight } from "lucide-react";
import { type ReactNode, useState } from "react";

/** As it was left last, in this page. */
let wasOpen = false;

export function MoreSettings({ children }: { readonly children: ReactNode }) {
  const [open, setOpen] = useState(wasOpen);
  const toggle = () => {
    wasOpen = !open;
    setOpen(!open);
  };
  const Icon = open ? ChevronDown : ChevronRight;
  return (
    <>
      <button
        type="button"
        aria-expanded={open}
        onClick={toggle}
        className="col-span-full flex items-center gap-1 pt-1 text-left text-[13px] text-enamel hover:underline"
      >
        <Icon size={14} aria-hidden /> More
      </button>
      {open ? children : null}
    </>
  );
}
