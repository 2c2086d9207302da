"use client";
/** Settings of what is selected on a page; of the page itself when nothing is. */
import { bestScale, type DrawnPage, placesInView, readScale, scaleWords } from "@/core/drawing";
import {
  type CalloutItem,
  type Feature,
  type Job,
  LIST_CORNERS,
  type ListItem,
  lengthWith,
  type NoteItem,
  type Page,
  type PageItem,
  type PictureItem,
  PROJECTIONS,
  type SizeItem,
  VIEW_LOOKS,
  VIEW_SIDES,
  type ViewItem,
} from "@/core/job";
import { sentence } from "@/core/kernel";
import { parseLength } from "@/core/measure";
import { Button } from "../common/button";
import { type Choice, Chooser } from "../common/chooser";
import { TextField } from "../common/text-field";
import { Tick } from "../common/tick";
import { useDesk, useDeskState } from "../desk/desk-context";
import { useDrawings } from "./drawings-ground";
import {
  CORNER_WORDS,
  LETTER_CHOICES,
  LOOK_WORDS,
  listWords,
  nameOf,
  PAPER_CHOICES,
  PROJECTION_WORDS,
  SIDE_WORDS,
} from "./item-words";
import { scaleChoices } from "./new-items";
import { useCatchGrounds } from "./size-menu";

const GRID = "grid grid-cols-2 gap-x-3 gap-y-1.5 lg:grid-cols-3";

export function DrawingSettings() {
  const selected = useDeskState((state) => state.selected);
  const { page, draw } = useDrawings();
  if (!page) return <p className="text-[13px] text-ink-soft">Settings of the page appear here.</p>;
  const drawn = draw(page);
  const items = drawn.placed.map(({ item }) => item).filter(({ id }) => selected.has(id));
  const [only] = items;
  if (!only) return <PageSettings key={page.id} page={page} drawn={drawn} />;
  return items.length > 1 ? (
    <Several items={items} />
  ) : (
    <ItemSettings key={only.id} item={only} drawn={drawn} />
  );
}

/** Carries a change of an item out; gives the sentence why not, or null. */
function useItemChange<T extends PageItem>(item: T) {
  const desk = useDesk();
  return (set: Partial<T>) => desk.submit({ kind: "setPageItems", items: [{ ...item, ...set }] });
}

/** A length on paper, in millimetres unless something else is typed; what is not one is said. */
function paperLength(text: string, least: number, most: number): number | string {
  const read = parseLength(text, "mm");
  if (!read.ok) return sentence(read.problem);
  const value = Math.round(read.value * 1000) / 1000;
  return value < least || value > most ? `Must be from ${least} to ${most} mm.` : value;
}

function PageSettings({ page, drawn }: { readonly page: Page; readonly drawn: DrawnPage }) {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  const set = (more: Partial<Page>) => desk.submit({ kind: "setPages", pages: [{ ...page, ...more }] });
  return (
    <div className={GRID}>
      <TextField
        label="Heading"
        value={page.heading}
        onCommit={(text) =>
          text.trim() === "" || text.length > 80
            ? "A heading has 1 to 80 letters."
            : set({ heading: text.trim() })
        }
      />
      <Chooser
        label="Paper"
        value={page.paper}
        choices={PAPER_CHOICES}
        onChoose={(paper) => set({ paper })}
      />
      <Chooser
        label="Orientation"
        value={page.lying ? "landscape" : "portrait"}
        choices={[
          { value: "landscape", label: "Landscape" },
          { value: "portrait", label: "Portrait" },
        ]}
        onChoose={(way) => set({ lying: way === "landscape" })}
      />
      <ScaleField
        label="Scale"
        job={job}
        scale={page.scale}
        best={bestOf(drawn, job)}
        onScale={(scale) => set({ scale })}
      />
      <Chooser
        label="Projection"
        value={page.projection}
        choices={PROJECTIONS.map((value) => ({ value, label: PROJECTION_WORDS[value] }))}
        onChoose={(projection) => set({ projection })}
      />
      <span className="flex items-end gap-3">
        <Tick label="Border" on={page.border} onToggle={(border) => set({ border })} />
        <Tick label="Title block" on={page.titleBlock} onToggle={(titleBlock) => set({ titleBlock })} />
      </span>
    </div>
  );
}

/** The scale at which the largest view of a page takes about half of it each way; null: it has none. */
function bestOf({ rings, size }: DrawnPage, job: Job): number | null {
  const sizes = [...rings.values()].flatMap(({ drawn: { box } }) =>
    box ? [{ width: box.x1 - box.x0, height: box.y1 - box.y0 }] : [],
  );
  if (sizes.length === 0) return null;
  const largest = {
    width: Math.max(...sizes.map(({ width }) => width)),
    height: Math.max(...sizes.map(({ height }) => height)),
  };
  return bestScale(largest, { width: size.width * 0.45, height: size.height * 0.45 }, job.info.job.unit);
}

function ScaleField({
  label,
  job,
  scale,
  best,
  onScale,
}: {
  readonly label: string;
  readonly job: Job;
  /** null: that of the page. */
  readonly scale: number | null;
  readonly best: number | null;
  readonly onScale: (scale: number) => string | null;
}) {
  const { unit } = job.info.job;
  const standard = scaleChoices(job).map((one) => ({
    value: String(one),
    label: `${scaleWords(one, unit)}${best !== null && Math.abs(best - one) < 1e-9 ? " (fits best)" : ""}`,
  }));
  return (
    <span className="grid grid-cols-[1fr_74px] gap-1">
      <Chooser
        label={label}
        value={scale === null ? "" : String(scale)}
        placeholder="as the page"
        choices={standard}
        onChoose={(value) => {
          onScale(Number(value));
        }}
      />
      <TextField
        label="Typed"
        value={scale === null ? "" : scaleWords(scale, unit)}
        placeholder="1:8"
        onCommit={(text) => {
          const read = readScale(text);
          return read.ok ? onScale(read.value) : sentence(read.problem);
        }}
      />
    </span>
  );
}

function ItemSettings({ item, drawn }: { readonly item: PageItem; readonly drawn: DrawnPage }) {
  switch (item.kind) {
    case "view":
      return <ViewSettings item={item} drawn={drawn} />;
    case "list":
      return <ListSettings item={item} />;
    case "note":
      return <NoteSettings item={item} />;
    case "callout":
      return <CalloutSettings item={item} />;
    case "balloon":
      return <BalloonSettings item={item} />;
    case "size":
      return <SizeSettings item={item} drawn={drawn} />;
    case "rule":
      return <Place item={item} />;
    case "picture":
      return <PictureSettings item={item} />;
    default:
      return item satisfies never;
  }
}

function Several({ items }: { readonly items: readonly PageItem[] }) {
  return (
    <p className="text-[13px] text-ink-soft">
      {items.length} items selected. Move them with the arrow keys (1 mm; Alt 0.1 mm, Shift 10 mm), or remove
      them.
    </p>
  );
}

function ViewSettings({ item, drawn }: { readonly item: ViewItem; readonly drawn: DrawnPage }) {
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
      <span className="col-span-full flex items-center gap-2">
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
        <RemoveItems ids={[item.id]} />
      </span>
    </div>
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
  const { cut } = item;
  return (
    <span className="grid grid-cols-[1fr_96px] gap-1">
      <Chooser
        label="Cut"
        value={cut?.axis ?? ""}
        choices={CUT_AXES}
        onChoose={(axis) => change({ cut: axis === "" ? null : { axis, at: cut?.at ?? "0" } })}
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

function listOf(chosen: string): ListItem["list"] {
  if (chosen === "cut" || chosen === "buying") return { kind: chosen };
  const [kind, ...id] = chosen.split(" ");
  return kind === "layout" ? { kind, task: id.join(" ") } : { kind: "own", list: id.join(" ") };
}

function ListSettings({ item }: { readonly item: ListItem }) {
  const job = useDeskState((state) => state.job);
  const change = useItemChange(item);
  const tasks = useDeskState((state) => state.results.tasks);
  const { list } = item;
  const value =
    list.kind === "own" ? `own ${list.list}` : list.kind === "layout" ? `layout ${list.task}` : list.kind;
  return (
    <div className={GRID}>
      <Chooser
        label="List"
        value={value}
        placeholder={listWords(item, job)}
        choices={[
          { value: "cut", label: "Cut list" },
          { value: "buying", label: "Buying list" },
          ...Object.values(job.lists).map(({ id, name }) => ({ value: `own ${id}`, label: name })),
          ...tasks.map(({ id, name }) => ({ value: `layout ${id}`, label: `Layout of ${name}` })),
        ]}
        onChoose={(chosen) => change({ list: listOf(chosen) })}
      />
      <Chooser
        label="Corner that stays"
        value={item.corner}
        choices={LIST_CORNERS.map((one) => ({ value: one, label: CORNER_WORDS[one] }))}
        onChoose={(corner) => change({ corner })}
      />
      <TextField
        label="Width, mm"
        value={String(item.width)}
        onCommit={(text) => {
          const width = paperLength(text, 20, 1200);
          return typeof width === "string" ? width : change({ width });
        }}
      />
      <TextField
        label="Greatest height, mm"
        value={item.height === null ? "" : String(item.height)}
        placeholder="as tall as it is"
        onCommit={(text) => {
          if (text.trim() === "") return change({ height: null });
          const height = paperLength(text, 15, 1200);
          return typeof height === "string" ? height : change({ height });
        }}
      />
      <span className="flex items-end">
        {item.list.kind === "cut" ? (
          <Tick
            label="Silhouettes"
            on={item.silhouettes}
            onToggle={(silhouettes) => change({ silhouettes })}
          />
        ) : null}
      </span>
      <span className="flex items-end">
        <RemoveItems ids={[item.id]} />
      </span>
    </div>
  );
}

function Letters({ item }: { readonly item: NoteItem | CalloutItem }) {
  const desk = useDesk();
  return (
    <Chooser
      label="Letter height"
      value={String(item.letters)}
      choices={LETTER_CHOICES}
      onChoose={(value) =>
        desk.submit({
          kind: "setPageItems",
          items: [{ ...item, letters: Number(value) as NoteItem["letters"] }],
        })
      }
    />
  );
}

function NoteSettings({ item }: { readonly item: NoteItem }) {
  const change = useItemChange(item);
  return (
    <div className={GRID}>
      <span className="col-span-full">
        <LongText label="Text" value={item.text} onCommit={(text) => change({ text })} />
      </span>
      <Letters item={item} />
      <TextField
        label="Width, mm"
        value={item.width === null ? "" : String(item.width)}
        placeholder="as the text is"
        onCommit={(text) => {
          if (text.trim() === "") return change({ width: null });
          const width = paperLength(text, 10, 1200);
          return typeof width === "string" ? width : change({ width });
        }}
      />
      <span className="flex items-end gap-3">
        <Tick label="Bold" on={item.strong} onToggle={(strong) => change({ strong })} />
        <RemoveItems ids={[item.id]} />
      </span>
    </div>
  );
}

function CalloutSettings({ item }: { readonly item: CalloutItem }) {
  const change = useItemChange(item);
  return (
    <div className={GRID}>
      <span className="col-span-full">
        <LongText
          label="Text, columns in braces: {mark}, {name}, {size}, {cut length}"
          value={item.pattern}
          onCommit={(pattern) => change({ pattern })}
        />
      </span>
      <Letters item={item} />
      <span className="flex items-end">
        <RemoveItems ids={[item.id]} />
      </span>
    </div>
  );
}

/** A text of several lines: carried out by leaving it, put back with Escape. */
function LongText({
  label,
  value,
  onCommit,
}: {
  readonly label: string;
  readonly value: string;
  readonly onCommit: (text: string) => string | null;
}) {
  return (
    <label className="block">
      <span className="block text-[12px] text-ink-soft">{label}</span>
      <textarea
        key={value}
        rows={2}
        maxLength={2000}
        defaultValue={value}
        className="w-full rounded-sm border border-seam bg-leaf px-1.5 py-0.5 font-table text-[14px]"
        onBlur={(event) => {
          const text = event.target.value.trim();
          if (text !== "" && text !== value) onCommit(text);
          else event.target.value = value;
        }}
        onKeyDown={(event) => {
          if (event.key !== "Escape") return;
          event.currentTarget.value = value;
          event.currentTarget.blur();
        }}
      />
    </label>
  );
}

function BalloonSettings({ item }: { readonly item: Extract<PageItem, { kind: "balloon" }> }) {
  const change = useItemChange(item);
  return (
    <span className="flex flex-wrap items-center gap-2 text-[13px]">
      <span className="text-ink-soft">
        {item.stands.kind === "hand" ? "Moved by hand." : "Stands on the ring round its view."}
      </span>
      {item.stands.kind === "hand" ? (
        <Button look="plain" onClick={() => change({ stands: { kind: "ring", side: "top", step: 0 } })}>
          Put back on the ring
        </Button>
      ) : null}
      {item.pieces.length > 1 ? (
        <Button look="plain" onClick={() => change({ pieces: item.pieces.slice(0, -1) })}>
          Remove the last leader
        </Button>
      ) : null}
      <RemoveItems ids={[item.id]} />
    </span>
  );
}

function SizeSettings({ item, drawn }: { readonly item: SizeItem; readonly drawn: DrawnPage }) {
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
        <RemoveItems ids={[item.id]} />
      </span>
    </div>
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
  const fits = (name: string) =>
    item.measure === "angle"
      ? name === "axis"
      : name !== "axis" && (item.measure !== "diameter" || (places?.get(name)?.diameter ?? null) !== null);
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

function Place({ item }: { readonly item: Extract<PageItem, { kind: "rule" }> }) {
  const change = useItemChange(item);
  const field = (label: string, which: "at" | "to", axis: 0 | 1) => (
    <TextField
      label={label}
      value={String(item[which][axis])}
      onCommit={(text) => {
        const value = paperLength(text, -1000, 2000);
        if (typeof value === "string") return value;
        const place: [number, number] = [...item[which]];
        place[axis] = value;
        return change({ [which]: place });
      }}
    />
  );
  return (
    <div className="grid grid-cols-4 gap-x-3 gap-y-1.5">
      {field("From right, mm", "at", 0)}
      {field("From down, mm", "at", 1)}
      {field("To right, mm", "to", 0)}
      {field("To down, mm", "to", 1)}
      <span className="col-span-full">
        <RemoveItems ids={[item.id]} />
      </span>
    </div>
  );
}

function PictureSettings({ item }: { readonly item: PictureItem }) {
  const change = useItemChange(item);
  return (
    <div className={GRID}>
      <TextField
        label="Width, mm"
        value={String(item.width)}
        onCommit={(text) => {
          const width = paperLength(text, 1, 1200);
          return typeof width === "string" ? width : change({ width });
        }}
      />
      <span className="flex items-end">
        <RemoveItems ids={[item.id]} />
      </span>
    </div>
  );
}

function RemoveItems({ ids }: { readonly ids: readonly string[] }) {
  const desk = useDesk();
  return (
    <Button
      look="danger"
      onClick={() => {
        if (desk.submit({ kind: "removePageItems", ids: [...ids] }) === null) desk.select([]);
      }}
    >
      Remove
    </Button>
  );
}
