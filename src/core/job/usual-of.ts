/** Which stock and material hold for a piece, and who said so: the piece itself, its assembly, a wider one, or the job. */
import type { Home } from "./assembly";
import { findAssembly, homeOfMember } from "./homes";
import type { Job } from "./job";
import type { Defaults } from "./usual";

/** `by`: the name of the assembly that says so, "job", or null where nobody does. */
export type DefaultChoice = {
  readonly value: string | null;
  readonly by: { readonly kind: "assembly"; readonly name: string } | { readonly kind: "job" } | null;
  /** Assemblies that say different things where they both hold this one; then nothing holds. */
  readonly disputed: readonly string[];
};

export type DefaultFinder = (home: Home, field: keyof Defaults) => DefaultChoice;

/**
 * Finds what is usual in a home. An assembly that says nothing follows those that it is placed in; where they
 * do not agree, nothing holds and they are named.
 */
export function defaultFinder(job: Job): DefaultFinder {
  const known = new Map<string, DefaultChoice>();
  const find = (home: Home, field: keyof Defaults, path: readonly Home[]): DefaultChoice => {
    const assembly = findAssembly(job, home);
    if (!assembly) {
      const value = job.info.job.usual[field];
      return { value, by: value === null ? null : { kind: "job" }, disputed: [] };
    }
    const key = `${field} ${assembly.id}`;
    const before = known.get(key);
    if (before) return before;
    const found = choiceIn(home, field, path);
    known.set(key, found);
    return found;
  };
  const choiceIn = (home: Home, field: keyof Defaults, path: readonly Home[]): DefaultChoice => {
    const assembly = findAssembly(job, home);
    const value = assembly?.usual[field] ?? null;
    if (assembly && value !== null)
      return { value, by: { kind: "assembly", name: assembly.name }, disputed: [] };
    const wider = new Set<Home>();
    for (const placement of Object.values(job.placements))
      if (placement.assembly === home && !path.includes(placement.into)) wider.add(placement.into);
    if (wider.size === 0) wider.add(null);
    const choices = [...wider].map((outer) => find(outer, field, [...path, home]));
    const [first] = choices;
    const values = new Set(choices.map((choice) => choice.value));
    if (first && values.size === 1) return first;
    const names = [...wider].map((outer) => findAssembly(job, outer)?.name ?? "the job");
    return { value: null, by: null, disputed: names };
  };
  return (home, field) => find(home, field, []);
}

/** Who chose a value: the piece itself, something around it, the entry of the stockroom, or nobody. */
export type Chooser =
  | { readonly kind: "own" | "job" | "stock" | "nobody" }
  | { readonly kind: "assembly"; readonly name: string };

type Fields = { readonly stock: "section" | "board"; readonly material: "memberMaterial" | "panelMaterial" };

/**
 * Who chose the stock and the material of a member or panel. What only the entry of the stockroom says of the
 * material is assumed: nobody in this job chose it.
 */
export function chosenBy(
  job: Job,
  id: string,
  stockMaterial: string | null,
): { readonly stock: Chooser; readonly material: Chooser } | null {
  const [member, panel] = [job.members[id], job.panels[id]];
  const find = defaultFinder(job);
  const choice = (own: string | null, home: Home, field: keyof Defaults): Chooser =>
    own !== null ? { kind: "own" } : (find(home, field).by ?? { kind: "nobody" });
  const both = (own: { stock: string | null; material: string | null }, home: Home, fields: Fields) => {
    const material = choice(own.material, home, fields.material);
    const assumed: Chooser = { kind: stockMaterial === null ? "nobody" : "stock" };
    return {
      stock: choice(own.stock, home, fields.stock),
      material: material.kind === "nobody" ? assumed : material,
    };
  };
  if (member)
    return both({ stock: member.section, material: member.material }, homeOfMember(job, member), {
      stock: "section",
      material: "memberMaterial",
    });
  if (panel)
    return both({ stock: panel.board, material: panel.material }, panel.assembly, {
      stock: "board",
      material: "panelMaterial",
    });
  return null;
}
