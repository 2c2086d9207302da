/** What edits are called where people read of them. */
import { counted, unreachable } from "../kernel";
import type { Edit } from "./edit";
import { layoutEditName } from "./edit-layout";
import { listEditName } from "./edit-lists";
import { pageEditName } from "./edit-pages";

/** What an edit is called in undo, in the log and in messages. */
export function editName(edit: Edit): string {
  switch (edit.kind) {
    case "together": {
      if (edit.what !== undefined) return edit.what;
      const first = edit.edits.find((part) => part.kind !== "keepMarks") ?? edit.edits[0];
      return first ? editName(first) : "Change";
    }
    case "changeInfo":
      return "Change the job's details";
    case "setKeySize":
      return `Set a key size to ${edit.formula}`;
    case "changeKeySize":
      return "Change a key size";
    case "addKeySize":
      return `Add key size ${edit.keySize.name}`;
    case "removeKeySize":
      return "Remove a key size";
    case "addVariant":
      return `Add variant ${edit.variant.name}`;
    case "removeVariant":
      return "Remove a variant";
    case "renameKeySize":
      return `Rename a key size to ${edit.name}`;
    case "changePoint":
      return "Move a point";
    case "changeMembers":
      return edit.ids.length === 1 ? "Change a member" : `Change ${edit.ids.length} members`;
    case "changePanels":
      return edit.ids.length === 1 ? "Change a panel" : `Change ${edit.ids.length} panels`;
    case "changeBoughtParts":
      return "Change bought parts";
    case "changeTypedPieces":
      return "Change typed-in pieces";
    case "addTypedPieces":
      return `Add ${counted(edit.pieces.length, "typed-in row")}`;
    case "removeTypedPieces":
      return "Remove typed-in rows";
    case "keepMarks":
      return edit.marks.some((kept) => kept.held) ? "Hold a mark" : "Renumber";
    case "setMeant":
      return edit.meant ? "Keep a small difference" : "Ask about a small difference again";
    case "setList":
    case "removeList":
    case "setOwnColumn":
    case "removeOwnColumn":
    case "setCell":
    case "clearCells":
    case "setHandRow":
    case "clearHandRows":
      return listEditName(edit);
    case "setLayoutSetting":
    case "setBlankGroup":
    case "removeBlankGroup":
      return layoutEditName(edit);
    case "setPages":
    case "removePages":
    case "setPageItems":
    case "removePageItems":
      return pageEditName(edit);
    case "insert":
      return edit.what;
    case "remove":
      return edit.ids.length === 1 ? "Remove a piece" : `Remove ${edit.ids.length} pieces`;
    case "movePoints":
      return edit.points.length === 1 ? "Move a point" : `Move ${edit.points.length} points`;
    case "changeLines":
      return edit.members.length === 1 ? "Move a member" : `Move ${edit.members.length} members`;
    case "setImport":
      return "Read a file";
    case "removeImport":
      return "Forget a file";
    case "joinPoints":
      return "Join two points";
    case "splitLine":
      return "Split a line";
    case "makeAssembly":
      return `Make assembly ${edit.assembly.name}`;
    case "changeAssemblies":
      return "Change an assembly";
    case "changePlacements":
      return edit.ids.length === 1 ? "Change a placement" : `Change ${edit.ids.length} placements`;
    default:
      return unreachable(edit);
  }
}
