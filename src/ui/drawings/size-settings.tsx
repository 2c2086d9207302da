"use client";
/** Settings of a size: what it measures from and to, chosen by names, and where its line stands. */
import { type DrawnPage, joinedSteps, partedSteps, placesInView } from "@/core/drawing";
import type { Feature, SizeItem } from "@/core/job";
import { Button } from "../common/button";
import { type Choice, Chooser } from "../common/chooser";
import { TextField } from "../common/text-field";
import { Tick } from "../common/tick";
import { useDesk, useDeskState } from "../desk/desk-context";
import { nameOf } from "./item-words";
import { newItemId } from "./new-items";
import { GRID, paperLength, RemoveItems, useItemChange } from "./settings-parts";
import { useCatchGrounds } from "./size-menu";

export function SizeSettings({ item, drawn }: { readonly item: SizeItem; readonly drawn: DrawnPage }) {
  const desk = useDesk();
  const change = useItemChange(item);
  return (
    <div className={GRID}>
      <EndOfSize
        word="From"
        item={item}
        feature={item.from}
        drawn={drawn}
        onChange={(from) => change({ from })}
      />
      {item.to ? (
        <EndOfSize word="To" item={item} feature={item.to} drawn={drawn} onChange={(to) => change({ to })} />
      ) : null}
      {item.measure === "horizontal" || item.measure === "vertical" ? (
        <Chooser
          label="Side"
          value={item.side}
          choices={
            item.measure === "horizontal"
              ? [
                  { value: "top", label: "Above" },
                  { value: "bottom", label: "Below" },
                ]
              : [
                  { value: "left", label: "Left" },
                  { value: "right", label: "Right" },
                ]
          }
          onChoose={(side) => change({ side: side as SizeItem["side"] })}
        />
      ) : null}
      <TextField
        label="Distance of its line, mm"
        value={String(item.out)}
        onCommit={(text) => {
          const out = paperLength(text, -1000, 1000);
          return typeof out === "string" ? out : change({ out });
        }}
      />
      <TextField
        label="Typed over"
        value={item.typed ?? ""}
        placeholder="the computed value"
        onCommit={(text) =>
          text.length > 40
            ? "It has at most 40 letters."
            : change({ typed: text.trim() === "" ? null : text.trim() })
        }
      />
      <span className="flex items-end gap-3">
        <Tick label="In brackets" on={item.brackets} onToggle={(brackets) => change({ brackets })} />
        {item.between.length > 0 ? (
          <Button
            look="plain"
            onClick={() => desk.submit({ kind: "setPageItems", items: [...partedSteps(item, newItemId)] })}
          >
            Part into single sizes
          </Button>
        ) : null}
        <RemoveItems ids={[item.id]} />
      </span>
    </div>
  );
}

/** Several sizes: made one of equal steps where they follow one another. */
export function JoinSizes({ items }: { readonly items: readonly SizeItem[] }) {
  const desk = useDesk();
  const joined = joinedSteps(items);
  if (!joined) return null;
  const join = () => {
    const gone = items.filter(({ id }) => id !== joined.id).map(({ id }) => id);
    const refused = desk.submit({
      kind: "together",
      what: "Join sizes to one of equal steps",
      edits: [
        { kind: "removePageItems", ids: gone },
        { kind: "setPageItems", items: [joined] },
      ],
    });
    if (refused === null) desk.select([joined.id]);
  };
  return (
    <Button look="plain" onClick={join}>
      Join to equal steps
    </Button>
  );
}

/** What a size measures from or to, chosen by names. */
function EndOfSize({
  word,
  item,
  feature,
  drawn,
  onChange,
}: {
  readonly word: string;
  readonly item: SizeItem;
  readonly feature: Feature;
  readonly drawn: DrawnPage;
  readonly onChange: (feature: Feature) => string | null;
}) {
  const job = useDeskState((state) => state.job);
  const ground = useCatchGrounds(drawn).get(item.view);
  const pieces = ground?.drawn.pieces ?? [];
  const keyOf = (piece: { readonly record: string; readonly way: string | null }) =>
    `${piece.record} ${piece.way ?? ""}`;
  const own =
    pieces.find((piece) => keyOf(piece) === keyOf(feature)) ??
    pieces.find(({ record }) => record === feature.record);
  const places = ground && own ? placesInView(ground.shape, ground.asked, own, ground.assets) : null;
  const fits = (name: string) => {
    if (item.measure === "angle" || name === "axis") return item.measure === "angle" && name === "axis";
    if (item.measure === "diameter" || item.measure === "radius")
      return (places?.get(name)?.[item.measure] ?? null) !== null;
    return true;
  };
  const names = [...(places?.keys() ?? [])].filter(fits);
  return (
    <span className="grid grid-cols-2 gap-1">
      <Chooser
        label={`${word}, piece`}
        value={own ? keyOf(own) : ""}
        placeholder="lost"
        choices={numbered(pieces.map((piece) => ({ value: keyOf(piece), label: nameOf(piece.record, job) })))}
        onChoose={(key) => {
          const piece = pieces.find((one) => keyOf(one) === key);
          const first =
            piece && ground
              ? [...(placesInView(ground.shape, ground.asked, piece, ground.assets)?.keys() ?? [])].find(fits)
              : undefined;
          if (piece && first) onChange({ record: piece.record, way: piece.way || null, place: first });
        }}
      />
      <Chooser
        label={`${word}, place`}
        value={feature.place}
        placeholder="lost"
        choices={names.map((name) => ({ value: name, label: name }))}
        onChoose={(place) => onChange({ ...feature, place })}
      />
    </span>
  );
}

/** Choices of one name told apart by a number. */
function numbered(choices: readonly Choice[]): readonly Choice[] {
  const counts = new Map<string, number>();
  for (const { label } of choices) counts.set(label, (counts.get(label) ?? 0) + 1);
  const seen = new Map<string, number>();
  return choices.map(({ value, label }) => {
    const number = (seen.get(label) ?? 0) + 1;
    seen.set(label, number);
    return { value, label: (counts.get(label) ?? 0) > 1 ? `${label}, no. ${number}` : label };
  });
}
