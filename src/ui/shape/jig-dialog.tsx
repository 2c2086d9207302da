"use client";
import { DraftingCompass } from "lucide-react";
import { useMemo, useState } from "react";
import { Controller, type UseFormReturn } from "react-hook-form";
import { thumbnail } from "@/core/drawing";
import { fillJig, JIGS, type Jig, type JigField, lastUsed } from "@/core/jigs";
import { type Job, resolveSizes, withEdit } from "@/core/job";
import { counted, type Problem, type Result, sentence } from "@/core/kernel";
import type { LengthUnit } from "@/core/measure";
import { type Shape, shapeJob } from "@/core/shape";
import type { Stockroom } from "@/core/stockroom";
import { Button } from "../common/button";
import { Chooser } from "../common/chooser";
/** Jigs: ready-made builds with a small form and a picture that follows what is typed. */
import { Dialog, DialogClose } from "../common/dialog";
import { DisplayList } from "../common/display-list";
import { Field } from "../common/field";
import { FormField } from "../common/form-field";
import { Fault } from "../common/notice";
import { Tick } from "../common/tick";
import { useSentForm } from "../common/use-sent-form";
import { useDesk, useDeskState } from "../desk/desk-context";
import { freshIds } from "./fresh-ids";

type Filling = Readonly<Record<string, string>>;

function startingValue(field: JigField, job: Job, stockroom: Stockroom): string {
  const { unit } = job.info.job;
  switch (field.kind) {
    case "length":
      return unit === "in" || unit === "ft" ? `${field.value.in} in` : `${field.value.mm} mm`;
    case "count":
      return String(field.value);
    case "choice":
      return field.choices[0]?.[0] ?? "";
    case "section":
      return field.like ? "" : (lastUsed(job, stockroom, "section") ?? "");
    case "timber":
      return lastUsed(job, stockroom, "timber") ?? "";
    case "board":
      return boardFor(field.name, job, stockroom);
    default:
      return field satisfies never;
  }
}

/** Backs and floors start with the thinnest board there is. */
function boardFor(name: string, job: Job, stockroom: Stockroom): string {
  const thin = name === "back" || name === "floor";
  const thinnest = [...stockroom.boards].sort((a, b) => a.thickness - b.thickness)[0];
  return (thin ? thinnest?.id : lastUsed(job, stockroom, "board")) ?? "";
}

/** In the job's own unit the bare number is enough. */
function bare(text: string, unit: LengthUnit): string {
  const own = unit === "mm" ? " mm" : unit === "in" ? " in" : null;
  return own && text.endsWith(own) ? text.slice(0, -own.length) : text;
}

const fillingOf = (jig: Jig, job: Job, stockroom: Stockroom): Filling =>
  Object.fromEntries(
    jig.fields.map((field) => [field.name, bare(startingValue(field, job, stockroom), job.info.job.unit)]),
  );

/** The jig by itself, on the job's key sizes. */
function previewOf(
  job: Job,
  jig: Jig,
  values: Filling,
  keepSizes: boolean,
  stockroom: Stockroom,
): Result<Shape, Problem> {
  const nothing = { points: {}, lines: {}, members: {}, panels: {}, boughtParts: {} };
  const bareJob: Job = { ...job, ...nothing, assemblies: {}, placements: {} };
  let count = 0;
  const filling = { values, place: "0; 0; 0", keepSizes, asAssembly: false, home: null };
  const edit = fillJig(bareJob, jig, filling, stockroom, (kind) => `${kind}${++count}`);
  const after = edit.ok ? withEdit(bareJob, edit.value) : edit;
  return after.ok
    ? { ok: true, value: shapeJob(after.value, resolveSizes(after.value, null), stockroom) }
    : after;
}

/** `first`: the jig that it opens with, by its id; null: it is closed. */
export function JigDialog({
  first,
  onOpen,
}: {
  readonly first: string | null;
  readonly onOpen: (first: string | null) => void;
}) {
  return (
    <Dialog
      open={first !== null}
      onOpen={(open) => onOpen(open ? (JIGS[0]?.id ?? null) : null)}
      title="Jigs"
      about="Ready-made builds. They insert ordinary geometry that can be changed afterwards."
      width="wide"
      trigger={
        <Button look="plain" icon={<DraftingCompass size={15} aria-hidden />}>
          Jigs
        </Button>
      }
      close={null}
    >
      {first === null ? null : <JigForm first={first} onDone={() => onOpen(null)} />}
    </Dialog>
  );
}

/** What the person chooses of a jig. */
type Filled = {
  readonly values: Filling;
  readonly place: string;
  readonly keepSizes: boolean;
  readonly asAssembly: boolean;
};

function FormTick({
  form,
  name,
  label,
}: {
  readonly form: UseFormReturn<Filled>;
  readonly name: "keepSizes" | "asAssembly";
  readonly label: string;
}) {
  return (
    <Controller
      control={form.control}
      name={name}
      render={({ field }) => <Tick label={label} on={field.value} onToggle={field.onChange} />}
    />
  );
}

function JigForm({ first, onDone }: { readonly first: string; readonly onDone: () => void }) {
  const desk = useDesk();
  const job = useDeskState((state) => state.job);
  const stockroom = useDeskState((state) => state.stockroom);
  const [jig, setJig] = useState<Jig>(() => JIGS.find(({ id }) => id === first) ?? (JIGS[0] as Jig));
  const home = useDeskState((state) => state.inside);
  const [start] = useState(() => ({
    values: fillingOf(jig, job, stockroom),
    place: "0; 0; 0",
    keepSizes: true,
    asAssembly: false,
  }));
  const { form, onSubmit, fault } = useSentForm<Filled>(start, (filled) => {
    const edit = fillJig(job, jig, { ...filled, home }, stockroom, freshIds(job));
    const refused = edit.ok ? desk.submit(edit.value) : sentence(edit.problem);
    if (refused === null) onDone();
    return refused;
  });
  const [values, keepSizes] = form.watch(["values", "keepSizes"]);
  const preview = useMemo(
    () => previewOf(job, jig, values, keepSizes, stockroom),
    [job, jig, values, keepSizes, stockroom],
  );
  const choose = (next: Jig) => {
    setJig(next);
    form.setValue("values", fillingOf(next, job, stockroom));
    form.clearErrors();
  };
  return (
    <form className="mt-3 grid grid-cols-[190px_330px_1fr] gap-5" noValidate onSubmit={onSubmit}>
      <ul aria-label="Which jig" className="border-seam border-r pr-3">
        {JIGS.map((one) => (
          <li key={one.id}>
            <button
              type="button"
              aria-pressed={one === jig}
              className={`w-full px-2 py-1.5 text-left ${one === jig ? "bg-brass-pale font-semibold" : "hover:bg-ground"}`}
              onClick={() => choose(one)}
            >
              {one.name}
            </button>
          </li>
        ))}
      </ul>
      <div className="space-y-1.5">
        <p className="pb-1 text-[13px] text-ink-soft">{jig.note}.</p>
        <Controller
          control={form.control}
          name="values"
          render={({ field: { value: all, onChange } }) => (
            <>
              {jig.fields
                .filter(({ isNeeded }) => isNeeded?.((name) => all[name] ?? "") ?? true)
                .map((field) => (
                  <JigInput
                    key={`${jig.id} ${field.name}`}
                    field={field}
                    value={all[field.name] ?? ""}
                    stockroom={stockroom}
                    onChange={(value) => onChange({ ...all, [field.name]: value })}
                  />
                ))}
            </>
          )}
        />
        <FormField
          form={form}
          name="place"
          label="Position (width; depth; height)"
          labelled="beside"
          align="right"
        />
        <FormTick form={form} name="keepSizes" label="Keep the sizes as key sizes of the job" />
        <FormTick form={form} name="asAssembly" label="As an assembly that can be placed again" />
      </div>
      <div className="sticky top-0 flex flex-col self-start">
        <JigPicture preview={preview} name={jig.name} />
        {fault ? <Fault className="pb-2">{fault}</Fault> : null}
        <div className="flex justify-end gap-2">
          <DialogClose />
          <Button look="primary" type="submit" disabled={!preview.ok}>
            Insert
          </Button>
        </div>
      </div>
    </form>
  );
}

function JigPicture({ preview, name }: { readonly preview: Result<Shape, Problem>; readonly name: string }) {
  const drawing = useMemo(() => (preview.ok ? thumbnail(preview.value, 330, 290) : null), [preview]);
  if (!preview.ok || !drawing) {
    return <Fault className="flex-1 pt-10">{preview.ok ? "" : sentence(preview.problem)}</Fault>;
  }
  const { members, panels, checks } = preview.value;
  const pieces = members.length + panels.length;
  return (
    <div className="flex-1">
      <DisplayList drawing={drawing} label={`3D view of the ${name}`} />
      <p className="py-1 text-[13px] text-ink-soft">
        {counted(pieces, "piece")}
        {checks.length > 0 ? <span className="block text-amber">{checks[0]?.message}</span> : null}
      </p>
    </div>
  );
}

type JigInputProps = {
  readonly field: JigField;
  readonly value: string;
  readonly stockroom: Stockroom;
  readonly onChange: (value: string) => void;
};

function JigInput({ field, value, stockroom, onChange }: JigInputProps) {
  if (field.kind === "length" || field.kind === "count")
    return (
      <Field
        label={field.label}
        labelled="beside"
        align="right"
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
    );
  const choices =
    field.kind === "choice"
      ? field.choices.map(([id, label]) => ({ value: id, label }))
      : [
          ...(field.kind === "section" && field.like ? [{ value: "", label: field.like.words }] : []),
          ...(field.kind === "board" ? stockroom.boards : stockroom.sections).map(({ id, name }) => ({
            value: id,
            label: name,
          })),
        ];
  return <Chooser label={field.label} value={value} choices={choices} onChoose={onChange} />;
}
