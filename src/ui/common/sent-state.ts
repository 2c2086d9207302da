"use client";
/** Something small that is kept as one whole: changed at once on what was set last, and sent one after the other. */
import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import { toast } from "sonner";
import { call } from "./http";

/** What is set now, and a change of it. A change that is not taken is told; what is set stays in the page. */
export function useSentState<T>(
  saved: T,
  url: string,
): readonly [now: T, change: (make: (now: T) => T) => void] {
  const router = useRouter();
  const [shown, show] = useState(saved);
  /** What is set now, also between two renders, and the change that is on its way. */
  const latest = useRef(saved);
  const sending = useRef<Promise<void>>(Promise.resolve());
  const change = (make: (now: T) => T) => {
    const next = make(latest.current);
    latest.current = next;
    show(next);
    sending.current = sending.current.then(async () => {
      const reply = await call("PUT", url, next);
      if (!reply.ok) toast.error(reply.problem.message);
      router.refresh();
    });
  };
  return [shown, change];
}
