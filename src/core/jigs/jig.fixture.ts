/** A jig as its form offers it in millimetres, with the first stock of each kind. */
import type { Stockroom } from "../stockroom";
import type { Jig } from "./jig";

export function jigValues(jig: Jig, { sections, boards }: Stockroom): Readonly<Record<string, string>> {
  const isTimber = (timber: boolean) => sections.find(({ shape }) => (shape.kind === "timber") === timber);
  return Object.fromEntries(
    jig.fields.map((field): [string, string] => {
      switch (field.kind) {
        case "length":
          return [field.name, field.value.mm];
        case "count":
          return [field.name, String(field.value)];
        case "choice":
          return [field.name, field.choices[0]?.[0] ?? ""];
        case "section":
          return [field.name, field.like ? "" : (isTimber(false)?.id ?? "")];
        case "timber":
          return [field.name, isTimber(true)?.id ?? ""];
        case "board":
          return [field.name, boards[0]?.id ?? ""];
        default:
          return field satisfies never;
      }
    }),
  );
}
