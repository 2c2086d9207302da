/** What has to be read: why something was refused, or what is odd. Refusals are read out when they appear. */
import type { ReactNode } from "react";

/** Under a field or beside a button: `line` keeps to one line, and says the whole when it is pointed at. */
export function Fault({
  id,
  line = false,
  className = "",
  children,
}: {
  readonly id?: string;
  readonly line?: boolean;
  readonly className?: string;
  readonly children: ReactNode;
}) {
  return (
    <span
      id={id}
      role="alert"
      title={line && typeof children === "string" ? children : undefined}
      className={`block text-[13px] text-oxide leading-tight ${line ? "truncate" : ""} ${className}`}
    >
      {children}
    </span>
  );
}

const TONES = {
  error: "border-oxide bg-oxide-pale text-oxide",
  warning: "border-amber bg-amber-pale text-amber",
  plain: "border-moss bg-ground text-moss-deep",
} as const;

/** A block of its own, over what it is about. */
export function Notice({
  tone,
  className = "",
  children,
}: {
  readonly tone: keyof typeof TONES;
  readonly className?: string;
  readonly children: ReactNode;
}) {
  return (
    <div
      role={tone === "error" ? "alert" : "status"}
      className={`border-l-2 px-3.5 py-1.5 text-[13px] ${TONES[tone]} ${className}`}
    >
      {children}
    </div>
  );
}
