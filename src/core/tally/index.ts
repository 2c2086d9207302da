/** The door of the tally. */

export { type AlikeBy, alike } from "./alike";
export type { CornerForm, Form, GrooveForm, HoleForm, MemberForm, MemberHoleForm, PanelForm } from "./forms";
export { moveInto, putTogether, splitOff } from "./hand-rows";
export { indexOfMark, markOf } from "./marks";
export type { Piece } from "./piece";
export { type PieceId, pieceIds } from "./piece-id";
export { holdMark, letMarkGo, markPicked, type NumberRule, type PickRule, renumber } from "./renumber";
export type { TallyRow } from "./row";
export { groupPieces } from "./rows";
export { type Stand, type StandKind, standOfForm } from "./stand";
export { type Balance, balances, createTallier, type LeftOut, type Tally } from "./tally";
