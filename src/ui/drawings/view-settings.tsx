"use client";
import { useState } from "react";
/** Settings of a view: what stands under it, from where it looks, its scale, its lines, where it is cut. */
import type { DrawnPage } from "@/core/drawing";
import { lengthWith, VIEW_LOOKS, VIEW_SIDES, type ViewItem } from "@/core/job";
import { sentence } from "@/core/kernel";
import { standingSteps } from "@/core/steps";
import { Button } from "../common/button";
import { Chooser } from "../common/chooser";
import { TextField } from "../common/text-field";
import { Tick } from "../common/tick";
import { useDesk, useDeskState } from "../desk/desk-context";
import { LOOK_WORDS, SIDE_WORDS } from "./item-words";
import { freeLetter } from "./new-items";
import { GRID, paperLength, RemoveItems, ScaleField, useItemChange } from "./settings-parts";

export function ViewSettings({ item, drawn }: { readonly item: ViewItem; readonly drawn: DrawnPage }) {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  const selected = useDeskState((state) => state.selected);
  const change = useItemChange(item);
  const pieces = [...selected].filter(
    (id) => job.members[id] || job.panels[id] || job.boughtParts[id] || job.placements[id],
  );
  const { from } = item;
  return (
    <div className={GRID}>
      <TextField
        label="Caption"
        value={item.caption ?? ""}
        placeholder="none"
        onCommit={(text) =>
          text.length > 80
            ? "A caption has at most 80 letters."
            : change({ caption: text.trim() === "" ? null : text.trim() })
        }
      />
      {from.kind === "follower" ? (
        <TextField
          label="Distance from its view, mm"
          value={String(from.gap)}
          onCommit={(text) => {
            const gap = paperLength(text, -500, 1000);
            return typeof gap === "string" ? gap : change({ from: { ...from, gap } });
          }}
        />
      ) : from.kind === "detail" ? (
        <>
          <TextField
            label="Letter"
            value={from.letter}
            onCommit={(text) =>
              text.trim() === "" || text.trim().length > 4
                ? "It has 1 to 4 letters."
                : change({ from: { ...from, letter: text.trim() } })
            }
          />
          <TextField
            label="Radius of what it shows, mm"
            value={String(Number(from.radius.toFixed(2)))}
            onCommit={(text) => {
              const radius = paperLength(text, 0.1, 100_000);
              return typeof radius === "string" ? radius : change({ from: { ...from, radius } });
            }}
          />
        </>
      ) : (
        <Chooser
          label="From"
          value={from.kind === "named" ? from.side : ""}
          placeholder="typed direction"
          choices={VIEW_SIDES.map((value) => ({ value, label: SIDE_WORDS[value] }))}
          onChoose={(side) => {
            const wasNamed = from.kind === "named" && item.caption === SIDE_WORDS[from.side];
            change({ from: { kind: "named", side }, ...(wasNamed ? { caption: SIDE_WORDS[side] } : {}) });
          }}
        />
      )}
      <ScaleField
        label="Scale"
        job={job}
        scale={item.scale}
        best={null}
        onScale={(scale) => change({ scale: scale === drawn.page.scale ? null : scale })}
      />
      <Chooser
        label="Lines"
        value={item.look}
        choices={VIEW_LOOKS.map((value) => ({ value, label: LOOK_WORDS[value] }))}
        onChoose={(look) => change({ look })}
      />
      {from.kind === "detail" ? null : (
        <Chooser
          label="Variant"
          value={item.variant ?? ""}
          choices={[
            { value: "", label: "The one on the desk" },
            ...Object.values(job.variants).map(({ id, name }) => ({ value: id as string, label: name })),
          ]}
          onChoose={(variant) => change({ variant: variant === "" ? null : variant })}
        />
      )}
      {from.kind === "named" || from.kind === "typed" ? <Direction item={item} /> : null}
      {from.kind === "detail" ? null : <CutFields item={item} />}
      {from.kind === "detail" || item.of.kind === "piece" ? null : (
        <ApartFields item={item} pieces={pieces} />
      )}
      {from.kind === "detail" ? null : <StepField item={item} />}
      <span className="col-span-full flex flex-wrap items-center gap-2">
        <Button
          look="plain"
          disabled={pieces.length === 0}
          onClick={() => {
            if (change({ hidden: [...new Set([...item.hidden, ...pieces])] }) === null)
              desk.select([item.id]);
          }}
        >
          Hide selected pieces here
        </Button>
        <Button look="plain" disabled={item.hidden.length === 0} onClick={() => change({ hidden: [] })}>
          Show all again
        </Button>
        {from.kind === "detail" ? null : (
          <>
            <Button
              look="plain"
              disabled={pieces.length === 0}
              onClick={() => {
                if (change({ strong: [...pieces] }) === null) desk.select([item.id]);
              }}
            >
              Draw the others pale
            </Button>
            <Button look="plain" disabled={item.strong.length === 0} onClick={() => change({ strong: [] })}>
              Draw all alike
            </Button>
          </>
        )}
        <RemoveItems ids={[item.id]} />
      </span>
    </div>
  );
}

/** The building step that a view shows, where what it shows has steps. */
function StepField({ item }: { readonly item: ViewItem }) {
  const job = useDeskState((state) => state.job);
  const shape = useDeskState((state) => state.results.shape);
  const change = useItemChange(item);
  const home = item.of.kind === "assembly" ? item.of.assembly : item.of.kind === "job" ? null : undefined;
  const steps = home === undefined ? [] : (standingSteps(job, shape).get(home)?.steps ?? []);
  if (steps.length === 0 && item.step === null) return null;
  return (
    <Chooser
      label="Building step"
      value={item.step ?? ""}
      placeholder="one that is gone"
      choices={[
        { value: "", label: "None: it shows all" },
        ...steps.map(({ step, number }) => ({
          value: step.id as string,
          label: `${number} ${step.heading}`,
        })),
      ]}
      onChoose={(step) => change({ step: step === "" ? null : step })}
    />
  );
}

/** Whether a view is whole or pulled apart, and how far. */
function ApartFields({
  item,
  pieces,
}: {
  readonly item: ViewItem;
  /** Pieces and placements that are selected beside it. */
  readonly pieces: readonly string[];
}) {
  const change = useItemChange(item);
  const [first] = pieces;
  const own = item.apartBy.find(({ record }) => record === first);
  const others = item.apartBy.filter(({ record }) => !pieces.includes(record));
  const [share, setShare] = useState(item.apart ?? 0);
  const set = (next: number) => {
    if (next !== item.apart) change({ apart: next });
  };
  return (
    <span className="flex flex-wrap items-end gap-3">
      <Tick
        label="Pulled apart"
        on={item.apart !== null}
        onToggle={(on) => {
          setShare(on ? 1 : 0);
          change({ apart: on ? 1 : null });
        }}
      />
      {item.apart === null ? null : (
        <input
          type="range"
          aria-label="How far apart"
          min={0}
          max={1}
          step={0.05}
          value={share}
          className="h-7 min-w-0 flex-1 accent-enamel"
          onChange={(event) => setShare(Number(event.target.value))}
          onPointerUp={() => set(share)}
          onKeyUp={() => set(share)}
          onBlur={() => set(share)}
        />
      )}
      {item.apart === null || first === undefined ? null : (
        <TextField
          label="Selected stand off by (width, depth, height), mm"
          value={own ? own.by.join(", ") : ""}
          placeholder="found by itself"
          onCommit={(text) => {
            if (text.trim() === "") return change({ apartBy: others });
            const numbers = text
              .split(/[,;\s]+/)
              .filter(Boolean)
              .map(Number);
            const [x = 0, y = 0, z = 0] = numbers;
            if (numbers.length !== 3 || !numbers.every(Number.isFinite))
              return "Write three numbers in mm: 0, 0, 150 is 150 up.";
            const by: [number, number, number] = [x, y, z];
            return change({ apartBy: [...others, ...pieces.map((record) => ({ record, by }))] });
          }}
        />
      )}
    </span>
  );
}

const CUT_AXES = [
  { value: "", label: "Not cut" },
  { value: "width", label: "Across the width" },
  { value: "depth", label: "Across the depth" },
  { value: "height", label: "Across the height" },
] as const;

/** Where a view is cut: across which axis, at which length or formula. */
function CutFields({ item }: { readonly item: ViewItem }) {
  const change = useItemChange(item);
  const sizes = useDeskState((state) => state.results.sizes);
  const job = useDeskState((state) => state.job);
  const { cut } = item;
  return (
    <span className={`grid gap-1 ${cut ? "grid-cols-[1fr_72px_44px]" : ""}`}>
      <Chooser
        label="Cut"
        value={cut?.axis ?? ""}
        choices={CUT_AXES}
        onChoose={(axis) =>
          change({
            cut:
              axis === ""
                ? null
                : { axis, at: cut?.at ?? "0", letter: cut ? cut.letter : freeLetter(job, "ABCDEFGH") },
          })
        }
      />
      {cut ? (
        <TextField
          label="At"
          value={cut.at}
          onCommit={(text) => {
            const at = lengthWith(sizes, text);
            return at.ok ? change({ cut: { ...cut, at: text.trim() } }) : sentence(at.problem);
          }}
        />
      ) : null}
      {cut ? (
        <TextField
          label="Letter"
          value={cut.letter ?? ""}
          placeholder="none"
          onCommit={(text) => {
            const letter = text.trim();
            if (letter.length > 4) return "At most 4 letters.";
            return change({ cut: { ...cut, letter: letter === "" ? null : letter } });
          }}
        />
      ) : null}
    </span>
  );
}

/** A direction typed as three numbers: to the right, away, up. */
function Direction({ item }: { readonly item: ViewItem }) {
  const change = useItemChange(item);
  const { from } = item;
  return (
    <TextField
      label="Seen from (width, depth, height)"
      value={
        from.kind === "typed" ? from.towards.map((one) => String(Number(one.toFixed(3)))).join(", ") : ""
      }
      placeholder="-1, -2, 1"
      onCommit={(text) => {
        const numbers = text
          .split(/[,;\s]+/)
          .filter(Boolean)
          .map(Number);
        const [x, y, z] = numbers;
        if (numbers.length !== 3 || !numbers.every(Number.isFinite) || Math.hypot(...numbers) < 1e-6)
          return "Write three numbers, not all zero: -1, -2, 1 is from the left, the front and above.";
        return change({ from: { kind: "typed", towards: [x ?? 0, y ?? 0, z ?? 0] } });
      }}
    />
  );
}
