"use client";
import { type FormEvent, useState } from "react";
import { Button } from "../common/button";
import { call } from "../common/http";
/** One field for the passcode of the shop. */
import { Fault } from "../common/notice";

export function EnterPage({ to }: { readonly to: string }) {
  const [passcode, setPasscode] = useState("");
  const [fault, setFault] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const enter = async (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    const reply = await call("POST", "/api/enter", { passcode });
    setBusy(false);
    if (reply.ok) window.location.assign(to);
    else setFault(reply.problem.message);
  };
  return (
    <main className="mx-auto mt-[16vh] max-w-[360px] border border-seam bg-leaf p-6">
      <h1 className="font-semibold font-slab text-[22px]">Rustic Tally</h1>
      <form onSubmit={(event) => void enter(event)} className="mt-4 flex flex-col gap-3">
        <label className="flex flex-col gap-1 text-[14px]">
          Passcode of the shop
          <input
            type="password"
            autoComplete="current-password"
            className="h-9 border border-seam bg-white px-2"
            value={passcode}
            aria-invalid={fault !== null}
            aria-describedby={fault === null ? undefined : "passcode-fault"}
            onChange={(event) => {
              setPasscode(event.target.value);
              setFault(null);
            }}
          />
        </label>
        {fault === null ? null : <Fault id="passcode-fault">{fault}</Fault>}
        <Button look="primary" type="submit" disabled={busy || passcode === ""}>
          Enter
        </Button>
      </form>
    </main>
  );
}
