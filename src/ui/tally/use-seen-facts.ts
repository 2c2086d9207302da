"use client";
/** The rows as they were last looked at on this computer, so that what changed since can be flagged. */
import { useCallback, useState } from "react";
import { factsOf, type RowFacts } from "@/core/release";
import { useDesk, useDeskState } from "../desk/desk-context";
import { readSeen, writeSeen } from "./seen-store";

const keyOf = (id: string, variant: string | null) => `rustic-tally:seen:${id}:${variant ?? ""}`;

/** The facts that were seen, and the act of seeing them now. The first look counts as seen. */
export function useSeenFacts(): { readonly facts: readonly RowFacts[]; readonly acknowledge: () => void } {
  const desk = useDesk();
  const id = useDeskState((state) => state.id);
  const variant = useDeskState((state) => state.variant);
  const key = keyOf(id, variant);
  const [held, setHeld] = useState<{ readonly key: string; readonly facts: readonly RowFacts[] } | null>(
    null,
  );
  const now = useCallback(() => factsOf(desk.store.getState().results.tally), [desk]);
  let facts = held?.key === key ? held.facts : readSeen<RowFacts>(key);
  if (facts === null) {
    facts = now();
    writeSeen(key, facts);
  }
  if (held?.key !== key) setHeld({ key, facts });
  const acknowledge = useCallback(() => {
    const fresh = now();
    writeSeen(key, fresh);
    setHeld({ key, facts: fresh });
  }, [key, now]);
  return { facts, acknowledge };
}
