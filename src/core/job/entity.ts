/** A table of the job document: what its records are, and what they have got since the first version. */
import type * as v from "valibot";

export type Entity<S extends v.GenericSchema> = {
  readonly schema: S;
  /** The document version that first had the table. */
  readonly since: number;
  /** By document version: the fields that records got in it, with the value that says what held before. */
  readonly added: Readonly<Record<number, object>>;
};

export const entity = <S extends v.GenericSchema>(
  schema: S,
  { since = 1, added = {} }: Partial<Omit<Entity<S>, "schema">> = {},
): Entity<S> => ({ schema, since, added });
