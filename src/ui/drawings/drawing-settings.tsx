"use client";
/** Settings of what is selected on a page; of the page itself when nothing is. */
import { arrangedOn, bestScale, type DrawnPage, titleOn } from "@/core/drawing";
import {
  type CalloutItem,
  type Job,
  type NoteItem,
  type Page,
  type PageItem,
  type PictureItem,
  PROJECTIONS,
  pageStyle,
} from "@/core/job";
import { Button } from "../common/button";
import { Chooser } from "../common/chooser";
import { TextField } from "../common/text-field";
import { Tick } from "../common/tick";
import { useDesk, useDeskState } from "../desk/desk-context";
import { CardSettings } from "./card-settings";
import { useDrawings } from "./drawings-ground";
import {
  LETTER_CHOICES,
  PAGE_LENGTHS,
  PAPER_CHOICES,
  PROJECTION_WORDS,
  pageLengthsValue,
} from "./item-words";
import { ListSettings } from "./list-settings";
import {
  GRID,
  LongText,
  OptionalLength,
  paperLength,
  RemoveItems,
  ScaleField,
  useItemChange,
} from "./settings-parts";
import { JoinSizes, SizeSettings } from "./size-settings";
import { StepSettings } from "./step-settings";
import { TemplateSettings } from "./template-settings";
import { ViewSettings } from "./view-settings";

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

function PageSettings({ page, drawn }: { readonly page: Page; readonly drawn: DrawnPage }) {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  const set = (more: Partial<Page>) => desk.submit({ kind: "setPages", pages: [{ ...page, ...more }] });
  /** What stands on the page is arranged again on the other sheet. */
  const setSheet = (more: Pick<Partial<Page>, "paper" | "lying">) => {
    const { paper, lying } = { ...page, ...more };
    const title = titleOn({ ...page, paper, lying }, desk.store.getState().stockroom.titleBlock);
    const edits = arrangedOn(drawn, { paper, lying }, title, pageStyle(page, job).unit);
    return desk.submit({ kind: "together", what: "Change the sheet", edits });
  };
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
        onChoose={(paper) => setSheet({ paper })}
      />
      <Chooser
        label="Orientation"
        value={page.lying ? "landscape" : "portrait"}
        choices={[
          { value: "landscape", label: "Landscape" },
          { value: "portrait", label: "Portrait" },
        ]}
        onChoose={(way) => setSheet({ lying: way === "landscape" })}
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
      <Chooser
        label="Lengths and scales"
        value={pageLengthsValue(page)}
        choices={PAGE_LENGTHS}
        onChoose={(value) =>
          set({ lengths: PAGE_LENGTHS.find((one) => one.value === value)?.lengths ?? null })
        }
      />
      <TextField
        label="Drawn by, on all pages"
        value={job.info.job.drawnBy}
        placeholder="written in by hand"
        onCommit={(text) =>
          text.trim().length > 60
            ? "At most 60 letters."
            : desk.submit({ kind: "changeInfo", set: { drawnBy: text.trim() } })
        }
      />
      <span className="flex items-end gap-3">
        <Tick label="Border" on={page.border} onToggle={(border) => set({ border })} />
        <Tick label="Title block" on={page.titleBlock} onToggle={(titleBlock) => set({ titleBlock })} />
      </span>
      <span className="flex items-end">
        <Tick
          label="Mark changes"
          on={page.marksChanges}
          onToggle={(marksChanges) => set({ marksChanges })}
        />
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

function ItemSettings({ item, drawn }: { readonly item: PageItem; readonly drawn: DrawnPage }) {
  switch (item.kind) {
    case "view":
      return <ViewSettings item={item} drawn={drawn} />;
    case "list":
      return <ListSettings item={item} drawn={drawn} />;
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
    case "card":
      return <CardSettings item={item} />;
    case "template":
      return <TemplateSettings item={item} />;
    case "step":
      return <StepSettings item={item} />;
    case "picture":
      return <PictureSettings item={item} />;
    default:
      return item satisfies never;
  }
}

function Several({ items }: { readonly items: readonly PageItem[] }) {
  const sizes = items.flatMap((item) => (item.kind === "size" ? [item] : []));
  return (
    <div className="text-[13px] text-ink-soft">
      <p>
        {items.length} items selected. Move them with the arrow keys (1 mm; Alt 0.1 mm, Shift 10 mm), or
        remove them.
      </p>
      {sizes.length === items.length ? <JoinSizes items={sizes} /> : null}
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
      <OptionalLength
        label="Width, mm"
        value={item.width}
        placeholder="as the text is"
        least={10}
        most={1200}
        onSet={(width) => change({ width })}
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
