"use client";
/** Choosing a section of the stockroom, or a new one that is typed as people say it and is in the stockroom from then on. */
import { useState } from "react";
import { Button } from "../common/button";
import { Chooser } from "../common/chooser";
import { Dialog, DialogClose } from "../common/dialog";
import { FormField } from "../common/form-field";
import { Fault } from "../common/notice";
import { useSentForm } from "../common/use-sent-form";
import { entryFaultWords } from "../stockroom/entry-fault";
import { useDesk, useDeskState } from "./desk-context";

/** Chosen in the place of a section: one that is not in the stockroom yet. */
const NEW = "new section";

type Choice = { readonly value: string; readonly label: string };

type Props = {
  readonly label?: string;
  /** Empty: what is usual; null: they differ. */
  readonly value: string | null;
  readonly placeholder?: string;
  /** What stands before the sections. */
  readonly before?: readonly Choice[];
  readonly onChoose: (id: string) => void;
};

export function SectionChooser({ label = "Section", value, placeholder, before = [], onChoose }: Props) {
  const sections = useDeskState((state) => state.stockroom.sections);
  const [typing, setTyping] = useState(false);
  return (
    <>
      <Chooser
        label={label}
        value={value}
        {...(placeholder === undefined ? {} : { placeholder })}
        choices={[
          { value: "", label: "default" },
          ...before,
          ...sections.map(({ id, name }) => ({ value: id, label: name })),
          { value: NEW, label: "New section…" },
        ]}
        onChoose={(id) => (id === NEW ? setTyping(true) : onChoose(id))}
      />
      <Dialog
        open={typing}
        onOpen={setTyping}
        title="New section"
        about="Kind and sizes, as you say them. It comes into the stockroom with the material, kerf, trims and lengths that your other sections of its kind have."
        trigger={null}
        close={null}
      >
        {typing ? (
          <NewSection
            onMade={(id) => {
              setTyping(false);
              onChoose(id);
            }}
          />
        ) : null}
      </Dialog>
    </>
  );
}

function NewSection({ onMade }: { readonly onMade: (id: string) => void }) {
  const desk = useDesk();
  const { form, onSubmit, fault } = useSentForm({ name: "" }, async ({ name }) => {
    const made = await desk.addSection(name);
    if (!made.ok)
      return made.problem.kind === "refused" ? made.problem.message : entryFaultWords(made.problem);
    onMade(made.value);
    return null;
  });
  return (
    <form className="mt-3 space-y-3" noValidate onSubmit={onSubmit}>
      <FormField
        form={form}
        name="name"
        label="Section"
        placeholder="2 x 2 x 1/8 in angle, square tube 50 x 50 x 4"
        autoFocus
      />
      {fault ? <Fault>{fault}</Fault> : null}
      <div className="flex justify-end gap-2">
        <DialogClose />
        <Button look="primary" type="submit">
          Add section
        </Button>
      </div>
    </form>
  );
}
