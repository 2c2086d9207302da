"use client";
/** One piece of a STEP file: how often it stands there, what it was found to be, and as what it enters. */
import {
  cutLength,
  type FoundPart,
  type FoundReading,
  plainSectionName,
  readingFor,
  type TakeWay,
} from "@/core/imports";
import { counted } from "@/core/kernel";
import { type LengthStyle, sayLength } from "@/core/measure";
import { Chooser } from "../common/chooser";

const KIND_NAMES = { member: "member", panel: "panel", other: "bought part" } as const;

export type Shown = { readonly part: FoundPart; readonly name: string; readonly times: number };

export function PieceRow({
  one: { part, name, times },
  way,
  style,
  onWay,
  onClose,
  onLeaveOpen,
}: {
  readonly one: Shown;
  readonly way: TakeWay;
  readonly style: LengthStyle;
  readonly onWay: (way: TakeWay) => void;
  readonly onClose: () => void;
  readonly onLeaveOpen: () => void;
}) {
  const read = readingFor(part, way);
  const words = read ? readingWords(read, part, style) : "";
  const [other] = part.otherwise;
  const choices = [
    { value: "taken" as const, label: `as a ${KIND_NAMES[part.taken.kind]}` },
    ...(other && other.kind !== part.taken.kind
      ? [{ value: "otherwise" as const, label: `as a ${KIND_NAMES[other.kind]}` }]
      : []),
    ...(part.taken.kind === "other" ? [] : [{ value: "bought" as const, label: "as a bought part" }]),
    { value: "leave" as const, label: "leave out" },
  ];
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_40px_minmax(0,2.6fr)_126px] items-center gap-2 border-seam border-b px-2 py-0.5 text-[13px]">
      <span className="truncate" title={name}>
        {name}
      </span>
      <span className="text-right font-table">{times} ×</span>
      <span className="flex min-w-0 items-center gap-2">
        <span className="truncate" title={words}>
          {words}
        </span>
        {part.joinedWithin !== null ? (
          <SmallButton label={`Leave ${name} open`} onClick={onLeaveOpen}>
            Leave it open
          </SmallButton>
        ) : part.faces.length > 0 ? (
          <SmallButton label={`Close ${name}`} onClick={onClose}>
            Close it
          </SmallButton>
        ) : null}
      </span>
      <Chooser label={`How ${name} enters`} hideLabel value={way} choices={choices} onChoose={onWay} />
    </div>
  );
}

function SmallButton({
  label,
  onClick,
  children,
}: {
  readonly label: string;
  readonly onClick: () => void;
  readonly children: string;
}) {
  return (
    <button type="button" aria-label={label} className="shrink-0 text-enamel underline" onClick={onClick}>
      {children}
    </button>
  );
}

/** What a piece was found to be, in a few words. */
function readingWords(read: FoundReading, part: FoundPart, style: LengthStyle): string {
  switch (read.kind) {
    case "member": {
      const ends = [read.start, read.end].map((end) =>
        end.kind === "plane"
          ? end.slope[0] === 0 && end.slope[1] === 0
            ? "square"
            : "angled"
          : end.kind === "cope"
            ? "coped"
            : end.kind === "twoPlanes"
              ? "pointed"
              : end.kind,
      );
      const holes = read.holes.length > 0 ? `, ${counted(read.holes.length, "hole")}` : "";
      const [first, second] = ends;
      const words = first === second ? `${first} ends` : `${first} and ${second} ends`;
      const notches = read.notches.length > 0 ? `, ${counted(read.notches.length, "notch", "notches")}` : "";
      // Its length first: names of sections may be long, and stand beside the list as well.
      return `${sayLength(cutLength(read), style)}, ${plainSectionName(read.shape)}, ${words}${holes}${notches}`;
    }
    case "panel": {
      const sizes = [read.length, read.width, read.thickness]
        .map((size) => sayLength(size, style))
        .join(" × ");
      const holes = read.holes.length > 0 ? `, ${counted(read.holes.length, "hole")}` : "";
      const grooves = read.grooves.length > 0 ? `, ${counted(read.grooves.length, "groove")}` : "";
      const cutOuts = read.cutOuts.length > 0 ? `, ${counted(read.cutOuts.length, "cut-out")}` : "";
      return `${sizes}${read.outline ? ", with outline" : ""}${holes}${grooves}${cutOuts}`;
    }
    case "other": {
      if (part.gaps.length > 0) return "no solid: open";
      const size = part.high.map((high, i) => sayLength(high - (part.low[i] ?? 0), style)).join(" × ");
      return `${read.hardware ?? "shape"}, ${size}`;
    }
    default:
      return read satisfies never;
  }
}
