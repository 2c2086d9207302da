"use client";
/** The whole set in one action: what belongs to it, ticked as the shop has it by default, then drawn up elsewhere while the desk stays free. */
import { Files, LoaderCircle } from "lucide-react";
import { useState } from "react";
import { toast } from "sonner";
import { offeredScales, scaleWords } from "@/core/drawing";
import { addedLists } from "@/core/job";
import { counted } from "@/core/kernel";
import type { SetRecipe } from "@/core/stockroom";
import { Button } from "../common/button";
import { Chooser } from "../common/chooser";
import { Dialog } from "../common/dialog";
import { call } from "../common/http";
import { Tick } from "../common/tick";
import { useDeskState } from "../desk/desk-context";
import { useDrawings } from "./drawings-ground";
import { useDrawUp } from "./use-set-drawing";

type Ticked = Exclude<keyof SetRecipe, "paper" | "lists" | "scale">;
const PARTS: readonly (readonly [Ticked, string])[] = [
  ["cover", "Cover with contents"],
  ["views", "Views of job and assemblies"],
  ["sizes", "Sizes on these views"],
  ["balloons", "Balloons on these views"],
  ["apart", "The job whole and pulled apart"],
  ["steps", "Building steps"],
  ["cards", "A card for each row"],
  ["templates", "Full-size templates of ends"],
  ["cutList", "Cut list"],
  ["buyingList", "Buying list"],
  ["layouts", "Saved layouts"],
];

export function WholeSetDialog() {
  const { setThread } = useDrawings();
  const usual = useDeskState((state) => state.stockroom.setRecipe);
  const job = useDeskState((state) => state.job);
  const { unit } = job.info.job;
  const isInch = unit === "in" || unit === "ft";
  const [open, setOpen] = useState(false);
  const [recipe, setRecipe] = useState(usual);
  const { running, pages, drawUp, stop } = useDrawUp(setThread);
  // Those of the job, and those that the recipe names beside them.
  const own = new Set(addedLists(job).map(({ name }) => name));
  const lists = [...new Set([...own, ...usual.lists])];
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
        <div className="grid grid-cols-2 gap-x-3">
          {PARTS.map(([part, label]) => (
            <Tick
              key={part}
              label={label}
              on={recipe[part]}
              onToggle={(on) => setRecipe((now) => ({ ...now, [part]: on }))}
            />
          ))}
          {lists.map((name) => (
            <Tick
              key={name}
              label={own.has(name) ? name : `${name} (not in this job)`}
              on={recipe.lists.includes(name)}
              onToggle={(on) =>
                setRecipe((now) => ({
                  ...now,
                  lists: on ? [...now.lists, name] : now.lists.filter((one) => one !== name),
                }))
              }
            />
          ))}
        </div>
        <div className="mt-2 flex items-end justify-between gap-3">
          <span className="w-48">
            <Chooser
              label="Paper"
              value={recipe.paper}
              choices={[
                { value: "medium", label: isInch ? "Tabloid" : "A3" },
                { value: "small", label: isInch ? "Letter" : "A4" },
                { value: "large", label: isInch ? "ANSI C" : "A2" },
              ]}
              onChoose={(paper) => setRecipe((now) => ({ ...now, paper }))}
            />
          </span>
          <span className="w-48">
            <Chooser
              label="Views no larger than"
              value={recipe.scale === null ? "" : String(recipe.scale)}
              choices={[
                { value: "", label: "they have room" },
                ...offeredScales(unit).map((scale) => ({
                  value: String(scale),
                  label: scaleWords(scale, unit),
                })),
              ]}
              onChoose={(scale) =>
                setRecipe((now) => ({ ...now, scale: scale === "" ? null : Number(scale) }))
              }
            />
          </span>
          <Button look="plain" onClick={() => void save()}>
            Save as the shop's default
          </Button>
        </div>
        {running ? (
          <p role="status" className="mt-3 flex items-center gap-2 text-[13px]">
            <LoaderCircle size={16} className="animate-spin" aria-hidden />
            Drawing up the set: {counted(pages, "page")} so far. You can stop it: nothing is added before it
            is done.
          </p>
        ) : null}
      </div>
    </Dialog>
  );
}
