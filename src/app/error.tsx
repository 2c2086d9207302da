"use client";
/** When a page cannot be shown: a sentence and a way on, never a blank screen. */
import { Button } from "@/ui/common/button";

export default function PageError({ reset }: { readonly reset: () => void }) {
  return (
    <main className="mx-auto max-w-[60ch] p-12">
      <h1 className="font-semibold font-slab text-[26px]">This page could not be shown</h1>
      <p className="mt-3">
        Something went wrong while it was made. What was saved is safe. Load it again; if it stays like this,
        go back to all jobs.
      </p>
      <p className="mt-4 flex gap-3">
        <Button look="primary" onClick={reset}>
          Load again
        </Button>
        <a href="/" className="self-center font-semibold text-enamel underline underline-offset-2">
          Back to all jobs
        </a>
      </p>
    </main>
  );
}
