"use client";
/** What stood on pages when they were put out last: asked for page by page as they are shown. */
import { useCallback, useEffect, useState } from "react";
import type { PutOut } from "@/core/release";
import { call } from "../common/http";
import { useDesk, useDeskState } from "../desk/desk-context";

export type PagesOut = {
  /** null: it was never put out; undefined: that is not known yet. */
  readonly of: (page: string) => PutOut | null | undefined;
  /** Asks again: pages were put out. */
  readonly again: () => void;
};

type Known = ReadonlyMap<string, PutOut | null>;
const NOTHING: Known = new Map();

export function usePutOut(active: boolean, wanted: readonly string[]): PagesOut {
  const desk = useDesk();
  const variant = useDeskState((state) => state.variant);
  const [held, setHeld] = useState<{ readonly variant: string | null; readonly known: Known }>({
    variant: null,
    known: NOTHING,
  });
  const known = held.variant === variant ? held.known : NOTHING;
  const missing = [...new Set(wanted)].filter((id) => !known.has(id)).join(" ");
  useEffect(() => {
    if (!active || missing === "") return;
    const { id } = desk.store.getState();
    const ids = missing.split(" ");
    const query = new URLSearchParams([["variant", variant ?? ""], ...ids.map((one) => ["page", one])]);
    let isWanted = true;
    void call<{ readonly pages: Readonly<Record<string, PutOut>> }>(
      "GET",
      `/api/jobs/${encodeURIComponent(id)}/put-out?${query}`,
    ).then((reply) => {
      // Without an answer nothing is told of it; it is asked again with the next page.
      if (!isWanted || !reply.ok) return;
      const found = ids.map((one): [string, PutOut | null] => [one, reply.value.pages[one] ?? null]);
      setHeld((now) => ({
        variant,
        known: new Map([...(now.variant === variant ? now.known : NOTHING), ...found]),
      }));
    });
    return () => {
      isWanted = false;
    };
  }, [active, desk, variant, missing]);
  const again = useCallback(() => setHeld({ variant: null, known: NOTHING }), []);
  const of = useCallback((page: string) => known.get(page), [known]);
  return { of, again };
}
