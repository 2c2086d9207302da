"use client";
/** A box to tick, with its word. */
export function Tick({
  label,
  on,
  onToggle,
}: {
  readonly label: string;
  readonly on: boolean;
  readonly onToggle: (on: boolean) => void;
}) {
  return (
    <label className="flex h-7 items-center gap-1 text-[13px]">
      <input
        type="checkbox"
        checked={on}
        onChange={(event) => onToggle(event.target.checked)}
        className="accent-enamel"
      />
      {label}
    </label>
  );
}
