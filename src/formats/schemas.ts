/** The JSON Schemas of the open formats, made from the very schemas that files are read by. */
import { toJsonSchema } from "@valibot/to-json-schema";
import type * as v from "valibot";
import { BarProblemSchema } from "@/core/layout/bars";
import { NestingProblemSchema } from "@/core/layout/nesting";
import { SheetProblemSchema } from "@/core/layout/sheets";
import { JobFileSchema } from "./job-file";

/** By the name of their file. What JSON Schema cannot say (trimming, finiteness) is left to the reader. */
export function publishedSchemas(): Readonly<Record<string, object>> {
  const made = (schema: v.GenericSchema) =>
    toJsonSchema(schema, { errorMode: "ignore", typeMode: "input", target: "draft-2020-12" });
  return {
    "job-file.schema.json": made(JobFileSchema),
    "bar-problem.schema.json": made(BarProblemSchema),
    "sheet-problem.schema.json": made(SheetProblemSchema),
    "shape-problem.schema.json": made(NestingProblemSchema),
  };
}
