/** A table of the job document: what its records are, and what they have got since the first version. */
import type * as v from "valibot";

export type Entity<S extends v.GenericSchema> = {
  readonly schema: S;
  /** The document version that first had the table. */
  readonly since: number;
  /** By document version: the fields that records got in it, with the value that says what held before. */
  readonly added: Readonly<Record<number, object>>;
  /** By document version: what became of records in it; a record of today stays what it is. */
  readonly changed: Readonly<Record<number, (record: Stored) => Stored>>;
};

/** A record as it was stored, of whatever version. */
export type Stored = Readonly<Record<string, unknown>>;

export const entity = <S extends v.GenericSchema>(
  schema: S,
  { since = 1, added = {}, changed = {} }: Partial<Omit<Entity<S>, "schema">> = {},
): Entity<S> => ({ schema, since, added, changed });
