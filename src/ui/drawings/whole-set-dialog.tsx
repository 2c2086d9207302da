"use client";
/** The whole set in one action: what belongs to it, ticked as the shop has it by default, then drawn up elsewhere while the desk stays free. */
import { Files, LoaderCircle } from "lucide-react";
import { useState } from "react";
import { toast } from "sonner";
import type { SetRecipe } from "@/core/stockroom";
import { Button } from "../common/button";
import { Chooser } from "../common/chooser";
import { Dialog } from "../common/dialog";
import { call } from "../common/http";
import { Tick } from "../common/tick";
import { useDeskState } from "../desk/desk-context";
import { useDrawings } from "./drawings-ground";
import { useDrawUp } from "./use-set-drawing";

const PARTS: readonly (readonly [Exclude<keyof SetRecipe, "paper">, string])[] = [
  ["cover", "Cover with contents"],
  ["views", "Views of the job and of each assembly, with sizes and balloons"],
  ["apart", "The job whole and pulled apart"],
  ["steps", "Building steps of the job and of each assembly"],
  ["cards", "A card for each row"],
  ["cutList", "Cut list"],
  ["buyingList", "Buying list"],
  ["layouts", "Saved layouts"],
  ["templates", "Full-size templates of ends"],
];

export function WholeSetDialog() {
  const { setThread } = useDrawings();
  const usual = useDeskState((state) => state.stockroom.setRecipe);
  const isInch = useDeskState((state) => ["in", "ft"].includes(state.job.info.job.unit));
  const [open, setOpen] = useState(false);
  const [recipe, setRecipe] = useState(usual);
  const { running, drawUp, stop } = useDrawUp(setThread);
  const save = async () => {
    const reply = await call("PUT", "/api/stockroom/set-recipe", recipe);
    if (reply.ok) toast("Saved: other jobs begin with it.");
    else toast.error(reply.problem.message);
  };
  return (
    <Dialog
      open={open}
      onOpen={(next) => {
        if (!next) stop();
        else setRecipe(usual);
        setOpen(next);
      }}
      title="Draw up the set"
      about="Adds the pages that the job needs and does not have yet. What is on pages already stays as it is."
      trigger={
        <Button look="plain" icon={<Files size={16} aria-hidden />}>
          Draw up the set
        </Button>
      }
      close="Cancel"
      foot={
        running ? (
          <Button look="outline" onClick={stop}>
            Stop
          </Button>
        ) : (
          <Button
            look="primary"
            onClick={() =>
              void drawUp(recipe, "Draw up the set").then((done) => {
                if (done) setOpen(false);
              })
            }
          >
            Draw up
          </Button>
        )
      }
    >
      <div className="mt-3">
        {PARTS.map(([part, label]) => (
          <Tick
            key={part}
            label={label}
            on={recipe[part]}
            onToggle={(on) => setRecipe((now) => ({ ...now, [part]: on }))}
          />
        ))}
        <div className="mt-2 flex items-end justify-between gap-3">
          <span className="w-48">
            <Chooser
              label="Paper"
              value={recipe.paper}
              choices={[
                { value: "medium", label: isInch ? "Tabloid" : "A3" },
                { value: "small", label: isInch ? "Letter" : "A4" },
              ]}
              onChoose={(paper) => setRecipe((now) => ({ ...now, paper }))}
            />
          </span>
          <Button look="plain" onClick={() => void save()}>
            Save as the shop's default
          </Button>
        </div>
        {running ? (
          <p role="status" className="mt-3 flex items-center gap-2 text-[13px]">
            <LoaderCircle size={16} className="animate-spin" aria-hidden />
            Drawing up the set. You can stop it: nothing is added before it is done.
          </p>
        ) : null}
      </div>
    </Dialog>
  );
}
