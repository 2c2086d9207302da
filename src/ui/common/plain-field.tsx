"use client";
/** A field of a form whose text is taken when the form is carried out, not field by field. */
export function PlainField({
  label,
  value,
  placeholder,
  onChange,
}: {
  readonly label: string;
  readonly value: string;
  readonly placeholder?: string;
  readonly onChange: (value: string) => void;
}) {
  return (
    <label className="block min-w-0">
      <span className="block text-[12px] text-ink-soft">{label}</span>
      <input
        value={value}
        placeholder={placeholder}
        onChange={(event) => onChange(event.target.value)}
        className="h-7 w-full rounded-sm border border-seam bg-leaf px-1.5 font-table text-[14px]"
      />
    </label>
  );
}
