"use client";
/** The first facts of a new job: its code, its title and its unit, checked by the schema that the document has. */
import { valibotResolver } from "@hookform/resolvers/valibot";
import { type UseFormReturn, useForm } from "react-hook-form";
import * as v from "valibot";
import { JobInfoSchema } from "@/core/job";
import { LENGTH_UNITS, type LengthUnit } from "@/core/measure";
import { FormChooser, FormField } from "../common/form-field";
import { UNIT_NAMES } from "./unit-names";

const JobFactsSchema = v.pick(JobInfoSchema, ["code", "title", "unit"]);
export type JobFacts = v.InferOutput<typeof JobFactsSchema>;

export function useJobForm(unit: LengthUnit): UseFormReturn<JobFacts> {
  return useForm<JobFacts>({
    resolver: valibotResolver(JobFactsSchema),
    defaultValues: { code: "", title: "", unit },
  });
}

export type JobFieldsProps = {
  readonly form: UseFormReturn<JobFacts>;
  /** What the unit is asked as. */
  readonly unitLabel: string;
  /** A code and a title as they may look. */
  readonly like: readonly [code: string, title: string];
};

export function JobFields({ form, unitLabel, like }: JobFieldsProps) {
  return (
    <>
      <FormField form={form} name="code" label="Code" placeholder={like[0]} />
      <FormField form={form} name="title" label="Title" placeholder={like[1]} />
      <FormChooser
        form={form}
        name="unit"
        label={unitLabel}
        choices={LENGTH_UNITS.map((value) => ({ value, label: UNIT_NAMES[value] }))}
      />
    </>
  );
}
