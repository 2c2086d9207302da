/** What the layouts of a job and of a combined layout are answered with: kept, released, and taken away as diagrams. */
import * as v from "valibot";
import type { DiagramInput } from "@/core/drawing";
import { type SavedLayout, savedFault } from "@/core/layout";
import { type LayoutOwner, readRack, releaseLayout, saveLayout } from "@/db";
import { connection, DIAGRAM_FORMATS, isDiagramFormat, printDiagrams } from "@/server";
import { download, sayJson, sayProblem } from "./answer";

/** How a layout is named in a request. */
export const taskId = v.pipe(v.string(), v.maxLength(300));

/** Keeps a layout that was checked again here, and says what lies in the rack since. */
export async function saySaved(owner: LayoutOwner, saved: SavedLayout): Promise<Response> {
  const fault = savedFault(saved);
  if (fault) return sayProblem(`The layout was not saved: ${fault}.`, 422);
  const db = await connection();
  const refused = await saveLayout(db, owner, saved, Date.now());
  return refused === null ? sayJson({ rack: await readRack(db) }) : sayProblem(refused, 409);
}

/** Releases a layout to the floor. */
export async function sayReleased(owner: LayoutOwner, task: string): Promise<Response> {
  const db = await connection();
  const now = Date.now();
  const outcome = await releaseLayout(db, owner, task, now);
  if (typeof outcome === "string") return sayProblem(outcome, 409);
  return sayJson({ ...outcome, releasedAt: now, rack: await readRack(db) });
}

type Diagrams = { readonly input: DiagramInput; readonly name: (format: string) => string };

/** The diagrams of the stock that a request asks for, from what `find` brings; its answer where that is nothing. */
export async function sayDiagrams(
  request: Request,
  find: (query: URLSearchParams, made: Date) => Promise<Diagrams | Response>,
): Promise<Response> {
  const query = new URL(request.url).searchParams;
  const format = query.get("format") ?? "pdf";
  if (!isDiagramFormat(format))
    return sayProblem(`There is no format "${format.slice(0, 20)}"; use pdf, svg or dxf.`, 400);
  const made = new Date();
  const found = await find(query, made);
  if (found instanceof Response) return found;
  const body = await printDiagrams(found.input, query.get("task") ?? "", format, made);
  if (body === null) return sayProblem("There is no layout of that stock. Lay it out first.", 404);
  return download(body, DIAGRAM_FORMATS[format], found.name(format));
}
