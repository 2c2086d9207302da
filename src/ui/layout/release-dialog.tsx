"use client";
import { Tags } from "lucide-react";
import { useState } from "react";
import { restsToKeep, type SavedLayout, usedRack } from "@/core/layout";
/** Sending a layout to the floor: what leaves the rack and what enters it, and labels for the new pieces. */
import { type LengthStyle, sayLength, saySizes } from "@/core/measure";
import type { RackPiece } from "@/core/stockroom";
import { Button, buttonClass } from "../common/button";
import { Dialog } from "../common/dialog";
import type { Released } from "../desk/desk-store";
import { useLayoutGround } from "./layout-ground";

const sizeIn =
  (style: LengthStyle) =>
  ({ length, width }: Pick<RackPiece, "length" | "width">) =>
    saySizes(width === null ? [length] : [length, width], style);

export function ReleaseDialog({
  saved,
  disabled,
}: {
  readonly saved: SavedLayout;
  readonly disabled: boolean;
}) {
  const ground = useLayoutGround();
  const sizeOf = sizeIn(ground.style);
  const [open, setOpen] = useState(false);
  const [done, setDone] = useState<Released | null>(null);
  const leaving = usedRack(saved).map((id) => ground.rackLabel(id));
  const entering = restsToKeep(saved);
  const release = async () => setDone(await ground.release(saved.taskId));
  return (
    <Dialog
      open={open}
      onOpen={(next) => {
        setOpen(next);
        if (!next) setDone(null);
      }}
      title={done ? "Released" : "Release this layout to the floor"}
      about={null}
      trigger={<Button disabled={disabled}>Release</Button>}
      close={done ? "Close" : "Cancel"}
      foot={
        done ? null : (
          <Button look="primary" onClick={() => void release()}>
            Release
          </Button>
        )
      }
    >
      {done ? (
        <Outcome done={done} />
      ) : (
        <div className="mt-2 text-[14px]">
          <p>
            {leaving.length === 0
              ? "No offcuts are used from the rack."
              : `Offcuts used: ${leaving.join(", ")}.`}
          </p>
          <p className="mt-1">
            {entering.length === 0
              ? saved.problem.keep > 0
                ? `No offcut is as large as ${sayLength(saved.problem.keep, ground.style)}.`
                : 'No offcuts will be kept. Set "Smallest offcut to keep".'
              : `Offcuts added: ${entering.map(sizeOf).join(", ")}.`}
          </p>
        </div>
      )}
    </Dialog>
  );
}

function Outcome({ done }: { readonly done: Released }) {
  const sizeOf = sizeIn(useLayoutGround().style);
  const ids = done.entered.map((piece) => piece.id).join(",");
  return (
    <div className="mt-2 text-[14px]">
      {done.left.length > 0 ? (
        <p>Cut up: {done.left.map((piece) => `${piece.label} (${sizeOf(piece)})`).join(", ")}.</p>
      ) : null}
      {done.entered.length > 0 ? (
        <>
          <ul className="mt-1 list-disc pl-5">
            {done.entered.map((piece) => (
              <li key={piece.id}>
                <b className="font-semibold font-slab">{piece.label}</b> {sizeOf(piece)}
              </li>
            ))}
          </ul>
          <a
            className={`${buttonClass("plain")} mt-2`}
            href={`/api/rack/labels?ids=${ids}`}
            target="_blank"
            rel="noreferrer"
          >
            <Tags size={15} aria-hidden /> Labels for the rack (PDF)
          </a>
        </>
      ) : (
        <p>No offcuts were added to the rack.</p>
      )}
    </div>
  );
}
