"use client";
/**
 * What is read from the server outside a desk's edits: asked for when it is shown, again when the window is looked at
 * anew or something was changed, and shown as it was last known meanwhile. Desks do not go through it: their document
 * moves by edits alone.
 */
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import type { Result } from "@/core/kernel";
import { call, fetchBytes, type Refusal } from "./http";

export function Queries({ children }: { readonly children: ReactNode }) {
  const [client] = useState(
    () =>
      new QueryClient({
        defaultOptions: {
          // The server is on the same machine or in the same shop: an answer that failed is told, not waited for.
          // A page that is opened again shows what its server made, never what this window remembers from before.
          queries: { retry: false, gcTime: 0, networkMode: "always", staleTime: 10_000 },
        },
      }),
  );
  return <QueryClientProvider client={client}>{children}</QueryClientProvider>;
}

/** Why a question has no answer. */
export class Unanswered extends Error {
  readonly refusal: Refusal;
  constructor(refusal: Refusal) {
    super(refusal.message);
    this.refusal = refusal;
  }
}

/** What was answered; `Unanswered` is thrown as queries want it. */
export function orUnanswered<T>(reply: Result<T, Refusal>): T {
  if (!reply.ok) throw new Unanswered(reply.problem);
  return reply.value;
}

/** The answer to a GET, for a query. */
export const answerOf = async <T,>(url: string): Promise<T> => orUnanswered(await call<T>("GET", url));

/** The same as the bytes of its text. */
export const bytesOf = async (url: string): Promise<ArrayBuffer> => orUnanswered(await fetchBytes(url));
