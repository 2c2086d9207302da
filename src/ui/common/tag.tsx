/** A mark in its tag: a small plate with one notched corner, the same everywhere on screen. */
export function Tag({ mark, selected = false }: { readonly mark: string; readonly selected?: boolean }) {
  const width = Math.max(26, 14 + mark.length * 8);
  return (
    <svg
      width={width}
      height={20}
      viewBox={`0 0 ${width} 20`}
      className="inline-block shrink-0 align-middle"
      role="img"
      aria-label={`Mark ${mark}`}
    >
      <path
        d={`M6.5 0.5H${width - 0.5}V19.5H0.5V6.5Z`}
        className={selected ? "fill-brass stroke-brass-ink" : "fill-leaf stroke-ink"}
        strokeWidth={1}
      />
      <text
        x={width / 2 + 1}
        y={14.5}
        textAnchor="middle"
        className={`font-slab text-[13px] font-semibold ${selected ? "fill-leaf" : "fill-ink"}`}
      >
        {mark}
      </text>
    </svg>
  );
}
