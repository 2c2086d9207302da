"use client";
/** The grooves and rebates of one panel: face, edge that they are measured from, sizes and stops as formulas. */
import { Plus, Trash2 } from "lucide-react";
import { type Groove, PANEL_EDGES, type Panel } from "@/core/job";
import { Button } from "../common/button";
import { Chooser } from "../common/chooser";
import { TextField } from "../common/text-field";

const FIELDS = [
  ["distance", "From the edge"],
  ["width", "Wide"],
  ["depth", "Deep"],
  ["stopAtStart", "Stops short by, start"],
  ["stopAtEnd", "Stops short by, end"],
] as const;

const FACES = [
  { value: "good", label: "good face" },
  { value: "other", label: "other face" },
];
const EDGES = PANEL_EDGES.map((edge) => ({ value: edge, label: `${edge} edge` }));

export function PanelWork({
  panel,
  onChange,
}: {
  readonly panel: Panel;
  readonly onChange: (work: Groove[]) => string | null;
}) {
  const set = (id: string, change: Partial<Groove>) =>
    onChange(panel.work.map((one) => (one.id === id ? { ...one, ...change } : one)));
  const add = () =>
    onChange([
      ...panel.work,
      {
        id: `groove-${crypto.randomUUID().slice(0, 8)}`,
        kind: "groove",
        face: "good",
        from: "front",
        distance: "10 mm",
        width: "6 mm",
        depth: "5 mm",
        stopAtStart: "0",
        stopAtEnd: "0",
      },
    ]);
  return (
    <section aria-label="Grooves" className="col-span-3 space-y-1.5">
      {panel.work.map((groove, i) => (
        <fieldset key={groove.id} className="grid grid-cols-4 gap-x-2 gap-y-1 border-seam border-l-2 pl-2">
          <legend className="sr-only">Groove {i + 1}</legend>
          <Chooser
            label={`Groove ${i + 1} on the`}
            value={groove.face}
            choices={FACES}
            onChoose={(face) => set(groove.id, { face: face as Groove["face"] })}
          />
          <Chooser
            label="Measured from the"
            value={groove.from}
            choices={EDGES}
            onChoose={(from) => set(groove.id, { from: from as Groove["from"] })}
          />
          {FIELDS.map(([field, label]) => (
            <TextField
              key={field}
              label={label}
              value={groove[field]}
              onCommit={(text) => set(groove.id, { [field]: text })}
            />
          ))}
          <span className="self-end">
            <Button
              look="danger"
              icon={<Trash2 size={14} aria-hidden />}
              aria-label={`Remove groove ${i + 1}`}
              onClick={() => onChange(panel.work.filter((one) => one.id !== groove.id))}
            >
              Remove
            </Button>
          </span>
        </fieldset>
      ))}
      <Button look="plain" icon={<Plus size={14} aria-hidden />} onClick={add}>
        Add a groove
      </Button>
    </section>
  );
}
