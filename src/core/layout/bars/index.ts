/** The door of the bar layouts. */

export {
  type BarRefusal,
  type BarSpot,
  barRefusalWords,
  bringPieceBack,
  movePiece,
  type PieceAt,
  setPieceAside,
  setPieceLock,
  turnPiece,
} from "./by-hand";
export { type BarCuttingOrder, type BarStep, barCuts } from "./cutting-order";
export { lockedBarFault } from "./instance";
export { type BarOptions, type BarProgress, layOutBars } from "./layout";
export {
  type BarLayout,
  type BarProblem,
  type BarProblemInput,
  BarProblemSchema,
  type CutBar,
  PIECE_TURNS,
  type PieceEnds,
  type PieceTurn,
  readBarProblem,
  trims,
  type Unplaced,
  usableLength,
} from "./problem";
export { leansOf, type PieceOutline, pieceOutlines } from "./result";
export type { Column, LinearAnswer, LinearProgram, LinearSolver } from "./solver";
export { verifyBars } from "./verify";
