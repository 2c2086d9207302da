"use client";
/** Search over rows, key sizes and stages (Ctrl+K). */
import { Command } from "cmdk";
import { useDesk, useDeskState } from "./desk-context";
import { STAGE_NAMES, STAGES, type Stage } from "./stages";

export type SearchProps = {
  readonly open: boolean;
  readonly onOpen: (open: boolean) => void;
  readonly onStage: (stage: Stage) => void;
};

const item =
  "flex cursor-pointer gap-3 rounded-sm px-2 py-1.5 text-[14px] data-[selected=true]:bg-brass-pale";

export function SearchDialog({ open, onOpen, onStage }: SearchProps) {
  return (
    <Command.Dialog
      open={open}
      onOpenChange={onOpen}
      label="Search this job"
      overlayClassName="fixed inset-0 z-40 bg-ink/40"
      contentClassName="fixed top-24 left-1/2 z-50 w-[520px] -translate-x-1/2 rounded-sm border border-seam bg-leaf p-2 shadow-xl"
    >
      <Search onDone={() => onOpen(false)} onStage={onStage} />
    </Command.Dialog>
  );
}

type DoneProps = { readonly onDone: () => void; readonly onStage: (stage: Stage) => void };

/** What can be found; it stands nowhere while the dialog is closed. */
function Search({ onDone, onStage }: DoneProps) {
  const desk = useDesk();
  const rows = useDeskState((state) => state.results.tally.rows);
  const keySizes = useDeskState((state) => state.job.keySizes);
  const done = (work: () => void) => {
    onDone();
    work();
  };
  return (
    <>
      <Command.Input
        placeholder="A mark, a name, a key size, a stage"
        className="h-9 w-full border-seam border-b px-2 text-[15px] outline-none"
      />
      <Command.List className="max-h-80 overflow-auto pt-2">
        <Command.Empty className="px-2 py-3 text-ink-soft">Nothing here is called that.</Command.Empty>
        <Command.Group heading="Pieces" className="text-[12px] text-ink-soft">
          {rows.map((row) => (
            <Command.Item
              key={row.id}
              value={`${row.mark} ${row.name} ${row.stockName ?? ""} ${row.id}`}
              className={item}
              onSelect={() => done(() => desk.select(row.pieces.map((piece) => piece.id)))}
            >
              <b className="w-8 font-slab text-ink">{row.mark}</b>
              <span className="text-ink">{row.name}</span>
              <span className="ml-auto text-ink-soft">{row.stockName}</span>
            </Command.Item>
          ))}
        </Command.Group>
        <Command.Group heading="Key sizes" className="text-[12px] text-ink-soft">
          {Object.values(keySizes).map((size) => (
            <Command.Item
              key={size.id}
              value={`key size ${size.name}`}
              className={item}
              onSelect={() =>
                done(() => {
                  desk.select([size.id]);
                  onStage("shape");
                })
              }
            >
              <span className="text-ink">{size.name}</span>
              <span className="ml-auto text-ink-soft">{size.formula}</span>
            </Command.Item>
          ))}
        </Command.Group>
        <Command.Group heading="Stages" className="text-[12px] text-ink-soft">
          {STAGES.map((stage) => (
            <Command.Item
              key={stage}
              value={`stage ${STAGE_NAMES[stage]}`}
              className={item}
              onSelect={() => done(() => onStage(stage))}
            >
              <span className="text-ink">{STAGE_NAMES[stage]}</span>
            </Command.Item>
          ))}
        </Command.Group>
      </Command.List>
    </>
  );
}
