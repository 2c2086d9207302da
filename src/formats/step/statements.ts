/**
 * The statements of a STEP file (ISO 10303-21, clear text encoding) and the values in them. Statements are found in one pass
 * over the text, minding strings and comments; what stands in one is read when it is asked for.
 */
import { addTo, err, ok, type Problem, type Result } from "@/core/kernel";

/** A reference to another statement. */
export type Reference = { readonly ref: number };
/** A value with its type told, or one part of a statement of several types. */
export type Typed = { readonly type: string; readonly values: readonly Value[] };
/** `null` stands for what is left out ($) and what follows from elsewhere (*). */
export type Value = number | string | null | Reference | Typed | { readonly word: string } | readonly Value[];

type Span = { readonly from: number; readonly to: number };

export type Statements = {
  readonly text: string;
  /** The names of the schemas in its header. */
  readonly schemas: readonly string[];
  readonly ids: Iterable<number>;
  /** Where a statement stands in the text, its semicolon included. */
  readonly spanOf: (id: number) => Span | null;
  /** The parts of a statement: one, or several for a statement of several types; none where it cannot be read. */
  readonly partsOf: (id: number) => readonly Typed[];
  /** All statements that are of a type, alone or among others. */
  readonly ofType: (type: string) => readonly number[];
};

const [QUOTE, SEMICOLON, SLASH, STAR, HASH] = [39, 59, 47, 42, 35];

/** Finds the statements of a file; the problem says why it is no whole STEP file. `name`: that of the file, for the sentence. */
export function readStatements(name: string, bytes: Uint8Array): Result<Statements, Problem> {
  const refuse = (why: string) => err({ kind: "malformed", what: name, why } as const);
  if (bytes.length === 0) return refuse("it is empty");
  const text = textOf(bytes);
  const start = text.search(/ISO-10303-21\s*;/);
  if (start < 0 || start > 2_000)
    return refuse("it is not a STEP file: one begins with ISO-10303-21; save it as STEP (.stp, .step)");
  const data = /\bDATA\s*(?:\([^;]*\))?\s*;/g;
  data.lastIndex = start;
  const first = data.exec(text);
  if (!first) return refuse("it has no DATA section: it is cut short; export it again");
  const spans = new Map<number, Span>();
  const byType = new Map<string, number[]>();
  let isClosed = false;
  let from = data.lastIndex;
  for (let i = from; i < text.length; i++) {
    const code = text.charCodeAt(i);
    if (code === QUOTE) {
      const end = text.indexOf("'", i + 1);
      if (end < 0) break;
      i = end;
    } else if (code === SLASH && text.charCodeAt(i + 1) === STAR) {
      const end = text.indexOf("*/", i + 2);
      if (end < 0) break;
      i = end + 1;
    } else if (code === SEMICOLON) {
      const head = /^(?:\s|\/\*[\s\S]*?\*\/)*(?:#(\d+)\s*=\s*(\(?)\s*([A-Za-z_]\w*)?|(ENDSEC))/.exec(
        text.slice(from, Math.min(i + 1, from + 400)),
      );
      if (head?.[4]) isClosed = true;
      else if (head?.[1]) {
        const id = Number(head[1]);
        spans.set(id, { from, to: i + 1 });
        const types = head[2] ? typesIn(text.slice(from, i)) : [(head[3] ?? "").toUpperCase()];
        for (const type of types) addTo(byType, type, id);
      }
      from = i + 1;
      if (isClosed) break;
    }
  }
  if (!isClosed) return refuse("it ends in the middle: it was cut short; copy or export it again");
  if (spans.size === 0) return refuse("its DATA section is empty; export the parts again");
  const read = new Map<number, readonly Typed[]>();
  return ok({
    text,
    schemas: schemasIn(text.slice(start, first.index)),
    ids: spans.keys(),
    spanOf: (id) => spans.get(id) ?? null,
    partsOf: (id) => {
      const known = read.get(id);
      if (known) return known;
      const span = spans.get(id);
      const parts = span ? partsIn(text.slice(span.from, span.to)) : [];
      read.set(id, parts);
      return parts;
    },
    ofType: (type) => byType.get(type) ?? [],
  });
}

/** UTF-8 where it is that, else Latin-1: older programs write what they have. */
function textOf(bytes: Uint8Array): string {
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder("latin1").decode(bytes);
  }
}

function schemasIn(header: string): readonly string[] {
  const list = /FILE_SCHEMA\s*\(\s*\(([^)]*)\)/.exec(header)?.[1] ?? "";
  return [...list.matchAll(/'((?:[^']|'')*)'/g)].map(([, schema = ""]) => schema.trim());
}

/** The types of a statement that is of several, without what stands in strings. */
const typesIn = (statement: string): readonly string[] =>
  [...statement.replace(/'(?:[^']|'')*'/g, "''").matchAll(/([A-Za-z_]\w*)\s*\(/g)].map(([, type = ""]) =>
    type.toUpperCase(),
  );

/** Reads what stands after "#n =": a type with its values, or several in brackets. */
function partsIn(statement: string): readonly Typed[] {
  const equals = statement.indexOf("=");
  const reader = new Reader(statement, equals + 1);
  try {
    const value = reader.value();
    if (Array.isArray(value)) return value.filter(isTyped);
    return isTyped(value) ? [value] : [];
  } catch (thrown) {
    if (thrown instanceof Unreadable) return [];
    throw thrown;
  }
}

export const isTyped = (value: Value | undefined): value is Typed =>
  typeof value === "object" && value !== null && "type" in value;
export const isReference = (value: Value | undefined): value is Reference =>
  typeof value === "object" && value !== null && "ref" in value;

/** A statement that is not written as the standard says. */
class Unreadable extends Error {}

class Reader {
  private readonly text: string;
  private place: number;

  constructor(text: string, place: number) {
    this.text = text;
    this.place = place;
  }

  value(): Value {
    this.passSpace();
    const code = this.text.charCodeAt(this.place);
    if (code === QUOTE) return this.string();
    if (code === HASH) return { ref: Number(this.take(/#(\d+)/y)) };
    if (this.text[this.place] === "(") return this.list();
    const mark = this.takeMaybe(/([$*])/y);
    if (mark !== null) return null;
    const word = this.takeMaybe(/\.([A-Za-z_]\w*)\./y);
    if (word !== null) return { word: word.toUpperCase() };
    const number = this.takeMaybe(/([-+]?\d+\.?\d*(?:[Ee][-+]?\d+)?|[-+]?\.\d+(?:[Ee][-+]?\d+)?)/y);
    if (number !== null) return Number(number);
    const binary = this.takeMaybe(/"([0-9A-Fa-f]*)"/y);
    if (binary !== null) return binary;
    const type = this.take(/([A-Za-z_!]\w*)/y);
    this.passSpace();
    const values = this.list();
    // Parts of a statement of several types stand one after the other, without commas.
    return { type: type.toUpperCase(), values };
  }

  private list(): readonly Value[] {
    this.take(/(\()/y);
    const values: Value[] = [];
    for (;;) {
      this.passSpace();
      const next = this.text[this.place];
      if (next === undefined) throw new Unreadable();
      if (next === ")") break;
      if (next === ",") this.place++;
      else values.push(this.value());
    }
    this.place++;
    return values;
  }

  private string(): string {
    let end = this.place + 1;
    for (;;) {
      end = this.text.indexOf("'", end);
      if (end < 0) throw new Unreadable();
      if (this.text[end + 1] !== "'") break;
      end += 2;
    }
    const raw = this.text.slice(this.place + 1, end);
    this.place = end + 1;
    return decoded(raw);
  }

  private passSpace(): void {
    this.takeMaybe(/((?:\s|\/\*[\s\S]*?\*\/)*)/y);
  }

  private takeMaybe(pattern: RegExp): string | null {
    pattern.lastIndex = this.place;
    const found = pattern.exec(this.text);
    if (!found) return null;
    this.place = pattern.lastIndex;
    return found[1] ?? "";
  }

  private take(pattern: RegExp): string {
    const found = this.takeMaybe(pattern);
    if (found === null) throw new Unreadable();
    return found;
  }
}

/** The signs that a string spells out (ISO 10303-21, 6.4.3): \X2\…\X0\, \X4\…\X0\, \X\hh, \S\c and doubled quotes. */
export function decoded(raw: string): string {
  if (!/[\\']/.test(raw)) return raw.replace(/\s*\n\s*/g, "");
  return raw
    .replace(/\s*\n\s*/g, "")
    .replace(/\\X2\\((?:[0-9A-Fa-f]{4})*)\\X0\\/g, (_, hex: string) =>
      (hex.match(/.{4}/g) ?? []).map((unit) => String.fromCharCode(Number.parseInt(unit, 16))).join(""),
    )
    .replace(/\\X4\\((?:[0-9A-Fa-f]{8})*)\\X0\\/g, (_, hex: string) =>
      (hex.match(/.{8}/g) ?? [])
        .map((unit) => Number.parseInt(unit, 16))
        .map((point) => (point <= 0x10ffff ? String.fromCodePoint(point) : "?"))
        .join(""),
    )
    .replace(/\\X\\([0-9A-Fa-f]{2})/g, (_, hex: string) => String.fromCharCode(Number.parseInt(hex, 16)))
    .replace(/\\S\\(.)/g, (_, sign: string) => String.fromCharCode(sign.charCodeAt(0) + 128))
    .replace(/\\P[A-I]\\/g, "")
    .replace(/''/g, "'")
    .replace(/\\\\/g, "\\");
}
