"use client";
/** An open piece of a file: where it is open, and what comes of joining its rims within a gap. */
import { useMemo, useState } from "react";
import { shapePicture } from "@/core/drawing";
import { closedPart, type FoundPart, gapThatCloses, plainSectionName } from "@/core/imports";
import { jobStyle } from "@/core/job";
import { counted } from "@/core/kernel";
import { type LengthStyle, PLAIN_MM, parseLength, roundTo, sayLength } from "@/core/measure";
import { Button } from "../common/button";
import { Dialog } from "../common/dialog";
import { DisplayList } from "../common/display-list";
import { Field } from "../common/field";
import { useDeskState } from "../desk/desk-context";

/** mm. Wider gaps are holes that somebody has to close where the piece was drawn. */
const MOST_GAP = 20;
const LEAST_GAP = 0.001;
/** mm. What is proposed where no gap closes it wholly. */
const USUAL_GAP = 0.1;

export function CloseDialog({
  part,
  name,
  onTake,
  onCancel,
}: {
  readonly part: FoundPart;
  readonly name: string;
  /** With the gap, in mm. */
  readonly onTake: (gap: number) => void;
  readonly onCancel: () => void;
}) {
  const style = jobStyle(useDeskState((state) => state.job));
  // Gaps are far below what a job's lengths are rounded to: they are said in mm wherever.
  const [text, setText] = useState(() => String(gapThatCloses(part) ?? USUAL_GAP));
  const gap = useMemo(() => {
    const read = parseLength(text, PLAIN_MM.unit);
    return read.ok && read.value >= LEAST_GAP && read.value <= MOST_GAP ? read.value : null;
  }, [text]);
  const closed = useMemo(() => (gap === null ? null : closedPart(part, gap)), [part, gap]);
  const before = useMemo(
    () =>
      shapePicture(
        part.triangles ?? [],
        part.gaps.map(({ rim }) => rim),
        300,
        230,
      ),
    [part],
  );
  const after = useMemo(
    () =>
      closed &&
      shapePicture(
        closed.part.triangles ?? [],
        closed.part.gaps.map(({ rim }) => rim),
        300,
        230,
      ),
    [closed],
  );
  return (
    <Dialog
      open
      onOpen={(open) => (open ? undefined : onCancel())}
      title={`Close ${name}`}
      about="Its faces do not meet everywhere, so it has no inside that could be measured. Rims are joined where they lie no farther apart than the gap; what is missing stays missing. Rims that are open are red."
      width="middle"
      trigger={null}
      close="Cancel"
      foot={
        <Button
          look="primary"
          disabled={gap === null || closed === null}
          onClick={() => (gap === null ? undefined : onTake(gap))}
        >
          Close it
        </Button>
      }
    >
      <div className="mt-3 grid grid-cols-2 gap-3">
        <figure className="text-[13px]">
          <div className="h-[190px]">
            <DisplayList drawing={before} label={`${name} as it is in the file`} fluid />
          </div>
          <figcaption>Before: {openWords(part, style)}.</figcaption>
        </figure>
        <figure className="text-[13px]">
          <div className="h-[190px]">
            {after ? <DisplayList drawing={after} label={`${name} with its rims joined`} fluid /> : null}
          </div>
          <figcaption aria-live="polite">
            {closed ? `After: ${afterWords(closed.part, closed.moved, style)}` : ""}
          </figcaption>
        </figure>
      </div>
      <div className="mt-3 w-[240px]">
        <Field
          label="Join rims that lie apart up to"
          unit="mm"
          value={text}
          onChange={({ target }) => setText(target.value)}
          fault={gap === null ? `Type a length from 0.001 to ${MOST_GAP} mm.` : null}
        />
      </div>
    </Dialog>
  );
}

function openWords({ gaps }: FoundPart, style: LengthStyle): string {
  const longest = gaps.reduce((most, { length }) => Math.max(most, length), 0);
  return `open at ${counted(gaps.length, "place")}, the longest ${sayLength(longest, style)} round`;
}

function afterWords(part: FoundPart, moved: number, style: LengthStyle): string {
  const how = `no corner moved by more than ${roundTo(moved, 3)} mm`;
  if (part.gaps.length > 0) return `still ${openWords(part, style)}; ${how}. It enters as a bought part.`;
  const box = part.high.reduce((all, high, i) => all * (high - (part.low[i] ?? 0)), 1);
  const share = box > 0 ? Math.round((100 * part.volume) / box) : 0;
  return `closed, ${volumeWords(part.volume, style)}, that is ${share} % of its box; ${how}. It is ${readWords(part)}.`;
}

function readWords({ taken }: FoundPart): string {
  switch (taken.kind) {
    case "member":
      return `a member, ${plainSectionName(taken.shape)}`;
    case "panel":
      return "a panel";
    case "other":
      return "a bought part";
    default:
      return taken satisfies never;
  }
}

/** mm³ as people say it. */
function volumeWords(volume: number, { unit }: LengthStyle): string {
  const [by, word] = unit === "in" || unit === "ft" ? [25.4 ** 3, "cubic inches"] : [1000, "cm³"];
  return `${(volume / by).toLocaleString("en", { maximumFractionDigits: 2 })} ${word}`;
}
