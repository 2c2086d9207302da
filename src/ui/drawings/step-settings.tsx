"use client";
/** Settings of a building step: what it says, and what comes in with it; joined with the one before it, or parted. */
import { useMemo, useState } from "react";
import { unitNamesOf } from "@/core/apart";
import type { StepItem, StepPart } from "@/core/job";
import {
  joinedWithBefore,
  partedStep,
  partName,
  type StandingStep,
  standingSteps,
  stepsBeside,
  withoutParts,
  withParts,
} from "@/core/steps";
import { Button } from "../common/button";
import { Chooser } from "../common/chooser";
import { newId } from "../common/fresh-id";
import { LongList, ScrolledBox } from "../common/long-list";
import { TextField } from "../common/text-field";
import { useDesk, useDeskState } from "../desk/desk-context";
import { GRID, LongText, paperLength, RemoveItems, useItemChange } from "./settings-parts";

const keyOf = ({ record, repeat }: StepPart): string => (repeat === null ? record : `${record}:${repeat}`);

/** More than so many are looked for by selecting them. */
const MOST_OFFERED = 300;

export function StepSettings({ item }: { readonly item: StepItem }) {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  const shape = useDeskState((state) => state.results.shape);
  const selected = useDeskState((state) => state.selected);
  const change = useItemChange(item);
  const home = standingSteps(job, shape).get(item.home);
  const standing = home?.steps.find(({ step }) => step.id === item.id);
  const { before, after } = stepsBeside(job, item);
  const there = new Set(item.comes.map(({ record }) => record));
  const own = useMemo(
    () =>
      new Set<string>([
        ...unitNamesOf(shape, item.home).map(({ record }) => record),
        ...shape.bought.flatMap(({ part }) => (part.assembly === item.home ? [part.id] : [])),
      ]),
    [shape, item.home],
  );
  const pieces = [...selected].filter((record) => own.has(record) && !there.has(record));
  const add = (parts: readonly StepPart[]) => {
    if (change({ comes: withParts(item, parts).comes }) === null) desk.select([item.id]);
  };
  const join = () => {
    const edit = joinedWithBefore(job, item);
    if (!edit || !before || desk.submit(edit) !== null) return;
    desk.openPage(before.page);
    desk.select([before.id]);
  };
  return (
    <div className={GRID}>
      <TextField
        label="Heading"
        value={item.heading}
        onCommit={(text) =>
          text.trim() === "" || text.trim().length > 80
            ? "A heading has 1 to 80 letters."
            : change({ heading: text.trim() })
        }
      />
      <TextField
        label="Width, mm"
        value={String(item.width)}
        onCommit={(text) => {
          const width = paperLength(text, 40, 600);
          return typeof width === "string" ? width : change({ width });
        }}
      />
      <Chooser
        label="Add to this step"
        value=""
        placeholder={home && home.never.length > 0 ? "in no step yet" : "all are in steps"}
        choices={(home?.never ?? []).slice(0, MOST_OFFERED).map(({ key, record, repeat }) => ({
          value: key,
          label: `${partName(job, record)}${repeat === null ? "" : ` ${repeat + 1}`}`,
        }))}
        onChoose={(key) => {
          const unit = home?.never.find((one) => one.key === key);
          if (unit) add([{ record: unit.record, repeat: unit.repeat, count: null }]);
        }}
      />
      <span className="col-span-full">
        <LongText label="Text" value={item.text} mayBeEmpty onCommit={(text) => change({ text })} />
      </span>
      <Parts key={item.id} item={item} standing={standing ?? null} before={before} after={after} />
      <span className="col-span-full flex flex-wrap items-center gap-2">
        <Button
          look="plain"
          disabled={pieces.length === 0}
          onClick={() => add(pieces.map((record) => ({ record, repeat: null, count: null })))}
        >
          Add the selected pieces
        </Button>
        <Button look="plain" disabled={!before} onClick={join}>
          Join with the step before
        </Button>
        <RemoveItems ids={[item.id]} />
      </span>
    </div>
  );
}

/** What comes in, to be ticked and moved. */
function Parts({
  item,
  standing,
  before,
  after,
}: {
  readonly item: StepItem;
  readonly standing: StandingStep | null;
  readonly before: StepItem | null;
  readonly after: StepItem | null;
}) {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const chosen = item.comes.filter((part) => ticked.has(keyOf(part)));
  const counts = new Map<string, number>();
  for (const { record } of standing?.coming ?? []) counts.set(record, (counts.get(record) ?? 0) + 1);
  for (const { record, count } of standing?.bought ?? []) counts.set(record, count);
  const wordsOf = ({ record, repeat }: StepPart): string => {
    const name = partName(job, record);
    if (name === "") return "A piece that is gone";
    const count = counts.get(record) ?? 0;
    return `${count > 1 && repeat === null ? `${count} × ` : ""}${name}${repeat === null ? "" : ` ${repeat + 1}`}`;
  };
  const toggle = (key: string, on: boolean) =>
    setTicked((now) => {
      const next = new Set(now);
      if (on) next.add(key);
      else next.delete(key);
      return next;
    });
  const move = (to: StepItem) => {
    const items = [withoutParts(item, chosen), withParts(to, chosen)];
    if (desk.submit({ kind: "setPageItems", items }) === null) setTicked(new Set());
  };
  const part = () => {
    const made = partedStep(job, item, chosen, (kind) => newId(kind === "page" ? "page" : "item"));
    if (!made || desk.submit(made.edit) !== null) return;
    setTicked(new Set());
    desk.openPage(made.page);
  };
  const takeOut = () => {
    if (desk.submit({ kind: "setPageItems", items: [withoutParts(item, chosen)] }) === null)
      setTicked(new Set());
  };
  const none = chosen.length === 0;
  return (
    <fieldset className="col-span-full min-w-0">
      <legend className="text-[12px] text-ink-soft">Comes in</legend>
      {item.comes.length === 0 ? (
        <p className="text-[13px] text-ink-soft">
          Nothing yet. Select pieces in a view or a list, then add them.
        </p>
      ) : (
        <ScrolledBox className="max-h-32 overflow-auto rounded-sm border border-seam bg-leaf px-1.5">
          <LongList items={item.comes} keyOf={keyOf}>
            {(one) => (
              <span className="flex h-7 items-center gap-2 text-[13px]">
                <label className="flex min-w-0 flex-1 items-center gap-1.5">
                  <input
                    type="checkbox"
                    className="accent-enamel"
                    checked={ticked.has(keyOf(one))}
                    onChange={(event) => toggle(keyOf(one), event.target.checked)}
                  />
                  <span className="truncate">{wordsOf(one)}</span>
                </label>
                <Amount
                  item={item}
                  part={one}
                  isCounted={standing?.bought.some(({ record }) => record === one.record) ?? false}
                />
              </span>
            )}
          </LongList>
        </ScrolledBox>
      )}
      <span className="mt-1 flex flex-wrap items-center gap-2">
        <Button look="plain" disabled={none || !before} onClick={() => before && move(before)}>
          To the step before
        </Button>
        <Button look="plain" disabled={none || !after} onClick={() => after && move(after)}>
          To the step after
        </Button>
        <Button look="plain" disabled={none || chosen.length === item.comes.length} onClick={part}>
          To a new step after this one
        </Button>
        <Button look="plain" disabled={none} onClick={takeOut}>
          Take out
        </Button>
      </span>
    </fieldset>
  );
}

/** How many of a bought part come with the step. */
function Amount({
  item,
  part,
  isCounted,
}: {
  readonly item: StepItem;
  readonly part: StepPart;
  readonly isCounted: boolean;
}) {
  const change = useItemChange(item);
  if (!isCounted && part.count === null) return null;
  return (
    <span className="w-28">
      <TextField
        label="How many"
        hideLabel
        value={part.count === null ? "" : String(part.count)}
        placeholder="all others"
        onCommit={(text) => {
          const count = text.trim() === "" ? null : Number(text.trim());
          if (count !== null && (!Number.isInteger(count) || count < 1 || count > 1_000_000))
            return "A whole number, or nothing for all that no other step takes.";
          return change({
            comes: item.comes.map((one) => (keyOf(one) === keyOf(part) ? { ...one, count } : one)),
          });
        }}
      />
    </span>
  );
}
