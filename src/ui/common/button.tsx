/** Buttons: one action colour; plain ones are words in enamel; icons always come with a word or a name. */
import type { ButtonHTMLAttributes, ReactNode } from "react";

type Look = "primary" | "plain" | "outline" | "dark" | "danger";

const LOOKS: Readonly<Record<Look, string>> = {
  primary: "bg-enamel text-leaf hover:bg-enamel-deep px-3 h-8 font-semibold",
  outline: "border border-seam bg-leaf text-ink hover:border-enamel px-3 h-8",
  plain: "text-enamel hover:underline px-1 h-7 min-w-6 font-semibold",
  dark: "text-ground hover:bg-white/10 px-2 h-8",
  danger: "text-oxide hover:underline px-1 h-7 font-semibold",
};

export type ButtonProps = Omit<ButtonHTMLAttributes<HTMLButtonElement>, "className"> & {
  readonly look?: Look;
  readonly icon?: ReactNode;
};

export function buttonClass(look: Look): string {
  return `inline-flex items-center justify-center gap-1.5 rounded-sm whitespace-nowrap disabled:opacity-45 disabled:no-underline ${LOOKS[look]}`;
}

export function Button({ look = "outline", icon, children, type = "button", ...rest }: ButtonProps) {
  return (
    <button type={type} className={buttonClass(look)} {...rest}>
      {icon}
      {children}
    </button>
  );
}
