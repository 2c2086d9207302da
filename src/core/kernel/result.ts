/**
 * A value or a reason why there is none. Everything a user can get wrong travels as a `Result`;
 * exceptions are left to broken invariants and to input and output.
 */
export type Ok<T> = { readonly ok: true; readonly value: T };
export type Err<E> = { readonly ok: false; readonly problem: E };
export type Result<T, E> = Ok<T> | Err<E>;

export function ok<T>(value: T): Ok<T> {
  return { ok: true, value };
}

export function err<E>(problem: E): Err<E> {
  return { ok: false, problem };
}
