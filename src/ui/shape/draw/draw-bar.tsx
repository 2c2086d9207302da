"use client";
import { Check } from "lucide-react";
import { useState } from "react";
import { type Job, readPlace } from "@/core/job";
import { WAYS } from "@/core/shape";
import { Button } from "../../common/button";
import { Chooser } from "../../common/chooser";
/** The bar over the picture while members are drawn: everything that the pointer can do can be typed here. */
import { Fault } from "../../common/notice";
import { TextField } from "../../common/text-field";
import { CARDINALS } from "../../desk/cardinals";
import { useDeskState } from "../../desk/desk-context";
import { SectionChooser } from "../../desk/section-chooser";
import { SectionPicture } from "../../desk/section-picture";
import { type Drawing, GUIDE } from "./use-drawing";

const WAY_CHOICES = [
  ...WAYS.map((way) => ({ value: way, label: way })),
  { value: "place", label: "to a position" },
] as const;

const HOWS = [
  { value: "single", label: "one by one" },
  { value: "rectangle", label: "a rectangle" },
  { value: "run", label: "a run" },
] as const;

function placeWords(job: Job, from: Drawing["from"]): string {
  if (!from) return "";
  return (from.point === null ? undefined : job.points[from.point]?.name) ?? from.texts.join("; ");
}

export function DrawBar({ drawing }: { readonly drawing: Drawing }) {
  const job = useDeskState((state) => state.job);
  const [count, setCount] = useState(0);
  const started = placeWords(job, drawing.from);
  const goOn = (text: string) => {
    if (text.trim() === "") return null;
    const refused = drawing.goOn(text);
    if (refused === null) setCount(count + 1);
    return refused;
  };
  const toPlace = drawing.how === "rectangle" || drawing.way === "place" || !drawing.from;
  return (
    <section
      aria-label="Draw members"
      className="flex shrink-0 items-start gap-3 border-seam border-b bg-ground px-3 py-1.5"
    >
      <SectionDrawn drawing={drawing} />
      <div className="min-w-0 flex-1">
        <div className="grid grid-cols-[1fr_1.4fr_1fr_0.8fr_1fr_auto] items-start gap-2">
          <TextField
            label="Name"
            value={drawing.name}
            onCommit={(text) => {
              if (text.trim() === "") return "Enter a name.";
              drawing.setName(text.trim());
              return null;
            }}
          />
          <SectionChooser
            value={drawing.section}
            before={[{ value: GUIDE, label: "a guide, no member" }]}
            onChoose={drawing.setSection}
          />
          <TextField
            key={started}
            label="From"
            value={started}
            placeholder="P1 or 0; 0; 300"
            // Where a line is to begin, typing goes on here.
            autoFocus={started === ""}
            onCommit={drawing.startAt}
          />
          {drawing.how === "rectangle" ? (
            <span />
          ) : (
            <Chooser label="Direction" value={drawing.way} choices={WAY_CHOICES} onChoose={drawing.setWay} />
          )}
          <TextField
            key={`go ${count} ${started}`}
            label={drawing.how === "rectangle" ? "Opposite corner" : toPlace ? "Position" : "Length"}
            value=""
            autoFocus={started !== ""}
            placeholder={toPlace ? "P2 or width; 0; 300" : "560 or width - 40"}
            onCommit={goOn}
          />
          <span className="pt-4">
            <Button look="primary" icon={<Check size={15} aria-hidden />} onClick={drawing.finish}>
              Done
            </Button>
          </span>
        </div>
        <div className="grid grid-cols-[1fr_1.4fr_1fr_0.8fr_1fr_auto] items-start gap-2 pt-1">
          <TextField
            label="Section rotation, °"
            value={drawing.roll}
            onCommit={(text) => {
              drawing.setRoll(text.trim() === "" ? "0" : text.trim());
              return null;
            }}
          />
          <Chooser
            label="Line passes through"
            value={String(drawing.cardinal)}
            choices={CARDINALS}
            onChoose={(cardinal) => drawing.setCardinal(Number(cardinal))}
          />
          <Chooser label="Draw" value={drawing.how} choices={HOWS} onChoose={drawing.setHow} />
          {drawing.how === "run" ? (
            <>
              <TextField
                label="How many"
                value={drawing.count}
                onCommit={(text) => {
                  const number = Number(text);
                  if (!Number.isInteger(number) || number < 2 || number > 200) return "From 2 to 200.";
                  drawing.setCount(text.trim());
                  return null;
                }}
              />
              <TextField
                label="Spacing"
                value={drawing.step}
                onCommit={(text) => {
                  if (readPlace(text)?.kind !== "place") return "Three lengths separated by semicolons.";
                  drawing.setStep(text);
                  return null;
                }}
              />
            </>
          ) : null}
        </div>
        <p className="pt-1 text-[12px] text-ink-soft">
          {drawing.fault ? (
            <Fault>{drawing.fault}</Fault>
          ) : drawing.from ? (
            drawing.way === "place" ? (
              "Type a position (P2; or 0; depth/2; 300; or P1 to P2 at 1/3), or click anywhere. To start a new line, clear the field From."
            ) : (
              "Type a length and press Enter, or click a position. To start a new line, clear the field From."
            )
          ) : (
            "Type where to start, or click a point, a place on a line or a corner in the 3D view."
          )}
        </p>
      </div>
    </section>
  );
}

/** The section that is drawn with, as it will stand on its line. */
function SectionDrawn({ drawing }: { readonly drawing: Drawing }) {
  const { shape, roll } = drawing.seat;
  if (!shape || roll === null) return null;
  return (
    <SectionPicture
      shape={shape}
      roll={roll}
      cardinal={drawing.cardinal}
      isPlumb={drawing.way === "up" || drawing.way === "down"}
      onRoll={(degrees) => drawing.setRoll(String(degrees))}
      onCardinal={drawing.setCardinal}
    />
  );
}
